#include "core/study/told_gain.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr double overDipole = 2.15; // dBi of a half-wave in free space
constexpr double near = 1.0;        // dB

Measure decibels(double value) { return {value, units::Quantity::Decibel}; }

} // namespace

double strongestGain(const em::FarField& field)
{
    constexpr int elevationSteps = 30, azimuthSteps = 72;
    double strongest = -300.0, there = 0.0, towards = 0.0;
    std::vector<double> elevations, azimuths;
    for (int e = 1; e <= elevationSteps; ++e)
        elevations.push_back(0.5 * pi * e / elevationSteps);
    for (int a = 0; a < azimuthSteps; ++a)
        azimuths.push_back(2.0 * pi * a / azimuthSteps);
    const auto grid = field.gainGrid(elevations, azimuths);
    for (std::size_t e = 0; e < elevations.size(); ++e)
        for (std::size_t a = 0; a < azimuths.size(); ++a)
            if (grid[e][a] > strongest)
                strongest = grid[e][a], there = elevations[e], towards = azimuths[a];
    constexpr double step = 0.005; // rad; over perfect ground an upright's lobe lies on the horizon
    for (double e = std::max(1e-3, there - 0.06); e <= std::min(0.5 * pi, there + 0.06); e += step)
        strongest = std::max(strongest, field.gain(e, towards));
    return strongest;
}

Result<std::optional<GainElsewhere>> gainElsewhere(const std::shared_ptr<const WireModel>& model, double frequency,
                                                   em::GroundTableCache& tables, const em::SolveOptions& options, const Watch& watch)
{
    constexpr double onGround = 1e-3; // m
    const auto touches = [](const Wire& w) { return std::any_of(w.points.begin(), w.points.end(), [](Vec3 p) { return p.z < onGround; }); };
    if (model->ground.kind != GroundKind::Real || std::any_of(model->wires.begin(), model->wires.end(), touches))
        return std::optional<GainElsewhere>();
    WireModel overPerfect = *model;
    overPerfect.ground = {GroundKind::Perfect};
    overPerfect.beyond.clear();
    const auto solution = em::solve(std::make_shared<const WireModel>(std::move(overPerfect)), frequency, tables, options, watch);
    if (!solution)
        return solution.faults();
    GainElsewhere out;
    const em::FarField field(*solution);
    out.perfect = std::make_shared<const em::FarField>(field);
    out.withoutNearLoss = std::make_shared<const em::FarField>(field.reflectedBy(model->ground));
    out.strongestPerfect = strongestGain(*out.perfect);
    out.strongestWithoutNearLoss = strongestGain(*out.withoutNearLoss);
    if (watch.stopped())
        return stoppedFault();
    return std::optional(std::move(out));
}

Text whoseGain(double figure, double here, const GainElsewhere& elsewhere)
{
    const struct {
        double gain;
        Text words;
    } candidates[] = {
        {here, {coreText("core", "%1 is what is told here, over real ground with its loss: %2."), decibels(figure), decibels(here)}},
        {elsewhere.strongestWithoutNearLoss,
         {coreText("core", "%1 is probably told without the loss in the near ground: %2 so, %3 with it."), decibels(figure),
          decibels(elsewhere.strongestWithoutNearLoss), decibels(here)}},
        {elsewhere.strongestPerfect,
         {coreText("core", "%1 is probably told over perfect ground: %2 so, %3 over yours."), decibels(figure),
          decibels(elsewhere.strongestPerfect), decibels(here)}},
        {here - overDipole,
         {coreText("core", "%1 is probably told over a half-wave in free space, which itself has 2.15 dBi: %2 so, %3 here."),
          decibels(figure), decibels(here - overDipole), decibels(here)}}};
    const auto* best = &candidates[0];
    for (const auto& c : candidates)
        if (std::abs(c.gain - figure) < std::abs(best->gain - figure) - 1e-9)
            best = &c;
    if (std::abs(best->gain - figure) <= near)
        return best->words;
    return {
        coreText("core", "%1 is none of these: ask for its soil, height, frequency and direction, and whether a matched line was counted."),
        decibels(figure)};
}

} // namespace vetchling::study

#include "core/study/skies.h"

#include "core/study/far_ground.h"
#include "core/study/neighbours.h"
#include "core/study/reference_vertical.h"
#include "core/study/sky.h"

#include <cmath>

namespace vetchling::study {
namespace {

std::shared_ptr<const em::FarField> fedFromLine(const em::Solution& port, const std::optional<Transformer>& transformer)
{
    const em::FarField field(port);
    const double passed = transformer ? transformer->at(port.frequency).efficiency(port.impedance) : 1.0;
    return std::make_shared<const em::FarField>(passed > 0.0 ? field.fedWith(port.inputPower / passed) : field);
}

} // namespace

Result<Skies> skiesOf(Library& library, const Design& design, const Antenna& antenna, const Watch& watch)
{
    Question question = questionOf(design, antenna);
    question.before.reset();
    std::erase_if(question.bands, [](const WantedBand& w) { return w.wish == Wish::No; });
    const auto curves = curvesOf(library, question, watch, Reach::Near);
    if (!curves)
        return curves.faults();
    Skies out{antenna.id, antenna.name, {}};
    const std::vector<BandChoice> best = bestByBand(*curves);
    for (std::size_t i = 0; i < best.size(); ++i) {
        if (!best[i].coverage.solved())
            continue;
        const Curve& curve = *(*curves)[best[i].configuration];
        const double f = question.bands[i].band.centre();
        const auto solution = em::solve(std::make_shared<const WireModel>(curve.built->model), f, library.tables(), {}, watch);
        if (!solution)
            return solution.faults();
        out.bands[question.bands[i].id] = {f, best[i].coverage.lowestSwr, fedFromLine(*solution, curve.built->transformer)};
    }
    return unlessStopped(watch, std::move(out));
}

Result<std::vector<Skies>> verticalSkies(Library& library, const Ground& ground, const WantedBand& band, const Watch& watch,
                                         const std::vector<FarSector>& beyond)
{
    struct Height {
        const char* name;
        double waves;
    };
    static const Height heights[] = {{coreText("core", "¼ wave"), 0.25},
                                     {coreText("core", "½ wave"), 0.5},
                                     {coreText("core", "⅝ wave"), 0.625},
                                     {coreText("core", "¾ wave"), 0.75},
                                     {coreText("core", "1 wave"), 1.0}};
    std::vector<Skies> all;
    const double f = band.band.centre();
    for (const Height& height : heights) {
        shapes::AntennaShape shape = referenceVertical(f);
        shape.parameters["radiator_m"] = height.waves * wavelength(f);
        const auto built = shapes::buildOver(shape, ground);
        if (!built)
            return built.faults();
        WireModel model = built->model;
        model.beyond = beyond;
        const auto solution = em::solve(std::make_shared<const WireModel>(std::move(model)), f, library.tables(), {}, watch);
        if (!solution)
            return solution.faults();
        all.push_back({{}, height.name, {{band.id, {f, swr(solution->impedance), fedFromLine(*solution, std::nullopt)}}}});
    }
    return unlessStopped(watch, std::move(all));
}

Result<std::vector<Skies>> allSkies(Library& library, const Design& design, const std::vector<Antenna>& antennas, const Id& verticalsFor,
                                    const Watch& watch, const std::function<void(const std::vector<Skies>&)>& soFar)
{
    const Watch quiet = watch.with({});
    std::vector<Skies> all;
    for (const Antenna& antenna : antennas) {
        const Result<Skies> skies = skiesOf(library, design, antenna, quiet);
        if (watch.stopped())
            return stoppedFault();
        all.push_back(skies ? *skies : Skies{antenna.id, antenna.name, {}});
        watch.report(double(all.size()) / double(antennas.size() + 1));
        if (soFar)
            soFar(all);
    }
    if (const WantedBand* band = findBand(design, verticalsFor))
        if (const auto verticals = verticalSkies(library, design.site.soil.ground(), *band, quiet, sectorsOf(design.site)))
            all.insert(all.end(), verticals->begin(), verticals->end());
    return unlessStopped(watch, std::move(all));
}

std::vector<double> verticalCut(const em::FarField& field, double bearing)
{
    constexpr double horizon = 1e-4; // rad: exactly there nothing is radiated
    std::vector<double> elevations;
    for (int i = 0; i <= 90; ++i)
        elevations.push_back(std::max(radians(i), horizon));
    const double azimuth = azimuthOf(bearing);
    const auto grid = field.gainGrid(elevations, {azimuth, azimuth + pi});
    std::vector<double> gain;
    for (int i = 0; i <= 180; ++i)
        gain.push_back(i <= 90 ? grid[std::size_t(i)][0] : grid[std::size_t(180 - i)][1]);
    return gain;
}

SkyGrid skyGrid(const em::FarField& field)
{
    constexpr int rows = 60, columns = 120;
    SkyGrid out;
    std::vector<double> azimuths;
    for (int i = 0; i <= rows; ++i) {
        const double part = (i + 0.5) / (rows + 1); // low angles close together
        out.elevations.push_back(0.5 * pi * part * part);
    }
    for (int i = 0; i <= columns; ++i) {
        out.bearings.push_back(360.0 * i / columns);
        azimuths.push_back(azimuthOf(out.bearings.back()));
    }
    out.gain = field.gainGrid(out.elevations, azimuths);
    out.strongest = -HUGE_VAL;
    for (std::size_t e = 0; e < out.elevations.size(); ++e)
        for (std::size_t b = 0; b < out.bearings.size(); ++b)
            if (out.gain[e][b] > out.strongest) {
                out.strongest = out.gain[e][b];
                out.strongestElevation = out.elevations[e];
                out.strongestBearing = out.bearings[b];
            }
    return out;
}

std::vector<double> roundCut(const em::FarField& field, double elevation)
{
    constexpr double lowestRound = 0.5; // degrees: on the horizon itself a soil takes all
    std::vector<double> azimuths;
    for (int b = 0; b < 360; b += Lobe::roundStep)
        azimuths.push_back(azimuthOf(b));
    return field.gainGrid({radians(std::max(elevation, lowestRound))}, azimuths).front();
}

Lobe lobeOf(const em::FarField& field, double elevation, double bearing)
{
    return {verticalCut(field, bearing), roundCut(field, elevation), field.gain(std::max(radians(elevation), 1e-4), azimuthOf(bearing))};
}

} // namespace vetchling::study

#include "app/document/results.h"

#include "core/em/sensitivity.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr int elevationSteps = 30, azimuthSteps = 72;
constexpr double slopeStep = 0.005; // relative change of the tuned length that measures the trim slope

void findStrongest(SpotResult& spot)
{
    spot.strongest = -300.0;
    std::vector<double> elevations, azimuths;
    for (int e = 1; e <= elevationSteps; ++e)
        elevations.push_back(0.5 * pi * e / elevationSteps);
    for (int a = 0; a < azimuthSteps; ++a)
        azimuths.push_back(2.0 * pi * a / azimuthSteps);
    const auto grid = spot.field->gainGrid(elevations, azimuths);
    for (std::size_t e = 0; e < elevations.size(); ++e)
        for (std::size_t a = 0; a < azimuths.size(); ++a)
            if (grid[e][a] > spot.strongest + 1e-9)
                spot.strongest = grid[e][a], spot.strongestElevation = elevations[e], spot.strongestAzimuth = azimuths[a];
    for (double step : {0.02, 0.007}) // refine in elevation
        for (double e = spot.strongestElevation - 3 * step; e <= std::min(0.5 * pi, spot.strongestElevation + 3 * step); e += step)
            if (const double gain = spot.field->gain(std::max(e, 1e-3), spot.strongestAzimuth); gain > spot.strongest)
                spot.strongest = gain, spot.strongestElevation = e;
    spot.straightUp = spot.field->gain(0.5 * pi, 0.0);
}

Result<SpotResult> makeSpot(const CurveResult& curve, int band, double frequency, em::GroundTableCache& tables, const Watch& watch)
{
    em::SolveOptions options;
    options.wantedErrorPercent = em::usualErrorPercent;
    Result<em::Solution> solution = em::solve(std::make_shared<const WireModel>(curve.built.model), frequency, tables, options, watch);
    if (!solution)
        return solution.faults();
    SpotResult spot;
    spot.band = band;
    spot.solution = std::move(solution).value();
    spot.field = std::make_shared<const em::FarField>(spot.solution);
    findStrongest(spot);
    return spot;
}

/// Sensitivity of the dip to the tuned length, from the reactance's slopes: df/dL = -(dX/dL)/(dX/df) at resonance.
double trimSlope(const SolveRequest& request, const CurveResult& curve, em::GroundTableCache& tables, const Watch& watch)
{
    const Antenna& antenna = request.design->antennas[request.antenna];
    const shapes::Family* family = shapes::findFamily(antenna.shape.family);
    std::string key = family->tunedParameter();
    if (key == "inductance_H")
        key = "leg_m"; // coils are wound once; the wire ends are trimmed
    const double f = curve.resonance ? curve.resonance->frequency : curve.fundamental, length = family->value(antenna.shape, key);
    shapes::AntennaShape shorter = antenna.shape;
    shorter.parameters[key] = length * (1.0 - slopeStep);
    const auto built = shapes::buildOver(shorter, curve.built.model.ground);
    if (!built || !(f > 0.0))
        return 0.0;
    const auto model = std::make_shared<const WireModel>(curve.built.model);
    const double df = 0.002 * f;
    const auto here = em::solve(model, f, tables, {}, watch), higher = em::solve(model, f + df, tables, {}, watch);
    if (!here || !higher)
        return 0.0;
    const auto change = em::impedanceChange(*here, *model, built->model, tables, watch);
    if (!change)
        return 0.0;
    const auto phase = [](Complex z) { return z.imag() / std::abs(z); };
    const double byFrequency = (phase(higher->impedance) - phase(here->impedance)) / df;
    const double byCut = (phase(here->impedance + *change) - phase(here->impedance)) / (length * slopeStep);
    return std::max(0.0, -byCut / byFrequency);
}

/// The extremes of what the ground could be (ITU-R P.368 classes).
struct NamedGround {
    const char* name;
    Ground ground;
};
const NamedGround otherGrounds[] = {{"sea water", {GroundKind::Real, 70.0, 5.0}}, {"dry ground", {GroundKind::Real, 7.0, 0.0003}}};

Faults addOtherGrounds(DetailResult& out, const CurveResult& curve, em::GroundTableCache& tables, const Watch& watch)
{
    for (const NamedGround& other : otherGrounds) {
        auto model = std::make_shared<WireModel>(curve.built.model);
        model->ground = other.ground;
        const Result<em::Solution> solution = em::solve(model, out.spot()->solution.frequency, tables, {}, watch);
        if (!solution)
            return solution.faults();
        out.otherGrounds.push_back({other.name, std::make_shared<const em::FarField>(*solution)});
    }
    return {};
}

} // namespace

int CurveResult::bandsUnderLimit() const
{
    int count = 0;
    for (std::size_t i = 0; i < bands.size(); ++i)
        count += wanted[i].wish != Wish::No && bands[i].lowestSwr <= limit;
    return count;
}

int CurveResult::bandsWished() const
{
    return int(std::count_if(wanted.begin(), wanted.end(), [](const WantedBand& w) { return w.wish != Wish::No; }));
}

const SpotResult* DetailResult::spotOfBand(int band) const
{
    const auto found = std::find_if(spots.begin(), spots.end(), [&](const SpotResult& s) { return s.band == band; });
    return found == spots.end() ? nullptr : &*found;
}

double spotFrequency(const Coverage& coverage, double limit)
{
    return coverage.lowestSwr <= 3.0 * limit ? coverage.at : coverage.band.centre();
}

double bearingOf(double azimuth)
{
    const double bearing = std::fmod(90.0 - degrees(azimuth), 360.0);
    return bearing < 0.0 ? bearing + 360.0 : bearing;
}

double azimuthOf(double bearing) { return radians(90.0 - bearing); }

Result<CurvePointer> computeCurve(const SolveRequest& request, em::GroundTableCache& tables, const Watch& watch)
{
    const Design& design = *request.design;
    const Antenna& antenna = design.antennas[request.antenna];
    Result<shapes::BuiltAntenna> built = shapes::buildOver(antenna.shape, design.site.soil.ground());
    if (!built)
        return built.faults();
    em::SweepOptions options;
    options.from = sweepFrom;
    options.to = sweepTo;
    Result<em::ImpedanceCurve> curve = em::sweep(std::make_shared<const WireModel>(built->model), options, tables, watch);
    if (!curve)
        return curve.faults();

    auto out = std::make_shared<CurveResult>();
    out->shape = antenna.shape;
    out->built = std::move(built).value();
    out->curve = std::move(curve).value();
    out->wanted = design.operation.bands;
    out->limit = design.operation.swrLimit;
    const auto atLine = [&](double f) { return out->atLine(f); };
    const double f = antenna.shape.designFrequency, low = std::max(0.75 * f, sweepFrom), high = std::min(1.3 * f, sweepTo);
    if (low < high) {
        out->fundamental = nearestDip(atLine, f, low, high).value_or(f);
        for (const Resonance& r : resonances(atLine, low, high))
            if (!out->resonance || std::abs(r.frequency - out->fundamental) < std::abs(out->resonance->frequency - out->fundamental))
                out->resonance = r;
    } else
        out->fundamental = f;
    for (const WantedBand& wanted : out->wanted) {
        Band inside = wanted.band;
        inside.from = std::clamp(inside.from, sweepFrom, sweepTo);
        inside.to = std::clamp(inside.to, sweepFrom, sweepTo);
        out->bands.push_back(coverage(atLine, inside, out->limit, out->fundamental));
    }
    return CurvePointer(out);
}

Result<DetailPointer> computeDetail(const SolveRequest& request, const CurveResult& curve, em::GroundTableCache& tables, const Watch& watch)
{
    auto out = std::make_shared<DetailResult>();
    for (std::size_t i = 0; i < curve.wanted.size(); ++i) {
        const bool selected = int(i) == request.selectedBand;
        if (curve.wanted[i].wish == Wish::No && !selected)
            continue;
        Result<SpotResult> spot = makeSpot(curve, int(i), spotFrequency(curve.bands[i], curve.limit), tables, watch);
        if (!spot)
            return spot.faults();
        if (selected)
            out->selected = int(out->spots.size());
        out->spots.push_back(std::move(spot).value());
        watch.report(0.5 * double(i + 1) / double(curve.wanted.size()));
    }
    if (out->spot()) {
        const Result<em::PowerLedger> ledger = em::powerLedger(out->spot()->solution, tables, watch);
        if (!ledger)
            return ledger.faults();
        out->ledger = *ledger;
        if (Faults faults = addOtherGrounds(*out, curve, tables, watch); !faults.empty())
            return faults;
    }
    watch.report(0.7);
    const Antenna& antenna = request.design->antennas[request.antenna];
    const shapes::Family* family = shapes::findFamily(antenna.shape.family);
    TuneOptions options;
    options.goal = antenna.tuneForLowestSwr ? TuneGoal::LowestSwr : TuneGoal::Resonance;
    const auto tuned =
        tune(antenna.shape, curve.built.model.ground, family->tunedParameter(), antenna.shape.designFrequency, tables, options, watch);
    if (watch.stopped())
        return Fault{"", em::stoppedMessage};
    out->ruleValue = family->rules(antenna.shape, antenna.shape.designFrequency).front().value;
    if (tuned)
        out->solvedValue = tuned->value;
    else
        out->solvedFault = tuned.firstFault();
    out->trimSlope = trimSlope(request, curve, tables, watch);
    if (watch.stopped())
        return Fault{"", em::stoppedMessage};
    watch.report(1.0);
    return DetailPointer(out);
}

} // namespace vetchling::app

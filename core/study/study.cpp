#include "core/study/study.h"

#include "core/study/neighbours.h"
#include "core/study/sky.h"

#include <cmath>
#include <cstring>

namespace vetchling::study {
namespace {

constexpr int elevationSteps = 30, azimuthSteps = 72;

void findStrongest(PortSpot& spot, const Watch& watch)
{
    spot.strongest = -300.0;
    std::vector<double> elevations, azimuths;
    for (int e = 1; e <= elevationSteps; ++e)
        elevations.push_back(0.5 * pi * e / elevationSteps);
    for (int a = 0; a < azimuthSteps; ++a)
        azimuths.push_back(2.0 * pi * a / azimuthSteps);
    if (!spot.field->prepare(azimuths, watch))
        return;
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
    spot.lobeWidth = lobeWidth(*spot.field, spot.strongestElevation, spot.strongestAzimuth);
}

/// All that the solver reads, as bytes: equal keys are equal models. Each struct is taken apart by all its members, so that one that gets
/// another is no longer compiled before it is thought of here.
class Key {
public:
    void add(double v) { m_bytes.append(reinterpret_cast<const char*>(&v), sizeof v); }
    void add(std::size_t v) { add(double(v)); }
    void add(Complex v) { add(v.real()), add(v.imag()); }
    void add(Vec3 v) { add(v.x), add(v.y), add(v.z); }
    void add(bool v) { m_bytes += v ? '1' : '0'; }
    void add(GroundKind v) { add(double(v)); }
    void add(LoadKind v) { add(double(v)); }
    void add(LineEnd v) { add(double(v)); }
    template <class T> void add(const std::optional<T>& v)
    {
        add(v.has_value());
        if (v)
            add(*v);
    }
    template <class T> void add(const std::vector<T>& list)
    {
        add(list.size());
        for (const T& item : list)
            add(item);
    }
    void add(const Ground& g)
    {
        const auto& [kind, permittivity, conductivity, pairFrequency] = g;
        addAll(kind, permittivity, conductivity, pairFrequency);
    }
    void add(const Coating& c)
    {
        const auto& [thickness, conductivity, permeability] = c;
        addAll(thickness, conductivity, permeability);
    }
    void add(const Insulation& i)
    {
        const auto& [outerRadius, permittivity, lossTangent] = i;
        addAll(outerRadius, permittivity, lossTangent);
    }
    void add(const Wire& w)
    {
        const auto& [id, points, radius, endRadius, conductivity, permeability, wall, coating, insulation] = w;
        addAll(points, radius, endRadius, conductivity, permeability, wall, coating, insulation); // a name is no matter
    }
    void add(const Feed& f)
    {
        const auto& [wire, at, voltage, transformer] = f;
        addAll(wire, at, voltage); // what lies behind the port is no matter of a study
    }
    void add(const CoilSize& c)
    {
        const auto& [length, diameter, wireDiameter] = c;
        addAll(length, diameter, wireDiameter);
    }
    void add(const Load& l)
    {
        const auto& [wire, at, kind, resistance, inductance, capacitance, q, selfResonance, size] = l;
        addAll(wire, at, kind, resistance, inductance, capacitance, q, selfResonance, size);
    }
    void add(const LineSection& l)
    {
        const auto& [fromWire, toWire, fromAt, toAt, end, impedance, length, velocity, loss, crossed, k1, k2] = l;
        addAll(fromWire, toWire, fromAt, toAt, end, impedance, length, velocity, loss, crossed, k1, k2);
    }
    void add(const FarSector& s)
    {
        const auto& [from, width, fadeBefore, fadeAfter, corners, soils] = s;
        addAll(from, width, fadeBefore, fadeAfter, corners, soils);
    }
    void add(const ProfilePoint& p)
    {
        const auto& [x, z] = p;
        addAll(x, z);
    }
    void add(const WireModel& m)
    {
        const auto& [ground, wires, feeds, loads, lines, beyond] = m;
        addAll(ground, wires, feeds, loads, lines, beyond);
    }
    template <class... Values> void addAll(const Values&... values) { (add(values), ...); }
    std::string take() { return std::move(m_bytes); }

private:
    std::string m_bytes;
};

std::string keyOf(const WireModel& m, double portReference)
{
    Key key;
    key.addAll(portReference, m);
    return key.take();
}

std::string keyOf(std::initializer_list<double> values)
{
    Key key;
    for (double v : values)
        key.add(v);
    return key.take();
}

} // namespace

Study::Study(WireModel model, double portReference, std::shared_ptr<em::GroundTableCache> tables)
    : m_model(std::make_shared<const WireModel>(std::move(model))), m_portReference(portReference), m_tables(std::move(tables))
{
}

Result<CurvePart> Study::curve(const Window& window, const Watch& watch, Care care)
{
    const std::string key = keyOf({window.from, window.to, care == Care::Coarse ? 1.0 : 0.0});
    if (CurvePart known = m_curves.find(key))
        return known;
    em::SweepOptions options;
    options.from = window.from;
    options.to = window.to;
    options.reference = m_portReference;
    if (care == Care::Coarse) {
        constexpr int coarseDegree = 3; // few long elements of a higher degree: better and faster than many of degree 2
        constexpr double coarseElements = 4.0, coarseFineness = 0.2, coarseTolerance = 0.01; // a wavelength; they count on long wires only
        options.solve.mesh.degree = coarseDegree;
        options.solve.mesh.elementsPerWavelength = coarseElements;
        options.solve.mesh.fineness = coarseFineness;
        options.swrTolerance = coarseTolerance;
    }
    Result<em::ImpedanceCurve> curve = em::sweep(m_model, options, *m_tables, watch);
    if (!curve)
        return curve.faults();
    if (watch.stopped())
        return stoppedFault();
    return m_curves.keep(key, std::make_shared<const em::ImpedanceCurve>(std::move(curve).value()));
}

Result<PortSpotPointer> Study::spot(double frequency, const Watch& watch)
{
    const std::string key = keyOf({frequency});
    if (PortSpotPointer known = m_spots.find(key))
        return known;
    em::SolveOptions options;
    options.wantedErrorPercent = em::usualErrorPercent;
    Result<em::Solution> solution = em::solve(m_model, frequency, *m_tables, options, watch);
    if (!solution)
        return solution.faults();
    auto spot = std::make_shared<PortSpot>();
    spot->solution = std::move(solution).value();
    spot->field = std::make_shared<const em::FarField>(spot->solution);
    findStrongest(*spot, watch);
    if (watch.stopped())
        return stoppedFault();
    return m_spots.keep(key, std::move(spot));
}

Result<LedgerPointer> Study::ledger(double frequency, const Watch& watch)
{
    const std::string key = keyOf({frequency});
    if (LedgerPointer known = m_ledgers.find(key))
        return known;
    const Result<PortSpotPointer> here = spot(frequency, watch);
    if (!here)
        return here.faults();
    const Result<em::PowerLedger> ledger = em::powerLedger((*here)->solution, *m_tables, watch);
    if (!ledger)
        return ledger.faults();
    if (watch.stopped())
        return stoppedFault();
    return m_ledgers.keep(key, std::make_shared<const em::PowerLedger>(*ledger));
}

void finish(const Subject& subject, WireModel& model)
{
    putIn(subject.neighbours, model);
    model.beyond = subject.beyond;
}

Library::Library(std::size_t studies) : m_studies(studies) {}

Library::Library(std::shared_ptr<em::GroundTableCache> tables, std::size_t studies) : m_tables(std::move(tables)), m_studies(studies) {}

Result<Studied> Library::study(const Subject& subject)
{
    Result<shapes::BuiltAntenna> built = shapes::buildOver(subject.shape, subject.ground, subject.configuration);
    if (!built)
        return built.faults();
    shapes::BuiltAntenna whole = std::move(built).value();
    finish(subject, whole.model);
    auto shared = std::make_shared<const shapes::BuiltAntenna>(std::move(whole));
    return Studied{shared, study(shared->model, shared->portReference)};
}

std::shared_ptr<Study> Library::study(const WireModel& model, double portReference)
{
    const std::string key = keyOf(model, portReference);
    if (auto known = m_studies.find(key))
        return known;
    WireModel bare = model;
    for (Feed& feed : bare.feeds)
        feed.transformer.reset();
    return m_studies.keep(key, std::make_shared<Study>(std::move(bare), portReference, m_tables));
}

} // namespace vetchling::study

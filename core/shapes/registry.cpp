#include "core/shapes/family.h"

#include "core/physics.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

/// Stands for a family of a newer program: it is kept and shown as such.
class UnknownFamily final : public Family {
public:
    std::string id() const override { return {}; }
    std::string title() const override { return coreText("core", "Antenna of a newer program"); }
    std::string summary() const override { return coreText("core", "This program does not know its family and keeps it as it is."); }
    std::vector<ParameterSpec> parameters(const AntennaShape&) const override { return {}; }
    std::vector<TunedLength> tuned(const AntennaShape&) const override { return {}; }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength&) const override { return {}; }
    std::vector<Lever> levers(const AntennaShape&) const override { return {}; }
    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        return Fault{"family",
                     {coreText("core", "'%1' is no family that this program knows; it is kept as it is, a newer program may show it"),
                      shape.family}};
    }
};

void checkWire(const WireChoice& wire, const std::string& path, Faults& faults)
{
    if (!(wire.diameter >= 2e-5 && wire.diameter <= 0.5))
        faults.push_back({path + ".diameter_m", coreText("core", "the wire's diameter is outside 0.02 mm to 0.5 m")});
    if (!(wire.jacket >= 0.0 && wire.jacket <= 0.05))
        faults.push_back({path + ".jacket_m", coreText("core", "the jacket's thickness is outside 0 to 5 cm")});
}

} // namespace

const std::vector<const Family*>& families()
{
    static const std::vector<const Family*> all{
        &dipoleFamily(),           &bentDipoleFamily(),   &offCentreDipoleFamily(), &foldedDipoleFamily(),        &extendedDipoleFamily(),
        &tubeDipoleFamily(),       &whipPairFamily(),     &rodDipoleFamily(),                                    // loaded ones
        &loadedDipoleFamily(),     &trapDipoleFamily(),   &hatDipoleFamily(),       &linearLoadedDipoleFamily(), // several bands
        &fanDipoleFamily(),        &linkedDipoleFamily(), &doubletFamily(),                                      // end-fed
        &endFedFamily(),           &linkedEndFedFamily(), &endFedTailFamily(),      &endFedPairFamily(),         // long
        &longWireFamily(),         &longVFamily(),        &terminatedWireFamily(),                               // upright
        &verticalFamily(),         &whipFamily(),         &loadedVerticalFamily(),  &invertedLFamily(),           &tVerticalFamily(),
        &halfWaveVerticalFamily(), &fiveEighthsFamily(),  &threeQuartersFamily(),   &nonResonantVerticalFamily(), &stubVerticalFamily(),
        &twoBandWhipFamily(),      &trapVerticalFamily(), &mobileWhipFamily(), // loops
        &deltaLoopFamily(),        &polygonLoopFamily(),                       // one's own
        &freeWireFamily(),
    };
    return all;
}

const Family* findFamily(const std::string& id)
{
    const auto found = std::find_if(families().begin(), families().end(), [&](const Family* f) { return f->id() == id; });
    return found == families().end() ? nullptr : *found;
}

const Family& familyOf(const AntennaShape& shape)
{
    static const UnknownFamily unknown;
    const Family* family = findFamily(shape.family);
    return family ? *family : unknown;
}

const std::vector<ParameterSpec>& Family::specs(const AntennaShape& shape) const
{
    const std::string key = layout(shape);
    const std::lock_guard lock(m_mutex);
    const auto found = m_specs.find(key);
    return found != m_specs.end() ? found->second : m_specs.emplace(key, parameters(shape)).first->second;
}

const ParameterSpec* Family::spec(const AntennaShape& shape, const std::string& key) const
{
    const auto& all = specs(shape);
    const auto found = std::find_if(all.begin(), all.end(), [&](const ParameterSpec& s) { return s.key == key; });
    return found == all.end() ? nullptr : &*found;
}

double Family::value(const AntennaShape& shape, const std::string& key) const
{
    const auto found = shape.parameters.find(key);
    if (found != shape.parameters.end())
        return found->second;
    const ParameterSpec* s = spec(shape, key);
    if (!s)
        return 0.0;
    if (s->scaled == 0.0)
        return s->standard;
    const bool frequency = s->quantity == units::Quantity::Frequency;
    return std::clamp(s->scaled * (frequency ? shape.designFrequency : wavelength(shape.designFrequency)), s->lowest, s->highest);
}

AntennaShape Family::levered(const AntennaShape& shape, const std::string& key, double value) const
{
    AntennaShape next = shape;
    next.parameters[key] = value;
    return next;
}

AntennaShape Family::hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const
{
    AntennaShape next = shape;
    if (const Result<BuiltAntenna> here = build(shape, 0); here && handle < here->handles.size()) {
        next.parameters["x_m"] = value(shape, "x_m") + hook.x - here->handles[handle].at.x;
        next.parameters["y_m"] = value(shape, "y_m") + hook.y - here->handles[handle].at.y;
    }
    return next;
}

AntennaShape Family::standardShape(double frequency) const
{
    AntennaShape shape;
    shape.family = id();
    shape.designFrequency = frequency;
    for (const ParameterSpec& s : specs(shape))
        shape.parameters[s.key] = value(shape, s.key);
    for (const TunedLength& t : tuned(shape))
        shape.parameters[t.parameter] = rules(shape, t).front().value;
    settle(shape);
    return shape;
}

double Family::ruleValue(const AntennaShape& shape) const
{
    const auto lengths = tuned(shape);
    return lengths.empty() ? 0.0 : rules(shape, lengths.front()).front().value;
}

int BuiltAntenna::ends(WireEnd end) const
{
    int count = 0;
    for (const WireSection& s : sections)
        count += s.pieces * ((s.first == end ? 1 : 0) + (s.last == end ? 1 : 0));
    return count;
}

WireModel BuiltAntenna::atLine() const
{
    WireModel behind = model;
    behind.feeds.front().transformer = transformer;
    return behind;
}

namespace {

/// What is too thick to be bent round an insulator or a centre piece ends where it is cut.
void endRods(const AntennaShape& shape, BuiltAntenna& out)
{
    constexpr double thickest = 4e-3; // m, of what bends round an insulator
    if (shape.wire.diameter <= thickest)
        return;
    for (WireSection& s : out.sections)
        if (s.first != WireEnd::Joint)
            for (WireEnd* end : {&s.first, &s.last})
                *end = *end == WireEnd::Insulator || *end == WireEnd::Centre ? WireEnd::Tube : *end;
}

} // namespace

Result<BuiltAntenna> buildOver(const AntennaShape& shape, const Ground& ground, std::size_t configuration)
{
    const Family& family = familyOf(shape);
    Faults faults;
    for (const auto& [key, value] : shape.parameters) {
        const ParameterSpec* s = family.spec(shape, key);
        if (!s)
            continue; // kept for a newer version of the program
        if (!(value >= s->lowest && value <= s->highest))
            faults.push_back({key,
                              {coreText("core", "%1 is outside %2 to %3"), s->label, Measure{s->lowest, s->quantity},
                               Measure{s->highest, s->quantity}}});
    }
    checkWire(shape.wire, "wire", faults);
    for (const auto& [part, wire] : shape.partWires)
        checkWire(wire, "wires." + part, faults);
    if (!faults.empty())
        return faults;
    if (configuration >= family.configurations(shape).size())
        return Fault{"configuration", coreText("core", "the antenna has no such configuration")};
    Result<BuiltAntenna> built = family.build(shape, configuration);
    if (!built)
        return built;
    BuiltAntenna out = std::move(built).value();
    out.model.ground = ground;
    endRods(shape, out);
    if (!shape.feedpoint.empty()) {
        if (!out.transformer)
            out.transformer = Transformer();
        out.transformer->behind = shape.feedpoint;
    }
    if (Faults wires = findFaults(out.model); !wires.empty())
        return wires;
    return out;
}

double frequencyOf(const AntennaShape& shape, std::size_t configuration)
{
    const auto all = familyOf(shape).configurations(shape);
    return configuration < all.size() ? all[configuration].frequency : shape.designFrequency;
}

Vec3 towards(double bearing) { return {std::sin(radians(bearing)), std::cos(radians(bearing)), 0.0}; }

Wire makeWire(const WireChoice& choice, std::string id, std::vector<Vec3> points)
{
    Wire wire;
    wire.id = std::move(id);
    wire.points = std::move(points);
    wire.radius = 0.5 * choice.diameter;
    wire.conductivity = choice.metal.conductivity;
    wire.relativePermeability = choice.metal.relativePermeability;
    wire.coating = choice.metal.coating;
    if (wire.coating && wire.coating->thickness == 0.0)
        wire.coating->thickness = choice.metal.coatingPartOfRadius * wire.radius;
    if (wire.coating && wire.coating->thickness >= wire.radius) // all of a hair-thin wire
        wire.conductivity = wire.coating->conductivity, wire.relativePermeability = wire.coating->relativePermeability,
        wire.coating.reset();
    if (choice.jacket > 0.0)
        wire.insulation = Insulation{wire.radius + choice.jacket, choice.jacketPermittivity, choice.jacketLossTangent};
    return wire;
}

std::optional<Transformer> transformer(double ratio, double lossPercent, double winding, double leakage, double capacitor)
{
    constexpr double matched = 50.0;
    if (ratio == 1.0 && lossPercent == 0.0 && winding == 0.0 && leakage == 0.0 && capacitor == 0.0)
        return std::nullopt;
    const double lost = 0.01 * lossPercent;
    return Transformer{ratio, leakage, winding, lost > 0.0 ? matched * (1.0 - lost) / lost : 0.0, {}, capacitor};
}

std::optional<Transformer> ownLine(const OwnLine& line, double ratio)
{
    Transformer whole;
    whole.ratio = ratio;
    whole.ownLine = line;
    return whole;
}

void addPlace(std::vector<ParameterSpec>& specs)
{
    using units::Quantity;
    specs.push_back({"x_m", coreText("core", "East of the origin"), standsGroup, Quantity::Length, 0.0, -10000.0, 10000.0, {}, {}});
    specs.push_back({"y_m", coreText("core", "North of the origin"), standsGroup, Quantity::Length, 0.0, -10000.0, 10000.0, {}, {}});
    specs.push_back({"bearing_deg",
                     coreText("core", "Bearing"),
                     standsGroup,
                     Quantity::Angle,
                     90.0,
                     -360.0,
                     360.0,
                     {},
                     coreText("core", "compass bearing, 0 is north, clockwise")});
}

double bearingTowards(double east, double north)
{
    const double bearing = std::atan2(east, north) * 180.0 / pi;
    return bearing < 0.0 ? bearing + 360.0 : bearing;
}

double ropeHeight(double fromHeight, double away, double top, double length)
{
    constexpr double steepest = 0.99; // a wire hangs at least a little aside
    const double rise = top - fromHeight, direct = std::hypot(away, rise);
    const double climbed = direct > length ? rise * length / direct : rise;
    return fromHeight + std::clamp(climbed, -steepest * length, steepest * length);
}

const WireChoice& wireOf(const AntennaShape& shape, const std::string& part)
{
    const auto found = shape.partWires.find(part);
    return found == shape.partWires.end() ? shape.wire : found->second;
}

ParameterSpec transformerRatio(double standard, double highest)
{
    return {"transformer_ratio",
            coreText("core", "Transformer 1 to"),
            feedGroup,
            units::Quantity::Plain,
            standard,
            1.0,
            highest,
            {},
            coreText("core", "impedance ratio; 1 for none")};
}

std::vector<RuleOfThumb> loopRules(double frequency)
{
    return {feetRule("1005 / f", coreText("core", "full-wave loop, about 2 % longer than a wave"), 1005.0, 1.0, frequency),
            feetRule("984 / f", coreText("core", "a wave in free space"), 984.0, 1.0, frequency)};
}

RuleOfThumb feetRule(std::string name, std::string assumption, double feetMegahertz, double part, double frequency)
{
    const double metres = feetMegahertz * 0.3048;
    return {std::move(name), std::move(assumption), feetMegahertz, metres, part * metres / (frequency / 1e6)};
}

} // namespace vetchling::shapes

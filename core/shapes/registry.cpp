#include "core/shapes/family.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <mutex>

namespace vetchling::shapes {

const std::vector<const Family*>& families()
{
    static const std::vector<const Family*> all{
        &dipoleFamily(), &endFedFamily(), &verticalFamily(), &deltaLoopFamily(), &loadedDipoleFamily(),
    };
    return all;
}

const Family* findFamily(const std::string& id)
{
    const auto found = std::find_if(families().begin(), families().end(), [&](const Family* f) { return f->id() == id; });
    return found == families().end() ? nullptr : *found;
}

const std::vector<ParameterSpec>& Family::cachedParameters() const
{
    static std::mutex mutex;
    const std::lock_guard lock(mutex);
    if (m_parameters.empty())
        m_parameters = parameters();
    return m_parameters;
}

const ParameterSpec* Family::spec(const std::string& key) const
{
    const auto& all = cachedParameters();
    const auto found = std::find_if(all.begin(), all.end(), [&](const ParameterSpec& s) { return s.key == key; });
    return found == all.end() ? nullptr : &*found;
}

double Family::value(const AntennaShape& shape, const std::string& key) const
{
    const auto found = shape.parameters.find(key);
    if (found != shape.parameters.end())
        return found->second;
    const ParameterSpec* s = spec(key);
    return s ? s->standard : 0.0;
}

AntennaShape Family::standardShape(double frequency) const
{
    AntennaShape shape;
    shape.family = id();
    shape.designFrequency = frequency;
    for (const ParameterSpec& s : cachedParameters())
        shape.parameters[s.key] = s.standard;
    shape.parameters[tunedParameter()] = rules(shape, frequency).front().value;
    return shape;
}

Result<BuiltAntenna> buildOver(const AntennaShape& shape, const Ground& ground)
{
    const Family* family = findFamily(shape.family);
    if (!family)
        return Fault{"family", "there is no family '" + shape.family + "'; see the list of families"};
    Faults faults;
    for (const auto& [key, value] : shape.parameters) {
        const ParameterSpec* s = family->spec(key);
        if (!s)
            continue; // kept for a newer version of the program
        if (!(value >= s->lowest && value <= s->highest))
            faults.push_back({key, fmt::format("{} is outside {} to {}", s->label, units::format(s->lowest, s->quantity),
                                               units::format(s->highest, s->quantity))});
    }
    if (!(shape.wire.diameter >= 2e-5 && shape.wire.diameter <= 0.5))
        faults.push_back({"wire.diameter_m", "the wire's diameter is outside 0.02 mm to 0.5 m"});
    if (!(shape.wire.jacket >= 0.0 && shape.wire.jacket <= 0.05))
        faults.push_back({"wire.jacket_m", "the jacket's thickness is outside 0 to 5 cm"});
    if (!faults.empty())
        return faults;
    Result<BuiltAntenna> built = family->build(shape);
    if (!built)
        return built;
    BuiltAntenna out = std::move(built).value();
    out.model.ground = ground;
    if (Faults wires = findFaults(out.model); !wires.empty())
        return wires;
    return out;
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

std::optional<Transformer> transformer(double ratio, double lossPercent, double winding, double leakage)
{
    constexpr double matched = 50.0;
    if (ratio == 1.0 && lossPercent == 0.0 && winding == 0.0 && leakage == 0.0)
        return std::nullopt;
    const double lost = 0.01 * lossPercent;
    return Transformer{ratio, leakage, winding, lost > 0.0 ? matched * (1.0 - lost) / lost : 0.0};
}

std::vector<ParameterSpec> placeParameters()
{
    const std::string group = "Where it stands";
    return {{"x_m", "East of the origin", group, units::Quantity::Length, 0.0, -10000.0, 10000.0, {}, {}},
            {"y_m", "North of the origin", group, units::Quantity::Length, 0.0, -10000.0, 10000.0, {}, {}},
            {"bearing_deg", "Bearing", group, units::Quantity::Angle, 90.0, -360.0, 360.0, {}, "compass bearing, 0 is north, clockwise"}};
}

} // namespace vetchling::shapes

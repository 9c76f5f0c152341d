#include "core/shapes/whip.h"

#include "core/physics.h"

#include <algorithm>

namespace vetchling::shapes {

void addTelescope(std::vector<ParameterSpec>& all)
{
    all.push_back(lengthSpec("shortest_m", coreText("core", "Whip at its shortest"), lengthGroup, {0.4, 0.001, 5000.0}, {}, 0.06));
    all.push_back(lengthSpec("longest_m", coreText("core", "Whip at its longest"), lengthGroup, {5.6, 0.01, 5000.0}, {}, 0.36));
    all.push_back(numberSpec("section_count", coreText("core", "Sections of the whip"), lengthGroup, {8.0, 1.0, 40.0},
                             coreText("core", "all alike; for settings told as sections out and centimetres")));
    all.push_back(sizeSpec("whip_diameter_m", coreText("core", "Diameter at its foot"), lengthGroup, {0.008, 0.0001, 0.1}));
    all.push_back(percentSpec("tip_percent", coreText("core", "Diameter at its tip"), lengthGroup, {35.0, 5.0, 100.0},
                              coreText("core", "of that at its foot: a telescope is thinner towards its tip")));
}

void settleTelescope(AntennaShape& shape, const std::string& length)
{
    constexpr double thickest = 0.002; // of the wavelength
    const double whip = shape.parameters[length];
    shape.parameters["shortest_m"] = std::min(shape.parameters["shortest_m"], 0.25 * whip);
    shape.parameters["longest_m"] = std::max(shape.parameters["longest_m"], 1.5 * whip);
    double& diameter = shape.parameters["whip_diameter_m"];
    diameter = std::min(diameter, thickest * wavelength(shape.designFrequency));
}

Faults telescopeFaults(const Family& family, const AntennaShape& shape, const std::string& key, double length)
{
    const double shortest = family.value(shape, "shortest_m"), longest = family.value(shape, "longest_m");
    if (length >= shortest && length <= longest)
        return {};
    return {{key,
             {coreText("core", "the whip would be %1 long, but it can be set from %2 to %3 only"), Measure{length, units::Quantity::Length},
              Measure{shortest, units::Quantity::Length}, Measure{longest, units::Quantity::Length}}}};
}

Wire taperedWhip(const Family& family, const AntennaShape& shape, const std::string& part, std::string id, Vec3 foot, Vec3 tip)
{
    WireChoice choice = wireOf(shape, part);
    choice.diameter = family.value(shape, "whip_diameter_m");
    Wire whip = makeWire(choice, std::move(id), {foot, tip});
    whip.endRadius = 0.01 * family.value(shape, "tip_percent") * whip.radius;
    return whip;
}

} // namespace vetchling::shapes

#include "core/shapes/specs.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

using units::Quantity;

ParameterSpec specOf(Quantity quantity, std::string key, std::string label, const char* group, Bounds b, std::string help,
                     double scaled = 0.0)
{
    return {std::move(key), std::move(label), group, quantity, b.standard, b.lowest, b.highest, {}, std::move(help), scaled};
}

} // namespace

ParameterSpec lengthSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help, double inWaves)
{
    return specOf(Quantity::Length, std::move(key), std::move(label), group, bounds, std::move(help), inWaves);
}

ParameterSpec sizeSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help, double inWaves)
{
    return specOf(Quantity::WireSize, std::move(key), std::move(label), group, bounds, std::move(help), inWaves);
}

ParameterSpec numberSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help)
{
    return specOf(Quantity::Plain, std::move(key), std::move(label), group, bounds, std::move(help));
}

ParameterSpec percentSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help)
{
    return specOf(Quantity::Percent, std::move(key), std::move(label), group, bounds, std::move(help));
}

ParameterSpec angleSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help)
{
    return specOf(Quantity::Angle, std::move(key), std::move(label), group, bounds, std::move(help));
}

ParameterSpec capacitanceSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help)
{
    return specOf(Quantity::Capacitance, std::move(key), std::move(label), group, bounds, std::move(help));
}

ParameterSpec inductanceSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help)
{
    return specOf(Quantity::Inductance, std::move(key), std::move(label), group, bounds, std::move(help));
}

ParameterSpec frequencySpec(std::string key, std::string label, const char* group, double ratio, std::string help)
{
    return specOf(Quantity::Frequency, std::move(key), std::move(label), group, {14.2e6, 1e5, 3e9}, std::move(help), ratio);
}

ParameterSpec choiceSpec(std::string key, std::string label, const char* group, std::vector<std::string> choices, std::string help)
{
    ParameterSpec spec =
        specOf(Quantity::Plain, std::move(key), std::move(label), group, {0.0, 0.0, double(choices.size()) - 1.0}, std::move(help));
    spec.choices = std::move(choices);
    return spec;
}

ParameterSpec tunedLengthSpec(std::string key, std::string label)
{
    return lengthSpec(std::move(key), std::move(label), lengthGroup, {10.0, 0.02, 5000.0});
}

ParameterSpec coilQuality()
{
    return numberSpec("coil_q", coreText("core", "Q of the coil"), coilsGroup, {250.0, 1.0, 2000.0},
                      coreText("core", "reactance over loss resistance; good air coils reach 200 to 400"));
}

int countOf(const AntennaShape& shape, const std::string& key, int least, int most)
{
    const auto found = shape.parameters.find(key);
    return found != shape.parameters.end() && found->second >= least && found->second <= most ? int(std::lround(found->second)) : least;
}

std::optional<Climb> climbOf(double length, double rise)
{
    constexpr double read = 0.005; // m
    if (!(std::abs(rise) <= length + read))
        return std::nullopt;
    const double climbed = std::clamp(rise, -length, length);
    return Climb{std::sqrt(length * length - climbed * climbed), climbed};
}

} // namespace vetchling::shapes

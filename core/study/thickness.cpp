#include "core/study/thickness.h"

#include <cmath>

namespace vetchling::study {
namespace {

bool isThickness(const std::string& key)
{
    return key == "tube_diameter_m" || key == "upper_diameter_m" || key == "tube_step_m" ||
           (key.rfind("tube_", 0) == 0 && key.find("_diameter_m") != std::string::npos);
}

} // namespace

std::optional<std::pair<double, double>> thicknessChanged(const shapes::AntennaShape& before, const shapes::AntennaShape& after)
{
    const shapes::Family& family = shapes::familyOf(after);
    shapes::AntennaShape alike = before;
    std::optional<std::pair<double, double>> first;
    const auto take = [&](double& was, double is) {
        if (was != is && !first)
            first = {was, is};
        was = is;
    };
    take(alike.wire.diameter, after.wire.diameter);
    for (auto& [part, wire] : alike.partWires)
        if (const auto there = after.partWires.find(part); there != after.partWires.end())
            take(wire.diameter, there->second.diameter);
    for (const shapes::ParameterSpec& spec : family.specs(after))
        if (isThickness(spec.key)) {
            const double was = family.value(before, spec.key), is = family.value(after, spec.key);
            if (was != is && !first && spec.key != "tube_step_m") // 0 is as the wire
                first = {was > 0.0 ? was : before.wire.diameter, is > 0.0 ? is : after.wire.diameter};
            if (const auto found = after.parameters.find(spec.key); found != after.parameters.end())
                alike.parameters[spec.key] = found->second;
            else
                alike.parameters.erase(spec.key);
        }
    return alike == after ? first : std::nullopt;
}

void CoilMemory::learn(const Id& antenna, const shapes::AntennaShape& shape, double drawn, double solved)
{
    constexpr double fits = 0.05; // of the inductance
    m_misfit.reset();
    const auto change = antenna == m_antenna ? thicknessChanged(m_fits, shape) : std::nullopt;
    if (!change) {
        m_antenna = antenna;
        m_fits = shape;
        m_solved = solved;
        return;
    }
    if (std::abs(drawn / m_solved - 1.0) < fits && std::abs(solved / drawn - 1.0) > fits)
        m_misfit = Misfit{change->first, change->second, drawn, solved};
}

} // namespace vetchling::study

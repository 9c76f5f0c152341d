#include "sim/power_meter.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace vetchling::sim {
namespace {

constexpr double fullScale = 10.0;    // W that bring the needle to its mark at full sensitivity
constexpr double needleError = 0.004; // of the scale
constexpr double pinned = 1.15;       // of the scale, where the needle stops

} // namespace

PowerMeter::PowerMeter(World world, double power, unsigned seed) : m_world(std::move(world)), m_power(power), m_random(seed)
{
    teach();
    m_world.teach(m_language);
}

void PowerMeter::teach()
{
    m_language.add("*IDN?", [](const std::vector<std::string>&) { return std::string("Vetchling,Stand-in power meter,0,1"); });
    m_language.add("SOURce:FREQuency", [this](const std::vector<std::string>& a) {
        m_frequency = numberAt(a, 0, lowestFrequency, highestFrequency);
        return std::string();
    });
    m_language.add("SENSe:GAIN", [this](const std::vector<std::string>& a) {
        m_sensitivity = numberAt(a, 0, 0.0, 1.0);
        return std::string();
    });
    m_language.add("SENSe:GAIN?", [this](const std::vector<std::string>&) { return fmt::format("{:.4g}", m_sensitivity); });
    m_language.add("SENSe:DIRection", [this](const std::vector<std::string>& a) {
        const std::string word = a.empty() ? std::string() : parsed(a[0]).path[0];
        if (!means(word, "FORWard") && !means(word, "REFLected"))
            throw std::invalid_argument("Illegal parameter value; FORWard or REFLected");
        m_reflected = means(word, "REFLected");
        return std::string();
    });
    m_language.add("READ:NEEDle?", [this](const std::vector<std::string>&) { return fmt::format("{:.4f}", needle()); });
}

/// Part of the scale; it goes with the voltage, and so with the root of the power.
double PowerMeter::needle()
{
    const std::vector<Complex> g = m_world.reflections({m_frequency, 1.001 * m_frequency}, m_random);
    const double power = m_power * (m_reflected ? std::norm(g[0]) : 1.0);
    const double shown = m_sensitivity * std::sqrt(power / fullScale) + needleError * std::normal_distribution<double>()(m_random);
    return std::clamp(shown, 0.0, pinned);
}

} // namespace vetchling::sim

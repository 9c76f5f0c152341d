#pragma once
/// A made-up power meter of the old kind: a needle, a knob for its sensitivity, a switch between forward and reflected.

#include "sim/command.h"
#include "sim/world.h"

namespace vetchling::sim {

class PowerMeter {
public:
    PowerMeter(World world, double power, unsigned seed);
    std::string answer(const std::string& line) { return m_language.answer(line); }

private:
    void teach();
    [[nodiscard]] double needle();

    World m_world;
    double m_power; ///< W that the radio sends
    std::mt19937 m_random;
    Language m_language;
    double m_frequency = 7.1e6, m_sensitivity = 0.3;
    bool m_reflected = false;
};

} // namespace vetchling::sim

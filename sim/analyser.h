#pragma once
/// A made-up one-port analyser, as good and as bad as real ones: reflections with its own errors, noise, and frequencies in steps.

#include "sim/command.h"
#include "sim/world.h"

namespace vetchling::sim {

class Analyser {
public:
    Analyser(World world, InstrumentFaults faults, unsigned seed);
    std::string answer(const std::string& line) { return m_language.answer(line); }

private:
    enum class Plug { Open, Short, Load, Antenna };
    void teach();
    void sweep();

    World m_world;
    InstrumentFaults m_faults;
    std::mt19937 m_random;
    Language m_language;
    double m_from = 7.0e6, m_to = 7.2e6;
    int m_points = 101;
    Plug m_plug = Plug::Antenna;
    RawSweep m_raw;
};

} // namespace vetchling::sim

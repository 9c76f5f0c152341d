#include "sim/analyser.h"

#include <fmt/format.h>

#include <stdexcept>

namespace vetchling::sim {
namespace {

constexpr int mostPoints = 1001;
constexpr double driftASweep = 2e-6; // of the tracking: the instrument warms up

std::string list(const std::vector<double>& values)
{
    std::string out;
    for (double v : values)
        out += fmt::format("{}{:.10g}", out.empty() ? "" : ",", v);
    return out;
}

} // namespace

Analyser::Analyser(World world, InstrumentFaults faults, unsigned seed) : m_world(std::move(world)), m_faults(faults), m_random(seed)
{
    teach();
    m_world.teach(m_language);
}

void Analyser::teach()
{
    const auto frequency = [this](const char* pattern, double Analyser::*member) {
        m_language.add(pattern, [this, member](const std::vector<std::string>& a) {
            this->*member = numberAt(a, 0, lowestFrequency, highestFrequency);
            return std::string();
        });
        m_language.add(std::string(pattern) + "?",
                       [this, member](const std::vector<std::string>&) { return fmt::format("{:.10g}", this->*member); });
    };
    m_language.add("*IDN?", [](const std::vector<std::string>&) { return std::string("Vetchling,Stand-in analyser,0,1"); });
    m_language.add("*OPC?", [](const std::vector<std::string>&) { return std::string("1"); });
    frequency("SENSe:FREQuency:STARt", &Analyser::m_from);
    frequency("SENSe:FREQuency:STOP", &Analyser::m_to);
    m_language.add("SENSe:SWEep:POINts", [this](const std::vector<std::string>& a) {
        m_points = int(numberAt(a, 0, 2, mostPoints));
        return std::string();
    });
    m_language.add("SENSe:SWEep:POINts?", [this](const std::vector<std::string>&) { return std::to_string(m_points); });
    m_language.add("ROUTe:PLUG", [this](const std::vector<std::string>& a) {
        constexpr const char* names[] = {"OPEN", "SHORt", "LOAD", "ANTenna"};
        for (int i = 0; i < 4; ++i)
            if (!a.empty() && means(parsed(a[0]).path[0], names[i])) {
                m_plug = Plug(i);
                return std::string();
            }
        throw std::invalid_argument("Illegal parameter value; OPEN, SHORt, LOAD or ANTenna");
    });
    m_language.add("INITiate", [this](const std::vector<std::string>&) {
        sweep();
        return std::string();
    });
    m_language.add("CALCulate:DATA:STIMulus?", [this](const std::vector<std::string>&) { return list(m_raw.frequency); });
    m_language.add("CALCulate:DATA:REFLection?", [this](const std::vector<std::string>&) {
        std::vector<double> flat;
        for (const Complex& g : m_raw.reflection)
            flat.insert(flat.end(), {g.real(), g.imag()});
        return list(flat);
    });
}

void Analyser::sweep()
{
    if (!(m_to > m_from))
        throw std::invalid_argument("Settings conflict; the range must rise");
    const std::vector<double> frequencies = sweptFrequencies(m_from, m_to, m_points, m_faults.step);
    if (frequencies.size() < 2)
        throw std::invalid_argument("Settings conflict; the range is narrower than a step");
    std::vector<Complex> actual;
    if (m_plug == Plug::Antenna) {
        actual = m_world.reflections(frequencies, m_random);
    } else {
        const Standard which = m_plug == Plug::Open ? Standard::Open : m_plug == Plug::Short ? Standard::Short : Standard::Load;
        for (double f : frequencies)
            actual.push_back(reflectionOf(which, {}, f));
    }
    m_raw = rawSweepOf(m_faults, frequencies, actual, m_random);
    m_faults.drift += driftASweep;
}

} // namespace vetchling::sim

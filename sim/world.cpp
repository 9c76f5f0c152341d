#include "sim/world.h"

#include "core/line/parts.h"
#include "sim/command.h"

#include <stdexcept>

namespace vetchling::sim {

World::World(const Design& design, const Antenna& antenna, unsigned seed, ChainPart cable) : m_name(antenna.name), m_cable(std::move(cable))
{
    std::mt19937 random(seed);
    m_built.plan.shape = antenna.shape;
    m_built.plan.ground = design.site.soil.ground();
    m_built.faults = everydayFaults(random);
    m_built = *agreeingWithLog(*m_library, m_built, antenna);
    m_cable.values["length_m"] = 0.0;
}

void World::teach(Language& language)
{
    language.add("WORLd:CHANge", [this](const std::vector<std::string>& a) {
        if (a.empty() || !shapes::familyOf(m_built.plan.shape).spec(m_built.plan.shape, a[0]))
            throw std::invalid_argument("Illegal parameter value; the antenna has no such dimension");
        m_handling.changes[a[0]] = numberAt(a, 1, -1e3, 1e3);
        return std::string();
    });
    language.add("WORLd:HIGHer", [this](const std::vector<std::string>& a) {
        m_handling.higher = numberAt(a, 0, -500.0, 500.0);
        return std::string();
    });
    language.add("WORLd:HAND", [this](const std::vector<std::string>& a) {
        m_handling.handNear = numberAt(a, 0, 0.0, 1.0) > 0.5;
        return std::string();
    });
    language.add("WORLd:COAX", [this](const std::vector<std::string>& a) {
        m_cable.values["length_m"] = numberAt(a, 0, 0.0, 1e4);
        return std::string();
    });
    language.add("WORLd:CONFiguration", [this](const std::vector<std::string>& a) {
        const double last = double(shapes::familyOf(m_built.plan.shape).configurations(m_built.plan.shape).size());
        m_built.plan.configuration = std::size_t(numberAt(a, 0, 1.0, last)) - 1;
        return std::string();
    });
}

std::vector<Complex> World::reflections(const std::vector<double>& frequencies, std::mt19937& random)
{
    const auto impedances = impedancesOf(*m_library, m_built, m_handling, frequencies);
    if (!impedances)
        throw std::invalid_argument("Hardware error; " + impedances.firstFault());
    const double shaky = 1.0 + 0.3 * std::normal_distribution<double>()(random);
    std::vector<Complex> out;
    for (std::size_t i = 0; i < frequencies.size(); ++i) {
        const Complex there = (*impedances)[i] + (shaky - 1.0) * m_built.faults.joint;
        const bool direct = m_cable.values["length_m"] == 0.0;
        const Complex z = direct ? there : kindOf(m_cable).at(m_cable, frequencies[i]).towardsRadio(there);
        out.push_back((z - 50.0) / (z + 50.0));
    }
    return out;
}

} // namespace vetchling::sim

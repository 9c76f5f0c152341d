#pragma once
/// What hangs outside: the antenna as it was really built, the coax to it, and what hands do to both.

#include "core/trim/as_built.h"

#include <memory>

namespace vetchling::sim {

class Language;

class World {
public:
    /// An antenna of a design, unlike its plan by the seed. @param cable kind of its coax, with its own length
    World(const Design& design, const Antenna& antenna, unsigned seed, ChainPart cable);

    /// "WORLd:CHANge leg_m,-0.05", "WORLd:HIGHer -4.2", "WORLd:HAND 1", "WORLd:COAX 18": what somebody outside does.
    void teach(Language& language);
    /// Reflections at the instrument's plug against 50 ohm. Throws std::invalid_argument where the antenna cannot hang so.
    std::vector<Complex> reflections(const std::vector<double>& frequencies, std::mt19937& random);
    [[nodiscard]] const std::string& name() const { return m_name; }

private:
    std::string m_name;
    AsBuilt m_built;
    Handling m_handling;
    ChainPart m_cable;
    std::shared_ptr<study::Library> m_library = std::make_shared<study::Library>();
};

} // namespace vetchling::sim

#pragma once
/// An antenna as a builder has it in his hands: points of wire that are sawn, moved and scaled, and know nothing of the family they were
/// drawn by, of its parameters or of its levers. Dip and width are looked for on a grid of their own.

#include "core/study/study.h"

#include <string>
#include <vector>

namespace vetchling::testing {

/// How a lever of a family is taken in hand.
enum class Hand {
    Tips,   ///< off every open end of those wires
    Coil,   ///< off the tips, and the coils or traps come in by as much
    Link,   ///< off the ends of the first wire, and what hangs beyond comes in
    Outer,  ///< off the far ends
    Loop,   ///< all sides alike, hung where it hung
    Folded, ///< both ends of a narrow loop come in
    Sides,  ///< off both ends, each in its share of the whole
    Henries ///< of the coil
};

struct Grip {
    const char *family, *lever;
    Hand hand = Hand::Tips;
    std::vector<std::string> wires = {}; ///< beginnings of their names; all where empty
};
/// Of the levers that trimming uses; null where there is no hand for it.
const Grip* gripOf(const std::string& family, const std::string& lever);

class HeldAntenna {
public:
    /// @param drawn by configuration, as planned
    explicit HeldAntenna(std::vector<shapes::BuiltAntenna> drawn);
    void raise(double by);
    /// Shortens each piece by so much, m; lengthens where negative.
    void take(const Grip& grip, double amount);

    struct Dip {
        double frequency = 0.0, width = 0.0; ///< Hz; width below 2:1, 0 where it is nowhere
    };
    /// The lowest SWR on the line side that is nearest to a frequency. Faults: the solver's.
    Result<Dip> dip(study::Library& library, const Ground& soil, std::size_t configuration, double near) const;
    [[nodiscard]] const WireModel& model(std::size_t configuration) const { return m_drawn[configuration].model; }
    /// What stands behind its port, and where that was drawn.
    [[nodiscard]] const shapes::BuiltAntenna& drawn(std::size_t configuration) const { return m_drawn[configuration]; }
    /// Nothing of it touches the soil: it may be hung at another height.
    [[nodiscard]] bool hangs() const;

private:
    std::vector<shapes::BuiltAntenna> m_drawn;
};

} // namespace vetchling::testing

#pragma once
/// How high an antenna hangs, as a dimension of it.

#include "core/shapes/family.h"
#include "core/site/site.h"

#include <string>
#include <vector>

namespace vetchling::shapes {

/// The shape hung so much higher, m; what stands on the ground stays on it.
AntennaShape raised(const AntennaShape& shape, double by);
/// Height of an antenna as its builder tells it: that of its highest wire, m.
double heightOf(const BuiltAntenna& built);

/// How the ends and corners of an antenna are held where it hangs now.
class Ties {
public:
    /// What cannot be built is held by nothing.
    Ties(const Site& site, const AntennaShape& shape);

    /// All its supports so much higher, m: what they hold goes along, at their place or by a rope; an end whose rope runs to a peg in the
    /// ground stays in the line to that peg; what stands low by itself stays, unless nothing holds the antenna at all.
    [[nodiscard]] AntennaShape higher(double by) const;
    /// One support so much higher: what it holds goes along, other ends stay in the lines to what holds them.
    [[nodiscard]] AntennaShape higher(const Id& support, double by) const;
    /// The middle at another height, and the ends in the lines to what holds them; level with the middle where nothing is known to hold
    /// them. The shape with that height alone where it has no such middle.
    [[nodiscard]] AntennaShape withApexAt(double height) const;

    /// Supports that hold something of it.
    [[nodiscard]] const std::vector<Id>& supports() const { return m_supports; }
    /// m of its highest wire; 0 where it cannot be built.
    [[nodiscard]] double height() const { return m_height; }
    /// m of the lowest of its ends and corners that go up and down with supports; its own height where none does.
    [[nodiscard]] double lowestHeld() const;

private:
    enum class By { Nothing, Support, Rope, Peg };
    struct Held {
        By by = By::Nothing;
        Id support;
        Vec3 tie; ///< where the support, the rope's far end or the peg is
        Vec3 at;  ///< of the handle
        std::string heightKey;
        bool isEnd = false;
    };
    [[nodiscard]] AntennaShape alongTheirLines(AntennaShape shape, const Id& moved, double by, bool ropesToo) const;

    AntennaShape m_shape;
    std::vector<Held> m_held; ///< by handle
    std::vector<Id> m_supports;
    double m_height = 0.0;
};

} // namespace vetchling::shapes

#pragma once
/// Pairs of elements that are the same but for a shift, a turn about the vertical or a reflection in a vertical plane have
/// the same interaction over any ground: equal elements along a straight wire, radials, the two halves of a dipole.

#include "core/em/mesh.h"

#include <array>
#include <cstdint>
#include <unordered_map>
#include <vector>

namespace vetchling::em {

class PairClasses {
public:
    explicit PairClasses(const Mesh& mesh) : m_mesh(mesh) {}

    /// The number of the class of an ordered pair; a pair not met before founds a new one.
    std::size_t classOf(std::size_t m, std::size_t n);
    /// The first pair of each class, in order.
    [[nodiscard]] const std::vector<std::pair<std::size_t, std::size_t>>& founders() const { return m_founders; }
    void clear();

private:
    /// Heights of the four end points, their distances in plan, and the radii; in steps of 10 nm.
    using Key = std::array<std::int64_t, 14>;
    struct Hash {
        std::size_t operator()(const Key& key) const;
    };
    [[nodiscard]] Key keyOf(const Element& m, const Element& n) const;

    const Mesh& m_mesh;
    std::unordered_map<Key, std::size_t, Hash> m_classes;
    std::vector<std::pair<std::size_t, std::size_t>> m_founders;
};

} // namespace vetchling::em

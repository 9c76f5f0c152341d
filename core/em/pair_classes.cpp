#include "core/em/pair_classes.h"

#include <cmath>

namespace vetchling::em {
namespace {

constexpr double grain = 1e-8; // m

std::int64_t grains(double metres) { return std::llround(metres / grain); }
std::int64_t apart(Vec3 a, Vec3 b) { return grains(std::sqrt((a.x - b.x) * (a.x - b.x) + (a.y - b.y) * (a.y - b.y))); }

} // namespace

std::size_t PairClasses::Hash::operator()(const Key& key) const
{
    std::uint64_t hash = 1469598103934665603ull; // FNV-1a over whole words
    for (std::int64_t word : key)
        hash = (hash ^ std::uint64_t(word)) * 1099511628211ull, hash ^= hash >> 29;
    return std::size_t(hash);
}

PairClasses::Key PairClasses::keyOf(const Element& m, const Element& n) const
{
    return {grains(m.start.z),     grains(m.end.z),         grains(n.start.z),     grains(n.end.z),       apart(m.start, m.end),
            apart(n.start, n.end), apart(m.start, n.start), apart(m.start, n.end), apart(m.end, n.start), apart(m.end, n.end),
            grains(m.radius),      grains(n.radius),        grains(m.radiusSlope), grains(n.radiusSlope)};
}

std::size_t PairClasses::classOf(std::size_t m, std::size_t n)
{
    Key key = keyOf(m_mesh.elements[m], m_mesh.elements[n]);
    if (m == n) // an element with itself is integrated in its own way
        key[0] = ~key[0];
    const auto [found, isNew] = m_classes.try_emplace(key, m_founders.size());
    if (isNew)
        m_founders.emplace_back(m, n);
    return found->second;
}

void PairClasses::clear()
{
    m_classes.clear();
    m_founders.clear();
}

} // namespace vetchling::em

#include "core/em/remainder_paths.h"

namespace vetchling::em {
TablePath remainderPath(Vec3 a, Vec3 m, Vec3 b, Vec3 n, double factor, int columns)
{
    const Vec3 away = a - b;
    const double rho = std::sqrt(away.x * away.x + away.y * away.y);
    const double cx = rho > 0.0 ? away.x / rho : 1.0, cy = rho > 0.0 ? away.y / rho : 0.0;
    const double mr = m.x * cx + m.y * cy, nr = n.x * cx + n.y * cy, level = m.x * n.x + m.y * n.y;
    return GroundTable::path(rho, a.z + b.z,
                             {-factor * level, -factor * (level - 2.0 * mr * nr), -factor * (mr * n.z - m.z * nr), -factor * m.z * n.z},
                             columns);
}

RemainderPaths remainderPaths(const Element& m, const Element& n, const Sampled& few, const Sampled& many, int columns)
{
    RemainderPaths out;
    out.turned = m.length > n.length;
    const Element &outer = out.turned ? n : m, &inner = out.turned ? m : n;
    const Element image = mirroredElement(inner);
    const double closest = segmentDistance(outer.start, outer.end, image.start, image.end);
    out.plain = closest > nearRatio * inner.length;
    // the field hardly changes along an element much shorter than its distance to the image: the polynomials alone count
    out.fewOuter = outer.length < shortRatio * closest;
    out.fewInner = inner.length < shortRatio * closest;
    if (!out.plain)
        return out;
    const Sampled &u = out.fewOuter ? few : many, &v = out.fewInner ? few : many;
    out.paths.reserve(std::size_t(u.nodes) * v.nodes);
    for (int a = 0; a < u.nodes; ++a)
        for (int b = 0; b < v.nodes; ++b)
            out.paths.push_back(remainderPath(outer.at(u.node[a]), outer.tangent, inner.at(v.node[b]), inner.tangent,
                                              0.25 * outer.length * inner.length, columns));
    return out;
}

} // namespace vetchling::em

#include "core/em/near_field.h"

#include "core/em/gauss.h"
#include "core/em/soil_blocks.h"
#include "core/em/soil_field.h"

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr double clearance = 3.0;      // radii
constexpr double longestStretch = 0.6; // of the distance to the point, one Gauss rule
constexpr int stretchNodes = 6;

std::array<Complex, 3> scaled(Vec3 v, Complex f) { return {f * v.x, f * v.y, f * v.z}; }

void add(std::array<Complex, 3>& sum, const std::array<Complex, 3>& v)
{
    for (int c = 0; c < 3; ++c)
        sum[c] += v[c];
}

double magnitude(const std::array<Complex, 3>& v) { return std::sqrt(0.5 * (std::norm(v[0]) + std::norm(v[1]) + std::norm(v[2]))); }

} // namespace

double FieldAt::electric() const { return magnitude(e); }
double FieldAt::magnetic() const { return magnitude(h); }

std::array<double, 3> FieldAt::powerFlow() const
{
    const auto part = [&](int a, int b) { return 0.5 * (e[a] * std::conj(h[b]) - e[b] * std::conj(h[a])).real(); };
    return {part(1, 2), part(2, 0), part(0, 1)};
}

NearField::NearField(const Solution& solution, GroundTableCache& tables)
    : m_degree(solution.mesh->degree), m_k(waveNumber(solution.frequency)), m_kind(solution.model->ground.kind)
{
    for (std::size_t e = 0; e < solution.mesh->elements.size(); ++e)
        m_pieces.push_back({solution.mesh->elements[e], solution.elementCurrents(e)});
    if (solution.mesh->reachesSoil()) {
        m_reach = soilReach(*solution.mesh);
        m_soil = tables.soilTable(solution.model->ground, solution.frequency, m_reach.deepest);
    } else if (m_kind == GroundKind::Perfect)
        m_image = 1.0;
    else if (m_kind == GroundKind::Real && solution.model->ground.complexPermittivity(solution.frequency) != Complex{1.0, 0.0}) {
        m_table = tables.table(solution.model->ground, solution.frequency);
        m_image = m_table->image();
    }
}

Complex NearField::currentAt(const Piece& piece, double v) const { return currentOn(m_degree, piece.current, v); }

/// `seen` is the element itself or its mirror image, whose current flows along its tangent.
void NearField::addElement(const Piece& piece, const Element& seen, Complex strength, Vec3 point, FieldAt& sum) const
{
    const GaussRule& rule = gaussRule(stretchNodes);
    for (double from = -1.0; from < 1.0;) { // stretches short against their distance
        double span = 1.0 - from;
        while (0.5 * span * seen.length > longestStretch * segmentDistance(seen.at(from), seen.at(from + span), point, point))
            span *= 0.5;
        for (int i = 0; i < stretchNodes; ++i) {
            const double v = from + 0.5 * span * (1.0 + rule.node[i]);
            const Complex moment = strength * currentAt(piece, v) * (0.25 * seen.length * span * rule.weight[i]);
            const Vec3 away = point - seen.at(v);
            const double r = norm(away), along = dot(away, seen.tangent) / r;
            const Vec3 u = (1.0 / r) * away, across = seen.tangent - along * u;
            const Complex jkr{0.0, m_k * r}, wave = moment * std::exp(-jkr) / (4.0 * pi * r);
            add(sum.e, scaled(across, -waveImpedance * wave * (Complex{0.0, m_k} + 1.0 / r + 1.0 / (jkr * r))));
            add(sum.e, scaled(u, 2.0 * along * waveImpedance * wave * (1.0 / r + 1.0 / (jkr * r))));
            add(sum.h, scaled(cross(seen.tangent, u), wave * (Complex{0.0, m_k} + 1.0 / r)));
        }
        from += span;
    }
}

void NearField::addRemainder(Vec3 point, std::array<Complex, 3>& e) const
{
    for (const Piece& piece : m_pieces) {
        const Element& n = piece.element;
        const double closest = segmentDistance(mirrored(n.start), mirrored(n.end), point, point);
        const int stretches = std::clamp(int(std::ceil(0.5 * n.length / (longestStretch * closest))), 1, 64);
        const GaussRule& rule = gaussRule(stretchNodes);
        for (int s = 0; s < stretches; ++s)
            for (int i = 0; i < stretchNodes; ++i) {
                const double v = -1.0 + (2.0 * s + 1.0 + rule.node[i]) / stretches;
                const Complex moment = currentAt(piece, v) * (0.5 * n.length * rule.weight[i] / stretches);
                const Vec3 source = n.at(v), away = point - source, t = n.tangent;
                const double rho = std::hypot(away.x, away.y), cx = rho > 0.0 ? away.x / rho : 1.0, cy = rho > 0.0 ? away.y / rho : 0.0;
                const HalfSpaceIntegrals g = m_table->at(rho, point.z + source.z);
                const double along = t.x * cx + t.y * cy;
                const Complex common = g.s + g.d, radial = -2.0 * along * g.d + t.z * g.x;
                add(e, {moment * (t.x * common + cx * radial), moment * (t.y * common + cy * radial), moment * (-along * g.x + t.z * g.z)});
            }
    }
}

/// @param clear m from the nearest wire
Result<FieldAt> NearField::besideSoil(Vec3 point, double clear) const
{
    const double step = std::min(0.01 * clear, 0.02 / m_k);
    const Vec3 raised{point.x, point.y, std::max(point.z, 1.01 * step)}; // the field just above stands for that on the ground
    SoilReach reach = m_reach;
    double wide = 0.0;
    std::vector<CurrentPiece> pieces;
    for (const Piece& p : m_pieces) {
        pieces.push_back({p.element, p.current});
        for (Vec3 q : {p.element.start, p.element.end})
            wide = std::max(wide, std::hypot(q.x - point.x, q.y - point.y));
    }
    const double low = raised.z - step;
    reach.width = std::max(reach.width, wide + 2.0 * step);
    reach.lowest = reach.inAir ? std::min(reach.lowest, low) : low;
    reach.highest = std::max(reach.highest, raised.z + step);
    reach.inAir = true;
    if (!m_soil->cover(reach))
        return Fault{"point", "is more than 170 wavelengths away"};
    return soilField(pieces, m_degree, *m_soil, raised, step);
}

Result<FieldAt> NearField::at(Vec3 point) const
{
    if (!finite(point) || (m_kind != GroundKind::FreeSpace && point.z < 0.0))
        return Fault{"point", "must lie above the ground"};
    double farthest = 0.0, lowest = HUGE_VAL;
    for (const Piece& p : m_pieces) {
        if (segmentDistance(p.element.start, p.element.end, point, point) < clearance * p.element.radius)
            return Fault{"point", "is within three radii of a wire, where the field is that of its surface"};
        farthest = std::max({farthest, distance(mirrored(p.element.start), point), distance(mirrored(p.element.end), point)});
        lowest = std::min({lowest, p.element.start.z, p.element.end.z});
    }
    if (m_soil) {
        double clear = HUGE_VAL;
        for (const Piece& p : m_pieces)
            clear = std::min(clear, segmentDistance(p.element.start, p.element.end, point, point));
        return besideSoil(point, clear);
    }
    const double step = std::min(0.01 / m_k + 0.02 * (point.z + lowest), 0.1 / m_k); // for the curl
    FieldAt sum;
    for (const Piece& p : m_pieces) {
        addElement(p, p.element, 1.0, point, sum);
        if (m_image != Complex{}) {
            Element image = p.element;
            image.start = mirrored(image.start), image.end = mirrored(image.end), image.tangent = mirrored(image.tangent);
            addElement(p, image, -m_image, point, sum); // the mirrored tangent has the horizontal part to be reversed
        }
    }
    if (!m_table)
        return sum;
    const double base = std::max(point.z, step); // the field just above stands for that on the ground
    if (!m_table->cover(std::max(1e-6, base - step + lowest), farthest + 2.0 * step))
        return Fault{"point", "is more than 170 wavelengths away"};
    addRemainder(point, sum.e);
    std::array<std::array<Complex, 3>, 3> slope{}; // [axis][component]
    for (int axis = 0; axis < 3; ++axis)
        for (double side : {-1.0, 1.0}) {
            Vec3 p{point.x, point.y, base};
            (axis == 0 ? p.x : axis == 1 ? p.y : p.z) += side * step;
            std::array<Complex, 3> e{};
            addRemainder(p, e);
            for (int c = 0; c < 3; ++c)
                slope[axis][c] += side * e[c] / (2.0 * step);
        }
    const Complex front = imaginaryUnit / (m_k * waveImpedance); // H = j curl E / (w mu)
    add(sum.h, {front * (slope[1][2] - slope[2][1]), front * (slope[2][0] - slope[0][2]), front * (slope[0][1] - slope[1][0])});
    return sum;
}

} // namespace vetchling::em

#include "core/wire/range.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace vetchling {
namespace {

constexpr double thickestInWavelengths = 0.02;
constexpr double sharpestBend = 10.0 - 1e-6; // degrees
constexpr double nearestInRadii = 4.0, shortestInRadii = 4.0;
constexpr std::size_t mostCompared = 500;

struct Piece {
    std::size_t wire;
    Vec3 a, b;
    double radius;
};

std::vector<Piece> piecesOf(const WireModel& model)
{
    std::vector<Piece> pieces;
    for (std::size_t w = 0; w < model.wires.size(); ++w) {
        const Wire& wire = model.wires[w];
        for (std::size_t i = 1; i < wire.points.size(); ++i)
            pieces.push_back({w, wire.points[i - 1], wire.points[i], std::max(wire.radius, wire.endRadius.value_or(0.0))});
    }
    return pieces;
}

/// The angle at a common end, degrees; 180 if there is none.
double angleBetween(const Piece& p, const Piece& q, Vec3& joint)
{
    for (const auto& [from, to] : {std::pair(p.a, p.b), std::pair(p.b, p.a)})
        for (const auto& [start, end] : {std::pair(q.a, q.b), std::pair(q.b, q.a)})
            if (distance(from, start) <= 2.0 * jointTolerance) {
                joint = from;
                return degrees(std::acos(std::clamp(dot(unit(to - from), unit(end - start)), -1.0, 1.0)));
            }
    return 180.0;
}

bool joined(const Piece& p, const Piece& q)
{
    Vec3 joint;
    return angleBetween(p, q, joint) < 180.0 ||
           std::min({distance(p.a, q.a), distance(p.a, q.b), distance(p.b, q.a), distance(p.b, q.b)}) <= 2.0 * jointTolerance;
}

class Notes {
public:
    void add(std::size_t wire, int kind, Vec3 at, Text message)
    {
        const bool known = std::any_of(m_kinds.begin(), m_kinds.end(), [&](const auto& k) { return k == std::pair(wire, kind); });
        if (known)
            return;
        m_kinds.emplace_back(wire, kind);
        m_notes.push_back({wire, at, std::move(message)});
    }
    std::vector<RangeNote> take() { return std::move(m_notes); }

private:
    std::vector<std::pair<std::size_t, int>> m_kinds;
    std::vector<RangeNote> m_notes;
};

} // namespace

std::vector<RangeNote> rangeNotes(const WireModel& model, double frequency)
{
    enum Kind { Thick, Short, Sharp, Near };
    Notes notes;
    const double lambda = wavelength(frequency);
    const std::vector<Piece> pieces = piecesOf(model);
    if (pieces.size() > mostCompared)
        return {};
    for (const Piece& p : pieces) {
        const Vec3 middle = 0.5 * (p.a + p.b);
        if (p.radius > thickestInWavelengths * lambda)
            notes.add(p.wire, Thick, middle,
                      Text(coreText("core", "thicker than 1/25 of a wavelength at %1; the answer is good to some percent"),
                           Measure{frequency, units::Quantity::Frequency}));
        if (distance(p.a, p.b) < shortestInRadii * p.radius)
            notes.add(p.wire, Short, middle, coreText("core", "a piece hardly longer than the wire is thick; join it to its neighbour"));
    }
    for (std::size_t i = 0; i < pieces.size(); ++i)
        for (std::size_t j = i + 1; j < pieces.size(); ++j) {
            const Piece &p = pieces[i], &q = pieces[j];
            Vec3 joint;
            if (const double angle = angleBetween(p, q, joint); angle < sharpestBend)
                notes.add(q.wire, Sharp, joint,
                          Text(coreText("core", "bends back at %1 degrees; below 10 the answer is good to some percent"),
                               fmt::format("{:.1f}", angle)));
            else if (!joined(p, q) && segmentDistance(p.a, p.b, q.a, q.b) < nearestInRadii * std::max(p.radius, q.radius))
                notes.add(q.wire, Near, 0.5 * (q.a + q.b),
                          coreText("core", "nearer than four radii to another wire; the answer is good to some percent"));
        }
    return notes.take();
}

} // namespace vetchling

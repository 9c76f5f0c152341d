#include "core/em/symmetry.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <optional>

namespace vetchling::em {
namespace {

constexpr double alike = 2e-6; // m, between an element and its turned image

struct Axis {
    double x = 0.0, y = 0.0;

    [[nodiscard]] double from(Vec3 p) const { return std::hypot(p.x - x, p.y - y); }
    [[nodiscard]] double azimuth(Vec3 p) const { return std::atan2(p.y - y, p.x - x); }
    [[nodiscard]] Vec3 turned(Vec3 p, double angle) const
    {
        const double c = std::cos(angle), s = std::sin(angle), dx = p.x - x, dy = p.y - y;
        return {x + c * dx - s * dy, y + s * dx + c * dy, p.z};
    }
    [[nodiscard]] bool holds(const Element& e) const { return from(e.start) < alike && from(e.end) < alike; }
};

bool sameMetal(const Wire& a, const Wire& b)
{
    const auto sameInsulation = [](const std::optional<Insulation>& i, const std::optional<Insulation>& j) {
        return i.has_value() == j.has_value() && (!i || (i->outerRadius == j->outerRadius && i->lossTangent == j->lossTangent &&
                                                         i->relativePermittivity == j->relativePermittivity));
    };
    return a.conductivity == b.conductivity && a.relativePermeability == b.relativePermeability && a.wall == b.wall &&
           a.coating == b.coating && sameInsulation(a.insulation, b.insulation);
}

class OrbitFinder {
public:
    OrbitFinder(const WireModel& model, const std::vector<Element>& elements) : m_model(model), m_elements(elements) {}

    std::vector<int> run()
    {
        std::vector<int> alone(m_elements.size());
        std::iota(alone.begin(), alone.end(), 0);
        if (m_model.feeds.empty())
            return alone;
        const Feed& feed = m_model.feeds.front();
        const Vec3 at = m_model.wires[feed.wire].pointAt(feed.at);
        m_axis = {at.x, at.y};
        if (!portsOnAxis() || !sort())
            return alone;
        return numbered();
    }

private:
    struct Member {
        std::size_t element;
        double angle; ///< from the first one, 0 to 2 pi
    };

    [[nodiscard]] bool portsOnAxis() const
    {
        const auto onAxis = [&](std::size_t wire, double at) {
            return std::all_of(m_elements.begin(), m_elements.end(), [&](const Element& e) {
                return e.wire != wire || at < e.from - alike || at > e.to + alike || m_axis.holds(e);
            });
        };
        return std::all_of(m_model.feeds.begin(), m_model.feeds.end(), [&](const Feed& f) { return onAxis(f.wire, f.at); }) &&
               std::all_of(m_model.loads.begin(), m_model.loads.end(), [&](const Load& l) { return onAxis(l.wire, l.at); }) &&
               m_model.lines.empty();
    }

    /// How far the first is to be turned to lie on the second, none if no turn does it.
    [[nodiscard]] std::optional<double> turnBetween(const Element& a, const Element& b) const
    {
        const bool byEnd = m_axis.from(a.end) > m_axis.from(a.start);
        const double angle = m_axis.azimuth(byEnd ? b.end : b.start) - m_axis.azimuth(byEnd ? a.end : a.start);
        if (std::abs(a.radius - b.radius) > 1e-9 || std::abs(a.radiusSlope - b.radiusSlope) > 1e-9 ||
            !sameMetal(m_model.wires[a.wire], m_model.wires[b.wire]) || distance(m_axis.turned(a.start, angle), b.start) > alike ||
            distance(m_axis.turned(a.end, angle), b.end) > alike)
            return std::nullopt;
        return angle < -1e-9 ? angle + 2.0 * pi : std::max(0.0, angle);
    }

    /// Into groups of elements that some turn takes into one another, and those into orbits of the common turn.
    bool sort()
    {
        std::vector<std::vector<Member>> groups;
        for (std::size_t e = 0; e < m_elements.size(); ++e) {
            if (m_axis.holds(m_elements[e])) {
                m_orbits.push_back({{e, 0.0}});
                continue;
            }
            bool found = false;
            for (auto& group : groups)
                if (const auto angle = turnBetween(m_elements[group.front().element], m_elements[e])) {
                    group.push_back({e, *angle});
                    found = true;
                    break;
                }
            if (!found)
                groups.push_back({{e, 0.0}});
        }
        std::size_t turns = 0;
        for (const auto& group : groups)
            turns = std::gcd(turns, group.size());
        if (turns < 2)
            return false;
        return std::all_of(groups.begin(), groups.end(), [&](auto& group) { return divide(group, turns); });
    }

    /// A group sorted by angle is `size / turns` evenly turned orbits, one after the other in each sector.
    bool divide(std::vector<Member>& group, std::size_t turns)
    {
        std::sort(group.begin(), group.end(), [](const Member& a, const Member& b) { return a.angle < b.angle; });
        const std::size_t orbits = group.size() / turns;
        const double sector = 2.0 * pi / double(turns);
        const Element& first = m_elements[group.front().element];
        const double tolerance = alike / std::max(m_axis.from(first.start), m_axis.from(first.end));
        for (std::size_t i = orbits; i < group.size(); ++i)
            if (std::abs(group[i].angle - group[i - orbits].angle - sector) > 2.0 * tolerance)
                return false;
        for (std::size_t o = 0; o < orbits; ++o) {
            std::vector<Member> orbit;
            for (std::size_t i = o; i < group.size(); i += orbits)
                orbit.push_back(group[i]);
            m_orbits.push_back(orbit);
        }
        return true;
    }

    [[nodiscard]] std::vector<int> numbered()
    {
        std::vector<int> orbitOf(m_elements.size(), -1);
        for (std::size_t o = 0; o < m_orbits.size(); ++o)
            for (const Member& m : m_orbits[o])
                orbitOf[m.element] = int(o);
        std::vector<int> number(m_orbits.size(), -1);
        int next = 0;
        for (int& o : orbitOf) {
            int& mine = number[std::size_t(o)];
            if (mine < 0)
                mine = next++;
            o = mine;
        }
        return orbitOf;
    }

    const WireModel& m_model;
    const std::vector<Element>& m_elements;
    Axis m_axis;
    std::vector<std::vector<Member>> m_orbits;
};

/// A mirror through the feed, at a right angle to the wire there.
class MirrorFinder {
public:
    MirrorFinder(const WireModel& model, const std::vector<Element>& elements) : m_model(model), m_elements(elements) {}

    std::optional<Orbits> run()
    {
        if (m_model.feeds.size() != 1 || !m_model.lines.empty() || !standMirror() || !loadsMirrored())
            return std::nullopt;
        m_out.of.assign(m_elements.size(), -1);
        m_out.mirrored.assign(m_elements.size(), Mirrored::No);
        int orbits = 0;
        for (std::size_t e = 0; e < m_elements.size(); ++e) {
            if (m_out.of[e] >= 0)
                continue;
            const auto image = imageOf(e);
            if (!image)
                return std::nullopt;
            const bool first = side(m_elements[e].centre()) > 0.0;
            m_out.mirrored[first ? image->first : e] = image->second;
            m_out.of[e] = m_out.of[image->first] = orbits++;
        }
        return m_out;
    }

private:
    [[nodiscard]] double side(Vec3 p) const { return dot(p - m_out.at, m_out.normal); }
    [[nodiscard]] Vec3 image(Vec3 p) const { return p - 2.0 * side(p) * m_out.normal; }

    /// The feed is where two elements meet and nothing else.
    bool standMirror()
    {
        const Feed& feed = m_model.feeds.front();
        m_out.at = m_model.wires[feed.wire].pointAt(feed.at);
        Vec3 along{};
        int ends = 0;
        for (const Element& e : m_elements)
            for (Vec3 p : {e.start, e.end})
                if (distance(p, m_out.at) < alike) {
                    ++ends;
                    along = along + e.tangent;
                    if (e.wire != feed.wire)
                        return false;
                }
        if (ends != 2 || norm(along) < 0.1)
            return false;
        m_out.normal = unit(along);
        return m_model.ground.kind == GroundKind::FreeSpace || std::abs(m_out.normal.z) < 1e-9;
    }

    /// As many of a kind at the image of each load's place as there.
    [[nodiscard]] bool loadsMirrored() const
    {
        const auto place = [&](const Load& l) { return m_model.wires[l.wire].pointAt(l.at); };
        const auto alikeAt = [&](Vec3 there, const Load& kind) {
            return std::count_if(m_model.loads.begin(), m_model.loads.end(), [&](Load other) {
                const bool here = distance(place(other), there) < alike;
                other.wire = kind.wire;
                other.at = kind.at;
                return here && other == kind;
            });
        };
        return std::all_of(m_model.loads.begin(), m_model.loads.end(),
                           [&](const Load& l) { return alikeAt(place(l), l) == alikeAt(image(place(l)), l); });
    }

    /// The element that is its image, and how it runs; none for one in the mirror or across it.
    [[nodiscard]] std::optional<std::pair<std::size_t, Mirrored>> imageOf(std::size_t e) const
    {
        const Element& a = m_elements[e];
        if (std::abs(side(a.centre())) < alike)
            return std::nullopt;
        const Vec3 start = image(a.start), end = image(a.end);
        for (std::size_t n = 0; n < m_elements.size(); ++n) {
            const Element& b = m_elements[n];
            if (m_out.of[n] >= 0 || distance(image(a.centre()), b.centre()) > alike)
                continue;
            const bool along = distance(start, b.start) < alike && distance(end, b.end) < alike;
            const bool against = distance(start, b.end) < alike && distance(end, b.start) < alike;
            const double slope = along ? b.radiusSlope : -b.radiusSlope;
            if ((along || against) && std::abs(a.radius - b.radius) < 1e-9 && std::abs(a.radiusSlope - slope) < 1e-9 &&
                (a.coil >= 0) == (b.coil >= 0) && sameMetal(m_model.wires[a.wire], m_model.wires[b.wire]))
                return std::pair(n, along ? Mirrored::Along : Mirrored::Against);
        }
        return std::nullopt;
    }

    const WireModel& m_model;
    const std::vector<Element>& m_elements;
    Orbits m_out;
};

} // namespace

bool Orbits::onMirror(Vec3 p) const { return !mirrored.empty() && std::abs(dot(p - at, normal)) < alike; }

Orbits findOrbits(const WireModel& model, const std::vector<Element>& elements)
{
    Orbits turned{OrbitFinder(model, elements).run(), {}, {}, {}};
    const bool shared = !turned.of.empty() && std::size_t(*std::max_element(turned.of.begin(), turned.of.end())) + 1 < turned.of.size();
    if (shared)
        return turned;
    const auto mirrored = MirrorFinder(model, elements).run();
    return mirrored ? *mirrored : turned;
}

std::vector<MeshPair> meshPairs(const Mesh& mesh)
{
    const std::size_t count = mesh.elements.size();
    std::vector<MeshPair> pairs;
    if (mesh.orbit.empty()) {
        pairs.reserve(count * (count + 1) / 2);
        for (std::size_t m = 0; m < count; ++m)
            for (std::size_t n = m; n < count; ++n)
                pairs.push_back({m, n, 1.0});
        return pairs;
    }
    std::vector<int> size(count, 0);
    for (int o : mesh.orbit)
        ++size[std::size_t(o)];
    int met = -1; // orbits are numbered by their first elements, which stand for them
    for (std::size_t m = 0; m < count; ++m) {
        if (mesh.orbit[m] <= met)
            continue;
        met = mesh.orbit[m];
        const double all = size[std::size_t(met)];
        for (std::size_t n = 0; n < count; ++n)
            if (mesh.orbit[n] >= met)
                pairs.push_back({m, n, mesh.orbit[n] > met || n == m ? all : 0.5 * all});
    }
    return pairs;
}

} // namespace vetchling::em

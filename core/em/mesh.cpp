#include "core/em/mesh.h"

#include "core/em/gauss.h"
#include "core/em/symmetry.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <tuple>
#include <unordered_map>

namespace vetchling::em {
namespace {

// Measured on the reference cases (docs/theory.md): error in Z below 0.2 % with 20 to 60 unknowns.
struct Finest {
    double thin, thick, least; ///< radii: of a thin wire; how far down a thick one goes to show `shown`; of any mesh
};
constexpr Finest atEnds{4.0, 1.0, 0.25};     // at a feed, load or end
constexpr Finest atBends{20.0, 8.0, 5.0};    // at a bend or joint, where a current along the axes is an approximation
constexpr double shown = 0.004;              // wavelengths
constexpr double finestInWavelengths = 2e-5; // for hair-thin wires
constexpr double growth = 2.5;               // element size gained per metre from the graded point
constexpr double facingInWavelengths = 0.01; // breaks of neighbours nearer than this are mirrored

/// Vertices, feeds, loads and line ends of a wire as distances along it, rising.
std::vector<double> ownBreakpoints(const WireModel& model, std::size_t wire)
{
    std::vector<double> at{0.0};
    const Wire& w = model.wires[wire];
    std::vector<double> surface;
    for (std::size_t i = 1; i < w.points.size(); ++i) {
        const Vec3 a = w.points[i - 1], b = w.points[i];
        if (model.ground.kind == GroundKind::Real && a.z * b.z < 0.0)
            surface.push_back(at.back() + a.z / (a.z - b.z) * distance(a, b));
        at.push_back(at.back() + distance(a, b));
    }
    at.insert(at.end(), surface.begin(), surface.end());
    for (const Feed& f : model.feeds)
        if (f.wire == wire)
            at.push_back(f.at);
    for (const Load& l : model.loads)
        if (l.wire == wire)
            at.insert(at.end(), {l.from(), l.to()});
    for (const LineSection& l : model.lines) {
        if (l.fromWire == wire)
            at.push_back(l.fromAt);
        if (l.end == LineEnd::Joined && l.toWire == wire)
            at.push_back(l.toAt);
    }
    std::sort(at.begin(), at.end());
    at.erase(std::unique(at.begin(), at.end(), [](double a, double b) { return b - a < 10.0 * jointTolerance; }), at.end());
    return at;
}

/// Adds the places of a wire that a break of a close neighbour faces: the charge there answers to it over a length of
/// their distance, which the mesh must be able to show (folded and ladder arrangements).
void addFacingPlaces(const Wire& w, const std::vector<Vec3>& breaks, double closest, double farthest, double spacing,
                     std::vector<double>& at)
{
    double along = 0.0;
    for (std::size_t i = 1; i < w.points.size(); ++i) {
        const Vec3 a = w.points[i - 1];
        const double piece = distance(a, w.points[i]);
        const Vec3 u = (1.0 / piece) * (w.points[i] - a);
        for (Vec3 p : breaks) {
            const double t = dot(p - a, u), off = distance(p, a + t * u), here = along + t;
            if (t <= 0.0 || t >= piece || off <= closest || off > farthest)
                continue;
            if (std::none_of(at.begin(), at.end(), [&](double other) { return std::abs(other - here) < spacing; }))
                at.push_back(here);
        }
        along += piece;
    }
    std::sort(at.begin(), at.end());
}

/// Number of elements from a place where they are `finest` to a distance s from it: integral of ds/size,
/// size = min(coarsest, finest + growth * s).
double elementsWithin(double s, double finest, double coarsest)
{
    const double ramp = std::max(0.0, (coarsest - finest) / growth);
    if (s <= ramp)
        return std::log1p(growth * s / finest) / growth;
    return std::log1p(growth * ramp / finest) / growth + (s - ramp) / std::max(coarsest, finest);
}

/// Its inverse, no farther than `longest`.
double distanceWithin(double elements, double longest, double finest, double coarsest)
{
    const double ramp = std::max(0.0, (coarsest - finest) / growth), there = std::log1p(growth * ramp / finest) / growth;
    const double s =
        elements <= there ? finest * std::expm1(growth * elements) / growth : ramp + (elements - there) * std::max(coarsest, finest);
    return std::min(s, longest);
}

/// Divides 0..length into elements that grow from `first` at its start and from `last` at its end.
std::vector<double> gradedDivision(double length, double first, double last, double coarsest)
{
    const double meeting = std::clamp(0.5 * (length + (last - first) / growth), 0.0, length); // where both sizes are the same
    const double before = elementsWithin(meeting, first, coarsest), all = before + elementsWithin(length - meeting, last, coarsest);
    const int pieces = std::max(1, int(std::ceil(all - 0.2)));
    std::vector<double> node(pieces + 1);
    for (int i = 1; i < pieces; ++i) {
        const double target = all * i / pieces;
        node[i] = target <= before ? distanceWithin(target, length, first, coarsest)
                                   : length - distanceWithin(all - target, length, last, coarsest);
    }
    node[pieces] = length;
    return node;
}

bool turnsHold(const Load& load, std::size_t wire, double at)
{
    return load.wire == wire && !load.size.inPoint() && at > load.from() && at < load.to();
}

Element elementOn(const WireModel& model, std::size_t wire, double from, double to)
{
    const Wire& w = model.wires[wire];
    Element e;
    e.wire = wire;
    e.from = from;
    e.to = to;
    e.start = w.pointAt(from);
    e.end = w.pointAt(to);
    e.length = distance(e.start, e.end);
    e.tangent = unit(e.end - e.start);
    e.radius = w.radiusAt(0.5 * (from + to));
    e.radiusSlope = w.radiusAt(to) - e.radius;
    for (std::size_t l = 0; l < model.loads.size(); ++l)
        if (const Load& load = model.loads[l]; turnsHold(load, wire, 0.5 * (from + to))) {
            e.coil = int(l);
            e.radius = 0.5 * load.size.diameter;
            e.radiusSlope = 0.0;
        }
    e.inSoil = model.ground.kind == GroundKind::Real && e.centre().z < 0.0;
    return e;
}

class MeshMaker {
public:
    MeshMaker(const WireModel& model, double frequency, const MeshOptions& options) : m_model(model), m_options(options)
    {
        m_mesh.frequency = frequency;
        m_mesh.degree = options.degree;
        const double at = options.meshFrequency > 0.0 ? options.meshFrequency : frequency;
        m_wavelength = wavelength(at);
        if (model.ground.kind == GroundKind::Real)
            m_soilWavelength = m_wavelength / std::max(1.0, std::sqrt(std::abs(model.ground.complexPermittivity(at))));
    }

    Mesh run()
    {
        for (std::size_t w = 0; w < m_model.wires.size(); ++w) {
            m_breaks.push_back(ownBreakpoints(m_model, w));
            for (double at : m_breaks.back())
                m_breakPoints.push_back(m_model.wires[w].pointAt(at));
        }
        for (std::size_t w = 0; w < m_model.wires.size(); ++w)
            divideWire(w);
        m_mesh.shares.resize(m_mesh.elements.size());
        findSymmetry();
        collectNodes();
        for (const auto& ends : m_nodes)
            m_symmetry.mirrored.empty() ? joint(ends) : mirroredJoint(ends);
        bubbles();
        shareWithImages();
        for (const Feed& f : m_model.feeds) {
            m_mesh.feeds.push_back(port(f.wire, f.at, m_options.gapInRadii));
            m_mesh.widerFeeds.push_back(port(f.wire, f.at, 2.0 * m_options.gapInRadii));
        }
        for (const Load& l : m_model.loads) {
            m_mesh.loads.push_back(l.size.inPoint() ? port(l.wire, l.at, m_options.gapInRadii) : PortRow{});
            m_mesh.widerLoads.push_back(l.size.inPoint() ? port(l.wire, l.at, 2.0 * m_options.gapInRadii) : PortRow{});
        }
        for (const LineSection& l : m_model.lines)
            m_mesh.lines.push_back({port(l.fromWire, l.fromAt, m_options.gapInRadii),
                                     l.end == LineEnd::Joined ? port(l.toWire, l.toAt, m_options.gapInRadii) : PortRow{}});
        return std::move(m_mesh);
    }

private:
    struct ElementEnd {
        std::size_t element;
        int end; // 0 start, 1 end
    };

    void divideWire(std::size_t wire)
    {
        std::vector<double> at = m_breaks[wire];
        const Wire& w = m_model.wires[wire];
        const double thickest = std::max(w.radius, w.endRadius.value_or(0.0));
        addFacingPlaces(w, m_breakPoints, 2.0 * thickest, facingInWavelengths * m_wavelength,
                        std::min(coarsestSize(m_wavelength), finestSize(thickest, atEnds, m_wavelength)), at);
        for (std::size_t i = 1; i < at.size(); ++i) {
            const double length = w.pointAt(0.5 * (at[i - 1] + at[i])).z < 0.0 && m_soilWavelength > 0.0 ? m_soilWavelength : m_wavelength;
            const double coarsest = coarsestSize(length);
            const double thick = thicknessAt(wire, 0.5 * (at[i - 1] + at[i]), thickest);
            const auto finest = [&](double place) {
                return std::min(coarsest, finestSize(thick, bends(wire, place) ? atBends : atEnds, length));
            };
            const std::vector<double> node = gradedDivision(at[i] - at[i - 1], finest(at[i - 1]), finest(at[i]), coarsest);
            for (std::size_t k = 1; k < node.size(); ++k)
                m_mesh.elements.push_back(elementOn(m_model, wire, at[i - 1] + node[k - 1], at[i - 1] + node[k]));
        }
    }

    /// Radius there, the coil's where one is; else `usual`.
    double thicknessAt(std::size_t wire, double at, double usual) const
    {
        for (const Load& l : m_model.loads)
            if (turnsHold(l, wire, at))
                return 0.5 * l.size.diameter;
        return usual;
    }

    double coarsestSize(double wavelength) const { return wavelength / (m_options.elementsPerWavelength * std::cbrt(m_options.fineness)); }

    double finestSize(double radius, Finest finest, double wavelength) const
    {
        const double wanted = std::clamp(shown * wavelength, finest.thick * radius, finest.thin * radius);
        return std::max({finestInWavelengths * wavelength, wanted / m_options.fineness, finest.least * radius});
    }

    /// A place where wires meet at an angle: what happens there within some radii is beyond a current along the axes.
    bool bends(std::size_t wire, double at) const
    {
        const Vec3 here = m_model.wires[wire].pointAt(at);
        if (m_soilWavelength > 0.0 && std::abs(here.z) <= jointTolerance) // the charge jumps at the surface
            return true;
        std::vector<Vec3> away;
        for (const Wire& w : m_model.wires)
            for (std::size_t i = 0; i < w.points.size(); ++i)
                if (distance(w.points[i], here) <= 2.0 * jointTolerance) {
                    if (i > 0)
                        away.push_back(unit(w.points[i - 1] - here));
                    if (i + 1 < w.points.size())
                        away.push_back(unit(w.points[i + 1] - here));
                }
        return away.size() > 2 || (away.size() == 2 && dot(away[0], away[1]) > -0.95);
    }

    /// Element ends that meet within the joint tolerance, found through a grid of cells.
    void collectNodes()
    {
        std::unordered_multimap<long long, std::size_t> cells; // cell -> node
        std::vector<Vec3> position;
        const auto key = [](long long x, long long y, long long z) { return (x * 73856093LL) ^ (y * 19349663LL) ^ (z * 83492791LL); };
        const double cell = 4.0 * jointTolerance;
        const auto index = [&](double v) { return (long long)std::floor(v / cell); };
        const auto find = [&](Vec3 p) -> std::size_t {
            for (int dx = -1; dx <= 1; ++dx)
                for (int dy = -1; dy <= 1; ++dy)
                    for (int dz = -1; dz <= 1; ++dz) {
                        const auto range = cells.equal_range(key(index(p.x) + dx, index(p.y) + dy, index(p.z) + dz));
                        for (auto it = range.first; it != range.second; ++it)
                            if (distance(position[it->second], p) <= 2.0 * jointTolerance)
                                return it->second;
                    }
            cells.emplace(key(index(p.x), index(p.y), index(p.z)), position.size());
            position.push_back(p);
            m_nodes.emplace_back();
            return position.size() - 1;
        };
        for (std::size_t e = 0; e < m_mesh.elements.size(); ++e) {
            m_nodes[find(m_mesh.elements[e].start)].push_back({e, 0});
            m_nodes[find(m_mesh.elements[e].end)].push_back({e, 1});
        }
    }

    void findSymmetry()
    {
        m_orbit.resize(m_mesh.elements.size());
        std::iota(m_orbit.begin(), m_orbit.end(), 0);
        if (m_options.symmetry) {
            m_symmetry = findOrbits(m_model, m_mesh.elements);
            m_orbit = m_symmetry.of;
        }
        if (!m_orbit.empty() && std::size_t(*std::max_element(m_orbit.begin(), m_orbit.end())) + 1 < m_orbit.size())
            m_mesh.orbit = m_orbit;
    }

    /// Ends of one orbit at a node carry the same current, and nodes that a turn takes into one another share their unknowns.
    void joint(const std::vector<ElementEnd>& ends)
    {
        std::vector<std::vector<ElementEnd>> sorted; // by orbit and end
        for (ElementEnd end : ends) {
            const auto same = std::find_if(sorted.begin(), sorted.end(), [&](const auto& s) {
                return m_orbit[s.front().element] == m_orbit[end.element] && s.front().end == end.end;
            });
            if (same != sorted.end())
                same->push_back(end);
            else
                sorted.push_back({end});
        }
        if (!m_mesh.orbit.empty())
            std::sort(sorted.begin(), sorted.end(), [&](const auto& a, const auto& b) {
                return std::pair(m_orbit[a.front().element], a.front().end) < std::pair(m_orbit[b.front().element], b.front().end);
            });
        const auto& reference = sorted.front();
        const auto unknownOf = [&](std::size_t i) {
            const auto key = std::tuple(m_orbit[reference.front().element], reference.front().end, i);
            const auto [known, isNew] = m_jointUnknowns.try_emplace(key, m_mesh.unknowns);
            m_mesh.unknowns += isNew;
            return known->second;
        };
        const auto shareAll = [&](const std::vector<ElementEnd>& all, int unknown, double factor) {
            for (ElementEnd end : all)
                share(end, unknown, factor);
        };
        if (onPerfectGround(reference.front()))
            shareAll(reference, unknownOf(0), 1.0);
        for (std::size_t i = 1; i < sorted.size(); ++i) {
            const int unknown = unknownOf(i);
            const double each = double(sorted[i].size()) / double(reference.size());
            shareAll(reference, unknown, reference.front().end == 1 ? each : -each);
            shareAll(sorted[i], unknown, sorted[i].front().end == 0 ? 1.0 : -1.0);
        }
    }

    [[nodiscard]] bool isImage(std::size_t element) const
    {
        return !m_symmetry.mirrored.empty() && m_symmetry.mirrored[element] != Mirrored::No;
    }

    /// Of the side that counts only. What comes to the mirror goes on beyond it, each wire by itself.
    void mirroredJoint(const std::vector<ElementEnd>& ends)
    {
        std::vector<ElementEnd> counting;
        std::copy_if(ends.begin(), ends.end(), std::back_inserter(counting), [&](ElementEnd end) { return !isImage(end.element); });
        if (counting.empty())
            return;
        const Element& one = m_mesh.elements[counting.front().element];
        if (!m_symmetry.onMirror(counting.front().end == 0 ? one.start : one.end))
            return joint(counting);
        for (ElementEnd end : counting)
            share(end, m_mesh.unknowns++, 1.0);
    }

    /// An image carries what the mirror makes of its original's current, turned round.
    void shareWithImages()
    {
        if (m_symmetry.mirrored.empty())
            return;
        for (std::size_t e = 0; e < m_mesh.elements.size(); ++e) {
            if (!isImage(e))
                continue;
            std::size_t original = 0;
            while (m_orbit[original] != m_orbit[e] || isImage(original))
                ++original;
            const bool against = m_symmetry.mirrored[e] == Mirrored::Against;
            for (Share s : m_mesh.shares[original]) {
                if (against && s.function < 2)
                    s.function = 1 - s.function;
                else if (against && s.function % 2 == 1)
                    s.factor = -s.factor; // odd functions change their sign with the direction
                if (!against)
                    s.factor = -s.factor;
                m_mesh.shares[e].push_back(s);
            }
        }
    }

    void share(ElementEnd end, int unknown, double factor)
    {
        for (Share& s : m_mesh.shares[end.element])
            if (s.unknown == unknown && s.function == end.end) { // several ends of a node that carry the same current
                s.factor += factor;
                return;
            }
        m_mesh.shares[end.element].push_back({unknown, end.end, factor});
    }

    bool onPerfectGround(ElementEnd end) const
    {
        if (m_model.ground.kind != GroundKind::Perfect)
            return false;
        const Element& e = m_mesh.elements[end.element];
        return std::abs(end.end == 0 ? e.start.z : e.end.z) <= jointTolerance;
    }

    void bubbles()
    {
        m_mesh.levelStarts.push_back(0);
        for (int k = 2; k <= m_options.degree; ++k) {
            const int first = m_mesh.unknowns;
            m_mesh.levelStarts.push_back(first);
            for (std::size_t e = 0; e < m_mesh.elements.size(); ++e) {
                if (isImage(e))
                    continue;
                const int unknown = first + m_orbit[e];
                m_mesh.shares[e].push_back({unknown, k, 1.0});
                m_mesh.unknowns = std::max(m_mesh.unknowns, unknown + 1);
            }
        }
    }

    /// Mean current over the gap of a feed or load: half of it on either side of the node, or at a joint and on the ground on
    /// one side, that of the element which starts there if there is one.
    PortRow port(std::size_t wire, double at, double gap) const
    {
        std::vector<ElementEnd> sides;
        for (int end : {0, 1})
            for (std::size_t e = 0; e < m_mesh.elements.size(); ++e) {
                const Element& element = m_mesh.elements[e];
                if (element.wire == wire && std::abs((end == 0 ? element.from : element.to) - at) < 10.0 * jointTolerance)
                    sides.push_back({e, end});
            }
        if (sides.size() > 1 && endsMeeting(sides.front()) > 2)
            sides.pop_back();
        PortRow row;
        for (ElementEnd side : sides)
            addHalfGap(side, gap, 1.0 / double(sides.size()), row);
        return row;
    }

    /// Walks away from the node over as many elements of the wire as half the gap takes.
    void addHalfGap(ElementEnd side, double gap, double factor, PortRow& row) const
    {
        const std::size_t wire = m_mesh.elements[side.element].wire;
        const double half = 0.5 * gap * m_mesh.elements[side.element].radius;
        std::vector<std::pair<ElementEnd, double>> spans; // metres of each element
        for (double left = half; left > 1e-9 * half;) {
            const double span = std::min(left, m_mesh.elements[side.element].length);
            spans.emplace_back(side, span);
            left -= span;
            side.element += side.end == 0 ? 1 : -1; // elements of a wire are in order
            if (side.element >= m_mesh.elements.size() || m_mesh.elements[side.element].wire != wire)
                break;
        }
        double whole = 0.0;
        for (const auto& [place, span] : spans)
            whole += span;
        for (const auto& [place, span] : spans)
            addMeanCurrent(place, span, factor * span / whole, row);
    }

    std::size_t endsMeeting(ElementEnd end) const
    {
        for (const auto& ends : m_nodes)
            for (ElementEnd other : ends)
                if (other.element == end.element && other.end == end.end)
                    return ends.size();
        return 0;
    }

    /// The mean over the first `metres` of an element, seen from one of its ends.
    void addMeanCurrent(ElementEnd side, double metres, double factor, PortRow& row) const
    {
        const double span = 2.0 * metres / m_mesh.elements[side.element].length; // of v
        const GaussRule& rule = gaussRule(largestDegree);
        double mean[largestDegree + 1]{};
        for (std::size_t i = 0; i < rule.node.size(); ++i) {
            const double off = 0.5 * (1.0 + rule.node[i]) * span;
            double f[largestDegree + 1];
            localCurrents(side.end == 0 ? off - 1.0 : 1.0 - off, m_mesh.degree, f);
            for (int k = 0; k <= m_mesh.degree; ++k)
                mean[k] += 0.5 * rule.weight[i] * f[k];
        }
        for (const Share& s : m_mesh.shares[side.element])
            row.emplace_back(s.unknown, factor * s.factor * mean[s.function]);
    }

    const WireModel& m_model;
    MeshOptions m_options;
    double m_wavelength = 0.0, m_soilWavelength = 0.0; ///< m; no soil: 0
    std::vector<std::vector<double>> m_breaks;         ///< by wire, m along it
    std::vector<Vec3> m_breakPoints;                   ///< all of them
    Mesh m_mesh;
    std::vector<std::vector<ElementEnd>> m_nodes;
    std::vector<int> m_orbit;
    Orbits m_symmetry;
    std::map<std::tuple<int, int, std::size_t>, int> m_jointUnknowns; ///< by the orbit and end that a node's current is counted from
};

} // namespace

void legendre(double x, int degree, double* out)
{
    out[0] = 1.0;
    if (degree > 0)
        out[1] = x;
    for (int n = 2; n <= degree; ++n)
        out[n] = ((2 * n - 1) * x * out[n - 1] - (n - 1) * out[n - 2]) / n;
}

void localCurrents(double v, int degree, double* out)
{
    double p[largestDegree + 1];
    legendre(v, degree, p);
    out[0] = 0.5 * (1.0 - v);
    out[1] = 0.5 * (1.0 + v);
    for (int k = 2; k <= degree; ++k)
        out[k] = (p[k] - p[k - 2]) / (4 * k - 2);
}

void localSlopes(double v, int degree, double* out)
{
    double p[largestDegree + 1];
    legendre(v, degree, p);
    out[0] = -0.5;
    out[1] = 0.5;
    for (int k = 2; k <= degree; ++k)
        out[k] = 0.5 * p[k - 1]; // (P_k - P_(k-2))' = (2k-1) P_(k-1)
}

bool Mesh::reachesSoil() const
{
    return std::any_of(elements.begin(), elements.end(), [](const Element& e) { return e.inSoil; });
}

Complex currentOn(int degree, const std::vector<Complex>& local, double v)
{
    double f[largestDegree + 1];
    localCurrents(v, degree, f);
    Complex current = 0.0;
    for (int k = 0; k <= degree; ++k)
        current += local[k] * f[k];
    return current;
}

Complex currentSlopeOn(int degree, const std::vector<Complex>& local, double v)
{
    double f[largestDegree + 1];
    localSlopes(v, degree, f);
    Complex slope = 0.0;
    for (int k = 0; k <= degree; ++k)
        slope += local[std::size_t(k)] * f[k];
    return slope;
}

Element mirroredElement(Element e)
{
    e.start = mirrored(e.start);
    e.end = mirrored(e.end);
    e.tangent = mirrored(e.tangent);
    return e;
}

Mesh makeMesh(const WireModel& model, double frequency, const MeshOptions& options) { return MeshMaker(model, frequency, options).run(); }

Mesh movedMesh(const Mesh& mesh, const WireModel& from, const WireModel& to)
{
    Mesh out = mesh;
    out.elements.clear();
    out.orbit.clear(); // the currents still do as they did, the elements may not
    if (from.wires.size() != to.wires.size() || from.feeds.size() != to.feeds.size() || from.loads.size() != to.loads.size() ||
        from.lines.size() != to.lines.size())
        return out;
    std::vector<std::vector<double>> before, after;
    for (std::size_t w = 0; w < from.wires.size(); ++w) {
        before.push_back(ownBreakpoints(from, w));
        after.push_back(ownBreakpoints(to, w));
        if (before.back().size() != after.back().size() || from.wires[w].points.size() != to.wires[w].points.size())
            return out;
    }
    for (const Element& e : mesh.elements) {
        const auto& old = before[e.wire];
        const auto& now = after[e.wire];
        const auto place = [&](double along) {
            const auto next = std::upper_bound(old.begin() + 1, old.end() - 1, along);
            const std::size_t i = std::size_t(next - old.begin());
            return now[i - 1] + (along - old[i - 1]) / (old[i] - old[i - 1]) * (now[i] - now[i - 1]);
        };
        out.elements.push_back(elementOn(to, e.wire, place(e.from), place(e.to)));
    }
    return out;
}

} // namespace vetchling::em

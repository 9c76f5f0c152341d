#include "core/wire/coil_limits.h"
#include "core/wire/soil_model.h"
#include "core/wire/wire_model.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace vetchling {

Faults findPairFaults(const Ground& g)
{
    if (g.kind != GroundKind::Real || g.pairFrequency == 0.0)
        return {};
    if (!(g.pairFrequency >= soilModelFrom && g.pairFrequency <= soilModelTo))
        return {{"", coreText("core", "soil is followed over frequency from a pair measured between 0.1 and 100 MHz")}};
    if (g.conductivity > mostSoilConductivity)
        return {
            {"", coreText("core", "this is water, whose figures are the same at all short waves: leave the frequency of the pair empty")}};
    if (permittivityAtTheTop(g.relativePermittivity, g.conductivity, g.pairFrequency) < leastDryPermittivity)
        return {{"", coreText("core", "no soil has such a pair there: so much conductivity goes with more permittivity, or the pair holds "
                                      "at a higher frequency")}};
    return {};
}
namespace {

constexpr double leastFromSurface = 1e-3; // m, of points from the soil's surface
constexpr double longestWire = 1e6;       // m; far beyond what any band needs
constexpr double smallestRadius = 1e-7;   // m
constexpr double largestRadius = 10.0;    // m
constexpr double flattestPassage = 5.0;   // degrees, through the soil's surface
constexpr double smallestVoltage = 1e-9, largestVoltage = 1e9;

bool joined(Vec3 a, Vec3 b) { return distance(a, b) <= jointTolerance; }

std::string number(double value) { return fmt::format("{:.4g}", value); }

std::string place(std::size_t wire) { return fmt::format("wires[{}]", wire); }

class Checker {
public:
    explicit Checker(const WireModel& model) : m_model(model) {}

    Faults run()
    {
        if (const std::size_t all = pieces(); all > mostPieces) // before anything is held against everything
            return {{"wires", Text(coreText("core", "%1 straight pieces are more than the %2 that can be solved; use fewer points"),
                                   std::to_string(all), std::to_string(mostPieces))}};
        ground();
        if (m_model.wires.empty())
            add("wires", coreText("core", "there is no wire; add one with two or more points"));
        for (std::size_t i = 0; i < m_model.wires.size(); ++i)
            wire(i);
        if (m_faults.empty() && m_model.ground.kind == GroundKind::Real)
            surfacePoints();
        if (m_faults.empty())
            contacts();
        feedsAndLoads();
        return std::move(m_faults);
    }

private:
    [[nodiscard]] std::size_t pieces() const
    {
        std::size_t all = 0;
        for (const Wire& w : m_model.wires)
            all += std::max<std::size_t>(1, w.points.size()) - 1;
        return std::max(all, m_model.wires.size());
    }

    void add(std::string path, Text message) { m_faults.push_back({std::move(path), std::move(message)}); }

    void ground()
    {
        const Ground& g = m_model.ground;
        if (g.kind != GroundKind::Real)
            return;
        if (!(g.relativePermittivity >= 1.0 && g.relativePermittivity <= 1000.0))
            add("ground.relative_permittivity",
                Text(coreText("core", "%1 is outside 1 to 1000; soils lie between 3 and 81"), number(g.relativePermittivity)));
        if (!(g.conductivity >= 0.0 && g.conductivity <= 1e8))
            add("ground.conductivity_S_per_m",
                Text(coreText("core", "%1 is outside 0 to 1e8; soils lie between 0.0001 and 5"), number(g.conductivity)));
        for (Fault& fault : findPairFaults(g))
            add("ground.pair_frequency_Hz", std::move(fault.message));
    }

    void wire(std::size_t index)
    {
        const Wire& w = m_model.wires[index];
        const std::string at = place(index);
        if (w.points.size() < 2) {
            add(at + ".points_m", coreText("core", "a wire needs two points or more"));
            return;
        }
        for (std::size_t i = 0; i < w.points.size(); ++i)
            point(w.points, i, fmt::format("{}.points_m[{}]", at, i));
        radius(w.radius, at + ".radius_m");
        if (w.endRadius)
            radius(*w.endRadius, at + ".end_radius_m");
        if (w.conductivity && !(*w.conductivity > 0.0 && std::isfinite(*w.conductivity)))
            add(at + ".conductivity_S_per_m", coreText("core", "must be above zero; leave it out for a perfect conductor"));
        metal(w, at);
        insulation(w, at + ".insulation");
        shortPieces(w, at);
    }

    void point(const std::vector<Vec3>& points, std::size_t i, const std::string& at)
    {
        const Vec3 p = points[i];
        if (!finite(p) || norm(p) > longestWire) {
            add(at, coreText("core", "is not a point within 1000 km; give three finite numbers in metres"));
            return;
        }
        if (m_model.ground.kind == GroundKind::Perfect && p.z < 0.0)
            add(at, Text(coreText("core", "%1 m below perfect ground, where there is no field; raise it above z = 0, or choose a soil"),
                         number(-p.z)));
        else if (m_model.ground.kind == GroundKind::Real && std::abs(p.z) < leastFromSurface && std::abs(p.z) > jointTolerance)
            add(at, coreText("core",
                             "is within 1 mm of the soil's surface; keep wires 1 mm or more above or below it, or let them pass it at a "
                             "point of z = 0"));
        if (i > 0 && finite(points[i - 1]) && distance(points[i - 1], p) <= jointTolerance)
            add(at, coreText("core", "is the same as the point before it; leave one of them out"));
    }

    void radius(double r, const std::string& at)
    {
        if (!(r >= smallestRadius && r <= largestRadius))
            add(at, Text(coreText("core", "%1 is outside 1e-7 to 10 m; give the wire's radius in metres"), number(r)));
    }

    void metal(const Wire& w, const std::string& at)
    {
        const double thinnest = std::min(w.radius, w.endRadius.value_or(w.radius));
        permeability(w.relativePermeability, at + ".relative_permeability");
        if ((w.coating || w.wall != 0.0) && !w.conductivity)
            add(at + ".conductivity_S_per_m",
                coreText("core", "is missing: a wall or a coating needs the conductivity of the metal below"));
        if (!(w.wall >= 0.0 && w.wall <= thinnest))
            add(at + ".wall_m", coreText("core", "must be between zero (solid) and the radius"));
        if (!w.coating)
            return;
        if (!(w.coating->thickness > 0.0 && w.coating->thickness < thinnest))
            add(at + ".coating.thickness_m", coreText("core", "must be above zero and less than the radius"));
        if (!(w.coating->conductivity > 0.0 && std::isfinite(w.coating->conductivity)))
            add(at + ".coating.conductivity_S_per_m", coreText("core", "must be above zero"));
        permeability(w.coating->relativePermeability, at + ".coating.relative_permeability");
    }

    void permeability(double mu, const std::string& at)
    {
        if (!(mu >= 0.5 && mu <= 1e5))
            add(at, coreText("core", "must be between 0.5 and 100000; 1 for all but iron and steel"));
    }

    void insulation(const Wire& w, const std::string& at)
    {
        if (!w.insulation)
            return;
        if (!(w.insulation->outerRadius > std::max(w.radius, w.endRadius.value_or(0.0)) && w.insulation->outerRadius <= largestRadius))
            add(at + ".outer_radius_m", coreText("core", "must be larger than the wire's radius"));
        if (!(w.insulation->relativePermittivity >= 1.0 && w.insulation->relativePermittivity <= 1000.0))
            add(at + ".relative_permittivity", coreText("core", "must be between 1 and 1000; plastics lie between 2 and 4"));
        if (!(w.insulation->lossTangent >= 0.0 && w.insulation->lossTangent < 10.0))
            add(at + ".loss_tangent", coreText("core", "must be zero or a small positive number"));
    }

    void shortPieces(const Wire& w, const std::string& at)
    {
        const double thickest = std::max(w.radius, w.endRadius.value_or(0.0));
        for (std::size_t i = 1; i < w.points.size(); ++i) {
            const double piece = distance(w.points[i - 1], w.points[i]);
            if (piece > jointTolerance && piece < 2.0 * thickest)
                add(fmt::format("{}.points_m[{}]", at, i),
                    Text(coreText("core",
                                  "the piece before it, %1 m, is shorter than the wire is thick; make it longer or the wire thinner"),
                         number(piece)));
            if (m_model.ground.kind != GroundKind::FreeSpace)
                lyingOnGround(w.points[i - 1], w.points[i], thickest, fmt::format("{}.points_m[{}]", at, i));
        }
    }

    void lyingOnGround(Vec3 a, Vec3 b, double thickest, const std::string& at)
    {
        const bool endsOnGround = (std::abs(a.z) <= jointTolerance) != (std::abs(b.z) <= jointTolerance);
        if (m_model.ground.kind == GroundKind::Real && !endsOnGround && std::abs(a.z) <= jointTolerance)
            add(at, coreText("core", "the piece before it lies in the soil's surface; lay it above or below by more than its radius"));
        else if (!endsOnGround && a.z * b.z >= 0.0 && std::min(std::abs(a.z), std::abs(b.z)) < thickest)
            add(at, coreText("core", "the wire's surface touches the ground here; raise it above its own radius"));
        else if (m_model.ground.kind == GroundKind::Real && (endsOnGround || a.z * b.z < 0.0) &&
                 std::abs(a.z - b.z) < std::sin(radians(flattestPassage)) * distance(a, b))
            add(at,
                Text(coreText("core", "the piece before it meets the soil's surface at less than %1 degrees; let it go down more steeply"),
                     number(flattestPassage)));
    }

    /// A point in the surface of soil is for wires that pass it: an end there would hang between being earthed and not.
    void surfacePoints()
    {
        for (std::size_t w = 0; w < m_model.wires.size(); ++w)
            for (std::size_t i = 0; i < m_model.wires[w].points.size(); ++i)
                if (std::abs(m_model.wires[w].points[i].z) <= jointTolerance && !passesSurface(m_model.wires[w].points[i]))
                    add(fmt::format("{}.points_m[{}]", place(w), i),
                        coreText("core", "touches the soil's surface and does not go on; join a rod or buried radials there for an earth "
                                         "connection, or end it 1 mm or more above"));
    }

    [[nodiscard]] bool passesSurface(Vec3 p) const
    {
        bool above = false, below = false;
        for (const Wire& wire : m_model.wires)
            for (std::size_t i = 0; i < wire.points.size(); ++i)
                if (joined(wire.points[i], p))
                    for (std::size_t k : {i - 1, i + 1})
                        if (k < wire.points.size())
                            (wire.points[k].z > 0.0 ? above : below) = true;
        return above && below;
    }

    struct Piece {
        std::size_t wire, index; // index of its end point
        Vec3 a, b;
    };

    void contacts()
    {
        std::vector<Piece> pieces;
        for (std::size_t w = 0; w < m_model.wires.size(); ++w)
            for (std::size_t i = 1; i < m_model.wires[w].points.size(); ++i)
                pieces.push_back({w, i, m_model.wires[w].points[i - 1], m_model.wires[w].points[i]});
        std::sort(pieces.begin(), pieces.end(),
                  [](const Piece& p, const Piece& q) { return std::min(p.a.x, p.b.x) < std::min(q.a.x, q.b.x); });
        double thickest = 0.0;
        for (const Wire& w : m_model.wires)
            thickest = std::max({thickest, w.radius, w.endRadius.value_or(0.0)});
        for (std::size_t i = 0; i < pieces.size() && m_faults.size() < 20; ++i)
            for (std::size_t j = i + 1;
                 j < pieces.size() && std::min(pieces[j].a.x, pieces[j].b.x) <= std::max(pieces[i].a.x, pieces[i].b.x) + 2.0 * thickest;
                 ++j)
                contact(pieces[i], pieces[j]);
    }

    void contact(const Piece& p, const Piece& q)
    {
        const Piece& first = std::pair(p.wire, p.index) < std::pair(q.wire, q.index) ? p : q;
        const Piece& second = &first == &p ? q : p;
        const std::string at = fmt::format("{}.points_m[{}]", place(second.wire), second.index);
        const bool aa = joined(p.a, q.a), ab = joined(p.a, q.b), ba = joined(p.b, q.a), bb = joined(p.b, q.b);
        if ((aa && bb) || (ab && ba)) {
            add(at, about(first, coreText("core", "this piece lies on piece %1 of wire '%2'; leave one of them out")));
            return;
        }
        if (aa || ab || ba || bb) {
            foldedBack(p, q, aa || ab ? p.a : p.b, first, at);
            return;
        }
        const double allowed = m_model.wires[p.wire].radius + m_model.wires[q.wire].radius;
        if (segmentDistance(p.a, p.b, q.a, q.b) < allowed)
            add(at,
                about(first, coreText("core",
                                      "this piece crosses or touches piece %1 of wire '%2' without a joint; give both wires a point there, "
                                      "or move them apart by more than their radii")));
    }

    /// The piece counted from 1.
    [[nodiscard]] Text about(const Piece& piece, const char* pattern) const
    {
        return {pattern, number(double(piece.index)), m_model.wires[piece.wire].id};
    }

    void foldedBack(const Piece& p, const Piece& q, Vec3 joint, const Piece& first, const std::string& at)
    {
        const Vec3 u = unit((joined(p.a, joint) ? p.b : p.a) - joint), v = unit((joined(q.a, joint) ? q.b : q.a) - joint);
        if (dot(u, v) > std::cos(radians(1.0)))
            add(at,
                about(first, coreText("core", "this piece runs back along piece %1 of wire '%2'; open the angle to more than 1 degree")));
    }

    void feedsAndLoads()
    {
        if (m_model.feeds.empty())
            add("feeds", coreText("core", "there is no feed; add one so that there is an impedance to compute"));
        for (std::size_t i = 0; i < m_model.feeds.size(); ++i) {
            const Feed& f = m_model.feeds[i];
            const std::string at = fmt::format("feeds[{}]", i);
            position(f.wire, f.at, at);
            const double volts = std::abs(f.voltage);
            if (!(volts == 0.0 || (volts >= smallestVoltage && volts <= largestVoltage)))
                add(at + ".voltage_V", coreText("core", "must be two numbers, real and imaginary part, that make zero or 1 nV to 1 GV"));
        }
        if (!m_model.feeds.empty() &&
            std::all_of(m_model.feeds.begin(), m_model.feeds.end(), [](const Feed& f) { return std::abs(f.voltage) == 0.0; }))
            add("feeds", coreText("core", "every feed has zero volts; give one of them 1 V"));
        for (std::size_t i = 0; i < m_model.loads.size(); ++i)
            load(m_model.loads[i], fmt::format("loads[{}]", i));
        for (std::size_t i = 0; i < m_model.feeds.size(); ++i)
            if (m_model.feeds[i].transformer)
                transformer(*m_model.feeds[i].transformer, fmt::format("feeds[{}].transformer", i));
        for (std::size_t i = 0; i < m_model.lines.size(); ++i)
            line(m_model.lines[i], fmt::format("lines[{}]", i));
    }

    void load(const Load& l, const std::string& at)
    {
        position(l.wire, l.at, at);
        const auto value = [&](double v, const char* key) {
            if (!(v >= 0.0 && v < 1e12))
                add(at + "." + key, coreText("core", "must be zero or a positive number"));
        };
        value(l.resistance, "resistance_ohm");
        value(l.inductance, "inductance_H");
        value(l.capacitance, "capacitance_F");
        value(l.q, "q");
        value(l.selfResonance, "self_resonance_Hz");
        if (l.wire < m_model.wires.size() && l.size != CoilSize{})
            coilSize(l, at);
    }

    void coilSize(const Load& l, const std::string& at)
    {
        const Wire& w = m_model.wires[l.wire];
        if (!(l.size.length >= 0.0 && l.size.length <= longestWire)) {
            add(at + ".length_m", coreText("core", "must be zero, for a coil in a point, or the coil's length"));
            return;
        }
        if (l.size.inPoint())
            return;
        const bool trap = l.kind == LoadKind::Parallel && l.capacitance > 0.0, alone = l.kind == LoadKind::Series && l.capacitance == 0.0;
        if (!(trap || alone) || l.resistance != 0.0 || l.selfResonance != 0.0 || !(l.inductance > 0.0))
            add(at + ".length_m",
                coreText("core",
                         "only a coil by itself or with a capacitor across it has a length: its own capacitance follows from its size"));
        if (!(l.size.diameter > 2.0 * std::max(w.radius, w.endRadius.value_or(0.0)) && l.size.diameter <= largestRadius))
            add(at + ".diameter_m", coreText("core", "a coil is thicker than the wire it is in"));
        if (!(l.size.wireDiameter >= 0.0 && l.size.wireDiameter < 0.5 * l.size.diameter))
            add(at + ".wire_diameter_m", coreText("core", "must be zero or less than half of the coil's diameter"));
        if (tooShort(l.size))
            add(at + ".length_m",
                coreText("core", "a coil shorter than a fifth of its diameter is taken as one in a point: make its length 0"));
        coilPlace(l, w, at);
    }

    /// It takes a straight piece of wire, all for itself, and not in the soil.
    void coilPlace(const Load& l, const Wire& w, const std::string& at)
    {
        const auto inside = [&](std::size_t wire, double place) {
            return wire == l.wire && place > l.from() + jointTolerance && place < l.to() - jointTolerance;
        };
        bool room = l.from() > -jointTolerance && l.to() < w.length() + jointTolerance;
        double corner = 0.0;
        for (std::size_t i = 1; i + 1 < w.points.size(); ++i)
            room = room && !inside(l.wire, corner += distance(w.points[i - 1], w.points[i]));
        for (const Feed& f : m_model.feeds)
            room = room && !inside(f.wire, f.at);
        for (const Load& other : m_model.loads)
            room = room && (&other == &l || other.wire != l.wire || other.from() > l.to() - jointTolerance ||
                            other.to() < l.from() + jointTolerance);
        for (const LineSection& s : m_model.lines)
            room = room && !inside(s.fromWire, s.fromAt) && !(s.end == LineEnd::Joined && inside(s.toWire, s.toAt));
        if (!room)
            add(at + ".length_m",
                coreText("core", "there is not so much straight wire for the coil between ends, corners, feed and other coils; "
                                 "make it shorter, or its length 0 for a coil in a point"));
        else if (m_model.ground.kind != GroundKind::FreeSpace &&
                 std::min(w.pointAt(l.from()).z, w.pointAt(l.to()).z) < 0.5 * l.size.diameter)
            add(at + ".at_m", coreText("core", "a coil touches the ground here; raise it above its own radius, or make its length 0"));
    }

    void transformer(const Transformer& t, const std::string& at)
    {
        if (!(t.ratio >= 1e-4 && t.ratio <= 1e4))
            add(at + ".ratio",
                coreText("core", "must be between 0.0001 and 10000; it is the impedance at the antenna over that at the line"));
        for (const auto& [value, key] : {std::pair(t.leakageInductance, "leakage_H"), std::pair(t.magnetisingInductance, "magnetising_H"),
                                         std::pair(t.coreLoss, "core_loss_ohm"), std::pair(t.capacitance, "capacitance_F")})
            if (!(value >= 0.0 && value < 1e9))
                add(at + "." + key, coreText("core", "must be zero or a positive number"));
        constexpr double leastLoss = 1e-3, leastInductance = 1e-12; // below, hardly anything reaches the antenna
        if (t.coreLoss > 0.0 && t.coreLoss < leastLoss)
            add(at + ".core_loss_ohm", coreText("core", "is a short circuit across the line; give zero for a core without loss"));
        if (t.magnetisingInductance > 0.0 && t.magnetisingInductance < leastInductance)
            add(at + ".magnetising_H", coreText("core", "is a short circuit across the line; give zero for a large one"));
    }

    void line(const LineSection& l, const std::string& at)
    {
        position(l.fromWire, l.fromAt, at + ".from");
        if (l.end == LineEnd::Joined)
            position(l.toWire, l.toAt, at + ".to");
        if (l.end == LineEnd::Joined && l.fromWire == l.toWire && std::abs(l.fromAt - l.toAt) < 1e-3)
            add(at + ".to",
                coreText("core", "is the same place as the line's first end; a stub is a line with an end that is short or open"));
        if (!(l.characteristicImpedance >= 0.1 && l.characteristicImpedance <= 1e4))
            add(at + ".impedance_ohm", coreText("core", "must be between 0.1 and 10000"));
        if (!(l.length >= 1e-4 && l.length <= 1e4))
            add(at + ".length_m", coreText("core", "must be between 0.1 mm and 10 km"));
        if (!(l.velocityFactor >= 0.05 && l.velocityFactor <= 1.0))
            add(at + ".velocity_factor", coreText("core", "must be between 0.05 and 1; coax has 0.66 to 0.9, open wire 0.95 and more"));
        if (!(l.lossPerMetre >= 0.0 && l.lossPerMetre <= 100.0))
            add(at + ".loss_dB_per_m", coreText("core", "must be between 0 and 100"));
        if (!(l.k1 >= 0.0 && l.k1 <= 1000.0))
            add(at + ".k1_dB_per_100m", coreText("core", "must be between 0 and 1000"));
        if (!(l.k2 >= 0.0 && l.k2 <= 100.0))
            add(at + ".k2_dB_per_100m", coreText("core", "must be between 0 and 100"));
    }

    void position(std::size_t wire, double at, const std::string& path)
    {
        if (wire >= m_model.wires.size()) {
            add(path + ".wire", coreText("core", "there is no such wire"));
            return;
        }
        const Wire& w = m_model.wires[wire];
        const double length = w.length();
        if (!(at >= -jointTolerance && at <= length + jointTolerance)) {
            add(path + ".at_m", Text(coreText("core", "%1 m is off the wire, which is %2 m long"), number(at), number(length)));
            return;
        }
        if (m_faults.empty())
            freeEnd(wire, at, length, path);
    }

    void freeEnd(std::size_t wire, double at, double length, const std::string& path)
    {
        const bool atStart = at <= jointTolerance, atEnd = at >= length - jointTolerance;
        if (!atStart && !atEnd)
            return;
        const Wire& w = m_model.wires[wire];
        const Vec3 p = atStart ? w.points.front() : w.points.back();
        if (m_model.ground.kind == GroundKind::Perfect && std::abs(p.z) <= jointTolerance)
            return;
        std::size_t meeting = 0;
        for (const Wire& other : m_model.wires)
            meeting +=
                static_cast<std::size_t>(std::count_if(other.points.begin(), other.points.end(), [&](Vec3 v) { return joined(v, p); }));
        if (meeting < 2)
            add(path + ".at_m",
                coreText("core", "is at a free end, where no current can flow; move it inward or join a counterpoise there"));
    }

    const WireModel& m_model;
    Faults m_faults;
};

} // namespace

Faults findFaults(const WireModel& model) { return Checker(model).run(); }

Faults findFrequencyFaults(double frequency, const std::string& path)
{
    if (frequency >= 1e4 && frequency <= 3e9)
        return {};
    return {{path, {coreText("core", "%1 Hz is outside 10 kHz to 3 GHz"), number(frequency)}}};
}

} // namespace vetchling

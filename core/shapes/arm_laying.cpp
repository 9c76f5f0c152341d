#include "core/shapes/arm.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vetchling::shapes {
namespace {

struct CoilIn {
    double at = 0.0; ///< m along the run
    double henry = 0.0, q = 0.0;
    CoilSize size;
};

/// Stretches that are one wire of the model.
struct Run {
    std::vector<Vec3> points;
    double diameter = 0.0, endDiameter = 0.0, length = 0.0;
    bool lead = false, fold = false;
    std::vector<CoilIn> coils;

    void to(Vec3 p)
    {
        constexpr double same = 1e-9; // m, and of a direction
        if (!points.empty() && distance(points.back(), p) < same)
            return;
        length += points.empty() ? 0.0 : distance(points.back(), p);
        if (points.size() > 1 && distance(unit(points.back() - points[points.size() - 2]), unit(p - points.back())) < same)
            points.back() = p; // straight on
        else
            points.push_back(p);
    }
};

/// Follows an arm's stretches from its foot.
class Walk {
public:
    explicit Walk(const ArmLine& line) : m_line(line) {}

    std::vector<Run> along(const Arm& arm)
    {
        for (const Stretch& s : arm.stretches) {
            if (m_runs.empty() || s.joint)
                begin(s);
            switch (s.kind) {
            case Stretch::Kind::Fold: fold(s); break;
            case Stretch::Kind::Coil:
                m_runs.back().coils.push_back({m_runs.back().length + 0.5 * s.length, s.henry, s.q, s.size});
                [[fallthrough]];
            case Stretch::Kind::Lead:
            case Stretch::Kind::Wire: straight(s); break;
            }
            if (s.endDiameter > 0.0)
                m_runs.back().endDiameter = s.endDiameter;
        }
        return m_runs;
    }

private:
    void begin(const Stretch& s)
    {
        const Vec3 from = m_runs.empty() ? m_line.foot : m_runs.back().points.back();
        m_runs.push_back({{}, s.diameter, s.endDiameter, 0.0, s.kind == Stretch::Kind::Lead, s.kind == Stretch::Kind::Fold, {}});
        m_runs.back().to(from);
    }

    [[nodiscard]] Vec3 row(double along, double below) const { return m_line.at(along) + below * m_line.low; }

    void straight(const Stretch& s)
    {
        if (s.droop > 0.0) {
            const double turn = radians(s.droop);
            m_runs.back().to(row(m_at, m_below) + s.length * (std::cos(turn) * m_line.along + std::sin(turn) * m_line.low));
            return;
        }
        m_at += s.length;
        m_runs.back().to(row(m_at, m_below));
    }

    void fold(const Stretch& s)
    {
        Run& run = m_runs.back();
        const double out = m_at + s.fold, one = m_below + s.spacing, two = m_below + 2.0 * s.spacing;
        if (s.inside) {
            for (Vec3 p : {row(out, m_below), row(out, one), row(m_at, one), row(m_at, two)})
                run.to(p);
            m_below = two;
            return;
        }
        // the stub hangs below; where it comes back the arm goes on beside its foot
        for (Vec3 p : {row(m_at, two), row(out, two), row(out, one), row(m_at + s.spacing, one), row(m_at + s.spacing, m_below)})
            run.to(p);
        m_at += s.spacing;
    }

    const ArmLine& m_line;
    std::vector<Run> m_runs;
    double m_at = 0.0, m_below = 0.0; ///< m out along the line; below it
};

WireChoice choiceOf(const AntennaShape& shape, const ArmKind& kind, const Run& run)
{
    if (run.lead)
        return wireOf(shape, "leads");
    WireChoice choice = metalOf(kind, shape);
    choice.diameter = run.diameter;
    return choice;
}

Wire wireOfRun(const AntennaShape& shape, const ArmKind& kind, const Run& run, std::string id)
{
    Wire wire = makeWire(choiceOf(shape, kind, run), std::move(id), run.points);
    if (!run.lead && run.endDiameter != run.diameter)
        wire.endRadius = 0.5 * run.endDiameter;
    return wire;
}

/// Two arms' innermost runs as one wire, from the first arm outside in and on.
Run joined(const Run& a, const Run& b)
{
    Run whole = a;
    std::reverse(whole.points.begin(), whole.points.end());
    whole.points.insert(whole.points.end(), b.points.begin() + 1, b.points.end());
    whole.length = a.length + b.length;
    for (CoilIn& coil : whole.coils)
        coil.at = a.length - coil.at;
    for (CoilIn coil : b.coils) {
        coil.at += a.length;
        whole.coils.push_back(coil);
    }
    return whole;
}

void layRun(const AntennaShape& shape, const ArmKind& kind, const Run& run, std::string id, BuiltAntenna& out)
{
    out.model.wires.push_back(wireOfRun(shape, kind, run, std::move(id)));
    for (const CoilIn& coil : run.coils)
        addSeriesCoil(out, out.model.wires.size() - 1, coil.at, coil.henry, coil.q, coil.size);
}

/// Pieces as they are cut, of one arm. @param wire m, thickness that needs no telling
std::vector<WireSection> piecesOf(const Arm& arm, double wire)
{
    std::vector<WireSection> pieces;
    for (const Stretch& s : arm.stretches) {
        if (s.kind == Stretch::Kind::Coil)
            continue;
        if (s.piece || pieces.empty())
            pieces.push_back({s.name, 1, 0.0, s.first, s.last, s.trimmed, s.overlap,
                              s.kind == Stretch::Kind::Lead || s.diameter == wire ? 0.0 : s.diameter});
        const double round = s.inside ? 2.0 * s.fold + 2.0 * s.spacing : 2.0 * s.fold + 3.0 * s.spacing;
        pieces.back().length += s.kind == Stretch::Kind::Fold ? round : s.length;
        if (s.kind == Stretch::Kind::Wire)
            pieces.back().last = s.last;
    }
    return pieces;
}

std::string nameOnSide(const std::string& name, std::size_t side)
{
    static const std::map<std::string, std::array<const char*, 2>> all{
        {"leg", {coreText("core", "leg, first side"), coreText("core", "leg, second side")}},
        {"leg with its fold", {coreText("core", "leg with its fold, first side"), coreText("core", "leg with its fold, second side")}},
        {"outer part", {coreText("core", "outer part, first side"), coreText("core", "outer part, second side")}},
        {"tip", {coreText("core", "tip, first side"), coreText("core", "tip, second side")}},
    };
    const auto found = all.find(name);
    return found == all.end() ? name : found->second[side];
}

void addPieces(const std::vector<Arm>& arms, double wire, BuiltAntenna& out)
{
    std::vector<WireSection> first = piecesOf(arms.front(), wire);
    const std::vector<WireSection> second = piecesOf(arms.back(), wire);
    for (std::size_t i = 0; i < first.size(); ++i) {
        const bool alike = arms.size() == 1 || std::abs(first[i].length - second[i].length) < 1e-9;
        first[i].pieces = arms.size() == 2 && alike ? 2 : 1;
        if (!alike)
            first[i].name = nameOnSide(first[i].name, 0);
        out.sections.push_back(first[i]);
        if (alike)
            continue;
        out.sections.push_back(second[i]);
        out.sections.back().name = nameOnSide(second[i].name, 1);
    }
}

std::string idOf(const Run& run, std::size_t tube, const std::string& wireName, bool stepped, const char* side)
{
    return run.lead   ? std::string("leads") + side
           : run.fold ? std::string("fold ") + side
           : stepped  ? "tube " + std::to_string(tube) + side
                      : wireName + (*side ? std::string(" ") + side : std::string());
}

} // namespace

ArmLine armLine(Vec3 foot, Vec3 towardsEnd, double bearing)
{
    const Vec3 along = unit(towardsEnd - foot), down{0.0, 0.0, -1.0};
    const bool upright = std::hypot(along.x, along.y) < 1e-6;
    return {foot, along, upright ? towards(bearing) : down};
}

Vec3 tipOf(const Arm& arm, const ArmLine& line)
{
    const double turn = arm.stretches.empty() ? 0.0 : radians(arm.stretches.back().droop);
    return line.at(arm.straight()) + arm.droop * (std::cos(turn) * line.along + std::sin(turn) * line.low);
}

void layArms(const AntennaShape& shape, const ArmKind& kind, const std::vector<Arm>& arms, const std::vector<ArmLine>& lines,
             const std::string& wireName, BuiltAntenna& out)
{
    std::vector<std::vector<Run>> runs;
    for (std::size_t i = 0; i < arms.size(); ++i)
        runs.push_back(Walk(lines[i]).along(arms[i]));
    const bool pair = runs.size() == 2, stepped = arms.front().tubes.size() > 1;
    const bool one = pair && runs[0].front().diameter == runs[0].front().endDiameter; // tapered ones meet in the middle
    if (one) {
        layRun(shape, kind, joined(runs[0].front(), runs[1].front()), idOf(runs[0].front(), 1, wireName, stepped, ""), out);
        out.model.feeds.push_back({0, runs[0].front().length, 1.0});
    } else {
        out.model.feeds.push_back({0, 0.0, 1.0});
    }
    for (std::size_t i = one ? 1 : 0, tube = one && !runs[0].front().lead ? 1 : 0; i < runs[0].size(); ++i) {
        tube += runs[0][i].fold ? 0 : 1;
        for (std::size_t side = 0; side < runs.size(); ++side)
            layRun(shape, kind, runs[side][i], idOf(runs[side][i], tube, wireName, stepped, !pair ? "" : side == 0 ? "a" : "b"), out);
    }
    addPieces(arms, metalOf(kind, shape).diameter, out);
}

} // namespace vetchling::shapes

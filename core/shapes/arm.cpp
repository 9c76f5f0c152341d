#include "core/shapes/arm.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr int mostTubes = 6;
constexpr double byTubes = 0.75;  // of an arm, that all tubes but the last reach
constexpr double thinnest = 1e-4; // m
constexpr double thickest = 4e-3; // m, of what bends round an insulator

const char* const armGroup = coreText("core", "Piece by piece");
const char* const tubeLabels[] = {coreText("core", "First tube"),  coreText("core", "Second tube"), coreText("core", "Third tube"),
                                  coreText("core", "Fourth tube"), coreText("core", "Fifth tube"),  coreText("core", "Sixth tube")};
const char* const tubeNames[] = {coreText("core", "first tube"),  coreText("core", "second tube"), coreText("core", "third tube"),
                                 coreText("core", "fourth tube"), coreText("core", "fifth tube"),  coreText("core", "sixth tube")};
const char* const thicknessLabels[] = {coreText("core", "First tube's diameter"), coreText("core", "Second tube's diameter"),
                                       coreText("core", "Third tube's diameter"), coreText("core", "Fourth tube's diameter"),
                                       coreText("core", "Fifth tube's diameter"), coreText("core", "Sixth tube's diameter")};

std::string tubeKey(int tube) { return "tube_" + std::to_string(tube) + "_m"; }
std::string thicknessKey(int tube) { return "tube_" + std::to_string(tube) + "_diameter_m"; }

bool chosen(const AntennaShape& shape, Has has, const char* key)
{
    const auto found = shape.parameters.find(key);
    return has == Has::Always || (has == Has::Choice && found != shape.parameters.end() && found->second >= 0.5);
}

int tubesOf(const ArmKind& kind, const AntennaShape& shape) { return countOf(shape, "tube_count", kind.fewestTubes, mostTubes); }
bool hasCoil(const ArmKind& kind, const AntennaShape& shape) { return chosen(shape, kind.coil, "arm_coil"); }
bool hasFold(const ArmKind& kind, const AntennaShape& shape) { return chosen(shape, kind.fold, "arm_fold"); }
bool droops(const AntennaShape& shape)
{
    const auto found = shape.parameters.find("droop_m");
    return found != shape.parameters.end() && found->second > 0.0;
}

void addCoil(std::vector<ParameterSpec>& all, const ArmKind& kind, const AntennaShape& shape)
{
    if (kind.coil == Has::Choice)
        all.push_back(choiceSpec("arm_coil", coreText("core", "Coils"), coilsGroup,
                                 {coreText("core", "none"), kind.pair ? coreText("core", "one in each arm") : coreText("core", "one")}));
    if (!hasCoil(kind, shape))
        return;
    all.push_back(inductanceSpec("inductance_H", kind.henryLabel, coilsGroup, {kind.henry, 0.0, 5e-3}));
    const int tubes = tubesOf(kind, shape);
    if (tubes == 1)
        all.push_back(percentSpec("coil_place_percent", kind.placeLabel, coilsGroup, {kind.place, 0.0, 95.0}, kind.placeHelp));
    else
        all.push_back(numberSpec("coil_joint", coreText("core", "Coil beyond tube number"), coilsGroup, {1.0, 1.0, double(tubes - 1)},
                                 coreText("core", "the tubes before and beyond it are insulated from one another")));
    if (kind.pair)
        all.push_back(inductanceSpec("second_inductance_H", coreText("core", "Coil of the second arm more by"), coilsGroup,
                                     {0.0, -5e-3, 5e-3}, coreText("core", "0: both alike")));
    addCoilSpecs(all);
}

void addFold(std::vector<ParameterSpec>& all, const ArmKind& kind, const AntennaShape& shape)
{
    if (kind.fold == Has::Choice)
        all.push_back(choiceSpec("arm_fold", coreText("core", "Folds"), coilsGroup,
                                 {coreText("core", "none"), kind.pair ? coreText("core", "one in each arm") : coreText("core", "one")},
                                 coreText("core", "a pair of wires on stand-offs that runs back and forth")));
    if (!hasFold(kind, shape))
        return;
    all.push_back(lengthSpec("loading_m", coreText("core", "Length of the fold"), coilsGroup, {3.0, 0.01, 500.0},
                             coreText("core", "of the pair that runs back and forth in each arm"), kind.fold == Has::Choice ? 0.03 : 0.0));
    all.push_back(lengthSpec("loading_at_m", coreText("core", "Fold begins at"), coilsGroup, {0.5, 0.005, 500.0},
                             coreText("core", "out along the arm"), 0.012));
    all.push_back(lengthSpec("loading_spacing_m", coreText("core", "Between its wires"), coilsGroup, {0.1, 0.004, 2.0}, {},
                             kind.diameter > 0.0 ? 0.012 : 0.0025)); // tubes are thick
    all.push_back(choiceSpec("loading_fold", coreText("core", "The pair lies"), coilsGroup,
                             {coreText("core", "inside the arm"), coreText("core", "below it, as a stub")},
                             coreText("core", "inside: the arm itself runs out, back and out again")));
    all.push_back(sizeSpec("loading_wire_m", coreText("core", "Its wire"), coilsGroup, {0.0, 0.0, 0.05},
                           coreText("core", "thickness, of a pair that lies below the arm; 0: as the arm")));
}

void addTubes(std::vector<ParameterSpec>& all, const ArmKind& kind, const AntennaShape& shape)
{
    const int count = tubesOf(kind, shape);
    all.push_back(numberSpec("tube_count", kind.pair ? coreText("core", "Tubes a side") : coreText("core", "Tubes"), armGroup,
                             {double(kind.usualTubes), double(kind.fewestTubes), double(mostTubes)},
                             coreText("core", "or wires, of their own thickness; 1: the same all along")));
    for (int tube = 1; tube < count; ++tube)
        all.push_back(lengthSpec(tubeKey(tube), tubeLabels[tube - 1], armGroup, {2.0, 0.01, 100.0},
                                 coreText("core", "of it in sight, from the one before to the next"), byTubes * kind.inWaves / count));
    all.push_back(sizeSpec("tube_diameter_m", count > 1 ? coreText("core", "Diameter of the innermost") : coreText("core", "Diameter"),
                           armGroup, {kind.diameter, 0.0, 0.3}, coreText("core", "0: as the wire")));
    if (count > 1) {
        all.push_back(sizeSpec("tube_step_m", coreText("core", "Each next one thinner by"), armGroup, {kind.step, 0.0, 0.05}));
        for (int tube = 2; tube <= count; ++tube)
            all.push_back(sizeSpec(thicknessKey(tube), thicknessLabels[tube - 1], armGroup, {0.0, 0.0, 0.3},
                                   coreText("core", "0: by the step from the one before")));
        all.push_back(lengthSpec("tube_overlap_m", coreText("core", "They reach into one another"), armGroup, {0.1, 0.0, 5.0},
                                 coreText("core", "not in sight, and cut with them"), 0.003));
    }
    all.push_back(percentSpec("tip_percent", coreText("core", "Thickness at the tip"), armGroup, {100.0, 5.0, 100.0},
                              coreText("core", "of the last tube; a telescope is thinner towards its tip")));
}

void addTip(std::vector<ParameterSpec>& all, const ArmKind& kind, const AntennaShape& shape)
{
    all.push_back(lengthSpec("droop_m", kind.pair ? coreText("core", "Of each tip droops") : coreText("core", "Of the tip droops"),
                             armGroup, {0.0, 0.0, 500.0}, coreText("core", "the last part of the arm, at an angle to it; 0: none")));
    if (droops(shape))
        all.push_back(angleSpec("droop_deg", coreText("core", "It droops by"), armGroup, {45.0, 1.0, 150.0},
                                coreText("core", "from the arm's line; upright ones droop along their bearing")));
    if (kind.pair)
        addTipsApart(all, armGroup);
}

/// Reads an arm's parameters and puts its stretches in order.
class Layout {
public:
    Layout(const Family& family, const ArmKind& kind, const AntennaShape& shape, int side)
        : m_family(family), m_kind(kind), m_shape(shape), m_side(side), m_tubes(tubesOf(kind, shape))
    {
    }

    Result<Arm> run()
    {
        m_arm.length = armLengths(m_family, m_kind, m_shape)[std::size_t(m_side)];
        if (m_arm.length < 0.02)
            return Fault{m_side == 0 ? "first_tip_m" : "second_tip_m", coreText("core", "nothing would be left of this arm")};
        m_arm.droop = droops(m_shape) ? v("droop_m") : 0.0;
        using Step = Faults (Layout::*)();
        for (const Step step : {&Layout::thicknesses, &Layout::places, &Layout::foldFits, &Layout::coilFits, &Layout::tipDroops})
            if (Faults faults = (this->*step)(); !faults.empty())
                return faults;
        assemble();
        return m_arm;
    }

private:
    [[nodiscard]] double v(const std::string& key) const { return m_family.value(m_shape, key); }

    Faults thicknesses()
    {
        double now = v("tube_diameter_m");
        if (now == 0.0)
            now = metalOf(m_kind, m_shape).diameter;
        for (int tube = 1; tube <= m_tubes; ++tube) {
            if (tube > 1)
                now = v(thicknessKey(tube)) > 0.0 ? v(thicknessKey(tube)) : now - v("tube_step_m");
            if (now < thinnest)
                return {{"tube_step_m",
                         coreText("core", "the tip would be thinner than a tenth of a millimetre; take a smaller step or fewer tubes")}};
            m_thick.push_back(now);
        }
        return {};
    }

    /// Where each tube begins and ends. A coil at a joint takes its length between them.
    Faults places()
    {
        m_coil = hasCoil(m_kind, m_shape);
        m_size = m_coil ? coilSizeOf(m_family, m_shape) : CoilSize{};
        m_coilJoint = m_coil && m_tubes > 1 ? std::clamp(int(std::lround(v("coil_joint"))), 1, m_tubes - 1) : 0;
        double at = m_kind.centrePiece ? 0.5 * v("lead_m") : 0.0;
        for (int tube = 1; tube <= m_tubes; ++tube) {
            m_from.push_back(at);
            at = tube < m_tubes ? at + v(tubeKey(tube)) : m_arm.length;
            m_to.push_back(at);
            if (tube == m_coilJoint) {
                m_coilFrom = at;
                at += m_size.length;
            }
            if (tube < m_tubes && at >= 0.99 * m_arm.length)
                return {{m_kind.length,
                         {coreText("core", "the inner tubes alone reach %1; a side must be longer, or they shorter"),
                          Measure{at, units::Quantity::Length}}}};
        }
        for (std::size_t tube = 0; tube < m_from.size(); ++tube)
            m_arm.tubes.emplace_back(m_from[tube], m_to[tube]);
        if (m_coil && m_tubes == 1) // at the foot it begins there
            m_coilFrom = std::max(0.0, 0.01 * v("coil_place_percent") * v(m_kind.length) - 0.5 * m_size.length);
        m_arm.coilAt = m_coilFrom + 0.5 * m_size.length;
        return {};
    }

    Faults foldFits()
    {
        if (!hasFold(m_kind, m_shape))
            return {};
        const double at = v("loading_at_m"), fold = v("loading_m"), spacing = v("loading_spacing_m"), own = v("loading_wire_m");
        m_arm.foldAt = at;
        m_arm.fold = fold;
        m_inside = v("loading_fold") < 0.5;
        if (at + fold >= 0.99 * m_arm.straight())
            return {{"loading_m",
                     {coreText("core", "the fold would end beyond the arm's %1; make it shorter or begin it farther in"),
                      Measure{m_arm.straight(), units::Quantity::Length}}}};
        for (m_foldTube = 0; m_foldTube + 1 < m_tubes && at >= m_to[std::size_t(m_foldTube)];)
            ++m_foldTube;
        const double beyond = m_inside ? at + fold : at + spacing;
        if (at <= m_from[std::size_t(m_foldTube)] || beyond >= m_to[std::size_t(m_foldTube)])
            return {{"loading_at_m", coreText("core", "a fold belongs to one tube; begin it elsewhere, or change that tube's length")}};
        if (m_inside && own > 0.0)
            return {
                {"loading_wire_m", coreText("core", "inside the arm the fold is of the arm's own wire; lay the pair below it, or give 0")}};
        const double jacket = metalOf(m_kind, m_shape).jacket, thick = std::max(own, m_thick[std::size_t(m_foldTube)]);
        if (spacing < 1.5 * (thick + 2.0 * jacket))
            return {{"loading_spacing_m", coreText("core", "the wires of the fold would touch; space them wider")}};
        if (m_coil && m_coilFrom < beyond && m_coilFrom + m_size.length > at)
            return {{"loading_at_m", coreText("core", "coil and fold would be in one place; move one of them")}};
        return {};
    }

    Faults coilFits()
    {
        if (!m_coil || m_coilJoint > 0) {
            const double thick = m_coilJoint > 0 ? std::max(m_thick[std::size_t(m_coilJoint)], m_thick[std::size_t(m_coilJoint - 1)]) : 0.0;
            return m_coil ? findSizeFaults(m_size, m_size.length, m_size.length, thick) : Faults{};
        }
        return findSizeFaults(m_size, m_arm.coilAt, m_arm.straight() - m_arm.coilAt, m_thick.front());
    }

    Faults tipDroops()
    {
        if (m_arm.droop > 0.0 && m_arm.straight() <= std::max({m_from.back(), m_coilFrom + m_size.length, 0.01 * m_arm.length}))
            return {{"droop_m", coreText("core", "only the last tube droops, and beyond what is in it; let less of it droop")}};
        return {};
    }

    void assemble()
    {
        if (m_kind.centrePiece) {
            Stretch lead;
            lead.kind = Stretch::Kind::Lead;
            lead.name = coreText("core", "leads");
            lead.length = 0.5 * v("lead_m");
            lead.first = lead.last = WireEnd::Joint;
            m_arm.stretches.push_back(lead);
        }
        for (int tube = 0; tube < m_tubes; ++tube) {
            addTube(tube);
            if (tube + 1 == m_coilJoint)
                addCoil();
        }
        nameTip();
    }

    void addTube(int tube)
    {
        const double from = m_from[std::size_t(tube)], to = m_to[std::size_t(tube)];
        m_joint = tube != m_coilJoint || tube == 0; // beyond a coil at a joint the wire has begun with it
        m_piece = true;
        double at = from;
        if (hasFold(m_kind, m_shape) && tube == m_foldTube) {
            if (m_coil && m_coilJoint == 0 && m_coilFrom < m_arm.foldAt)
                at = coilWithin(tube, at);
            addWire(tube, at, m_arm.foldAt);
            addFold(tube);
            at = m_inside ? m_arm.foldAt : m_arm.foldAt + v("loading_spacing_m"); // inside, the last of three rows runs out past it
        }
        if (m_coil && m_coilJoint == 0 && m_coilFrom >= at)
            at = coilWithin(tube, at);
        if (m_arm.droop > 0.0 && tube + 1 == m_tubes) {
            addWire(tube, at, m_arm.straight());
            addWire(tube, m_arm.straight(), to);
            m_arm.stretches.back().droop = v("droop_deg");
        } else {
            addWire(tube, at, to);
        }
    }

    double coilWithin(int tube, double at)
    {
        addWire(tube, at, m_coilFrom);
        addCoil();
        return m_coilFrom + m_size.length;
    }

    void addCoil()
    {
        Stretch coil;
        coil.kind = Stretch::Kind::Coil;
        coil.length = m_size.length;
        coil.henry = v("inductance_H") + (m_side == 1 ? v("second_inductance_H") : 0.0);
        coil.q = v("coil_q");
        coil.size = m_size;
        coil.joint = m_joint || m_coilJoint > 0; // at the foot, or between two tubes
        if (coil.joint)
            coil.diameter = coil.endDiameter = m_thick[std::size_t(m_coilJoint)];
        m_joint = false;
        m_arm.stretches.push_back(coil);
        m_piece = true;
    }

    void addFold(int tube)
    {
        Stretch fold;
        fold.kind = Stretch::Kind::Fold;
        fold.fold = m_arm.fold;
        fold.spacing = v("loading_spacing_m");
        fold.inside = m_inside;
        fold.length = m_inside ? 0.0 : fold.spacing;
        fold.diameter = fold.endDiameter = v("loading_wire_m") > 0.0 ? v("loading_wire_m") : m_thick[std::size_t(tube)];
        if (v("loading_wire_m") > 0.0) {
            fold.name = coreText("core", "wires of the fold");
            fold.first = fold.last = WireEnd::Joint;
            fold.joint = fold.piece = m_joint = m_piece = true;
        }
        m_arm.stretches.push_back(fold);
    }

    void addWire(int tube, double from, double to)
    {
        if (to - from < 1e-9)
            return;
        Stretch s;
        s.length = to - from;
        s.diameter = s.endDiameter = m_thick[std::size_t(tube)];
        if (tube + 1 == m_tubes && v("tip_percent") < 100.0) {
            const double thin = 1.0 - 0.01 * v("tip_percent"), begin = m_from.back(), whole = m_to.back() - begin;
            s.diameter = m_thick.back() * (1.0 - thin * (from - begin) / whole);
            s.endDiameter = m_thick.back() * (1.0 - thin * (to - begin) / whole);
        }
        s.joint = m_joint;
        s.piece = m_piece;
        s.overlap = m_piece && tube > 0 && tube != m_coilJoint && from == m_from[std::size_t(tube)] ? v("tube_overlap_m") : 0.0;
        m_joint = m_piece = false;
        if (m_tubes > 1) {
            s.name = tubeNames[tube];
            s.first = s.last = WireEnd::Tube;
        }
        m_arm.stretches.push_back(s);
    }

    /// What is trimmed, and what an arm of one thickness is cut as.
    void nameTip()
    {
        bool beyond = false;
        for (Stretch& s : m_arm.stretches) {
            beyond = beyond || s.kind == Stretch::Kind::Coil;
            if (s.kind != Stretch::Kind::Wire || m_tubes > 1)
                continue;
            s.name = !m_coil ? m_kind.whole : beyond ? m_kind.outer : m_kind.inner;
            s.first = beyond ? WireEnd::Coil : m_kind.foot;
            s.last = m_coil && !beyond ? WireEnd::Coil : m_kind.tip;
            for (WireEnd* end : {&s.first, &s.last})
                if (s.diameter > thickest && (*end == WireEnd::Centre || *end == WireEnd::Insulator))
                    *end = WireEnd::Tube;
        }
        for (auto s = m_arm.stretches.rbegin(); s != m_arm.stretches.rend(); ++s) {
            s->trimmed = true;
            if (m_tubes > 1)
                s->name = coreText("core", "tip");
            if (s->piece)
                break;
        }
    }

    const Family& m_family;
    const ArmKind& m_kind;
    const AntennaShape& m_shape;
    const int m_side, m_tubes;
    Arm m_arm;
    std::vector<double> m_thick, m_from, m_to;
    bool m_coil = false, m_inside = true, m_joint = true, m_piece = true;
    CoilSize m_size;
    double m_coilFrom = 0.0;
    int m_coilJoint = 0; ///< after so many tubes; 0: within one
    int m_foldTube = 0;
};

} // namespace

const WireChoice& metalOf(const ArmKind& kind, const AntennaShape& shape)
{
    return kind.part.empty() ? shape.wire : wireOf(shape, kind.part);
}

void addTipsApart(std::vector<ParameterSpec>& all, const char* group)
{
    const std::string help = coreText("core", "than the length a side; 0: both alike");
    all.push_back(lengthSpec("first_tip_m", coreText("core", "First tip longer by"), group, {0.0, -50.0, 50.0}, help));
    all.push_back(lengthSpec("second_tip_m", coreText("core", "Second tip longer by"), group, {0.0, -50.0, 50.0}, help));
}

void addArmSpecs(std::vector<ParameterSpec>& all, const ArmKind& kind, const AntennaShape& shape)
{
    addCoil(all, kind, shape);
    addFold(all, kind, shape);
    addTubes(all, kind, shape);
    addTip(all, kind, shape);
    if (kind.centrePiece)
        all.push_back(lengthSpec("lead_m", coreText("core", "Across the centre piece"), feedGroup, {0.06, 0.002, 2.0},
                                 coreText("core", "leads from one inner end to the other; part of the antenna"), 0.003));
}

std::string armLayout(const ArmKind& kind, const AntennaShape& shape)
{
    return std::to_string(tubesOf(kind, shape)) + (hasCoil(kind, shape) ? "c" : "") + (hasFold(kind, shape) ? "f" : "") +
           (droops(shape) ? "d" : "");
}

void settleArm(const ArmKind& kind, AntennaShape& shape)
{
    constexpr double apart = 6.0; // diameters
    if (!hasFold(kind, shape))
        return;
    double& spacing = shape.parameters["loading_spacing_m"];
    const double tube = shape.parameters["tube_diameter_m"];
    spacing = std::max(spacing, apart * (tube > 0.0 ? tube : shape.wire.diameter));
}

std::array<double, 2> armLengths(const Family& family, const ArmKind& kind, const AntennaShape& shape)
{
    const double leg = family.value(shape, kind.length);
    return {leg + family.value(shape, "first_tip_m"), leg + family.value(shape, "second_tip_m")};
}

Result<Arm> armOf(const Family& family, const ArmKind& kind, const AntennaShape& shape, int side)
{
    return Layout(family, kind, shape, side).run();
}

LoadedLine lineOf(const Family& family, const ArmKind& kind, const AntennaShape& shape, double more)
{
    const double wire = metalOf(kind, shape).diameter, leg = family.value(shape, kind.length);
    LoadedLine line{leg + more, leg * 0.01 * family.value(shape, "coil_place_percent"), wire, wire};
    const Result<Arm> arm = armOf(family, kind, shape);
    if (!arm)
        return line;
    line.coilAt = arm->coilAt;
    double at = 0.0, length[] = {0.0, 0.0}, sum[] = {0.0, 0.0}; // of the logarithms, up to the coil and beyond
    for (const Stretch& s : arm->stretches) {
        const bool beyond = at >= arm->coilAt - 1e-9;
        at += s.length;
        if (s.kind != Stretch::Kind::Wire)
            continue;
        length[beyond] += s.length;
        sum[beyond] += s.length * std::log(0.5 * (s.diameter + s.endDiameter));
    }
    for (int part : {0, 1})
        if (length[part] > 0.0)
            (part == 0 ? line.diameter : line.beyond) = std::exp(sum[part] / length[part]);
    return line;
}

std::vector<Lever> armLevers(const Family& family, const ArmKind& kind, const AntennaShape& shape, Lever tips)
{
    const int pieces = kind.pair ? 2 : 1;
    std::vector<Lever> all{tips};
    if (hasCoil(kind, shape))
        all.push_back({"inductance_H", kind.pair ? coreText("core", "each coil") : coreText("core", "the coil"), LeverKind::Tap,
                       LeverSide::Middle, pieces});
    if (hasFold(kind, shape))
        all.push_back({"loading_m", kind.pair ? coreText("core", "the bridge of each fold") : coreText("core", "the bridge of the fold"),
                       LeverKind::Slide, LeverSide::Middle, pieces});
    if (family.spec(shape, "second_tip_m")) {
        all.push_back({"first_tip_m", coreText("core", "the first tip alone"), tips.kind, LeverSide::OpenEnd, 1});
        all.push_back({"second_tip_m", coreText("core", "the second tip alone"), tips.kind, LeverSide::OpenEnd, 1});
    }
    return all;
}

AntennaShape armLevered(const Family& family, const ArmKind& kind, const AntennaShape& shape, const std::string& key, double value)
{
    AntennaShape next = shape;
    next.parameters[key] = value;
    if (key == kind.length && value > 0.0 && family.spec(shape, "coil_place_percent"))
        next.parameters["coil_place_percent"] = family.value(shape, "coil_place_percent") * family.value(shape, key) / value;
    return next;
}

} // namespace vetchling::shapes

/// Arms in stretches: against points of wire written down here, against other families of the same geometry, and cut as a builder cuts.
#include "core/study/recipe.h"
#include "core/study/spread.h"
#include "core/study/thickness.h"
#include "core/trim/as_built.h"
#include "core/trim/next_step.h"
#include "core/tune/tune.h"
#include "core/workshop/cut_list.h"
#include "core/workshop/parts_list.h"
#include "tests/core/shape_helpers.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace vetchling::shapes {
namespace {

constexpr double band = 7.1e6;

class Arms : public ::testing::Test {
protected:
    em::GroundTableCache m_tables;

    Complex impedance(const WireModel& model, double f = band) { return solved(model, f, m_tables).impedance; }
    Complex impedance(const AntennaShape& shape, double f = band) { return impedance(built(shape).model, f); }

    AntennaShape tunedOver(AntennaShape shape, const Ground& ground)
    {
        const auto all = tuneAll(shape, ground, m_tables);
        EXPECT_TRUE(all.ok()) << all.firstFault();
        for (const TunedValue& v : all ? all->lengths : std::vector<TunedValue>())
            shape.parameters[v.length.parameter] = v.value;
        return shape;
    }

    /// Where X is zero near a frequency.
    double resonance(const WireModel& model, double near)
    {
        double a = near, b = 1.01 * near, xa = impedance(model, a).imag();
        for (int i = 0; i < 12 && std::abs(a - b) > 1e-6 * near; ++i) {
            const double xb = impedance(model, b).imag(), next = b - xb * (b - a) / (xb - xa);
            a = b, xa = xb, b = next;
        }
        return b;
    }
};

double piecesOf(const BuiltAntenna& built)
{
    return std::accumulate(built.sections.begin(), built.sections.end(), built.notCut,
                           [](double sum, const WireSection& s) { return sum + s.pieces * s.length; });
}

/// As families make their wires: copper.
Wire copper(std::string id, std::vector<Vec3> points, double radius)
{
    Wire w = testing::wire(std::move(id), std::move(points), radius);
    w.conductivity = 5.8e7;
    return w;
}

/// Two arms along x at a height: pipe, coil, thin tip.
WireModel pipesWithCoils(double height, double pipe, CoilSize coil, double henry, double tip, double pipeRadius, double tipRadius)
{
    WireModel model;
    model.ground = averageSoil;
    model.wires.push_back(copper("pipes", {{-pipe, 0, height}, {0, 0, height}, {pipe, 0, height}}, pipeRadius));
    model.feeds.push_back({0, pipe, 1.0});
    for (double side : {-1.0, 1.0}) {
        model.wires.push_back(copper("tip", {{side * pipe, 0, height}, {side * (pipe + coil.length + tip), 0, height}}, tipRadius));
        Load load;
        load.wire = model.wires.size() - 1;
        load.at = 0.5 * coil.length;
        load.inductance = henry;
        load.q = 250.0;
        load.size = coil;
        model.loads.push_back(load);
    }
    return model;
}

TEST_F(Arms, PipeCoilAndThinTipAreWhatTheyAreCalled)
{
    for (double length : {0.0, 0.12}) {
        const CoilSize coil = length > 0.0 ? CoilSize{length, 0.05, 0.002} : CoilSize{};
        const AntennaShape shape = shapeOf("loaded-dipole", {{"tube_count", 2.0},
                                                             {"leg_m", 4.0},
                                                             {"tube_1_m", 1.6},
                                                             {"tube_diameter_m", 0.025},
                                                             {"tube_2_diameter_m", 0.004},
                                                             {"inductance_H", 12e-6},
                                                             {"coil_q", 250.0},
                                                             {"coil_length_m", length},
                                                             {"coil_diameter_m", 0.05},
                                                             {"coil_wire_m", 0.002}});
        const WireModel own = pipesWithCoils(8.0, 1.6, coil, 12e-6, 2.4 - length, 0.0125, 0.002);
        const BuiltAntenna antenna = built(shape);
        EXPECT_LT(relative(impedance(antenna.model), impedance(own)), 1e-6) << length;
        EXPECT_NEAR(piecesOf(antenna), antenna.model.totalLength(), 1e-9);
    }
}

// Practice: a tube in place of a wire can need two fifths less coil; where only the inner part is a tube, hardly less of it.
TEST_F(Arms, ThePartBeyondTheCoilIsWhatItsCoilIsWoundFor)
{
    const AntennaShape wire = shapeOf("loaded-dipole", {});
    AntennaShape pipe = wire;
    pipe.parameters["tube_diameter_m"] = 0.025;
    const double thin = tunedOver(wire, averageSoil).parameters["inductance_H"],
                 thick = tunedOver(pipe, averageSoil).parameters["inductance_H"];
    EXPECT_LT(thick, 0.65 * thin);
    const auto parted = [&](double inner, double outer) {
        return tunedOver(shapeOf("loaded-dipole", {{"tube_count", 2.0},
                                                   {"tube_1_m", 0.5 * wire.parameters.at("leg_m")},
                                                   {"tube_diameter_m", inner},
                                                   {"tube_2_diameter_m", outer}}),
                         averageSoil)
            .parameters["inductance_H"];
    };
    const double thinOutside = parted(0.025, wire.wire.diameter), thickOutside = parted(wire.wire.diameter, 0.025);
    EXPECT_GT(thinOutside, 0.85 * thin);
    EXPECT_LT(thickOutside, 0.75 * thin);
}

// The one written as an upright arm that droops by a right angle, the other as an inverted L.
TEST_F(Arms, AnUprightArmThatDroopsIsAnInvertedL)
{
    const Parameters stand{{"base_height_m", 2.0}, {"radial_end_height_m", 2.0}, {"radial_m", 10.0}, {"bearing_deg", 30.0}};
    AntennaShape arm = shapeOf("vertical", stand), bent = shapeOf("inverted-l", stand);
    arm.parameters["radiator_m"] = bent.parameters["length_m"] = 10.5;
    arm.parameters["droop_m"] = 3.5;
    arm.parameters["droop_deg"] = 90.0;
    bent.parameters["riser_m"] = 7.0;
    bent.parameters["top_bearing_deg"] = 30.0;
    bent.parameters["far_rise_m"] = 0.0;
    EXPECT_LT(relative(impedance(arm), impedance(bent)), 1e-6);
}

// A few percent of difference leave one dip at the same place, and only the tape shows them.
TEST_F(Arms, UnequalTipsLeaveTheResonanceAlone)
{
    const AntennaShape alike = tunedOver(shapeOf("tube-dipole", {}, 14.1e6), averageSoil);
    AntennaShape apart = alike;
    apart.parameters["first_tip_m"] = 0.1;
    apart.parameters["second_tip_m"] = -0.1;
    const double f = resonance(built(alike).model, 14.1e6), there = resonance(built(apart).model, 14.1e6);
    EXPECT_NEAR(there / f, 1.0, 1e-3);
    AntennaShape one = alike;
    one.parameters["second_tip_m"] = -0.1;
    AntennaShape both = alike;
    both.parameters["leg_m"] -= 0.05;
    EXPECT_NEAR(resonance(built(one).model, 14.1e6) / resonance(built(both).model, 14.1e6), 1.0, 1e-3);
    const BuiltAntenna antenna = built(apart);
    ASSERT_GE(antenna.sections.size(), 2u);
    const WireSection &second = antenna.sections.back(), &first = antenna.sections[antenna.sections.size() - 2];
    EXPECT_EQ(first.name, "tip, first side");
    EXPECT_EQ(second.name, "tip, second side");
    EXPECT_NEAR(first.length - second.length, 0.2, 1e-9);
    EXPECT_EQ(first.pieces, 1);
}

TEST_F(Arms, EachArmHasItsOwnCoil)
{
    AntennaShape shape = shapeOf("loaded-dipole", {{"inductance_H", 8e-6}, {"second_inductance_H", -0.5e-6}});
    const BuiltAntenna antenna = built(shape);
    ASSERT_EQ(antenna.model.loads.size(), 2u);
    EXPECT_DOUBLE_EQ(antenna.model.loads[0].inductance, 8e-6);
    EXPECT_DOUBLE_EQ(antenna.model.loads[1].inductance, 7.5e-6);
    EXPECT_EQ(findFamily("loaded-dipole")->spec(shapeOf("loaded-vertical", {}), "second_inductance_H") != nullptr, true);
    EXPECT_EQ(findFamily("loaded-vertical")->spec(shapeOf("loaded-vertical", {}), "second_inductance_H"), nullptr);
}

// Wires on stand-offs under a tube, written down as points.
TEST_F(Arms, AFoldOfWireUnderATube)
{
    const double leg = 3.4, at = 0.6, fold = 1.5, spacing = 0.12, height = 8.0, tube = 0.0125, thin = 0.001;
    WireModel own;
    own.ground = averageSoil;
    own.wires.push_back(copper("inner", {{-at, 0, height}, {0, 0, height}, {at, 0, height}}, tube));
    own.feeds.push_back({0, at, 1.0});
    for (double s : {-1.0, 1.0}) {
        own.wires.push_back(copper("fold",
                                   {{s * at, 0, height},
                                    {s * at, 0, height - 2 * spacing},
                                    {s * (at + fold), 0, height - 2 * spacing},
                                    {s * (at + fold), 0, height - spacing},
                                    {s * (at + spacing), 0, height - spacing},
                                    {s * (at + spacing), 0, height}},
                                   thin));
        own.wires.push_back(copper("outer", {{s * (at + spacing), 0, height}, {s * leg, 0, height}}, tube));
    }
    const AntennaShape shape = shapeOf("linear-loaded-dipole", {{"leg_m", leg},
                                                                {"loading_m", fold},
                                                                {"loading_at_m", at},
                                                                {"loading_spacing_m", spacing},
                                                                {"loading_fold", 1.0},
                                                                {"tube_diameter_m", 2 * tube},
                                                                {"loading_wire_m", 2 * thin}});
    const BuiltAntenna antenna = built(shape);
    EXPECT_LT(relative(impedance(antenna.model), impedance(own)), 1e-6);
    EXPECT_NEAR(piecesOf(antenna), antenna.model.totalLength(), 1e-9);
    EXPECT_EQ(std::count_if(antenna.sections.begin(), antenna.sections.end(), [](const auto& s) { return s.trimmed; }), 1);
}

TEST_F(Arms, ATelescopeOnACoilIsThinnerTowardsItsTip)
{
    const AntennaShape shape =
        shapeOf("mobile-whip",
                {{"tube_count", 2.0}, {"tube_1_m", 0.5}, {"tube_diameter_m", 0.012}, {"tube_2_diameter_m", 0.008}, {"tip_percent", 25.0}});
    const BuiltAntenna antenna = built(shape);
    const auto whip = std::find_if(antenna.model.wires.begin(), antenna.model.wires.end(), [](const Wire& w) { return w.id == "tube 2"; });
    ASSERT_NE(whip, antenna.model.wires.end());
    EXPECT_NEAR(whip->radius, 0.004, 1e-12);
    ASSERT_TRUE(whip->endRadius);
    EXPECT_NEAR(*whip->endRadius, 0.001, 1e-12);
    EXPECT_NEAR(whip->length(), shape.parameters.at("radiator_m") - 0.5, 1e-9);
}

// Three tubes a side, each 20 cm in the one before: what is sawn is what shows and what does not.
TEST_F(Arms, TubesAreCutWithWhatStandsInTheOneBefore)
{
    const AntennaShape shape =
        shapeOf("tube-dipole", {{"tube_1_m", 1.5}, {"tube_2_m", 1.4}, {"leg_m", 5.0}, {"tube_overlap_m", 0.2}, {"lead_m", 0.1}}, 14.1e6);
    const auto rows = cutList(built(shape).sections, {});
    ASSERT_EQ(rows.size(), 4u);
    EXPECT_NEAR(rows[1].cut - Allowances{}.mount, 1.5, 1e-9) << "the innermost stands in the centre piece";
    EXPECT_NEAR(rows[2].cut, 1.6, 1e-9);
    EXPECT_NEAR(rows[3].radiating, 5.0 - 0.05 - 2.9, 1e-9);
    EXPECT_NEAR(rows[3].cut - rows[3].margin, rows[3].radiating + 0.2, 1e-9);
    EXPECT_NEAR(rows[2].diameter, 0.022, 1e-9);
}

TEST_F(Arms, CoilsAndClampsBetweenTubesAreAmongTheParts)
{
    Antenna antenna;
    antenna.shape = shapeOf("loaded-dipole", {{"tube_count", 3.0}, {"coil_joint", 1.0}, {"tube_diameter_m", 0.02}, {"tube_step_m", 0.003}});
    const auto rows = partsOf(antenna, built(antenna.shape), {}, {});
    const auto count = [&](const char* key) {
        const auto found = std::find_if(rows.begin(), rows.end(), [&](const PartRow& r) { return r.key == key; });
        return found == rows.end() ? 0.0 : found->count;
    };
    EXPECT_EQ(count("coil-former"), 2.0);
    EXPECT_EQ(count("tube-clamp"), 2.0) << "one a side: the other joint is the coil";
    EXPECT_EQ(count("tube-slot"), 4.0);
    EXPECT_EQ(count("tube"), 6.0);
}

TEST_F(Arms, WhatCannotBeIsSaidWithItsCure)
{
    const auto faultOf = [](const std::string& family, const Parameters& changes) {
        const auto result = buildOver(shapeOf(family, changes), averageSoil);
        return result.ok() ? std::string() : result.faults().front().path;
    };
    EXPECT_EQ(faultOf("loaded-dipole", {{"tube_count", 2.0}, {"tube_1_m", 99.0}}), "leg_m");
    EXPECT_EQ(faultOf("loaded-dipole", {{"tube_count", 3.0}, {"tube_diameter_m", 0.005}, {"tube_step_m", 0.004}}), "tube_step_m");
    EXPECT_EQ(faultOf("loaded-dipole", {{"first_tip_m", -49.0}}), "first_tip_m");
    EXPECT_EQ(faultOf("loaded-dipole", {{"droop_m", 4.9}, {"droop_deg", 45.0}}), "droop_m");
    EXPECT_EQ(faultOf("linear-loaded-dipole", {{"loading_wire_m", 0.002}}), "loading_wire_m");
    EXPECT_EQ(faultOf("tube-dipole", {{"arm_fold", 1.0}, {"loading_fold", 1.0}, {"loading_at_m", 1.4}, {"loading_spacing_m", 1.5}}),
              "loading_at_m");
    EXPECT_EQ(faultOf("vertical", {{"vehicle", 1.0}, {"base_height_m", 1.5}}), "radial_count");
    EXPECT_EQ(faultOf("vertical", {{"vehicle", 1.0}, {"base_height_m", 0.3}, {"radial_count", 0.0}}), "base_height_m");
    EXPECT_EQ(faultOf("whip", {{"vehicle", 1.0}}), "vehicle");
}

// Every count and choice can be taken on a new antenna of every family, and its pieces make up its wires.
TEST_F(Arms, EveryChoiceMakesAnAntenna)
{
    int tried = 0;
    for (const Family* family : families())
        for (double frequency : {3.6e6, 14.1e6, 145e6}) {
            const AntennaShape plain = family->standardShape(frequency);
            for (const Parameters& changes :
                 {Parameters{{"tube_count", 2.0}},
                  {{"tube_count", 4.0}},
                  {{"tube_count", 6.0}},
                  {{"arm_coil", 1.0}},
                  {{"arm_fold", 1.0}},
                  {{"droop_m", 0.02 * wavelength(frequency) * (family->id() == "mobile-whip" && frequency < 1e7 ? 0.2 : 1.0)}},
                  {{"tip_percent", 30.0}},
                  {{"first_tip_m", 0.01 * wavelength(frequency)}},
                  {{"upper_diameter_m", 0.004}}}) {
                const bool thinWhip = family->id() == "mobile-whip" && frequency > 1e8; // its tubes would be within the roof's sheet
                if (!family->spec(plain, changes.begin()->first) || thinWhip)
                    continue;
                AntennaShape shape = plain;
                for (const auto& [key, value] : changes)
                    shape.parameters[key] = value;
                // tubes thin enough for six of them
                if (changes.begin()->first == "tube_count")
                    shape.parameters["tube_diameter_m"] = 0.004, shape.parameters["tube_step_m"] = 0.0005;
                const auto antenna = buildOver(shape, averageSoil);
                if (family->id() == "linear-loaded-dipole" && changes.begin()->first == "tube_count") {
                    EXPECT_TRUE(!antenna && antenna.faults().front().path == "loading_at_m") << "its fold reaches over several tubes";
                    continue;
                }
                ASSERT_TRUE(antenna.ok()) << family->id() << ' ' << frequency << ' ' << changes.begin()->first << ' '
                                          << changes.begin()->second << antenna.firstFault();
                EXPECT_NEAR(piecesOf(*antenna), antenna->model.totalLength(), 1e-6 * antenna->model.totalLength())
                    << family->id() << changes.begin()->first;
                ++tried;
            }
        }
    EXPECT_GT(tried, 150);
}

TEST_F(Arms, ACoilIsRememberedForTheThicknessItWasWorkedOutFor)
{
    const AntennaShape wire = tunedOver(shapeOf("loaded-dipole", {}), averageSoil);
    const double wound = wire.parameters.at("inductance_H");
    AntennaShape pipe = wire;
    pipe.parameters["tube_diameter_m"] = 0.025;
    const double suffices = tunedOver(pipe, averageSoil).parameters.at("inductance_H");
    study::CoilMemory memory;
    memory.learn("a", wire, wound, wound);
    EXPECT_FALSE(memory.misfit());
    memory.learn("a", pipe, wound, suffices);
    ASSERT_TRUE(memory.misfit());
    EXPECT_EQ(memory.misfit()->before, wire.wire.diameter);
    EXPECT_EQ(memory.misfit()->after, 0.025);
    EXPECT_EQ(memory.misfit()->suffices, suffices);
    memory.learn("a", pipe, wound, suffices);
    EXPECT_TRUE(memory.misfit()) << "as long as nothing is done about it";
    memory.learn("a", wire, wound, wound);
    EXPECT_FALSE(memory.misfit()) << "back again";
    memory.learn("a", pipe, wound, suffices);
    AntennaShape taken = pipe;
    taken.parameters["inductance_H"] = suffices;
    memory.learn("a", taken, suffices, suffices);
    EXPECT_FALSE(memory.misfit());
    AntennaShape longer = wire;
    longer.parameters["leg_m"] += 0.5;
    memory.learn("a", wire, wound, wound);
    memory.learn("a", longer, wound, 0.8 * wound);
    EXPECT_FALSE(memory.misfit()) << "that is no matter of thickness";
    memory.learn("b", pipe, wound, suffices);
    EXPECT_FALSE(memory.misfit()) << "another antenna";
}

// ---- on vehicles

// Two families, one antenna: a whip screwed to a roof, and a loaded vertical without radials that stands there.
TEST_F(Arms, ALoadedVerticalOnARoofIsAWhipOnAVehicle)
{
    const AntennaShape whip = shapeOf("mobile-whip", {{"radiator_m", 2.2}, {"coil_place_percent", 30.0}, {"inductance_H", 30e-6}});
    AntennaShape vertical = shapeOf("loaded-vertical", {{"radiator_m", 2.2},
                                                        {"coil_place_percent", 30.0},
                                                        {"inductance_H", 30e-6},
                                                        {"base_height_m", 1.5},
                                                        {"radial_count", 0.0},
                                                        {"vehicle", 1.0}});
    EXPECT_LT(relative(impedance(vertical), impedance(whip)), 1e-6);
    for (const char* family : {"two-band-whip", "vertical", "trap-vertical"}) {
        const auto standing =
            buildOver(shapeOf(family, {{"vehicle", 1.0}, {"base_height_m", 1.5}, {"radial_count", 0.0}}, 145e6), averageSoil);
        EXPECT_TRUE(standing.ok()) << family << standing.firstFault();
    }
    for (double radials : {0.0, 1.0, 2.0, 5.0}) {
        const auto behind = buildOver(
            shapeOf("vertical", {{"vehicle", 2.0}, {"base_height_m", 1.5}, {"radial_end_height_m", 1.0}, {"radial_count", radials}}),
            averageSoil);
        EXPECT_TRUE(behind.ok()) << radials << behind.firstFault();
    }
    const auto behind = buildOver(shapeOf("whip", {{"vehicle", 2.0}}), averageSoil);
    EXPECT_TRUE(behind.ok()) << behind.firstFault();
}

// In series with all of the feed's current.
TEST_F(Arms, AMagnetsFootIsACapacitorInTheFeed)
{
    const AntennaShape screwed = shapeOf("mobile-whip", {});
    AntennaShape magnet = screwed;
    magnet.parameters["mount"] = 2.0;
    magnet.parameters["foot_F"] = 200e-12;
    const Complex gap = 1.0 / (Complex(0.0, 2.0 * pi * band) * 200e-12), there = impedance(magnet), here = impedance(screwed);
    EXPECT_LT(std::abs(there - here - gap), 1e-6 * std::abs(gap));
    AntennaShape clamp = screwed;
    clamp.parameters["mount"] = 3.0;
    const double shift = resonance(built(tunedOver(clamp, averageSoil)).model, band) / band;
    EXPECT_NEAR(shift, 1.0, 2e-3) << "it is tuned on its clamp";
}

// ---- cutting

/// The model as it hangs, its free ends (of wires whose id begins so) sawn off: loads, feeds and corners stay.
WireModel sawn(WireModel model, const std::string& wire, double off)
{
    const auto freeEnd = [&](Vec3 p) {
        int meeting = 0;
        for (const Wire& w : model.wires)
            for (Vec3 q : w.points)
                meeting += distance(p, q) < 1e-6;
        return meeting == 1;
    };
    for (std::size_t i = 0; i < model.wires.size(); ++i) {
        std::vector<Vec3>& p = model.wires[i].points;
        if (model.wires[i].id.rfind(wire, 0) != 0)
            continue;
        if (freeEnd(p.back()))
            p.back() = p.back() - off * unit(p.back() - p[p.size() - 2]);
        if (!freeEnd(p.front()))
            continue;
        p.front() = p.front() - off * unit(p.front() - p[1]);
        for (Feed& f : model.feeds)
            f.at -= f.wire == i ? off : 0.0;
        for (Load& l : model.loads)
            l.at -= l.wire == i ? off : 0.0;
    }
    return model;
}

struct Sawn {
    const char *family, *lever, *wire;
    double off; ///< m
};

class LoadedCuts : public Arms, public ::testing::WithParamInterface<Sawn> {};

// Coils stay where they are built when a tip is cut; as a share of the arm they would follow it, and half the shift be told.
TEST_P(LoadedCuts, AreToldAsDirectSolvesOfTheSawnWireSay)
{
    const Sawn& cut = GetParam();
    const AntennaShape shape = tunedOver(shapeOf(cut.family, {}), averageSoil);
    const Family& family = familyOf(shape);
    const BuiltAntenna before = built(shape);
    const double here = resonance(before.model, band), really = resonance(sawn(before.model, cut.wire, cut.off), here) - here;
    const AntennaShape shorter = family.levered(shape, cut.lever, family.value(shape, cut.lever) - cut.off);
    const double told = resonance(built(shorter).model, here) - here;
    EXPECT_NEAR(told / really, 1.0, 0.02) << told << ' ' << really;
    AntennaShape share = shape;
    share.parameters[cut.lever] -= cut.off;
    EXPECT_LT(resonance(built(share).model, here) - here, 0.8 * really) << "as it was told before";
    // and the step that Trim proposes is sawn to the goal
    study::Library library;
    const study::Subject subject{shape, averageSoil, 0};
    const auto dip = dipNear(library, subject, here), then = dipNear(library, {shorter, averageSoil, 0}, here);
    ASSERT_TRUE(dip && then);
    EXPECT_NEAR((then->dip - dip->dip) / really, 1.0, 0.06);
}

INSTANTIATE_TEST_SUITE_P(Families, LoadedCuts,
                         ::testing::Values(Sawn{"loaded-dipole", "leg_m", "legs", 0.17},
                                           Sawn{"loaded-vertical", "radiator_m", "radiator", 0.18},
                                           Sawn{"mobile-whip", "radiator_m", "whip", 0.10}),
                         [](const auto& info) {
                             std::string name = info.param.family;
                             std::replace(name.begin(), name.end(), '-', '_');
                             return name;
                         });

// Every lever of every family that is a cut takes as much wire as it says, and what is built stays: coils, traps, links and feed at the
// open end's cuts, all that lies beyond moves along at others.
TEST(Levers, TakeTheirPieceAndLeaveTheRest)
{
    int cuts = 0;
    for (const Family* family : families())
        for (double frequency : {7.1e6, 145e6}) {
            const AntennaShape shape = family->standardShape(frequency);
            const int wires = family->id() == "folded-dipole" ? 2 : 1; // side by side, and both are cut
            const auto before = buildOver(shape, {});
            ASSERT_TRUE(before.ok()) << family->id() << before.firstFault();
            for (const Lever& lever : family->levers(shape)) {
                const double value = family->value(shape, lever.parameter), off = 1e-3 * wavelength(frequency);
                const ParameterSpec* spec = family->spec(shape, lever.parameter);
                if (lever.kind != LeverKind::Cut || !spec || spec->quantity != units::Quantity::Length || lever.side == LeverSide::Feed)
                    continue;
                const auto after = buildOver(family->levered(shape, lever.parameter, value - off), {});
                ASSERT_TRUE(after.ok()) << family->id() << lever.parameter << after.firstFault();
                EXPECT_NEAR(before->model.totalLength() - after->model.totalLength(), wires * lever.pieces * off, 1e-6 * off + 1e-9)
                    << family->id() << ' ' << lever.parameter;
                ++cuts;
                ASSERT_EQ(before->model.loads.size(), after->model.loads.size());
                for (std::size_t i = 0; i < before->model.loads.size() && lever.side == LeverSide::OpenEnd; ++i) {
                    const auto place = [i](const BuiltAntenna& b) {
                        const Load& l = b.model.loads[i];
                        return distance(b.model.wires[l.wire].pointAt(l.at), b.feedPoint);
                    };
                    EXPECT_NEAR(place(*before), place(*after), 1e-6) << family->id() << ' ' << lever.parameter;
                }
            }
        }
    EXPECT_GT(cuts, 50);
}

// Both tips once, then the second alone; of a linked wire the inner section, then the outer one: what the log makes of it, and what a
// builder's hands make of it on the same antenna, is one shape.
TEST(Levers, TheLogTakesEachPieceWhereItWasCut)
{
    const auto logged = [](const std::string& family, const std::vector<std::pair<std::string, double>>& cuts) {
        Antenna antenna;
        antenna.shape = shapeOf(family, {});
        for (const auto& [key, cut] : cuts) {
            Measurement m;
            m.dip = 7e6;
            m.parameter = key;
            m.cutSinceLast = cut;
            antenna.trim.measurements.push_back(m);
        }
        return antenna;
    };
    const Antenna loaded = logged("loaded-dipole", {{"leg_m", 0.10}, {"second_tip_m", 0.03}, {"leg_m", 0.02}});
    const BuiltAntenna before = built(loaded.shape), after = built(asLogged(loaded));
    EXPECT_NEAR(before.model.totalLength() - after.model.totalLength(), 2 * 0.12 + 0.03, 1e-9);
    for (int side : {0, 1}) {
        const auto out = [side](const BuiltAntenna& b) { return std::abs(b.model.loads[std::size_t(side)].at - b.model.feeds[0].at); };
        EXPECT_NEAR(out(before), out(after), 1e-9) << "the coils hang where they hung";
    }
    const Antenna linked = logged("linked-dipole", {{"leg_m", 0.10}, {"leg_2_m", 0.05}});
    EXPECT_NEAR(asLogged(linked).parameters.at("leg_2_m"), linked.shape.parameters.at("leg_2_m") - 0.15, 1e-9);
    for (const Antenna& antenna : {loaded, linked}) {
        AsBuilt built;
        built.plan = {antenna.shape, averageSoil, 0};
        Handling hands;
        for (const auto& [key, taken] : takenByLog(antenna))
            hands.changes[key] = -taken;
        for (const auto& [key, value] : asLogged(antenna).parameters)
            EXPECT_NEAR(subjectOf(built, hands).shape.parameters.at(key), value, 1e-9) << key;
    }
    const study::Recipe recipe = study::recipeOf({}, linked, asLogged(linked), {}, {});
    ASSERT_EQ(recipe.lengths.size(), 2u);
    EXPECT_NEAR(recipe.lengths[0].built, linked.shape.parameters.at("leg_m") - 0.10, 1e-9);
    EXPECT_NEAR(recipe.lengths[1].built, linked.shape.parameters.at("leg_2_m") - 0.15, 1e-9);
    const auto pieces = cutPieces(loaded, 0);
    ASSERT_EQ(pieces.size(), 3u);
    EXPECT_EQ(pieces[0].parameter, "leg_m");
    EXPECT_EQ(pieces[2].parameter, "second_tip_m");
    EXPECT_EQ(cutPieces(linked, 0).size(), 1u) << "the outer section has a task of its own";
}

// A wire that is cut two centimetres long is so where a coil is what is tuned as well.
TEST(Levers, WhatIsCutLongIsSpreadWhereACoilIsTuned)
{
    study::Library library;
    study::SpreadQuestion asked;
    asked.question.subject = {shapeOf("loaded-dipole", {}), averageSoil, 0};
    const auto plan = buildOver(asked.question.subject.shape, averageSoil),
               longer = study::antennaOff(asked, 0, {{study::Unsure::Cut, 1.0}});
    ASSERT_TRUE(plan && longer);
    EXPECT_GT(asked.tolerances.cut, 0.0);
    EXPECT_NEAR(longer->model.totalLength() - plan->model.totalLength(), 2.0 * asked.tolerances.cut, 1e-9);
}

// Wire that nobody tunes is cut all the same: legs beside a matching section or an open line, legs under a hat.
TEST(Levers, EveryPieceThatIsCutMayBeCutLong)
{
    for (const auto& [family, pieces] : {std::pair("doublet", 2), std::pair("extended-dipole", 2), std::pair("hat-dipole", 10),
                                         std::pair("t-vertical", 2), std::pair("dipole", 2)}) {
        study::SpreadQuestion asked;
        asked.question.subject = {shapeOf(family, {}), averageSoil, 0};
        const auto plan = buildOver(asked.question.subject.shape, averageSoil),
                   longer = study::antennaOff(asked, 0, {{study::Unsure::Cut, 1.0}});
        ASSERT_TRUE(plan && longer) << family;
        EXPECT_NEAR(longer->model.totalLength() - plan->model.totalLength(), pieces * asked.tolerances.cut, 1e-6) << family;
    }
}

} // namespace
} // namespace vetchling::shapes

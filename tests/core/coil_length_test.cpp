/// Coils that have a length: beside the same coil wound of wire and solved turn by turn, and beside a coil in a point where it is short.
#include "core/em/coil_blocks.h"
#include "core/em/far_field.h"
#include "core/em/sensitivity.h"
#include "core/em/solver.h"
#include "core/files/wire_file.h"
#include "core/shapes/loading.h"
#include "core/workshop/coil.h"
#include "tests/core/shape_helpers.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

constexpr double wireRadius = 1e-3; // m

struct CoilShape {
    double diameter = 0.05, pitch = 0.015, turns = 10.0; ///< m; along the arm
    double from = 0.6, tip = 1.5;                        ///< m from the centre
    [[nodiscard]] double length() const { return pitch * turns; }
};

/// H of the turns without leads, where the current crowds to the wire's skin.
double inductanceOf(const CoilShape& c) { return coilFigures({c.diameter, 2.0 * wireRadius, c.pitch, c.turns}, 30e6)->atFrequency; }

/// A dipole along y, fed in the middle, each of its arms a wire that the coil is put into.
WireModel straight(const CoilShape& c)
{
    WireModel model;
    model.wires.push_back({"wire", {{0, -c.tip, 0}, {0, c.tip, 0}}, wireRadius});
    model.feeds.push_back({0, c.tip});
    return model;
}

WireModel withCoils(const CoilShape& c, CoilSize size, double q = 0.0)
{
    WireModel model = straight(c);
    for (double side : {-1.0, 1.0}) {
        Load coil;
        coil.at = c.tip + side * (c.from + 0.5 * c.length());
        coil.inductance = inductanceOf(c);
        coil.q = q;
        coil.size = size;
        model.loads.push_back(coil);
    }
    return model;
}

WireModel inPoint(const CoilShape& c, double q = 0.0) { return withCoils(c, {}, q); }
WireModel asLong(const CoilShape& c, double q = 0.0) { return withCoils(c, {c.length(), c.diameter, 2.0 * wireRadius}, q); }

/// Turn by turn, as polygons of the circle's area, with leads out from the axis.
WireModel wound(const CoilShape& c)
{
    constexpr int corners = 10;
    const double radius = 0.5 * c.diameter * std::sqrt(2.0 * pi / (corners * std::sin(2.0 * pi / corners)));
    const int steps = int(std::lround(corners * c.turns));
    WireModel model;
    model.wires.push_back({"middle", {{0, -c.from, 0}, {0, c.from, 0}}, wireRadius});
    model.feeds.push_back({0, c.from});
    for (double side : {-1.0, 1.0}) {
        Wire helix{side < 0 ? "left" : "right", {{0, side * c.from, 0}}, wireRadius};
        for (int i = 0; i <= steps; ++i) {
            const double turn = 2.0 * pi * i / corners;
            helix.points.push_back({radius * std::cos(turn), side * (c.from + c.length() * i / steps), radius * std::sin(turn)});
        }
        helix.points.push_back({0, side * (c.from + c.length()), 0});
        helix.points.push_back({0, side * c.tip, 0});
        model.wires.push_back(std::move(helix));
    }
    return model;
}

em::Solution solvedQuickly(const WireModel& model, double frequency)
{
    em::GroundTableCache tables;
    auto solution = em::solve(std::make_shared<const WireModel>(model), frequency, tables);
    EXPECT_TRUE(solution.ok()) << solution.firstFault();
    return std::move(solution).value();
}

Complex impedanceAt(const WireModel& model, double frequency) { return solvedQuickly(model, frequency).impedance; }

/// By secants from a guess; a helix takes its time.
double resonanceOf(const WireModel& model, double guess)
{
    double a = guess, b = 1.01 * guess, xa = impedanceAt(model, a).imag();
    for (int i = 0; i < 4; ++i) {
        const double xb = impedanceAt(model, b).imag(), next = b - xb * (b - a) / (xb - xa);
        a = b, xa = xb, b = next;
        if (std::abs(b - a) < 1e-5 * b)
            break;
    }
    return b;
}

// The strict judge: every turn a wire. In a point the coil misses both the resonance and what it does to the resistance.
TEST(CoilLength, IsTheHelixThatIsSolvedTurnByTurn)
{
    for (const CoilShape& c : {CoilShape{0.06, 0.02, 6.0, 0.5, 1.4}, CoilShape{0.04, 0.012, 8.0, 0.3, 1.1}}) {
        const WireModel turns = wound(c);
        const double spread = resonanceOf(asLong(c), 35e6), point = resonanceOf(inPoint(c), 35e6), real = resonanceOf(turns, spread);
        EXPECT_NEAR(spread / real, 1.0, 0.005) << "point " << point << " real " << real;
        EXPECT_LT(3.0 * std::abs(spread - real), std::abs(point - real)) << spread << " " << real << " " << point;
        const double ohms = impedanceAt(turns, real).real();
        EXPECT_NEAR(impedanceAt(asLong(c), spread).real() / ohms, 1.0, 0.015);
        EXPECT_GT(std::abs(impedanceAt(inPoint(c), point).real() / ohms - 1.0), 0.05);
    }
}

// Down to two turns a fifth as long as thick; in a point they miss the resistance by a tenth.
TEST(CoilLength, AShortCoilIsItsHelixToo)
{
    for (const CoilShape& c :
         {CoilShape{0.08, 0.01, 5.0, 0.5, 1.4}, CoilShape{0.06, 0.008, 3.0, 0.5, 1.4}, CoilShape{0.06, 0.006, 2.0, 0.5, 1.4}}) {
        const WireModel turns = wound(c);
        const double spread = resonanceOf(asLong(c), 35e6), point = resonanceOf(inPoint(c), 35e6), real = resonanceOf(turns, spread);
        EXPECT_NEAR(spread / real, 1.0, 0.0075) << c.length() / c.diameter << ", leads not counted";
        EXPECT_LT(3.0 * std::abs(spread - real), std::abs(point - real)) << c.length() / c.diameter;
        const double ohms = impedanceAt(turns, real).real();
        EXPECT_NEAR(impedanceAt(asLong(c), spread).real() / ohms, 1.0, 0.01);
        EXPECT_GT(std::abs(impedanceAt(inPoint(c), point).real() / ohms - 1.0), 0.08);
    }
}

// ---- traps

/// Helices with a capacitor in a wire along their axis, from end to end.
WireModel woundTraps(const CoilShape& c, double farad)
{
    WireModel model = wound(c);
    for (double side : {-1.0, 1.0}) {
        model.wires.push_back({"across", {{0, side * c.from, 0}, {0, side * (c.from + c.length()), 0}}, wireRadius});
        Load capacitor;
        capacitor.wire = model.wires.size() - 1;
        capacitor.at = 0.5 * c.length();
        capacitor.capacitance = farad;
        model.loads.push_back(capacitor);
    }
    return model;
}

WireModel trapped(WireModel model, double farad)
{
    for (Load& coil : model.loads) {
        coil.kind = LoadKind::Parallel;
        coil.capacitance = farad;
    }
    return model;
}

/// The capacitor, leads and all, with which a model's trap makes the antenna resonant where it is measured.
double fittedCapacitor(const WireModel& coils, double resonance, double guess)
{
    const auto reactance = [&](double farad) { return impedanceAt(trapped(coils, farad), resonance).imag(); };
    double a = guess, b = 1.05 * guess, xa = reactance(a);
    for (int i = 0; i < 8 && std::abs(a - b) > 1e-6 * guess; ++i) {
        const double xb = reactance(b), next = b - xb * (b - a) / (xb - xa);
        a = b, xa = xb, b = next;
    }
    return b;
}

// A trap is told by a frequency that was measured: fitted there, the one with a size is the helix with its capacitor elsewhere too.
TEST(TrapLength, IsTheHelixWithItsCapacitor)
{
    constexpr double farad = 12e-12;
    for (const CoilShape& c : {CoilShape{0.06, 0.02, 6.0, 0.5, 1.4}, CoilShape{0.04, 0.012, 8.0, 0.3, 1.1}}) {
        const WireModel turns = woundTraps(c, farad);
        const double real = resonanceOf(turns, 31e6);
        const double forLong = fittedCapacitor(asLong(c), real, 14e-12), forPoint = fittedCapacitor(inPoint(c), real, 14e-12);
        EXPECT_GT(forLong, farad);
        EXPECT_LT(forLong, 1.12 * farad) << "its leads beside the turns";
        const auto off = [&](const WireModel& model, double f) {
            const Complex z = impedanceAt(turns, f);
            return std::abs(impedanceAt(model, f) - z) / std::abs(z);
        };
        const WireModel spread = trapped(asLong(c), forLong), point = trapped(inPoint(c), forPoint);
        for (double below : {20e6, 26e6}) {
            EXPECT_LT(off(spread, below), 0.003) << below;
            EXPECT_GT(off(point, below), 0.1) << below;
        }
        for (double above : {46e6, 52e6, 58e6}) // where most of the current takes the capacitor
            EXPECT_LT(off(spread, above), 0.75 * off(point, above)) << above;
    }
}

TEST(TrapLength, ItsPowerAddsUp)
{
    const WireModel model = trapped(withCoils({0.06, 0.02, 6.0, 0.5, 1.4}, {0.12, 0.06, 2e-3}, 200.0), 12e-12);
    for (double f : {29e6, 38e6, 50e6}) {
        const em::Solution solution = solvedQuickly(model, f);
        const em::PowerLedger ledger = testing::ledgerOf(solution);
        EXPECT_NEAR(ledger.sum(), 1.0, 2e-3) << f;
        EXPECT_GT(ledger.loads, 0.001) << f;
    }
}

struct SolvedHelix {
    const char* file;
    double frequency;  ///< Hz where X = 0, of the helix turn by turn by another program
    Complex impedance; ///< 5 % above that
    double above;      ///< Hz
    double within;     ///< of the frequency
};

// Antennas whose coil another program solved turn by turn, with what the leads add.
TEST(CoilLength, AgreesWithHelicesOfAnotherProgram)
{
    const SolvedHelix cases[] = {{"d_half_12t40", 21552799.0, {47.723110799994515, 135.93930919532397}, 22633000.0, 0.001},
                                 {"m_half_25t50", 10434679.0, {8.955069173037938, 141.70972376961663}, 10959000.0, 0.001},
                                 {"d_fat_5t80", 24137962.0, {54.14405553626234, 104.41542653877285}, 25340000.0, 0.004}};
    for (const SolvedHelix& c : cases) {
        const auto read = files::readWireFile(std::string(VETCHLING_TEST_DATA "/coils/") + c.file + ".json");
        ASSERT_TRUE(read.ok()) << read.firstFault();
        EXPECT_NEAR(resonanceOf(read->model, c.frequency) / c.frequency, 1.0, c.within) << c.file;
        const Complex z = impedanceAt(read->model, c.above);
        EXPECT_NEAR(z.real() / c.impedance.real(), 1.0, 0.01) << c.file;
    }
}

// From far below its own resonance to beyond it, where a coil in a point, with that resonance put across it or not, is another antenna.
TEST(CoilLength, FollowsTheHelixPastItsOwnResonance)
{
    const CoilShape c{0.06, 0.02, 6.0, 0.5, 1.4};
    const WireModel turns = wound(c);
    WireModel resonant = inPoint(c);
    for (Load& coil : resonant.loads)
        coil.selfResonance = coilFigures({c.diameter, 2.0 * wireRadius, c.pitch, c.turns})->selfResonance;
    for (double f : {20e6, 80e6, 100e6}) {
        const Complex real = impedanceAt(turns, f);
        const auto off = [&](const WireModel& model) { return std::abs(impedanceAt(model, f) - real) / std::abs(real); };
        EXPECT_LT(off(asLong(c)), 0.004) << f;
        EXPECT_GT(off(inPoint(c)), 0.15) << f;
        EXPECT_GT(off(resonant), 0.15) << f;
    }
}

TEST(CoilLength, IsACoilInAPointWhereItIsShort)
{
    const CoilShape tiny{0.006, 0.0022, 6.0, 2.0, 5.0};
    for (double f : {9e6, 12e6, 14e6}) {
        const Complex spread = impedanceAt(asLong(tiny), f), point = impedanceAt(inPoint(tiny), f);
        EXPECT_LT(std::abs(spread - point), 0.006 * std::abs(point)) << f;
    }
}

// A long coil among metres of wire; where its charges are on a tube it seems longer than on turns that are apart.
TEST(CoilLength, TurnsThatAreApartHoldLessCharge)
{
    const CoilShape c;
    const double turns = resonanceOf(asLong(c), 32e6), tube = resonanceOf(withCoils(c, {c.length(), c.diameter, 0.0}), 32e6);
    EXPECT_GT(turns, 1.003 * tube);
    Load coil = asLong(c).loads[0];
    // p/(2 pi a) ln(p / pi d) of ten turns
    EXPECT_NEAR(em::gridElastance(coil), 0.015 / (2.0 * pi * 0.025) * std::log(0.015 / (pi * 0.002)), 0.0005);
    coil.size.wireDiameter = 0.0148; // nearly touching
    EXPECT_EQ(em::gridElastance(coil), 0.0);
}

// An even current sees the inductance the coil was given, however the mesh divides it.
TEST(CoilLength, AnEvenCurrentHasItsWholeInductance)
{
    const CoilShape c;
    const WireModel model = asLong(c, 150.0);
    for (double fineness : {1.0, 4.0}) {
        const em::Mesh mesh = em::makeMesh(model, 20e6, {.fineness = fineness});
        Complex sum = 0.0;
        for (const em::CoiledPair& p : em::coiledPairs(mesh, model))
            if (p.load == 0)
                sum += (p.m == p.n ? 1.0 : 2.0) * p.flux.value[0][0];
        EXPECT_NEAR(sum.real() / inductanceOf(c), 1.0, 1e-9);
        EXPECT_NEAR(-sum.imag() * 150.0 / inductanceOf(c), 1.0, 1e-9) << "loss";
    }
}

// What the winding loses is counted with the loads, once, and the balance closes.
TEST(CoilLength, KeepsThePowersInBalance)
{
    const CoilShape c;
    for (const WireModel& model : {asLong(c, 150.0), inPoint(c, 150.0)}) {
        em::GroundTableCache tables;
        const auto ledger = em::powerLedger(solvedQuickly(model, 28e6), tables);
        ASSERT_TRUE(ledger.ok());
        EXPECT_NEAR(ledger->sky + ledger->loads + ledger->wire, 1.0, 0.004);
        EXPECT_GT(ledger->loads, 0.03);
        EXPECT_NEAR(ledger->wire, 0.0, 1e-9) << "perfect wire";
    }
}

// Over soil in a sweep the moments are made once; they are those of a mesh by itself.
TEST(CoilLength, ASweepIsItsSingleSolves)
{
    WireModel model = asLong({});
    for (Vec3& p : model.wires[0].points)
        p.z = 6.0;
    model.ground = {GroundKind::Real, 13.0, 0.005};
    const auto shared = std::make_shared<const WireModel>(model);
    const em::PreparedModel prepared(shared, {.meshFrequency = 33e6}, 33e6);
    em::GroundTableCache tables;
    for (double f : {29e6, 33e6}) {
        const auto one = em::solve(shared, f, tables, {.mesh = {.meshFrequency = 33e6}});
        const auto swept = prepared.solve(f, tables);
        ASSERT_TRUE(one.ok() && swept.ok());
        EXPECT_LT(std::abs(swept->impedance - one->impedance), 1e-4 * std::abs(one->impedance));
    }
}

// One ohm more of an even current's inductance is what the impedance answers to.
TEST(CoilLength, AnswersToItsInductance)
{
    WireModel model = asLong({});
    for (Load& coil : model.loads)
        coil.size.wireDiameter = 0.0; // or its turns would change too
    const double f = 30e6, step = 1e-3 * model.loads[1].inductance;
    em::GroundTableCache tables;
    const auto s = em::sensitivities(solvedQuickly(model, f), tables);
    ASSERT_TRUE(s.ok());
    const Complex before = impedanceAt(model, f);
    model.loads[1].inductance += step;
    const Complex after = impedanceAt(model, f), ohm{0.0, 2.0 * pi * f * step};
    EXPECT_LT(std::abs((after - before) / ohm - s->perLoad[1]), 0.01 * std::abs(s->perLoad[1]));
    EXPECT_LT(std::abs(s->perLoad[0] - s->perLoad[1]), 1e-6 * std::abs(s->perLoad[1])) << "the arms are alike";
}

struct SizedFamily {
    const char *family, *arm; ///< the length that the coil is in
    double metres;            ///< of it
};

// What is cut ends at the coil's ends, and pieces, coil and what is not cut make the model's wires.
TEST(CoilLength, FamiliesCutTheirWireShorterByIt)
{
    for (const SizedFamily& f : {SizedFamily{"loaded-dipole", "leg_m", 4.0}, SizedFamily{"loaded-vertical", "radiator_m", 4.0},
                                 SizedFamily{"mobile-whip", "radiator_m", 2.4}, SizedFamily{"two-band-whip", "lower_m", 2.0},
                                 SizedFamily{"end-fed-tail", "tail_m", 2.0}, SizedFamily{"trap-dipole", "leg_m", 2.0},
                                 SizedFamily{"trap-vertical", "lower_m", 2.0}, SizedFamily{"five-eighths-vertical", "radiator_m", 4.0}}) {
        const auto cut = [](const shapes::BuiltAntenna& built) {
            double sum = built.notCut;
            for (const shapes::WireSection& s : built.sections)
                sum += s.pieces * s.length;
            return sum;
        };
        shapes::AntennaShape shape = shapes::shapeOf(f.family, {{f.arm, f.metres}});
        const auto point = shapes::buildOver(shape, {});
        ASSERT_TRUE(point.ok()) << point.firstFault();
        EXPECT_TRUE(point->model.loads.front().size.inPoint()) << "as it was before coils had a length";
        shape.parameters["coil_length_m"] = 0.15;
        const auto sized = shapes::buildOver(shape, {});
        ASSERT_TRUE(sized.ok()) << f.family << sized.firstFault();
        for (const Load& coil : sized->model.loads)
            EXPECT_EQ(coil.size, (CoilSize{0.15, 0.04, 0.0012}));
        EXPECT_NEAR(cut(*sized), cut(*point), 1e-9) << f.family;
        EXPECT_NEAR(sized->model.totalLength(), point->model.totalLength(), 1e-9);
        EXPECT_NEAR(sized->notCut - point->notCut, 0.15 * double(sized->model.loads.size()), 1e-9);
        const auto refused = [&](const char* key, double value) {
            shapes::AntennaShape wrong = shape;
            wrong.parameters[key] = value;
            const auto result = shapes::buildOver(wrong, {});
            return result.ok() ? std::string() : result.faults().front().path;
        };
        EXPECT_EQ(refused("coil_length_m", 4.9), "coil_length_m") << f.family;
        EXPECT_EQ(refused("coil_length_m", 0.007), "coil_length_m") << "less than a fifth of its thickness";
        EXPECT_EQ(refused("coil_diameter_m", 0.0012), "coil_diameter_m") << "thinner than the wire";
        EXPECT_EQ(refused("coil_wire_m", 0.02), "coil_wire_m");
    }
}

// A long coil takes less inductance than one in a point, for it has charge of its own as well.
TEST(CoilLength, ALoadedVerticalTunesWithLess)
{
    shapes::AntennaShape shape = shapes::shapeOf("loaded-vertical", {{"radiator_m", 3.0}, {"radial_m", 4.0}});
    shape.designFrequency = 7.1e6;
    const auto reactance = [&](double length) {
        shape.parameters["coil_length_m"] = length;
        shape.parameters["coil_diameter_m"] = 0.08;
        auto built = shapes::buildOver(shape, {});
        return impedanceAt(built->model, 7.1e6).imag();
    };
    shape.parameters["inductance_H"] = 25e-6;
    EXPECT_GT(reactance(0.3), reactance(0.0) + 20.0);
}

TEST(CoilLength, IsReadWrittenAndRefused)
{
    const std::string text = R"({"format":"vetchling-wires","version":1,"ground":{"kind":"free-space"},
        "wires":[{"id":"a","points_m":[[0,0,9],[0,2,9],[0,3,9.5]],"radius_m":0.001}],
        "feeds":[{"wire":"a","at_m":1}],
        "loads":[{"wire":"a","at_m":1.6,"inductance_H":8e-6,"q":200,"length_m":0.2,"diameter_m":0.04,"wire_diameter_m":0.002}],
        "frequencies_Hz":[14.1e6]})";
    const auto file = files::parseWireFile(text);
    ASSERT_TRUE(file.ok()) << file.firstFault();
    EXPECT_EQ(file->model.loads[0].size, (CoilSize{0.2, 0.04, 0.002}));
    const auto again = files::parseWireFile(files::writeWireFile(*file));
    ASSERT_TRUE(again.ok()) << again.firstFault();
    EXPECT_EQ(again->model.loads[0].size, file->model.loads[0].size);
    EXPECT_TRUE(findFaults(file->model).empty());

    const auto refused = [&](void (*spoil)(WireModel&)) {
        WireModel wrong = file->model;
        spoil(wrong);
        const Faults faults = findFaults(wrong);
        return faults.size() == 1 ? faults.front().path : std::to_string(faults.size());
    };
    EXPECT_EQ(refused([](WireModel& m) { m.loads[0].at = 1.95; }), "loads[0].length_m") << "over the corner";
    EXPECT_EQ(refused([](WireModel& m) { m.loads[0].at = 1.05; }), "loads[0].length_m") << "over the feed";
    EXPECT_EQ(refused([](WireModel& m) { m.loads[0].at = 0.05; }), "loads[0].length_m") << "beyond the end";
    EXPECT_EQ(refused([](WireModel& m) { m.loads.push_back(m.loads[0]), m.loads[1].at = 1.5; }).substr(0, 1), "2") << "in one another";
    EXPECT_EQ(refused([](WireModel& m) { m.loads[0].size.length = 0.007; }), "loads[0].length_m");
    EXPECT_EQ(refused([](WireModel& m) { m.loads[0].size.diameter = 0.001, m.loads[0].size.wireDiameter = 0.0; }), "loads[0].diameter_m");
    EXPECT_EQ(refused([](WireModel& m) { m.loads[0].size.wireDiameter = 0.03; }), "loads[0].wire_diameter_m");
    EXPECT_EQ(refused([](WireModel& m) { m.loads[0].selfResonance = 40e6; }), "loads[0].length_m") << "both of its capacitance";
    EXPECT_EQ(refused([](WireModel& m) { m.loads[0].kind = LoadKind::Parallel; }), "loads[0].length_m");
    EXPECT_EQ(refused([](WireModel& m) {
                  m.ground = {GroundKind::Real, 13.0, 0.005};
                  for (Vec3& p : m.wires[0].points)
                      p.z -= 8.99;
              }),
              "loads[0].at_m")
        << "on the ground";
}

} // namespace
} // namespace vetchling

#include "core/em/symmetry.h"

#include "core/em/sensitivity.h"

#include "tests/core/helpers.h"

namespace vetchling::em {
namespace {

using namespace vetchling::testing;

constexpr double symmetryHz = 7.1e6;

WireModel star(int count, double hub, double droop, const Ground& ground = averageSoil)
{
    WireModel model = fedWire({{0, 0, hub}, {0, 0, hub + 10.0}}, 0.0, ground);
    for (int i = 0; i < count; ++i) {
        const double angle = 2.0 * pi * i / count + 0.2;
        model.wires.push_back(wire("r" + std::to_string(i), {{0, 0, hub}, {7.0 * std::cos(angle), 7.0 * std::sin(angle), hub - droop}}));
    }
    return model;
}

SolveOptions without()
{
    SolveOptions options;
    options.mesh.symmetry = false;
    return options;
}

int orbitsOf(const WireModel& model) { return makeMesh(model, symmetryHz).levelStarts[2] - makeMesh(model, symmetryHz).levelStarts[1]; }

/// A star with a second ring of shorter radials, a hat joined by a rim, and a coil in the mast.
WireModel ornate()
{
    WireModel model = star(6, 2.0, 0.5);
    for (int i = 0; i < 12; ++i) {
        const double angle = 2.0 * pi * i / 12 + 0.1;
        model.wires.push_back(wire("s" + std::to_string(i), {{0, 0, 2}, {3.0 * std::cos(angle), 3.0 * std::sin(angle), 2.0}}));
    }
    for (int i = 0; i < 3; ++i) {
        const double a = 2.0 * pi * i / 3, b = 2.0 * pi * (i + 1) / 3;
        const Vec3 here{std::cos(a), std::sin(a), 12.0}, next{std::cos(b), std::sin(b), 12.0};
        model.wires.push_back(wire("arm" + std::to_string(i), {{0, 0, 12}, here}));
        model.wires.push_back(wire("rim" + std::to_string(i), {here, next}));
    }
    Load coil;
    coil.at = 5.0;
    coil.inductance = 3e-6;
    model.loads.push_back(coil);
    return model;
}

class Stars : public ::testing::TestWithParam<std::pair<const char*, WireModel>> {};

// Shared unknowns are the same antenna: impedance, far field, power and currents to rounding.
TEST_P(Stars, SharedUnknownsChangeNothing)
{
    const WireModel& model = GetParam().second;
    GroundTableCache tables;
    const Solution shared = solved(model, symmetryHz, tables), plain = solved(model, symmetryHz, tables, without());
    EXPECT_LT(shared.mesh->unknowns, plain.mesh->unknowns / 2);
    EXPECT_LT(relative(shared.impedance, plain.impedance), 1e-8);
    EXPECT_NEAR(FarField(shared).gain(0.4, 0.9), FarField(plain).gain(0.4, 0.9), 1e-6);
    EXPECT_NEAR(ledgerOf(shared).sum(), ledgerOf(plain).sum(), 1e-7);
    for (std::size_t w = 0; w < model.wires.size(); ++w)
        EXPECT_LT(std::abs(shared.currentAt(w, 0.7) - plain.currentAt(w, 0.7)), 1e-8 * std::abs(plain.feedCurrents[0])) << w;
}

WireModel starInSoil()
{
    WireModel model = fedWire({{0, 0, 10}, {0, 0, 0}, {0, 0, -0.05}}, 9.9, averageSoil);
    for (int i = 0; i < 7; ++i)
        model.wires.push_back(
            wire("r" + std::to_string(i), {{0, 0, -0.05}, {6 * std::cos(2 * pi * i / 7), 6 * std::sin(2 * pi * i / 7), -0.05}}));
    return model;
}

INSTANTIATE_TEST_SUITE_P(Models, Stars,
                         ::testing::Values(std::pair("over_soil", star(8, 0.5, 0.2)), std::pair("free", star(5, 0.0, 0.0, freeSpace)),
                                           std::pair("perfect", star(4, 3.0, 1.0, perfectGround)), std::pair("ornate", ornate()),
                                           std::pair("buried", starInSoil())),
                         [](const auto& info) { return std::string(info.param.first); });

TEST(Symmetry, IsLookedForInTheWholeModel)
{
    const int alone = orbitsOf(star(1, 0.5, 0.2)), eight = orbitsOf(star(8, 0.5, 0.2));
    EXPECT_EQ(eight, alone);
    WireModel neighbour = star(8, 0.5, 0.2);
    neighbour.wires.push_back(wire("fence", {{20, 0, 1}, {20, 5, 1}}));
    EXPECT_GT(orbitsOf(neighbour), 3 * eight);
    WireModel fedOffAxis = star(8, 0.5, 0.2);
    fedOffAxis.feeds = {{1, 2.0, 1.0}};
    EXPECT_GT(orbitsOf(fedOffAxis), 3 * eight);
    WireModel oneThick = star(8, 0.5, 0.2);
    oneThick.wires[3].radius = 2e-3;
    EXPECT_GT(orbitsOf(oneThick), 3 * eight);
    WireModel oneInsulated = star(8, 0.5, 0.2);
    oneInsulated.wires[3].insulation = Insulation{2e-3, 2.3, 0.0};
    EXPECT_GT(orbitsOf(oneInsulated), 3 * eight);
}

/// Both arms from the feed, the second one as its mirror image, drawn outwards too or not.
WireModel mirrored(std::vector<Vec3> arm, const Ground& ground, bool outwards)
{
    WireModel model;
    model.ground = ground;
    const Vec3 centre = arm.front();
    std::vector<Vec3> image;
    for (Vec3 p : arm)
        image.push_back({2.0 * centre.x - p.x, p.y, p.z});
    if (outwards) {
        const double gap = 0.02;
        arm.front().x += gap, image.front().x -= gap;
        model.wires = {wire("gap", {image.front(), arm.front()}), wire("arm", arm), wire("image", image)};
        model.feeds = {{0, gap, 1.0}};
    } else {
        std::vector<Vec3> whole(image.rbegin(), image.rend());
        whole.insert(whole.end(), arm.begin() + 1, arm.end());
        model.wires = {wire("whole", whole)};
        model.feeds = {{0, model.wires[0].length() / 2.0, 1.0}};
    }
    return model;
}

const std::vector<Vec3> bentArm{{0, 0, 9}, {6, 1, 6}, {8, 3, 6.5}};

WireModel jacketed()
{
    WireModel model = mirrored(bentArm, averageSoil, false);
    model.wires[0].insulation = Insulation{2e-3, 2.6, 0.01};
    model.wires[0].conductivity = 5.8e7;
    return model;
}

/// Pairs of two lengths, their coils with and without a size.
WireModel loadedFan()
{
    WireModel model = mirrored(bentArm, averageSoil, true);
    model.wires.push_back(wire("arm 2", {{0.02, 0, 9}, {4, -1, 5}}));
    model.wires.push_back(wire("image 2", {{-0.02, 0, 9}, {-4, -1, 5}}));
    for (std::size_t w : {1, 2, 3, 4}) {
        Load coil;
        coil.wire = w;
        coil.at = 2.0;
        coil.inductance = 4e-6;
        coil.q = 200.0;
        if (w > 2)
            coil.size = {0.2, 0.04, 0.002};
        model.loads.push_back(coil);
    }
    return model;
}

/// A loop fed in its lower side, closed at a corner above the feed.
WireModel loop(const Ground& ground) { return fedWire({{-6, 0, 3}, {6, 0, 3}, {0, 0, 11}, {-6, 0, 3}}, 6.0, ground); }

/// Its ends go down into perfect ground.
WireModel grounded() { return mirrored({{0, 0, 5}, {4, 0, 5}, {4, 1, 0}}, perfectGround, false); }

WireModel earthed() { return mirrored({{0, 0, 5}, {4, 0, 5}, {4, 1, 0}, {4, 1, -0.5}, {6, 1, -0.5}}, averageSoil, false); }

class Mirrors : public ::testing::TestWithParam<std::pair<const char*, WireModel>> {};

// Half the unknowns are the same antenna: impedance, far field, power, currents and what it answers to.
TEST_P(Mirrors, HalfTheUnknownsChangeNothing)
{
    const WireModel& model = GetParam().second;
    GroundTableCache tables;
    const Solution shared = solved(model, symmetryHz, tables), plain = solved(model, symmetryHz, tables, without());
    EXPECT_LE(shared.mesh->unknowns, plain.mesh->unknowns / 2 + 1);
    EXPECT_LT(relative(shared.impedance, plain.impedance), 1e-7);
    EXPECT_NEAR(FarField(shared).gain(0.4, 0.9), FarField(plain).gain(0.4, 0.9), 1e-6);
    EXPECT_NEAR(ledgerOf(shared).sum(), ledgerOf(plain).sum(), 1e-6);
    for (std::size_t w = 0; w < model.wires.size(); ++w)
        for (double part : {0.1, 0.7, 0.93}) {
            const double at = part * model.wires[w].length();
            EXPECT_LT(std::abs(shared.currentAt(w, at) - plain.currentAt(w, at)), 1e-7 * std::abs(plain.feedCurrents[0]))
                << w << ' ' << part;
        }
    const auto one = sensitivities(shared, tables), other = sensitivities(plain, tables);
    ASSERT_TRUE(one.ok() && other.ok());
    ASSERT_EQ(one->ends.size(), other->ends.size());
    for (std::size_t i = 0; i < one->ends.size(); ++i)
        EXPECT_LT(std::abs(one->ends[i].perMetre - other->ends[i].perMetre), 1e-4 * std::abs(other->ends[i].perMetre) + 1e-4);
    for (std::size_t i = 0; i < one->perLoad.size(); ++i)
        EXPECT_LT(relative(one->perLoad[i], other->perLoad[i]), 1e-6);
}

INSTANTIATE_TEST_SUITE_P(Models, Mirrors,
                         ::testing::Values(std::pair("whole", mirrored(bentArm, averageSoil, false)),
                                           std::pair("outwards", mirrored(bentArm, averageSoil, true)),
                                           std::pair("upright_in_free_space", fedWire({{0, 0, 0}, {0, 0, 20}}, 10.0, freeSpace)),
                                           std::pair("jacketed", jacketed()), std::pair("loaded_fan", loadedFan()),
                                           std::pair("loop", loop(averageSoil)), std::pair("grounded", grounded()),
                                           std::pair("earthed", earthed())),
                         [](const auto& info) { return std::string(info.param.first); });

bool isHalved(const WireModel& model) { return !makeMesh(model, symmetryHz).orbit.empty(); }

TEST(Mirror, HasToHoldInTheWholeModel)
{
    const WireModel even = mirrored(bentArm, averageSoil, true);
    ASSERT_TRUE(isHalved(even));
    const auto spoiled = [&](void (*spoil)(WireModel&)) {
        WireModel model = even;
        spoil(model);
        return isHalved(model);
    };
    EXPECT_FALSE(spoiled([](WireModel& m) { m.wires[2].points.back().z += 0.01; })) << "one end higher";
    EXPECT_FALSE(spoiled([](WireModel& m) { m.wires[2].radius = 2e-3; }));
    EXPECT_FALSE(spoiled([](WireModel& m) { m.wires[2].insulation = Insulation{2e-3, 2.3, 0.0}; }));
    EXPECT_FALSE(spoiled([](WireModel& m) { m.feeds[0].at = 0.01; })) << "fed beside the middle";
    EXPECT_FALSE(spoiled([](WireModel& m) { m.feeds.push_back({1, 2.0, 1.0}); })) << "fed twice";
    EXPECT_FALSE(spoiled([](WireModel& m) { m.loads.push_back({1, 2.0}), m.loads[0].resistance = 10.0; })) << "a load in one arm";
    EXPECT_FALSE(spoiled([](WireModel& m) { m.wires.push_back(wire("mast", {{0, 0.5, 0.5}, {0, 0.5, 8}})); })) << "a wire in the mirror";
    EXPECT_FALSE(spoiled([](WireModel& m) {
        m.wires.push_back(wire("across", {{-3, 5, 4}, {4, 5, 4}}));
    })) << "one across it, off its middle";
    EXPECT_FALSE(isHalved(fedWire({{0, 0, 2}, {0, 0, 22}}, 10.0, averageSoil))) << "upright, over soil";
    EXPECT_TRUE(spoiled([](WireModel& m) {
        for (std::size_t w : {1, 2})
            m.loads.push_back({w, 2.0}), m.loads.back().resistance = 10.0;
    })) << "a load in either arm";
    EXPECT_FALSE(spoiled([](WireModel& m) {
        for (std::size_t w : {1, 2, 2})
            m.loads.push_back({w, 2.0}), m.loads.back().resistance = 10.0;
    })) << "two in one place, one in its image";
}

/// A point moved by less than anyone sees breaks the symmetry, without a jump. @param perMetre most relative change of Z for a metre
void fallsBackWithoutAJump(const WireModel& even, std::size_t wire, double Vec3::*coordinate, double perMetre)
{
    GroundTableCache tables;
    const Complex whole = solved(even, symmetryHz, tables).impedance;
    for (double moved : {1e-5, 1e-3}) {
        WireModel odd = even;
        odd.wires[wire].points.back().*coordinate += moved;
        const Solution s = solved(odd, symmetryHz, tables);
        EXPECT_TRUE(s.mesh->orbit.empty());
        EXPECT_LT(relative(s.impedance, whole), perMetre * moved + 1e-6) << moved;
    }
}

TEST(Mirror, FallsBackWithoutAJump) { fallsBackWithoutAJump(mirrored(bentArm, averageSoil, false), 0, &Vec3::x, 2.0); }

TEST(Symmetry, FallsBackWithoutAJump) { fallsBackWithoutAJump(star(8, 0.5, 0.2), 2, &Vec3::z, 0.05); }

TEST(Symmetry, SensitivitiesSeeOneRadialAlone)
{
    GroundTableCache tables;
    const WireModel model = star(4, 1.0, 0.2);
    const auto all = sensitivities(solved(model, symmetryHz, tables), tables), plain = sensitivities(solved(model, symmetryHz, tables, without()), tables);
    ASSERT_TRUE(all.ok() && plain.ok());
    ASSERT_EQ(all->ends.size(), plain->ends.size());
    for (std::size_t i = 0; i < all->ends.size(); ++i)
        EXPECT_LT(std::abs(all->ends[i].perMetre - plain->ends[i].perMetre), 1e-4 * std::abs(plain->ends[i].perMetre) + 1e-4);
}

} // namespace
} // namespace vetchling::em

#include "core/em/conductor.h"
#include "core/em/system.h"

#include "core/em/pair_classes.h"

#include "tests/core/helpers.h"

namespace vetchling::em {
namespace {

using namespace vetchling::testing;

struct WireFigure {
    double radius, frequency, r, x; // mm, MHz, ohm/m
};

class InternalImpedance : public ::testing::TestWithParam<WireFigure> {};

// Exact diffusion solutions computed independently; copper 5.8e7 S/m (tests/data figures, 10 digits).
TEST_P(InternalImpedance, MatchesExactSkinEffect)
{
    const WireFigure f = GetParam();
    const Complex z = internalImpedance(f.frequency * 1e6, f.radius * 1e-3, 5.8e7, 1.0);
    EXPECT_NEAR(z.real() / f.r, 1.0, 1e-6);
    EXPECT_NEAR(z.imag() / f.x, 1.0, 1e-6);
}

INSTANTIATE_TEST_SUITE_P(Copper, InternalImpedance,
                         ::testing::Values(WireFigure{0.1, 7, 1.248842025, 1.082676169}, WireFigure{0.1, 50, 3.078079787, 2.930816162},
                                           WireFigure{0.25, 3.5, 0.3338243941, 0.3093862255},
                                           WireFigure{0.25, 28, 0.9012336656, 0.8784382902},
                                           WireFigure{0.5, 1.8, 0.1171065197, 0.111193223}, WireFigure{0.5, 150, 1.022605565, 1.017072805},
                                           WireFigure{0.814, 7, 0.1370562179, 0.1349371511},
                                           WireFigure{1.0, 3.5, 0.07907211748, 0.07766310183},
                                           WireFigure{1.0, 28, 0.2210961377, 0.2197111807}));

TEST(InternalImpedance, TendsToDirectCurrentResistance)
{
    const double radius = 1e-3, direct = 1.0 / (pi * radius * radius * 5.8e7);
    EXPECT_NEAR(internalImpedance(1.0, radius, 5.8e7, 1.0).real() / direct, 1.0, 1e-6);
}

TEST(InternalImpedance, GrowsWithTheRootOfPermeability)
{
    const double plain = internalImpedance(7e6, 1e-3, 5.8e6, 1.0).real(), steel = internalImpedance(7e6, 1e-3, 5.8e6, 100.0).real();
    EXPECT_NEAR(steel / plain, 10.0, 0.5);
}

struct LayeredFigure {
    double diameter, core, frequency, r, x; // mm, mm, MHz, ohm/m; core: radius below the coating, or the bore of a tube
    double sigma, mu, coatingSigma;         // coatingSigma 0: a tube
};

class LayeredConductor : public ::testing::TestWithParam<LayeredFigure> {};

// Exact diffusion solutions computed independently: tubes, zinc and copper on steel, tin on copper.
TEST_P(LayeredConductor, MatchesExactSkinEffect)
{
    const LayeredFigure f = GetParam();
    Wire wire;
    wire.radius = 0.5e-3 * f.diameter;
    wire.conductivity = f.sigma;
    wire.relativePermeability = f.mu;
    if (f.coatingSigma > 0.0)
        wire.coating = Coating{wire.radius - 1e-3 * f.core, f.coatingSigma, 1.0};
    else
        wire.wall = wire.radius - 1e-3 * f.core;
    const Complex z = internalImpedance(wire, wire.radius, f.frequency * 1e6);
    EXPECT_NEAR(z.real() / f.r, 1.0, 1e-5);
    EXPECT_NEAR(z.imag() / f.x, 1.0, 1e-5);
}

INSTANTIATE_TEST_SUITE_P(Wires, LayeredConductor,
                         ::testing::Values(LayeredFigure{15, 6.5, 3.5, 0.01038202575, 0.01035754782, 5.8e7, 1, 0},
                                           LayeredFigure{22, 10.1, 150, 0.04624294367, 0.04623160045, 5.8e7, 1, 0},
                                           LayeredFigure{12, 5, 14, 0.03952909998, 0.03944038256, 2.5e7, 1, 0},
                                           LayeredFigure{10, 4.5, 7, 0.1447723725, 0.1425261471, 1.39e6, 1, 0},
                                           LayeredFigure{25, 12.48, 3.5, 0.01108486085, 0.002339625312, 5.8e7, 1,
                                                         0}, // a foil thinner than the skin
                                           LayeredFigure{2, 0.98, 1.8, 0.4165625618, 0.06512801511, 5.8e6, 100, 1.69e7},
                                           LayeredFigure{2, 0.98, 150, 0.9040449425, 0.9447649851, 5.8e6, 100, 1.69e7},
                                           LayeredFigure{1.628, 0.7326, 3.5, 0.09556480327, 0.09696325464, 5.8e6, 100, 5.8e7},
                                           LayeredFigure{1, 0.485, 1.8, 0.3540405987, 0.04061691919, 5.8e6, 100, 5.8e7},
                                           LayeredFigure{1, 0.485, 14, 0.3851647668, 0.1823050337, 5.8e6, 100, 5.8e7},
                                           LayeredFigure{1, 0.485, 150, 1.023226176, 1.027476884, 5.8e6, 100, 5.8e7},
                                           LayeredFigure{1.5, 0.745, 7, 0.1514180511, 0.1957019352, 5.8e7, 1, 8.7e6}));

TEST(LayeredConductorLimits, ThickWallIsSolidAndThickCoatingIsItsMetal)
{
    Wire solid;
    solid.radius = 1e-3;
    solid.conductivity = 5.8e7;
    Wire tube = solid, clad = solid;
    tube.wall = 0.9e-3;
    clad.conductivity = 5.8e6;
    clad.relativePermeability = 100.0;
    clad.coating = Coating{0.9e-3, 5.8e7, 1.0};
    const Complex z = internalImpedance(solid, 1e-3, 7e6);
    EXPECT_LT(relative(internalImpedance(tube, 1e-3, 7e6), z), 1e-6);
    EXPECT_LT(relative(internalImpedance(clad, 1e-3, 7e6), z), 1e-6);
}

void expectSymmetric(const Matrix& matrix, int n)
{
    double largest = 0.0, off = 0.0;
    for (int i = 0; i < n; ++i)
        for (int j = 0; j < n; ++j) {
            largest = std::max(largest, std::abs(matrix[std::size_t(i) * n + j]));
            off = std::max(off, std::abs(matrix[std::size_t(i) * n + j] - matrix[std::size_t(j) * n + i]));
        }
    EXPECT_LT(off, 1e-12 * largest);
}

TEST(FieldMatrix, IsSymmetricOverEveryGround)
{
    const WireModel model = fedWire({{0, 0, 2}, {4, 1, 6}, {8, 0, 3}}, 4.0, averageSoil);
    const Mesh mesh = makeMesh(model, 14e6);
    GroundTable table(averageSoil, 14e6);
    ASSERT_TRUE(coverMesh(mesh, table));
    expectSymmetric(fieldMatrix(mesh, freeSpace, nullptr), mesh.unknowns);
    expectSymmetric(fieldMatrix(mesh, perfectGround, nullptr), mesh.unknowns);
    expectSymmetric(fieldMatrix(mesh, averageSoil, &table), mesh.unknowns);
}

// Image theory: the matrix over perfect ground is the direct one plus that of the mirror images.
TEST(FieldMatrix, OverPerfectGroundIsDirectPlusMirror)
{
    const Mesh mesh = makeMesh(fedWire({{0, 0, 2}, {4, 1, 6}}, 2.0), 14e6);
    const Matrix direct = fieldMatrix(mesh, freeSpace, nullptr), mirror = mirrorMatrix(mesh),
                 both = fieldMatrix(mesh, perfectGround, nullptr);
    for (std::size_t i = 0; i < both.size(); ++i)
        EXPECT_LT(std::abs(both[i] - direct[i] - mirror[i]), 1e-9 * (1.0 + std::abs(both[i])));
}

Matrix wireMatrix(const Mesh& mesh, const WireModel& model)
{
    Matrix matrix(std::size_t(mesh.unknowns) * mesh.unknowns);
    addWire(mesh, model, matrix);
    return matrix;
}

TEST(WireMatrix, VanishesForAPerfectBareWire)
{
    WireModel model = dipole(10, 5);
    const Mesh mesh = makeMesh(model, 14e6);
    const Matrix matrix = wireMatrix(mesh, model);
    ASSERT_EQ(matrix.size(), std::size_t(mesh.unknowns) * mesh.unknowns);
    ASSERT_GT(mesh.unknowns, 5);
    for (Complex v : matrix)
        EXPECT_EQ(v, Complex{});
    model.wires[0].conductivity = 5.8e7;
    const Matrix copper = wireMatrix(mesh, model);
    EXPECT_TRUE(std::any_of(copper.begin(), copper.end(), [](Complex v) { return v.real() > 0.0; }));
}

// A charge that is even over many radii: the jacket takes (1-1/er) ln(b/a)/(2 pi eps0) per unit charge from its potential.
TEST(WireMatrix, OfAJacketHasItsLongWaveLimit)
{
    WireModel model = dipole(10, 5);
    model.wires[0].insulation = Insulation{2e-3, 2.3, 0.0};
    const Mesh mesh = makeMesh(model, 14e6);
    const Matrix matrix = wireMatrix(mesh, model);
    std::vector<double> ramp(mesh.unknowns); // the current 1 - |x|/5 has the charge 1/(w 5) per metre on either half
    for (std::size_t e = 0; e < mesh.elements.size(); ++e)
        for (const Share& s : mesh.shares[e])
            if (s.function < 2) {
                const Vec3 p = s.function == 0 ? mesh.elements[e].start : mesh.elements[e].end;
                ramp[s.unknown] = s.factor * (1.0 - std::abs(p.x) / 5.0);
            }
    Complex sum = 0.0;
    for (int i = 0; i < mesh.unknowns; ++i)
        for (int j = 0; j < mesh.unknowns; ++j)
            sum += ramp[i] * ramp[j] * matrix[std::size_t(i) * mesh.unknowns + j];
    const double expected = (1.0 - 1.0 / 2.3) * std::log(2.0) / (2.0 * pi * 2.0 * pi * 14e6 * vacuumPermittivity) * 10.0 / 25.0;
    EXPECT_NEAR(sum.imag() / expected, 1.0, 1e-3);
    EXPECT_NEAR(sum.real() / expected, 0.0, 1e-9);
}

// However fast the charge changes, the jacket never takes more than all of the potential.
TEST(WireMatrix, OfAJacketLeavesTheChargeEnergyPositive)
{
    WireModel bare = dipole(0.4, 5, freeSpace, 2e-3), jacketed = bare;
    jacketed.wires[0].insulation = Insulation{8e-3, 4.0, 0.0};
    MeshOptions options;
    options.degree = 5;
    options.fineness = 16.0;
    const Mesh mesh = makeMesh(bare, 14e6, options);
    const Matrix field = fieldMatrix(mesh, freeSpace, nullptr), jacket = wireMatrix(mesh, jacketed);
    for (int i = 0; i < mesh.unknowns; ++i) {
        const std::size_t d = std::size_t(i) * mesh.unknowns + i;
        EXPECT_GT(jacket[d].imag(), 0.0);
        EXPECT_LT(jacket[d].imag(), -field[d].imag());
    }
}

TEST(WireMatrix, OfLossHasPositiveDiagonal)
{
    WireModel model = dipole(10, 5);
    model.wires[0].conductivity = 5.8e7;
    const Mesh mesh = makeMesh(model, 14e6);
    const Matrix matrix = wireMatrix(mesh, model);
    expectSymmetric(matrix, mesh.unknowns);
    for (int i = 0; i < mesh.unknowns; ++i)
        EXPECT_GT(matrix[std::size_t(i) * mesh.unknowns + i].real(), 0.0);
}

TEST(AddLoad, AddsOnlyAtItsNode)
{
    Matrix matrix(9);
    addLoad(matrix, 3, {{1, 1.0}, {2, -1.0}}, {10.0, 5.0});
    const Complex z{10.0, 5.0};
    const Matrix expected{0, 0, 0, 0, z, -z, 0, -z, z};
    EXPECT_EQ(matrix, expected);
}

/// Pairs of a mesh and how many different interactions they are.
std::pair<std::size_t, std::size_t> pairsAndClasses(const WireModel& model, double frequency, const MeshOptions& options = {})
{
    const Mesh mesh = makeMesh(model, frequency, options);
    PairClasses classes(mesh);
    std::size_t pairs = 0;
    for (std::size_t m = 0; m < mesh.elements.size(); ++m)
        for (std::size_t n = m; n < mesh.elements.size(); ++n, ++pairs)
            classes.classOf(m, n);
    return {pairs, classes.founders().size()};
}

// A long straight wire repeats its middle elements, radials repeat each other; a crooked wire repeats nothing.
TEST(PairClasses, FindRepeatedInteractions)
{
    MeshOptions many;
    many.elementsPerWavelength = 40.0;
    const auto [straightPairs, straight] = pairsAndClasses(dipole(40.0, 5.0), 14e6, many);
    EXPECT_LT(3 * straight, straightPairs);
    WireModel star = fedWire({{0, 0, 2}, {0, 0, 7}}, 0.0, averageSoil);
    for (int i = 0; i < 8; ++i)
        star.wires.push_back(wire("r" + std::to_string(i), {{0, 0, 2}, {5 * std::cos(0.25 * pi * i), 5 * std::sin(0.25 * pi * i), 2}}));
    const auto [starPairs, starClasses] = pairsAndClasses(star, 14e6);
    EXPECT_LT(5 * starClasses, starPairs);
    const auto [crookedPairs, crooked] = pairsAndClasses(fedWire({{0, 0, 2}, {3, 1, 4}, {5, 4, 3}}, 1.3), 14e6);
    EXPECT_GT(10 * crooked, 9 * crookedPairs);
}

// Same distances, other heights or radii: not the same over soil.
TEST(PairClasses, TellHeightsAndRadiiApart)
{
    WireModel model = dipole(10.0, 5.0, averageSoil);
    model.wires.push_back(wire("higher", {{-5, 9, 5.5}, {5, 9, 5.5}}));
    model.wires.push_back(wire("thicker", {{-5, 30, 5}, {5, 30, 5}}, 2e-3));
    const Mesh mesh = makeMesh(model, 14e6);
    PairClasses classes(mesh);
    const auto firstOf = [&](std::size_t w) {
        return std::size_t(std::find_if(mesh.elements.begin(), mesh.elements.end(), [&](const Element& e) { return e.wire == w; }) -
                           mesh.elements.begin());
    };
    const std::size_t plain = classes.classOf(firstOf(0), firstOf(0) + 1);
    EXPECT_NE(classes.classOf(firstOf(1), firstOf(1) + 1), plain);
    EXPECT_NE(classes.classOf(firstOf(2), firstOf(2) + 1), plain);
    EXPECT_EQ(classes.classOf(firstOf(0), firstOf(0) + 1), plain);
    EXPECT_NE(classes.classOf(firstOf(0) + 1, firstOf(0)), plain);
}

struct LoadCase {
    LoadKind kind;
    double r, l, c, q;
    Complex expected;
};

class LoadImpedance : public ::testing::TestWithParam<LoadCase> {};

TEST_P(LoadImpedance, FollowsItsCircuit)
{
    const LoadCase& p = GetParam();
    Load load;
    load.kind = p.kind;
    load.resistance = p.r;
    load.inductance = p.l;
    load.capacitance = p.c;
    load.q = p.q;
    const Complex z = load.impedance(1e7 / (2.0 * pi) * 1.0); // w = 1e7
    EXPECT_LT(std::abs(z - p.expected), 1e-6 * std::abs(p.expected) + 1e-9);
}

INSTANTIATE_TEST_SUITE_P(
    Circuits, LoadImpedance,
    ::testing::Values(LoadCase{LoadKind::Series, 5, 1e-5, 0, 0, {5, 100}}, LoadCase{LoadKind::Series, 0, 1e-5, 0, 200, {0.5, 100}},
                      LoadCase{LoadKind::Series, 0, 1e-5, 1e-9, 0, {0, 0}}, LoadCase{LoadKind::Series, 0, 0, 1e-9, 0, {0, -100}},
                      LoadCase{LoadKind::Parallel, 0, 1e-5, 2e-9, 0, {0, -100}},
                      LoadCase{LoadKind::Parallel, 1000, 1e-5, 1e-9, 0, {1000, 0}}, LoadCase{LoadKind::Series, 0, 0, 0, 0, {0, 0}}));

} // namespace
} // namespace vetchling::em

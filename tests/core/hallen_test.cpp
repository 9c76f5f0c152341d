/// Thick tubes against Hallen's equation with the exact kernel, which shares no code and no formulation with the solver.

#include "tests/validation/hallen.h"

#include "tests/core/helpers.h"

namespace vetchling::testing {
namespace {

const double oneMetreWave = wavelength(1.0); // Hz

struct Rod {
    double length, radius; ///< wavelengths
};

class ThickTube : public ::testing::TestWithParam<Rod> {};

TEST_P(ThickTube, AgreesWithHallensEquation)
{
    const auto [length, radius] = GetParam();
    const double gap = 2.0 * radius; // the solver's
    const Complex expected = hallenImpedance(length, radius, gap, int(4.0 * length / radius));
    em::SolveOptions options;
    options.wantedErrorPercent = em::usualErrorPercent;
    const em::Solution s = solved(dipole(length, 0.0, freeSpace, radius), oneMetreWave, options);
    EXPECT_LT(relative(s.impedance, expected), 0.008) << s.impedance << expected; // measured: 0.68 % at worst
}

INSTANTIATE_TEST_SUITE_P(Lengths, ThickTube,
                         ::testing::Values(Rod{0.45, 0.004}, Rod{0.45, 0.02}, Rod{0.5, 0.007}, Rod{0.5, 0.01}, Rod{0.7, 0.01},
                                           Rod{0.7, 0.02}, Rod{0.95, 0.01}, Rod{0.95, 0.02}, Rod{1.4, 0.02}));

// The equation itself: settled in its own nodes, and at the textbook's thin limit from the thick side.
TEST(Hallen, IsSettled)
{
    const Complex coarse = hallenImpedance(0.5, 0.01, 0.02, 120), fine = hallenImpedance(0.5, 0.01, 0.02, 300);
    EXPECT_LT(relative(coarse, fine), 2e-3);
}

TEST(Hallen, TubesOfAnyRadiusLieAboveTheThinLimit)
{
    const double thin = 73.13;
    double before = 200.0;
    for (double radius : {0.01, 0.005, 0.0025}) {
        const double r = hallenImpedance(0.5, radius, 2.0 * radius, int(3.0 * 0.5 / radius)).real();
        EXPECT_GT(r, thin);
        EXPECT_LT(r, before);
        before = r;
    }
}

} // namespace
} // namespace vetchling::testing

#include "core/bands/bands.h"
#include "core/bands/wanted.h"

#include "tests/core/helpers.h"

namespace vetchling {
namespace {

/// A series resonant circuit: R at f0, with a reactance slope like a dipole's.
ImpedanceAt circuit(double resistance, double f0, double q)
{
    return [=](double f) { return Complex{resistance, resistance * q * (f / f0 - f0 / f)}; };
}

const Band forty{"40 m", 7.0e6, 7.2e6};

TEST(Coverage, OfAWideMatch)
{
    const Coverage c = coverage(circuit(50, 7.1e6, 10), forty, 2.0, 7.1e6);
    EXPECT_EQ(c.verdict, Verdict::Covered);
    EXPECT_NEAR(c.lowestSwr, 1.0, 1e-3);
    EXPECT_NEAR(c.at, 7.1e6, 2e3);
    EXPECT_DOUBLE_EQ(c.shareUnderLimit, 1.0);
    EXPECT_NEAR(c.harmonic, 1.0, 1e-9);
    ASSERT_TRUE(c.resonance);
    EXPECT_NEAR(c.resonance->frequency, 7.1e6, 10.0);
    EXPECT_NEAR(c.resonance->resistance, 50.0, 1e-6);
}

// SWR 2 of a 50 ohm series circuit lies where |X| = 50/sqrt(2).
TEST(Coverage, OfPartOfABand)
{
    const double q = 40.0, f0 = 7.05e6;
    const Coverage c = coverage(circuit(50, f0, q), forty, 2.0, f0);
    const double half = f0 * std::sqrt(0.5) / (2.0 * q);
    EXPECT_EQ(c.verdict, Verdict::Partly);
    EXPECT_NEAR(c.underFrom, std::max(7.0e6, f0 - half), 2e3);
    EXPECT_NEAR(c.underTo, f0 + half, 2e3);
    EXPECT_NEAR(c.shareUnderLimit, (f0 + half - 7.0e6) / 0.2e6, 0.02);
    EXPECT_GT(c.highEdgeSwr, 2.0);
}

// 2026-11: the width under the limit ended at the band's edges.
TEST(Coverage, TellsTheWholeWidthUnderTheLimit)
{
    const double f0 = 7.195e6, q = 15.0; // dips near the upper edge
    const ImpedanceAt z = circuit(50, f0, q);
    const Coverage c = coverage(z, forty, 2.0, f0);
    EXPECT_GT(c.wholeTo, forty.to + 50e3);
    EXPECT_NEAR(swr(z(c.wholeFrom)), 2.0, 1e-3);
    EXPECT_NEAR(swr(z(c.wholeTo)), 2.0, 1e-3);
    EXPECT_EQ(coverage(circuit(50, 9e6, 50), forty, 2.0, 9e6).wholeTo, 0.0);
}

TEST(Coverage, TellsTooLongFromTooShort)
{
    EXPECT_EQ(coverage(circuit(50, 6.85e6, 40), forty, 2.0, 0).verdict, Verdict::TooLong);
    const Coverage shorter = coverage(circuit(50, 7.4e6, 40), forty, 2.0, 0);
    EXPECT_EQ(shorter.verdict, Verdict::TooShort);
    ASSERT_TRUE(shorter.nearbyDip);
    EXPECT_NEAR(*shorter.nearbyDip, 7.4e6, 5e3);
    EXPECT_EQ(shorter.harmonic, 0.0);
}

TEST(Coverage, OfAWireThatIsNotResonantHere)
{
    const Coverage c = coverage(circuit(20, 3.6e6, 30), forty, 2.0, 3.6e6);
    EXPECT_EQ(c.verdict, Verdict::NotResonant);
    EXPECT_GT(c.lowestSwr, 10.0);
    EXPECT_FALSE(c.resonance);
    EXPECT_NEAR(c.harmonic, 7.1 / 3.6, 1e-9);
}

// Resonance is not match: 150 ohm at X = 0 is 3:1, and the lowest SWR may lie elsewhere.
TEST(Coverage, KeepsResonanceApartFromMatch)
{
    const auto shunted = [](double f) { return 1.0 / (1.0 / Complex{20.0, 900.0 * (f / 7.0e6 - 1.0)} + 1.0 / Complex{0.0, -60.0}); };
    const Coverage c = coverage(shunted, forty, 2.0, 0);
    ASSERT_TRUE(c.resonance);
    EXPECT_GT(std::abs(c.resonance->frequency - c.at), 10e3);
}

TEST(NearestDip, PrefersTheNearer)
{
    const auto two = [](double f) { return Complex{50.0, 4000.0 * (f / 7e6 - 1.0) * (f / 7.6e6 - 1.0) * 10.0}; };
    EXPECT_NEAR(nearestDip(two, 7.1e6, 6e6, 9e6).value(), 7e6, 5e3);
    EXPECT_NEAR(nearestDip(two, 7.5e6, 6e6, 9e6).value(), 7.6e6, 5e3);
    EXPECT_FALSE(nearestDip(circuit(50, 3e6, 40), 7e6, 6e6, 8e6));
}

TEST(Resonances, FindsAllCrossings)
{
    const auto ladder = [](double f) { return Complex{60.0, 100.0 * std::sin(2.0 * pi * f / 3e6)}; };
    const auto all = resonances(ladder, 1e6, 10e6);
    ASSERT_EQ(all.size(), 6u); // every 1.5 MHz
    EXPECT_NEAR(all[0].frequency, 1.5e6, 1.0);
    EXPECT_NEAR(all[5].frequency, 9.0e6, 1.0);
    EXPECT_NEAR(all[3].resistance, 60.0, 1e-9);
}

const BandPlan plan{"p", "Plan", "test", 2026, {{"80 m", 3.5e6, 3.8e6}, {"40 m", 7.0e6, 7.3e6}}};

TEST(Wanted, APlanComesInWithItsEdgesAndKeepsWishes)
{
    std::vector<WantedBand> bands{{forty, Wish::Must, "id", {}}, {{"own", 5.3e6, 5.4e6}, Wish::Nice, {}, {}}};
    putIn(plan, bands);
    ASSERT_EQ(bands.size(), 3u);
    EXPECT_EQ(bands[0].band.name, "80 m");
    EXPECT_EQ(bands[0].wish, Wish::No);
    EXPECT_EQ(bands[2].band.to, 7.3e6);
    EXPECT_EQ(bands[2].wish, Wish::Must);
    EXPECT_EQ(bands[2].id, "id");
}

TEST(Wanted, ANewAntennaIsForTheLowestMust)
{
    std::vector<WantedBand> bands;
    const auto add = [&](double from, double to, Wish wish) {
        WantedBand w;
        w.band = {"", from, to};
        w.wish = wish;
        bands.push_back(w);
    };
    EXPECT_EQ(proposedFrequency(bands), 7.1e6);
    add(5.35e6, 5.37e6, Wish::Nice);
    add(10.1e6, 10.15e6, Wish::Nice);
    EXPECT_EQ(proposedFrequency(bands), 5.36e6);
    add(14.0e6, 14.35e6, Wish::Must);
    add(28.0e6, 29.7e6, Wish::Must);
    EXPECT_EQ(proposedFrequency(bands), 14.175e6);
}

TEST(Wanted, AFrequencyWishesForItsBandOrARangeOfItsOwn)
{
    std::vector<WantedBand> bands{{forty, Wish::No, {}, {}}};
    wishFor(bands, 7.1e6, Wish::Nice);
    EXPECT_EQ(bands[0].wish, Wish::Nice);
    wishFor(bands, 3.6e6, Wish::Must, &plan);
    ASSERT_EQ(bands.size(), 2u);
    EXPECT_EQ(bands[0].band, plan.bands[0]);
    wishFor(bands, 13.5e6, Wish::Must, &plan);
    ASSERT_EQ(bands.size(), 3u);
    EXPECT_DOUBLE_EQ(bands[2].band.from, 0.99 * 13.5e6);
    EXPECT_DOUBLE_EQ(bands[2].band.to, 1.01 * 13.5e6);
    EXPECT_TRUE(overlapsAny(bands, 13.6e6, 14e6));
    EXPECT_FALSE(overlapsAny(bands, 14e6, 15e6));
    EXPECT_DOUBLE_EQ(centreOf(bands, "80 m"), 3.65e6);
    EXPECT_EQ(centreOf(bands, "20 m"), 0.0);
}

TEST(Band, HasACentre) { EXPECT_DOUBLE_EQ(forty.centre(), 7.1e6); }

} // namespace
} // namespace vetchling

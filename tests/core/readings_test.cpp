/// What is read by hand, and through coax.
#include "core/line/parts.h"
#include "core/trim/readings.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

/// A dipole's feedpoint as a series circuit of 65 ohm and a Q of 12.
ImpedanceAt circuit(double resonance)
{
    return [resonance](double f) { return Complex{65.0, 65.0 * 12.0 * (f / resonance - resonance / f)}; };
}

ChainPart coaxOf(double length)
{
    return {{}, "line", {}, {{"length_m", length}, {"impedance_ohm", 50.0}, {"velocity_factor", 0.66}, {"k1_dB_per_100m", 2.0}},
            {}, {},     {}};
}

TEST(Readings, AreTakenAsPeopleWriteThem)
{
    const auto all = parseReadings("7.20 42 30\n7.00 2.4; 7.10 50/2 W\n\n");
    ASSERT_TRUE(all.ok()) << all.firstFault();
    ASSERT_EQ(all->size(), 3u);
    EXPECT_DOUBLE_EQ((*all)[0].frequency, 7.0e6);
    EXPECT_DOUBLE_EQ((*all)[0].swr, 2.4);
    EXPECT_NEAR((*all)[1].swr, 1.5, 1e-12) << "a fifth of the voltage comes back";
    EXPECT_NEAR((*all)[2].swr, measuredSwr({42.0, 30.0}, 50.0), 1e-12);
    EXPECT_NEAR(measuredSwr({42.0, -30.0}, 50.0), (*all)[2].swr, 1e-12) << "the sign of X does not matter for the SWR";
    const auto commas = parseReadings("7,1 1,8");
    ASSERT_TRUE(commas.ok()) << commas.firstFault();
    EXPECT_DOUBLE_EQ((*commas)[0].swr, 1.8);
}

TEST(Readings, SayWhichLineIsWrong)
{
    const auto faults = parseReadings("7.0 1.8\nseven 2\n7.1\n7.2 0.4").faults();
    ASSERT_EQ(faults.size(), 3u);
    EXPECT_EQ(faults[0].path, "line 2");
    EXPECT_NE(faults[1].text().find("forward and reflected"), std::string::npos);
    EXPECT_NE(faults[2].text().find("1 or more"), std::string::npos);
    EXPECT_TRUE(parseReadings("")->empty());
}

TEST(Powers, GiveTheSwr)
{
    EXPECT_DOUBLE_EQ(*swrOfPowers(100.0, 0.0), 1.0);
    EXPECT_NEAR(*swrOfPowers(100.0, 25.0), 3.0, 1e-12);
    for (const auto& [forward, back] : {std::pair(10.0, 20.0), {0.0, 0.0}, {-5.0, 1.0}, {std::nan(""), 1.0}})
        EXPECT_FALSE(swrOfPowers(forward, back).ok()) << forward << " " << back;
}

TEST(OneReading, MeansTwoThings)
{
    const double dip = 7.1e6, f = 7.2e6;
    const auto model = circuit(dip);
    const auto both = bothReadings({f, swr(model(f))}, model, dip);
    ASSERT_TRUE(both.ifTooLong && both.ifTooShort);
    EXPECT_NEAR(*both.ifTooLong, dip, 5e3);
    EXPECT_GT(*both.ifTooShort, f);
    EXPECT_EQ(dipByHand(both, false), both.ifTooLong) << "a hand lengthens: the SWR rises where it was too long";
    EXPECT_EQ(dipByHand(both, true), both.ifTooShort);
    // a really short antenna of another resonance is told rightly
    const auto real = circuit(7.35e6);
    const auto shortOne = bothReadings({f, swr(real(f))}, model, dip);
    EXPECT_NEAR(*shortOne.ifTooShort, 7.35e6, 1e4);
    EXPECT_FALSE(bothReadings({f, 30.0}, model, dip).ifTooLong) << "no shift within 12 % explains that";
}

TEST(PortExtension, UndoesTheCoax)
{
    const auto antenna = circuit(7.1e6);
    for (double length : {0.3, 7.0, 18.0, 42.0}) {
        const ChainPart coax = coaxOf(length);
        MeasuredSweep sweep;
        for (double f = 6.8e6; f < 7.4e6; f += 2e4) {
            const Complex z = kindOf(coax).at(coax, f).towardsRadio(antenna(f));
            sweep.points.push_back({f, z, measuredSwr(z, 50.0)});
        }
        moveToFeedpoint(sweep, coax);
        for (const MeasuredPoint& p : sweep.points) {
            ASSERT_LT(std::abs(*p.impedance - antenna(p.frequency)), 1e-8 * std::abs(antenna(p.frequency))) << length;
            ASSERT_NEAR(p.swr, measuredSwr(antenna(p.frequency), 50.0), 1e-8);
        }
    }
}

// The SWR alone is corrected by the matched loss out and back: exact for a line of the reference's own impedance.
TEST(PortExtension, CorrectsAnSwrByTheLoss)
{
    const auto antenna = circuit(7.1e6);
    const ChainPart coax = coaxOf(30.0);
    MeasuredSweep sweep;
    for (double f : {6.9e6, 7.1e6, 7.3e6})
        sweep.points.push_back({f, std::nullopt, measuredSwr(kindOf(coax).at(coax, f).towardsRadio(antenna(f)), 50.0)});
    EXPECT_LT(sweep.points[0].swr, 0.95 * measuredSwr(antenna(6.9e6), 50.0)) << "coax flatters";
    moveToFeedpoint(sweep, coax);
    for (const MeasuredPoint& p : sweep.points)
        EXPECT_NEAR(p.swr, measuredSwr(antenna(p.frequency), 50.0), 1e-6 * p.swr);
}

} // namespace
} // namespace vetchling

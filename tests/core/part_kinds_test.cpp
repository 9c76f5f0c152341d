/// Each kind of part by itself: closed forms, limits, and what it keeps of power.
#include "core/line/chain.h"
#include "core/line/sections.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace vetchling {
namespace {

ChainPart kindOf(const char* kind, std::map<std::string, double> values = {})
{
    ChainPart part;
    part.kind = kind;
    part.values = std::move(values);
    return part;
}

Complex behind(const ChainPart& part, Complex load, double frequency) { return chainAt({part}, load, frequency).impedance(); }
double lossOf(const ChainPart& part, Complex load, double frequency) { return chainAt({part}, load, frequency).totalLoss(); }

constexpr double low = 1.85e6, middle = 7.1e6, high = 28.5e6;

TEST(TransformerPart, StepsDownByItsRatio)
{
    for (const double ratio : {0.25, 1.0, 4.0, 9.0, 49.0, 64.0})
        for (const Complex load : {Complex{2450, 0}, Complex{30, -200}}) {
            EXPECT_LT(std::abs(behind(kindOf(part::transformer, {{"ratio", ratio}}), load, middle) - load / ratio), 1e-9);
            EXPECT_NEAR(lossOf(kindOf(part::transformer, {{"ratio", ratio}}), load, middle), 0.0, 1e-12);
        }
}

TEST(TransformerPart, ALittleWindingSpoilsTheLowestBandOnly)
{
    const ChainPart t = kindOf(part::transformer, {{"ratio", 49}, {"magnetising_H", 6e-6}});
    const double lowest = swr(behind(t, 2450, low)), highest = swr(behind(t, 2450, high));
    EXPECT_GT(lowest, 1.7);
    EXPECT_LT(highest, 1.06);
    // 2 pi f L across 50 ohm, as a closed form
    const Complex across = 1.0 / (1.0 / 50.0 + 1.0 / Complex(0.0, 2.0 * pi * low * 6e-6));
    EXPECT_LT(std::abs(behind(t, 2450, low) - across), 1e-9);
    EXPECT_NEAR(lossOf(t, 2450, low), 0.0, 1e-9); // an inductance takes no power
}

TEST(TransformerPart, LeakageSpoilsTheHighestBandAndACapacitorMendsIt)
{
    ChainPart t = kindOf(part::transformer, {{"ratio", 49}, {"leakage_H", 0.25e-6}});
    const double spoiled = swr(behind(t, 2450, high));
    EXPECT_GT(spoiled, 2.0);
    EXPECT_LT(swr(behind(t, 2450, low)), 1.1);
    t.values["capacitance_F"] = 50e-12;
    const double mended = swr(behind(t, 2450, high));
    EXPECT_LT(mended, 0.85 * spoiled);
}

TEST(TransformerPart, ACoreLosesMoreWhereTheAntennaIsHighInImpedance)
{
    const ChainPart t = kindOf(part::transformer, {{"ratio", 49}, {"core_ohm", 450}});
    // R across 50 ohm takes 50 / (50 + R)
    EXPECT_NEAR(lossOf(t, 2450, middle), 10.0 * std::log10(1.0 + 50.0 / 450.0), 1e-9);
    EXPECT_NEAR(lossOf(t, 9800, middle), 10.0 * std::log10(1.0 + 200.0 / 450.0), 1e-9);
    EXPECT_LT(lossOf(t, 490, middle), 0.15);
}

TEST(LinePart, HasTheLimitsOfALine)
{
    const auto line = [](double length, double k1 = 0.0) {
        return kindOf(part::line, {{"length_m", length}, {"velocity_factor", 0.66}, {"k1_dB_per_100m", k1}, {"k2_dB_per_100m", 0.0}});
    };
    const double wave = 0.66 * wavelength(middle);
    const Complex load{120, 35};
    EXPECT_LT(std::abs(behind(line(0.0), load, middle) - load), 1e-9);
    EXPECT_LT(std::abs(behind(line(0.5 * wave), load, middle) - load), 1e-6);           // half a wave repeats
    EXPECT_LT(std::abs(behind(line(0.25 * wave), load, middle) - 2500.0 / load), 1e-6); // a quarter turns round
    EXPECT_LT(std::abs(behind(line(3000.0, 6.0), load, middle) - 50.0), 1e-6);          // a long lossy one hides everything
    EXPECT_NEAR(lossOf(line(30.0, 0.8), 50.0, 4e6), 0.8 * 2.0 * 0.3, 1e-9);             // k1 sqrt f, matched
}

TEST(LinePart, ItsExtraLossGrowsWithTheMismatch)
{
    const ChainPart line = kindOf(part::line, {{"length_m", 30}, {"k1_dB_per_100m", 0.8}});
    double before = 0.0;
    for (const double s : {1.0, 2.0, 5.0, 10.0, 40.0}) { // resistive above the line's: several quarter waves average the place out
        double sum = 0.0;
        for (double f = 13e6; f < 15e6; f += 0.1e6)
            sum += lossOf(line, 50.0 * s, f);
        EXPECT_GT(sum, before) << s;
        before = sum;
    }
}

TEST(LinePart, ReciprocityHoldsForEveryFixedPart)
{
    for (const ChainPart& p : {kindOf(part::line, {{"length_m", 7}}), kindOf(part::stub, {{"length_m", 2}}),
                               kindOf(part::section, {{"length_1_m", 1.3}, {"length_2_m", 0.4}}),
                               kindOf(part::transformer, {{"ratio", 9}, {"core_ohm", 700}, {"leakage_H", 1e-7}}),
                               kindOf(part::network, {{"shunt_F", 1e-10}, {"series_H", 1e-6}}), kindOf(part::attenuator)}) {
        const TwoPort m = kindOf(p).at(p, middle);
        EXPECT_LT(std::abs(m.a * m.d - m.b * m.c - 1.0), 1e-9) << p.kind; // a passive reciprocal two-port has determinant 1
    }
}

TEST(LinePart, NoPassivePartGainsPower)
{
    std::mt19937 dice(5);
    std::uniform_real_distribution<double> decade(-1.0, 4.0), x(-3000.0, 3000.0), share(0.0, 1.0);
    for (int i = 0; i < 400; ++i) {
        const Complex load{std::pow(10.0, decade(dice)), x(dice)};
        const double f = 1e6 * std::pow(10.0, 1.5 * share(dice));
        for (const PartKind* kind : partKinds()) {
            ChainPart p = kindOf(kind->id().c_str());
            if (p.kind == part::network)
                p.values = {{"shunt_F", 2e-10 * share(dice)}, {"series_H", 3e-6 * share(dice)}, {"shunt_side", double(i % 2)}};
            if (p.kind == part::line || p.kind == part::stub)
                p.values["length_m"] = 0.05 + 30.0 * share(dice);
            const ChainState s = chainAt({p}, load, f);
            EXPECT_GE(s.totalLoss(), -1e-9) << p.kind << load << f;
            EXPECT_GT(s.impedance().real(), 0.0) << p.kind << load << f;
        }
    }
}

TEST(NetworkPart, NothingIsNothing)
{
    EXPECT_LT(std::abs(behind(kindOf(part::network), {70, 30}, middle) - Complex(70, 30)), 1e-12);
    // a coil alone in the path adds its reactance and its loss
    const Complex coil = behind(kindOf(part::network, {{"series_H", 1e-6}, {"inductor_q", 100}}), {70, 30}, middle);
    EXPECT_NEAR(coil.imag(), 30.0 + 2.0 * pi * middle * 1e-6, 1e-9);
    EXPECT_NEAR(coil.real(), 70.0 + 2.0 * pi * middle * 1e-6 / 100.0, 1e-9);
    // the side of the shunt matters
    const Complex one = behind(kindOf(part::network, {{"series_H", 1e-6}, {"shunt_F", 3e-10}}), {70, 30}, middle);
    const Complex other = behind(kindOf(part::network, {{"series_H", 1e-6}, {"shunt_F", 3e-10}, {"shunt_side", 1}}), {70, 30}, middle);
    EXPECT_GT(std::abs(one - other), 5.0);
}

TEST(TunerPart, BetterPartsLoseLess)
{
    double before = 1e9;
    for (const double q : {30.0, 100.0, 300.0, 1000.0}) {
        const double loss = lossOf(kindOf(part::tuner, {{"inductor_q", q}, {"capacitor_q", 10.0 * q}}), {12, -180}, low);
        EXPECT_LT(loss, before);
        before = loss;
    }
    EXPECT_LT(before, 0.2);
    // another resistance is made where one is asked for
    EXPECT_EQ(behind(kindOf(part::tuner, {{"to_ohm", 75}}), {12, -180}, low), Complex(75.0, 0.0));
}

TEST(Socket, IsTheChainForManyFrequencies)
{
    const std::vector<ChainPart> parts{kindOf(part::transformer, {{"ratio", 4}, {"loss_dB", 0.2}}), kindOf(part::line, {{"length_m", 13}}),
                                       kindOf(part::attenuator, {{"loss_dB", 1}}),
                                       kindOf(part::tuner, {{"place", part::indoors}, {"range_swr", 3}})};
    const Socket socket(parts);
    for (double f = 3e6; f < 30e6; f += 1.7e6)
        EXPECT_LT(std::abs(socket.seen({180, 60}, f) - chainAt(parts, {180, 60}, f).impedance()), 1e-9) << f;
}

} // namespace
} // namespace vetchling

/// Chokes and transformers on ferrite: limits of the dispersion, the table, heat, and the model that Feed gets.
#include "core/files/workshop_file.h"
#include "core/workshop/ferrite.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

FerriteClass classOf(double initial)
{
    FerriteClass f;
    f.initial = initial;
    return f;
}

TEST(Ferrite, IsItsInitialPermeabilityAtLowFrequencyAndFallsAboveItsLimit)
{
    for (double initial : {125.0, 850.0, 5000.0}) {
        const FerriteClass f = classOf(initial);
        EXPECT_NEAR(f.permeability(1e3).real(), initial, 0.01 * initial);
        const double relaxation = f.snoek / (initial - 1.0);
        EXPECT_NEAR(f.permeability(relaxation).real() - 1.0, 0.5 * (initial - 1.0), 1e-6 * initial);
        EXPECT_NEAR(-f.permeability(relaxation).imag(), 0.5 * (initial - 1.0), 1e-6 * initial) << "the loss is greatest there";
        EXPECT_LT(f.permeability(30e6).imag(), 0.0);
        EXPECT_NEAR(f.permeability(1e13).real(), 1.0, 1e-3);
    }
    // Snoek: far above its limit a ferrite does as well as any other of its kind
    EXPECT_NEAR(std::abs(classOf(850.0).permeability(1e9)) / std::abs(classOf(5000.0).permeability(1e9)), 1.0, 0.03);
}

TEST(Ferrite, ATableComesBeforeTheLimit)
{
    FerriteClass f = classOf(850.0);
    f.table = {{1e6, 800.0, 50.0}, {10e6, 200.0, 300.0}};
    EXPECT_EQ(f.permeability(1e6), Complex(800.0, -50.0));
    EXPECT_EQ(f.permeability(10e6), Complex(200.0, -300.0));
    EXPECT_NEAR(f.permeability(std::sqrt(1e13)).real(), 500.0, 1e-9) << "half way on a logarithmic axis";
    EXPECT_EQ(f.permeability(1e5), Complex(800.0, -50.0));
    EXPECT_EQ(f.permeability(1e9), Complex(200.0, -300.0));
}

// N^2 mu0 mu h ln(od/id) / 2 pi is the integral of the field over the ring's section.
TEST(Ferrite, ATurnsInductanceIsTheIntegralOfItsField)
{
    const FerriteRing ring{"r", "r", 0.061, 0.036, 0.013};
    double flux = 0.0;
    const int steps = 20000;
    const double inner = 0.018, outer = 0.0305;
    for (int i = 0; i < steps; ++i) {
        const double r = inner + (outer - inner) * (i + 0.5) / steps;
        flux += 4e-7 * pi / (2.0 * pi * r) * ring.height * (outer - inner) / steps;
    }
    EXPECT_NEAR(ring.perTurn() / flux, 1.0, 1e-6);
}

TEST(Ferrite, AChokeIsItsWindingWhereItsCapacitanceDoesNothing)
{
    const CoreChoke choke{classOf(850.0), {}, 1, 10};
    const double f = 1e5;
    const double henry = 100.0 * choke.ring.perTurn() * 850.0;
    EXPECT_NEAR(std::abs(choke.impedance(f)) / (2.0 * pi * f * henry), 1.0, 0.02);
    const CoreChoke two{classOf(850.0), {}, 2, 10};
    EXPECT_NEAR(std::abs(two.impedance(f)) / std::abs(choke.impedance(f)), 2.0, 0.01) << "two rings, twice the inductance";
    EXPECT_LT(std::abs(choke.impedance(1e9)), 200.0) << "its capacitance passes it by";
}

TEST(Ferrite, HeatAndCurrentBelongTogether)
{
    const CoreChoke choke{classOf(850.0), {}, 1, 11};
    for (double f : {3.6e6, 14.2e6, 28.5e6}) {
        const double current = choke.allowedCurrent(f);
        EXPECT_NEAR(current * current * choke.impedance(f).real(), allowedHeat(choke.ring, 1), 1e-9);
    }
    EXPECT_GT(allowedHeat(choke.ring, 2), allowedHeat(choke.ring, 1));
    EXPECT_LT(allowedHeat(choke.ring, 2), 2.0 * allowedHeat(choke.ring, 1)) << "faces that touch give nothing off";
}

TEST(Ferrite, ATransformersTurnsReachWhatIsAskedAndOneLessDoesNot)
{
    for (const FerriteRing& ring : {FerriteRing{"a", "a", 0.036, 0.023, 0.015}, FerriteRing{"b", "b", 0.061, 0.036, 0.013}}) {
        CoreTransformer t{classOf(250.0), ring, 1, 2};
        t.turns = t.leastTurns(3.6e6);
        EXPECT_GE(std::abs(t.magnetising(3.6e6)), 250.0);
        --t.turns;
        if (t.turns > 0) {
            EXPECT_LT(std::abs(t.magnetising(3.6e6)), 250.0);
        }
    }
}

// The voltage of a sine across N turns asks for a flux of V / (2 pi f N A); power lost is V^2 times the conductance.
TEST(Ferrite, FluxAndCoreHeatFollowTheVoltage)
{
    const CoreTransformer t{classOf(850.0), {}, 1, 2};
    const double volts = std::sqrt(100.0 * 50.0);
    EXPECT_NEAR(t.flux(3.6e6, 100.0) * 2.0 * pi * 3.6e6 * 2.0 * t.ring.crossSection(), volts * std::sqrt(2.0), 1e-9);
    EXPECT_NEAR(t.coreHeat(3.6e6, 100.0), volts * volts * (1.0 / t.magnetising(3.6e6)).real(), 1e-9);
    EXPECT_NEAR(t.coreHeat(3.6e6, 200.0), 2.0 * t.coreHeat(3.6e6, 100.0), 1e-9);
}

TEST(Ferrite, TheModelForFeedIsExactWhereTheChokeIsOne)
{
    CoreChoke choke{classOf(850.0), {}, 1, 11};
    choke.ferrite.table = {{1e6, 300.0, 0.0}, {100e6, 300.0, 0.0}}; // a plain inductance beside its capacitance
    const double henry = choke.ring.perTurn() * 121.0 * 300.0;
    const ChokeModel model = modelOf(choke, 3e6, 30e6);
    EXPECT_NEAR(model.inductance / henry, 1.0, 1e-9);
    EXPECT_NEAR(model.capacitance / choke.capacitance(), 1.0, 1e-9);
    const CoreChoke real{classOf(850.0), {}, 1, 11};
    const ChokeModel near = modelOf(real, 5e6, 30e6);
    for (double f : {5.3e6, 10e6, 28e6})
        EXPECT_NEAR(std::log(std::abs(near.impedance(f)) / std::abs(real.impedance(f))), 0.0, 0.35);
}

TEST(Ferrite, TheLeastIsFoundAtABandsEdge)
{
    const CoreChoke choke{classOf(850.0), {}, 1, 11};
    const std::vector<Band> bands{{"60 m", 5.35e6, 5.37e6}, {"10 m", 28.0e6, 29.7e6}};
    const LeastChoking least = leastChoking(choke, bands);
    double brute = 1e12;
    for (const Band& b : bands)
        for (double f : {b.from, b.to})
            brute = std::min(brute, std::abs(choke.impedance(f)));
    EXPECT_EQ(least.ohm, brute);
    EXPECT_EQ(leastChoking(choke, {}).ohm, 0.0);
    EXPECT_EQ(chokeCurve(choke, 1e6, 1e8, 3)[1].frequency, 1e7);
}

TEST(WorkshopData, ShipsWithEveryConductorAndIsReadInWordsWhereItIsWrong)
{
    const auto data = files::readWorkshopData(VETCHLING_DATA "/workshop.json");
    ASSERT_TRUE(data.ok()) << data.firstFault();
    for (const char* id : {"copper", "copper-clad-steel", "aluminium", "bronze", "stainless", "steel"})
        EXPECT_TRUE(std::any_of(data->metals.begin(), data->metals.end(), [&](const MetalFacts& m) {
            return m.potential.id == id && m.strength && !m.source.empty();
        })) << id;
    for (const FerriteClass& f : data->ferrites)
        EXPECT_FALSE(f.source.empty());
    EXPECT_EQ(data->ferrite("no such")->id, data->ferrites.front().id);
    EXPECT_FALSE(files::readWorkshopData("/no/such/file.json").ok());
}

} // namespace
} // namespace vetchling

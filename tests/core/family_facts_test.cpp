/// A physical fact of each family that stands on loads, links, tubes, lines, radials or many wavelengths.
#include "core/em/far_field.h"
#include "core/tune/joint.h"
#include "core/tune/tune.h"
#include "tests/core/shape_helpers.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double band = 14.1e6;

class FamilyFacts : public ::testing::Test {
protected:
    em::GroundTableCache m_tables;
    Ground m_ground = freeSpace;

    /// All lengths of a family tuned for resonance (or as told).
    AntennaShape tuned(const std::string& family, const Parameters& changes = {}, TuneGoal goal = TuneGoal::Resonance)
    {
        AntennaShape shape = shapeOf(family, changes, band);
        return tuned(shape, goal);
    }
    AntennaShape tuned(AntennaShape shape, TuneGoal goal = TuneGoal::Resonance)
    {
        TuneOptions options;
        options.goal = goal;
        const auto all = tuneAll(shape, m_ground, m_tables, options);
        EXPECT_TRUE(all.ok()) << shape.family << all.firstFault();
        for (const TunedValue& v : all ? all->lengths : std::vector<TunedValue>())
            shape.parameters[v.length.parameter] = v.value;
        return shape;
    }
    BuiltAntenna over(const AntennaShape& shape, std::size_t configuration = 0)
    {
        const auto result = buildOver(shape, m_ground, configuration);
        EXPECT_TRUE(result.ok()) << result.firstFault();
        return result ? *result : BuiltAntenna{};
    }
    em::Solution at(const AntennaShape& shape, double f, std::size_t configuration = 0)
    {
        return solved(over(shape, configuration).model, f, m_tables);
    }
    Complex line(const AntennaShape& shape, double f) { return over(shape).atLine(at(shape, f).impedance, f); }
    double mismatch(const AntennaShape& shape, double f) { return swr(line(shape, f)); }
    /// Where X is zero near a frequency, by secants.
    double resonance(const AntennaShape& shape, double near, std::size_t configuration = 0)
    {
        double a = near, b = 1.004 * near, xa = at(shape, a, configuration).impedance.imag();
        for (int i = 0; i < 8 && std::abs(a - b) > 1e-7 * near; ++i) {
            const double xb = at(shape, b, configuration).impedance.imag(), next = b - xb * (b - a) / (xb - xa);
            a = b, xa = xb, b = next;
        }
        return b;
    }
    /// Lowest SWR at the line within a twelfth of a frequency.
    double dip(const AntennaShape& shape, double near)
    {
        double best = near;
        for (double f = near * 11.0 / 12.0; f < near * 13.0 / 12.0; f += 0.001 * near)
            if (mismatch(shape, f) < mismatch(shape, best))
                best = f;
        return best;
    }
    /// Width with an SWR under 2 against the resistance at resonance, over the resonance.
    double relativeWidth(const AntennaShape& shape)
    {
        const double f = resonance(shape, band), r = at(shape, f).impedance.real();
        const auto edge = [&](double direction) {
            double off = 0.0;
            while (off < 0.2 && swr(at(shape, f * (1.0 + direction * off)).impedance, r) < 2.0)
                off += 0.0005;
            return off;
        };
        return edge(1.0) + edge(-1.0);
    }
    double gain(const AntennaShape& shape, double elevation, double azimuth = 0.0)
    {
        return em::FarField(at(shape, band)).gain(radians(elevation), radians(azimuth));
    }
    /// Elevation of the strongest lobe over a perfect ground, degrees.
    double lobe(const AntennaShape& shape)
    {
        const em::FarField field(at(shape, band));
        double best = 0.0;
        for (double e = 0.0; e <= 80.0; e += 1.0)
            if (field.gain(radians(e), 0.0) > field.gain(radians(best), 0.0))
                best = e;
        return best;
    }
};

// ---- coils, traps, hats, folds

// A thick arm has a lower line impedance, so that less reactance makes up for what is missing.
TEST_F(FamilyFacts, AThickerArmNeedsLessCoil)
{
    AntennaShape thin = shapeOf("loaded-dipole", {}, band), thick = thin;
    thick.wire.diameter = 0.03;
    EXPECT_LT(tuned(thick).parameters["inductance_H"], 0.7 * tuned(thin).parameters["inductance_H"]);
}

// Shortened by its tips it moves nearly as a plain wire would; scaled with the coils kept, by little more than half of that.
TEST_F(FamilyFacts, ALoadedDipoleMovesOtherwiseByItsTipsThanByItsScale)
{
    const AntennaShape whole = tuned("loaded-dipole", {{"coil_place_percent", 50.0}});
    const double f = resonance(whole, band), leg = whole.parameters.at("leg_m");
    AntennaShape scaled = whole, tips = whole;
    scaled.parameters["leg_m"] = 0.97 * leg;
    tips.parameters["leg_m"] = 0.97 * leg; // the coil stays where it is
    tips.parameters["coil_place_percent"] = 50.0 / 0.97;
    const double byScale = resonance(scaled, band) / f - 1.0, byTips = resonance(tips, band) / f - 1.0;
    EXPECT_GT(byScale, 0.45 * 0.03);
    EXPECT_LT(byScale, 0.80 * 0.03);
    EXPECT_GT(byTips, 1.1 * byScale);
}

TEST_F(FamilyFacts, LinearLoadingIsNarrowerThanFullSizeAndShorter)
{
    const AntennaShape full = tuned("dipole"), folded = tuned("linear-loaded-dipole");
    EXPECT_LT(folded.parameters.at("leg_m"), 0.8 * full.parameters.at("leg_m"));
    EXPECT_LT(relativeWidth(folded), 0.6 * relativeWidth(full));
    EXPECT_LT(at(folded, band).impedance.real(), 0.7 * at(full, band).impedance.real());
}

// As a stub below the arm the same fold loads nearly as much as inside it.
TEST_F(FamilyFacts, AFoldLoadsInsideTheArmAndBelowIt)
{
    const double inside = tuned("linear-loaded-dipole").parameters["loading_m"],
                 below = tuned("linear-loaded-dipole", {{"loading_fold", 1.0}}).parameters["loading_m"];
    EXPECT_NEAR(below / inside, 1.0, 0.25);
}

TEST_F(FamilyFacts, HatsTakeThePlaceOfWire)
{
    const double plain = tuned("dipole").parameters["leg_m"];
    double before = plain;
    for (double spokes : {2.0, 4.0, 8.0}) {
        const double leg = tuned("hat-dipole", {{"hat_count", spokes}, {"hat_m", 0.8}}).parameters["leg_m"];
        EXPECT_LT(leg, before - 0.05) << spokes;
        before = leg;
    }
    EXPECT_GT(before, 0.4 * plain);
}

// On its own frequency a trap lets little through: the inner part is nearly a dipole by itself; below it is a coil.
TEST_F(FamilyFacts, TrapsEndTheWireOnTheUpperBandOnly)
{
    const AntennaShape shape = tuned("trap-dipole");
    const em::Solution upper = at(shape, band), lower = at(shape, 0.5 * band);
    const double whole = shape.parameters.at("whole_m"), beyond = whole + 0.5 * (shape.parameters.at("leg_m") + whole);
    EXPECT_LT(std::abs(upper.currentAt(0, beyond)), 0.2 * std::abs(upper.currentAt(0, whole)));
    EXPECT_GT(std::abs(lower.currentAt(0, beyond)), 0.3 * std::abs(lower.currentAt(0, whole)));
    EXPECT_NEAR(upper.impedance.real(), at(tuned("dipole"), band).impedance.real(), 25.0);
    EXPECT_LT(whole, 1.95 * shape.parameters.at("leg_m")) << "the traps' coils shorten it";
}

// ---- links

// With its links closed a linked dipole is a plain one; with them open the rest hangs insulated and hardly counts.
TEST_F(FamilyFacts, LinkedDipolesArePlainDipolesOnEachOfTheirBands)
{
    const double second = 10.1e6;
    const AntennaShape shape = tuned("linked-dipole", {{"frequency_2_Hz", second}, {"end_height_m", 10.0}});
    AntennaShape inner = shapeOf("dipole", {}, band), outer = shapeOf("dipole", {}, second);
    EXPECT_NEAR(tuned(outer).parameters["leg_m"] / shape.parameters.at("leg_2_m"), 1.0, 1e-3);
    EXPECT_NEAR(tuned(inner).parameters["leg_m"] / shape.parameters.at("leg_m"), 1.0, 0.015);
    EXPECT_EQ(over(shape, 0).model.wires.size(), 3u);
    EXPECT_EQ(over(shape, 1).model.wires.size(), 1u);
}

// Paths are kept: a cut of an outer section moves no inner band, and a cut of an inner one leaves the outer paths as they were.
TEST_F(FamilyFacts, LinkedDipolesAreTunedInsideOut)
{
    const AntennaShape shape = tuned("linked-dipole", {{"band_count", 3.0}});
    AntennaShape outer = shape, inner = shape;
    outer.parameters["leg_3_m"] -= 0.3;
    inner.parameters["leg_m"] -= 0.3;
    EXPECT_NEAR(resonance(outer, band, 0) / resonance(shape, band, 0), 1.0, 2e-3);
    const double second = frequencyOf(shape, 1);
    EXPECT_NEAR(resonance(inner, second, 1) / resonance(shape, second, 1), 1.0, 2e-3);
    EXPECT_GT(resonance(inner, band, 0) / resonance(shape, band, 0), 1.04);
    AntennaShape crossed = shape;
    crossed.parameters["leg_2_m"] = 0.9 * shape.parameters.at("leg_m");
    EXPECT_TRUE(mentions(buildOver(crossed, m_ground).faults(), "leg_2_m", "beyond the link"));
}

// ---- tubes, rods, whips

// Thick is short and broad; stepped down towards the tips it is longer again than a tube of one size.
TEST_F(FamilyFacts, ThickTubesAreShortAndBroadAndSteppedOnesLonger)
{
    const AntennaShape wire = tuned("dipole"),
                       one = tuned("tube-dipole", {{"tube_diameter_m", 0.04}, {"tube_step_m", 0.0}, {"lead_m", 0.12}}),
                       stepped = tuned("tube-dipole", {{"tube_diameter_m", 0.05}, {"tube_step_m", 0.01}, {"lead_m", 0.12}});
    EXPECT_LT(one.parameters.at("leg_m"), 0.995 * wire.parameters.at("leg_m"));
    EXPECT_GT(relativeWidth(one), 1.2 * relativeWidth(wire));
    EXPECT_GT(stepped.parameters.at("leg_m"), 1.005 * one.parameters.at("leg_m"));
    const BuiltAntenna b = over(stepped);
    EXPECT_GT(b.model.wires[1].radius, b.model.wires[3].radius) << "thinner towards the tips";
}

TEST_F(FamilyFacts, LeadsCountAsAntenna)
{
    const auto leg = [&](double lead) { return tuned("rod-dipole", {{"lead_m", lead}, {"bracket_m", 0.0}}).parameters["leg_m"]; };
    EXPECT_LT(leg(0.5), leg(0.2) - 0.05);
}

TEST_F(FamilyFacts, AWhipStopsAtItsLongestAndShortest)
{
    const AntennaShape pair = shapeOf("whip-pair", {{"longest_m", 4.0}}, band);
    EXPECT_TRUE(mentions(buildOver(pair, m_ground).faults(), "leg_m", "can be set"));
    EXPECT_TRUE(mentions(buildOver(shapeOf("whip", {{"shortest_m", 6.0}, {"longest_m", 9.0}}, band), averageSoil).faults(), "whip_m",
                         "can be set"));
}

// Steeper radials raise the resistance and lower the resonance.
TEST_F(FamilyFacts, DroopingRadialsRaiseTheResistanceAndLowerTheResonance)
{
    m_ground = averageSoil;
    AntennaShape flat = tuned("whip", {{"base_height_m", 4.0}, {"anchor_m", 6.0}, {"second_anchor_m", 6.0}}), steep = flat;
    steep.parameters["anchor_m"] = steep.parameters["second_anchor_m"] = 2.5;
    const double level = resonance(flat, band), dropped = resonance(steep, band);
    EXPECT_LT(dropped, 0.995 * level);
    EXPECT_GT(at(steep, dropped).impedance.real(), 1.05 * at(flat, level).impedance.real());
}

// Each anchor has its own say, and what is left of a radial lies on the soil.
TEST_F(FamilyFacts, RadialsSlopeToTheirAnchorsAndLieBeyond)
{
    m_ground = averageSoil;
    const BuiltAntenna b =
        over(shapeOf("whip", {{"base_height_m", 1.5}, {"anchor_m", 2.0}, {"second_anchor_m", 3.0}, {"radial_m", 5.0}}, band));
    for (int side : {1, 2}) {
        const auto& p = b.model.wires[std::size_t(side)].points;
        ASSERT_EQ(p.size(), 3u);
        EXPECT_NEAR(p[1].z, 0.02, 1e-9);
        EXPECT_NEAR(p[2].z, 0.02, 1e-9);
        EXPECT_NEAR(std::hypot(p[1].x, p[1].y), side == 1 ? 2.0 : 3.0, 1e-9);
        EXPECT_NEAR(b.model.wires[std::size_t(side)].length(), 5.0, 1e-9);
    }
}

// ---- own lines

// Half a wave of line shows the impedance at its other end.
TEST_F(FamilyFacts, HalfAWaveOfOpenWireLineShowsTheDoubletItself)
{
    const AntennaShape shape = shapeOf("doublet", {{"line_k1", 0.0}, {"line_m", 0.95 * 0.5 * wavelength(band)}}, band);
    const Complex port = at(shape, band).impedance;
    EXPECT_LT(relative(over(shape).atLine(port, band), port), 1e-6);
}

TEST_F(FamilyFacts, FiveEighthsASideGainTwoToThreeDecibelsBroadside)
{
    const double plain = gain(tuned("dipole"), 0.0, 90.0), extended = gain(tuned("extended-dipole"), 0.0, 90.0);
    EXPECT_NEAR(plain, 2.15, 0.1); // broadside to a dipole along east is north
    EXPECT_GT(extended - plain, 2.3);
    EXPECT_LT(extended - plain, 3.3);
}

// ---- end-fed

// Without the coil and its tail there is nothing an octave below.
TEST_F(FamilyFacts, ACoilAndATailAddTheLowerBand)
{
    m_ground = averageSoil;
    const Parameters alone{{"return_kind", 0.0}}; // the coax has resonances of its own
    const AntennaShape shape = tuned("end-fed-tail", alone, TuneGoal::LowestSwr), plain = tuned("end-fed", alone, TuneGoal::LowestSwr);
    EXPECT_LT(mismatch(shape, 0.5 * band), 1.5);
    EXPECT_LT(mismatch(shape, band), 1.5);
    EXPECT_GT(mismatch(plain, 0.5 * band), 10.0);
    EXPECT_LT(shape.parameters.at("length_m") + shape.parameters.at("tail_m"), 0.65 * 0.5 * wavelength(0.5 * band)) << "and short it is";
}

// A coil near the feed sits where the lowest band has little current and the upper ones more: they move farther.
TEST_F(FamilyFacts, ACompensatingCoilMovesTheUpperBandsFarther)
{
    m_ground = averageSoil;
    const AntennaShape plain = tuned("end-fed", {}, TuneGoal::LowestSwr);
    AntennaShape coil = plain;
    coil.parameters["coil_H"] = 1.5e-6;
    coil.parameters["coil_at_m"] = 0.08 * plain.parameters.at("length_m");
    const auto shift = [&](double near) { return 1.0 - dip(coil, near) / dip(plain, near); };
    const double lowest = shift(band), second = shift(2.0 * band);
    EXPECT_GT(lowest, 0.0);
    EXPECT_GT(second, 1.3 * lowest);
}

// Beside a half wave another wire is a shunt: the line sees much less than the half wave alone shows.
TEST_F(FamilyFacts, ASecondEndFedLiesBesideTheFirst)
{
    m_ground = averageSoil;
    const AntennaShape pair = tuned("end-fed-pair", {}, TuneGoal::LowestSwr);
    AntennaShape alone = tuned("end-fed", {}, TuneGoal::LowestSwr);
    EXPECT_LT(std::abs(at(pair, band).impedance), 0.7 * std::abs(at(alone, band).impedance));
}

// ---- verticals

TEST_F(FamilyFacts, AHigherCoilRaisesTheResistance)
{
    m_ground = perfectGround;
    double before = 0.0;
    for (double place : {0.0, 40.0, 70.0}) {
        AntennaShape shape = tuned("loaded-vertical", {{"coil_place_percent", place}, {"coil_q", 2000.0}});
        const double r = at(shape, band).impedance.real();
        EXPECT_GT(r, before) << place;
        before = r;
    }
}

TEST_F(FamilyFacts, AHatSavesCoil)
{
    m_ground = averageSoil;
    const double bare = tuned("loaded-vertical").parameters["inductance_H"],
                 hat = tuned("loaded-vertical", {{"hat_count", 4.0}, {"hat_m", 0.5}}).parameters["inductance_H"];
    EXPECT_LT(hat, 0.75 * bare);
}

// Bent over, a quarter wave keeps its length and loses resistance.
TEST_F(FamilyFacts, AnInvertedLIsAQuarterWaveOfLessResistance)
{
    m_ground = averageSoil;
    const AntennaShape upright = tuned("vertical"), bent = tuned("inverted-l");
    EXPECT_NEAR(bent.parameters.at("length_m") / upright.parameters.at("radiator_m"), 1.0, 0.06);
    EXPECT_LT(at(bent, band).impedance.real(), 0.8 * at(upright, band).impedance.real());
}

TEST_F(FamilyFacts, ATNeedsLessOfTwoTopWiresThanAnLOfOne)
{
    m_ground = averageSoil;
    const AntennaShape t = tuned("t-vertical", {{"riser_m", 3.0}}), l = tuned("inverted-l", {{"riser_m", 3.0}});
    EXPECT_LT(t.parameters.at("arm_m"), 0.8 * (l.parameters.at("length_m") - 3.0));
}

TEST_F(FamilyFacts, AHalfWaveVerticalIsHighAtItsFoot)
{
    m_ground = averageSoil;
    EXPECT_GT(std::abs(at(tuned("half-wave-vertical", {}, TuneGoal::LowestSwr), band).impedance), 1000.0);
}

// Over a perfect ground: 5.2 dBi for a quarter wave, some 8 dBi for five eighths, and a lobe near 45 degrees for three quarters
// (Balanis 2016, 4.7).
TEST_F(FamilyFacts, TallerVerticalsLowerTheirLobeAndThenRaiseIt)
{
    m_ground = perfectGround;
    const Parameters low{{"base_height_m", 0.05}, {"radial_end_height_m", 0.05}, {"radial_count", 8.0}};
    const double quarter = gain(tuned("vertical", low), 0.0), fiveEighths = gain(tuned("five-eighths-vertical", low), 0.0);
    EXPECT_NEAR(quarter, 5.2, 0.4);
    EXPECT_GT(fiveEighths - quarter, 1.8);
    EXPECT_LT(fiveEighths - quarter, 3.2);
    EXPECT_NEAR(lobe(tuned("three-quarter-vertical", low)), 44.0, 6.0);
    EXPECT_NEAR(at(tuned("three-quarter-vertical", low), band).impedance.real(), 52.0, 10.0);
}

TEST_F(FamilyFacts, AHigherTapOfAStubShowsMoreResistance)
{
    m_ground = averageSoil;
    AntennaShape shape = tuned("stub-vertical", {}, TuneGoal::LowestSwr);
    EXPECT_LT(mismatch(shape, band), 1.1);
    shape.parameters["tap_m"] *= 1.5;
    TuneOptions options;
    const auto retuned = tune(shape, m_ground, "stub_m", band, m_tables, [&] {
        options.startFromPresent = true;
        return options;
    }());
    ASSERT_TRUE(retuned.ok()) << retuned.firstFault();
    EXPECT_GT(retuned->impedance.real(), 75.0);
}

// The coil of a two-band whip ends it on the upper band and loads all of it on the lower.
TEST_F(FamilyFacts, ATwoBandWhipIsAQuarterWaveBelowItsCoilAndLoadedBelowThat)
{
    m_ground = averageSoil;
    const AntennaShape shape = tuned("two-band-whip");
    const double lower = shape.parameters.at("lower_m"), above = lower + 0.5 * shape.parameters.at("upper_m");
    const em::Solution onUpper = at(shape, band), onLower = at(shape, 0.5 * band);
    EXPECT_LT(std::abs(onUpper.currentAt(0, above)), 0.25 * std::abs(onUpper.currentAt(0, 0.0)));
    EXPECT_GT(std::abs(onLower.currentAt(0, above)), 0.3 * std::abs(onLower.currentAt(0, 0.0)));
    EXPECT_LT(std::abs(onUpper.impedance.imag()), 1.0);
    EXPECT_LT(std::abs(onLower.impedance.imag()), 1.0);
}

TEST_F(FamilyFacts, ATrapVerticalIsResonantOnBothItsBands)
{
    m_ground = averageSoil;
    const AntennaShape shape = tuned("trap-vertical");
    for (double f : {band, 0.5 * band}) {
        const Complex z = at(shape, f).impedance;
        EXPECT_LT(std::abs(z.imag()), 1.0) << f;
        EXPECT_LT(z.real(), 80.0) << f;
    }
}

// A longer whip on the same car needs less coil and wastes less in it; the body is not cut from wire.
TEST_F(FamilyFacts, ALongerMobileWhipNeedsLessCoilAndWastesLess)
{
    m_ground = averageSoil;
    double coil = 1.0, wasted = 1.0;
    for (double whip : {1.5, 2.2, 3.0}) {
        const AntennaShape shape = tuned("mobile-whip", {{"radiator_m", whip}});
        const double loads = ledgerOf(at(shape, band)).loads;
        EXPECT_LT(shape.parameters.at("inductance_H"), coil) << whip;
        EXPECT_LT(loads, wasted) << whip;
        coil = shape.parameters.at("inductance_H"), wasted = loads;
    }
    EXPECT_GT(over(shapeOf("mobile-whip", {}, band)).notCut, 10.0);
}

// ---- long wires

// The longer a wire, the nearer to its own direction it fires.
TEST_F(FamilyFacts, LongerWiresFireNearerToTheirOwnDirection)
{
    double before = 100.0;
    for (double halves : {1.0, 3.0, 8.0}) {
        const double length = (halves - 0.05) * 0.5 * wavelength(band);
        const em::FarField field(
            at(shapeOf("long-wire", {{"length_m", length}, {"end_height_m", 2.5}, {"counterpoise_m", 0.5}}, band), band));
        double best = 0.0;
        for (double a = 0.0; a <= 90.0; a += 1.0)
            if (field.gain(0.0, radians(a)) > field.gain(0.0, radians(best)))
                best = a;
        EXPECT_LT(best, before - 10.0) << halves;
        before = best;
    }
}

// A resistor at its end flattens the impedance and takes its part of the power; the wire then fires one way.
TEST_F(FamilyFacts, ATerminatedWireIsFlatAndFiresOneWay)
{
    m_ground = averageSoil;
    AntennaShape shape = shapeOf("terminated-wire", {{"length_m", 60.0}, {"end_height_m", 2.5}}, band);
    const double loads = ledgerOf(at(shape, band)).loads;
    EXPECT_GT(loads, 0.2);
    EXPECT_LT(loads, 0.8);
    EXPECT_GT(gain(shape, 15.0, 0.0) - gain(shape, 15.0, 180.0), 4.0); // bearing 90 is azimuth 0
    AntennaShape open = shape;
    open.parameters["termination_ohm"] = 1.0;
    EXPECT_GT(gain(shape, 15.0, 0.0) - gain(shape, 15.0, 180.0), gain(open, 15.0, 0.0) - gain(open, 15.0, 180.0) + 3.0);
}

TEST_F(FamilyFacts, AVOfLongWiresBeatsADipoleWhereItOpens)
{
    const AntennaShape v = tuned("long-v");
    const double along = 90.0 - (v.parameters.at("bearing_deg") + 0.5 * v.parameters.at("opening_deg")); // compass to azimuth
    EXPECT_GT(gain(v, 0.0, along), 4.5);
    AntennaShape ended = v;
    ended.parameters["termination_ohm"] = 400.0;
    EXPECT_GT(gain(ended, 0.0, along) - gain(ended, 0.0, along + 180.0), 3.0);
}

// ---- a wire of one's own

TEST_F(FamilyFacts, AFreeWireThatIsStraightIsADipole)
{
    Parameters straight{{"start_height_m", 10.0}};
    for (int piece : {1, 2, 3})
        straight["piece_" + std::to_string(piece) + "_bearing_deg"] = 0.0;
    const double half = 0.475 * wavelength(band);
    straight["piece_1_m"] = 0.3 * half, straight["piece_2_m"] = 0.3 * half, straight["piece_3_m"] = 0.4 * half;
    const Complex drawn = at(shapeOf("free", straight, band), band).impedance,
                  dipole = at(shapeOf("dipole", {{"leg_m", 0.5 * half}}, band), band).impedance;
    EXPECT_LT(relative(drawn, dipole), 2e-3);
}

// Arms unequal by ten percent leave one dip, near that of equal arms.
TEST_F(FamilyFacts, UnequalArmsLeaveOneDip)
{
    AntennaShape shape = tuned("off-centre-dipole", {{"feed_percent", 50.0}, {"transformer_ratio", 1.0}});
    shape.parameters["feed_percent"] = 47.5;
    int dips = 0;
    double where = 0.0, two = 1e9, one = 1e9;
    for (double f = 0.85 * band; f < 1.15 * band; f += 0.005 * band) {
        const double s = swr(at(shape, f).impedance);
        if (one < two && one < s)
            ++dips, where = f - 0.005 * band;
        two = one, one = s;
    }
    EXPECT_EQ(dips, 1);
    EXPECT_NEAR(where / band, 1.0, 0.01);
}

// ---- several levers at once

TEST_F(FamilyFacts, TwoLeversReachWhatOneCannot)
{
    m_ground = averageSoil;
    const AntennaShape shape = tuned("loaded-dipole");
    JointAim aim;
    aim.at = {{band}};
    aim.reference = 42.0;
    const auto both = tuneJointly(shape, m_ground, {{"inductance_H"}, {"leg_m", 1.5, 5.0}}, aim, m_tables);
    ASSERT_TRUE(both.ok()) << both.firstFault();
    EXPECT_LT(swr(both->impedance.front(), aim.reference), 1.02);
    EXPECT_GT(swr(at(shape, band).impedance, aim.reference), 1.1);
    EXPECT_FALSE(both->atLimit);
    const auto limited = tuneJointly(shape, m_ground, {{"inductance_H"}, {"leg_m", 2.4, 2.6}}, aim, m_tables);
    ASSERT_TRUE(limited.ok());
    EXPECT_TRUE(limited->atLimit);
}

TEST_F(FamilyFacts, JointTuningRefusesInWords)
{
    const AntennaShape shape = shapeOf("dipole", {}, band);
    JointAim aim;
    aim.at = {{band}};
    EXPECT_TRUE(mentions(tuneJointly(shape, m_ground, {}, aim, m_tables).faults(), "vary", "one to six"));
    EXPECT_TRUE(mentions(tuneJointly(shape, m_ground, {{"nonsense"}}, aim, m_tables).faults(), "nonsense", "not a dimension"));
    EXPECT_TRUE(mentions(tuneJointly(shape, m_ground, {{"leg_m", 5.0, 4.0}}, aim, m_tables).faults(), "leg_m", "limits"));
    const Watch stopped([] { return true; });
    EXPECT_TRUE(tuneJointly(shape, m_ground, {{"leg_m"}}, aim, m_tables, {}, stopped).stopped());
}

} // namespace
} // namespace vetchling::shapes

#include "core/bands/wanted.h"
#include "core/study/compensation.h"
#include "core/study/operating.h"
#include "core/study/settings.h"
#include "core/study/skies.h"
#include "core/study/sky.h"

#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"

#include <algorithm>

namespace vetchling {
namespace {

using namespace vetchling::testing;
using shapes::shapeOf;

// ---- settings

TEST(Settings, OfAWhipAreResonantAndKnowTheirReach)
{
    const Demo demo;
    study::Library library;
    const Antenna& whip = demo.antenna("Walking whip 17");
    const study::Question question = study::questionOf(demo.design, whip);
    const auto chart = study::settingsOf(library, question);
    ASSERT_TRUE(chart.ok()) << chart.firstFault();
    const double longest = shapes::familyOf(whip.shape).value(whip.shape, "longest_m");
    EXPECT_NEAR(chart->longest, longest, 1e-6);
    ASSERT_EQ(chart->rows.size(), demo.design.operation.bands.size());
    double before = HUGE_VAL;
    for (const study::SettingRow& row : chart->rows) {
        const double value = row.values.at("whip_m");
        EXPECT_EQ(row.beyond > 0.0, value > longest) << row.frequency;
        if (!row.reached)
            continue;
        EXPECT_LT(value, before); // shorter on each higher band
        before = value;
        shapes::AntennaShape set = whip.shape;
        for (const auto& [key, v] : row.values)
            set.parameters[key] = v;
        const auto built = shapes::buildOver(set, question.subject.ground);
        ASSERT_TRUE(built.ok());
        const Complex z = solved(built->model, row.frequency, library.tables()).impedance;
        EXPECT_LT(std::abs(z - row.impedance), 0.01 * std::abs(z)) << row.frequency;
        EXPECT_LT(swr(z), 2.0) << row.frequency;
        EXPECT_LT(row.slope, 0.0);  // longer is lower
        if (row.frequency < 19e6) { // as one over its length, as long as the radials are no longer than a quarter wave
            EXPECT_NEAR(row.slope * value / row.frequency, -0.75, 0.3);
        }
    }
    EXPECT_TRUE(chart->rows[4].reached && chart->rows[5].reached && chart->rows[6].reached); // 20, 17 and 15 m
}

TEST(Settings, OfALinkedAntennaAreItsLinks)
{
    const Demo demo;
    study::Library library;
    const auto chart = study::settingsOf(library, study::questionOf(demo.design, demo.antenna("Tower V 60/40")));
    ASSERT_TRUE(chart.ok());
    for (const study::SettingRow& row : chart->rows) {
        if (row.band == demo.design.operation.bands[1].id) { // 60 m
            EXPECT_TRUE(row.reached);
            EXPECT_EQ(row.configuration, 1u);
        }
        if (row.band == demo.design.operation.bands[2].id) {
            EXPECT_EQ(row.configuration, 0u);
        }
    }
}

TEST(Settings, OfWhatIsCutAreRefusedInWords)
{
    const Demo demo;
    study::Library library;
    const auto chart = study::settingsOf(library, study::questionOf(demo.design, demo.antenna("Loop 17")));
    ASSERT_FALSE(chart.ok());
    EXPECT_NE(chart.firstFault().find("cut"), std::string::npos);
}

TEST(Settings, SectionsOutAndTheRestAreTheWhip)
{
    shapes::AntennaShape whip = shapeOf("whip", {{"longest_m", 5.6}, {"section_count", 8}}, 14.2e6);
    const auto out = study::sectionsOut(whip, "whip_m", 3.7);
    ASSERT_TRUE(out.has_value());
    EXPECT_EQ(out->sections, 5);
    EXPECT_NEAR(out->rest, 0.2, 1e-9);
    EXPECT_FALSE(study::sectionsOut(whip, "anchor_m", 3.7).has_value());
}

// ---- where it can be operated

TEST(Operating, TakesEachBandInItsBestConfigurationAndKnowsItsUse)
{
    const Demo demo;
    study::Library library;
    study::References references;
    auto operating = study::operatingOf(library, study::questionOf(demo.design, demo.antenna("Tower V 60/40")));
    ASSERT_TRUE(operating.ok());
    ASSERT_EQ(operating->curves.size(), 2u);
    EXPECT_EQ(operating->choices[1].configuration, 1u);
    EXPECT_EQ(operating->choices[2].configuration, 0u);
    const auto services =
        study::servicesOf(operating->curves, operating->choices, study::termsOf(demo.design.operation, demo.antenna("Tower V 60/40")));
    EXPECT_EQ(tallyOf(services, demo.design.operation.bands).served, 2);
    const study::Aim aim = study::aimOf(demo.design.operation);
    const auto used = study::withUses(library, references, *operating, aim);
    ASSERT_TRUE(used.ok());
    const study::Operating& whole = *used;
    for (const WantedBand& w : demo.design.operation.bands)
        EXPECT_EQ(whole.uses.contains(w.id), w.wish != Wish::No) << w.band.name;
    // a low flat wire fires upwards on its lowest band, a vertical does not
    const study::BandUse& sixty = whole.uses.at(demo.design.operation.bands[1].id);
    EXPECT_GT(sixty.straightUp, sixty.gain);
}

// The parts of the shift add to it, and the reference vertical is as good all round.
TEST(Operating, ShiftOfAHarmonicIsTheSumOfItsCauses)
{
    const Demo demo;
    study::Library library;
    const auto curve = study::curveOf(library, study::questionOf(demo.design, demo.antenna("Wall end-fed 40")));
    ASSERT_TRUE(curve.ok());
    const auto shift = study::harmonicShift(library, **curve, 2.0 * (*curve)->fundamental);
    ASSERT_TRUE(shift.ok() && shift->has_value());
    EXPECT_EQ((*shift)->n, 2);
    double sum = 0.0;
    for (const study::ShiftCause& cause : (*shift)->causes)
        sum += cause.shift;
    EXPECT_NEAR(sum, (*shift)->dip - (*shift)->plain, 1.0);
    EXPECT_GE((*shift)->causes.size(), 2u);
    const auto none = study::harmonicShift(library, **curve, (*curve)->fundamental);
    ASSERT_TRUE(none.ok());
    EXPECT_FALSE(none->has_value());
}

// 2026-11: a fan's 15 m pair was "342 kHz above 2 x f" of its 20 m pair.
TEST(Operating, APairOfItsOwnIsNoHarmonic)
{
    Demo demo;
    Antenna fan = newAntenna(*shapes::findFamily("fan-dipole"), 14.15e6, demo.design.site);
    setParameter(fan, "pair_count", 3.0, {}, {});
    fan.shape.parameters["frequency_2_Hz"] = 21.2e6;
    fan.shape.parameters["frequency_3_Hz"] = 28.5e6;
    for (const shapes::TunedLength& t : shapes::familyOf(fan.shape).tuned(fan.shape))
        fan.shape.parameters[t.parameter] = shapes::familyOf(fan.shape).rules(fan.shape, t).front().value;
    Antenna plain = newAntenna(shapes::dipoleFamily(), 7.1e6, demo.design.site);
    study::Library library;
    const auto of = [&](const Antenna& a, double near) {
        const auto curve = study::curveOf(library, study::questionOf(demo.design, a));
        EXPECT_TRUE(curve.ok());
        const auto shift = study::harmonicShift(library, **curve, near);
        EXPECT_TRUE(shift.ok());
        return shift.ok() && shift->has_value() ? (*shift)->n : 0;
    };
    EXPECT_EQ(of(fan, 21.3e6), 0) << "one and a half times";
    EXPECT_EQ(of(fan, 28.5e6), 0) << "twice, which a dipole does not work, and a pair of its own";
    EXPECT_EQ(of(plain, 14.3e6), 0) << "fed in the middle it works odd multiples";
    EXPECT_EQ(of(plain, 21.6e6), 3);
}

// 2026-11: the third pair of a fan was offered at 29.803 MHz, the third link at 5.047: no band.
TEST(NewLengths, AreForTheBandsThatAreWanted)
{
    Demo demo;
    const auto& bands = demo.design.operation.bands; // 60, 40, 30, 17, 12, 10 m wanted; 20 and 15 on show
    const auto inside = [&](double f, const char* name) {
        const auto band = std::find_if(bands.begin(), bands.end(), [&](const WantedBand& w) { return w.band.name == name; });
        return band != bands.end() && f >= band->band.from && f <= band->band.to;
    };
    const auto grown = [&](const char* family, double frequency, const char* count, double to) {
        Antenna a = newAntenna(*shapes::findFamily(family), frequency, demo.design.site);
        for (double n = 2.0; n <= to; n += 1.0) {
            const shapes::AntennaShape before = a.shape;
            setParameter(a, count, n, {}, {});
            settleTyped(a, before, count, demo.design);
        }
        return a;
    };
    const Antenna fan = grown("fan-dipole", 18.118e6, "pair_count", 4.0);
    EXPECT_TRUE(inside(fan.shape.parameters.at("frequency_3_Hz"), "12 m") || inside(fan.shape.parameters.at("frequency_3_Hz"), "10 m"))
        << fan.shape.parameters.at("frequency_3_Hz");
    const double third = fan.shape.parameters.at("leg_3_m");
    EXPECT_NEAR(third, 0.95 * 0.25 * wavelength(fan.shape.parameters.at("frequency_3_Hz")), 0.06 * third) << "a quarter wave, by rule";
    EXPECT_EQ(fan.shape.parameters.at("leg_m"), newAntenna(*shapes::findFamily("fan-dipole"), 18.118e6).shape.parameters.at("leg_m"))
        << "what is there stays";
    Antenna links = newAntenna(*shapes::findFamily("linked-dipole"), 10.12e6, demo.design.site);
    takeBands(links.shape, bands, [](const std::string&) { return true; });
    const double second = links.shape.parameters.at("frequency_2_Hz");
    EXPECT_TRUE(inside(second, "40 m")) << second;
}

TEST(ReferenceVertical, RadiatesAlikeAllRoundAndNothingUpwards)
{
    study::Library library;
    const auto vertical = study::referenceAt(library, averageSoil, 14.2e6);
    ASSERT_TRUE(vertical.ok());
    const auto& field = vertical->field;
    EXPECT_GT(vertical->impedance.real(), 30.0); // 36 ohm over a perfect ground, and what the soil takes
    EXPECT_LT(vertical->impedance.real(), 70.0);
    const double east = field->gain(radians(25), 0.0);
    for (double azimuth : {0.3, 1.1, 2.6, 4.0})
        EXPECT_NEAR(field->gain(radians(25), azimuth), east, 0.05);
    EXPECT_LT(field->gain(0.5 * pi, 0.0), -25.0);
    EXPECT_GT(east, -6.0);
    EXPECT_LT(east, 2.0);
}

// ---- two bands on one antenna

TEST(Favoured, IsTheOwnBandWithTheLowerSwr)
{
    study::Curve curve;
    curve.question.subject.shape = shapeOf("two-band-whip", {}, 14.2e6);
    const double lower = shapes::familyOf(curve.question.subject.shape).tuned(curve.question.subject.shape)[1].frequency;
    curve.question.bands = {{{"low", 0.98 * lower, 1.02 * lower}, Wish::Must, "low", {}}, {{"20 m", 14e6, 14.35e6}, Wish::Must, "20", {}}};
    for (double swr : {2.4, 1.2}) {
        Coverage c;
        c.band = curve.question.bands[curve.bands.size()].band;
        c.lowestSwr = swr;
        c.verdict = Verdict::Partly;
        curve.bands.push_back(c);
    }
    EXPECT_EQ(curve.favoured(), (std::pair<Id, Id>{"20", "low"}));
    curve.bands[0].lowestSwr = 1.25; // no matter
    EXPECT_TRUE(curve.favoured().first.empty());
}

// ---- a coil near the feed

// A wire whose second resonance lies above its band: the coil draws it down farther than the first.
TEST(Compensation, DrawsTheUpperBandDownAndTellsItsCost)
{
    study::Library library;
    study::Question question{
        {shapeOf("end-fed", {{"transformer_ratio", 49}, {"feed_height_m", 6}, {"end_height_m", 6}, {"counterpoise_m", 2}}, 7.1e6),
         averageSoil, 0},
        {{{"40 m", 7.0e6, 7.2e6}, Wish::Must, "a", {}}, {{"20 m", 14.0e6, 14.35e6}, Wish::Must, "b", {}}},
        2.0,
        {},
        shapes::TuneGoal::LowestSwr};
    const auto found = study::compensate(library, question);
    ASSERT_TRUE(found.ok()) << found.firstFault();
    ASSERT_EQ(found->bands.size(), 2u);
    double before = 0.0, after = 0.0;
    for (const study::CompensatedBand& b : found->bands) {
        before += 1.0 - study::passedThrough(b.swrBefore);
        after += 1.0 - study::passedThrough(b.swrAfter);
        EXPECT_GE(b.lossAfter, b.lossBefore - 1e-6);
        EXPECT_LT(b.lossAfter, 1.5);
    }
    EXPECT_LT(after, before);
    EXPECT_GE(found->scoreAfter, found->scoreBefore);
    EXPECT_GT(found->values.at("coil_H"), 0.0);
    const double length = question.subject.shape.parameters.at("length_m");
    EXPECT_NEAR(found->values.at("length_m") / length, 1.0, 0.0601);
}

// A vertical looked at over a shore is held against verticals that look over the same shore.
TEST(Operating, TheReferenceStandsBeforeTheSameShore)
{
    Demo demo;
    const Antenna& marsh = demo.antenna("Marsh vertical 30");
    demo.design.site.soil = {"", "dry", "", 7.0, 0.0005};
    demo.design.operation.aimElevation = 8.0;
    demo.design.operation.aimBearing = 90.0;
    const auto useOf = [&] {
        study::Library library;
        study::References references;
        const study::Question question = study::questionOf(demo.design, marsh);
        auto operating = study::operatingOf(library, question);
        EXPECT_TRUE(operating.ok());
        const auto all = study::withUses(library, references, *operating, study::aimOf(demo.design.operation));
        EXPECT_TRUE(all.ok());
        return all->uses.at(bandFor(demo.design, 10.12e6));
    };
    const study::BandUse land = useOf();
    demo.design.site.farGrounds = {{"sea", 60.0, 120.0, 10.0, 70.0, 5.0, "sea", {}}};
    const study::BandUse sea = useOf();
    EXPECT_GT(sea.gain, land.gain + 2.0);
    EXPECT_GT(sea.reference, land.reference + 2.0);
    EXPECT_NEAR(sea.gain - sea.reference, land.gain - land.reference, 1.0); // both gain alike
}

TEST(Compensation, ACoilAndATailAddABandBelowAndKeepTheOwnOne)
{
    study::Library library;
    study::Question question;
    question.subject.shape = shapes::findFamily("end-fed")->standardShape(7.1e6);
    question.subject.shape.parameters["return_kind"] = 0.0;
    question.subject.ground = {GroundKind::Real, 13.0, 0.005};
    question.bands = {{{"80 m", 3.5e6, 3.6e6}, Wish::Must, "eighty", {}, {}}, {{"40 m", 7e6, 7.2e6}, Wish::Must, "forty", {}, {}}};
    EXPECT_EQ(study::lowerBands(question), std::vector<Id>{"eighty"});
    const auto found = study::addLowerBand(library, question, "eighty");
    ASSERT_TRUE(found.ok()) << found.firstFault();
    EXPECT_GT(found->shape.parameters.at("tail_m"), 0.5);
    ASSERT_EQ(found->bands.size(), 2u);
    EXPECT_GT(found->bands[0].swrBefore, 9.0);
    EXPECT_LT(found->bands[0].swrAfter, 3.0);
    EXPECT_LT(found->bands[1].swrAfter, 3.0);
    EXPECT_GT(found->bands[0].lossAfter, 0.05); // a coil at the end of a wire is no free lunch
    EXPECT_TRUE(found->helps());
    EXPECT_FALSE(study::addLowerBand(library, question, "nobody").ok());
    question.subject.shape.parameters["first_run_m"] = 5.0; // a bent one has no place for a tail
    EXPECT_TRUE(study::lowerBands(question).empty());
}

TEST(Compensation, IsRefusedInWordsWhereThereIsNoPlaceOrNoWish)
{
    study::Library library;
    study::Question question{
        {shapeOf("dipole", {}), averageSoil, 0}, {{{"40 m", 7.0e6, 7.2e6}, Wish::Must, "a", {}}}, 2.0, {}, shapes::TuneGoal::Resonance};
    EXPECT_FALSE(study::compensate(library, question).ok());
    question.subject.shape = shapeOf("end-fed", {});
    question.bands[0].wish = Wish::No;
    EXPECT_FALSE(study::compensate(library, question).ok());
}

// ---- antennas held against one another

TEST(Skies, CompareByBandAndTellTheWholeSky)
{
    const Demo demo;
    study::Library library;
    const auto tower = study::skiesOf(library, demo.design, demo.antenna("Tower V 60/40"));
    const auto loop = study::skiesOf(library, demo.design, demo.antenna("Loop 17"));
    ASSERT_TRUE(tower.ok() && loop.ok());
    for (const WantedBand& w : demo.design.operation.bands)
        EXPECT_EQ(tower->bands.contains(w.id), w.wish != Wish::No);
    const study::BandSky& forty = tower->bands.at(demo.design.operation.bands[2].id);
    EXPECT_LT(forty.lowestSwr, 1.5) << "in its best configuration";
    const study::SkyGrid grid = study::skyGrid(*forty.field);
    EXPECT_NEAR(grid.strongest, forty.field->gain(grid.strongestElevation, study::azimuthOf(grid.strongestBearing)), 1e-9);
    EXPECT_NEAR(grid.gain[20].front(), grid.gain[20].back(), 1e-9); // north is north
    const std::vector<double> cut = study::verticalCut(*forty.field, 60.0);
    ASSERT_EQ(cut.size(), 181u);
    EXPECT_NEAR(cut[25], forty.field->gain(radians(25), study::azimuthOf(60.0)), 1e-9);
    EXPECT_NEAR(cut[155], forty.field->gain(radians(25), study::azimuthOf(240.0)), 1e-9);
    for (const auto& row : grid.gain)
        for (double gain : row)
            EXPECT_LE(gain, grid.strongest);
}

// Taller verticals bring their lobe down until the half wave and 5/8; three quarters throw it up.
TEST(Skies, VerticalsOfManyHeights)
{
    study::Library library;
    const Ground sea{GroundKind::Real, 70.0, 5.0};
    const auto verticals = study::verticalSkies(library, sea, {{"10 m", 28e6, 28.6e6}, Wish::Must, "ten", {}});
    ASSERT_TRUE(verticals.ok());
    ASSERT_EQ(verticals->size(), 5u);
    std::vector<double> low, lobe;
    for (const study::Skies& s : *verticals) {
        const em::FarField& field = *s.bands.at("ten").field;
        low.push_back(field.gain(radians(5), 0.0));
        lobe.push_back(study::lobeElevation(field, 0.0));
    }
    EXPECT_GT(low[1], low[0] + 1.0); // half over quarter: textbook 1.7 dB
    EXPECT_GT(low[2], low[0] + 2.0); // 5/8 over quarter: textbook 3 dB
    EXPECT_GT(lobe[3], radians(30));
}

// ---- wishes

TEST(Segments, CountByTheirWishes)
{
    WantedBand band{{"40 m", 7e6, 7.2e6}, Wish::Must, "id", {}};
    band.segments = {{"Morse", 7e6, 7.04e6, Wish::Must}, {"data", 7.04e6, 7.05e6, Wish::No}, {"phone", 7.05e6, 7.2e6, Wish::Nice}};
    // under 2:1 below 7.06 MHz only
    const auto impedance = [](double f) { return f < 7.06e6 ? Complex(50, 0) : Complex(500, 0); };
    const Coverage c = coverage(impedance, band, 2.0, 0.0);
    ASSERT_EQ(c.segments.size(), 2u);
    EXPECT_EQ(c.segments[0].shareUnderLimit, 1.0);
    EXPECT_NEAR(c.segments[1].shareUnderLimit, 1.0 / 15.0, 0.01);
    EXPECT_NEAR(usableShare(c), (3.0 + 1.0 / 15.0) / 4.0, 0.003);
    band.segments.clear();
    EXPECT_NEAR(usableShare(coverage(impedance, band, 2.0, 0.0)), 0.3, 0.01);
}

TEST(Wishes, StartFromWhatIsOpenAndLeaveVhfAlone)
{
    std::vector<WantedBand> bands{{{"80 m", 3.5e6, 3.8e6}, Wish::Nice, "a", {}}, {{"40 m", 7e6, 7.2e6}, Wish::No, "b", {}},
                                  {{"20 m", 14e6, 14.35e6}, Wish::No, "c", {}},  {{"15 m", 21e6, 21.45e6}, Wish::No, "d", {}},
                                  {{"10 m", 28e6, 29.7e6}, Wish::No, "e", {}},   {{"2 m", 144e6, 146e6}, Wish::Must, "f", {}}};
    wishByConditions(bands, Conditions::DayHighSun);
    EXPECT_EQ(bands[0].wish, Wish::No);
    EXPECT_EQ(bands[4].wish, Wish::Must);
    EXPECT_EQ(bands[2].wish, Wish::Nice);
    EXPECT_EQ(bands[5].wish, Wish::Must);
    wishByConditions(bands, Conditions::NightLowSun);
    EXPECT_EQ(bands[1].wish, Wish::Must);
    EXPECT_EQ(bands[4].wish, Wish::No);
}

TEST(Wishes, ASegmentOfOnesOwnGoesIntoItsBandAndAPlanCanBeTakenOut)
{
    std::vector<WantedBand> bands{{{"40 m", 7e6, 7.2e6}, Wish::No, "b", {}}, {{"20 m", 14e6, 14.35e6}, Wish::No, "c", {}}};
    EXPECT_TRUE(addSegment(bands, "net", 7.06e6, 7.07e6, Wish::Nice));
    EXPECT_FALSE(addSegment(bands, "net", 7.19e6, 7.21e6, Wish::Nice));
    EXPECT_EQ(bands[0].wish, Wish::Nice);
    ASSERT_EQ(bands[0].segments.size(), 1u);
    BandPlan plan{"p", "plan", "made up", 2020, {{"40 m", 7e6, 7.2e6}, {"20 m", 14e6, 14.35e6}}, {}};
    putIn(plan, bands);
    EXPECT_EQ(bands[0].segments.size(), 1u) << "a wished segment of one's own stays";
    takeOut(plan, bands);
    ASSERT_EQ(bands.size(), 1u) << "what is wished for stays";
    EXPECT_EQ(bands[0].band.name, "40 m");
}

// ---- the return

// The other return, by direct solves of the wires with it, band by band.
TEST(ReturnPath, IsHeldAgainstTheOtherOne)
{
    study::Library library;
    const auto swrIn = [&](const shapes::AntennaShape& shape, const Band& band) {
        const auto built = shapes::buildOver(shape, averageSoil);
        double lowest = HUGE_VAL;
        for (int i = 0; i <= 20 && built; ++i) {
            const double f = band.from + (band.to - band.from) * i / 20.0;
            const Complex z = solved(built->model, f, library.tables()).impedance;
            lowest = std::min(lowest, swr(built->transformer ? built->transformer->atLine(z, f) : z));
        }
        return lowest;
    };
    study::Question question;
    question.subject = {shapeOf("end-fed", {{"length_m", 20.3}}), averageSoil, 0};
    for (const auto& [name, from, to] : {std::tuple("40 m", 7.0e6, 7.2e6), std::tuple("15 m", 21.0e6, 21.45e6)}) {
        WantedBand w;
        w.id = w.band.name = name;
        w.band.from = from;
        w.band.to = to;
        w.wish = Wish::Must;
        question.bands.push_back(w);
    }
    const auto curves = study::curvesOf(library, question);
    ASSERT_TRUE(curves.ok()) << curves.firstFault();
    const auto effect = study::returnEffect(library, *curves);
    ASSERT_TRUE(effect && *effect);
    EXPECT_TRUE((*effect)->shield);
    EXPECT_NEAR((*effect)->coax, 10.0, 1e-6) << "assumed, without a chain";
    ASSERT_EQ((*effect)->rows.size(), 2u);
    shapes::AntennaShape wire = question.subject.shape;
    wire.parameters["return_kind"] = 0.0;
    for (std::size_t i = 0; i < 2; ++i) {
        EXPECT_NEAR((*effect)->rows[i].here / swrIn(question.subject.shape, question.bands[i].band), 1.0, 0.02) << i;
        EXPECT_NEAR((*effect)->rows[i].other / swrIn(wire, question.bands[i].band), 1.0, 0.02) << i;
    }
    ASSERT_TRUE((*effect)->most());
    EXPECT_EQ((*effect)->most()->name, "15 m");
    study::Question plain = question;
    plain.subject.shape = shapeOf("dipole", {});
    const auto none = study::curvesOf(library, plain);
    EXPECT_FALSE(study::returnEffect(library, *none)->has_value()) << "a dipole has no such choice";
}

} // namespace
} // namespace vetchling

/// What a log is of: each measurement of its piece, goals of their own, and how long the wire was when it was hoisted first.
#include "core/design/unread.h"
#include "core/files/design_file.h"
#include "core/study/recipe.h"
#include "core/trim/history.h"
#include "core/trim/trim.h"
#include "core/workshop/tape.h"
#include "tests/core/shape_helpers.h"

namespace vetchling {
namespace {

using namespace vetchling::shapes;

Antenna antennaOf(const char* family, const Parameters& changes, double frequency)
{
    Antenna a;
    a.id = "one";
    a.name = family;
    a.shape = shapeOf(family, changes, frequency);
    return a;
}

Antenna linked()
{
    return antennaOf("linked-dipole", {{"band_count", 2.0}, {"frequency_2_Hz", 5.36e6}, {"apex_height_m", 12.0}, {"end_height_m", 9.0}},
                     7.08e6);
}

Measurement dipAt(double dip, double cut = 0.0, const char* parameter = "")
{
    Measurement m;
    m.dip = dip;
    m.cutSinceLast = cut;
    m.parameter = parameter;
    return m;
}

/// Of all wires, from point to point, m.
double metal(const BuiltAntenna& antenna)
{
    double sum = 0.0;
    for (const Wire& w : antenna.model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i)
            sum += distance(w.points[i - 1], w.points[i]);
    return sum;
}

TEST(LogTasks, AGoalIsOfItsPieceAlone)
{
    Antenna a = linked();
    a.trim.target = 7.05e6;
    setTarget(a, 1, 5.30e6);
    auto tasks = trimTasks(a);
    ASSERT_EQ(tasks.size(), 2u);
    EXPECT_DOUBLE_EQ(tasks[0].target, 7.05e6) << "the inner one keeps what was typed for it";
    EXPECT_DOUBLE_EQ(tasks[1].target, 5.30e6);
    setTarget(a, 0, 7.10e6);
    tasks = trimTasks(a);
    EXPECT_DOUBLE_EQ(tasks[0].target, 7.10e6);
    EXPECT_DOUBLE_EQ(tasks[1].target, 5.30e6);
    Antenna single = antennaOf("dipole", {}, 14.2e6);
    setTarget(single, 0, 14.1e6);
    EXPECT_DOUBLE_EQ(trimTasks(single).front().target, 14.1e6);
}

TEST(LogTasks, AMeasurementIsNamedWhenItIsWrittenAndStaysOfItsPiece)
{
    Antenna a = linked();
    addMeasurement(a, dipAt(7.00e6));
    addMeasurement(a, dipAt(5.20e6, 0.1, "leg_2_m"));
    const auto& log = a.trim.measurements;
    EXPECT_EQ(log[0].parameter, "leg_m");
    EXPECT_EQ(log[0].configuration, std::optional<std::size_t>(0));
    EXPECT_EQ(log[1].parameter, "leg_2_m");
    EXPECT_EQ(log[1].configuration, std::optional<std::size_t>(1));
    setTarget(a, 1, 7.0e6); // a goal that is near the other's dips takes nothing over
    EXPECT_EQ(entriesOf(a, 0), std::vector<std::size_t>{0});
    EXPECT_EQ(entriesOf(a, 1), std::vector<std::size_t>{1});
    EXPECT_EQ(lastOf(a, 1), &log[1]);
}

// The wire that hangs first is the plan's and the margins of all pieces that are trimmed, counted from point to point.
TEST(LogTasks, ItHangsAsItWasCut)
{
    for (const auto& [family, changes, frequency] : std::vector<std::tuple<const char*, Parameters, double>>{
             {"dipole", {}, 14.2e6},
             {"delta-loop", {}, 18.1e6},
             {"end-fed", {}, 7.05e6},
             {"loaded-dipole", {}, 7.1e6},
             {"vertical", {}, 10.1e6},
             {"inverted-l", {}, 3.6e6},
             {"t-vertical", {}, 3.6e6},
             {"doublet", {}, 7.1e6},
             {"extended-dipole", {}, 14.2e6},
             {"trap-dipole", {}, 14.2e6},
             {"hat-dipole", {}, 14.2e6},
             {"fan-dipole", {}, 14.2e6},
             {"loop", {}, 14.2e6},
             {"free", {}, 14.2e6},
             {"linked-dipole", {{"band_count", 3.0}, {"frequency_2_Hz", 10.12e6}, {"frequency_3_Hz", 7.1e6}}, 14.15e6}}) {
        Antenna a = antennaOf(family, changes, frequency);
        const BuiltAntenna plan = built(a.shape);
        double margins = 0.0;
        for (const CutRow& row : cutList(plan.sections, a.allowances))
            margins += row.pieces * row.margin;
        ASSERT_GT(margins, 0.01) << family;
        addMeasurement(a, dipAt(frequency));
        EXPECT_EQ(a.trim.cutFrom, CutFrom::CutList) << family;
        EXPECT_NEAR(metal(built(asLogged(a))) - metal(plan), margins, 2e-3) << family;
    }
}

TEST(LogTasks, WhatWasMeasuredAtTheBenchCountsMoreThanTheList)
{
    Antenna a = antennaOf("dipole", {}, 14.2e6);
    const auto rows = cutList(built(a.shape).sections, a.allowances);
    const auto keys = pieceKeys(rows.front());
    ASSERT_EQ(keys.size(), 2u);
    for (const std::string& key : keys)
        a.workshop.pieces[key].done = true;
    EXPECT_EQ(asCutOf(a).from, CutFrom::Ticked);
    a.workshop.pieces[keys[0]].measured = rows.front().cut + 0.10;
    a.workshop.pieces[keys[1]].measured = rows.front().cut + 0.14;
    const AsCut cut = asCutOf(a);
    EXPECT_EQ(cut.from, CutFrom::Measured);
    EXPECT_NEAR(cut.longer.at("leg_m"), rows.front().margin + 0.12, 1e-9) << "the mean of both sides";
}

TEST(LogTasks, TheBeginningIsOnceAndIsKeptInTheFile)
{
    Design design;
    design.antennas.push_back(antennaOf("dipole", {}, 14.2e6));
    Antenna& a = design.antennas.front();
    setAsCut(a, 0, 0.25);
    addMeasurement(a, dipAt(13.6e6));
    a.allowances.marginPercent = 9.0;
    addMeasurement(a, dipAt(13.8e6, 0.05));
    setTarget(a, 0, 14.1e6);
    EXPECT_EQ(a.trim.cutFrom, CutFrom::Typed);
    const double leg = familyOf(a.shape).value(a.shape, "leg_m");
    EXPECT_NEAR(familyOf(a.shape).value(asLogged(a), "leg_m"), leg + 0.25 - 0.05, 1e-9);
    nameNewThings(design);
    const auto again = files::parseDesign(files::writeDesign(design));
    ASSERT_TRUE(again.ok()) << again.firstFault();
    EXPECT_EQ(again->antennas.front().trim, a.trim);
    for (const Id& id : {a.trim.measurements[0].id, a.trim.measurements[1].id})
        removeMeasurement(a, Id(id));
    EXPECT_TRUE(a.trim.measurements.empty());
    EXPECT_EQ(a.trim.asCut.at("leg_m"), 0.25) << "what a person said stays";
}

// A log of old, written before anybody asked how long it was at first, means what it meant.
TEST(LogTasks, AnOldLogBeginsWithThePlan)
{
    Antenna a = antennaOf("dipole", {}, 14.2e6);
    a.trim.measurements = {dipAt(13.9e6), dipAt(14.0e6, 0.05)};
    addMeasurement(a, dipAt(14.05e6, 0.02));
    EXPECT_TRUE(a.trim.asCut.empty());
    EXPECT_NEAR(familyOf(a.shape).value(asLogged(a), "leg_m"), familyOf(a.shape).value(a.shape, "leg_m") - 0.07, 1e-9);
}

// An outer section is cut when the inner one is finished: what the bench says of it then counts.
TEST(LogTasks, ASectionThatIsCutLaterBeginsAsTheBenchSaysThen)
{
    Antenna a = linked();
    addMeasurement(a, dipAt(6.9e6));
    const double before = a.trim.asCut.at("leg_m");
    const auto rows = cutList(built(a.shape).sections, a.allowances);
    for (const std::string& key : pieceKeys(rows[1]))
        a.workshop.pieces[key].measured = rows[1].cut + 0.3;
    for (const std::string& key : pieceKeys(rows[0]))
        a.workshop.pieces[key].measured = rows[0].cut - 0.3; // trimmed since
    addMeasurement(a, dipAt(5.1e6, 0.0, "leg_2_m"));
    EXPECT_NEAR(a.trim.asCut.at("leg_2_m"), rows[1].margin + 0.3, 1e-9);
    EXPECT_EQ(a.trim.asCut.at("leg_m"), before) << "what hung already hung as it did";
}

// Of two sections each keeps its own cuts, in the recipe too.
TEST(LogTasks, ARecipeHasEachSectionAsItWasCut)
{
    Design design;
    Antenna a = linked();
    a.trim.measurements = {dipAt(7.0e6)}; // a log of old: as planned
    addMeasurement(a, dipAt(5.1e6, 0.26, "leg_2_m"));
    const auto recipe = study::recipeOf(design, a, asLogged(a), {}, "2026-11-30");
    ASSERT_EQ(recipe.lengths.size(), 2u);
    EXPECT_NEAR(recipe.lengths[0].built, familyOf(a.shape).value(a.shape, "leg_m"), 1e-9);
    EXPECT_NEAR(recipe.lengths[1].built, familyOf(a.shape).value(a.shape, "leg_2_m") - 0.26, 1e-9);
    addMeasurement(a, dipAt(7.1e6, 0.10, "leg_m")); // all that hangs beyond comes in with it
    EXPECT_NEAR(familyOf(a.shape).value(asLogged(a), "leg_2_m"), familyOf(a.shape).value(a.shape, "leg_2_m") - 0.36, 1e-9);
}

TEST(Question, IsAboutTheDipOfItsOwnPiece)
{
    Antenna a = linked();
    addMeasurement(a, dipAt(7.077e6));
    EXPECT_FALSE(unlikelyDip(a, dipAt(5.252e6, 0.0, "leg_2_m"), 5.26e6, 600e3)) << "7.077 is no dip to expect of 60 m";
    const auto expected = unlikelyDip(a, dipAt(7.6e6, 0.0, "leg_m"), 7.1e6, 600e3);
    ASSERT_TRUE(expected);
    EXPECT_NEAR(*expected, 7.077e6, 1.0);
    const auto first = unlikelyDip(a, dipAt(140e6, 0.0, "leg_2_m"), 0.0, 0.0);
    ASSERT_TRUE(first) << "before anything is solved the goal stands for it";
    EXPECT_TRUE(cannotBe(140e6, *first));
    EXPECT_FALSE(cannotBe(0.85 * *first, *first));
}

TEST(Question, IsAboutADateThatCannotBe)
{
    EXPECT_TRUE(possibleDate("2026-11-30T10:00", "2026-11-30T09:59"));
    EXPECT_TRUE(possibleDate("1994-05-01", "2026-11-30T09:59"));
    EXPECT_FALSE(possibleDate("2031-05-01", "2026-11-30T09:59"));
    EXPECT_FALSE(possibleDate("0026-05-01", "2026-11-30T09:59"));
    EXPECT_FALSE(possibleDate("yesterday", "2026-11-30T09:59"));
}

// Two entries and the headline over them judge alike, whatever the dip did.
TEST(Judgement, OfALogIsOne)
{
    for (double change : {-60e3, -28e3, -26e3, -5e3, 0.0, 26e3, 28e3, 60e3}) {
        Antenna a = antennaOf("delta-loop", {}, 18.1e6);
        a.trim.measurements = {dipAt(18.092e6), dipAt(18.092e6 + change)};
        a.trim.measurements[0].when = "2024-05-04T11:10";
        a.trim.measurements[1].when = "2026-05-30T10:05";
        a.trim.measurements[0].id = "a", a.trim.measurements[1].id = "b";
        const auto drift = driftOf(a, dipSeriesOf(a).front());
        ASSERT_TRUE(drift);
        const auto headline = driftWords(*drift).english();
        std::string compared;
        for (const Text& t : comparedWords(a, a.trim.measurements[0], a.trim.measurements[1]))
            compared += t.english();
        EXPECT_EQ(headline.find("stayed") != std::string::npos, compared.find("where it was") != std::string::npos)
            << change << ": " << headline << " / " << compared;
    }
}

// What would be asked about when it is written down is told of what stands there too.
TEST(DoubtfulEntries, AreThoseThatWouldBeAskedAbout)
{
    Antenna a = newAntenna(shapes::dipoleFamily(), 7.1e6);
    const auto entry = [](const char* when, double dip) {
        Measurement m;
        m.id = newId();
        m.when = when;
        m.dip = dip;
        return m;
    };
    a.trim.measurements = {entry("2026-05-01T10:00", 7.02e6), entry("2026-05-02T10:00", 14.1e6), entry("2031-05-02T10:00", 14.1e6),
                           entry("", 14.1e6)};
    const auto doubts = doubtfulEntries(a, "2026-11-30T12:00");
    ASSERT_EQ(doubts.size(), 2u);
    EXPECT_EQ(doubts[0].entry, 1u);
    EXPECT_NEAR(doubts[0].expected, 7.02e6, 0.2e6);
    EXPECT_EQ(doubts[1].entry, 2u);
    EXPECT_EQ(doubts[1].expected, 0.0);
}

} // namespace
} // namespace vetchling

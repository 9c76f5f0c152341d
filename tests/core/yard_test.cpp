/// The practice yard: every level can be won by working as one should, and each fault shows the signs that the explanation names.
#include "core/study/answers.h"
#include "core/trim/yard.h"

#include <gtest/gtest.h>

#include <cmath>
#include <set>

namespace vetchling {
namespace {

study::Library& library()
{
    static study::Library one;
    return one;
}

Yard opened(const char* level, unsigned seed)
{
    auto yard = Yard::open(library(), *findYardLevel(level), seed);
    EXPECT_TRUE(yard.ok()) << yard.firstFault();
    return *yard;
}

/// The first draw that has that fault.
Yard withFault(const char* level, YardFault fault)
{
    for (unsigned seed = 1; seed < 60; ++seed)
        if (Yard yard = opened(level, seed); yard.fault() == fault)
            return yard;
    ADD_FAILURE() << "never drawn";
    return opened(level, 1);
}

/// Measures and does what the advice says, by folding, until it says that all is done.
void workThrough(Yard& yard)
{
    for (int step = 0; step < 14; ++step) {
        TrimQuestion asked;
        asked.subject.shape = yard.plan().shape;
        asked.subject.ground = {GroundKind::Real, 13.0, 0.005};
        asked.antenna = yard.plan();
        const auto next = trimNext(library(), asked);
        ASSERT_TRUE(next.ok()) << next.firstFault();
        if (next->next.step == TrimStep::Done)
            return;
        if (next->next.change != 0.0) {
            ASSERT_TRUE(yard.change(next->next.task, -next->next.change, next->next.change < 0.0).empty()) << next->next.change;
        }
        ASSERT_TRUE(yard.measure(library(), next->next.task).empty());
    }
}

class YardLevels : public ::testing::TestWithParam<const char*> {};

TEST_P(YardLevels, CanBeWon)
{
    Yard yard = opened(GetParam(), 11);
    workThrough(yard);
    ASSERT_TRUE(yard.finish(library(), yard.fault()).empty());
    const YardVerdict& v = *yard.verdict();
    EXPECT_TRUE(v.right);
    EXPECT_GE(v.bandsUnder, v.bands - (yard.fault() == YardFault::BadCrimp ? v.bands : 0)) << "a bad crimp is not trimmed away";
    EXPECT_LE(v.hoists, yard.level().hoists);
    EXPECT_LT(v.wasted, 1e-9) << "only folds were made";
    EXPECT_FALSE(v.explained.empty());
    EXPECT_FALSE(yard.measure(library(), 0).empty()) << "it is over";
}
INSTANTIATE_TEST_SUITE_P(All, YardLevels, ::testing::Values("first-dipole", "end-fed", "linked", "coil-and-tips"), [](const auto& info) {
    std::string name = info.param;
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
});

TEST(Yard, DrawsTheSameBySeedAndOthersElse)
{
    Yard a = opened("first-dipole", 3), b = opened("first-dipole", 3), c = opened("first-dipole", 4);
    for (Yard* y : {&a, &b, &c})
        ASSERT_TRUE(y->measure(library(), 0).empty());
    EXPECT_EQ(a.notes().back().words.english(), b.notes().back().words.english());
    EXPECT_NE(a.notes().back().words.english(), c.notes().back().words.english());
}

TEST(Yard, CountsHoistsTimeAndWire)
{
    Yard yard = opened("first-dipole", 5);
    ASSERT_TRUE(yard.measure(library(), 0).empty());
    ASSERT_TRUE(yard.measure(library(), 0).empty());
    EXPECT_EQ(yard.hoistsUsed(), 1) << "a second sweep needs no hoist";
    ASSERT_TRUE(yard.change(0, 0.60, false).empty());
    EXPECT_NEAR(yard.shortened(0), 0.60, 1e-12);
    ASSERT_TRUE(yard.measure(library(), 0).empty());
    EXPECT_EQ(yard.hoistsUsed(), 2);
    EXPECT_EQ(yard.notes().back().seconds, 3 * yardSeconds(YardAct::Sweep) + yardSeconds(YardAct::Cut));
    ASSERT_TRUE(yard.hint(library()).empty());
    EXPECT_EQ(yard.hoistsUsed(), 3) << "a hint costs one";
    ASSERT_TRUE(yard.finish(library(), YardFault::TooLong).empty());
    EXPECT_GT(yard.verdict()->wasted, 0.3) << "sixty centimetres a side were too much";
    EXPECT_FALSE(yard.verdict()->passed);
}

TEST(Yard, RefusesWhatCannotBe)
{
    Yard yard = opened("first-dipole", 6);
    const std::size_t notes = yard.notes().size();
    EXPECT_FALSE(yard.change(0, 0.0, false).empty());
    EXPECT_FALSE(yard.change(0, 50.0, false).empty());
    EXPECT_FALSE(yard.change(7, 0.1, false).empty());
    EXPECT_FALSE(yard.change(0, -0.1, true).empty()) << "nothing is folded that could be let out";
    EXPECT_FALSE(yard.hoistTo(40.0).empty());
    EXPECT_FALSE(yard.hoistTo(std::nan("")).empty());
    EXPECT_EQ(yard.notes().size(), notes) << "and nothing is written of it";
    EXPECT_TRUE(yard.change(0, 0.1, true).empty());
    EXPECT_TRUE(yard.change(0, -0.1, true).empty());
}

// ---- signs

TEST(YardSigns, AMeterShowsThreeChannels)
{
    Yard yard = opened("only-a-meter", 2);
    ASSERT_TRUE(yard.measure(library(), 0).empty());
    ASSERT_EQ(yard.channels().size(), 3u);
    EXPECT_FALSE(yard.sweep());
    EXPECT_LT(yard.channels()[0].second, yard.channels()[2].second) << "too long: the low channel is the better one";
}

TEST(YardSigns, AHandMakesALongWireWorse)
{
    Yard yard = opened("first-dipole", 8);
    ASSERT_TRUE(yard.hand(library(), 0).empty());
    EXPECT_NE(yard.notes().back().words.english().find("rises"), std::string::npos);
    ASSERT_TRUE(yard.change(0, 0.5, true).empty());
    ASSERT_TRUE(yard.hand(library(), 0).empty());
    EXPECT_NE(yard.notes().back().words.english().find("falls"), std::string::npos);
}

TEST(YardSigns, ABadCrimpJumpsAndRaisesTheDip)
{
    Yard yard = withFault("will-not-come-down", YardFault::BadCrimp);
    std::vector<double> swrs;
    for (int i = 0; i < 4; ++i) {
        ASSERT_TRUE(yard.measure(library(), 0).empty());
        swrs.push_back(yard.sweep()->dip()->swr);
    }
    EXPECT_GT(*std::max_element(swrs.begin(), swrs.end()) / *std::min_element(swrs.begin(), swrs.end()), 1.1);
    EXPECT_GT(*std::max_element(swrs.begin(), swrs.end()), 1.8);
}

TEST(YardSigns, ALossyCoaxReadsLowWhereNothingShould)
{
    Yard lossy = withFault("will-not-come-down", YardFault::LossyCoax), good = withFault("will-not-come-down", YardFault::HungLow);
    for (Yard* y : {&lossy, &good})
        ASSERT_TRUE(y->measure(library(), 0).empty());
    EXPECT_LT(lossy.sweep()->points.front().swr, 0.75 * good.sweep()->points.front().swr);
    ASSERT_TRUE(lossy.load().empty() && good.load().empty());
    const auto openTop = [](const Yard& y) { return std::get<Measure>(y.notes().back().words.values[2]).value; };
    EXPECT_LT(openTop(lossy), 3.0);
    EXPECT_GT(openTop(good), 8.0);
}

TEST(YardSigns, ABadCalibrationReadsAKnownLoadWrong)
{
    Yard bad = withFault("will-not-come-down", YardFault::BadCalibration), good = withFault("will-not-come-down", YardFault::HungLow);
    ASSERT_TRUE(bad.load().empty() && good.load().empty());
    const auto known = [](const Yard& y) { return std::get<Measure>(y.notes().back().words.values[1]).value; };
    EXPECT_NEAR(known(good), 1.66, 0.01);
    EXPECT_GT(std::abs(known(bad) - 1.66), 0.1);
}

TEST(YardSigns, AnOhmmeterTellsATransformerFromADipole)
{
    Yard dipole = opened("first-dipole", 1), endFed = opened("end-fed", 1);
    ASSERT_TRUE(dipole.ohmmeter().empty() && endFed.ohmmeter().empty());
    EXPECT_NE(dipole.notes().back().words.english().find("open"), std::string::npos);
    EXPECT_NE(endFed.notes().back().words.english().find("short"), std::string::npos);
}

// More than a tape forgets: the coils of a seventh too few henries.
TEST(YardSigns, WrongTurnsPutTheDipFarOff)
{
    Yard wrong = withFault("coil-and-tips", YardFault::WrongTurns), plain = withFault("coil-and-tips", YardFault::TooLong);
    for (Yard* y : {&wrong, &plain})
        ASSERT_TRUE(y->measure(library(), 0).empty());
    const auto off = [](const Yard& y) { return y.sweep()->dip()->frequency / y.tasks().front().target - 1.0; };
    EXPECT_GT(off(wrong), 0.005);
    EXPECT_LT(off(plain), 0.0);
}

// ---- levels and score

TEST(YardLevelsData, AreWhole)
{
    std::set<std::string> ids, names;
    for (const YardLevel& level : yardLevels()) {
        EXPECT_TRUE(ids.insert(level.id).second) << level.id;
        EXPECT_EQ(findYardLevel(level.id), &level);
        EXPECT_TRUE(shapes::findFamily(level.family)) << level.family;
        EXPECT_FALSE(level.suspects.empty());
        EXPECT_GE(level.hoists, 3);
        EXPECT_GT(level.spare, 0.0);
        for (YardFault fault : level.suspects) {
            names.insert(yardFaultName(fault).english());
            EXPECT_FALSE(yardExplanation(fault).empty());
            for (const Text& t : yardExplanation(fault))
                EXPECT_GT(t.english().size(), 40u);
        }
    }
    EXPECT_EQ(names.size(), 7u) << "each fault is some level's, and named by itself";
    EXPECT_FALSE(findYardLevel("moon base"));
}

TEST(YardScore, AWrongNameIsNotPassed)
{
    Yard yard = withFault("will-not-come-down", YardFault::HungLow);
    workThrough(yard);
    ASSERT_TRUE(yard.finish(library(), YardFault::LossyCoax).empty());
    EXPECT_FALSE(yard.verdict()->right);
    EXPECT_FALSE(yard.verdict()->passed);
    EXPECT_EQ(yard.verdict()->explained.front().english(), yardExplanation(YardFault::HungLow).front().english()) << "what it really was";
    EXPECT_FALSE(yard.change(0, 0.1, true).empty());
    EXPECT_FALSE(yard.hint(library()).empty());
    EXPECT_FALSE(yard.ohmmeter().empty());
}

// Wire that was cut and is joined on again is lost at both ends of each piece.
TEST(YardScore, JoinedWireIsWasted)
{
    Yard yard = opened("first-dipole", 9);
    ASSERT_TRUE(yard.change(0, 0.10, false).empty());
    ASSERT_TRUE(yard.change(0, -0.10, false).empty());
    EXPECT_NEAR(yard.shortened(0), 0.0, 1e-12);
    ASSERT_TRUE(yard.measure(library(), 0).empty());
    ASSERT_TRUE(yard.finish(library(), YardFault::TooLong).empty());
    EXPECT_NEAR(yard.verdict()->wasted, 0.20, 1e-9) << "two pieces";
}

// Hung by the plan it stood too low; higher it is, and the sweep tells: that is the check for it.
TEST(YardScore, HeightIsALeverOfTheTest)
{
    Yard low = withFault("will-not-come-down", YardFault::HungLow);
    ASSERT_TRUE(low.measure(library(), 0).empty());
    const double before = low.sweep()->dip()->frequency;
    ASSERT_TRUE(low.hoistTo(4.0).empty());
    EXPECT_DOUBLE_EQ(low.higher(), 4.0);
    ASSERT_TRUE(low.measure(library(), 0).empty());
    EXPECT_EQ(low.hoistsUsed(), 2);
    EXPECT_GT(std::abs(low.sweep()->dip()->frequency - before), 1e4);
    ASSERT_TRUE(low.hoistTo(0.0).empty());
    EXPECT_NE(low.notes().back().words.english().find("where the plan"), std::string::npos);
    ASSERT_TRUE(low.hanging(0));
    EXPECT_FALSE(low.hanging(9));
}

TEST(YardScore, TheOldHandSpeaksOfWhatIsTheMatter)
{
    for (const auto& [fault, word] : std::initializer_list<std::pair<YardFault, const char*>>{{YardFault::LossyCoax, "coax"},
                                                                                              {YardFault::BadCalibration, "plug"},
                                                                                              {YardFault::BadCrimp, "twice"},
                                                                                              {YardFault::HungLow, "Hoist"}}) {
        Yard yard = withFault("will-not-come-down", fault);
        ASSERT_TRUE(yard.hint(library()).empty());
        EXPECT_NE(yard.notes().back().words.english().find(word), std::string::npos) << word;
    }
    Yard plain = opened("first-dipole", 2);
    ASSERT_TRUE(plain.hint(library()).empty());
    EXPECT_NE(plain.notes().back().words.english().find("measure"), std::string::npos);
}

} // namespace
} // namespace vetchling

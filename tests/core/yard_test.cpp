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
    EXPECT_EQ(v.bandsUnder, v.bands) << "a bad crimp that was found is crimped anew";
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

// ---- somebody who knows how, and somebody who does not, on every level with every fault

double valueOf(const YardNote& note, std::size_t place) { return std::get<Measure>(note.words.values[place]).value; }

/// Where a meter's three channels put the dip: the least of a parabola through them, no farther than the channels are apart.
double byChannels(const Yard& yard)
{
    const auto& c = yard.channels();
    const double step = c[1].first - c[0].first, curve = c[0].second - 2.0 * c[1].second + c[2].second;
    const double place = curve > 0.05 ? 0.5 * (c[0].second - c[2].second) / curve : c[0].second < c[2].second ? -1.5 : 1.5;
    return c[1].first + std::clamp(place, -1.5, 1.5) * step;
}

double dipRead(const Yard& yard) { return yard.level().meterOnly ? byChannels(yard) : yard.sweep()->dip()->frequency; }

/// By the signs alone, without a look at what was drawn.
YardFault diagnosed(Yard& yard)
{
    const auto& suspects = yard.level().suspects;
    const auto may = [&](YardFault f) { return std::find(suspects.begin(), suspects.end(), f) != suspects.end(); };
    EXPECT_TRUE(yard.measure(library(), 0).empty());
    if (suspects.size() == 1)
        return suspects.front();
    EXPECT_TRUE(yard.load().empty());
    const YardNote load = yard.notes().back();
    if (may(YardFault::BadCalibration) && std::abs(valueOf(load, 1) - valueOf(load, 0)) > 0.1)
        return YardFault::BadCalibration;
    if (may(YardFault::LossyCoax) && valueOf(load, 2) < 5.0)
        return YardFault::LossyCoax;
    double least = 100.0, most = 1.0; // again, with nothing touched
    for (int i = 0; i < 3; ++i) {
        EXPECT_TRUE(yard.measure(library(), 0).empty());
        least = std::min(least, yard.sweep()->dip()->swr), most = std::max(most, yard.sweep()->dip()->swr);
    }
    if (may(YardFault::BadCrimp) && most > 1.15 * least)
        return YardFault::BadCrimp;
    const MeasuredSweep& plan = *yard.planned(0);
    if (may(YardFault::WrongTurns))
        return dipRead(yard) > plan.dip()->frequency ? YardFault::WrongTurns : YardFault::TooLong;
    if (may(YardFault::WetSoil)) // the ground's: the least SWR, which a tape does not change
        return std::abs(std::log(yard.sweep()->dip()->swr / plan.dip()->swr)) > 0.12 ? YardFault::WetSoil : YardFault::TooLong;
    return may(YardFault::HungLow) ? YardFault::HungLow : YardFault::TooLong;
}

/// Folds each piece, inside out, as a plain wire answers, then as it did.
void fold(Yard& yard)
{
    for (std::size_t task = 0; task < yard.tasks().size(); ++task) {
        const TrimTask& t = yard.tasks()[task];
        const double length = shapes::familyOf(yard.plan().shape).value(yard.plan().shape, t.lever.parameter);
        double slope = t.target / length, before = 0.0, folded = 0.0;
        for (int visit = 0; visit < 4; ++visit) {
            ASSERT_TRUE(yard.measure(library(), task).empty());
            const double dip = dipRead(yard);
            if (std::abs(dip / t.target - 1.0) < 0.003)
                break;
            if (folded != 0.0 && (dip - before) / folded > 0.0)
                slope = (dip - before) / folded;
            before = dip;
            folded = std::clamp((t.target - dip) / slope, -0.2 * length, 0.2 * length);
            if (std::abs(folded) < 2e-3 || !yard.change(task, folded, folded > 0.0 || yard.shortened(task) > -folded).empty())
                break;
        }
    }
}

using Drawn = std::pair<std::string, YardFault>;

std::vector<Drawn> everyFault()
{
    std::vector<Drawn> all;
    for (const YardLevel& level : yardLevels())
        for (YardFault fault : level.suspects)
            all.emplace_back(level.id, fault);
    return all;
}

class YardPlayer : public ::testing::TestWithParam<Drawn> {};

TEST_P(YardPlayer, WhoMeasuresBeforeCuttingPasses)
{
    Yard yard = withFault(GetParam().first.c_str(), GetParam().second);
    const YardFault guess = diagnosed(yard);
    EXPECT_EQ(guess, GetParam().second) << "the signs tell " << yardFaultName(guess).english();
    if (guess == YardFault::HungLow) {
        ASSERT_TRUE(yard.hoistTo(4.5).empty()); // where the plan has it
    }
    fold(yard);
    ASSERT_TRUE(yard.finish(library(), guess).empty());
    std::string why;
    for (const Text& t : yard.verdict()->missing)
        why += t.english() + " ";
    EXPECT_TRUE(yard.verdict()->passed) << why;
    EXPECT_LT(yard.verdict()->wasted, 1e-9) << "only folds were made";
    for (const Text& t : yard.verdict()->explained)
        EXPECT_EQ(t.english().find("would have cost"), std::string::npos) << "nothing was cut";
}

TEST_P(YardPlayer, WhoCutsFirstDoesNotAndIsToldWhy)
{
    Yard yard = withFault(GetParam().first.c_str(), GetParam().second);
    ASSERT_TRUE(yard.measure(library(), 0).empty());
    const double length = shapes::familyOf(yard.plan().shape).value(yard.plan().shape, yard.tasks().front().lever.parameter);
    ASSERT_TRUE(yard.change(0, 0.2 * length, false).empty());
    ASSERT_TRUE(yard.measure(library(), 0).empty());
    ASSERT_TRUE(yard.finish(library(), GetParam().second).empty());
    EXPECT_FALSE(yard.verdict()->passed);
    EXPECT_LT(yard.verdict()->bandsUnder, yard.verdict()->bands);
    std::string why;
    for (const Text& t : yard.verdict()->missing)
        why += t.english() + " ";
    EXPECT_NE(why.find("of wire wasted"), std::string::npos) << why;
    EXPECT_NE(why.find("the SWR is"), std::string::npos) << why;
    EXPECT_EQ(why.find("hoists"), std::string::npos) << "of two hoists nobody complains: " << why;
}

INSTANTIATE_TEST_SUITE_P(All, YardPlayer, ::testing::ValuesIn(everyFault()), [](const auto& info) {
    std::string name = info.param.first + "_" + std::to_string(int(info.param.second));
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
});

// A cut that leaves the dip near enough is no waste, wherever within it lies.
TEST(YardScore, WhatIsNearEnoughIsNotWasted)
{
    Yard yard = opened("first-dipole", 5);
    ASSERT_TRUE(yard.measure(library(), 0).empty());
    const TrimTask& t = yard.tasks().front();
    const double length = shapes::familyOf(yard.plan().shape).value(yard.plan().shape, t.lever.parameter);
    const double dip = yard.sweep()->dip()->frequency;
    ASSERT_LT(dip, t.target);
    ASSERT_TRUE(yard.change(0, (1.003 * t.target - dip) * length / t.target, false).empty()); // 0.3 % beyond, of 0.5
    ASSERT_TRUE(yard.finish(library(), YardFault::TooLong).empty());
    EXPECT_EQ(yard.verdict()->wasted, 0.0);
    EXPECT_TRUE(yard.verdict()->passed);
}

TEST(YardScore, TooManyHoistsAreTold)
{
    Yard yard = opened("first-dipole", 5);
    for (int i = 0; i < yard.level().hoists; ++i)
        ASSERT_TRUE(yard.change(0, i % 2 ? -0.02 : 0.02, true).empty() && yard.measure(library(), 0).empty());
    fold(yard);
    ASSERT_TRUE(yard.change(0, 0.01, true).empty() && yard.measure(library(), 0).empty());
    ASSERT_TRUE(yard.finish(library(), YardFault::TooLong).empty());
    ASSERT_EQ(yard.verdict()->missing.size(), 1u);
    EXPECT_NE(yard.verdict()->missing.front().english().find("hoists"), std::string::npos);
}

// What the words of wet soil say, of the antenna itself.
TEST(YardSigns, WetSoilChangesTheLeastSwrAndHardlyTheDip)
{
    Yard wet = withFault("end-fed", YardFault::WetSoil);
    study::Subject plan;
    plan.shape = wet.plan().shape;
    plan.ground = {GroundKind::Real, 13.0, 0.005};
    study::Subject soaked = plan;
    soaked.ground = {GroundKind::Real, 39.0, 0.04};
    const double mark = wet.tasks().front().target;
    const double dry = dipNear(library(), plan, mark)->dip, then = dipNear(library(), soaked, mark)->dip;
    EXPECT_NEAR(then / dry, 1.0, 2e-3);
    ASSERT_TRUE(wet.measure(library(), 0).empty());
    EXPECT_GT(wet.sweep()->dip()->swr, 1.15 * wet.planned(0)->dip()->swr);
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
            for (const bool did : {false, true}) {
                const auto words = yardExplanation(fault, {did, did, did, did, did});
                EXPECT_FALSE(words.empty());
                for (const Text& t : words)
                    EXPECT_GT(t.english().size(), 30u);
            }
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
    EXPECT_EQ(yard.verdict()->explained.front().english(), yardExplanation(YardFault::HungLow, {}).front().english())
        << "what it really was";
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

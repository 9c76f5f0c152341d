/// What to do next: the estimate, tasks and their order, heights, and a simulated builder who follows the advice.
#include "core/study/answers.h"
#include "core/trim/fold.h"
#include "core/trim/measure_card.h"
#include "core/tune/tune.h"
#include "tests/core/shape_helpers.h"
#include "tests/long_form.h"
#include "tests/validation/trim_builder.h"

namespace vetchling {
namespace {

using namespace vetchling::shapes;

TEST(Estimate, OneReadingIsAnOffsetAndTheFactorStaysThePrior)
{
    const DipEstimate e = estimateDip({{7.00e6, 7.05e6, 3e3}});
    EXPECT_NEAR(e.at(7.05e6), 7.00e6, 100.0);
    EXPECT_NEAR(e.factor, 1.0, 1e-9);
    EXPECT_NEAR(e.sure(7.05e6), 3e3, 30.0);
    EXPECT_GT(e.sure(7.20e6), 0.045 * 150e3) << "farther off nobody knows so well";
    EXPECT_NEAR(e.modelled(e.at(7.1e6)), 7.1e6, 1e-3);
}

TEST(Estimate, ManyReadingsTeachTheFactor)
{
    std::vector<DipReading> readings;
    for (double modelled : {6.9e6, 7.0e6, 7.1e6, 7.2e6})
        readings.push_back({6.8e6 + 0.85 * (modelled - 6.9e6), modelled, 2e3});
    const DipEstimate e = estimateDip(readings, {0.03, 0.3});
    EXPECT_NEAR(e.factor, 0.85, 0.01);
    EXPECT_NEAR(e.at(7.3e6), 6.8e6 + 0.85 * 0.4e6, 3e3);
    EXPECT_LT(e.sure(7.2e6), 2.5e3);
}

Antenna dipoleAt(double leg)
{
    Antenna a;
    a.shape = shapeOf("dipole", {{"leg_m", leg}, {"apex_height_m", 10.0}, {"end_height_m", 10.0}}, 14.15e6);
    return a;
}

TrimQuestion asked(const Antenna& a)
{
    TrimQuestion q;
    q.subject.shape = a.shape;
    q.subject.ground = testing::averageSoil;
    q.antenna = a;
    return q;
}

TrimNext nextOf(const Antenna& a, study::Library& library)
{
    const auto outcome = trimNext(library, asked(a));
    EXPECT_TRUE(outcome.ok()) << outcome.firstFault();
    return outcome.ok() ? outcome->next : TrimNext{};
}

Measurement measured(double dip, double cut = 0.0)
{
    Measurement m;
    m.dip = dip;
    m.cutSinceLast = cut;
    return m;
}

TEST(Trim, MeasuresFirstThenCutsMostOfItThenIsDone)
{
    study::Library library;
    Antenna a = dipoleAt(5.1);
    EXPECT_EQ(nextOf(a, library).step, TrimStep::Measure);
    const double model = nextOf(a, library).modelDip;
    a.trim.target = model + 250e3;
    a.trim.measurements = {measured(model)};
    const TrimNext cut = nextOf(a, library);
    EXPECT_EQ(cut.step, TrimStep::Cut);
    EXPECT_LT(cut.change, 0.0);
    EXPECT_LT(cut.predicted, a.trim.target + 0.5 * cut.tolerance) << "never past the mark";
    EXPECT_GT(cut.predicted, model + 0.6 * 250e3) << "most of it";
    EXPECT_NEAR(cut.slope * cut.change, cut.predicted - model, 0.1 * 250e3);
    EXPECT_NEAR(std::remainder(cut.change, 0.005), 0.0, 1e-9) << "what a tape shows";
    a.trim.measurements.push_back(measured(a.trim.target - 0.3 * cut.tolerance, -cut.change));
    EXPECT_EQ(nextOf(a, library).step, TrimStep::Done);
}

TEST(Trim, ThePlanIsNotChangedByACut)
{
    Antenna a = dipoleAt(5.1);
    a.trim.measurements = {measured(13.9e6), measured(14.0e6, 0.04), measured(14.1e6, 0.03)};
    EXPECT_NEAR(asLogged(a).parameters.at("leg_m"), 5.03, 1e-12);
    EXPECT_NEAR(asLogged(a, 2).parameters.at("leg_m"), 5.06, 1e-12);
    EXPECT_EQ(a.shape.parameters.at("leg_m"), 5.1);
}

TEST(Trim, TooShortIsLengthenedAllTheWay)
{
    study::Library library;
    Antenna a = dipoleAt(5.0);
    const double model = nextOf(a, library).modelDip;
    a.trim.target = model - 200e3;
    a.trim.measurements = {measured(model)};
    const TrimNext next = nextOf(a, library);
    EXPECT_EQ(next.step, TrimStep::Lengthen);
    EXPECT_GT(next.change, 0.0);
    EXPECT_NEAR(next.predicted, a.trim.target, next.tolerance);
}

/// What an instrument reads through a cable that loses so many dB one way, of the model moved down by a part of the frequency.
Measurement sweptThrough(double loss, const Antenna& a, study::Library& library, double moved)
{
    study::Question q;
    q.subject.shape = a.shape;
    q.subject.ground = testing::averageSoil;
    WantedBand wide;
    wide.band = {"wide", 12.0e6, 16.0e6};
    wide.wish = Wish::Must;
    wide.id = "wide";
    q.bands = {wide};
    const auto curve = study::curveOf(library, q);
    EXPECT_TRUE(curve.ok());
    MeasuredSweep sweep;
    for (double f = 12.6e6; f <= 15.2e6; f += 50e3) {
        const Complex z = (*curve)->atLine(f * moved), gamma = (z - 50.0) / (z + 50.0) * std::pow(10.0, -loss / 10.0);
        sweep.points.push_back({f, std::nullopt, (1.0 + std::abs(gamma)) / (1.0 - std::abs(gamma))});
    }
    Measurement m;
    takeSweep(sweep, m);
    return m;
}

TEST(Trim, DoubtStopsTheSawAndKeepsTheLengthBehindIt)
{
    study::Library library;
    Antenna a = dipoleAt(5.1);
    a.trim.target = nextOf(a, library).modelDip + 250e3;
    a.trim.measurements = {sweptThrough(0.0, a, library, 1.004)};
    const TrimNext good = nextOf(a, library);
    EXPECT_EQ(good.step, TrimStep::Cut);
    EXPECT_FALSE(good.behind);
    a.trim.measurements = {sweptThrough(3.0, a, library, 1.004)};
    const TrimNext doubted = nextOf(a, library);
    EXPECT_EQ(doubted.step, TrimStep::Check);
    EXPECT_EQ(doubted.change, 0.0);
    EXPECT_EQ(doubted.words.english(), checkFirst(SenseSign::LossyCable).english());
    ASSERT_TRUE(doubted.behind);
    EXPECT_EQ(doubted.behind->step, TrimStep::Cut);
    EXPECT_NEAR(doubted.behind->change, good.change, 0.02) << "a lossy cable hides the match, hardly the dip";
    // two sweeps of one state that differ are something loose; two dips that were typed may be a fold let out
    a.trim.measurements = {measured(a.trim.target - 200e3), measured(a.trim.target - 120e3)};
    EXPECT_EQ(nextOf(a, library).step, TrimStep::Cut);
    for (double moved : {1.012, 1.004})
        a.trim.measurements[moved > 1.01 ? 0 : 1] = sweptThrough(0.0, a, library, moved);
    EXPECT_EQ(nextOf(a, library).step, TrimStep::Check);
    a.trim.measurements[0].instrument = "bridge";
    a.trim.measurements[1].instrument = "analyser";
    EXPECT_EQ(nextOf(a, library).step, TrimStep::Cut) << "two instruments are no loose joint";
}

TEST(Trim, ADipThatCannotBeIsQuestionedBeforeAnythingIsCut)
{
    study::Library library;
    Antenna a = dipoleAt(5.1);
    a.trim.measurements = {measured(11.0e6)};
    const TrimNext next = nextOf(a, library);
    EXPECT_EQ(next.step, TrimStep::Check);
    EXPECT_EQ(next.change, 0.0);
    EXPECT_NE(next.words.english().find("before anything is cut"), std::string::npos);
}

// Low over the soil the dip lies elsewhere: there one aims at what will be right up there.
TEST(Trim, MeasuredLowAimsAtWhatIsRightUpThere)
{
    study::Library library;
    Antenna a = dipoleAt(5.1);
    const double up = nextOf(a, library).modelDip;
    study::Subject low = asked(a).subject;
    low.shape = raised(a.shape, -7.0);
    const double down = dipNear(library, low, 14.15e6)->dip;
    ASSERT_GT(std::abs(down - up), 20e3) << "the heights differ enough to matter";
    Measurement m = measured(down);
    m.height = 3.0;
    a.trim.measurements = {m};
    a.trim.target = up;
    const TrimNext next = nextOf(a, library);
    EXPECT_EQ(next.step, TrimStep::Done) << "down here it is off, up there it is right";
    EXPECT_NEAR(next.aim, down, 5e3);
    a.trim.measurements.front().height.reset();
    EXPECT_NE(nextOf(a, library).step, TrimStep::Done);
}

TEST(Trim, LinksGoInsideOutAndAnInnerCutAsksForTheOuterAgain)
{
    study::Library library;
    Antenna a;
    a.shape = shapeOf("linked-dipole", {{"apex_height_m", 10.0}, {"end_height_m", 9.0}}, 14.15e6);
    const auto tuned = tuneAll(a.shape, testing::averageSoil, library.tables());
    ASSERT_TRUE(tuned.ok());
    for (const TunedValue& v : tuned->lengths)
        a.shape.parameters[v.length.parameter] = v.value;
    const auto tasks = trimTasks(a);
    ASSERT_EQ(tasks.size(), 2u);
    EXPECT_GT(tasks[0].target, tasks[1].target) << "the highest band first";
    Measurement inner = measured(tasks[0].target);
    inner.configuration = 0;
    a.trim.measurements = {inner};
    auto outcome = trimNext(library, asked(a));
    EXPECT_EQ(outcome->states[0], TrimStep::Done);
    EXPECT_EQ(outcome->next.task, 1u);
    EXPECT_EQ(outcome->next.step, TrimStep::Measure);
    Measurement outer = measured(tasks[1].target);
    outer.configuration = 1;
    a.trim.measurements.push_back(outer);
    EXPECT_EQ(trimNext(library, asked(a))->next.step, TrimStep::Done);
    inner.cutSinceLast = 0.02;
    inner.dip *= 1.002;
    a.trim.measurements.push_back(inner);
    EXPECT_EQ(trimNext(library, asked(a))->next.step, TrimStep::Measure) << "the outer one once more";
}

// A dip that jumped without a cut: what was read before tells little of what is now.
TEST(Trim, AJumpIsBelievedAndNotAveragedAway)
{
    study::Library library;
    Antenna a = dipoleAt(5.1);
    const double model = nextOf(a, library).modelDip;
    a.trim.target = model;
    a.trim.measurements = {measured(model - 150e3), measured(model + 300e3)};
    const TrimNext next = nextOf(a, library);
    EXPECT_EQ(next.step, TrimStep::Lengthen);
    a.trim.measurements.pop_back();
    EXPECT_EQ(nextOf(a, library).step, TrimStep::Cut);
    EXPECT_NEAR(next.learned.at(next.modelDip), model + 300e3, 20e3);
}

/// The length whose dip lies on a task's target.
double lengthOfDip(study::Library& library, AntennaShape shape, const TrimTask& task)
{
    double low = 0.9 * shape.parameters.at(task.lever.parameter), high = 1.1 * low / 0.9;
    for (int i = 0; i < 24; ++i) {
        study::Subject subject;
        subject.ground = testing::averageSoil;
        subject.configuration = task.configuration;
        subject.shape = shape;
        const double middle = 0.5 * (low + high);
        subject.shape.parameters[task.lever.parameter] = middle;
        (dipNear(library, subject, task.target)->dip > task.target ? low : high) = middle;
    }
    return 0.5 * (low + high);
}

// Three bands, the inner sections too long: each is trimmed by what it says, and all end where they should.
TEST(Trim, ALinkedAntennaEndsWithinACentimetreOfTheRightLengths)
{
    study::Library library;
    Antenna plan;
    plan.shape = shapeOf(
        "linked-dipole",
        {{"band_count", 3.0}, {"frequency_2_Hz", 10.12e6}, {"frequency_3_Hz", 7.1e6}, {"apex_height_m", 11.0}, {"end_height_m", 10.0}},
        14.15e6);
    const auto tuned = tuneAll(plan.shape, testing::averageSoil, library.tables());
    ASSERT_TRUE(tuned.ok()) << tuned.firstFault();
    for (const TunedValue& v : tuned->lengths)
        plan.shape.parameters[v.length.parameter] = v.value;
    const auto tasks = trimTasks(plan);
    AntennaShape right = plan.shape; // what is tuned is without reactance; what is trimmed has its lowest SWR there
    for (const TrimTask& t : tasks)
        right.parameters[t.lever.parameter] = lengthOfDip(library, right, t);
    const std::array<const char*, 3> paths{"leg_m", "leg_2_m", "leg_3_m"};
    AntennaShape built = right; // sections are tied to one another: what an inner one is too long, all paths beyond are
    for (std::size_t i = 0; i < paths.size(); ++i)
        for (std::size_t beyond = i; beyond < paths.size(); ++beyond)
            built.parameters[paths[beyond]] += std::array{0.14, 0.10, 0.08}[i];
    double cut = 0.0;
    std::size_t of = 0;
    for (int visit = 0; visit < 20; ++visit) {
        const auto outcome = trimNext(library, asked(plan));
        ASSERT_TRUE(outcome.ok()) << outcome.firstFault();
        const TrimNext& next = outcome->next;
        if (next.step == TrimStep::Done)
            break;
        if (next.change != 0.0) {
            ASSERT_EQ(tasks[next.task].lever.parameter, paths[next.task]);
            for (std::size_t beyond = next.task; beyond < paths.size(); ++beyond)
                built.parameters[paths[beyond]] += next.change;
            cut = -next.change;
        }
        of = next.task;
        study::Subject subject = asked(plan).subject;
        subject.shape = built;
        subject.configuration = tasks[of].configuration;
        Measurement m = measured(dipNear(library, subject, tasks[of].target)->dip, cut);
        m.configuration = tasks[of].configuration;
        m.parameter = tasks[of].lever.parameter;
        plan.trim.measurements.push_back(m);
        cut = 0.0;
    }
    for (const TrimTask& t : tasks)
        EXPECT_NEAR(built.parameters.at(t.lever.parameter), right.parameters.at(t.lever.parameter), 0.0105) << t.lever.parameter;
}

// 40 m is finished and 60 m is looked at: every figure is of 60 m; and 60 m waits as long as 40 m is not finished.
TEST(Trim, OfLinksTheOneThatIsAskedForIsTold)
{
    study::Library library;
    Antenna a;
    a.shape =
        shapeOf("linked-dipole", {{"band_count", 2.0}, {"frequency_2_Hz", 5.36e6}, {"apex_height_m", 12.0}, {"end_height_m", 9.0}}, 7.08e6);
    const auto tuned = tuneAll(a.shape, testing::averageSoil, library.tables());
    ASSERT_TRUE(tuned.ok()) << tuned.firstFault();
    for (const TunedValue& v : tuned->lengths)
        a.shape.parameters[v.length.parameter] = v.value;
    const auto of = [&](std::size_t task) {
        TrimQuestion q = asked(a);
        q.task = task;
        const auto outcome = trimNext(library, q);
        EXPECT_TRUE(outcome.ok()) << outcome.firstFault();
        return outcome.ok() ? *outcome : TrimOutcome{};
    };
    const auto dipNow = [&](std::size_t task, double off) {
        Measurement m = measured(of(task).next.modelDip + off);
        m.parameter = trimTasks(a)[task].lever.parameter;
        m.configuration = task;
        return m;
    };
    a.trim.measurements.push_back(dipNow(0, -120e3));
    a.trim.measurements.push_back(dipNow(1, -110e3));
    const TrimOutcome waiting = of(1);
    EXPECT_EQ(waiting.working, 0u);
    EXPECT_EQ(waiting.next.task, 1u);
    EXPECT_EQ(waiting.next.step, TrimStep::Check);
    EXPECT_EQ(waiting.next.change, 0.0) << "nothing is cut outside before what lies inside is finished";
    EXPECT_EQ(waiting.next.waitsFor, std::optional<std::size_t>(0));
    EXPECT_NE(waiting.next.words.english().find("First finish"), std::string::npos);
    Measurement absurd = a.trim.measurements.back(); // a doubt about the outer one is no way round the inner one
    absurd.sweep = {{5.2e6, 0.8}, {5.36e6, 0.5}, {5.5e6, 0.9}};
    std::swap(absurd, a.trim.measurements.back());
    EXPECT_EQ(of(1).next.step, TrimStep::Check);
    EXPECT_FALSE(of(1).next.behind);
    a.trim.measurements.back() = absurd;
    EXPECT_EQ(of(0).next.step, TrimStep::Cut);
    a.trim.measurements.push_back(dipNow(0, 0.0));
    const TrimOutcome now = of(1);
    EXPECT_EQ(now.states[0], TrimStep::Done);
    EXPECT_EQ(now.working, 1u);
    EXPECT_EQ(now.next.step, TrimStep::Cut);
    EXPECT_NEAR(now.next.modelDip, 5.36e6, 60e3);
    EXPECT_NEAR(now.next.learned.at(now.next.modelDip), a.trim.measurements[1].dip, 3e3) << "learned from its own dips alone";
    EXPECT_EQ(of(0).next.step, TrimStep::Done) << "and of the inner one what is true of it";
}

TEST(Trim, AMeasurementBelongsToWhatItNamesElseToTheNearestTarget)
{
    Antenna a;
    a.shape = shapeOf("fan-dipole", {}, 14.15e6);
    const auto tasks = trimTasks(a);
    ASSERT_GE(tasks.size(), 2u);
    EXPECT_LT(tasks[0].target, tasks[1].target) << "the longest pair first";
    EXPECT_EQ(taskOf(tasks, measured(0.99 * tasks[1].target)), 1u);
    Measurement named = measured(0.99 * tasks[1].target);
    named.parameter = tasks[0].lever.parameter;
    EXPECT_EQ(taskOf(tasks, named), 0u);
}

TEST(MeasureCard, AnOhmmeterFindsLoopsAndWindings)
{
    const auto joined = [](const char* family) { return joinedForDirectCurrent(built(shapeOf(family, {}, 14.15e6))); };
    for (const char* loop : {"delta-loop", "folded-dipole", "end-fed"})
        EXPECT_TRUE(joined(loop)) << loop;
    for (const char* open : {"dipole", "vertical", "loaded-dipole", "fan-dipole"})
        EXPECT_FALSE(joined(open)) << open;
}

TEST(MeasureCard, TheSweepHoldsDipAndGoalWithRoom)
{
    study::Library library;
    Antenna a = dipoleAt(5.2);
    a.trim.measurements = {measured(13.7e6)};
    const auto outcome = trimNext(library, asked(a));
    ASSERT_TRUE(outcome.ok());
    const MeasureCard card = measureCardOf(*outcome, built(a.shape));
    EXPECT_LT(card.from, 0.981 * std::min(outcome->next.modelDip, 14.15e6));
    EXPECT_GT(card.to, 1.019 * 14.15e6);
    EXPECT_GT(outcome->next.width, 100e3);
    EXPECT_NEAR(card.step, 0.1 * outcome->next.width, 1.0);
    EXPECT_FALSE(card.direct);
    ASSERT_GE(card.steps.size(), 6u);
    EXPECT_NE(card.steps[0].english().find("open"), std::string::npos);
}

// His antenna is points of wire that he saws: it shares no lever and no parameter with the model.
class Builder : public ::testing::TestWithParam<std::string> {};

TEST_P(Builder, WhoFollowsTheAdviceIsSoonDone)
{
    const auto& most = testing::trimmedFamilies();
    const bool linked = GetParam().find("linked") == 0 || GetParam().find("fan") == 0 || GetParam().find("trap") == 0;
    if (!testing::longForm() && !linked && std::find(most.begin(), most.end(), GetParam()) == most.end())
        GTEST_SKIP() << "in the long form";
    study::Library library;
    std::mt19937 random(20261127);
    const testing::TrimRun run = testing::trimOne(GetParam(), random, library);
    if (!run.dip)
        GTEST_SKIP() << "this one has no dip that could be measured";
    const int tasks = int(trimTasks([] {
                              Antenna a;
                              a.shape = findFamily(GetParam())->standardShape(14.15e6);
                              return a;
                          }())
                              .size());
    EXPECT_TRUE(run.finished) << run.lever << ", off by " << run.off;
    EXPECT_LE(run.cuts, 3 * tasks);
    EXPECT_FALSE(run.passedMark);
}

// What the advice takes a cut to do, and what sawing does: a hundredth of each trimmed length, solved directly.
TEST_P(Builder, SawsAsTheSlopeSays)
{
    study::Library library;
    Antenna plan;
    plan.shape = findFamily(GetParam())->standardShape(14.15e6);
    if (const auto tuned = tuneAll(plan.shape, testing::averageSoil, library.tables()))
        for (const TunedValue& v : tuned->lengths)
            plan.shape.parameters[v.length.parameter] = v.value;
    const auto tasks = trimTasks(plan);
    for (std::size_t i = 0; i < tasks.size(); ++i) {
        const TrimTask& task = tasks[i];
        std::vector<BuiltAntenna> drawn;
        for (std::size_t k = 0; k < familyOf(plan.shape).configurations(plan.shape).size(); ++k)
            drawn.push_back(*buildOver(plan.shape, testing::averageSoil, k));
        const double cut = 0.01 * familyOf(plan.shape).value(plan.shape, task.lever.parameter);
        testing::HeldAntenna whole(drawn), shorter(drawn);
        shorter.take(*testing::gripOf(GetParam(), task.lever.parameter), cut);
        const auto low = whole.dip(library, testing::averageSoil, task.configuration, task.target),
                   high = shorter.dip(library, testing::averageSoil, task.configuration, task.target);
        ASSERT_TRUE(high && low) << task.lever.parameter;
        TrimQuestion q = asked(plan);
        q.task = i;
        const auto outcome = trimNext(library, q);
        ASSERT_TRUE(outcome.ok()) << outcome.firstFault();
        const double sawn = high->frequency - low->frequency;
        EXPECT_NEAR(-outcome->next.modelSlope * cut, sawn, 0.03 * std::abs(sawn) + 2e3) << task.lever.parameter;
    }
}

INSTANTIATE_TEST_SUITE_P(Held, Builder, ::testing::ValuesIn(testing::heldFamilies()), [](const auto& info) {
    std::string name = info.param;
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
});

// A fold is a shorter wire with a thicker end: less than a cut, by a few percent for a thin wire, more for a thicker one.
TEST(Fold, DoesALittleLessThanACut)
{
    study::Library library;
    double before = 1.0;
    for (double diameter : {0.0006, 0.0016, 0.004}) {
        study::Subject uncut;
        uncut.shape = findFamily("dipole")->standardShape(7.1e6);
        uncut.shape.wire.diameter = diameter;
        uncut.shape.wire.jacket = 0.0;
        uncut.ground = {GroundKind::Real, 13.0, 0.005};
        study::Subject cut = uncut;
        cut.shape.parameters["leg_m"] = familyOf(uncut.shape).value(uncut.shape, "leg_m") - 0.2;
        const auto a = dipNear(library, uncut, 7.1e6), b = dipNear(library, cut, 7.1e6);
        ASSERT_TRUE(a && b);
        const auto ratio = *foldOverCut(library, uncut, cut, 0.2, b->dip, b->dip - a->dip);
        ASSERT_TRUE(ratio) << diameter;
        EXPECT_LT(*ratio, before) << "the thicker, the less";
        before = *ratio;
        // the end's charge a metre grows as the logarithm of its radius: ln sqrt(2.2) over ln (reach / a), the reach being of the fold's
        // order
        const double expected = 0.5 * std::log(2.2) / std::log(2.0 * 0.2 / (0.5 * diameter));
        EXPECT_NEAR(1.0 - *ratio, expected, 0.5 * expected) << diameter;
    }
    study::Subject subject;
    subject.shape = findFamily("delta-loop")->standardShape(14.1e6);
    EXPECT_FALSE(*foldOverCut(library, subject, subject, 0.1, 14.1e6, 1e5)) << "a loop has no end to fold";
}

/// Hz without reactance near 7 MHz.
double resonanceOf(study::Library& library, const WireModel& model)
{
    const auto curve = library.study(model)->curve({6.6e6, 7.7e6});
    EXPECT_TRUE(curve.ok()) << curve.firstFault();
    double low = 6.6e6, high = 7.7e6;
    for (int i = 0; i < 40; ++i)
        ((*curve)->at(0.5 * (low + high)).imag() < 0.0 ? low : high) = 0.5 * (low + high);
    return low;
}

// The wire bent back beside itself, drawn and solved as it is, and the thick end that stands for it.
TEST(Fold, AThickEndDoesWhatTheBentWireDoes)
{
    study::Library library;
    constexpr double half = 10.2, folded = 0.3, radius = 0.0005, apart = 4.0 * radius;
    const auto dipole = [](std::vector<Vec3> points, double feed) {
        WireModel model;
        Wire wire;
        wire.id = "a";
        wire.points = std::move(points);
        wire.radius = radius;
        model.wires = {wire};
        model.feeds = {{0, feed}};
        return model;
    };
    const double k = half - folded;
    const double
        whole = resonanceOf(library, dipole({{0, -half, 9}, {0, half, 9}}, half)),
        cut = resonanceOf(library, dipole({{0, -k, 9}, {0, k, 9}}, k)),
        bent = resonanceOf(
            library,
            dipole({{0, -k + folded, 9 + apart}, {0, -k, 9 + apart}, {0, -k, 9}, {0, k, 9}, {0, k, 9 + apart}, {0, k - folded, 9 + apart}},
                   folded + apart + k));
    WireModel thick = dipole({{0, -k + folded, 9}, {0, k - folded, 9}}, k - folded);
    for (double side : {-1.0, 1.0}) {
        Wire end = thick.wires.front();
        end.id = side < 0.0 ? "b" : "c";
        end.points = {{0, side * (k - folded), 9}, {0, side * k, 9}};
        end.radius = std::sqrt(radius * apart);
        thick.wires.push_back(end);
    }
    const double does = (bent - whole) / (cut - whole);
    EXPECT_NEAR(does, 0.86, 0.02) << "a seventh less than a cut, four radii apart";
    EXPECT_NEAR((resonanceOf(library, thick) - whole) / (cut - whole), does, 0.01);
}

TEST(Fold, IsOfferedBesideACut)
{
    study::Library library;
    const Antenna antenna = [] {
        Antenna a;
        a.shape = findFamily("dipole")->standardShape(14.1e6);
        a.trim.measurements.push_back({});
        a.trim.measurements.back().dip = 13.7e6;
        return a;
    }();
    TrimQuestion asked;
    asked.subject.shape = antenna.shape;
    asked.subject.ground = {GroundKind::Real, 13.0, 0.005};
    asked.antenna = antenna;
    const auto outcome = trimNext(library, asked);
    ASSERT_TRUE(outcome.ok());
    ASSERT_EQ(outcome->next.step, TrimStep::Cut);
    EXPECT_GT(outcome->next.fold, -outcome->next.change);
    EXPECT_LT(outcome->next.fold, -1.2 * outcome->next.change);
}

// The last bit by what can be set back: the height of a dipole's ends, where that reaches the goal.
class OtherLevers : public ::testing::TestWithParam<const char*> {};

TEST_P(OtherLevers, BringTheDipThereToo)
{
    study::Library library;
    Antenna antenna;
    antenna.shape = findFamily(GetParam())->standardShape(14.1e6);
    if (antenna.shape.family == "whip-pair")
        antenna.shape.parameters["opening_deg"] = 110.0; // a straight one answers to no angle
    TrimQuestion asked;
    asked.subject.shape = antenna.shape;
    asked.subject.ground = {GroundKind::Real, 13.0, 0.005};
    if (const auto tuned = tuneAll(antenna.shape, asked.subject.ground, library.tables()))
        for (const TunedValue& v : tuned->lengths)
            antenna.shape.parameters[v.length.parameter] = v.value;
    asked.subject.shape = antenna.shape;
    const auto plain = dipNear(library, asked.subject, 14.1e6);
    ASSERT_TRUE(plain.ok());
    antenna.trim.target = plain->dip;
    Measurement m;
    m.dip = 0.9935 * plain->dip;
    antenna.trim.measurements = {m};
    asked.antenna = antenna;
    const auto outcome = trimNext(library, asked);
    ASSERT_TRUE(outcome.ok()) << outcome.firstFault();
    ASSERT_NE(outcome->next.change, 0.0);
    ASSERT_TRUE(outcome->next.other);
    study::Subject moved = asked.subject;
    const std::string& key = outcome->next.other->lever.parameter;
    moved.shape.parameters[key] = familyOf(antenna.shape).value(antenna.shape, key) + outcome->next.other->change;
    const auto then = dipNear(library, moved, 14.1e6);
    EXPECT_NEAR(then->dip - plain->dip, plain->dip - m.dip, outcome->next.tolerance + 0.25 * (plain->dip - m.dip));
}
INSTANTIATE_TEST_SUITE_P(Families, OtherLevers, ::testing::Values("loaded-dipole", "whip-pair", "whip", "mobile-whip"),
                         [](const auto& info) {
                             std::string name = info.param;
                             std::replace(name.begin(), name.end(), '-', '_');
                             return name;
                         });

} // namespace
} // namespace vetchling

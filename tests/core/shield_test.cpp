/// The coax's outside as a wire: joined to the feedpoint, with chokes, along the site's route.
#include "core/study/shield.h"
#include "tests/core/demo.h"
#include "tests/core/helpers.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

using testing::Demo;

struct Garden {
    Demo demo;
    shapes::BuiltAntenna built;
    study::Shield shield;
    double frequency = 7.1e6;
    em::GroundTableCache tables;

    explicit Garden(const std::string& name = "Tower V 60/40")
        : built(*shapes::buildOver(demo.antenna(name).shape, demo.design.site.soil.ground())),
          shield(*study::shieldAlong(demo.design.site, built, true))
    {
    }
    [[nodiscard]] em::Solution solve(const WireModel& model)
    {
        return *em::solve(std::make_shared<const WireModel>(model), frequency, tables);
    }
    [[nodiscard]] em::Solution with(const std::vector<study::ShieldChoke>& chokes)
    {
        return solve(*study::withShield(built, shield, chokes, frequency));
    }
    [[nodiscard]] std::size_t wire() const { return built.model.wires.size(); }
};

study::ShieldChoke chokeOf(double ohm, double at)
{
    ChainPart choke = newPart(part::choke);
    choke.values = {{"choking_ohm", ohm}, {"choking_H", 0.0}};
    return {at, choke};
}

TEST(Shield, RunsDownAndAlongTheRouteToTheEntry)
{
    Garden g;
    const auto& points = g.shield.points;
    ASSERT_GE(points.size(), 3u);
    EXPECT_NEAR(points[0].z, g.built.feedPoint.z, 0.1);
    EXPECT_NEAR(distance(points[0], g.built.feedPoint), 0.05, 0.02); // beside the gap, not on it
    EXPECT_NEAR(points[1].z, 0.02, 1e-9);
    const PlanPoint entry = g.demo.design.site.feedEntry;
    EXPECT_EQ(points.back().x, entry.x);
    EXPECT_EQ(points.back().y, entry.y);
    const double straight = study::lengthOf(g.shield);
    Site site = g.demo.design.site;
    site.coaxRoute = {{2.0, 2.0}, {30.0, 2.0}};
    EXPECT_GT(study::lengthOf(*study::shieldAlong(site, g.built, true)), straight + 10.0);
}

TEST(Shield, AnotherVertexOnTheWireChangesNothing)
{
    Garden g;
    study::Shield none = g.shield;
    none.earthed = false;
    // a shield that is cut off behind a metre by a huge resistance at its root is hardly there
    const em::Solution with = g.solve(*study::withShield(g.built, none, {chokeOf(1e6, 0.0)}, g.frequency)),
                       without = g.solve(g.built.model);
    EXPECT_LT(std::abs(with.impedance - without.impedance), 0.05 * std::abs(without.impedance));
}

TEST(Shield, AChokeOfNothingIsNone)
{
    Garden g;
    ChainPart nothing = newPart(part::choke);
    nothing.values["choking_ohm"] = 0.0;
    EXPECT_EQ(g.with({}).impedance, g.with({{3.0, nothing}}).impedance);
    EXPECT_LT(std::abs(g.with({}).impedance - g.with({chokeOf(1e-6, 3.0)}).impedance), 0.01 * std::abs(g.with({}).impedance));
}

TEST(Shield, TheMoreAChokeChokesTheLessFlowsThroughIt)
{
    Garden g;
    double before = 1e9;
    for (double ohm : {10.0, 300.0, 1000.0, 3000.0, 30000.0}) {
        const em::Solution s = g.with({chokeOf(ohm, 4.0)});
        const double through = std::abs(s.currentAt(g.wire(), 4.0)) / std::sqrt(s.inputPower);
        EXPECT_LT(through, before * 1.02) << ohm;
        before = through;
    }
    // a big one sees a voltage that hardly changes any more: ten times the ohms, nearly a tenth of the current
    const auto flows = [&](double ohm) {
        const em::Solution s = g.with({chokeOf(ohm, 4.0)});
        return std::abs(s.currentAt(g.wire(), 4.0)) / std::sqrt(s.inputPower);
    };
    EXPECT_GT(flows(3e4) / flows(3e5), 7.0);
    EXPECT_LT(flows(3e4) / flows(3e5), 10.5);
}

TEST(Shield, ItsPowerBalances)
{
    Garden g;
    const em::Solution s = g.with({chokeOf(500.0, 6.0)});
    const auto ledger = em::powerLedger(s, g.tables);
    ASSERT_TRUE(ledger.ok());
    EXPECT_NEAR(ledger->sum(), 1.0, 0.02);
    const double heat = 0.5 * std::norm(s.currentAt(g.wire(), 6.0)) * 500.0 / s.inputPower;
    EXPECT_NEAR(ledger->loads, heat, 0.02 * heat + 1e-4);
}

// An end-fed wire whose return is the coax has it once: the whole of it with a choke that lets nothing through is the part up to there.
TEST(Shield, OfAReturnBeyondAnIdealChokeHardlyActs)
{
    const Demo demo;
    shapes::AntennaShape shape = demo.antenna("Wall end-fed 40").shape;
    shape.parameters["return_kind"] = 1.0;
    shape.parameters["shield_m"] = 4.0;
    const auto built = shapes::buildOver(shape, demo.design.site.soil.ground());
    ASSERT_TRUE(built.ok()) << built.firstFault();
    ASSERT_TRUE(built->shieldWire);
    const auto shield = study::shieldAlong(demo.design.site, *built, false);
    ASSERT_TRUE(shield.ok()) << shield.firstFault();
    const auto whole = study::withShield(*built, *shield, {chokeOf(1e6, 4.0)}, 7.1e6), open = study::withShield(*built, *shield, {}, 7.1e6);
    ASSERT_TRUE(whole.ok() && open.ok()) << whole.firstFault();
    EXPECT_EQ(whole->wires.size(), built->model.wires.size()) << "not a second one beside it";
    em::GroundTableCache tables;
    const auto at = [&](const WireModel& model) { return em::solve(std::make_shared<const WireModel>(model), 7.1e6, tables)->impedance; };
    const Complex alone = at(built->model);
    EXPECT_LT(std::abs(at(*whole) - alone), 0.1 * std::abs(alone)) << at(*whole) << alone;
    EXPECT_GT(std::abs(at(*open) - alone), 0.2 * std::abs(alone)) << "without a choke the rest acts";
}

TEST(Shield, EveryAntennaOfTheDemoCanHaveOne)
{
    const Demo demo;
    for (const Antenna& a : demo.design.antennas) {
        const auto built = shapes::buildOver(a.shape, demo.design.site.soil.ground());
        ASSERT_TRUE(built.ok());
        const auto shield = study::shieldAlong(demo.design.site, *built, true);
        ASSERT_TRUE(shield.ok()) << a.name;
        const auto model = study::withShield(*built, *shield, {}, 10e6);
        EXPECT_TRUE(model.ok()) << a.name << ": " << model.firstFault();
    }
    Site near = demo.design.site;
    const auto vertical = shapes::buildOver(demo.antenna("Marsh vertical 30").shape, near.soil.ground());
    near.feedEntry = {vertical->feedPoint.x, vertical->feedPoint.y};
    near.coaxRoute.clear();
    EXPECT_FALSE(study::shieldAlong(near, *vertical, true).ok());
}

study::ShieldQuestion questionOf(const Demo& demo, const Antenna& a)
{
    study::ShieldQuestion q;
    q.feed = study::feedQuestionOf(demo.design, a);
    std::erase_if(q.feed.question.bands, [](const WantedBand& w) { return w.band.name != "40 m"; });
    q.site = demo.design.site;
    q.choke = newPart(part::choke);
    q.chokes = {{3.2, q.choke}};
    return q;
}

TEST(ShieldAnswer, FindsThePlaceThatQuietsTheRadio)
{
    Demo demo;
    const Antenna& a = demo.antenna("Wall end-fed 40");
    study::ShieldQuestion q = questionOf(demo, a);
    q.counterpoises = {1.0, 4.0};
    study::Library library;
    std::size_t told = 0;
    const auto answer = study::shieldAnswer(library, q, {}, [&](const study::ShieldAnswer& part) { told += !part.complete; });
    ASSERT_TRUE(answer.ok()) << answer.firstFault();
    EXPECT_GT(told, 0u);
    ASSERT_TRUE(answer->complete);
    const study::ShieldBand& band = answer->bands.at(0);
    ASSERT_EQ(band.byPlace.size(), answer->places.size());
    const auto least = std::min_element(band.byPlace.begin(), band.byPlace.end());
    EXPECT_EQ(*answer->bestPlace(), answer->places[std::size_t(least - band.byPlace.begin())]);
    EXPECT_LT(*least, 0.5 * band.bare->atRadio); // a choke is worth having
    EXPECT_GE(band.bare->strongest, band.bare->atRadio);
    EXPECT_EQ(band.counterpoises.size(), 2u);
    EXPECT_GT(band.chosen->chokeHeat, 0.0);
    EXPECT_TRUE(band.without->along.empty());
    // there, with the same choke: solved anew it is what was told of the place
    const auto promised = answer->atBest();
    ASSERT_TRUE(promised);
    study::ShieldQuestion there = q;
    there.chokes = {{promised->place, q.choke}};
    const auto kept = study::shieldAnswer(library, there, {}, {}, &*answer);
    EXPECT_NEAR(kept->bands[0].chosen->atRadio, promised->amperes, 1e-9);
    EXPECT_NEAR(kept->bands[0].chosen->gain - band.chosen->gain, promised->gained, 1e-9);
    // what is known of it serves when only the chain's choke has moved
    study::ShieldQuestion moved = q;
    moved.chokes[0].at = 9.0;
    EXPECT_TRUE(study::sameButForChokes(q, moved));
    const auto anew = study::shieldAnswer(library, moved), reused = study::shieldAnswer(library, moved, {}, {}, &*answer);
    EXPECT_EQ(reused->bands[0].byPlace, answer->bands[0].byPlace);
    EXPECT_NEAR(anew->bands[0].chosen->atRadio, reused->bands[0].chosen->atRadio, 1e-12);
    EXPECT_NE(reused->bands[0].chosen->atRadio, band.chosen->atRadio);
    moved.earthed = false;
    EXPECT_FALSE(study::sameButForChokes(q, moved));
}

TEST(ShieldAnswer, StopsWhenAsked)
{
    Demo demo;
    study::Library library;
    int asked = 0;
    const Watch watch([&] { return ++asked > 3; });
    EXPECT_FALSE(study::shieldAnswer(library, questionOf(demo, demo.antenna("Wall end-fed 40")), watch).ok());
}

// The wire, its transformer's second terminal 5 cm beside the first, and 5 m of coax: down from there and on along the ground.
TEST(OffCentreShield, TheOutsideUpToFeedsChokeIsPartOfTheAntenna)
{
    em::GroundTableCache tables;
    shapes::AntennaShape shape = shapes::findFamily("off-centre-dipole")->standardShape(3.6e6);
    for (const auto& [key, value] : std::map<std::string, double>{{"apex_height_m", 4.0},
                                                                  {"end_height_m", 4.0},
                                                                  {"length_m", 40.0},
                                                                  {"feed_percent", 25.0},
                                                                  {"bearing_deg", 90.0},
                                                                  {"x_m", 0.0},
                                                                  {"y_m", 0.0}})
        shape.parameters[key] = value;
    const auto impedance = [&](const WireModel& model) {
        const auto solution = em::solve(std::make_shared<const WireModel>(model), 14.2e6, tables);
        EXPECT_TRUE(solution.ok()) << solution.firstFault();
        return solution ? solution->impedance : Complex();
    };
    const auto plain = shapes::buildOver(shape, testing::averageSoil);
    ASSERT_TRUE(plain.ok()) << plain.firstFault();
    EXPECT_FALSE(plain->shieldWire) << "nothing is drawn under Feed";
    shape.shield = {5.0, true, {{0.0, -50.0, 0.0}}};
    const auto shielded = shapes::buildOver(shape, testing::averageSoil);
    ASSERT_TRUE(shielded.ok()) << shielded.firstFault();
    WireModel own;
    own.ground = testing::averageSoil;
    const auto copper = [](Wire w) {
        w.conductivity = 5.8e7;
        return w;
    };
    own.wires = {copper(testing::wire("wire", {{10, 0, 4}, {0, 0, 4}, {-0.05, 0, 4}, {-30, 0, 4}}, 1e-3)),
                 copper(testing::wire("coax", {{-0.05, 0, 4}, {-0.05, 0, 0.02}, {-0.05 + 0.05 * 1.02 / 50.0, -1.02, 0.02}}, 2.5e-3))};
    own.feeds = {{0, 10.0, 1.0}};
    EXPECT_LT(testing::relative(impedance(shielded->model), impedance(own)), 2e-3);
    EXPECT_GT(testing::relative(impedance(shielded->model), impedance(plain->model)), 0.02) << "it does something";
    shape.parameters["return_kind"] = 0.0;
    const auto choked = shapes::buildOver(shape, testing::averageSoil);
    EXPECT_FALSE(choked->shieldWire);
    shape.parameters["return_kind"] = 1.0;
    shape.shield.length = 0.1;
    EXPECT_FALSE(shapes::buildOver(shape, testing::averageSoil)->shieldWire) << "a choke at the transformer";
}

} // namespace
} // namespace vetchling

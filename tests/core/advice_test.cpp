/// Which antenna for this place: the score against sums by hand, the places against geometry of the test's own, the search against one that
/// leaves nothing out, against itself when it is stopped, and against what was allowed.
#include "core/advice/advisor.h"
#include "core/files/advice_file.h"
#include "core/files/chain_file.h"
#include "core/files/design_file.h"
#include "core/files/table_store.h"
#include "tests/core/shape_helpers.h"
#include "tests/long_form.h"
#include "tests/temp_folder.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <atomic>
#include <cmath>
#include <fstream>

namespace vetchling::advice {
namespace {

using namespace vetchling::testing;

const std::vector<LineType>& lines()
{
    static const std::vector<LineType> all = *files::readLineTypes(VETCHLING_DATA "/lines.json");
    return all;
}

/// Of all tests here; kept in the folder of all tests, where there is one.
const std::shared_ptr<em::GroundTableCache>& tables()
{
    struct Kept {
        std::shared_ptr<em::GroundTableCache> tables = std::make_shared<em::GroundTableCache>();
        std::unique_ptr<files::TableStore> store;
        Kept()
        {
            if (const char* folder = std::getenv("VETCHLING_TEST_TABLES")) {
                store = std::make_unique<files::TableStore>(folder);
                tables->setSource([this](em::GroundTable& table) { store->restore(table); });
            }
        }
        ~Kept()
        {
            if (store)
                store->save(*tables);
            tables->setSource(nullptr);
        }
    };
    static const Kept kept;
    return kept.tables;
}

/// A garden with two masts, for 20 m before all and 10 m.
Design garden()
{
    Design d;
    d.site.boundary = {{0, 0}, {40, 0}, {40, 20}, {0, 20}};
    d.site.buildings = {{"house", {{12, 1}, {22, 1}, {22, 7}, {12, 7}}, 3.0, 6.0, "house", {}}};
    d.site.supports = {{"west mast", SupportKind::Pole, {4, 15}, 11.0, false, "west", {}},
                       {"east mast", SupportKind::Pole, {36, 15}, 10.0, false, "east", {}}};
    d.site.feedEntry = {17, 7};
    d.operation.bands = {{{"20 m", 14.0e6, 14.35e6}, Wish::Must, "20", {}}, {{"10 m", 28.0e6, 29.0e6}, Wish::Nice, "10", {}}};
    return d;
}

Result<AdvicePointer> asked(const Design& design, const AdviceWish& wish, const Watch& watch = {})
{
    return Advisor(tables(), design, wish, {}, lines()).run(watch);
}

AdviceWish one()
{
    AdviceWish wish;
    wish.antennas = 1;
    return wish;
}

/// Of the garden, one antenna; looked for once.
const Advice& ofGarden()
{
    static const AdvicePointer found = *asked(garden(), one());
    return *found;
}

// ---- the score, by hand

TEST(Score, IsWhatTheWordsSay)
{
    const ScoreRules r;
    // all under the limit, as loud as the vertical: two thirds and half of a third
    EXPECT_NEAR(worthOf(r, 1.0, 1.0, 0.0), 2.0 / 3.0 + 1.0 / 6.0, 1e-12);
    EXPECT_NEAR(worthOf(r, 1.0, 1.0, 6.0), 1.0, 1e-12) << "one S-unit better";
    EXPECT_NEAR(worthOf(r, 1.0, 1.0, -6.0), 2.0 / 3.0, 1e-12) << "one S-unit worse";
    EXPECT_NEAR(worthOf(r, 1.0, 1.0, -60.0), 2.0 / 3.0, 1e-12);
    EXPECT_NEAR(worthOf(r, 0.25, 0.75, 0.0), (0.25 + 0.8 * 0.5) * 5.0 / 6.0, 1e-12) << "a tuner helps half of the band";
    EXPECT_EQ(worthOf(r, 0.0, 0.0, 20.0), 0.0) << "loud and of no use";
    EXPECT_EQ(weightOf(r, Wish::Must, false), 3.0);
    EXPECT_EQ(weightOf(r, Wish::Must, true), 6.0);
    EXPECT_EQ(weightOf(r, Wish::Nice, true), 2.0);
    EXPECT_EQ(weightOf(r, Wish::No, true), 0.0);
    EXPECT_NEAR(wishOf({3.0, 1.0}, {0.5, 1.0}), 2.5 / 4.0, 1e-12);
    EXPECT_NEAR(wishOf({3.0, 1.0}, {0.5}), 1.5 / 4.0, 1e-12) << "what is not known is worth nothing";
    EXPECT_NEAR(wishWithSeasons(r, 0.8, {0.9, 0.4, 0.7, 0.8}), 0.75 * 0.8 + 0.25 * 0.4, 1e-12);
    const Takes takes{.wire = 30.0, .furtherAntennas = 1, .newPoles = 1, .coils = 2, .links = 1, .cautions = 1};
    EXPECT_NEAR(effortOf(r, takes), 0.05 + 0.10 + 0.08, 1e-12);
    EXPECT_NEAR(effortOf(r, {.wire = 600.0}), 0.10, 1e-12) << "no more than ten hundredths for any wire";
    EXPECT_EQ(scoreOf(0.1, 0.3), 0.0);
}

TEST(Score, FewerMetresWinWhereItIsTheSame)
{
    const std::vector<Ranked> all{{0.700, 50.0}, {0.697, 20.0}, {0.690, 5.0}, {0.800, 90.0}};
    EXPECT_EQ(rankingOf({}, all), (std::vector<std::size_t>{3, 1, 0, 2}));
}

TEST(Score, ItsFiguresAreDataAndTheFileIsTheUsualOne)
{
    const auto shipped = files::readScoreRules(VETCHLING_DATA "/advice.json");
    ASSERT_TRUE(shipped.ok());
    EXPECT_EQ(*shipped, ScoreRules{});
    const TempFolder folder;
    const std::string path = folder.file("advice.json");
    std::ofstream(path) << R"({"wire_costs": 0.3, "must": 5})";
    const auto own = files::readScoreRules(path);
    ASSERT_TRUE(own.ok());
    EXPECT_EQ(own->must, 5.0);
    EXPECT_EQ(own->wireCosts, 0.3);
    EXPECT_EQ(own->nice, 1.0);
    std::ofstream(path) << R"({"with_tuner": 1.5})";
    const auto wrong = files::readScoreRules(path);
    ASSERT_FALSE(wrong.ok());
    EXPECT_NE(wrong.faults().front().path.find("with_tuner"), std::string::npos);
}

// ---- the chain that comes with it

TEST(UsualChain, IsTheThinnestCoaxThatHardlyLoses)
{
    const auto loss = [](const LineType& t, double metres, double megahertz) {
        return metres / 100.0 * (t.k1 * std::sqrt(megahertz) + t.k2 * megahertz);
    };
    for (const auto& [metres, megahertz] : {std::pair(5.0, 7.0), std::pair(20.0, 28.0), std::pair(60.0, 50.0), std::pair(300.0, 144.0)}) {
        const LineType* type = usualCoax(lines(), metres, 1e6 * megahertz);
        ASSERT_TRUE(type);
        for (const LineType& other : lines()) {
            if (other.balanced || other.impedance != 50.0)
                continue;
            if (&other == type)
                break;
            EXPECT_GE(loss(other, metres, megahertz), 1.0) << "it comes earlier in the list, and loses too much";
        }
        if (loss(*type, metres, megahertz) >= 1.0) {
            for (const LineType& other : lines())
                EXPECT_TRUE(other.balanced || other.impedance != 50.0 || loss(other, metres, megahertz) >= loss(*type, metres, megahertz));
        }
    }
}

TEST(UsualChain, GoesAllTheWayToTheRadio)
{
    const Advice& found = ofGarden();
    ASSERT_FALSE(found.answers.empty());
    for (const Answer& a : found.answers) {
        const Tried& t = *a.antennas.front();
        double coax = 0.0;
        for (const ChainPart& p : chainParts(t.antenna))
            if (p.kind == part::line)
                coax += partValue(p, "length_m");
        const Vec3 feed = t.built->feedPoint;
        const double way = feed.z + std::hypot(feed.x - 17.0, feed.y - 7.0);
        if (t.antenna.shape.family != "doublet") { // whose own line goes part of it
            EXPECT_GE(coax, way - 1e-9) << t.key;
            EXPECT_LT(coax, way + 0.5 + 1e-9) << t.key;
        }
    }
}

// ---- answers

TEST(Advice, EveryAnswerKeepsTheRulesOfThePlace)
{
    const Design design = garden();
    const auto insideGarden = [](Vec3 p) { return p.x > -0.01 && p.x < 40.01 && p.y > -0.01 && p.y < 20.01; };
    const auto inHouse = [](Vec3 p) { return p.x > 11.5 && p.x < 22.5 && p.y > 0.5 && p.y < 7.5 && p.z < 6.5; };
    for (const TriedPointer& t : ofGarden().tried) {
        if (!t->usable())
            continue;
        for (const Wire& w : t->built->model.wires)
            for (std::size_t i = 1; i < w.points.size(); ++i)
                for (double part = 0.0; part <= 1.0; part += 0.02) {
                    const Vec3 p = w.points[i - 1] + part * (w.points[i] - w.points[i - 1]);
                    EXPECT_TRUE(insideGarden(p)) << t->key;
                    EXPECT_FALSE(inHouse(p)) << t->key;
                }
        EXPECT_TRUE(t->place.poles.empty()) << t->key << ": no new pole was allowed";
    }
}

TEST(Advice, ScoresAreTheSumsOfWhatIsTold)
{
    for (const Answer& a : ofGarden().answers) {
        EXPECT_TRUE(a.exact);
        double plain = 0.0; // 20 m counts three times 10 m
        const double weights[] = {3.0, 1.0};
        for (std::size_t b = 0; b < 2; ++b) {
            const BandFigure& f = a.bands[b].figure;
            const double usable = f.share + 0.8 * std::max(0.0, f.shareWithTuner - f.share);
            plain += weights[b] / 4.0 * usable * (2.0 + std::min(1.0, std::max(0.0, 0.5 + f.against / 12.0))) / 3.0;
        }
        EXPECT_NEAR(a.wish, 0.75 * plain + 0.25 * a.worst, 1e-9);
        double metres = 0.0;
        for (const shapes::WireSection& s : a.antennas.front()->built->sections)
            metres += s.pieces * s.length;
        const double parts = a.takes.coils + a.takes.traps + a.takes.links + a.takes.cautions;
        EXPECT_NEAR(a.effort, 0.10 * std::min(1.0, metres / 60.0) + 0.05 * (a.takes.newPoles + a.takes.tunersAtFeed) + 0.02 * parts, 1e-9);
        EXPECT_NEAR(a.score, std::max(0.0, a.wish - a.effort), 1e-12);
    }
    for (std::size_t i = 1; i < ofGarden().answers.size(); ++i)
        EXPECT_LE(ofGarden().answers[i].score, ofGarden().answers[i - 1].score + 0.005 + 1e-12) << "best first";
}

TEST(Advice, FiguresAreThoseOfTheStudies)
{
    const Answer& best = ofGarden().answers.front();
    Design design = garden();
    const Id id = hangUp(design, best).front();
    const Antenna& antenna = *findAntenna(design, id);
    study::Library library(tables(), 8);
    study::References references;
    const auto curves = curvesOf(library, study::questionOf(design, antenna));
    const auto basis = feedBasisOf(library, references, study::feedQuestionOf(design, antenna));
    ASSERT_TRUE(curves.ok() && basis.ok());
    const std::vector<ChainPart> parts = wholeChain(antenna);
    const auto report = study::feedReport(*basis, parts, parts.size() - chainParts(antenna).size(), 100.0, servedRule(design.operation));
    const auto choices = study::bestByBand(*curves);
    for (std::size_t b = 0; b < choices.size(); ++b) {
        EXPECT_EQ(best.bands[b].figure.share, choices[b].coverage.shareUnderLimit);
        EXPECT_EQ(best.bands[b].figure.net, report.rows[b].net);
        EXPECT_EQ(best.bands[b].figure.against, report.rows[b].net - report.rows[b].reference);
    }
}

/// All that are looked into by the search, and all the rest too.
TEST(Advice, NothingThatWasLeftOutWouldHaveWon)
{
    const double best = ofGarden().answers.front().score;
    Design design = garden();
    study::Library library(tables(), 48);
    SeasonReferences references;
    const AdviceWish wish = one();
    const ScoreRules rules;
    const Bench bench{library, references, design, wish, rules, lines()};
    const Weighed wanted = weighed(design, rules);
    std::size_t left = 0;
    for (const TriedPointer& t : ofGarden().tried) {
        if (!t->byRule())
            continue;
        ++left;
        Design some = design;
        std::erase_if(some.operation.bands,
                      [&](const WantedBand& w) { return std::find(t->bandsFor.begin(), t->bandsFor.end(), w.id) == t->bandsFor.end(); });
        const shapes::Family& family = *shapes::findFamily(t->antenna.shape.family);
        const double frequency = findBand(design, t->bandsFor.front())->band.centre();
        for (Proposal& p : proposalsOf(Judge(design, {.mostPoles = 0}), some, family, frequency)) {
            if (!p.place.allowed())
                continue;
            Tried candidate;
            candidate.bandsFor = t->bandsFor;
            candidate.proposal = p;
            const auto tried = tryOut(bench, candidate);
            ASSERT_TRUE(tried.ok());
            if (tried->usable()) {
                EXPECT_LT(wishOf(wanted.weights, worthsOf(rules, tried->bands)) - effortOf(rules, tried->takes), 1.02 * best) << t->key;
            }
        }
    }
    EXPECT_GT(left, 0u);
}

TEST(Advice, FollowsWhatMayBeTaken)
{
    AdviceWish wish = one();
    wish.wire = 12.0;
    wish.coilsMost = 0;
    wish.radials = false;
    const auto found = asked(garden(), wish);
    ASSERT_TRUE(found.ok());
    for (const Answer& a : (*found)->answers) {
        double metres = 0.0;
        for (const shapes::WireSection& s : a.antennas.front()->built->sections)
            metres += s.pieces * s.length;
        EXPECT_LE(metres, 12.0);
        EXPECT_TRUE(a.antennas.front()->built->coils.empty());
        EXPECT_TRUE(a.antennas.front()->built->traps.empty());
        const shapes::AntennaShape& shape = a.antennas.front()->antenna.shape;
        EXPECT_FALSE(shape.parameters.contains("radial_count") && shape.parameters.at("radial_count") > 0.5) << shape.family;
    }
    EXPECT_TRUE(std::any_of((*found)->tried.begin(), (*found)->tried.end(), [](const TriedPointer& t) { return t->barred; }));
}

TEST(Advice, OneMetreChangesTheFigures)
{
    Design lower = garden();
    for (const char* mast : {"west", "east"})
        changeSupport(lower, mast, [](Support& s) { s.height -= 1.0; });
    const auto found = asked(lower, one());
    ASSERT_TRUE(found.ok());
    EXPECT_NE((*found)->answers.front().score, ofGarden().answers.front().score);
    EXPECT_LT((*found)->answers.front().score, ofGarden().answers.front().score + 0.02) << "lower is not better";
}

TEST(Advice, WhatHangsCountsWhereItIsKept)
{
    Design design = garden();
    const Answer& best = ofGarden().answers.front();
    const Id id = hangUp(design, best).front();
    AdviceWish wish = one();
    wish.kept = {id};
    const auto found = asked(design, wish);
    ASSERT_TRUE(found.ok());
    for (const Answer& a : (*found)->answers) {
        EXPECT_GE(a.bands[0].worth, best.bands[0].worth - 1e-12) << "20 m is served by what is there";
        for (const TriedPointer& t : a.antennas)
            for (const Wire& w : t->built->model.wires)
                for (const Wire& o : best.antennas.front()->built->model.wires)
                    for (Vec3 p : w.points)
                        for (Vec3 q : o.points)
                            EXPECT_GT(std::hypot(p.x - q.x, std::hypot(p.y - q.y, p.z - q.z)), 0.45) << t->key;
    }
}

/// Stopped after so many looks at the watch, and begun again: what comes at last is what comes without a stop.
TEST(Advice, GoesOnWhereItWasStopped)
{
    Advisor advisor(tables(), garden(), one(), {}, lines());
    int stops = 0;
    for (long most = 200;; most *= 3) {
        std::atomic<long> looks{0};
        const auto found = advisor.run(Watch([&] { return ++looks > most; }));
        if (!found.ok()) {
            EXPECT_TRUE(found.faults().front().stopped);
            ++stops;
            continue;
        }
        ASSERT_EQ((*found)->answers.size(), ofGarden().answers.size());
        for (std::size_t i = 0; i < (*found)->answers.size(); ++i) {
            EXPECT_EQ((*found)->answers[i].key(), ofGarden().answers[i].key());
            EXPECT_EQ((*found)->answers[i].score, ofGarden().answers[i].score);
        }
        break;
    }
    EXPECT_GT(stops, 1);
}

TEST(Advice, SaysWhyItHasNone)
{
    Design nothing = garden();
    for (WantedBand& w : nothing.operation.bands)
        w.wish = Wish::No;
    const auto none = asked(nothing, one());
    ASSERT_FALSE(none.ok());
    EXPECT_NE(none.faults().front().message.english().find("wanted"), std::string::npos);
}

TEST(Advice, AnEmptySiteIsToldWhatAFirstPoleBrings)
{
    Design bare = garden();
    bare.site.supports.clear();
    const auto found = asked(bare, one());
    ASSERT_TRUE(found.ok());
    for (const Answer& a : (*found)->answers)
        for (const Wire& w : a.antennas.front()->built->model.wires)
            for (Vec3 p : w.points)
                EXPECT_LT(p.z, 10.001) << a.key() << ": no pole of its own is higher";
    int poles = 0;
    for (const Help& h : (*found)->help)
        poles += h.kind == Help::Kind::Pole;
    EXPECT_GE(poles, 2);
    EXPECT_FALSE((*found)->notPossible.empty());
    for (const NotPossible& n : (*found)->notPossible)
        EXPECT_FALSE(n.reason.empty()) << n.family;
}

TEST(Advice, EveryFamilyHasItsReason)
{
    for (const shapes::Family* family : shapes::families())
        EXPECT_FALSE(whyNot(ofGarden(), family->id()).empty()) << family->id();
    const std::string best = ofGarden().answers.front().antennas.front()->antenna.shape.family;
    EXPECT_EQ(whyNot(ofGarden(), best).at(1).english(), "That is answer 1.");
}

TEST(Advice, TwoTogetherHangBesideOneAnother)
{
    AdviceWish wish = one();
    wish.antennas = 2;
    const auto found = asked(garden(), wish);
    ASSERT_TRUE(found.ok());
    const Answer* two = bestOf(**found, 2);
    ASSERT_TRUE(two) << "10 m wants an antenna of its own";
    for (const Answer& a : (*found)->answers) {
        Design design = garden();
        const std::vector<Id> ids = hangUp(design, a);
        ASSERT_EQ(a.influence.size(), ids.size());
        for (const Id& id : ids) {
            Design others = design;
            std::erase_if(others.antennas, [&](const Antenna& x) { return x.id == id; });
            EXPECT_TRUE(Judge(others, {.mostPoles = 0, .room = 1.0}).judge(findAntenna(design, id)->shape).allowed()) << a.key();
        }
        for (std::size_t b = 0; b < a.bands.size(); ++b) { // the better of both, band by band
            double best = 0.0;
            for (const TriedPointer& t : a.antennas)
                best = std::max(best, worthOf({}, t->bands[b].share, t->bands[b].shareWithTuner, t->bands[b].against));
            EXPECT_NEAR(a.bands[b].worth, best, 1e-12);
        }
        EXPECT_EQ(a.takes.furtherAntennas, int(ids.size()) - 1);
    }
}

/// What was found by trying everything (`./dev validate advice`) is found by the search as well, to two percent.
TEST(Advice, IsAsGoodAsTryingEverything)
{
    std::ifstream file(VETCHLING_TEST_DATA "/advice-best.json");
    const nlohmann::json best = nlohmann::json::parse(file);
    ASSERT_EQ(best.size(), 6u);
    std::size_t number = 0;
    for (const auto& [name, winner] : best.items()) {
        if (!tried(number++, 6))
            continue;
        const auto design = files::readDesign(VETCHLING_TEST_DATA "/sites/" + name + ".vetchling");
        ASSERT_TRUE(design.ok()) << name;
        const auto found = asked(*design, {});
        ASSERT_TRUE(found.ok()) << name;
        ASSERT_FALSE((*found)->answers.empty()) << name;
        EXPECT_GE((*found)->answers.front().score, 0.98 * double(winner["score"]) - ScoreRules().same) << name << " " << winner["antennas"];
        Design hung = *design;
        for (const Id& id : hangUp(hung, (*found)->answers.front())) {
            const auto built = shapes::buildOver(findAntenna(hung, id)->shape, hung.site.soil.ground());
            ASSERT_TRUE(built.ok());
            EXPECT_TRUE(fitOnSite(hung.site, built->model).fits()) << name;
        }
    }
}

} // namespace
} // namespace vetchling::advice

/// The list of what is left to do: each slip is found once, its cure does what its words say by reckoning of the test's own, and with the
/// cure it is gone and nothing else has come.
#include "core/advice/feed_findings.h"
#include "core/advice/left.h"
#include "core/files/chain_file.h"
#include "core/files/workshop_file.h"
#include "core/trim/log_tasks.h"
#include "core/tune/tune.h"
#include "core/workshop/tape.h"
#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <fstream>
#include <iterator>
#include <set>

namespace vetchling::advice {
namespace {

using namespace vetchling::testing;

const LeftData& data()
{
    static const LeftData all{*files::readWorkshopData(VETCHLING_DATA "/workshop.json"),
                              *files::readLineTypes(VETCHLING_DATA "/lines.json"), "2026-06-01T12:00:00"};
    return all;
}

/// A flat dipole for 40 m between two masts, tuned, with choke and coax: nothing is wrong with it.
const Design& good()
{
    static const Design design = [] {
        Design d;
        d.site.boundary = {{0, 0}, {60, 0}, {60, 40}, {0, 40}};
        d.site.supports = {{"west mast", SupportKind::Pole, {10, 20}, 14.0, false, "west", {}},
                           {"east mast", SupportKind::Pole, {50, 20}, 14.0, false, "east", {}}};
        d.site.feedEntry = {30, 4};
        for (const auto& [name, from, to] : {std::tuple("40 m", 7.0e6, 7.2e6), std::tuple("20 m", 14.0e6, 14.35e6)})
            d.operation.bands.push_back({{name, from, to}, name == std::string("40 m") ? Wish::Must : Wish::No, name, {}});
        Antenna a = newAntenna(*shapes::findFamily("dipole"), 7.1e6, d.site);
        a.id = "a";
        a.shape.parameters = {{"leg_m", 10.1}, {"apex_height_m", 11.0}, {"end_height_m", 11.0},
                              {"x_m", 30.0},   {"y_m", 20.0},           {"bearing_deg", 90.0}};
        em::GroundTableCache tables;
        a.shape.parameters["leg_m"] = tune(a.shape, groundUnder(d, a), "leg_m", 7.1e6, tables)->value;
        ChainPart coax = newPart(part::line);
        coax.values["length_m"] = 30.0;
        ownChain(a).parts = {newPart(part::choke), coax};
        d.antennas = {a};
        return d;
    }();
    return design;
}

study::Library& library()
{
    static study::Library all;
    return all;
}

std::vector<Finding> found(const Design& design)
{
    static study::References references;
    const auto left = leftOf(library(), references, design, design.antennas.front(), data());
    EXPECT_TRUE(left) << left.firstFault();
    return left ? left->findings : std::vector<Finding>();
}

std::multiset<std::string> codes(const std::vector<Finding>& findings, bool open = true)
{
    std::multiset<std::string> all;
    for (const Finding& f : findings)
        if (f.open() == open)
            all.insert(f.code);
    return all;
}

const Finding* with(const std::vector<Finding>& findings, const std::string& code)
{
    const auto one = std::find_if(findings.begin(), findings.end(), [&](const Finding& f) { return f.open() && f.code == code; });
    return one == findings.end() ? nullptr : &*one;
}

struct Slip {
    const char* code;
    Gravity gravity;
    std::function<void(Design&)> make;
    std::function<void(const Design& before, const Design& cured)> holds; ///< null: it is cured by hand
};

void PrintTo(const Slip& slip, std::ostream* out) { *out << slip.code; }

Antenna& only(Design& d) { return d.antennas.front(); }
const Antenna& only(const Design& d) { return d.antennas.front(); }

double valueOf(const Design& d, const char* key) { return shapes::familyOf(only(d).shape).value(only(d).shape, key); }

/// The resistance and reactance of the plain wire, solved directly.
Complex portOf(const Design& d, double frequency)
{
    em::GroundTableCache tables;
    const auto built = shapes::buildOver(only(d).shape, groundUnder(d, only(d)));
    return em::solve(std::make_shared<const WireModel>(built->model), frequency, tables)->impedance;
}

/// Part of the power that goes into 50 ohm's place behind an ideal transformer.
double takenBehind(Complex port, double ratio)
{
    const Complex z = port / ratio, reflected = (z - 50.0) / (z + 50.0);
    return 1.0 - std::norm(reflected);
}

const std::vector<Slip>& slips()
{
    static const std::vector<Slip> all{
        {"building", Gravity::Danger,
         [](Design& d) {
             d.site.buildings = {{"barn", {{24, 18}, {28, 18}, {28, 22}, {24, 22}}, 6.0, 11.5, "barn", {}}};
         },
         [](const Design&, const Design& cured) { // elsewhere: no wire over the barn's ground lower than half a metre above its ridge
             const auto built = shapes::buildOver(only(cured).shape, groundUnder(cured, only(cured)));
             for (const Wire& w : built->model.wires)
                 for (std::size_t k = 1; k < w.points.size(); ++k)
                     for (double t = 0.0; t <= 1.0; t += 0.01) {
                         const Vec3 p = w.points[k - 1] + t * (w.points[k] - w.points[k - 1]);
                         EXPECT_FALSE(p.x > 24 && p.x < 28 && p.y > 18 && p.y < 22 && p.z < 12.0) << p.x << " " << p.y << " " << p.z;
                     }
         }},
        {"power-line", Gravity::Danger,
         [](Design& d) {
             d.site.powerLine = PowerLine{{0, 30}, {60, 30}};
         },
         nullptr},
        {"support", Gravity::Wrong, [](Design& d) { d.site.supports.pop_back(); },
         [](const Design& before, const Design& cured) {
             const auto built = shapes::buildOver(only(cured).shape, groundUnder(cured, only(cured)));
             ASSERT_EQ(cured.site.supports.size(), before.site.supports.size() + 1);
             const Support& pole = cured.site.supports.back();
             const Vec3 east{30.0 + valueOf(cured, "leg_m"), 20.0, 11.0};
             EXPECT_LE(std::hypot(pole.at.x - east.x, pole.at.y - east.y), 0.3) << "it stands at the end";
             EXPECT_GE(pole.height, 11.0);
             EXPECT_LE(pole.height, 11.5);
         }},
        {"boundary", Gravity::Wrong,
         [](Design& d) {
             d.site.boundary = {{0, 0}, {35, 0}, {35, 40}, {0, 40}};
         },
         nullptr},
        {"ratio", Gravity::Wrong,
         [](Design& d) {
             ChainPart t = newPart(part::transformer);
             t.values["ratio"] = 49.0;
             auto& parts = ownChain(only(d)).parts;
             parts.insert(parts.begin(), t);
         },
         [](const Design& before, const Design& cured) {
             double ratio = 1.0;
             for (const ChainPart& p : chainParts(only(cured)))
                 if (p.kind == part::transformer)
                     ratio = partValue(p, "ratio");
             const Complex port = portOf(before, 7.1e6);
             EXPECT_LT(takenBehind(port, 49.0), 0.15);
             EXPECT_GT(takenBehind(port, ratio), 0.9) << ratio;
         }},
        {"heat", Gravity::Wrong,
         [](Design& d) {
             ownChain(only(d)).parts.front().values["loss_dB"] = 1.0; // of 100 W some 20
             ownChain(only(d)).parts.front().values["rating_W"] = 5.0;
         },
         nullptr},
        {"choke", Gravity::Wrong, [](Design& d) { ownChain(only(d)).parts.erase(ownChain(only(d)).parts.begin()); },
         [](const Design&, const Design& cured) {
             const auto& parts = chainParts(only(cured));
             ASSERT_EQ(parts.size(), 2u);
             EXPECT_EQ(parts[0].kind, part::choke);
             EXPECT_EQ(parts[1].kind, part::line);
         }},
        {"line", Gravity::Wrong, [](Design& d) { ownChain(only(d)).parts.clear(); },
         [](const Design&, const Design& cured) { // down from 11 m, and 16 m over the ground
             ASSERT_EQ(chainParts(only(cured)).size(), 2u);
             EXPECT_EQ(chainParts(only(cured))[0].kind, part::choke);
             EXPECT_NEAR(partValue(chainParts(only(cured))[1], "length_m"), 11.0 + 16.0, 0.51);
         }},
        {"tune", Gravity::Wrong, [](Design& d) { only(d).shape.parameters["leg_m"] *= 1.05; },
         [](const Design& before, const Design& cured) {
             EXPECT_GT(std::abs(portOf(before, 7.1e6).imag()), 20.0);
             EXPECT_LT(std::abs(portOf(cured, 7.1e6).imag()), 1.5);
         }},
        {"band", Gravity::Wrong,
         [](Design& d) { // tuned for where nothing is wanted, beside the band
             only(d).shape.designFrequency = 6.6e6;
             em::GroundTableCache tables;
             only(d).shape.parameters["leg_m"] = tune(only(d).shape, groundUnder(d, only(d)), "leg_m", 6.6e6, tables)->value;
             d.site.supports[0].at.x = 5.0, d.site.supports[1].at.x = 55.0;
         },
         [](const Design&, const Design& cured) {
             const Complex z = portOf(cured, 7.1e6);
             EXPECT_GT(takenBehind(z, 1.0), 8.0 / 9.0) << "SWR under 2";
         }},
        {"spool", Gravity::Wrong, [](Design& d) { only(d).workshop.spool = 12.0; }, nullptr},
        {"unequal", Gravity::Wrong,
         [](Design& d) {
             const auto built = shapes::buildOver(only(d).shape, groundUnder(d, only(d)));
             const auto keys = pieceKeys(cutList(built->sections, only(d).allowances).front());
             ASSERT_EQ(keys.size(), 2u);
             only(d).workshop.pieces[keys[0]] = {true, 10.30};
             only(d).workshop.pieces[keys[1]] = {true, 10.34};
         },
         nullptr},
        {"strength", Gravity::Wrong, [](Design& d) { only(d).workshop.rigging.pull = 400.0; },
         [](const Design&, const Design& cured) { EXPECT_LT(only(cured).workshop.rigging.pull, 400.0); }},
        {"low", Gravity::Wrong,
         [](Design& d) { only(d).shape.parameters["apex_height_m"] = only(d).shape.parameters["end_height_m"] = 2.2; }, nullptr},
        {"log", Gravity::Wrong,
         [](Design& d) {
             Measurement m;
             m.id = "m", m.when = "2026-05-01T10:00", m.dip = 3.6e6, m.dipSwr = 1.4;
             addMeasurement(only(d), m);
         },
         nullptr},
        {"wish", Gravity::Wrong,
         [](Design& d) {
             for (WantedBand& w : d.operation.bands)
                 w.wish = Wish::No;
         },
         nullptr}};
    return all;
}

const std::string& documented()
{
    static const std::string all = [] {
        std::ifstream file(VETCHLING_DATA "/../docs/cli.md");
        return std::string(std::istreambuf_iterator<char>(file), {});
    }();
    return all;
}

class LeftSlips : public ::testing::TestWithParam<Slip> {};

TEST_P(LeftSlips, IsFoundAndGoneWithItsCure)
{
    const Slip& slip = GetParam();
    const std::multiset<std::string> usual = codes(found(good()));
    ASSERT_FALSE(usual.contains(slip.code));
    Design wrong = good();
    slip.make(wrong);
    const std::vector<Finding> all = found(wrong);
    const Finding* f = with(all, slip.code);
    ASSERT_TRUE(f) << ::testing::PrintToString(codes(all));
    EXPECT_EQ(f->gravity, slip.gravity);
    EXPECT_EQ(f->antenna, "a");
    EXPECT_NE(documented().find(std::string("`") + slip.code + "`"), std::string::npos) << "not in docs/cli.md: " << slip.code;
    EXPECT_FALSE(f->brief.english().empty());
    EXPECT_FALSE(f->message.english().empty());
    EXPECT_EQ(f->message.english().find('%'), std::string::npos) << f->message.english();
    EXPECT_EQ(f->brief.english().find('%'), std::string::npos) << f->brief.english();
    std::set<std::string> words;
    for (const Finding& g : all)
        EXPECT_TRUE(words.insert(g.message.english()).second) << "once: " << g.message.english();
    if (!slip.holds)
        return;
    ASSERT_TRUE(f->cure && f->cure->change) << f->message.english();
    Design cured = wrong;
    f->cure->change(cured);
    slip.holds(wrong, cured);
    const std::vector<Finding> then = found(cured);
    EXPECT_FALSE(with(then, slip.code)) << f->cure->label.english() << ": " << with(then, slip.code)->message.english();
    const bool moved = only(cured).shape.parameters != only(wrong).shape.parameters; // then it is tuned anew
    for (const std::string& code : codes(then))
        EXPECT_TRUE(codes(all).contains(code) || usual.contains(code) || (moved && code == "tune" && f->ofPlace))
            << "the cure brought " << code;
}

INSTANTIATE_TEST_SUITE_P(All, LeftSlips, ::testing::ValuesIn(slips()), [](const ::testing::TestParamInfo<Slip>& info) {
    std::string name = info.param.code;
    std::erase(name, '-');
    return name;
});

TEST(Left, AGoodAntennaHasOnlyItsWorkBeforeIt)
{
    const std::vector<Finding> all = found(good());
    EXPECT_EQ(codes(all), (std::multiset<std::string>{"cut", "measure"}));
    for (const Finding& f : all)
        if (f.open()) {
            EXPECT_EQ(f.gravity, Gravity::Next) << f.code;
        }
    EXPECT_EQ(codes(all, false), (std::multiset<std::string>{"judged", "line", "place", "tune"}));
    Design cut = good();
    const auto built = shapes::buildOver(only(cut).shape, groundUnder(cut, only(cut)));
    for (const std::string& key : pieceKeys(cutList(built->sections, only(cut).allowances).front()))
        only(cut).workshop.pieces[key].done = true;
    EXPECT_EQ(codes(found(cut)), (std::multiset<std::string>{"measure"}));
}

TEST(Left, WhatIsCutForNothingWantedMayBeWanted)
{
    Design d = good();
    d.operation.bands[0].wish = Wish::No, d.operation.bands[1].wish = Wish::Must;
    const std::vector<Finding> all = found(d);
    const Finding* f = with(all, "wish");
    ASSERT_TRUE(f && f->cure);
    EXPECT_EQ(f->gravity, Gravity::Next);
    EXPECT_EQ(f->cure->label.english(), "Want 40 m too");
    f->cure->change(d);
    EXPECT_EQ(d.operation.bands[0].wish, Wish::Nice);
    EXPECT_EQ(d.operation.bands[1].wish, Wish::Must) << "wishes that were made stay";
    EXPECT_FALSE(with(found(d), "wish"));
    only(d).shape.designFrequency = 5.4e6; // in no band at all: a range of its own
    const std::vector<Finding> outside = found(d);
    ASSERT_TRUE(with(outside, "wish") && with(outside, "wish")->cure);
    with(outside, "wish")->cure->change(d);
    EXPECT_EQ(d.operation.bands.size(), 3u);
    std::set<Id> ids;
    for (const WantedBand& w : d.operation.bands)
        EXPECT_TRUE(!w.id.empty() && ids.insert(w.id).second);
}

TEST(Left, DangersComeFirstAndWhatIsDoneLast)
{
    Design d = good();
    d.site.powerLine = PowerLine{{0, 24}, {60, 24}};
    only(d).workshop.spool = 5.0;
    ownChain(only(d)).parts.clear();
    const std::vector<Finding> all = found(d);
    for (std::size_t i = 1; i < all.size(); ++i)
        EXPECT_LE(all[i - 1].gravity, all[i].gravity) << i;
    EXPECT_EQ(all.front().code, std::string("power-line"));
    std::size_t line = 0, spool = 0;
    for (std::size_t i = 0; i < all.size(); ++i) {
        line = all[i].code == std::string("line") ? i : line;
        spool = all[i].code == std::string("spool") ? i : spool;
    }
    EXPECT_LT(line, spool) << "the feed line is chosen before wire is cut";
}

// A fan for 12 and 10 m was told that its coax stands an SWR of 26000 on 60 m.
TEST(Left, OnlyBandsThatItIsForAreTold)
{
    const Demo demo;
    study::References references;
    for (const Antenna& a : demo.design.antennas) {
        const auto left = leftOf(library(), references, demo.design, a, data());
        ASSERT_TRUE(left) << a.name;
        for (const Finding& f : left->findings)
            if (f.open() && f.stage == Stage::Feed)
                for (const WantedBand& w : demo.design.operation.bands) {
                    const study::FeedRow* row = left->report->row(w.id);
                    const auto tuned = shapes::familyOf(a.shape).tuned(a.shape);
                    const bool its = (row && row->service.service != Service::No) ||
                                     std::any_of(tuned.begin(), tuned.end(), [&](const shapes::TunedLength& t) {
                                         return t.frequency > w.band.from && t.frequency < w.band.to;
                                     });
                    EXPECT_TRUE(its || f.brief.english().find(w.band.name) == std::string::npos) << a.name << ": " << f.brief.english();
                }
    }
}

// "No tuner" was proposed for a tuner that does not tune.
TEST(Left, ATunerIsNotCuredByTakingItAway)
{
    Design d = good();
    only(d).shape.parameters["leg_m"] = 6.5;
    only(d).compromise = Compromise{};
    agree(only(d), Compromise::From::Finder);
    ChainPart tuner = newPart(part::tuner);
    tuner.values["range_swr"] = 3.0;
    ownChain(only(d)).parts.push_back(tuner);
    settleTuners(ownChain(only(d)).parts);
    const std::vector<Finding> all = found(d);
    const Finding* f = with(all, "tuner");
    ASSERT_TRUE(f) << ::testing::PrintToString(codes(all));
    if (f->cure) {
        Design cured = d;
        f->cure->change(cured);
        const auto& parts = chainParts(only(cured));
        EXPECT_TRUE(std::any_of(parts.begin(), parts.end(), [](const ChainPart& p) { return p.kind == part::tuner; }))
            << f->cure->label.english();
    }
}

TEST(Left, AChokeThatGetsHotIsToldOnBandsTheAntennaIsFor)
{
    study::References references;
    const auto left = leftOf(library(), references, good(), only(good()), data());
    study::ShieldAnswer shield;
    shield.complete = true;
    for (const auto& [band, watts] : {std::pair("40 m", 31.0), std::pair("20 m", 90.0)}) {
        study::ShieldBand b;
        b.band = b.name = band;
        b.chosen = study::ShieldState{.chokeHeat = watts};
        shield.bands.push_back(b);
    }
    const auto all = shieldFindings(good(), only(good()), *left->report, shield);
    ASSERT_EQ(all.size(), 1u);
    EXPECT_NE(all[0].message.english().find("40 m"), std::string::npos) << "it is for that, not for 20 m";
    EXPECT_NE(all[0].message.english().find("31"), std::string::npos);
    study::FeedReport strong = *left->report;
    for (ChainPart& p : strong.parts)
        if (p.kind == part::choke)
            p.values["rating_W"] = 40.0;
    EXPECT_TRUE(shieldFindings(good(), only(good()), strong, shield).empty()) << "one that stands 40 W";
    shield.complete = false;
    EXPECT_TRUE(shieldFindings(good(), only(good()), *left->report, shield).empty()) << "not all bands are known";
}

// A measurement tells nothing of a fence, nor of what parts stand.
TEST(Left, WhatIsToBeMindedStaysWhenItWasMeasured)
{
    const Demo demo;
    study::References references;
    Antenna endFed = demo.antenna("Wall end-fed 40");
    Measurement m;
    m.id = "m", m.when = "2026-05-01T10:00", m.dip = 7.08e6, m.dipSwr = 1.8;
    addMeasurement(endFed, m);
    const auto left = leftOf(library(), references, demo.design, endFed, data());
    ASSERT_TRUE(with(left->findings, "voltage"));
    EXPECT_EQ(with(left->findings, "voltage")->gravity, Gravity::Next);
    const auto whip = leftOf(library(), references, demo.design, demo.antenna("Walking whip 17"), data());
    EXPECT_TRUE(with(whip->findings, "low"));
}

TEST(Left, AFinishedLengthIsDoneAndADoubtStopsTheSaw)
{
    const Demo demo;
    study::References references;
    const auto loop = leftOf(library(), references, demo.design, demo.antenna("Loop 17"), data());
    EXPECT_TRUE(codes(loop->findings).empty()) << ::testing::PrintToString(codes(loop->findings));
    EXPECT_TRUE(codes(loop->findings, false).contains("trim"));
    const auto v = leftOf(library(), references, demo.design, demo.antenna("Tower V 60/40"), data());
    const Finding* cut = with(v->findings, "trim");
    ASSERT_TRUE(cut);
    EXPECT_NE(cut->message.english().find("8.0 cm"), std::string::npos) << "as Trim and `trim` say: " << cut->message.english();
    EXPECT_EQ(cut->stage, Stage::Trim);
}

TEST(Left, WhatCannotBeBuiltIsOneLine)
{
    Design d = good();
    only(d).shape.parameters["leg_m"] = -3.0;
    const std::vector<Finding> all = found(d);
    EXPECT_EQ(codes(all), (std::multiset<std::string>{"support"}));
}

TEST(SiteLeft, ABandThatNothingServesIsTheSites)
{
    Design d = good();
    d.operation.bands[1].wish = Wish::Must;
    study::References references;
    const auto left = leftOf(library(), references, d, only(d), data());
    const std::vector<Finding> all = siteFindings(d, {*left});
    ASSERT_TRUE(with(all, "band"));
    EXPECT_NE(with(all, "band")->brief.english().find("20 m"), std::string::npos);
    EXPECT_EQ(with(all, "band")->gravity, Gravity::Wrong);
    d.operation.bands[1].wish = Wish::Nice;
    EXPECT_EQ(with(siteFindings(d, {*left}), "band")->gravity, Gravity::Next);
    EXPECT_FALSE(with(siteFindings(good(), {*left}), "band"));
    EXPECT_TRUE(siteFindings(Design(), {}).front().open()) << "an empty site is to be drawn";
}

} // namespace
} // namespace vetchling::advice

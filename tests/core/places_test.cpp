/// Where every family may be put on six made-up sites, held against geometry of the test's own: what is proposed goes through no wall,
/// beyond no fence, into no zone, and is tied to something.
#include "core/advice/gallery.h"
#include "core/files/design_file.h"
#include "tests/core/shape_helpers.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

namespace vetchling::advice {
namespace {

using namespace vetchling::testing;

Design withSupports(std::vector<Support> supports)
{
    Design design;
    design.site.boundary = {{0, 0}, {40, 0}, {40, 30}, {0, 30}};
    design.site.supports = std::move(supports);
    return design;
}

const Support mast{"mast", SupportKind::Pole, {5, 5}, 10.0, false, "m", {}}, tree{"tree", SupportKind::Tree, {35, 25}, 8.0, false, "t", {}};

const Proposal* find(const std::vector<Proposal>& all, const std::string& id)
{
    const auto found = std::find_if(all.begin(), all.end(), [&](const Proposal& p) { return p.id == id; });
    return found == all.end() ? nullptr : &*found;
}

TEST(Proposals, FollowTheSupportsThatThereAre)
{
    for (const auto& [design, two, one] : {std::tuple(withSupports({}), false, false), std::tuple(withSupports({mast}), false, true),
                                           std::tuple(withSupports({mast, tree}), true, true)}) {
        const auto all = proposals(design, 14.2e6);
        const auto any = [&](Ties ties) { return std::any_of(all.begin(), all.end(), [&](const Proposal& p) { return p.ties == ties; }); };
        EXPECT_EQ(any(Ties::TwoSupports), two);
        EXPECT_EQ(any(Ties::OneSupport), one);
        for (const shapes::Family* family : shapes::families())
            EXPECT_TRUE(std::any_of(all.begin(), all.end(), [&](const Proposal& p) { return p.antenna.shape.family == family->id(); }))
                << family->id();
        for (const Proposal& p : all)
            if (p.fault().empty()) {
                EXPECT_TRUE(shapes::buildOver(p.antenna.shape, design.site.soil.ground())) << p.id;
            }
    }
}

TEST(Proposals, HangBetweenTheTwoHighest)
{
    const auto all = proposals(withSupports({tree, mast}), 14.2e6);
    const Proposal* flat = find(all, "dipole between");
    ASSERT_TRUE(flat);
    const auto built = shapes::buildOver(flat->antenna.shape, averageSoil);
    ASSERT_TRUE(built.ok());
    EXPECT_NEAR(built->feedPoint.x, 20.0, 1e-9);
    EXPECT_NEAR(built->feedPoint.y, 15.0, 1e-9);
    EXPECT_LT(built->feedPoint.z, 8.0);
    const Vec3 along = built->handles[1].at - built->feedPoint;
    EXPECT_NEAR(along.x * 20.0 - along.y * 30.0, 0.0, 1e-6) << "in line with both";
}

TEST(Proposals, TakeWantedBandsForTheirFurtherFrequencies)
{
    Design design = withSupports({mast});
    for (const auto& [name, from, to] :
         {std::tuple("20 m", 14.0e6, 14.35e6), std::tuple("30 m", 10.1e6, 10.15e6), std::tuple("10 m", 28e6, 29.7e6)})
        design.operation.bands.push_back({{name, from, to}, Wish::Must, name});
    const auto all = proposals(design, 14.2e6);
    const Proposal* linked = find(all, "linked-dipole");
    ASSERT_TRUE(linked);
    EXPECT_NEAR(linked->antenna.shape.parameters.at("frequency_2_Hz"), 10.125e6, 1.0);
}

// ---- geometry of its own

Design siteOf(const std::string& file)
{
    return files::readDesign(std::string(VETCHLING_TEST_DATA "/sites/") + file + ".vetchling").value();
}

/// The rectangle that an outline is.
struct Box {
    double x0 = HUGE_VAL, y0 = HUGE_VAL, x1 = -HUGE_VAL, y1 = -HUGE_VAL;
    explicit Box(const Outline& outline)
    {
        for (PlanPoint p : outline)
            x0 = std::min(x0, p.x), y0 = std::min(y0, p.y), x1 = std::max(x1, p.x), y1 = std::max(y1, p.y);
    }
    [[nodiscard]] double outside(double x, double y) const
    {
        return std::hypot(std::max({x0 - x, 0.0, x - x1}), std::max({y0 - y, 0.0, y - y1}));
    }
};

std::vector<Vec3> walked(const WireModel& model)
{
    std::vector<Vec3> all;
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i)
            for (int k = 0; k <= 60; ++k)
                all.push_back(w.points[i - 1] + (w.points[i] - w.points[i - 1]) * (k / 60.0));
    return all;
}

bool nearWallTie(const Site& site, Vec3 p)
{
    return std::any_of(site.supports.begin(), site.supports.end(), [&](const Support& s) {
        return (s.kind == SupportKind::Wall || s.kind == SupportKind::Roof) && std::hypot(p.x - s.at.x, p.y - s.at.y) < 1.01;
    });
}

/// What is wrong with where it lies; empty: nothing.
std::string wrongAt(const Site& site, const WireModel& model)
{
    for (Vec3 p : walked(model)) {
        const std::string at = fmt::format(" at {:.2f} {:.2f} {:.2f}", p.x, p.y, p.z);
        if (!site.boundary.empty() && Box(site.boundary).outside(p.x, p.y) > 0.011)
            return "beyond the fence" + at;
        if (site.boundary.empty() && std::hypot(p.x - site.feedEntry.x, p.y - site.feedEntry.y) > 40.011)
            return "far from the feed" + at;
        for (const Building& b : site.buildings)
            if (std::hypot(Box(b.outline).outside(p.x, p.y), std::max(0.0, p.z - b.ridge)) < 0.45 && !nearWallTie(site, p))
                return "through " + b.name + at;
        if (site.powerLine && std::abs(p.y - site.powerLine->from.y) < p.z + 1.99)
            return "in reach of the power line" + at;
    }
    return {};
}

/// A wire that somebody walks into: neither over heads, nor on the ground, nor upright.
std::string underHeads(const WireModel& model)
{
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i) {
            const Vec3 a = w.points[i - 1], b = w.points[i];
            const double level = std::hypot(a.x - b.x, a.y - b.y), climb = std::abs(a.z - b.z);
            if (std::min(a.z, b.z) < 2.49 && std::max(a.z, b.z) > 0.11 && std::min(a.z, b.z) > -0.01 && climb < 1.55 * level)
                return fmt::format("under heads at {:.2f} {:.2f} {:.2f}", a.x, a.y, std::min(a.z, b.z));
        }
    return {};
}

bool hasRope(const Site& site, Vec3 end, Vec3 out)
{
    const double level = std::hypot(out.x, out.y);
    if (level < 1e-6)
        return false;
    return std::any_of(site.supports.begin(), site.supports.end(), [&](const Support& s) {
        const double dx = s.at.x - end.x, dy = s.at.y - end.y, away = std::hypot(dx, dy), along = (dx * out.x + dy * out.y) / level;
        const double aside = std::sqrt(std::max(0.0, away * away - along * along));
        return along > -0.31 && along < 15.01 && aside < 0.31 + 0.101 * std::max(0.0, along) &&
               end.z + along * out.z / level < s.height + 0.31;
    });
}

/// Whether something holds an end of a wire.
bool isHeld(const Proposal& p, const Site& site, const WireModel& model, const Wire& wire, Vec3 end, Vec3 next)
{
    constexpr double rod = 2e-3, low = 3.01; // m
    if (end.z < low || wire.radius >= rod)
        return true;
    if (std::hypot(end.x - next.x, end.y - next.y) < 0.1) // upright
        return true;
    for (const Wire& other : model.wires)
        for (Vec3 q : {other.points.front(), other.points.back()})
            if (&other != &wire &&
                (distance(q, end) < 0.31 || (distance(q, end) < 2.5 && (dot(q - end, end - next) > 0.0 || wire.length() < 2.51))))
                return true;
    for (const NewPole& pole : p.place.poles)
        if (std::hypot(pole.at.x - end.x, pole.at.y - end.y) < 0.5)
            return true;
    for (const Support& s : site.supports)
        if (std::hypot(s.at.x - end.x, s.at.y - end.y) < (s.kind == SupportKind::Tower ? 1.01 : 0.31) && end.z < s.height + 0.31)
            return true;
    return hasRope(site, end, end - next);
}

class Sites : public ::testing::TestWithParam<const char*> {};

TEST_P(Sites, NothingIsProposedWhereItMayNotBe)
{
    const Design design = siteOf(GetParam());
    int allowed = 0;
    for (double f : {7.1e6, 14.2e6})
        for (const Proposal& p : proposals(design, f)) {
            if (!p.fault().empty())
                continue;
            ++allowed;
            const auto built = shapes::buildOver(p.antenna.shape, design.site.soil.ground());
            ASSERT_TRUE(built) << p.id;
            const std::string wrong = wrongAt(design.site, built->model);
            EXPECT_TRUE(wrong.empty()) << p.id << " for " << f << ": " << wrong;
            const std::string& family = p.antenna.shape.family; // what is carried about stands where its mount is
            const std::string low =
                family == "whip" || family == "mobile-whip" || family == "two-band-whip" ? "" : underHeads(built->model);
            EXPECT_TRUE(low.empty()) << p.id << " for " << f << ": " << low;
            for (const Wire& w : built->model.wires) {
                const std::size_t last = w.points.size() - 1;
                EXPECT_TRUE(isHeld(p, design.site, built->model, w, w.points[0], w.points[1])) << p.id << " for " << f << ": first end";
                EXPECT_TRUE(isHeld(p, design.site, built->model, w, w.points[last], w.points[last - 1]))
                    << p.id << " for " << f << ": last end";
            }
            for (const NewPole& pole : p.place.poles) {
                const auto isUnder = [&](const Wire& w) { // it runs up it
                    return std::all_of(w.points.begin(), w.points.end(),
                                       [&](Vec3 q) { return std::hypot(q.x - pole.at.x, q.y - pole.at.y) < 0.05; });
                };
                const auto& wires = built->model.wires;
                EXPECT_LE(pole.height, std::any_of(wires.begin(), wires.end(), isUnder) ? 13.5 : 12.0) << p.id;
                for (const Building& b : design.site.buildings)
                    EXPECT_GT(Box(b.outline).outside(pole.at.x, pole.at.y), 0.29) << p.id;
                if (!design.site.boundary.empty()) {
                    EXPECT_LT(Box(design.site.boundary).outside(pole.at.x, pole.at.y), 0.01) << p.id;
                }
            }
        }
    EXPECT_GE(allowed, std::string(GetParam()) == "roof-only" ? 2 : 25); // nothing there carries tubes of 10 m to a side
}

INSTANTIATE_TEST_SUITE_P(MadeUp, Sites, ::testing::Values("town-garden", "long-strip", "roof-only", "one-tree", "hilltop", "park"),
                         [](const auto& info) {
                             std::string name = info.param;
                             std::erase(name, '-');
                             return name;
                         });

TEST(Places, WhatCannotBeSaysWhy)
{
    for (const char* file : {"town-garden", "roof-only"})
        for (const Proposal& p : proposals(siteOf(file), 1.9e6))
            if (p.antenna.shape.family == "dipole") {
                EXPECT_FALSE(p.fault().empty()) << p.id;
            }
}

// An end-fed was fed at the far end of the garden, 30 m of coax more than need be.
TEST(Places, TheFeedComesNearTheLine)
{
    for (double entry : {2.0, 38.0}) {
        Design design = withSupports(
            {{"west", SupportKind::Pole, {13, 15}, 10.0, false, "w", {}}, {"east", SupportKind::Pole, {27, 15}, 10.0, false, "e", {}}});
        design.site.feedEntry = {entry, 15.0};
        const auto all = proposals(design, 14.2e6);
        const Proposal* p = find(all, "end-fed between");
        ASSERT_TRUE(p && p->fault().empty());
        const auto built = shapes::buildOver(p->antenna.shape, averageSoil);
        EXPECT_LT(std::abs(built->feedPoint.x - entry), 20.0) << entry;
        design.site.supports.pop_back();
        const auto one = proposals(design, 14.2e6);
        const Proposal* alone = find(one, "end-fed");
        ASSERT_TRUE(alone);
        if (!alone->fault().empty())
            continue;
        double nearest = HUGE_VAL; // the same turned by hand
        for (int deg = 0; deg < 360; deg += 15) {
            shapes::AntennaShape turned = alone->antenna.shape;
            turned.parameters["bearing_deg"] = deg;
            const auto other = shapes::buildOver(turned, averageSoil);
            nearest = std::min(nearest, std::hypot(other->feedPoint.x - entry, other->feedPoint.y - 15.0));
        }
        const auto hung = shapes::buildOver(alone->antenna.shape, averageSoil);
        EXPECT_LT(std::hypot(hung->feedPoint.x - entry, hung->feedPoint.y - 15.0), nearest + 15.0);
    }
}

// A wire of 20 m has no straight way where no two supports are more than 17 m apart.
// What is moved is judged as what is built there, of every family.
TEST(Places, AMovedShapeIsTheShapeThere)
{
    Design design = withSupports({mast, tree});
    design.site.buildings.push_back({"shed", {{20, 10}, {26, 10}, {26, 14}, {20, 14}}, 2.5, 3.5, "shed"});
    design.site.powerLine = PowerLine{{-10, -4}, {60, -4}, 8.0};
    const Judge judge(design);
    int allowed = 0, refused = 0;
    for (const shapes::Family* family : shapes::families()) {
        shapes::AntennaShape shape = family->standardShape(28.5e6);
        Movable movable(judge, shape);
        for (const PlanPoint at :
             {PlanPoint{3.0, 3.0}, PlanPoint{20.0, 20.0}, PlanPoint{27.0, 12.0}, PlanPoint{39.0, 29.0}, PlanPoint{12.5, 8.0}}) {
            shape.parameters["x_m"] = at.x, shape.parameters["y_m"] = at.y;
            const Place there = judge.judgeWithRoom(shape), moved = movable.at(at);
            EXPECT_EQ(moved.fault.english(), there.fault.english()) << family->id() << " " << at.x;
            EXPECT_EQ(moved.against, there.against) << family->id() << " " << at.x;
            EXPECT_EQ(moved.supports, there.supports) << family->id();
            EXPECT_EQ(moved.poles.size(), there.poles.size()) << family->id();
            EXPECT_EQ(moved.shape.parameters, there.shape.parameters) << family->id();
            ++(there.allowed() ? allowed : refused);
        }
    }
    EXPECT_GT(allowed, 20);
    EXPECT_GT(refused, 20);
}

TEST(Places, ALongWireGoesRoundACorner)
{
    const Design design = withSupports({{"first", SupportKind::Pole, {15, 8}, 9.0, false, "1", {}},
                                        {"second", SupportKind::Pole, {15, 20}, 9.0, false, "2", {}},
                                        {"third", SupportKind::Pole, {27, 20}, 9.0, false, "3", {}}});
    const auto all = proposals(design, 7.1e6);
    const Proposal* p = find(all, "end-fed between");
    ASSERT_TRUE(p);
    ASSERT_TRUE(p->fault().empty()) << p->fault().english();
    const auto built = shapes::buildOver(p->antenna.shape, averageSoil);
    const Wire& wire = built->model.wires.front();
    ASSERT_EQ(wire.points.size(), 3u);
    const auto supportAt = [&](Vec3 q) {
        return std::any_of(design.site.supports.begin(), design.site.supports.end(),
                           [&](const Support& s) { return std::hypot(s.at.x - q.x, s.at.y - q.y) < 0.01 && q.z < s.height + 0.01; });
    };
    EXPECT_TRUE(supportAt(wire.points[0]));
    EXPECT_TRUE(supportAt(wire.points[1])) << "the corner is at a support";
    const Vec3 on = wire.points[2] - wire.points[1]; // and its end in the line to a third
    EXPECT_TRUE(std::any_of(design.site.supports.begin(), design.site.supports.end(), [&](const Support& s) {
        const double dx = s.at.x - wire.points[1].x, dy = s.at.y - wire.points[1].y;
        return std::hypot(dx, dy) > std::hypot(on.x, on.y) - 0.01 && std::abs(dx * on.y - dy * on.x) < 0.01 * std::hypot(dx, dy) &&
               dx * on.x + dy * on.y > 0.0;
    }));
    EXPECT_FALSE(p->place.laid.empty()) << "it is told";
}

// In a strip 6 m wide a vertical's four radials of 10 m were laid beyond both fences, or cut to a third.
TEST(Places, TwoRadialsLieAlongAFence)
{
    Design design;
    design.site.boundary = {{0, 0}, {6, 0}, {6, 40}, {0, 40}};
    design.site.feedEntry = {3, 2};
    const auto all = proposals(design, 7.1e6);
    const Proposal* p = find(all, "vertical");
    ASSERT_TRUE(p && p->fault().empty()) << (p ? p->fault().english() : "");
    const shapes::Family& family = shapes::familyOf(p->antenna.shape);
    EXPECT_EQ(family.value(p->antenna.shape, "radial_count"), 2.0);
    EXPECT_GT(family.value(p->antenna.shape, "radial_m"), 8.0) << "in full";
    EXPECT_EQ(p->place.laid.english().substr(0, 10), "2 radials ");
    const auto built = shapes::buildOver(p->antenna.shape, averageSoil);
    for (Vec3 q : walked(built->model))
        EXPECT_TRUE(q.x > -0.011 && q.x < 6.011 && q.y > -0.011 && q.y < 40.011) << q.x << " " << q.y;
}

TEST(Places, AnotherAntennaIsKeptClearOf)
{
    Design design = siteOf("park");
    const auto first = proposals(design, 7.1e6);
    const auto dipole = std::find_if(first.begin(), first.end(), [](const Proposal& p) { return p.id == "dipole between"; });
    ASSERT_TRUE(dipole != first.end() && dipole->fault().empty());
    design.antennas = {dipole->antenna};
    nameThings(design);
    const auto there = shapes::buildOver(dipole->antenna.shape, Ground{});
    for (const Proposal& p : proposals(design, 14.2e6))
        if (p.fault().empty()) {
            const auto built = shapes::buildOver(p.antenna.shape, Ground{});
            double apart = HUGE_VAL;
            for (Vec3 a : walked(built->model))
                for (const Wire& w : there->model.wires)
                    for (std::size_t i = 1; i < w.points.size(); ++i)
                        apart = std::min(apart, segmentDistance(a, a + Vec3{0, 0, 1e-9}, w.points[i - 1], w.points[i]));
            EXPECT_GE(apart, 0.49) << p.id;
        }
}

// ---- what is told of a drawing

Design drawn(double x, double y, double height)
{
    Design design = siteOf("town-garden");
    Antenna a = newAntenna(*shapes::findFamily("dipole"), 28.5e6);
    a.id = "a";
    for (const auto& [key, value] :
         {std::pair("x_m", x), std::pair("y_m", y), std::pair("apex_height_m", height), std::pair("end_height_m", height)})
        a.shape.parameters[key] = value;
    design.antennas = {a};
    return design;
}

FitReport fitOf(const Design& design) { return fitOnSite(design.site, shapes::buildOver(design.antennas[0].shape, Ground{})->model); }

bool tells(const FitReport& fit, SiteWarning::Kind kind)
{
    return std::any_of(fit.warnings.begin(), fit.warnings.end(), [&](const SiteWarning& w) { return w.kind == kind; });
}

// The demo obeys first; what was put on the marsh by hand is told.
TEST(Fits, TheDemoObeys)
{
    const Design demo = files::readDesign(VETCHLING_TEST_DATA "/../../data/demo/gannet-skerry.vetchling").value();
    for (const Antenna& a : demo.antennas) {
        const FitReport fit = fitOnSite(demo.site, shapes::buildOver(a.shape, demo.site.soil.ground())->model);
        const bool marsh = a.shape.family == "vertical";
        EXPECT_EQ(fit.fits(), !marsh) << a.name;
        EXPECT_EQ(tells(fit, SiteWarning::Kind::Water), marsh) << a.name;
        EXPECT_FALSE(tells(fit, SiteWarning::Kind::Support) || tells(fit, SiteWarning::Kind::Tie)) << a.name;
        EXPECT_EQ(marsh, a.notes.find("boundary") != std::string::npos) << a.name;
    }
}

// Plan and side drew the rope of the V to the corner post, 17.9 m away, while Build counted it to the drying pole.
TEST(Fits, OneRopeIsToldEverywhere)
{
    const Design demo = files::readDesign(VETCHLING_TEST_DATA "/../../data/demo/gannet-skerry.vetchling").value();
    for (const Antenna& a : demo.antennas) {
        const auto built = shapes::buildOver(a.shape, demo.site.soil.ground());
        for (const Rope& rope : ropesOf(demo.site, built->model)) {
            const double plan = std::hypot(rope.from.x - rope.to.x, rope.from.y - rope.to.y);
            EXPECT_LE(std::hypot(plan, rope.from.z - rope.to.z), 15.1) << a.name;
            EXPECT_GT(plan, 0.3) << a.name;
            EXPECT_GT(rope.from.z, 1.0) << a.name << ": a radial's end is pegged, not roped to a tower far off";
        }
    }
    const auto ropes = ropesOf(demo.site, shapes::buildOver(demo.antennas[0].shape, demo.site.soil.ground())->model);
    ASSERT_EQ(ropes.size(), 2u) << "one at each end, none at a link";
    std::vector<std::string> names{ropes[0].support->name, ropes[1].support->name};
    std::sort(names.begin(), names.end());
    EXPECT_EQ(names, (std::vector<std::string>{"drying pole", "gate post"}));
}

// A fan that was moved into the cottage "fitted".
TEST(Fits, NotThroughAHouse)
{
    EXPECT_FALSE(fitOf(drawn(6.0, 4.0, 4.0)).fits());
    EXPECT_TRUE(tells(fitOf(drawn(6.0, 4.0, 4.0)), SiteWarning::Kind::Building));
    EXPECT_FALSE(fitOf(drawn(6.0, 4.0, 8.3)).fits()) << "0.3 m over the ridge";
    EXPECT_FALSE(tells(fitOf(drawn(16.0, 4.0, 4.0)), SiteWarning::Kind::Building));
    EXPECT_FALSE(tells(fitOf(drawn(6.0, 4.0, 8.6)), SiteWarning::Kind::Building)) << "over the roof is allowed";
}

TEST(Fits, TellsATieThatIsTooLowFromNothing)
{
    EXPECT_TRUE(tells(fitOf(drawn(15.0, 3.0, 6.0)), SiteWarning::Kind::Support));
    Design low = drawn(15.0, 3.0, 6.0);
    const auto built = shapes::buildOver(low.antennas[0].shape, Ground{});
    const Vec3 end = built->model.wires.front().points.front();
    low.site.supports.push_back({"short post", SupportKind::Pole, {end.x, end.y}, 3.0, false, "short", {}});
    EXPECT_TRUE(tells(fitOf(low), SiteWarning::Kind::Tie));
}

TEST(Fits, TheBoundaryMayBeOpened)
{
    Design design = drawn(24.0, 6.0, 6.0);
    design.antennas[0].shape.parameters["bearing_deg"] = 90.0;
    EXPECT_FALSE(fitOf(design).fits());
    design.site.boundaryMayBeCrossed = true;
    EXPECT_TRUE(fitOf(design).fits());
    const auto again = files::parseDesign(files::writeDesign(design));
    ASSERT_TRUE(again);
    EXPECT_TRUE(again->site.boundaryMayBeCrossed);
}

TEST(Fits, WaterUnderAFootIsTold)
{
    Design design = siteOf("one-tree");
    Antenna a = newAntenna(*shapes::findFamily("vertical"), 14.2e6);
    a.shape.parameters["x_m"] = 23.0;
    a.shape.parameters["y_m"] = 23.0;
    design.antennas = {a};
    EXPECT_TRUE(tells(fitOf(design), SiteWarning::Kind::Water));
}

} // namespace
} // namespace vetchling::advice

/// What is measured out at the bench: sections of links and plane loops against figures of an independent program, wires that hang
/// unevenly, tubes and braces against closed forms.
#include "core/workshop/link_sections.h"
#include "core/workshop/loop_geometry.h"
#include "core/workshop/sag.h"
#include "core/workshop/tubes.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

namespace vetchling {
namespace {

TEST(LinkSections, LeaveThePigtailsOutOfTheWireBetweenInsulators)
{
    const auto half = linkedHalf({5.04, 7.06, 10.08, 13.35}, {0.06, 0.05});
    ASSERT_TRUE(half.ok());
    const double straight[] = {4.98, 1.9, 2.9, 3.21}, path[] = {5.04, 2.02, 3.02, 3.27}, from[] = {0.0, 5.04, 7.06, 10.08};
    for (std::size_t i = 0; i < 4; ++i) {
        EXPECT_NEAR(half->sections[i].straight, straight[i], 1e-9);
        EXPECT_NEAR(half->sections[i].path, path[i], 1e-9);
        EXPECT_NEAR(half->sections[i].fromFeed, from[i], 1e-9);
    }
    EXPECT_NEAR(half->span, 13.14, 1e-9);
}

TEST(LinkSections, WithoutHardwareAreTheDifferencesOfThePaths)
{
    const auto half = linkedHalf({5.02, 10.05}, {});
    EXPECT_NEAR(half->sections[0].straight, 5.02, 1e-12);
    EXPECT_NEAR(half->sections[1].straight, 5.03, 1e-12);
    EXPECT_NEAR(half->span, 10.05, 1e-12);
}

TEST(LinkSections, RefuseWhatCannotBeInWords)
{
    EXPECT_FALSE(linkedHalf({}, {}).ok());
    EXPECT_FALSE(linkedHalf({5.0, 4.9}, {}).ok());
    EXPECT_FALSE(linkedHalf({5.0, 5.1}, {0.15, 0.0}).ok()) << "shorter than its pigtail";
    EXPECT_FALSE(linkedHalf({5.0}, {-0.1, 0.0}).ok());
}

struct LoopCase {
    LoopForm form;
    double perimeter, side, base, width, height, area;
};

TEST(LoopGeometry, IsTheIndependentProgramsToAMicrometre)
{
    const LoopCase cases[] = {
        {{LoopKind::Square}, 21.57211268, 5.393028169, 5.393028169, 5.393028169, 5.393028169, 29.08475283},
        {{LoopKind::SquareOnCorner}, 6.221335992, 1.555333998, 1.555333998, 2.199574434, 2.199574434, 2.419063845},
        {{LoopKind::DeltaEquilateral}, 14.24528302, 4.748427673, 4.748427673, 4.748427673, 4.112258993, 9.7633822},
        {{LoopKind::DeltaIsosceles, 120.0}, 83.92438356, 22.4874708, 38.94944196, 38.94944196, 11.2437354, 218.9686097},
        {{LoopKind::Rectangle, 60.0, 3.0}, 30.26916996, 11.35093874, 11.35093874, 11.35093874, 3.783646245, 42.94793672}};
    for (const LoopCase& c : cases) {
        const auto loop = loopGeometry(c.perimeter, c.form);
        ASSERT_TRUE(loop.ok());
        EXPECT_NEAR(loop->side, c.side, 1e-6);
        EXPECT_NEAR(loop->base, c.base, 1e-6);
        EXPECT_NEAR(loop->width, c.width, 1e-6);
        EXPECT_NEAR(loop->height, c.height, 1e-6);
        EXPECT_NEAR(loop->area, c.area, 1e-5);
        EXPECT_NEAR(loop->corners.back(), c.perimeter, 1e-9);
    }
}

TEST(LoopGeometry, RefusesWhatNoLoopHas)
{
    EXPECT_FALSE(loopGeometry(0.0, {}).ok());
    EXPECT_FALSE(loopGeometry(10.0, {LoopKind::DeltaIsosceles, 180.0}).ok());
    EXPECT_FALSE(loopGeometry(10.0, {LoopKind::Rectangle, 60.0, 0.0}).ok());
}

TEST(Sag, BetweenUnevenSupportsIsTheIndependentPrograms)
{
    const auto h = hangingWithPull({40.0, 0.02}, 50.0, 8.0);
    ASSERT_TRUE(h.ok());
    EXPECT_NEAR(h->end, 51.92971199, 1e-7);
    EXPECT_NEAR(h->low, 50.36064799, 1e-7);
    EXPECT_NEAR(h->sag, 0.8004529512, 1e-8);
    EXPECT_NEAR(h->wire, 40.83240516, 1e-7);
    EXPECT_EQ(h->below, 0.0);
}

TEST(Sag, WithALoadInTheMiddleIsTheIndependentPrograms)
{
    const auto h = hangingWithPull({40.0, 0.02}, 80.0, 0.0, 0.5);
    EXPECT_NEAR(h->end, 80.25405371, 1e-7);
    EXPECT_NEAR(h->sag, 1.103822248, 1e-8);
    EXPECT_NEAR(h->wire, 40.06487599, 1e-7);
}

TEST(Sag, UnderAPullAgreesWithTheOtherWaysOnLevelSupports)
{
    for (double sag : {0.05, 0.8, 4.0}) {
        const auto given = hangingWithSag({30.0, 0.03}, sag);
        const auto pulled = hangingWithPull({30.0, 0.03}, given->horizontal);
        EXPECT_NEAR(pulled->sag, sag, 1e-8);
        EXPECT_NEAR(pulled->end, given->end, 1e-8);
        EXPECT_NEAR(pulled->wire, given->wire, 1e-8);
        EXPECT_NEAR(pulled->below, sag, 1e-8);
    }
}

// Vertical forces at both ends carry the weight, whatever the supports; a slack wire hangs below the lower one.
TEST(Sag, EndsCarryTheWeight)
{
    std::mt19937 random(7);
    std::uniform_real_distribution<double> any(0.0, 1.0);
    for (int i = 0; i < 200; ++i) {
        const Span span{5.0 + 60.0 * any(random), 0.005 + 0.1 * any(random)};
        const double pull = 5.0 + 150.0 * any(random), rise = 20.0 * any(random);
        const auto h = hangingWithPull(span, pull, rise);
        ASSERT_TRUE(h.ok());
        const double up = std::sqrt(h->end * h->end - pull * pull), low = std::sqrt(std::max(0.0, h->low * h->low - pull * pull));
        EXPECT_NEAR(up + (h->below > 0.0 ? low : -low), span.massPerMetre * gravity * h->wire, 1e-5);
        EXPECT_GE(h->wire, std::hypot(span.span, rise) - 1e-9);
    }
}

TEST(Sag, APullOfNothingIsRefused)
{
    EXPECT_FALSE(hangingWithPull({30.0, 0.03}, 0.0).ok());
    EXPECT_FALSE(hangingWithPull({30.0, 0.03}, 1e-3).ok()) << "it would lie on the ground";
    EXPECT_FALSE(hangingWithPull({30.0, 0.03}, 50.0, -1.0).ok());
    EXPECT_FALSE(hangingWithPull({30.0, 0.03}, 50.0, 0.0, -1.0).ok());
}

// A load in the middle of a taut wire pulls it into two straight lines: sag = P L / 4 H.
TEST(Sag, AHeavyLoadOnALightWireIsTwoStraightLines)
{
    const double load = 2.0, span = 20.0, pull = 200.0;
    const auto h = hangingWithPull({span, 1e-6}, pull, 0.0, load);
    ASSERT_TRUE(h.ok());
    EXPECT_NEAR(h->sag, load * gravity * span / (4.0 * pull), 1e-5);
    EXPECT_NEAR(h->end, std::hypot(pull, 0.5 * load * gravity), 1e-4);
    EXPECT_NEAR(h->wire, 2.0 * std::hypot(0.5 * span, h->sag), 1e-5);
    const auto uneven = hangingWithPull({span, 0.02}, pull, 3.0, load);
    EXPECT_GT(uneven->sag, hangingWithPull({span, 0.02}, pull, 3.0)->sag);
    EXPECT_GT(uneven->end, uneven->low);
}

TEST(Tubes, SlideWithATenthToSpareAndRattleBeyond)
{
    const Tube outside{0.025, 0.0015, 2.0};
    EXPECT_TRUE(fitOf(outside, {0.0219, 0.0015, 2.0}).slides);
    EXPECT_FALSE(fitOf(outside, {0.022, 0.0015, 2.0}).slides) << "no room at all";
    EXPECT_TRUE(fitOf(outside, {0.021, 0.0015, 2.0}).tooLoose);
    EXPECT_FALSE(fitOf(outside, {0.0215, 0.0015, 2.0}).tooLoose);
}

TEST(Tubes, ShowWhatIsLeftOfTheElement)
{
    const std::vector<Tube> tubes{{0.025, 0.0015, 2.0}, {0.0215, 0.0015, 2.0}, {0.018, 0.001, 2.0}};
    const auto out = tubesOut(tubes, 5.0, 0.15);
    ASSERT_TRUE(out.ok());
    EXPECT_NEAR((*out)[0], 2.0, 1e-12);
    EXPECT_NEAR((*out)[1], 1.85, 1e-12);
    EXPECT_NEAR((*out)[2], 1.15, 1e-12);
    EXPECT_FALSE(tubesOut(tubes, 5.8, 0.15).ok()) << "they reach 5.70 m";
    EXPECT_FALSE(tubesOut({{0.02, 0.001, 1.0}, {0.02, 0.001, 1.0}}, 1.5, 0.1).ok());
    EXPECT_FALSE(tubesOut(tubes, 5.0, 2.5).ok());
    EXPECT_FALSE(tubesOut({}, 1.0, 0.1).ok());
}

TEST(Tubes, OfSizesAtHandReachAndComeNearToTheThicknessThatWasModelled)
{
    std::vector<Tube> sizes;
    for (int eighths = 12; eighths >= 3; --eighths)
        sizes.push_back({eighths * 0.0254 / 8.0, 1.473e-3, 1.83});
    for (double element : {1.5, 3.0, 5.0, 7.6}) {
        const auto set = tubeSetFor(element, 0.02, sizes, 0.1);
        ASSERT_TRUE(set.ok()) << element;
        double sum = 0.0, mean = 0.0;
        for (std::size_t i = 0; i < set->spans.size(); ++i) {
            sum += set->spans[i].shows;
            mean += set->spans[i].tube.outer * set->spans[i].shows / element;
            if (i > 0) {
                EXPECT_TRUE(fitOf(set->spans[i - 1].tube, set->spans[i].tube).slides);
            }
        }
        EXPECT_NEAR(sum, element, 1e-9);
        EXPECT_NEAR(mean, 0.02, 0.004) << element;
        EXPECT_FALSE(set->shims) << "steps of an eighth of an inch with those walls fit";
    }
    EXPECT_FALSE(tubeSetFor(40.0, 0.02, sizes, 0.1).ok());
    EXPECT_FALSE(tubeSetFor(1.0, 0.02, {}, 0.1).ok());
}

// A cantilever of one tube: w L^4 / 8EI by its weight, P L^3 / 3EI by what hangs at its tip.
TEST(Tubes, DroopAsACantileverDoes)
{
    const Tube tube{0.03, 0.002, 4.0};
    const double area = std::numbers::pi / 4.0 * (0.03 * 0.03 - 0.026 * 0.026),
                 inertia = std::numbers::pi / 64.0 * (std::pow(0.03, 4) - std::pow(0.026, 4));
    const double weight = 2700.0 * area * gravity, stiffness = 69e9 * inertia;
    const Droop own = droopOf({{tube, 4.0}}, {});
    EXPECT_NEAR(own.tip, weight * std::pow(4.0, 4) / (8.0 * stiffness), 1e-12);
    EXPECT_NEAR(own.moment, weight * 8.0, 1e-9);
    const Droop loaded = droopOf({{tube, 4.0}}, {}, 0.5);
    EXPECT_NEAR(loaded.tip - own.tip, 0.5 * gravity * 64.0 / (3.0 * stiffness), 1e-12);
    const Droop parted = droopOf({{tube, 1.3}, {tube, 1.7}, {tube, 1.0}}, {}, 0.5);
    EXPECT_NEAR(parted.tip, loaded.tip, 1e-12) << "steps of one size are no steps";
    EXPECT_LT(droopOf({{tube, 2.0}, {{0.02, 0.001, 2.0}, 2.0}}, {}).moment, own.moment) << "thinner is lighter";
}

TEST(Tubes, ABracePullsByItsAngle)
{
    EXPECT_NEAR(*braceTension(100.0, 1.0, 1.0), 100.0 * std::numbers::sqrt2, 1e-9);
    EXPECT_NEAR(*braceTension(100.0, 1.0, std::sqrt(3.0)), 200.0, 1e-9);
    EXPECT_FALSE(braceTension(100.0, 0.0, 1.0).ok());
}

} // namespace
} // namespace vetchling

/// Matching sections: against exact figures of an independent program, and by putting each solution together.
#include "core/line/chain.h"
#include "core/line/sections.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace vetchling {
namespace {

const SectionSolution* nearest(const std::vector<SectionSolution>& all, double length1)
{
    const SectionSolution* best = nullptr;
    for (const SectionSolution& s : all)
        if (!best || std::abs(s.length1 - length1) < std::abs(best->length1 - length1))
            best = &s;
    return best;
}

TEST(Sections, LengthsAreExact)
{
    using enum SectionMethod;
    struct {
        SectionQuestion asked;
        double section, length1, length2;
    } const figures[] = {{{QuarterWave, 50.2e6, 50, 28, 0, 0.66, 1}, 37.41657387, 0.9853736169, 0},
                         {{TwoSections, 14.2e6, 50, 75, 75, 0.66, 0.66}, 75, 1.135385175, 1.135385175},
                         {{SeriesSection, 28.5e6, 50, 38, 75, 0.66, 0.66}, 75, 0.3720161521, 2.403229719},
                         {{SeriesSection, 14.2e6, 50, {60, -25}, 75, 0.66, 0.66}, 75, 5.567761941, 4.89559669},
                         {{SeriesSection, 21.2e6, 50, {120, 90}, 450, 0.91, 0.66}, 450, 0.3407219128, 0.9957174819},
                         {{SeriesSection, 10.12e6, 75, {45, 10}, 50, 0.85, 0.66}, 50, 9.737524888, 7.871282623},
                         {{ShortedStub, 28.5e6, 0, {0, -80}, 50, 0.66, 1}, 50, 2.352861, 0}};
    for (const auto& f : figures) {
        const auto all = matchSections(f.asked);
        ASSERT_TRUE(all.ok()) << all.firstFault();
        EXPECT_EQ(all->size(), f.asked.method == SeriesSection ? 2u : 1u);
        const SectionSolution* s = nearest(*all, f.length1);
        EXPECT_NEAR(s->section, f.section, 1e-6);
        EXPECT_NEAR(s->length1, f.length1, 1e-8);
        EXPECT_NEAR(s->length2, f.length2, 1e-8);
    }
}

// Whatever is offered matches: the pieces put behind the load show the source's impedance.
TEST(Sections, EverySolutionMatches)
{
    std::mt19937 dice(11);
    std::uniform_real_distribution<double> r(10.0, 300.0), x(-200.0, 200.0), z(20.0, 600.0), v(0.6, 1.0);
    int matched = 0, refused = 0;
    for (int round = 0; round < 400; ++round) {
        SectionQuestion q{SectionMethod::SeriesSection, 14.2e6, 50.0, {r(dice), x(dice)}, z(dice), v(dice), v(dice)};
        if (round % 4 == 0)
            q.method = SectionMethod::TwoSections, q.load = q.load.real();
        const auto all = matchSections(q);
        if (!all) {
            ++refused;
            continue;
        }
        for (const SectionSolution& s : *all) {
            const Complex behind = lineAt(q.source, s.length2, q.velocityFactor2, 0, 0, q.frequency).towardsRadio(q.load);
            const Complex seen = lineAt(s.section, s.length1, q.velocityFactor, 0, 0, q.frequency).towardsRadio(behind);
            EXPECT_LT(std::abs(seen - q.source), 1e-5 * q.source) << q.load << q.section;
            EXPECT_GE(s.length1, 0.0);
            EXPECT_LT(s.length1, 0.5 * q.velocityFactor * wavelength(q.frequency));
            EXPECT_LT(s.length2, 0.5 * q.velocityFactor2 * wavelength(q.frequency));
            ++matched;
        }
    }
    EXPECT_GT(matched, 200);
    EXPECT_GT(refused, 20); // a section too like the line does not reach every load
}

TEST(Sections, AStubShowsItsReactance)
{
    for (double x : {-400.0, -50.0, -3.0, 7.0, 120.0})
        for (const auto method : {SectionMethod::ShortedStub, SectionMethod::OpenStub}) {
            const auto stub = matchSections({method, 7.1e6, 0.0, {0.0, x}, 50.0, 0.66, 1.0});
            ASSERT_TRUE(stub.ok());
            const TwoPort line = lineAt(50.0, stub->front().length1, 0.66, 0, 0, 7.1e6);
            const Complex shown = method == SectionMethod::ShortedStub ? line.b / line.d : line.a / line.c;
            EXPECT_NEAR(shown.imag(), x, 1e-6 * std::abs(x));
        }
}

TEST(Sections, WhatCannotBeIsRefusedInWords)
{
    using enum SectionMethod;
    const SectionQuestion bad[] = {{QuarterWave, 7e6, 50, {30, 20}, 0, 0.66, 1},    {TwoSections, 7e6, 50, {30, 20}, 0, 0.66, 1},
                                   {SeriesSection, 7e6, 50, {500, 0}, 60, 0.66, 1}, {SeriesSection, 7e6, 50, {50, 0}, 75, 0.66, 1},
                                   {SeriesSection, 7e6, 50, {70, 0}, 0, 0.66, 1},   {QuarterWave, 0, 50, 28, 0, 0.66, 1},
                                   {QuarterWave, 7e6, 50, -28, 0, 0.66, 1},         {QuarterWave, 7e6, 0, 28, 0, 0.66, 1},
                                   {ShortedStub, 7e6, 0, {0, 0}, 50, 0.66, 1},      {OpenStub, 7e6, 0, {0, 40}, 0, 0.66, 1},
                                   {QuarterWave, 7e6, 50, 28, 0, 1.4, 1},           {TwoSections, 7e6, 50, 28, 0, 0.66, 0}};
    for (const SectionQuestion& q : bad) {
        const auto all = matchSections(q);
        ASSERT_FALSE(all.ok());
        EXPECT_GT(all.firstFault().size(), 20u);
    }
}

} // namespace
} // namespace vetchling

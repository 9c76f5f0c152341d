#include "core/study/trade.h"

#include "core/study/length_causes.h"
#include "core/study/radials.h"
#include "tests/core/shape_helpers.h"

#include <algorithm>

namespace vetchling::study {
namespace {

using namespace vetchling::testing;
using shapes::shapeOf;

constexpr double tradeBand = 10.12e6;

// Every pair is resonant; a longer dipole needs less coil, is broader and wastes less.
TEST(TradeCurve, EveryPairIsResonantAndLongerIsBetter)
{
    Library library;
    const Subject subject{shapeOf("loaded-dipole", {{"leg_m", 4.6}}, tradeBand), averageSoil, 0};
    const auto curve = tradeCurve(library, subject, tradeBand, {7, 0.6, 1.3});
    ASSERT_TRUE(curve.ok()) << curve.firstFault();
    ASSERT_EQ(curve->points.size(), 7u);
    for (std::size_t i = 0; i < curve->points.size(); ++i) {
        const TradePoint& p = curve->points[i];
        shapes::AntennaShape shape = subject.shape;
        shape.parameters["leg_m"] = p.free;
        shape.parameters["inductance_H"] = p.solved;
        const Complex z = solved(shapes::buildOver(shape, averageSoil)->model, tradeBand, library.tables()).impedance;
        EXPECT_LT(std::abs(z.imag()), 0.005 * std::abs(z)) << p.free;
        if (i == 0)
            continue;
        EXPECT_GT(p.free, curve->points[i - 1].free);
        EXPECT_LT(p.solved, curve->points[i - 1].solved);
        EXPECT_GT(p.width, curve->points[i - 1].width);
        EXPECT_GT(p.efficiency, curve->points[i - 1].efficiency);
    }
}

// The width told by the slope of Z is that between the edges of a sweep.
TEST(TradeCurve, WidthIsThatOfASweep)
{
    Library library;
    const Subject subject{shapeOf("loaded-dipole", {{"leg_m", 4.6}}, tradeBand), averageSoil, 0};
    const auto curve = tradeCurve(library, subject, tradeBand, {1, 1.0, 1.0});
    ASSERT_TRUE(curve.ok()) << curve.firstFault();
    const TradePoint& p = curve->points.front();
    shapes::AntennaShape shape = subject.shape;
    shape.parameters["inductance_H"] = p.solved;
    const auto edge = [&](double direction) {
        double off = 0.0;
        while (swr(solved(shapes::buildOver(shape, averageSoil)->model, tradeBand + direction * off, library.tables()).impedance,
                   p.resistance) < 2.0)
            off += 1e3;
        return off;
    };
    EXPECT_NEAR(p.width / (edge(1.0) + edge(-1.0)), 1.0, 0.06);
}

TEST(TradeCurve, RefusesWhatIsNotShortened)
{
    Library library;
    EXPECT_FALSE(tradeCurve(library, {shapeOf("dipole", {}, tradeBand), averageSoil, 0}, tradeBand).ok());
    const Watch stopped([] { return true; });
    EXPECT_FALSE(tradeCurve(library, {shapeOf("loaded-dipole", {}, tradeBand), averageSoil, 0}, tradeBand, {}, stopped).ok());
}

// As much wire in more and shorter radials: at first better, and in the end hardly; the wire stays the same.
TEST(RadialCurve, SharesTheWireAndSaysWhereMoreStopsPaying)
{
    Library library;
    const Subject subject{shapeOf("vertical", {{"base_height_m", 0.05}, {"radial_end_height_m", 0.05}}, tradeBand), averageSoil, 0};
    const auto curve = radialCurve(library, subject, tradeBand, 60.0);
    ASSERT_TRUE(curve.ok()) << curve.firstFault();
    ASSERT_GE(curve->points.size(), 6u);
    for (const RadialPoint& p : curve->points) {
        EXPECT_NEAR(p.count * p.length, 60.0, 1e-9);
        EXPECT_LT(p.gain, curve->points[curve->enough].gain + worthIt);
        shapes::AntennaShape shape = subject.shape;
        shape.parameters["radial_count"] = p.count, shape.parameters["radial_m"] = p.length, shape.parameters["radiator_m"] = p.radiator;
        const Complex z = solved(shapes::buildOver(shape, averageSoil)->model, tradeBand, library.tables()).impedance;
        EXPECT_NEAR(z.real() / p.resistance, 1.0, 0.01) << p.count;
        EXPECT_LT(std::abs(z.imag()), 0.01 * std::abs(z)) << p.count;
    }
    EXPECT_GT(curve->enough, 0u) << "two long ones are not the best";
    EXPECT_FALSE(radialCurve(library, {shapeOf("dipole", {}, tradeBand), averageSoil, 0}, tradeBand).ok());
}

double product(const std::vector<LengthCause>& causes)
{
    double all = 1.0;
    for (const LengthCause& c : causes)
        all *= 1.0 + c.share;
    return all;
}

double share(const std::vector<LengthCause>& causes, LengthCause::What what)
{
    const auto found = std::find_if(causes.begin(), causes.end(), [&](const LengthCause& c) { return c.what == what; });
    return found == causes.end() ? 0.0 : found->share;
}

// A jacket shortens by some percent, slope lengthens; together the causes are the whole difference.
TEST(LengthCauses, MakeUpTheWholeDifference)
{
    em::GroundTableCache tables;
    Subject subject{shapeOf("dipole", {{"apex_height_m", 12.0}, {"end_height_m", 8.0}}, tradeBand), averageSoil, 0};
    subject.shape.wire.jacket = 0.8e-3;
    const shapes::TunedLength length = shapes::dipoleFamily().tuned(subject.shape).front();
    const auto tuned = tune(subject.shape, averageSoil, "leg_m", tradeBand, tables);
    ASSERT_TRUE(tuned.ok());
    const auto causes = *lengthCauses(subject, length, tuned->value, shapes::TuneGoal::Resonance, tables);
    EXPECT_NEAR(product(causes), tuned->value / tuned->ruleValue, 1e-9);
    EXPECT_LT(share(causes, LengthCause::What::Jacket), -0.01);
    EXPECT_GT(share(causes, LengthCause::What::Jacket), -0.05);
    EXPECT_GT(share(causes, LengthCause::What::Bends), 0.002);
}

// 2026-11: an end-fed wire had no causes, since without the ground it has no X = 0.
TEST(LengthCauses, AreToldOfEndFedWiresToo)
{
    em::GroundTableCache tables;
    Subject subject{shapeOf("end-fed", {}, tradeBand), averageSoil, 0};
    subject.shape.wire.jacket = 0.8e-3;
    const shapes::TunedLength length = shapes::endFedFamily().tuned(subject.shape).front();
    TuneOptions options;
    options.goal = shapes::TuneGoal::LowestSwr;
    const auto tuned = tune(subject.shape, averageSoil, "length_m", tradeBand, tables, options);
    ASSERT_TRUE(tuned.ok());
    const auto causes = *lengthCauses(subject, length, tuned->value, options.goal, tables);
    ASSERT_FALSE(causes.empty());
    EXPECT_NEAR(product(causes), tuned->value / tuned->ruleValue, 1e-9);
    EXPECT_LT(share(causes, LengthCause::What::Jacket), -0.01);
}

// In free space, straight, bare and thin nothing but the constant is left.
TEST(LengthCauses, LeaveOnlyTheConstantWhereNothingElseIs)
{
    em::GroundTableCache tables;
    Subject subject{shapeOf("dipole", {{"apex_height_m", 12.0}, {"end_height_m", 12.0}}, tradeBand), freeSpace, 0};
    subject.shape.wire.diameter = 5e-5 * wavelength(tradeBand);
    const shapes::TunedLength length = shapes::dipoleFamily().tuned(subject.shape).front();
    const auto tuned = tune(subject.shape, freeSpace, "leg_m", tradeBand, tables);
    ASSERT_TRUE(tuned.ok());
    const auto causes = *lengthCauses(subject, length, tuned->value, shapes::TuneGoal::Resonance, tables);
    for (const LengthCause& c : causes)
        if (c.what != LengthCause::What::Rule) {
            EXPECT_NEAR(c.share, 0.0, 2e-4);
        }
    EXPECT_NEAR(share(causes, LengthCause::What::Rule), 0.02, 0.015);
}

} // namespace
} // namespace vetchling::study

/// What a builder works out on paper, with its formulas written down here.
#include "core/em/solver.h"
#include "core/line/chain.h"
#include "core/line/part_kinds.h"
#include "core/line/sections.h"
#include "core/workshop/coil.h"
#include "core/workshop/exposure.h"
#include "core/workshop/sag.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

ChainPart partOf(const char* kind, std::map<std::string, double> values)
{
    ChainPart p;
    p.kind = kind;
    p.values = std::move(values);
    return p;
}

ChainPart coax(double length)
{
    return partOf(
        part::line,
        {{"length_m", length}, {"impedance_ohm", 50.0}, {"velocity_factor", 0.66}, {"k1_dB_per_100m", 1.2}, {"k2_dB_per_100m", 0.004}});
}

double decibels(double ratio) { return 10.0 * std::log10(ratio); }

TEST(HandSums, CoaxMatched)
{
    for (double megahertz : {3.6, 7.1, 28.5})
        EXPECT_NEAR(chainAt({coax(25.0)}, 50.0, 1e6 * megahertz).totalLoss(), 0.25 * (1.2 * std::sqrt(megahertz) + 0.004 * megahertz),
                    1e-9);
}

// a: power ratio of the matched line, r: reflection at its far end; loss = (a^2 - r^2) / (a (1 - r^2)).
TEST(HandSums, CoaxWithAMismatchAtItsEnd)
{
    const double f = 14.2e6, a = std::pow(10.0, 0.1 * chainAt({coax(25.0)}, 50.0, f).totalLoss());
    for (double s : {2.0, 3.0, 10.0}) {
        const double r2 = std::pow((s - 1.0) / (s + 1.0), 2), loss = decibels((a * a - r2) / (a * (1.0 - r2)));
        EXPECT_NEAR(chainAt({coax(25.0)}, 50.0 * s, f).totalLoss(), loss, 1e-6) << s;
        // at the other end the reflection has shrunk by the way there and back
        const double there = std::sqrt(r2) / a;
        EXPECT_NEAR(swr(atSocket({coax(25.0)}, 50.0 * s, f)), (1.0 + there) / (1.0 - there), 1e-6);
    }
}

TEST(HandSums, CopperAcrossATransformerTakesItsShare)
{
    // 49:1 at 2450 ohm: 50 ohm, and 1000 ohm of core across them
    const ChainPart t = partOf(part::transformer, {{"ratio", 49.0}, {"core_ohm", 1000.0}});
    const ChainState s = chainAt({t}, 2450.0, 7.1e6);
    EXPECT_NEAR(s.totalLoss(), decibels(1.0 + 50.0 / 1000.0), 1e-9);
    EXPECT_NEAR(s.impedance().real(), 50.0 * 1000.0 / 1050.0, 1e-9);
}

// A load far below the ratio: what is left of it stands in a row with the copper.
TEST(HandSums, CopperInTheWayOfALowImpedance)
{
    const ChainPart t = partOf(part::transformer, {{"ratio", 49.0}, {"core_ohm", 1000.0}, {"copper_ohm", 0.3}});
    for (const double ohms : {2450.0, 49.0}) { // as it is made for, and one ohm behind it
        const double seen = 1.0 / (49.0 / ohms + 1.0 / 1000.0);
        EXPECT_NEAR(chainAt({t}, ohms, 7.1e6).totalLoss(), decibels(1.0 + ohms / 49.0 / 1000.0) + decibels(1.0 + 0.3 / seen), 1e-9) << ohms;
    }
}

TEST(HandSums, AWindingThatIsTooSmall)
{
    const double f = 3.6e6, henry = 4e-6, x = 2.0 * pi * f * henry;
    const ChainPart t = partOf(part::transformer, {{"ratio", 1.0}, {"magnetising_H", henry}});
    const Complex z = chainAt({t}, 50.0, f).impedance();
    EXPECT_LT(std::abs(z - Complex(0.0, 50.0 * x) / Complex(50.0, x)), 1e-9);
}

// 200 ohm to 50: Q = sqrt(200/50 - 1), the coil Q times 50, the capacitor 200/Q across; a coil of Q 100 takes Q/100.
TEST(HandSums, ATunersCoil)
{
    const auto all = networksFor(200.0, 50.0, 7.1e6, 100.0, 1e6);
    ASSERT_FALSE(all.empty());
    const double q = std::sqrt(3.0), w = 2.0 * pi * 7.1e6;
    const auto low = std::find_if(all.begin(), all.end(), [](const NetworkSolution& s) { return s.series.inductor && s.shuntAtLoad; });
    ASSERT_NE(low, all.end());
    EXPECT_NEAR(w * low->series.value, 50.0 * q, 0.02 * 50.0 * q);
    EXPECT_NEAR(1.0 / (w * low->shunt.value), 200.0 / q, 0.02 * 200.0 / q);
    EXPECT_NEAR(low->loss, decibels(1.0 / (1.0 - q / 100.0)), 0.005);
}

TEST(HandSums, AQuarterWaveBetween)
{
    const auto all = matchSections({SectionMethod::QuarterWave, 14.2e6, 50.0, 112.5, 0.0, 0.66, 0.66});
    ASSERT_TRUE(all.ok());
    EXPECT_NEAR(all->front().section, 75.0, 1e-9);
    EXPECT_NEAR(all->front().length1, 0.66 * 299.792458 / 14.2 / 4.0, 1e-9);
}

TEST(HandSums, ThreeDecibelsHideAnOpenEnd)
{
    const ChainPart pad = partOf(part::attenuator, {{"loss_dB", 3.0}});
    const double r = std::pow(10.0, -2.0 * 3.0 / 20.0);
    EXPECT_NEAR(swr(atSocket({pad}, 1e9, 7.1e6)), (1.0 + r) / (1.0 - r), 1e-3);
}

// Wheeler 1928: microhenries = r^2 n^2 / (9 r + 10 l), inches, 1 % where l > 0.8 r.
TEST(HandSums, ACoilByWheeler)
{
    for (const auto& [diameter, pitch, turns] : {std::tuple{0.032, 2.2e-3, 21.5}, {0.05, 3e-3, 30.0}, {0.04, 2.5e-3, 14.0}}) {
        const Coil coil{diameter, 1.5e-3, pitch, turns, 5.8e7};
        const double r = 0.5 * diameter / 0.0254, l = pitch * turns / 0.0254;
        EXPECT_NEAR(1e6 * coilFigures(coil)->inductance, r * r * turns * turns / (9.0 * r + 10.0 * l),
                    0.03 * r * r * turns * turns / (9.0 * r + 10.0 * l))
            << turns;
    }
}

// Maxwell: rings of the same size at distances; M = mu0 a ((2/k - k) K - 2/k E), k^2 = 4 a^2 / (4 a^2 + d^2); one by itself
// mu0 a (ln(8 a / r) - 7/4) with its current all through it.
TEST(HandSums, ACoilRingByRing)
{
    constexpr double mu0 = 4e-7 * pi;
    const int turns = 20;
    const double a = 0.016, pitch = 2.2e-3, r = 0.75e-3;
    double sum = 0.0;
    for (int i = 0; i < turns; ++i)
        for (int j = 0; j < turns; ++j) {
            const double d = pitch * (i - j), k = 2.0 * a / std::sqrt(4.0 * a * a + d * d);
            sum += i == j ? mu0 * a * (std::log(8.0 * a / r) - 1.75)
                          : mu0 * a * ((2.0 / k - k) * std::comp_ellint_1(k) - 2.0 / k * std::comp_ellint_2(k));
        }
    EXPECT_NEAR(coilFigures({2.0 * a, 2.0 * r, pitch, double(turns), 5.8e7})->inductance, sum, 0.005 * sum);
}

TEST(HandSums, SagByTheParabola)
{
    for (double pull : {40.0, 80.0, 200.0}) {
        const double weight = 0.025 * 9.80665;
        const auto hanging = hangingWithPull({20.0, 0.025}, pull);
        ASSERT_TRUE(hanging.ok());
        EXPECT_NEAR(hanging->sag, weight * 20.0 * 20.0 / (8.0 * pull), 1e-4 * hanging->sag + 1e-4);
    }
}

// A chain of short links: each takes over the pull of the one before and adds its weight.
TEST(HandSums, SagLinkByLink)
{
    const double mass = 0.06, span = 30.0, pull = 25.0, link = 1e-3;
    double x = 0.0, y = 0.0, vertical = 0.0;
    while (x < 0.5 * span) {
        const double along = std::hypot(pull, vertical);
        x += link * pull / along;
        y += link * vertical / along;
        vertical += mass * 9.80665 * link;
    }
    const auto hanging = hangingWithPull({span, mass}, pull);
    ASSERT_TRUE(hanging.ok());
    EXPECT_NEAR(hanging->sag, y, 2e-3 * y);
    EXPECT_NEAR(hanging->end, std::hypot(pull, vertical), 2e-3 * pull);
}

// Straight from the dipole and by way of the ground: 60 I / R each, R to its ends, as of a half wave (Balanis, sec. 4.5); the second with
// Fresnel's coefficient for horizontal fields.
TEST(HandSums, ADistanceByTwoRays)
{
    const double f = 28.5e6, height = 9.0, power = 1000.0, head = 2.0, half = 0.2375 * wavelength(f);
    WireModel model;
    model.ground = {GroundKind::Real, 13.0, 5e-3};
    Wire wire;
    wire.id = "a";
    wire.points = {{0, -half, height}, {0, half, height}};
    wire.radius = 1e-3;
    model.wires = {wire};
    model.feeds = {{0, half, 1.0}};
    em::GroundTableCache tables;
    const auto solution = em::solve(std::make_shared<const WireModel>(model), f, tables);
    ASSERT_TRUE(solution.ok());
    const double amperes = std::sqrt(power / solution->impedance.real()), k = 2.0 * pi / wavelength(f);
    const Complex soil(13.0, -5e-3 / (2.0 * pi * f * 8.8541878128e-12));
    const auto field = [&](double away) {
        const double quarter = 0.25 * wavelength(f), r1 = std::hypot(away, height - head, quarter),
                     r2 = std::hypot(away, height + head, quarter), sine = (height + head) / std::hypot(away, height + head);
        const Complex root = std::sqrt(soil - (1.0 - sine * sine)), fresnel = (sine - root) / (sine + root);
        return 60.0 * amperes * std::abs(std::polar(1.0, -k * r1) / r1 + fresnel * std::polar(1.0, -k * r2) / r2);
    };
    double farthest = 0.0;
    LimitRange limit{1e6, 1e9, LimitCurve{20.0, 0.0}, {}, {}};
    for (double away = 0.0; away < 60.0; away += 0.02)
        if (field(away) > 20.0)
            farthest = away;
    const auto keep = keepAway(*solution, tables, limit, power);
    ASSERT_TRUE(keep.ok());
    EXPECT_NEAR(keep->onGround, farthest, 0.1 * farthest);
    EXPECT_GT(farthest, 5.0);
}

} // namespace
} // namespace vetchling

/// Gain as others tell it, against textbook figures over perfect ground and Fresnel's coefficient by hand.
#include "core/study/told_gain.h"
#include "tests/core/shape_helpers.h"

namespace vetchling {
namespace {

/// A half-wave of thin perfect wire, level.
std::shared_ptr<const WireModel> halfWave(double height, const Ground& ground)
{
    constexpr double frequency = 14.1e6;
    const double half = 0.25 * wavelength(frequency) * 0.985;
    WireModel model;
    model.ground = ground;
    Wire wire;
    wire.id = "a";
    wire.points = {{0.0, -half, height}, {0.0, half, height}};
    wire.radius = 1e-4;
    model.wires = {wire};
    model.feeds = {{0, half, 1.0}};
    return std::make_shared<const WireModel>(model);
}

TEST(ToldGain, OverPerfectGroundAQuarterWaveUpItIsTheTextbooks)
{
    // 1.64 x 4 x R11 / (R11 - R12), R11 = 73.1 ohm, R12 = -12.5 ohm half a wave apart side by side (Carter 1932, Proc. IRE 20, fig. 3)
    const double textbook = 10.0 * std::log10(1.64 * 4.0 * 73.1 / (73.1 + 12.5));
    em::GroundTableCache tables;
    const auto told = study::gainElsewhere(halfWave(0.25 * wavelength(14.1e6), testing::averageSoil), 14.1e6, tables);
    ASSERT_TRUE(told.ok()) << told.firstFault();
    ASSERT_TRUE(*told);
    EXPECT_NEAR((*told)->strongestPerfect, textbook, 0.1);
    // straight up the soil gives back n - 1 over n + 1 of what the perfect ground does, in its own phase
    const Complex n = std::sqrt(testing::averageSoil.complexPermittivity(14.1e6)), back = (1.0 - n) / (1.0 + n);
    const double less = 20.0 * std::log10(std::abs(1.0 - back) / 2.0);
    EXPECT_NEAR((*told)->withoutNearLoss->gain(0.5 * pi, 0.0), (*told)->perfect->gain(0.5 * pi, 0.0) + less, 0.02);
}

TEST(ToldGain, ALowWireIsToldMuchTooHighWithoutTheNearLossAndAHighOneIsNot)
{
    em::GroundTableCache tables;
    for (const auto& [height, least, most] : {std::tuple(0.5, 5.0, 30.0), std::tuple(25.0, -0.3, 0.3)}) {
        const auto model = halfWave(height, testing::averageSoil);
        const auto told = study::gainElsewhere(model, 14.1e6, tables);
        const auto here = em::solve(model, 14.1e6, tables);
        ASSERT_TRUE(told.ok() && *told && here.ok());
        const double more = (*told)->strongestWithoutNearLoss - study::strongestGain(em::FarField(*here));
        EXPECT_GT(more, least) << height;
        EXPECT_LT(more, most) << height;
    }
}

TEST(ToldGain, WhatHasNoCounterpartOverPerfectGroundIsNotTold)
{
    em::GroundTableCache tables;
    const auto free = study::gainElsewhere(halfWave(5.0, {}), 14.1e6, tables);
    ASSERT_TRUE(free.ok());
    EXPECT_FALSE(*free);
    WireModel rod = *halfWave(5.0, testing::averageSoil);
    rod.wires[0].points[1].z = -0.5;
    const auto buried = study::gainElsewhere(std::make_shared<const WireModel>(rod), 14.1e6, tables);
    ASSERT_TRUE(buried.ok());
    EXPECT_FALSE(*buried);
}

TEST(ToldGain, ALineSaysWhichFigureItProbablyIs)
{
    const study::GainElsewhere told{nullptr, nullptr, 9.0, 16.4};
    const auto words = [&](double figure) { return study::whoseGain(figure, 2.7, told).english(); };
    EXPECT_NE(words(2.5).find("is what is told here"), std::string::npos);
    EXPECT_NE(words(9.6).find("without the loss in the near ground"), std::string::npos);
    EXPECT_NE(words(16.0).find("over perfect ground"), std::string::npos);
    EXPECT_NE(words(0.5).find("over a half-wave"), std::string::npos);
    EXPECT_NE(words(12.7).find("none of these"), std::string::npos);
    EXPECT_NE(words(16.0).find("16.4 dB"), std::string::npos) << "figures as people read them";
}

} // namespace
} // namespace vetchling

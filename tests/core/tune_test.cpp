#include "core/tune/tune.h"

#include "tests/core/helpers.h"
#include "tests/long_form.h"

namespace vetchling {
namespace {

using namespace vetchling::testing;

struct TuneCase {
    const char* family;
    double frequency;
};

class EveryFamilyTunes : public ::testing::TestWithParam<TuneCase> {};

/// The reactance rises through zero, where it falls the resonance is a parallel one.
bool isResonance(const shapes::BuiltAntenna& built, double frequency, em::GroundTableCache& tables)
{
    constexpr double beside = 2e-3;
    const Complex below = solved(built.atLine(), (1.0 - beside) * frequency, tables).impedance,
                  above = solved(built.atLine(), (1.0 + beside) * frequency, tables).impedance;
    return above.imag() > below.imag();
}

// The tuned antenna, solved afresh, has no reactance to speak of.
TEST_P(EveryFamilyTunes, ToResonance)
{
    const auto [id, f] = GetParam();
    shapes::AntennaShape shape = shapes::findFamily(id)->standardShape(f);
    em::GroundTableCache tables;
    const std::string key = shapes::findFamily(id)->tuned(shape).front().parameter;
    const auto outcome = tune(shape, averageSoil, key, f, tables);
    ASSERT_TRUE(outcome.ok()) << outcome.firstFault();
    EXPECT_LE(outcome->solves, f < 400e6 ? 9 : 11) << "short thick arms are far from the rule";
    EXPECT_GT(outcome->ruleValue, 0.0);
    shape.parameters[key] = outcome->value;
    const auto built = shapes::buildOver(shape, averageSoil);
    ASSERT_TRUE(built.ok());
    const Complex z = solved(built->atLine(), f, tables).impedance;
    EXPECT_LT(std::abs(z.imag()), 0.003 * std::abs(z));
    EXPECT_LT(relative(z, outcome->impedance), 1e-9);
    EXPECT_TRUE(built->highVoltageFeed || isResonance(*built, f, tables)) << z;
}

std::vector<TuneCase> tuneCases()
{
    std::vector<TuneCase> all{{"dipole", 1.85e6}, {"end-fed", 7.1e6}, {"vertical", 10.1e6}, {"delta-loop", 18.1e6}, {"dipole", 28.5e6}};
    static std::vector<std::string> ids; // what the cases point to
    for (const shapes::Family* family : shapes::families())
        if (family->usualGoal() == shapes::TuneGoal::Resonance)
            ids.push_back(family->id());
    for (const std::string& id : ids)
        for (double f : {3.6e6, 14.2e6, 145e6, 445e6})
            all.push_back({id.c_str(), f});
    return all;
}

INSTANTIATE_TEST_SUITE_P(Families, EveryFamilyTunes, ::testing::ValuesIn(tuneCases()), [](const auto& info) {
    std::string name = std::string(info.param.family) + std::to_string(int(info.param.frequency / 1e5));
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
});

// 2026-11: the second pair of a fan stopped at a parallel resonance of 1500 ohm on 10 m and on 2 m.
TEST(TuneAll, FindsTheLowResistanceOfEveryPair)
{
    for (double f : {3.6e6, 14.2e6, 28.5e6, 50e6, 145e6}) {
        em::GroundTableCache tables;
        const auto outcome = tuneAll(shapes::fanDipoleFamily().standardShape(f), averageSoil, tables);
        ASSERT_TRUE(outcome.ok()) << f << outcome.firstFault();
        for (const TunedValue& one : outcome->lengths) {
            EXPECT_LT(one.impedance.real(), 150.0) << f << " " << one.length.parameter;
            EXPECT_NEAR(one.value / one.ruleValue, 1.0, 0.2) << f;
        }
    }
}

// 2026-11: the coil was given as tuned at 19.9 kilohm of parallel resonance.
TEST(TuneAll, ATwoBandWhipIsResonantOnBoth)
{
    shapes::AntennaShape shape = shapes::findFamily("two-band-whip")->standardShape(445e6);
    shape.parameters["frequency_2_Hz"] = 146e6;
    em::GroundTableCache tables;
    const auto outcome = tuneAll(shape, averageSoil, tables);
    ASSERT_TRUE(outcome.ok()) << outcome.firstFault();
    for (const TunedValue& one : outcome->lengths)
        shape.parameters[one.length.parameter] = one.value;
    const auto built = shapes::buildOver(shape, averageSoil);
    for (double f : {445e6, 146e6}) {
        const Complex z = solved(built->atLine(), f, tables).impedance;
        EXPECT_LT(std::abs(z), 100.0) << f << z;
        EXPECT_TRUE(isResonance(*built, f, tables)) << f;
    }
}

// On six soils and at two heights each; the long form takes every family.
TEST(TuneAll, TakesNoParallelResonance)
{
    std::size_t number = 0;
    for (const shapes::Family* family : shapes::families()) {
        if (family->usualGoal() != shapes::TuneGoal::Resonance)
            continue;
        for (const auto& [permittivity, conductivity] : {std::pair(3.0, 1e-4), std::pair(8.0, 1e-3), std::pair(13.0, 5e-3),
                                                         std::pair(20.0, 0.03), std::pair(80.0, 1e-3), std::pair(80.0, 5.0)})
            for (double higher : {0.7, 1.3}) {
                if (!testing::tried(number++, 23))
                    continue;
                const Ground ground{GroundKind::Real, permittivity, conductivity};
                shapes::AntennaShape shape = family->standardShape(14.2e6);
                for (const shapes::ParameterSpec& spec : family->specs(shape))
                    if (spec.key.ends_with("height_m"))
                        shape.parameters[spec.key] = higher * family->value(shape, spec.key);
                em::GroundTableCache tables;
                const auto outcome = tuneAll(shape, ground, tables);
                ASSERT_TRUE(outcome.ok()) << family->id() << " " << permittivity << " " << higher << outcome.firstFault();
                for (const TunedValue& one : outcome->lengths)
                    shape.parameters[one.length.parameter] = one.value;
                for (const TunedValue& one : outcome->lengths) {
                    const auto built = shapes::buildOver(shape, ground, one.length.configuration);
                    ASSERT_TRUE(built.ok()) << built.firstFault();
                    EXPECT_TRUE(built->highVoltageFeed || isResonance(*built, one.length.frequency, tables))
                        << family->id() << " " << one.length.parameter << " " << permittivity << " " << higher << one.impedance;
                }
            }
    }
}

TEST(Tune, SaysThatThereIsNoneBesideAParallelResonance)
{
    shapes::AntennaShape shape = shapes::findFamily("dipole")->standardShape(14.2e6);
    shape.parameters["leg_m"] = 9.9; // a whole wave
    em::GroundTableCache tables;
    TuneOptions options;
    options.startFromPresent = true;
    const auto outcome = tune(shape, averageSoil, "leg_m", 14.2e6, tables, options);
    ASSERT_FALSE(outcome.ok()) << outcome->value << outcome->impedance;
    EXPECT_NE(outcome.firstFault().find("14.200 MHz"), std::string::npos) << outcome.firstFault();
}

TEST(Tune, OtherParametersToo)
{
    shapes::AntennaShape shape = shapes::findFamily("loaded-dipole")->standardShape(7.1e6);
    em::GroundTableCache tables;
    const auto outcome = tune(shape, averageSoil, "leg_m", 7.1e6, tables);
    ASSERT_TRUE(outcome.ok()) << outcome.firstFault();
    EXPECT_LT(std::abs(outcome->impedance.imag()), 0.003 * std::abs(outcome->impedance));
}

// Lowest SWR lies elsewhere than resonance when the transformer does not fit; neighbours are worse.
TEST(Tune, ToLowestSwr)
{
    shapes::AntennaShape shape = shapes::findFamily("end-fed")->standardShape(7.1e6);
    em::GroundTableCache tables;
    TuneOptions options;
    options.goal = shapes::TuneGoal::LowestSwr;
    const auto outcome = tune(shape, averageSoil, "length_m", 7.1e6, tables, options);
    ASSERT_TRUE(outcome.ok()) << outcome.firstFault();
    const auto swrAt = [&](double length) {
        shape.parameters["length_m"] = length;
        const auto built = shapes::buildOver(shape, averageSoil);
        return swr(solved(built->atLine(), 7.1e6, tables).impedance);
    };
    const double best = swrAt(outcome->value);
    EXPECT_LT(best, swrAt(outcome->value * 1.02));
    EXPECT_LT(best, swrAt(outcome->value * 0.98));
}

TEST(Tune, SaysSoWhereThereIsNoResonance)
{
    em::GroundTableCache tables;
    shapes::AntennaShape far = shapes::findFamily("dipole")->standardShape(7.1e6);
    const auto outcome = tune(far, averageSoil, "apex_height_m", 3.6e6, tables);
    ASSERT_FALSE(outcome.ok());
    EXPECT_NE(outcome.firstFault().find("3.600 MHz"), std::string::npos) << outcome.firstFault();
}

// 2026-11: a start below zero crossed the limits of the search.
TEST(Tune, SearchesOnBothSidesOfAStartBelowZero)
{
    shapes::AntennaShape shape = shapes::findFamily("dipole")->standardShape(7.1e6);
    shape.parameters["apex_height_m"] = 12.0;
    shape.parameters["second_end_m"] = -4.0;
    em::GroundTableCache tables;
    TuneOptions options;
    options.goal = shapes::TuneGoal::LowestSwr;
    const auto outcome = tune(shape, averageSoil, "second_end_m", 7.1e6, tables, options);
    ASSERT_TRUE(outcome.ok()) << outcome.firstFault();
    EXPECT_LE(outcome->value, -4.0 / 1.5);
    EXPECT_GE(outcome->value, -4.0 * 1.5);
    shape.parameters["second_end_m"] = 0.0;
    EXPECT_TRUE(mentions(tune(shape, averageSoil, "second_end_m", 7.1e6, tables).faults(), "second_end_m", "zero"));
}

TEST(Tune, RefusesWhatCannotBeTuned)
{
    const shapes::AntennaShape shape = shapes::findFamily("dipole")->standardShape(7.1e6);
    em::GroundTableCache tables;
    EXPECT_TRUE(mentions(tune(shape, averageSoil, "x_m", 7.1e6, tables).faults(), "x_m", "not a dimension"));
    EXPECT_FALSE(tune(shape, averageSoil, "nonsense", 7.1e6, tables).ok());
    EXPECT_FALSE(tune(shape, averageSoil, "leg_m", 0.0, tables).ok());
    shapes::AntennaShape unknown = shape;
    unknown.family = "rhombic";
    EXPECT_FALSE(tune(unknown, averageSoil, "leg_m", 7.1e6, tables).ok());
}

TEST(Tune, StopsWhenAsked)
{
    const shapes::AntennaShape shape = shapes::findFamily("dipole")->standardShape(7.1e6);
    em::GroundTableCache tables;
    const Watch watch([] { return true; });
    const auto outcome = tune(shape, averageSoil, "leg_m", 7.1e6, tables, {}, watch);
    ASSERT_FALSE(outcome.ok());
    EXPECT_TRUE(outcome.stopped());
}

} // namespace
} // namespace vetchling

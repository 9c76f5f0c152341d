/// Made-up instruments on made-up antennas: their language, their errors, and that a calibration finds the antenna behind them.
#include "core/study/answers.h"
#include "core/trim/next_step.h"
#include "core/tune/tune.h"
#include "sim/analyser.h"
#include "sim/command.h"
#include "sim/power_meter.h"

#include <gtest/gtest.h>

#include <cmath>
#include <sstream>

namespace vetchling::sim {
namespace {

Design dipoleDesign()
{
    Design design;
    Antenna antenna;
    antenna.id = "antenna-1";
    antenna.name = "dipole";
    antenna.shape = shapes::findFamily("dipole")->standardShape(14.1e6);
    design.antennas = {antenna};
    return design;
}

World worldOf(const Design& design, unsigned seed)
{
    return World(design, design.antennas.front(), seed, {{}, "line", {}, {}, {}, {}, {}});
}

std::vector<double> numbersIn(const std::string& list)
{
    std::vector<double> out;
    std::istringstream in(list);
    for (std::string word; std::getline(in, word, ',');)
        out.push_back(std::stod(word));
    return out;
}

RawSweep sweptWith(Analyser& analyser, const char* plug)
{
    analyser.answer(std::string("ROUT:PLUG ") + plug);
    analyser.answer("INIT");
    RawSweep raw{numbersIn(analyser.answer("CALC:DATA:STIM?")), {}};
    const auto flat = numbersIn(analyser.answer("CALC:DATA:REFL?"));
    for (std::size_t i = 0; i + 1 < flat.size(); i += 2)
        raw.reflection.emplace_back(flat[i], flat[i + 1]);
    return raw;
}

void setRange(Analyser& analyser, const char* from, const char* to, const char* points)
{
    analyser.answer(std::string("SENS:FREQ:STAR ") + from);
    analyser.answer(std::string("SENS:FREQ:STOP ") + to);
    analyser.answer(std::string("SENS:SWE:POIN ") + points);
}

TEST(Commands, AreTakenInShortAndInFull)
{
    const Command c = parsed(":sense:frequency:start 7.0E6 , 2\r");
    EXPECT_EQ(c.path, (std::vector<std::string>{"SENSE", "FREQUENCY", "START"}));
    EXPECT_EQ(c.arguments, (std::vector<std::string>{"7.0E6", "2"}));
    EXPECT_FALSE(c.query);
    EXPECT_TRUE(parsed("*IDN?").query);
    EXPECT_TRUE(means("FREQ", "FREQuency") && means("FREQUENCY", "FREQuency"));
    EXPECT_FALSE(means("FREQU", "FREQuency"));
}

TEST(Language, KeepsItsFaultsUntilAsked)
{
    Language language;
    double level = 0.0;
    language.add("SOURce:LEVel", [&](const std::vector<std::string>& a) {
        level = numberAt(a, 0, 0.0, 1.0);
        return std::string();
    });
    EXPECT_EQ(language.answer("SOUR:LEV 0.5"), "");
    EXPECT_EQ(level, 0.5);
    EXPECT_EQ(language.answer("SYST:ERR?"), "0,\"No error\"");
    language.answer("SOUR:LEV 7");
    language.answer("SOUR:LEV");
    language.answer("SOUR:LEV 0.2x");
    language.answer("NONSENSE 1");
    EXPECT_EQ(level, 0.5) << "what is refused changes nothing";
    for (const char* part : {"Data out of range", "Missing parameter", "Data out of range", "Undefined header"})
        EXPECT_NE(language.answer("SYSTem:ERRor?").find(part), std::string::npos) << part;
    EXPECT_EQ(language.answer("SYST:ERR?"), "0,\"No error\"");
    EXPECT_EQ(language.answer("   "), "");
}

TEST(Analyser, SaysWhatItIsAndRefusesNonsense)
{
    Analyser analyser(worldOf(dipoleDesign(), 1), {}, 1);
    EXPECT_NE(analyser.answer("*IDN?").find("Stand-in"), std::string::npos);
    setRange(analyser, "14.5e6", "13.9e6", "11");
    analyser.answer("INIT");
    EXPECT_NE(analyser.answer("SYST:ERR?").find("must rise"), std::string::npos);
    analyser.answer("ROUT:PLUG BANANA");
    EXPECT_NE(analyser.answer("SYST:ERR?").find("ANTenna"), std::string::npos);
    analyser.answer("WORL:CHAN nose_m,0.1");
    EXPECT_NE(analyser.answer("SYST:ERR?").find("no such dimension"), std::string::npos);
    analyser.answer("SENS:FREQ:STAR 7e6");
    EXPECT_EQ(analyser.answer("SENS:FREQ:STAR?"), "7000000");
}

// The whole way: raw readings, a calibration made of them, and the antenna as it hangs behind coax.
TEST(Analyser, CalibratedShowsTheAntenna)
{
    const Design design = dipoleDesign();
    Analyser analyser(worldOf(design, 5), {}, 5);
    setRange(analyser, "13.6e6", "14.4e6", "41");
    const RawSweep open = sweptWith(analyser, "OPEN"), shorted = sweptWith(analyser, "SHOR"), load = sweptWith(analyser, "LOAD");
    const auto calibration = Calibration::from(open, shorted, load);
    ASSERT_TRUE(calibration.ok()) << calibration.firstFault();
    EXPECT_TRUE(calibration->signs().empty());
    const RawSweep raw = sweptWith(analyser, "ANT");
    const auto sweep = calibration->correct(raw);
    ASSERT_TRUE(sweep.ok());
    std::mt19937 random(5);
    AsBuilt built;
    built.plan.shape = design.antennas.front().shape;
    built.plan.ground = design.site.soil.ground();
    built.faults = everydayFaults(random);
    study::Library library;
    const auto actual = impedancesOf(library, built, {}, raw.frequency);
    ASSERT_TRUE(actual.ok());
    for (std::size_t i = 0; i < actual->size(); ++i)
        EXPECT_LT(std::abs(*sweep->points[i].impedance - (*actual)[i]), 0.01 * std::abs((*actual)[i])) << i;
    // without the calibration it would not have been
    EXPECT_GT(std::abs(measuredSwrOf(raw.reflection[20]) - sweep->points[20].swr), 0.02);
}

TEST(World, FollowsTheHands)
{
    Analyser analyser(worldOf(dipoleDesign(), 9), {}, 9);
    setRange(analyser, "13.2e6", "14.6e6", "71");
    const auto dip = [&] {
        MeasuredSweep sweep;
        const RawSweep raw = sweptWith(analyser, "ANT");
        for (std::size_t i = 0; i < raw.frequency.size(); ++i)
            sweep.points.push_back(
                {raw.frequency[i], std::nullopt, measuredSwrOf(errorTermsOf({}, raw.frequency[i]).actual(raw.reflection[i]))});
        return sweep.dip()->frequency;
    };
    const double before = dip();
    analyser.answer("WORLD:CHANGE leg_m,-0.10");
    const double cut = dip();
    EXPECT_NEAR(cut / before - 1.0, 0.10 / 5.1, 0.006) << "a tenth of a metre of five";
    analyser.answer("WORLD:HAND 1");
    EXPECT_LT(dip(), cut - 5e4) << "a hand lengthens";
    analyser.answer("WORLD:HAND 0");
    EXPECT_NEAR(dip(), cut, 8e3);
}

// A log that is there already binds the stand-in: what it shows goes on from there.
TEST(AsBuilt, AgreesWithTheLog)
{
    Design design = dipoleDesign();
    Antenna& antenna = design.antennas.front();
    Measurement m;
    m.dip = 13.83e6;
    antenna.trim.measurements = {m};
    m.cutSinceLast = 0.05;
    m.parameter = "leg_m";
    m.dip = 13.95e6;
    antenna.trim.measurements.push_back(m);
    std::mt19937 random(2);
    AsBuilt built;
    built.plan.shape = antenna.shape;
    built.plan.ground = design.site.soil.ground();
    built.faults = everydayFaults(random);
    study::Library library;
    const AsBuilt agreeing = *agreeingWithLog(library, built, antenna);
    Handling now;
    now.changes["leg_m"] = -0.05;
    const auto facts = dipNear(library, subjectOf(agreeing, now), 14.1e6);
    ASSERT_TRUE(facts.ok());
    EXPECT_NEAR(facts->dip, 13.95e6, 5e3);
    antenna.trim.measurements.clear();
    EXPECT_EQ(agreeingWithLog(library, built, antenna)->faults, built.faults);
}

// Set the needle to its mark with forward power, turn to reflected: the SWR follows.
TEST(PowerMeter, IsReadLikeAnOldOne)
{
    const Design design = dipoleDesign();
    PowerMeter meter(worldOf(design, 4), 50.0, 4);
    const double mark = 14.0e6;
    meter.answer("SOUR:FREQ 14.0e6");
    meter.answer("SENS:DIR FORW");
    double gain = 0.02, needle = 0.0;
    for (; gain < 1.0; gain *= 1.05) {
        meter.answer("SENS:GAIN " + std::to_string(gain));
        needle = std::stod(meter.answer("READ:NEED?"));
        if (needle >= 1.0)
            break;
    }
    ASSERT_NEAR(needle, 1.0, 0.08);
    meter.answer("SENS:DIR REFL");
    double reflected = 0.0;
    for (int i = 0; i < 40; ++i)
        reflected += std::stod(meter.answer("READ:NEED?")) / 40.0;
    const double gamma = reflected / needle, swr = (1.0 + gamma) / (1.0 - gamma);
    std::mt19937 random(4);
    AsBuilt built;
    built.plan.shape = design.antennas.front().shape;
    built.plan.ground = design.site.soil.ground();
    built.faults = everydayFaults(random);
    study::Library library;
    const auto actual = impedancesOf(library, built, {}, {mark, 1.001 * mark});
    EXPECT_NEAR(swr, measuredSwr(actual->front(), 50.0), 0.06 * swr);
    meter.answer("SENS:DIR SIDEWAYS");
    EXPECT_NE(meter.answer("SYST:ERR?"), "");
}

TEST(Frequencies, StandOnTheInstrumentsSteps)
{
    const auto f = sweptFrequencies(7.0e6, 7.00101e6, 21, 100.0);
    for (std::size_t i = 0; i < f.size(); ++i) {
        EXPECT_EQ(std::fmod(f[i], 100.0), 0.0);
        if (i > 0) {
            EXPECT_GT(f[i], f[i - 1]) << "none twice";
        }
    }
    EXPECT_EQ(sweptFrequencies(7e6, 7.2e6, 21, 0.0).size(), 21u);
}

} // namespace
} // namespace vetchling::sim

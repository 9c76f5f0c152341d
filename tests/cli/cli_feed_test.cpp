/// The real program on what lies between an antenna and the radio: chain, match, feed.
#include "tests/cli/cli_fixture.h"

#include <cmath>

namespace {

const char* const wholeChain = R"({"format":"vetchling-chain","version":1,"frequency_Hz":7.1e6,"load_ohm":[210,95],
 "parts":[{"kind":"transformer","ratio":4,"loss_dB":0.3},{"kind":"choke","loss_dB":0.1},
  {"kind":"line","length_m":25,"impedance_ohm":[50,0],"velocity_factor":0.66,"k1_dB_per_100m":0.6,"k2_dB_per_100m":0.003},
  {"kind":"line","length_m":3,"impedance_ohm":[50,0],"velocity_factor":0.85,"k1_dB_per_100m":0.38,"k2_dB_per_100m":0.0015},
  {"kind":"tuner","inductor_q":150,"capacitor_q":2000,"to_ohm":50}]})";

TEST_F(Cli, ChainIsExactPartByPart)
{
    const Outcome o = run("chain " + write("chain.json", wholeChain));
    ASSERT_EQ(o.code, 0) << o.err;
    const Json result = Json::parse(o.out);
    EXPECT_EQ(result["format"], "vetchling-chain-result");
    ASSERT_EQ(result["parts"].size(), 5u);
    const double losses[] = {0.3, 0.1, 0.4449655055, 0.03341738817, 0.0009270381897};
    for (std::size_t i = 0; i < 5; ++i)
        EXPECT_NEAR(double(result["parts"][i]["loss_dB"]), losses[i], 1e-6) << i;
    EXPECT_NEAR(double(result["parts"][3]["impedance_ohm"][0]), 47.63649623, 1e-5);
    EXPECT_NEAR(double(result["parts"][3]["swr_50"]), 1.516698025, 1e-6);
    EXPECT_NEAR(double(result["total_dB"]), 0.8793099318, 1e-6);
    EXPECT_NEAR(double(result["efficiency"]), 0.8167121318, 1e-6);
    const Json solutions = result["parts"][4]["solutions"];
    ASSERT_EQ(solutions.size(), 4u);
    for (std::size_t i = 1; i < 4; ++i)
        EXPECT_LE(double(solutions[i - 1]["loss_dB"]), double(solutions[i]["loss_dB"]) + 1e-9);
    EXPECT_EQ(solutions[3]["topology"], "shunt_load");
    EXPECT_EQ(solutions[3]["series"]["kind"], "L");
    EXPECT_NEAR(double(solutions[3]["series"]["value"]), 0.4010660341e-6, 1e-12);
}

TEST_F(Cli, ABadChainIsRefusedWithItsPlace)
{
    const Outcome o = run("chain " + write("chain.json", R"({"format":"vetchling-chain","version":1,"frequency_Hz":7.1e6,"load_ohm":[-5,0],
        "parts":[{"kind":"choke"},{"kind":"lne"},{"kind":"line","length_m":"far"}]})"));
    EXPECT_EQ(o.code, 2);
    EXPECT_TRUE(o.out.empty());
    for (const char* place : {"load_ohm: ", "parts[1].kind: ", "parts[2].length_m: "})
        EXPECT_NE(o.err.find(place), std::string::npos) << place << o.err;
    EXPECT_EQ(run("chain " + path("nowhere.json")).code, 2);
    // a tuner that cannot is no fault
    const Outcome far = run("chain " + write("far.json", R"({"format":"vetchling-chain","version":1,"frequency_Hz":7.1e6,"load_ohm":[5,300],
        "parts":[{"kind":"tuner","range_swr":3}]})"));
    EXPECT_EQ(far.code, 0) << far.err;
    EXPECT_FALSE(std::string(Json::parse(far.out)["parts"][0]["refused"]).empty());
}

TEST_F(Cli, MatchTellsAllSolutions)
{
    const Outcome o =
        run("match series-section --frequency 28.5e6 --source 50 --load 38,0 --section 75 --velocity-factor 0.66 --velocity-factor-2 0.66");
    ASSERT_EQ(o.code, 0) << o.err;
    const Json all = Json::parse(o.out)["solutions"];
    ASSERT_EQ(all.size(), 2u);
    EXPECT_NEAR(double(all[0]["length_1_m"]), 0.3720161521, 1e-7);
    EXPECT_NEAR(double(all[0]["length_2_m"]), 2.403229719, 1e-7);
    const Json quarter =
        Json::parse(run("match quarter-wave --frequency '50.2 MHz' --load '28 ohm' --velocity-factor 0.66").out)["solutions"];
    EXPECT_NEAR(double(quarter[0]["section_ohm"]), 37.41657387, 1e-6);
    const Json stub =
        Json::parse(run("match shorted-stub --frequency 28.5e6 --load 0,-80 --section 50 --velocity-factor 0.66").out)["solutions"];
    EXPECT_NEAR(double(stub[0]["length_1_m"]), 2.352861, 1e-6);
}

TEST_F(Cli, MatchRefusesInWords)
{
    const char* const bad[] = {"match half-wave --frequency 7e6 --load 30",
                               "match quarter-wave --frequency 7e6 --load 30,90",
                               "match series-section --frequency 7e6 --load 900 --section 55",
                               "match quarter-wave --frequency never --load 30",
                               "match open-stub --frequency 7e6 --load 0,0 --section 50",
                               "match quarter-wave --frequency 7e6 --load 30 --velocity-factor 1.5",
                               "match quarter-wave --load 30"};
    for (const char* command : bad) {
        const Outcome o = run(command);
        EXPECT_EQ(o.code, 2) << command;
        EXPECT_TRUE(o.out.empty()) << command;
        EXPECT_GT(o.err.size(), 20u) << command;
    }
}

TEST_F(Cli, FeedBalancesBandByBand)
{
    const Outcome o = run("feed " + demo() + " --antenna 'Wall end-fed 40' --elevation 15");
    ASSERT_EQ(o.code, 0) << o.err;
    const Json feed = Json::parse(o.out);
    EXPECT_GE(feed["bands"].size(), 6u);
    for (const Json& band : feed["bands"]) {
        double sum = 0.0, watts = band["into_antenna_W"];
        ASSERT_EQ(band["joints"].size(), 4u);
        EXPECT_EQ(band["joints"][0]["part"], "transformer");
        for (const Json& joint : band["joints"]) {
            sum += double(joint["loss_dB"]);
            watts += double(joint["lost_W"]);
        }
        EXPECT_NEAR(double(band["total_dB"]), sum, 1e-9);
        EXPECT_NEAR(double(band["net_dBi"]), double(band["gain_dBi"]) - sum, 1e-9);
        EXPECT_NEAR(watts, double(band["put_in_W"]), 1e-6);
        EXPECT_NEAR(double(band["put_in_W"]), double(feed["power_W"]) * std::pow(10.0, -0.1 * double(band["mismatch_dB"])), 1e-6);
        EXPECT_TRUE(band["reference_dBi"].is_number());
    }
}

TEST_F(Cli, FeedIsHeldAgainstWhatIsAskedFor)
{
    const auto fortyOf = [&](const std::string& options) {
        const Outcome o = run("feed " + demo() + options);
        EXPECT_EQ(o.code, 0) << o.err;
        const Json feed = Json::parse(o.out);
        for (const Json& band : feed["bands"])
            if (band["band"] == "40 m")
                return band;
        return Json();
    };
    EXPECT_NEAR(double(fortyOf(" --against 1.5")["reference_dBi"]), 1.5, 1e-9);
    const Json other = fortyOf(" --against 'Wall end-fed 40'"), itself = fortyOf(" --antenna 'Wall end-fed 40'");
    EXPECT_NEAR(double(other["reference_dBi"]), double(itself["net_dBi"]), 1e-6);
    EXPECT_EQ(run("feed " + demo() + " --against nobody").code, 2);
    EXPECT_EQ(run("feed " + demo() + " --elevation 95").code, 2);
    EXPECT_EQ(run("feed " + demo() + " --antenna nobody").code, 2);
    const Json twice = fortyOf(" --power 200"), once = fortyOf(" --power 100");
    EXPECT_NEAR(double(twice["joints"][1]["volts"]) / double(once["joints"][1]["volts"]), std::sqrt(2.0), 1e-9);
}

// What has only a transformer's parameters is fed through just that.
TEST_F(Cli, FeedOfADesignWithoutChains)
{
    ASSERT_EQ(
        run("new end-fed --frequency 7.1e6 --set transformer_ratio=49 --set transformer_loss_percent=10 -o " + path("a.vetchling")).code,
        0);
    const Json feed = Json::parse(run("feed " + path("a.vetchling")).out);
    const Json joints = feed["bands"][0]["joints"];
    ASSERT_EQ(joints.size(), 1u);
    EXPECT_EQ(joints[0]["part"], "transformer");
    EXPECT_GT(double(joints[0]["loss_dB"]), 0.05);
    // and without any transformer straight to the radio
    ASSERT_EQ(run("new dipole --frequency 14.2e6 -o " + path("b.vetchling")).code, 0);
    const Json plain = Json::parse(run("feed " + path("b.vetchling")).out);
    EXPECT_TRUE(plain["bands"][0]["joints"].empty());
    EXPECT_EQ(double(plain["bands"][0]["total_dB"]), 0.0);
}

// The wire file's lines lose by frequency too, with the same two constants.
TEST_F(Cli, LinesOfAWireFileLoseByFrequency)
{
    const auto lostAt = [&](const std::string& loss, double frequency) {
        const Outcome o = run("solve " + write("case.json", R"({"format":"vetchling-wires","version":1,"ground":{"kind":"free-space"},
            "wires":[{"id":"a","points_m":[[0,-5,9],[0,5,9]],"radius_m":0.001},{"id":"b","points_m":[[0,-5,19],[0,5,19]],"radius_m":0.001}],
            "lines":[{"from":{"wire":"a","at_m":4.0},"to":{"wire":"b","at_m":4.0},"impedance_ohm":50,"length_m":10,"velocity_factor":0.8,)" +
                                                                loss + R"(}],
            "feeds":[{"wire":"a","at_m":5.0,"voltage_V":[1,0]}],"frequencies_Hz":[)" +
                                                                std::to_string(frequency) + "]}"));
        EXPECT_EQ(o.code, 0) << o.err;
        return double(Json::parse(o.out)["results"][0]["losses"]["lines"]);
    };
    // 3 sqrt(f) + 0.5 f dB per 100 m is so much per metre at each frequency
    for (double megahertz : {7.0, 14.0}) {
        const double perMetre = (3.0 * std::sqrt(megahertz) + 0.5 * megahertz) / 100.0;
        EXPECT_NEAR(lostAt("\"k1_dB_per_100m\":3,\"k2_dB_per_100m\":0.5", megahertz * 1e6),
                    lostAt("\"loss_dB_per_m\":" + std::to_string(perMetre), megahertz * 1e6), 1e-5);
    }
    EXPECT_GT(lostAt("\"k1_dB_per_100m\":3,\"k2_dB_per_100m\":0.5", 14e6), 0.0);
}

} // namespace

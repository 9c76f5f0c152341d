/// The real program on bands: which length, which setting, which wire.
#include "tests/cli/cli_fixture.h"

namespace {

TEST_F(Cli, HarmonicsIsTheSolvedAntennaForEachLength)
{
    const Outcome o = run("harmonics " + demo() + " --antenna 'Wall end-fed 40' --from 19 --to 21 --count 3 --elevation 25");
    ASSERT_EQ(o.code, 0) << o.err;
    const Json map = Json::parse(o.out);
    EXPECT_EQ(map["format"], "vetchling-map");
    EXPECT_EQ(map["vary"], "length_m");
    EXPECT_EQ(map["values"], Json({19.0, 20.0, 21.0}));
    for (const char* key : {"lowest_swr", "share_under_limit", "gain_dBi", "by_multiples", "score"})
        EXPECT_EQ(map[key].size(), 3u) << key;
    ASSERT_EQ(run("set " + demo() + " --antenna 'Wall end-fed 40' length_m=20 -o " + path("twenty.vetchling")).code, 0);
    const Json bands = Json::parse(run("bands " + path("twenty.vetchling") + " --antenna 'Wall end-fed 40'").out);
    ASSERT_EQ(map["bands"].size(), bands.size());
    double score = 0.0;
    const Json wishes = Json::parse(read(VETCHLING_DATA "/demo/gannet-skerry.vetchling"))["operation"]["bands"];
    for (std::size_t i = 0; i < bands.size(); ++i) {
        EXPECT_EQ(map["bands"][i], bands[i]["band"]);
        if (double(bands[i]["lowest_swr"]) < 10.0) {
            EXPECT_NEAR(map["lowest_swr"][1][i], bands[i]["lowest_swr"], 0.02 + 0.01 * double(bands[i]["lowest_swr"]));
        }
        EXPECT_NEAR(map["share_under_limit"][1][i], bands[i]["share_under_limit"], 0.011);
        score += (wishes[i]["wish"] == "must" ? 3.0 : wishes[i]["wish"] == "nice" ? 1.0 : 0.0) * double(map["share_under_limit"][1][i]);
    }
    EXPECT_NEAR(map["score"][1], score, 1e-9);
    const Outcome csv = run("harmonics " + demo() + " --antenna 'Wall end-fed 40' --from 19 --to 21 --count 3 --csv");
    EXPECT_EQ(std::count(csv.out.begin(), csv.out.end(), '\n'), 1 + 3 * std::ptrdiff_t(bands.size()));
}

TEST_F(Cli, HarmonicsRefusesWhatMakesNoSense)
{
    for (const char* wrong : {"--vary nothing", "--from 5 --to 3", "--count 1", "--elevation 120", "--bearing 400"}) {
        const Outcome o = run("harmonics " + demo() + " --antenna 'Loop 17' " + wrong);
        EXPECT_EQ(o.code, 2) << wrong;
        EXPECT_FALSE(o.err.empty()) << wrong;
        EXPECT_TRUE(o.out.empty()) << wrong;
    }
}

TEST_F(Cli, LengthsByRule)
{
    const std::string bands = "lengths --band 7e6:7.2e6 --band 10.1e6:10.15e6 --band 14e6:14.35e6 --band 18.068e6:18.168e6 "
                              "--band 21e6:21.45e6 --band 24.89e6:24.99e6 --band 28e6:29.7e6 --velocity-factor 0.97:0.97 --margin 6";
    const Json half = Json::parse(run(bands).out), multiple = Json::parse(run(bands + " --measure multiple").out);
    ASSERT_EQ(half["intervals"].size(), 13u);
    EXPECT_NEAR(half["intervals"][1]["best_m"], 37.175968158, 1e-8);
    EXPECT_NEAR(half["intervals"][1]["distance_percent"], 15.909090909, 1e-7);
    EXPECT_EQ(multiple["intervals"].size(), 5u);
    EXPECT_EQ(run("lengths --band 7.2e6:7e6").code, 2);
    EXPECT_EQ(run("lengths --band here").code, 2);
    EXPECT_EQ(run("lengths").code, 2);
}

TEST_F(Cli, SettingsOfWhatCanBeSet)
{
    const Outcome o = run("settings " + demo() + " --antenna 'Walking whip 17'");
    ASSERT_EQ(o.code, 0) << o.err;
    const Json rows = Json::parse(o.out)["rows"];
    int reached = 0;
    for (const Json& row : rows) {
        EXPECT_TRUE(row["values"].contains("whip_m"));
        if (!row["reached"])
            continue;
        ++reached;
        EXPECT_LT(row["slope_Hz_per_m"], 0.0);
    }
    EXPECT_GE(reached, 3);
    const Outcome linked = run("settings " + demo() + " --antenna 'Tower V 60/40' --csv"),
                  cut = run("settings " + demo() + " --antenna 'Loop 17'");
    EXPECT_NE(linked.out.find("60 m"), std::string::npos);
    EXPECT_EQ(cut.code, 2);
    EXPECT_NE(cut.err.find("cut"), std::string::npos);
}

} // namespace

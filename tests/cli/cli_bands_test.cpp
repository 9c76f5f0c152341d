/// The real program on bands: which length, which setting, which wire.
#include "tests/cli/cli_fixture.h"

namespace {

TEST_F(Cli, HarmonicsIsTheSolvedAntennaForEachLength)
{
    const Outcome o = run("harmonics " + demo() + " --antenna 'Wall end-fed 40' --from 19 --to 21 --count 3 --elevation 25 --all-bands");
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

TEST_F(Cli, HarmonicsSolvesWhatIsWishedFor)
{
    ASSERT_EQ(run("new dipole --frequency 7.1e6 -o " + path("forty.vetchling")).code, 0);
    const std::string asked = "harmonics " + path("forty.vetchling") + " --count 2";
    const Json wished = Json::parse(run(asked).out), all = Json::parse(run(asked + " --all-bands").out);
    int solved = 0;
    for (std::size_t i = 0; i < wished["bands"].size(); ++i) {
        const bool own = wished["bands"][i] == "40 m";
        EXPECT_EQ(wished["solved"][0][i], own) << wished["bands"][i];
        EXPECT_EQ(wished["lowest_swr"][0][i].is_null(), !own) << wished["bands"][i];
        solved += bool(all["solved"][0][i]) ? 1 : 0;
        if (own) {
            EXPECT_EQ(wished["lowest_swr"][0][i], all["lowest_swr"][0][i]) << "to the last digit";
            EXPECT_NEAR(wished["gain_dBi"][0][i], all["gain_dBi"][0][i], 1e-4) << "one mesh for all that is solved";
        }
    }
    EXPECT_GT(solved, 3);
}

TEST_F(Cli, HarmonicsVariesTheHeightOfSupports)
{
    const std::string asked = "harmonics " + demo() + " --antenna 'Tower V 60/40' --count 3 --from 8 --to 14 --vary ";
    const Json all = Json::parse(run(asked + "height_m").out), one = Json::parse(run(asked + "'support_height_m:stone tower'").out);
    for (const Json* map : {&all, &one}) {
        ASSERT_EQ((*map)["half_wave_m"].size(), (*map)["bands"].size());
        EXPECT_NEAR((*map)["half_wave_m"][2], 0.5 * 299.792458 / 7.1, 0.1) << (*map)["bands"][2];
        for (std::size_t i = 1; i < 3; ++i)
            EXPECT_NE((*map)["gain_dBi"][0][2], (*map)["gain_dBi"][i][2]);
    }
    EXPECT_GT(all["gain_dBi"][2][2], all["gain_dBi"][0][2]);
    EXPECT_EQ(run(asked + "'support_height_m:no such'").code, 2);
}

TEST_F(Cli, SolveTellsTheGainAsOthersDo)
{
    const std::string wires = write("low.json", R"({"format":"vetchling-wires","version":1,
        "ground":{"kind":"real","relative_permittivity":13.0,"conductivity_S_per_m":0.005},
        "wires":[{"id":"a","points_m":[[0,-5,0.5],[0,5,0.5]],"radius_m":0.001}],
        "feeds":[{"wire":"a","at_m":5.0,"voltage_V":[1,0]}],"frequencies_Hz":[14.1e6],
        "pattern":{"elevations_deg":[30,90],"azimuths_deg":[0]}})");
    const Json plain = Json::parse(run("solve " + wires).out)["results"][0],
               told = Json::parse(run("solve " + wires + " --elsewhere").out)["results"][0];
    EXPECT_FALSE(plain.contains("gain_elsewhere"));
    EXPECT_EQ(plain["gain_dBi"], told["gain_dBi"]);
    const double here = told["gain_dBi"][1][0], without = told["gain_elsewhere"]["without_near_ground_loss_dBi"][1][0],
                 perfect = told["gain_elsewhere"]["perfect_ground_dBi"][1][0];
    EXPECT_GT(without, here + 3.0);
    EXPECT_NEAR(perfect, 8.5, 1.5) << "half a metre over a mirror";
    const std::string free = write("free.json", R"({"format":"vetchling-wires","version":1,"ground":{"kind":"free-space"},
        "wires":[{"id":"a","points_m":[[0,-5,0.5],[0,5,0.5]],"radius_m":0.001}],
        "feeds":[{"wire":"a","at_m":5.0,"voltage_V":[1,0]}],"frequencies_Hz":[14.1e6]})");
    EXPECT_EQ(run("solve " + free + " --elsewhere").code, 2);
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

/// Each command by itself, and the definition written down here.
TEST_F(Cli, ABandIsServedAlikeWhereverItIsTold)
{
    const std::string file = path("served.vetchling");
    for (const char* antenna : {"Tower V 60/40", "Wall end-fed 40", "Fan 12/10"})
        for (const double limit : {3.0, 0.7}) {
            const std::string named = std::string(" --antenna '") + antenna + "'";
            ASSERT_EQ(run("set " + demo() + named + " loss_limit_dB=" + std::to_string(limit) + " -o " + file).code, 0);
            const Json bands = Json::parse(run("bands " + file + named).out), feed = Json::parse(run("feed " + file + named).out)["bands"],
                       compare = Json::parse(run("compare " + file + named).out)["variants"][0];
            const auto of = [](const Json& rows, const std::string& band) {
                return *std::find_if(rows.begin(), rows.end(), [&](const Json& row) { return row["band"] == band; });
            };
            int served = 0, partly = 0;
            for (const char* band : {"60 m", "40 m", "30 m", "17 m", "12 m", "10 m"}) {
                const Json told = of(bands, band), fed = of(feed, band);
                const double share = told["share_with_tuner"], loss = told["loss_dB"];
                const std::string word = share >= 0.95 && loss <= limit ? "yes" : share >= 0.05 ? "partly" : "no";
                EXPECT_EQ(told["served"], word) << antenna << " " << band;
                EXPECT_EQ(fed["served"], word) << antenna << " " << band;
                EXPECT_NEAR(fed["share_with_tuner"], share, 1e-9) << antenna << " " << band;
                EXPECT_NEAR(fed["loss_dB"], loss, 1e-6) << antenna << " " << band;
                EXPECT_NEAR(double(fed["total_dB"]) + double(fed["mismatch_dB"]), loss, 0.02 * loss + 0.02) << antenna << " " << band;
                EXPECT_LE(double(fed["into_antenna_W"]), 100.0 * std::pow(10.0, -0.1 * double(fed["mismatch_dB"])) + 1e-6);
                served += word == "yes";
                partly += word == "partly";
            }
            EXPECT_EQ(compare["bands_served"], served) << antenna;
            EXPECT_EQ(compare["bands_partly"], partly) << antenna;
        }
}

// 2026-11: 98 W went "into the wire" beside an SWR over 9 and no tuner.
TEST_F(Cli, WhatTheRadioCannotPutInIsNotInTheWire)
{
    const std::string file = path("bare.vetchling");
    ASSERT_EQ(run("new dipole --frequency 7.1e6 -o " + file).code, 0);
    const auto row = [&](const char* band) {
        const Json all = Json::parse(run("feed " + file).out)["bands"];
        return *std::find_if(all.begin(), all.end(), [&](const Json& r) { return r["band"] == band; });
    };
    const Json twenty = row("20 m"); // two half waves, fed in the middle
    const double r = twenty["port_ohm"][0], x = twenty["port_ohm"][1];
    const double back = (std::pow(r - 50.0, 2) + x * x) / (std::pow(r + 50.0, 2) + x * x);
    ASSERT_GT(back, 0.6);
    EXPECT_NEAR(twenty["into_antenna_W"], 100.0 * (1.0 - back) * (1.0 / 9.0) / back, 0.5);
    ASSERT_EQ(run("set " + file + " foldback_swr=0 -o " + file).code, 0);
    EXPECT_NEAR(row("20 m")["into_antenna_W"], 100.0 * (1.0 - back), 1.5);
    EXPECT_EQ(run("set " + file + " foldback_swr=0.5 -o " + file).code, 2);
    EXPECT_EQ(run("set " + file + " loss_limit_dB=-1 -o " + file).code, 2);
}

} // namespace

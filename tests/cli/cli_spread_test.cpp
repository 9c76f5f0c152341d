/// The real program on what is not exactly known: spread, variants side by side, neighbours.
#include "tests/cli/cli_fixture.h"

#include <cmath>

namespace {

Json bandOf(const Json& bands, const std::string& name)
{
    for (const Json& band : bands)
        if (band["band"] == name)
            return band;
    return {};
}

TEST_F(Cli, SpreadTellsPointsInOrderAndTheirCauses)
{
    const Outcome o = run("spread " + demo());
    ASSERT_EQ(o.code, 0) << o.err;
    const Json spread = Json::parse(o.out);
    for (const char* name : {"60 m", "40 m"}) {
        const Json band = bandOf(spread["bands"], name);
        ASSERT_EQ(band["dip_Hz"].size(), 3u) << name;
        EXPECT_LT(band["dip_Hz"][0], band["dip_Hz"][1]);
        EXPECT_LT(band["dip_Hz"][1], band["dip_Hz"][2]);
        EXPECT_LE(band["lowest_swr"][0], band["lowest_swr"][2]);
        EXPECT_GE(double(band["lowest_swr"][0]), 1.0);
        EXPECT_FALSE(std::string(band["configuration"]).empty());
    }
    EXPECT_TRUE(bandOf(spread["bands"], "30 m")["dip_Hz"].is_null());
    double sum = 0.0; // independent causes add as squares; a tolerance is two standard deviations
    for (const Json& cause : spread["causes"])
        sum += std::pow(double(cause["shift_Hz"]), 2);
    const Json forty = bandOf(spread["bands"], "40 m");
    EXPECT_NEAR(double(forty["dip_Hz"][2]) - double(forty["dip_Hz"][0]), 1.645 * std::sqrt(sum), 0.12 * 1.645 * std::sqrt(sum));
    // the middle is what `bands` says
    const Json bands = Json::parse(run("bands " + demo()).out);
    EXPECT_NEAR(double(forty["dip_Hz"][1]), double(bandOf(bands, "40 m")["at_Hz"]), 2e3);
}

TEST_F(Cli, SpreadTakesOtherTolerances)
{
    const std::string none = " --height 0 --unequal 0 --jacket 0 --conductivity-factor 1 --permittivity-factor 1 --cut ";
    const Json still = Json::parse(run("spread " + demo() + none + "0").out),
               cut = Json::parse(run("spread " + demo() + none + "0.05").out);
    const Json a = bandOf(still["bands"], "40 m"), b = bandOf(cut["bands"], "40 m");
    EXPECT_NEAR(double(a["dip_Hz"][2]) - double(a["dip_Hz"][0]), 0.0, 5.0);
    EXPECT_GT(double(b["dip_Hz"][2]) - double(b["dip_Hz"][0]), 40e3);
    EXPECT_EQ(cut["causes"][0]["what"], "cut");
    EXPECT_GT(double(cut["cut_margin_percent"]), 0.3);
    EXPECT_EQ(run("spread " + demo() + " --height -1").code, 2);
    EXPECT_EQ(run("spread " + demo() + " --conductivity-factor 0.5").code, 2);
    EXPECT_EQ(run("spread " + demo() + " --antenna nobody").code, 2);
    EXPECT_TRUE(run("spread " + demo() + " --height tall").out.empty());
}

TEST_F(Cli, VariantsAreComparedAndAskedForByName)
{
    const Outcome o = run("compare " + demo());
    ASSERT_EQ(o.code, 0) << o.err;
    const Json rows = Json::parse(o.out)["variants"];
    ASSERT_EQ(rows.size(), 3u);
    EXPECT_EQ(rows[0]["name"], "as drawn");
    EXPECT_EQ(rows[1]["name"], "taller posts");
    for (const Json& row : rows) {
        EXPECT_TRUE(row["fault"].is_null());
        for (const Json& band : row["bands"]) {
            EXPECT_GT(double(band["efficiency"]), 0.0);
            EXPECT_LE(double(band["efficiency"]), 1.001);
        }
    }
    const Json varied = Json::parse(run("bands " + demo() + " --variant 'taller posts'").out);
    EXPECT_NEAR(double(bandOf(varied, "40 m")["lowest_swr"]), double(bandOf(rows[1]["bands"], "40 m")["lowest_swr"]), 2e-3);
    const Json drawn = Json::parse(run("bands " + demo()).out);
    EXPECT_NE(bandOf(varied, "40 m")["at_Hz"], bandOf(drawn, "40 m")["at_Hz"]);
    const Outcome nobody = run("bands " + demo() + " --variant nobody");
    EXPECT_EQ(nobody.code, 2);
    EXPECT_NE(nobody.err.find("has no variant 'nobody'"), std::string::npos);
}

TEST_F(Cli, NeighboursTellsWhatEachDoes)
{
    const Outcome o = run("neighbours " + demo() + " --antenna 'Coil dipole 30'");
    ASSERT_EQ(o.code, 0) << o.err;
    const Json rows = Json::parse(o.out)["neighbours"];
    bool pole = false, coax = false;
    for (const Json& row : rows) {
        pole = pole || row["what"] == "flagpole";
        coax = coax || row["what"] == "the coax's shield";
        EXPECT_TRUE(row["fault"].is_null()) << row.dump();
        EXPECT_LT(std::abs(double(row["shift_Hz"])), 500e3) << row.dump();
    }
    EXPECT_TRUE(pole);
    EXPECT_TRUE(coax);
    EXPECT_EQ(rows.size(), 8u); // a pole of metal, six other antennas, the feed line
}

// What is counted in is part of every answer.
TEST_F(Cli, WhatIsCountedInChangesTheBands)
{
    Json design = Json::parse(read(VETCHLING_DATA "/demo/gannet-skerry.vetchling"));
    const Json before = Json::parse(run("bands " + demo() + " --antenna 'Coil dipole 30'").out);
    for (Json& antenna : design["antennas"])
        if (antenna["name"] == "Coil dipole 30")
            antenna["surroundings"] = {{"metal", true}, {"coax", true}, {"antennas", Json::object()}};
    const std::string file = write("near.vetchling", design.dump());
    const Json after = Json::parse(run("bands '" + file + "' --antenna 'Coil dipole 30'").out);
    EXPECT_NE(bandOf(before, "30 m")["impedance_ohm"], bandOf(after, "30 m")["impedance_ohm"]);
    design["antennas"][0]["surroundings"] = {{"antennas", {{"antenna-2", "asleep"}}}};
    const Outcome wrong = run("wires '" + write("wrong.vetchling", design.dump()) + "'");
    EXPECT_EQ(wrong.code, 0) << "an open feed stands in, and it is said";
    EXPECT_NE(wrong.err.find("surroundings.antennas.antenna-2"), std::string::npos) << wrong.err;
}

TEST_F(Cli, SeaBeyondAShoreRaisesTheGainOverIt)
{
    Json design = Json::parse(read(VETCHLING_DATA "/demo/gannet-skerry.vetchling"));
    design["site"]["soil"] = {
        {"id", ""}, {"name", "dry"}, {"source", ""}, {"relative_permittivity", 7.0}, {"conductivity_S_per_m", 0.0005}};
    const std::string asked = "' --antenna 'Marsh vertical 30' --from 6.9 --to 7.3 --count 2 --elevation 8 --bearing ";
    const auto gain = [&](const std::string& name, const std::string& bearing) {
        const Json map = Json::parse(run("harmonics '" + write(name, design.dump()) + asked + bearing).out);
        for (std::size_t i = 0; i < map["bands"].size(); ++i)
            if (map["bands"][i] == "30 m")
                return double(map["gain_dBi"][0][i]);
        return 0.0;
    };
    const double east = gain("land.vetchling", "90"), west = gain("land.vetchling", "270");
    design["site"]["far_grounds"] = {{{"name", "sea"}, {"from_bearing_deg", 45}, {"to_bearing_deg", 135}, {"distance_m", 10}}};
    EXPECT_GT(gain("sea.vetchling", "90"), east + 2.0);
    EXPECT_NEAR(gain("sea.vetchling", "270"), west, 1e-9);
}

} // namespace

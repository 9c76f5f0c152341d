/// `terrain`, `sky` and `solve` over hills, as the shell meets them.
#include "tests/cli/cli_fixture.h"

#include <cmath>
#include <fstream>

namespace {

class CliTerrain : public Cli {
protected:
    static Json reference(const std::string& name)
    {
        std::ifstream file(VETCHLING_TEST_DATA "/terrain/" + name + ".json");
        return Json::parse(file);
    }
};

TEST_F(CliTerrain, TellsWhatTheReferenceTells)
{
    const Json expected = reference("fall15_dry_v2_3");
    const Outcome out = run("terrain " + std::string(VETCHLING_TEST_DATA "/terrain/fall15_dry_v2_3.json"));
    ASSERT_EQ(out.code, 0) << out.err;
    const Json got = Json::parse(out.out);
    EXPECT_EQ(got["elevations_deg"], expected["elevations_deg"]);
    ASSERT_EQ(got["F_dB"].size(), expected["F_dB"].size());
    for (std::size_t i = 0; i < got["F_dB"].size(); ++i)
        EXPECT_NEAR(double(got["F_dB"][i]), double(expected["F_dB"][i]), 0.1) << i;
}

TEST_F(CliTerrain, SaysWhatIsWrongWithACase)
{
    const auto with = [&](auto change) {
        Json c = reference("mixed_sea100_v2_14");
        change(c);
        return run("terrain " + write("case.json", c.dump()));
    };
    for (const auto& [part, change] : std::initializer_list<std::pair<const char*, std::function<void(Json&)>>>{
             {"polarization", [](Json& c) { c["polarization"] = "slanted"; }},
             {"frequency_Hz", [](Json& c) { c["frequency_Hz"] = -1; }},
             {"source_height_m", [](Json& c) { c["source_height_m"] = 0; }},
             {"elevations_deg", [](Json& c) { c["elevations_deg"][3] = 95; }},
             {"elevations_deg", [](Json& c) { c["elevations_deg"][0] = "low"; }},
             {"soils", [](Json& c) { c["soils"].erase(0); }},
             {"soils", [](Json& c) { c["soils"][0]["relative_permittivity"] = 0.1; }},
             {"profile", [](Json& c) { c["profile"].push_back({{"x_m", 50}, {"z_m", 0}}); c["soils"].push_back(c["soils"][0]); }},
             {"profile", [](Json& c) { c["profile"][0]["x_m"] = nullptr; }},
             {"profile", [](Json& c) { c["profile"] = 7; }}}) {
        const Outcome out = with(change);
        EXPECT_EQ(out.code, 2) << part;
        EXPECT_TRUE(out.out.empty()) << part;
        EXPECT_NE(out.err.find(part), std::string::npos) << out.err;
    }
}

/// A vertical over garden soil, whose pattern is asked for to the east, beside it and to the north.
Json vertical()
{
    return Json::parse(R"({"format": "vetchling-wires", "version": 1,
        "ground": {"kind": "real", "relative_permittivity": 13, "conductivity_S_per_m": 0.005},
        "wires": [{"id": "w", "points_m": [[0, 0, 0.5], [0, 0, 10.5]], "radius_m": 0.01}],
        "feeds": [{"wire": "w", "at_m": 5, "voltage_V": [1, 0]}], "frequencies_Hz": [14100000],
        "pattern": {"elevations_deg": [3, 10, 30], "azimuths_deg": [0, 4, 6, 90]}})");
}

TEST_F(CliTerrain, SolvesPatternsOverIt)
{
    const Json flat = Json::parse(run("solve " + write("flat.json", vertical().dump())).out)["results"][0];
    Json over = vertical();
    over["terrain"] = Json::parse(R"([{"azimuth_deg": 0, "profile": [{"x_m": 30, "z_m": 0}, {"x_m": 40, "z_m": -15}],
        "soils": [{"relative_permittivity": 13, "conductivity_S_per_m": 0.005}, {"relative_permittivity": 13, "conductivity_S_per_m": 0.005},
                  {"relative_permittivity": 81, "conductivity_S_per_m": 5}]}])");
    const Outcome out = run("solve " + write("over.json", over.dump()));
    ASSERT_EQ(out.code, 0) << out.err;
    const Json result = Json::parse(out.out)["results"][0];
    EXPECT_EQ(result["impedance_ohm"], flat["impedance_ohm"]);
    EXPECT_EQ(result["pattern_flat"], flat["gain_dBi"]);
    EXPECT_FALSE(flat.contains("pattern_flat"));
    for (std::size_t e = 0; e < 3; ++e) {
        const Json &here = result["gain_dBi"][e], &level = flat["gain_dBi"][e];
        EXPECT_NEAR(double(here[0]), double(here[1]), 0.01) << "4 degrees beside it";
        EXPECT_EQ(here[2], level[2]) << "6 degrees beside it";
        EXPECT_EQ(here[3], level[3]);
    }
    EXPECT_GT(double(result["gain_dBi"][0][0]), double(flat["gain_dBi"][0][0]) + 4.0) << "low, over the sea";
    over["ground"] = {{"kind", "perfect"}};
    const Outcome perfect = run("solve " + write("perfect.json", over.dump()));
    EXPECT_EQ(perfect.code, 2);
    EXPECT_NE(perfect.err.find("terrain"), std::string::npos);
    over["ground"] = vertical()["ground"];
    over["terrain"][0]["soils"].erase(0);
    EXPECT_NE(run("solve " + write("few.json", over.dump())).err.find("terrain[0].soils"), std::string::npos);
}

TEST_F(CliTerrain, TellsTheSkyOverItAndOverFlatGround)
{
    std::ifstream file(VETCHLING_DATA "/demo/gannet-skerry.vetchling");
    Json design = Json::parse(file);
    design["site"]["profiles"] =
        Json::parse(R"([{"bearing_deg": 90, "points": [{"distance_m": 30, "height_m": 0}, {"distance_m": 35, "height_m": -20,
        "soil": "p368-sea-average"}]}])");
    const std::string path = write("cliff.vetchling", design.dump());
    const Outcome out = run("sky " + path + " --antenna 'Marsh vertical 30' --band '30 m'");
    ASSERT_EQ(out.code, 0) << out.err;
    const Json band = Json::parse(out.out)["bands"][0];
    EXPECT_EQ(band["band"], "30 m");
    ASSERT_EQ(band["bearings_deg"].size(), 36u);
    ASSERT_EQ(band["gain_dBi"].size(), 36u);
    ASSERT_EQ(band["gain_dBi"][0].size(), band["elevations_deg"].size());
    EXPECT_EQ(band["gain_dBi"][0], band["gain_flat_dBi"][0]);
    EXPECT_GT(double(band["gain_dBi"][9][2]), double(band["gain_flat_dBi"][9][2]) + 1.0) << "to the east, at 3 degrees";
    const Json plain = Json::parse(run("sky " + demo() + " --antenna 'Marsh vertical 30' --band '30 m'").out)["bands"][0];
    EXPECT_EQ(plain["gain_flat_dBi"], band["gain_flat_dBi"]);
    EXPECT_EQ(plain["gain_dBi"], plain["gain_flat_dBi"]) << "nothing but its own soil";
    EXPECT_EQ(run("sky " + path + " --band '3 m'").code, 2);
    EXPECT_EQ(run("sky " + path + " --antenna 'Marsh vertical 30' --band '30 m' --csv").out.substr(0, 5), "band,");
}

// The wires of a design with ground along bearings, mixed between them, radiate as its sky says.
TEST_F(CliTerrain, GivesItsGroundToTheFileOfWires)
{
    std::ifstream file(VETCHLING_DATA "/demo/gannet-skerry.vetchling");
    Json design = Json::parse(file);
    design["site"]["profiles"] = Json::parse(R"([
        {"bearing_deg": 80, "points": [{"distance_m": 20, "height_m": 0}, {"distance_m": 25, "height_m": -20, "soil": "p368-sea-average"}]},
        {"bearing_deg": 100, "points": [{"distance_m": 50, "height_m": 0}, {"distance_m": 90, "height_m": 25}, {"distance_m": 200, "height_m": 0}]},
        {"bearing_deg": 262, "points": [{"distance_m": 60, "height_m": -8}]}])");
    const std::string path = write("hills.vetchling", design.dump()), which = " --antenna 'Marsh vertical 30'";
    const Json sky = Json::parse(run("sky " + path + which + " --band '30 m'").out)["bands"][0];
    const Outcome wires = run("wires " + path + which + " --frequency 10.125e6");
    ASSERT_EQ(wires.code, 0) << wires.err;
    Json model = Json::parse(wires.out);
    model["pattern"] = Json::parse(R"({"elevations_deg": [3, 12, 50], "azimuths_deg": [10, 0, -10, -20, -170, 90]})");
    const Outcome out = run("solve " + write("wires.json", model.dump()));
    ASSERT_EQ(out.code, 0) << out.err;
    const Json solved = Json::parse(out.out)["results"][0];
    const int bearings[] = {8, 9, 10, 11, 26, 0}, rows[] = {2, 11, 49};
    double least = 100.0, most = -100.0;
    for (int e = 0; e < 3; ++e)
        for (int b = 0; b < 6; ++b) {
            const double ofSky = double(sky["gain_dBi"][bearings[b]][rows[e]]) - double(sky["gain_flat_dBi"][bearings[b]][rows[e]]);
            EXPECT_NEAR(double(solved["gain_dBi"][e][b]) - double(solved["pattern_flat"][e][b]), ofSky, 0.02) << e << " " << b;
            least = std::min(least, ofSky), most = std::max(most, ofSky);
        }
    EXPECT_LT(least, -1.0);
    EXPECT_GT(most, 1.0);
}

TEST_F(CliTerrain, TakesTheGroundFromAFileOfHeights)
{
    const std::string heights = "'" VETCHLING_DATA "/demo/gannet-skerry-heights.txt'";
    const Outcome out = run("heights " + demo() + " " + heights + " -o " + path("cliff.vetchling"));
    ASSERT_EQ(out.code, 0) << out.err;
    const Json told = Json::parse(out.out), written = Json::parse(read(path("cliff.vetchling")));
    EXPECT_NEAR(double(told["foot_height_m"]), 20.0, 0.1);
    ASSERT_EQ(told["bearings"].size(), 36u);
    const Json& profiles = written["site"]["profiles"];
    ASSERT_EQ(profiles.size(), 36u);
    for (const Json& p : profiles)
        if (p["bearing_deg"] == 240) {
            EXPECT_NEAR(double(p["points"].back()["height_m"]), -20.0, 0.1) << "down to the sea";
            EXPECT_EQ(p["points"].back()["distance_m"], told["bearings"][24]["reaches_m"]);
        }
    for (const auto& [arguments, part] : {std::pair(demo() + " " + demo(), "ncols"), std::pair(demo() + " nowhere.txt", "read"),
                                          std::pair(demo() + " " + heights + " --place 54.5,-3.2", "middle")}) {
        const Outcome wrong = run("heights " + arguments + " -o " + path("none.vetchling"));
        EXPECT_EQ(wrong.code, 2) << arguments;
        EXPECT_NE(wrong.err.find(part), std::string::npos) << wrong.err;
        EXPECT_TRUE(read(path("none.vetchling")).empty());
    }
}

} // namespace

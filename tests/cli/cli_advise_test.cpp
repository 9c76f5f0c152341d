/// `advise` as the shell meets it: what an answer tells is what bands, feed and check tell of the design that it is hung in.
#include "tests/cli/cli_fixture.h"

#include <cmath>
#include <set>

namespace {

class CliAdvise : public Cli {
protected:
    /// A garden with two masts and a house, for 20 m before all and 10 m.
    std::string garden()
    {
        return write("garden.vetchling", R"({"format": "vetchling-design", "version": 1,
            "site": {"name": "garden", "boundary_m": [[0, 0], [40, 0], [40, 20], [0, 20]],
                "buildings": [{"name": "house", "outline_m": [[12, 1], [22, 1], [22, 7], [12, 7]], "eaves_m": 3, "ridge_m": 6}],
                "supports": [{"name": "west mast", "kind": "pole", "at_m": [4, 15], "height_m": 11},
                             {"name": "east mast", "kind": "pole", "at_m": [36, 15], "height_m": 10}],
                "feed_entry_m": [17, 7]},
            "operation": {"bands": [{"name": "20 m", "from_Hz": 14.0e6, "to_Hz": 14.35e6, "wish": "must"},
                                    {"name": "10 m", "from_Hz": 28.0e6, "to_Hz": 29.0e6, "wish": "nice"}]},
            "antennas": []})");
    }
    static const Json& rowOf(const Json& rows, const Json& band)
    {
        return *std::find_if(rows.begin(), rows.end(), [&](const Json& r) { return r["band"] == band; });
    }
};

TEST_F(CliAdvise, EveryFigureIsThatOfTheOtherCommands)
{
    const std::string hung = path("hung.vetchling");
    const Outcome asked = run("advise " + garden() + " --antennas 2 --take 2 -o " + hung);
    ASSERT_EQ(asked.code, 0) << asked.err;
    const Json out = Json::parse(asked.out);
    EXPECT_EQ(out["format"], "vetchling-advice");
    EXPECT_GT(out["tried"], 60);
    const Json& answer = out["answers"][1];
    EXPECT_EQ(answer["rank"], 2);
    const Json checked = Json::parse(run("check " + hung).out)["antennas"];
    ASSERT_EQ(checked.size(), answer["antennas"].size());
    for (std::size_t i = 0; i < checked.size(); ++i) {
        EXPECT_EQ(checked[i]["name"], answer["antennas"][i]["name"]);
        EXPECT_EQ(checked[i]["fits"], true);
        for (const Json& w : checked[i]["warnings"])
            EXPECT_TRUE(w["code"] == "low" || w["code"] == "metal" || w["code"] == "dig") << w;
    }
    for (const Json& band : answer["bands"]) {
        if (band["antenna"].is_null())
            continue;
        const std::string antenna = " --antenna '" + std::string(band["antenna"]) + "'";
        const Json rows = Json::parse(run("bands " + hung + antenna).out), fed = Json::parse(run("feed " + hung + antenna).out)["bands"];
        const Json &row = rowOf(rows, band["band"]), &feed = rowOf(fed, band["band"]);
        EXPECT_EQ(band["share_under_limit"], row["share_under_limit"]) << band;
        EXPECT_EQ(band["share_with_tuner"], row["share_with_tuner"]) << band;
        EXPECT_EQ(band["net_dBi"], feed["net_dBi"]) << band;
        EXPECT_EQ(double(band["against_dB"]), double(feed["net_dBi"]) - double(feed["reference_dBi"])) << band;
    }
}

TEST_F(CliAdvise, ListsEveryPlaceAsCsv)
{
    const Outcome asked = run("advise " + garden() + " --antennas 1 --csv");
    ASSERT_EQ(asked.code, 0) << asked.err;
    std::istringstream lines(asked.out);
    std::string line;
    std::getline(lines, line);
    EXPECT_EQ(line, "rank,family,place,wish,score,wire_m,exact,reason");
    std::set<std::string> families;
    int ranked = 0;
    while (std::getline(lines, line)) {
        ranked += line.front() != ',';
        const std::size_t from = line.find('"') + 1;
        families.insert(line.substr(from, line.find('"', from) - from));
    }
    EXPECT_GT(ranked, 3);
    EXPECT_GT(families.size(), 34u) << "nothing is hidden";
}

TEST_F(CliAdvise, SaysWhatItCannotTake)
{
    const std::string file = garden();
    for (const auto& [options, words] : {std::pair("--supports 'north mast'", "no support 'north mast'"),
                                         std::pair("--keep loop", "no antenna 'loop'"), std::pair("--antennas 7", "one to three"),
                                         std::pair("--tuner attic", "none, radio or feed"), std::pair("--pole-m 90", "from 0 to 30")}) {
        const Outcome asked = run("advise " + file + " " + options);
        EXPECT_EQ(asked.code, 2) << options;
        EXPECT_NE(asked.err.find(words), std::string::npos) << asked.err;
        EXPECT_TRUE(asked.out.empty());
    }
    const Outcome beyond = run("advise " + file + " --antennas 1 --supports 'west mast' --wire-m 8 --take 40 -o " + path("none.vetchling"));
    EXPECT_EQ(beyond.code, 2);
    EXPECT_NE(beyond.err.find("there is no answer 40"), std::string::npos) << beyond.err;
    EXPECT_FALSE(std::filesystem::exists(path("none.vetchling")));
}

} // namespace

#include "tests/cli/cli_fixture.h"

namespace {

class CliPlaces : public Cli {
protected:
    static std::string town() { return VETCHLING_TEST_DATA "/sites/town-garden.vetchling"; }
};

TEST_F(CliPlaces, CheckTellsHousesTiesAndLines)
{
    Json design = Json::parse(read(town()));
    design["antennas"] = Json::parse(R"([{"name": "low wire", "family": "dipole", "design_frequency_Hz": 28500000.0,
        "parameters": {"leg_m": 2.5, "apex_height_m": 4.0, "end_height_m": 4.0, "x_m": 6.0, "y_m": 4.0}}])");
    const std::string file = write("town.vetchling", design.dump());
    const Outcome checked = run("check --all " + file);
    ASSERT_EQ(checked.code, 0) << checked.err;
    const Json out = Json::parse(checked.out), &antenna = out["antennas"][0];
    EXPECT_EQ(antenna["fits"], false);
    const auto tells = [](const Json& list, const char* code) {
        return std::any_of(list.begin(), list.end(), [&](const Json& w) { return w["code"] == code; });
    };
    EXPECT_TRUE(tells(antenna["warnings"], "building"));
    EXPECT_TRUE(tells(antenna["warnings"], "support"));
    EXPECT_EQ(out["findings"][0]["gravity"], "danger");
    EXPECT_EQ(out["findings"][0]["code"], "building");
    EXPECT_EQ(out["findings"][0]["antenna"], "low wire");
    EXPECT_FALSE(Json::parse(run("check " + file).out).contains("findings"));
}

TEST_F(CliPlaces, CheckAllIsTheListOfWhatIsLeft)
{
    Json design = Json::parse(read(VETCHLING_DATA "/demo/gannet-skerry.vetchling"));
    Json& parts = design["antennas"][0]["feed"]["chains"][0]["parts"];
    parts.insert(parts.begin(), Json::parse(R"({"id": "wrong", "kind": "transformer", "ratio": 49})"));
    const std::string file = write("ratio.vetchling", design.dump());
    const Outcome checked = run("check --all " + file);
    ASSERT_EQ(checked.code, 0) << checked.err;
    const Json findings = Json::parse(checked.out)["findings"];
    const std::string name = design["antennas"][0]["name"];
    const char* const order[] = {"danger", "wrong", "next", "done"};
    std::ptrdiff_t last = 0;
    bool ratio = false, cut = false;
    for (const Json& f : findings) {
        const auto place = std::find(std::begin(order), std::end(order), f["gravity"]);
        ASSERT_NE(place, std::end(order)) << f;
        EXPECT_FALSE(std::string(f["message"]).empty()) << f;
        EXPECT_TRUE(f["cure"].is_null() || !std::string(f["cure"]).empty()) << f;
        if (f["antenna"] != name)
            continue;
        EXPECT_GE(place - std::begin(order), last) << "gravest first";
        last = place - std::begin(order);
        ratio = ratio || (f["code"] == "ratio" && f["gravity"] == "wrong" && f["cure"].is_string());
    }
    EXPECT_TRUE(ratio) << findings;
    const Json sound = Json::parse(run("check --all " + demo()).out);
    for (const Json& f : sound["findings"]) {
        EXPECT_FALSE(f["antenna"] == name && f["code"] == "ratio");
        cut = cut || (f["antenna"] == name && f["code"] == "trim" && std::string(f["message"]).find("8.0 cm") != std::string::npos);
    }
    EXPECT_TRUE(cut);
    EXPECT_NEAR(double(Json::parse(run("trim " + demo()).out)["change"]), -0.08, 1e-9) << "the list says what trim says";
}

TEST_F(CliPlaces, AnAntennaMayStandOnItsOwnSoil)
{
    const std::string file = path("own.vetchling");
    const std::string soil = Json::parse(read(VETCHLING_DATA "/soils.json"))["soils"][0]["id"];
    ASSERT_EQ(run("set " + demo() + " own_soil=" + soil + " -o " + file).code, 0);
    const Json own = Json::parse(read(file)), was = Json::parse(read(VETCHLING_DATA "/demo/gannet-skerry.vetchling"));
    EXPECT_EQ(own["antennas"][0]["soil"]["id"], soil);
    EXPECT_EQ(own["site"]["soil"]["name"], was["site"]["soil"]["name"]);
    EXPECT_NE(Json::parse(run("wires " + file).out)["ground"], Json::parse(run("wires " + demo()).out)["ground"]);
    ASSERT_EQ(run("set " + file + " own_soil=site -o " + file).code, 0);
    EXPECT_FALSE(Json::parse(read(file))["antennas"][0].contains("soil"));
    const Outcome wrong = run("set " + demo() + " own_soil=moon -o " + file);
    EXPECT_EQ(wrong.code, 2);
    EXPECT_NE(wrong.err.find("moon"), std::string::npos);
}

} // namespace

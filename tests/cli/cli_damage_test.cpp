/// Designs of which a part cannot be read: every command goes on with the rest, says it, and writes the part back.
#include "tests/cli/cli_fixture.h"
#include "tests/damage.h"

namespace {

using vetchling::testing::damagedText;
using vetchling::testing::Doc;
using vetchling::testing::Place;

class CliDamage : public Cli {
protected:
    Doc demoJson() const { return Doc::parse(read(VETCHLING_DATA "/demo/gannet-skerry.vetchling")); }
    std::string damaged(const std::string& place, const std::string& way) const
    {
        return write("damaged.vetchling", damagedText(demoJson(), Place(place), way));
    }
    std::string nameOf(int antenna) const { return demoJson()["antennas"][antenna]["name"]; }
};

TEST_F(CliDamage, AnotherAntennaIsNoReasonToStop)
{
    const std::string design = damaged("/antennas/1/parameters", "text");
    const Outcome all = run("check " + design);
    EXPECT_EQ(all.code, 0) << all.err;
    EXPECT_NE(all.err.find("note: antennas[1].parameters"), std::string::npos) << all.err;
    EXPECT_EQ(Json::parse(all.out)["antennas"].size(), demoJson()["antennas"].size() - 1);
    const Outcome asked = run("wires " + design + " --antenna '" + nameOf(1) + "'");
    EXPECT_EQ(asked.code, 2);
    EXPECT_NE(asked.err.find("cannot be read"), std::string::npos) << asked.err;
    EXPECT_EQ(asked.out, "");
    EXPECT_EQ(run("wires " + design + " --antenna '" + nameOf(2) + "'").code, 0);
}

TEST_F(CliDamage, WithoutANameTheFirstThatCanBeReadIsMeant)
{
    const std::string design = damaged("/antennas/0/design_frequency_Hz", "null");
    const Outcome first = run("wires " + design), second = run("wires " + demo() + " --antenna '" + nameOf(1) + "'");
    EXPECT_EQ(first.code, 0) << first.err;
    EXPECT_EQ(first.out, second.out);
}

TEST_F(CliDamage, WhatIsDamagedIsWrittenBackAsItStood)
{
    const std::string design = damaged("/site/supports/0/height_m", "nan"), out = path("out.vetchling");
    const Outcome set = run("set " + design + " swr_limit=1.7 -o " + out);
    EXPECT_EQ(set.code, 0) << set.err;
    EXPECT_NE(set.err.find("site.supports[0].height_m"), std::string::npos) << set.err;
    EXPECT_NE(read(out).find("\"height_m\": NaN"), std::string::npos);
    EXPECT_NE(read(out).find("\"swr_limit\": 1.7"), std::string::npos);
    const Outcome logged = run("log " + design + " --dip 7.05e6 -o " + out);
    EXPECT_EQ(logged.code, 0) << logged.err;
    EXPECT_NE(read(out).find("\"height_m\": NaN"), std::string::npos);
}

TEST_F(CliDamage, WhatIsSetReplacesWhatWasDamaged)
{
    const std::string design = damaged("/operation/power_W", "text"), out = path("out.vetchling");
    EXPECT_EQ(run("set " + design + " power_W=100 -o " + out).code, 0);
    EXPECT_EQ(Json::parse(read(out))["operation"]["power_W"], 100.0) << "the same as what stood in for it";
    EXPECT_EQ(run("set " + design + " power_W=-3 -o " + out).code, 2);
}

TEST_F(CliDamage, NothingIsCutByALogThatIsNotWhole)
{
    const Outcome next = run("trim " + damaged("/antennas/0/trim/measurements/0/cut_each_end_m", "text"));
    EXPECT_EQ(next.code, 0) << next.err;
    EXPECT_EQ(Json::parse(next.out)["action"], "check");
    EXPECT_TRUE(Json::parse(next.out)["change"].is_null());
    EXPECT_NE(std::string(Json::parse(next.out)["words"]).find("Do not cut yet"), std::string::npos) << next.out;
}

TEST_F(CliDamage, TheAverageSoilStandsInAndIsSaid)
{
    const Outcome wires = run("wires " + damaged("/site/soil", "list"));
    EXPECT_EQ(wires.code, 0) << wires.err;
    EXPECT_NE(wires.err.find("site.soil"), std::string::npos);
    EXPECT_EQ(Json::parse(wires.out)["ground"]["relative_permittivity"], 13.0);
}

TEST_F(CliDamage, ACutFileIsReadAndNotWrittenOver)
{
    const std::string whole = read(VETCHLING_DATA "/demo/gannet-skerry.vetchling");
    const std::string cut = write("cut.vetchling", whole.substr(0, whole.size() - 1500));
    EXPECT_EQ(run("wires " + cut).code, 0);
    const Outcome over = run("set " + cut + " swr_limit=1.7 -o " + cut);
    EXPECT_EQ(over.code, 2);
    EXPECT_NE(over.err.find("not written over"), std::string::npos) << over.err;
    EXPECT_EQ(read(cut), whole.substr(0, whole.size() - 1500));
    EXPECT_EQ(run("set " + cut + " swr_limit=1.7 -o " + path("other.vetchling")).code, 0);
}

TEST_F(CliDamage, APowerLineThatCannotBeReadIsNoReasonToFeelSafe)
{
    const Outcome check = run("check " + damaged("/site/power_line/from_m", "null"));
    ASSERT_EQ(check.code, 0) << check.err;
    const Json told = Json::parse(check.out);
    for (const Json& antenna : told["antennas"]) {
        EXPECT_EQ(antenna["fits"], false);
        EXPECT_EQ(antenna["warnings"][0]["code"], "power-line");
        EXPECT_TRUE(antenna["power_line_clearance_m"].is_null());
    }
}

// 2026-11: still being checked after two minutes.
TEST_F(CliDamage, TwentyThousandWiresAreRefusedBeforeTheyAreHeldAgainstEachOther)
{
    std::string wires;
    for (int i = 0; i < 20000; ++i)
        wires += (i ? "," : "") + std::string(R"({"id":"w)") + std::to_string(i) + R"(","points_m":[[)" + std::to_string(i) + R"(,0,5],[)" +
                 std::to_string(i) + R"(,1,5]],"radius_m":0.001})";
    const std::string file = write("many.json", R"({"format":"vetchling-wires","version":1,"ground":{"kind":"free-space"},"wires":[)" +
                                                    wires + R"(],"feeds":[{"wire":"w0","at_m":0.5}],"frequencies_Hz":[14e6]})");
    const Outcome refused = run("solve " + file);
    EXPECT_EQ(refused.code, 2);
    EXPECT_NE(refused.err.find("12000"), std::string::npos) << refused.err.substr(0, 300);
}

} // namespace

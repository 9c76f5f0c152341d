/// The real program at the mast: what a log begins with, what is asked about, links told apart, and what stands near counted everywhere.
#include "tests/cli/cli_fixture.h"

#include <cmath>
#include <complex>

namespace {

// 2026-11: whatever was cut landed on the first section.
TEST_F(Cli, ARecipeTakesEachCutWhereItWasMade)
{
    const std::string logged = path("logged.vetchling"), recipe = path("recipe.json"), before = path("before.json");
    ASSERT_EQ(run("recipe " + demo() + " -o " + before).code, 0);
    ASSERT_EQ(run("log " + demo() + " --configuration 2 --parameter leg_2_m --cut 0.26 --dip '5.30 MHz' -o " + logged).code, 0);
    ASSERT_EQ(run("recipe " + logged + " -o " + recipe).code, 0);
    const Json a = Json::parse(read(before))["antenna"]["parameters"], b = Json::parse(read(recipe))["antenna"]["parameters"];
    EXPECT_NEAR(double(a["leg_m"]), double(b["leg_m"]), 1e-9);
    EXPECT_NEAR(double(a["leg_2_m"]) - double(b["leg_2_m"]), 0.26, 1e-9);
}

TEST_F(Cli, ALogBeginsWithWhatWasCut)
{
    const std::string made = path("dipole.vetchling"), logged = path("logged.vetchling"), recipe = path("recipe.json");
    ASSERT_EQ(run("new dipole --frequency 14.15e6 --set leg_m=5 -o " + made).code, 0);
    const Json row = Json::parse(run("cutlist " + made).out);
    Outcome o = run("log " + made + " --dip '13.95 MHz' -o " + logged);
    ASSERT_EQ(o.code, 0) << o.err;
    EXPECT_NE(o.err.find("longer than its plan"), std::string::npos) << o.err;
    const Json trim = Json::parse(read(logged))["antennas"][0]["trim"];
    EXPECT_NEAR(double(trim["as_cut_longer_m"]["leg_m"]), 0.014 * 5.0, 1e-9) << "the cut list's margin, of 5 m";
    EXPECT_EQ(trim["as_cut_from"], "cut-list");
    EXPECT_EQ(trim["measurements"][0]["parameter"], "leg_m");
    ASSERT_EQ(run("recipe " + logged + " -o " + recipe).code, 0);
    EXPECT_NEAR(double(Json::parse(read(recipe))["antenna"]["parameters"]["leg_m"]), 5.07, 1e-9);
    ASSERT_EQ(run("log " + made + " --dip '13.95 MHz' --as-cut 0 -o " + logged).code, 0);
    EXPECT_EQ(double(Json::parse(run("trim " + logged).out)["as_cut_longer_m"]["leg_m"]), 0.0);
    o = run("log " + logged + " --dip '13.95 MHz' --as-cut 0.1 -o " + logged);
    EXPECT_EQ(o.code, 2);
    EXPECT_NE(o.err.find("begun already"), std::string::npos) << o.err;
}

TEST_F(Cli, WhatCannotBeIsAskedAbout)
{
    const std::string made = path("dipole.vetchling"), logged = path("logged.vetchling");
    ASSERT_EQ(run("new dipole --frequency 7.1e6 -o " + made).code, 0);
    Outcome o = run("log " + made + " --dip '140 MHz' -o " + logged);
    EXPECT_EQ(o.code, 2);
    EXPECT_NE(o.err.find("--sure"), std::string::npos) << o.err;
    EXPECT_FALSE(fs::exists(logged)) << "nothing is written that is asked about";
    EXPECT_EQ(run("log " + made + " --dip '140 MHz' --sure -o " + logged).code, 0);
    o = run("log " + made + " --dip '7.05 MHz' --when 2091-05-01T10:00 -o " + logged);
    EXPECT_EQ(o.code, 2);
    EXPECT_NE(o.err.find("--when"), std::string::npos) << o.err;
    EXPECT_EQ(run("log " + made + " --dip '7.05 MHz' --when soon -o " + logged).code, 2);
    o = run("log " + made + " --dip '6.1 MHz' -o " + logged);
    EXPECT_EQ(o.code, 0) << o.err;
    EXPECT_NE(o.err.find("look at it once more"), std::string::npos) << o.err;
    ASSERT_EQ(run("log " + made + " --dip '7.05 MHz' --when 2026-05-01T10:00 -o " + logged).code, 0);
    EXPECT_EQ(Json::parse(read(logged))["antennas"][0]["trim"]["measurements"][0]["when"], "2026-05-01T10:00");
}

TEST_F(Cli, ASweepIsBroughtToTheDesignsReferenceAndItsEdgeIsNoDip)
{
    const std::string made = path("dipole.vetchling"), logged = path("logged.vetchling");
    ASSERT_EQ(run("new dipole --frequency 7.1e6 -o " + made).code, 0);
    // 75 ohm at the dip, falling: 1.5 against 50
    const std::string falling = write("falling.s1p", "# MHz S RI R 75\n7.2 0.3 0.3\n7.1 0.1 0.1\n7.05 0 0\n7.0 0.1 -0.1\n6.9 0.3 -0.3\n");
    ASSERT_EQ(run("log " + made + " --file " + falling + " -o " + logged).code, 0);
    Json m = Json::parse(read(logged))["antennas"][0]["trim"]["measurements"][0];
    EXPECT_DOUBLE_EQ(m["sweep"][0][0], 6.9e6);
    EXPECT_NEAR(double(m["sweep"][2][1]), 1.5, 1e-9);
    const std::string edge = write("edge.csv", "freq MHz,swr\n7.1,1.5\n7.2,2\n7.3,3\n");
    const Outcome o = run("log " + made + " --file " + edge + " -o " + path("no.vetchling"));
    EXPECT_EQ(o.code, 2);
    EXPECT_NE(o.err.find("edge of the sweep"), std::string::npos) << o.err;
    EXPECT_FALSE(fs::exists(path("no.vetchling")));
}

TEST_F(Cli, TheOuterSectionWaitsForTheInnerOne)
{
    const std::string logged = path("logged.vetchling");
    ASSERT_EQ(run("log " + demo() + " --configuration 2 --dip '5.20 MHz' -o " + logged).code, 0);
    const Json outer = Json::parse(run("trim " + logged + " --configuration 2").out);
    EXPECT_EQ(outer["action"], "check");
    EXPECT_TRUE(outer["change"].is_null());
    EXPECT_EQ(outer["waits_for"], "leg_m");
    EXPECT_EQ(outer["target_Hz"], 5.359e6);
    const Json inner = Json::parse(run("trim " + logged + " --configuration 1").out);
    EXPECT_EQ(inner["action"], "cut");
    EXPECT_TRUE(inner["waits_for"].is_null());
}

// A mast that is counted in stands in the wire file: solved by itself it gives what `bands` gives.
TEST_F(Cli, ACountedMastIsInTheWireFile)
{
    Json design = Json::parse(read(std::string(VETCHLING_DATA "/demo/gannet-skerry.vetchling")));
    design["antennas"][0]["surroundings"] = {{"metal", true}};
    const std::string counted = write("counted.vetchling", design.dump());
    const auto wiresOf = [&](const std::string& file) {
        return Json::parse(run("wires " + file + " --frequency 7.1e6").out)["wires"].size();
    };
    EXPECT_GT(wiresOf(counted), wiresOf(demo())) << "the mast, and what earths it";
    Json row;
    for (const Json& band : Json::parse(run("bands " + counted).out))
        if (band["band"] == "40 m")
            row = band;
    const std::string wires = write("wires.json", run("wires " + counted + " --frequency " + row["at_Hz"].dump()).out);
    const Json solved = Json::parse(run("solve " + wires).out)["results"][0]["impedance_ohm"];
    for (int part : {0, 1})
        EXPECT_NEAR(double(solved[part]), double(row["impedance_ohm"][part]), 0.2);
}

// Far from any resonance a band's SWR is one figure, not two.
TEST_F(Cli, SpreadAndBandsTellOneSwr)
{
    const std::string made = path("dipole.vetchling");
    ASSERT_EQ(run("new dipole --frequency 28.5e6 -o " + made).code, 0);
    Json design = Json::parse(read(made));
    for (Json& band : design["operation"]["bands"])
        band["wish"] = band["name"] == "80 m" || band["name"] == "10 m" ? "must" : "no";
    const std::string wide = write("wide.vetchling", design.dump());
    const Json bands = Json::parse(run("bands " + wide).out), spread = Json::parse(run("spread " + wide).out)["bands"];
    bool any = false;
    for (const Json& b : bands)
        for (const Json& s : spread)
            if (b["band"] == "80 m" && s["band"] == "80 m") {
                ASSERT_GT(double(b["lowest_swr"]), 3000.0);
                EXPECT_NEAR(std::log(double(s["lowest_swr"][1]) / double(b["lowest_swr"])), 0.0, 0.1);
                any = true;
            }
    EXPECT_TRUE(any);
}

TEST_F(Cli, NumbersTakeUnitsEverywhereAndBareMegahertzAreAskedAbout)
{
    const std::string made = path("dipole.vetchling");
    ASSERT_EQ(run("new dipole --frequency '14.1 MHz' -o " + made).code, 0);
    EXPECT_EQ(Json::parse(read(made))["antennas"][0]["design_frequency_Hz"], 14.1e6);
    const std::string wires = write("wires.json", run("wires " + made + " --frequency '14.2 MHz'").out);
    EXPECT_EQ(Json::parse(read(wires))["frequencies_Hz"][0], 14.2e6);
    EXPECT_EQ(run("sweep " + wires + " --from '14 MHz' --to 14300kHz").code, 0);
    EXPECT_EQ(run("lengths --band 7e6:7.2e6 --from 20ft --to 40m").code, 0);
    for (const std::string& bad : {"new dipole --frequency 7.05 -o " + path("no.vetchling"),
                                   "log " + made + " --dip 14.1 -o " + path("no.vetchling"), "sweep " + wires + " --from 14 --to 14.3"}) {
        const Outcome o = run(bad);
        EXPECT_EQ(o.code, 2) << bad;
        EXPECT_NE(o.err.find("did you mean"), std::string::npos) << o.err;
        EXPECT_FALSE(fs::exists(path("no.vetchling")));
    }
}

TEST_F(Cli, AWordThatIsNoCommandIsNamedWithTheNearest)
{
    const Outcome o = run("bnads x");
    EXPECT_EQ(o.code, 2);
    EXPECT_NE(o.err.find("did you mean 'bands'"), std::string::npos) << o.err;
    EXPECT_EQ(run("xyzzyplugh").err.find("did you mean"), std::string::npos);
    const Outcome version = run("--version");
    EXPECT_EQ(version.code, 0);
    EXPECT_EQ(version.out.rfind("vetchling-cli ", 0), 0u) << version.out;
}

// 2026-11: a design that was "written" to a device took the device's place.
TEST_F(Cli, AWriteThatFailsIsTold)
{
    const auto isDevice = [] { return fs::is_character_file("/dev/full"); };
    if (!isDevice())
        GTEST_SKIP() << "there is no such device here";
    const Outcome file = run("new dipole --frequency 7e6 -o /dev/full");
    EXPECT_EQ(file.code, 2);
    EXPECT_NE(file.err.find("/dev/full"), std::string::npos) << file.err;
    EXPECT_TRUE(isDevice()) << "and it is still what it was";
    const std::string command = std::string(VETCHLING_CLI) + " families >/dev/full 2>" + path("err.txt");
    const int status = std::system(command.c_str());
    EXPECT_EQ(WEXITSTATUS(status), 2);
    EXPECT_NE(read(path("err.txt")).find("stdout"), std::string::npos);
}

// 2026-11: the window asked about a dip of another antenna, check said nothing of one that stood in the log.
TEST_F(Cli, CheckTellsOfEntriesThatTheWindowWouldAskAbout)
{
    const std::string file = path("doubt.vetchling");
    ASSERT_EQ(run("new dipole --frequency 7.1e6 -o " + file).code, 0);
    const auto logWarnings = [&] {
        const Json checked = Json::parse(run("check " + file).out)["antennas"][0]["warnings"];
        return std::count_if(checked.begin(), checked.end(), [](const Json& w) { return w["code"] == "log"; });
    };
    ASSERT_EQ(run("log " + file + " --dip '7.0 MHz' -o " + file).code, 0);
    EXPECT_EQ(logWarnings(), 0);
    EXPECT_EQ(run("log " + file + " --dip '14.2 MHz' -o " + file).code, 2);
    ASSERT_EQ(run("log " + file + " --dip '14.2 MHz' --sure -o " + file).code, 0);
    EXPECT_EQ(logWarnings(), 1);
    const Json demoChecked = Json::parse(run("check " + demo()).out)["antennas"];
    for (const Json& antenna : demoChecked)
        for (const Json& w : antenna["warnings"])
            EXPECT_NE(w["code"], "log") << antenna["name"] << w["message"];
}

// A cable that loses three decibels one way makes any wire look good far off its dip.
TEST_F(Cli, TrimLooksBeforeItCutsWhereTheSweepCannotBe)
{
    const std::string design = path("d.vetchling");
    ASSERT_EQ(run("new dipole --frequency 14.1e6 --set apex_height_m=10 -o " + design).code, 0);
    ASSERT_EQ(run("set " + design + " leg_m=5.3 -o " + design).code, 0);
    const std::string wires = path("wires.json");
    ASSERT_EQ(std::system((std::string(VETCHLING_CLI) + " wires " + design + " > " + wires).c_str()), 0);
    const Json sweep = Json::parse(run("sweep " + wires + " --from 12.5e6 --to 14.5e6").out);
    const auto written = [&](double loss) {
        std::string csv = "frequency,swr\n";
        for (double f = 12.5e6; f <= 14.5e6; f += 50e3) {
            std::size_t k = 0; // the sweep's own points are close enough to be joined by straight lines
            const auto &at_Hz = sweep["frequency_Hz"], &r = sweep["r_ohm"], &x = sweep["x_ohm"];
            while (k + 2 < at_Hz.size() && double(at_Hz[k + 1]) < f)
                ++k;
            const double f0 = at_Hz[k], f1 = at_Hz[k + 1], w = (f - f0) / (f1 - f0);
            const auto at = [&](const Json& values) { return double(values[k]) + w * (double(values[k + 1]) - double(values[k])); };
            const std::complex<double> z(at(r), at(x));
            const double g = std::abs((z - 50.0) / (z + 50.0)) * std::pow(10.0, -loss / 10.0);
            csv += std::to_string(f) + "," + std::to_string((1.0 + g) / (1.0 - g)) + "\n";
        }
        return write("sweep.csv", csv);
    };
    for (double loss : {0.0, 3.0}) {
        const std::string logged = path("logged.vetchling");
        const Outcome log = run("log " + design + " --file " + written(loss) + " --sure -o " + logged);
        ASSERT_EQ(log.code, 0) << log.err;
        const Json trim = Json::parse(run("trim " + logged).out);
        EXPECT_EQ(trim["action"], loss > 0.0 ? "check" : "cut") << trim.dump(1);
        EXPECT_EQ(trim["change"].is_null(), loss > 0.0);
        EXPECT_EQ(trim["behind"].is_null(), loss == 0.0);
        if (loss > 0.0) {
            EXPECT_EQ(trim["behind"]["action"], "cut");
            EXPECT_LT(double(trim["behind"]["change"]), 0.0);
            EXPECT_NE(std::string(trim["words"]).find("coax alone"), std::string::npos);
        }
    }
}

} // namespace

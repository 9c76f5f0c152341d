/// The real program on cut lists, sheets and recipes.
#include "tests/cli/cli_fixture.h"

#include <cmath>

namespace {

TEST_F(Cli, CutListTellsMarksAndWhatWaits)
{
    const Outcome o = run("cutlist " + demo());
    ASSERT_EQ(o.code, 0) << o.err;
    const Json list = Json::parse(o.out);
    ASSERT_EQ(list["pieces"].size(), 2u);
    double wire = 0.0;
    for (const Json& piece : list["pieces"]) {
        const Json& marks = piece["marks"];
        EXPECT_EQ(double(marks.front()["at_m"]), 0.0);
        EXPECT_NEAR(double(marks.back()["at_m"]), double(piece["cut_to_m"]), 1e-12);
        EXPECT_NEAR(double(piece["radiating_m"]) + double(piece["ends_m"]) + double(piece["margin_m"]), double(piece["cut_to_m"]), 1e-12);
        wire += double(piece["pieces"]) * double(piece["cut_to_m"]);
    }
    EXPECT_NEAR(double(list["wire_m"]), wire, 1e-9);
    EXPECT_TRUE(list["pieces"][0]["waits_for"].is_null());
    EXPECT_EQ(list["pieces"][1]["waits_for"], list["pieces"][0]["cut"]);
    EXPECT_EQ(list["ropes"].size(), 2u);
    EXPECT_GT(list["parts"].size(), 5u);
}

TEST_F(Cli, SheetIsAPdfAndTemplatesAreAnSvg)
{
    const std::string pdf = path("sheet.pdf"), svg = path("plates.svg");
    const Outcome o = run("sheet " + demo() + " --antenna 'Loop 17' --quick --paper letter -o " + pdf + " --templates " + svg);
    ASSERT_EQ(o.code, 0) << o.err;
    EXPECT_EQ(read(pdf).rfind("%PDF-1.", 0), 0u);
    EXPECT_NE(read(svg).find("<svg"), std::string::npos);
    const std::string text = path("sheet.txt");
    ASSERT_EQ(std::system(("pdftotext -layout " + pdf + " " + text).c_str()), 0);
    EXPECT_NE(read(text).find("Build: Loop 17"), std::string::npos);
    EXPECT_NE(read(text).find("corner"), std::string::npos);
}

TEST_F(Cli, SheetRefusesInWords)
{
    EXPECT_EQ(run("sheet " + demo()).code, 2) << "nowhere to write";
    for (const std::string& bad : {demo() + " --antenna nobody", demo() + " --paper a7", std::string("/no/such.vetchling")}) {
        const Outcome o = run("sheet --quick -o " + path("x.pdf") + " " + bad);
        EXPECT_EQ(o.code, 2) << bad;
        EXPECT_FALSE(o.err.empty()) << bad;
    }
    EXPECT_EQ(run("sheet --quick " + demo() + " -o /nowhere/x.pdf").code, 2);
}

TEST_F(Cli, ARecipeIsCopiedOntoAnotherWire)
{
    const std::string made = path("made.vetchling"), thick = path("thick.vetchling"), recipe = path("r.json"), out = path("out.vetchling");
    ASSERT_EQ(run("new dipole --frequency 14.15e6 -o " + made).code, 0);
    ASSERT_EQ(run("tune " + made + " -o " + made).code, 0);
    ASSERT_EQ(run("recipe " + made + " -o " + recipe).code, 0);
    ASSERT_EQ(run("set " + made + " wire.jacket_m=0.001 -o " + thick).code, 0);
    const Outcome o = run("copy " + recipe + " " + thick + " -o " + out);
    ASSERT_EQ(o.code, 0) << o.err;
    const Json lengths = Json::parse(o.out)["lengths"];
    ASSERT_EQ(lengths.size(), 1u);
    EXPECT_LT(double(lengths[0]["copied"]), 0.985 * double(lengths[0]["built"])) << "a jacket shortens";
    // the copy is resonant where the original is
    const Json bands = Json::parse(run("bands " + out + " --antenna '" + std::string(Json::parse(o.out)["antenna"]) + "'").out);
    EXPECT_FALSE(bands.empty());
    const Json tuned = Json::parse(run("tune " + out + " --antenna '" + std::string(Json::parse(o.out)["antenna"]) + "'").out);
    EXPECT_NEAR(double(tuned["values"]["leg_m"]), double(lengths[0]["copied"]), 5e-3);
    EXPECT_EQ(run("copy /no/recipe.json " + thick + " -o " + out).code, 2);
    EXPECT_EQ(run("copy " + made + " " + thick + " -o " + out).code, 2) << "a design is no recipe";
}

TEST_F(Cli, TrimFollowsTheLog)
{
    const std::string made = path("t.vetchling"), logged = path("l.vetchling");
    ASSERT_EQ(run("new dipole --frequency 14.15e6 -o " + made).code, 0);
    ASSERT_EQ(run("tune " + made + " -o " + made).code, 0);
    Json next = Json::parse(run("trim " + made).out);
    EXPECT_EQ(next["action"], "measure");
    EXPECT_TRUE(next["change"].is_null());
    ASSERT_EQ(run("log " + made + " --dip '13.85 MHz' --swr 1.4 --remark wet -o " + logged).code, 0);
    next = Json::parse(run("trim " + logged).out);
    EXPECT_EQ(next["action"], "cut");
    EXPECT_EQ(next["parameter"], "leg_m");
    EXPECT_LT(double(next["change"]), -0.05);
    EXPECT_LT(double(next["slope_Hz_per_m"]), 0.0);
    EXPECT_NEAR(double(next["predicted_dip_Hz"]), 14.15e6, 60e3);
    // a sweep in place of a dip, after the cut
    const std::string sweep = write("s.csv", "MHz,SWR\n13.9,2.4\n14.0,1.8\n14.1,1.3\n14.2,1.31\n14.3,1.82\n");
    ASSERT_EQ(run("log " + logged + " --file " + sweep + " --cut " + std::to_string(-double(next["change"])) + " -o " + logged).code, 0);
    const Json done = Json::parse(run("trim " + logged).out);
    EXPECT_EQ(done["action"], "done");
    EXPECT_EQ(done["order"][0]["state"], "done");
    const Json plan = Json::parse(read(logged))["antennas"][0];
    EXPECT_EQ(plan["parameters"]["leg_m"], Json::parse(read(made))["antennas"][0]["parameters"]["leg_m"]) << "the plan stays";
    EXPECT_EQ(plan["trim"]["measurements"].size(), 2u);
}

TEST_F(Cli, LogTakesReadingsAndHowTheyWereTaken)
{
    const std::string made = path("meter.vetchling"), logged = path("meter2.vetchling");
    ASSERT_EQ(run("new dipole --frequency 14.15e6 -o " + made).code, 0);
    ASSERT_EQ(run("tune " + made + " -o " + made).code, 0);
    const Outcome one = run("log " + made + " --readings '14.0 1.9' -o " + logged);
    EXPECT_EQ(one.code, 2);
    EXPECT_NE(one.err.find("too long (dip"), std::string::npos) << one.err;
    const Outcome three =
        run("log " + made +
            " --readings '13.8 1.45; 14.15 2.2; 14.35 2.7' --soil wet --weather fog --place cove --coax 5 --instrument meter -o " + logged);
    ASSERT_EQ(three.code, 0) << three.err;
    const Json m = Json::parse(read(logged))["antennas"][0]["trim"]["measurements"][0];
    EXPECT_LT(double(m["dip_Hz"]), 14.0e6) << "the low channel is the better one";
    EXPECT_EQ(m["soil"], "wet");
    EXPECT_EQ(m["place"], "cove");
    EXPECT_EQ(double(m["coax_m"]), 5.0);
    const Json next = Json::parse(run("trim " + logged).out);
    EXPECT_EQ(next["action"], "cut");
    for (const Json& band : next["other_bands"])
        EXPECT_GE(double(band["swr_after"]), 1.0);
    for (const char* bad :
         {" --readings '14.0 0.2; 14.1 2'", " --dip 14.0e6 --readings '14 2'", " --dip 14e6 --soil muddy", " --dip 14e6 --coax -4", ""}) {
        const Outcome o = run("log " + made + bad + " -o " + path("no.vetchling"));
        EXPECT_EQ(o.code, 2) << bad;
        EXPECT_GT(o.err.size(), 20u) << bad;
    }
}

// A short dipole far below: the sweep at the coax' end is brought to the feedpoint before it counts.
TEST_F(Cli, ASweepThroughCoaxIsMoved)
{
    const std::string made = path("coax.vetchling"), far = path("far.csv"), logged = path("coax2.vetchling");
    ASSERT_EQ(run("new dipole --frequency 7.1e6 -o " + made).code, 0);
    write(far, "MHz,SWR\n7.0,1.6\n7.05,1.2\n7.1,1.5\n");
    ASSERT_EQ(run("log " + made + " --file " + far + " --coax 40 --line coax-50-thin -o " + logged).code, 0);
    const Json m = Json::parse(read(logged))["antennas"][0]["trim"]["measurements"][0];
    EXPECT_GT(double(m["sweep"][0][1]), 1.65) << "coax flatters";
    const Outcome o = run("log " + made + " --file " + far + " --coax 40 --line string -o " + logged);
    EXPECT_EQ(o.code, 2);
    EXPECT_NE(o.err.find("--line"), std::string::npos);
}

TEST_F(Cli, FitAndHistoryReadTheLog)
{
    const Json fit = Json::parse(run("fit " + demo() + " --antenna 'Loop 17' -o " + path("fitted.vetchling")).out);
    EXPECT_EQ(int(fit["measurements"]), 6);
    EXPECT_LT(double(fit["misfit_after"]), double(fit["misfit_before"]));
    EXPECT_GT(double(fit["relative_permittivity"]["sure"]), 0.0);
    EXPECT_NE(Json::parse(read(path("fitted.vetchling")))["site"]["soil"]["relative_permittivity"],
              Json::parse(read(VETCHLING_DATA "/demo/gannet-skerry.vetchling"))["site"]["soil"]["relative_permittivity"]);
    const Json history = Json::parse(run("history " + demo() + " --antenna 'Loop 17'").out);
    const Json drift = history["series"][0]["drift"];
    EXPECT_LT(double(drift["wet_less_dry_Hz"]), 0.0) << "wet soil pulls the dip down";
    EXPECT_NEAR(double(drift["stretch_m"]), -double(drift["change_Hz"]) / 18.092e6 * 17.07, 0.01) << "df/f = -dL/L";
    const Json places = Json::parse(run("history " + demo() + " --antenna 'Walking whip 17'").out)["places"];
    ASSERT_EQ(places.size(), 2u);
    EXPECT_EQ(places[1]["place"], "north beach");
    const std::string csv = run("history " + demo() + " --antenna 'Loop 17' --csv").out;
    EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'), 10);
    EXPECT_EQ(run("fit " + demo() + " --antenna 'Fan 12/10'").code, 2) << "nothing was measured of it";
}

TEST_F(Cli, SoilFollowsTheFrequency)
{
    const std::string made = path("soil.vetchling");
    ASSERT_EQ(run("new vertical --frequency 7.1e6 -o " + made).code, 0);
    ASSERT_EQ(run("set " + made + " soil.permittivity=15 soil.conductivity=0.008 soil.pair_frequency_Hz=14.1e6 -o " + made).code, 0);
    const Json ground = Json::parse(run("wires " + made + " --frequency 7.1e6").out)["ground"];
    EXPECT_EQ(double(ground["pair_frequency_Hz"]), 14.1e6);
    EXPECT_EQ(run("set " + made + " soil.conductivity=3 -o " + path("x.vetchling")).code, 2) << "that is water";
}

TEST_F(Cli, LogRefusesInWords)
{
    for (const char* bad : {"", " --dip 5", " --dip 14e6 --swr 0.5", " --dip 14e6 --parameter nose_m", " --dip 14e6 --cut 90",
                            " --dip 14e6 --height -3", " --dip 14e6 --configuration 9", " --file /no/such.s1p", " --dip often"}) {
        const Outcome o = run("log " + demo() + " --antenna 'Loop 17'" + bad + " -o " + path("x.vetchling"));
        EXPECT_EQ(o.code, 2) << bad;
        EXPECT_FALSE(o.err.empty()) << bad;
    }
}

TEST_F(Cli, EveryTrimmedFamilyIsAskedToBeMeasuredFirst)
{
    for (const char* family : {"dipole", "vertical", "end-fed", "delta-loop", "loaded-dipole", "whip", "linked-dipole", "fan-dipole"}) {
        const std::string made = path(std::string(family) + ".vetchling");
        ASSERT_EQ(run(std::string("new ") + family + " --frequency 14.15e6 -o " + made).code, 0) << family;
        const Outcome o = run("trim " + made);
        ASSERT_EQ(o.code, 0) << family << o.err;
        const Json next = Json::parse(o.out);
        EXPECT_EQ(next["action"], "measure") << family;
        EXPECT_TRUE(next["change"].is_null()) << family;
        EXPECT_NE(double(next["slope_Hz_per_m"]), 0.0) << family;
        EXPECT_GT(double(next["target_Hz"]), 1e6) << family;
        EXPECT_FALSE(std::string(next["words"]).empty()) << family;
        for (const Json& step : next["order"])
            EXPECT_EQ(step["state"], "measure") << family;
    }
}

TEST_F(Cli, ALinkedAntennaIsTrimmedInsideOut)
{
    const std::string made = path("linked.vetchling"), logged = path("logged.vetchling");
    ASSERT_EQ(run("new linked-dipole --frequency 14.15e6 -o " + made).code, 0);
    ASSERT_EQ(run("tune " + made + " -o " + made).code, 0);
    const Json first = Json::parse(run("trim " + made).out);
    ASSERT_EQ(first["order"].size(), 2u);
    EXPECT_GT(double(first["order"][0]["target_Hz"]), double(first["order"][1]["target_Hz"])) << "the highest band first";
    EXPECT_EQ(first["parameter"], first["order"][0]["parameter"]);
    const std::string inner = std::to_string(double(first["target_Hz"])), outer = std::to_string(double(first["order"][1]["target_Hz"]));
    ASSERT_EQ(run("log " + made + " --configuration 1 --dip " + inner + " -o " + logged).code, 0);
    Json next = Json::parse(run("trim " + logged).out);
    EXPECT_EQ(next["order"][0]["state"], "done");
    EXPECT_EQ(next["parameter"], first["order"][1]["parameter"]);
    EXPECT_EQ(next["action"], "measure");
    ASSERT_EQ(run("log " + logged + " --configuration 2 --dip " + std::to_string(0.98 * std::stod(outer)) + " -o " + logged).code, 0);
    next = Json::parse(run("trim " + logged).out);
    EXPECT_EQ(next["action"], "cut");
    EXPECT_LT(double(next["change"]), 0.0);
    ASSERT_EQ(run("log " + logged + " --configuration 1 --cut 1cm --dip " + inner + " -o " + logged).code, 0);
    EXPECT_EQ(Json::parse(run("trim " + logged).out)["action"], "measure") << "what is cut inside moves the outer one";
}

TEST_F(Cli, SagsTensionsAreOneWire)
{
    const Outcome level = run("sag --span 30 --mass-per-metre 0.02 --end-tension 60");
    ASSERT_EQ(level.code, 0);
    const Json h = Json::parse(level.out);
    EXPECT_NEAR(double(h["horizontal_N"]) + 0.02 * 9.80665 * double(h["sag_m"]), 60.0, 1e-6);
    EXPECT_EQ(run("sag --span 30 --mass-per-metre 0.02").code, 2);
}

TEST_F(Cli, CutListOfATubeHasNoFold)
{
    const std::string made = path("tube.vetchling");
    ASSERT_EQ(run("new vertical --frequency 14.2e6 -o " + made).code, 0);
    const Json wire = Json::parse(run("cutlist " + made).out)["pieces"][0];
    EXPECT_GT(double(wire["fold_m"]), 0.1);
    ASSERT_EQ(run("set " + made + " wire.diameter_m=0.022 -o " + made).code, 0);
    const Json tube = Json::parse(run("cutlist " + made).out)["pieces"][0];
    EXPECT_EQ(double(tube["fold_m"]), 0.0);
    EXPECT_NEAR(double(tube["radiating_m"]), double(wire["radiating_m"]), 1e-9);
}

} // namespace

/// The real program: output, exit codes, bad input.
#include "tests/cli/cli_fixture.h"
#include "tests/long_form.h"

namespace {

TEST_F(Cli, SolvesAWireFile)
{
    const Outcome o = run("solve " + caseFile("s10_inverted_v_poor"));
    ASSERT_EQ(o.code, 0) << o.err;
    const Json json = Json::parse(o.out);
    EXPECT_EQ(json["format"], "vetchling-result");
    EXPECT_EQ(json["version"], 1);
    const Json& r = json["results"][0];
    EXPECT_EQ(r["frequency_Hz"], 7.1e6);
    EXPECT_NEAR(r["impedance_ohm"][0], 57.34, 0.3);
    EXPECT_NEAR(r["impedance_ohm"][1], -26.78, 0.3);
    EXPECT_GT(r["impedance_error_percent"], 0.0);
    EXPECT_NEAR(double(r["efficiency"]) + double(r["losses"]["wire"]) + double(r["losses"]["loads"]) + double(r["losses"]["ground"]), 1.0,
                1e-4);
    EXPECT_EQ(r["gain_dBi"].size(), 7u);
    EXPECT_EQ(r["gain_dBi"][0].size(), 3u);
    EXPECT_GT(r["unknowns"], 10);
    EXPECT_TRUE(o.err.empty());
}

TEST_F(Cli, SolvesSeveralFrequenciesInOrder)
{
    Json wires = Json::parse(read(caseFile("s01_dipole_free")));
    wires["frequencies_Hz"] = {14e6, 10e6, 21e6};
    const Outcome o = run("solve " + write("a.json", wires.dump()));
    ASSERT_EQ(o.code, 0) << o.err;
    const Json json = Json::parse(o.out);
    ASSERT_EQ(json["results"].size(), 3u);
    EXPECT_EQ(json["results"][1]["frequency_Hz"], 10e6);
}

TEST_F(Cli, MeshOptionsChangeTheMesh)
{
    const auto unknowns = [&](const std::string& options) {
        return int(Json::parse(run("solve " + caseFile("s01_dipole_free") + options).out)["results"][0]["unknowns"]);
    };
    EXPECT_GT(unknowns(" --degree 5"), unknowns(""));
    EXPECT_GT(unknowns(" --elements-per-wavelength 20"), unknowns(""));
    EXPECT_EQ(run("solve " + caseFile("s01_dipole_free") + " --degree 9").code, 2);
}

TEST_F(Cli, RefinesForTheAccuracyAndNotesWhereItIsNotReached)
{
    Json tube = Json::parse(read(caseFile("s01_dipole_free")));
    tube["wires"][0]["radius_m"] = 0.2;
    const std::string file = write("tube.json", tube.dump());
    const auto unknowns = [&](const std::string& options) {
        return int(Json::parse(run("solve " + file + options).out)["results"][0]["unknowns"]);
    };
    EXPECT_GT(unknowns(" --accuracy 0.5"), unknowns(" --accuracy 0"));
    EXPECT_NE(run("solve " + file + " --accuracy 0.0001").err.find("only sure to"), std::string::npos);
}

TEST_F(Cli, NotesWhatIsOutOfRange)
{
    Json tube = Json::parse(read(caseFile("s01_dipole_free")));
    tube["wires"][0]["radius_m"] = 0.5;
    const Outcome o = run("solve " + write("tube.json", tube.dump()));
    EXPECT_EQ(o.code, 0);
    EXPECT_NE(o.err.find("note: wires[0]: thicker"), std::string::npos) << o.err;
}

TEST_F(Cli, SensitivitiesOfAllThereIs)
{
    const Outcome o = run("sensitivities " + caseFile("s12_coil_dipole_average"));
    ASSERT_EQ(o.code, 0) << o.err;
    const Json r = Json::parse(o.out)["results"][0];
    ASSERT_EQ(r["free_ends"].size(), 2u);
    EXPECT_GT(r["free_ends"][0]["per_m"][1], 50.0); // a longer end lowers the capacitive reactance
    EXPECT_EQ(r["loads_per_ohm"].size(), 2u);
    EXPECT_NEAR(r["loads_per_ohm"][0][0], r["loads_per_ohm"][1][0], 1e-6);
}

TEST_F(Cli, FieldsAtPointsForAPower)
{
    const std::string file = caseFile("s07_dipole_average_10m");
    const Outcome one = run("fields " + file + " --at 0,3,2 --at 1,0,20 --power 1"),
                  hundred = run("fields " + file + " --at 0,3,2 --power 100");
    ASSERT_EQ(one.code, 0) << one.err;
    const auto field = [](const Outcome& o) { return double(Json::parse(o.out)["results"][0]["fields"][0]["e_rms_V_per_m"]); };
    EXPECT_GT(field(one), 0.05);
    EXPECT_NEAR(field(hundred) / field(one), 10.0, 1e-6);
    EXPECT_EQ(Json::parse(one.out)["results"][0]["fields"].size(), 2u);
    const Outcome below = run("fields " + file + " --at 0,3,-2"), words = run("fields " + file + " --at here");
    EXPECT_EQ(below.code, 2);
    EXPECT_NE(below.err.find("above the ground"), std::string::npos);
    EXPECT_EQ(words.code, 2);
    EXPECT_TRUE(words.out.empty());
}

TEST_F(Cli, SweepsInThreeFormats)
{
    const std::string arguments = "sweep " + caseFile("s01_dipole_free") + " --from 13e6 --to 16e6";
    const Outcome json = run(arguments), csv = run(arguments + " --csv"), touchstone = run(arguments + " --touchstone");
    ASSERT_EQ(json.code, 0) << json.err;
    const Json j = Json::parse(json.out);
    EXPECT_EQ(j["format"], "vetchling-sweep");
    EXPECT_EQ(j["frequency_Hz"].size(), j["swr_50"].size());
    EXPECT_EQ(j["frequency_Hz"][0], 13e6);
    EXPECT_LE(j["solves"], 40);
    EXPECT_EQ(csv.out.rfind("frequency_Hz,", 0), 0u);
    EXPECT_NE(touchstone.out.find("# Hz S RI R 50"), std::string::npos);
    EXPECT_EQ(run(arguments + " --csv --touchstone").code, 2);
}

TEST_F(Cli, SweepRefusesBadRanges)
{
    for (const char* range : {"--from 16e6 --to 13e6", "--from 0 --to 1e7", "--from 1e7 --to 1e13", "--from x --to 1e7", "--from 1e7"}) {
        const Outcome o = run("sweep " + caseFile("s01_dipole_free") + " " + range);
        EXPECT_EQ(o.code, 2) << range;
        EXPECT_TRUE(o.out.empty());
        EXPECT_FALSE(o.err.empty());
    }
}

struct Bad {
    const char* name;
    const char* pointer; // JSON pointer to change
    const char* value;   // JSON; empty: remove
    const char* says;
};

class CliBadInput : public Cli, public ::testing::WithParamInterface<Bad> {};

// Exit 2, nothing on stdout, one line a fault with its place on stderr.
TEST_P(CliBadInput, IsRefusedInWords)
{
    Json wires = Json::parse(read(caseFile("s12_coil_dipole_average")));
    const Json::json_pointer at(GetParam().pointer);
    if (*GetParam().value)
        wires[at] = Json::parse(GetParam().value);
    else
        wires[at.parent_pointer()].erase(at.back());
    const Outcome o = run("solve " + write("bad.json", wires.dump()));
    EXPECT_EQ(o.code, 2);
    EXPECT_TRUE(o.out.empty());
    EXPECT_NE(o.err.find(GetParam().says), std::string::npos) << o.err;
}

INSTANTIATE_TEST_SUITE_P(Files, CliBadInput,
                         ::testing::Values(Bad{"missing_radius", "/wires/0/radius_m", "", "wires[0].radius_m: is missing"},
                                           Bad{"zero_radius", "/wires/0/radius_m", "0", "wires[0].radius_m: 0 is outside"},
                                           Bad{"ends_in_the_surface", "/wires/0/points_m/1/2", "0",
                                               "wires[0].points_m[1]: touches the soil's surface and does not go on"},
                                           Bad{"null_point", "/wires/0/points_m/1/2", "null", "wires[0].points_m[1]"},
                                           Bad{"feed_off", "/feeds/0/at_m", "55", "feeds[0].at_m: 55 m is off the wire"},
                                           Bad{"frequency_zero", "/frequencies_Hz/0", "0", "frequencies_Hz[0]: 0 Hz is outside"},
                                           Bad{"frequency_huge", "/frequencies_Hz/0", "1e12", "frequencies_Hz[0]"},
                                           Bad{"load_elsewhere", "/loads/1/wire", "\"z\"", "loads[1].wire: there is no wire 'z'"},
                                           Bad{"duplicate_wire", "/wires/1", R"({"id":"b","points_m":[[-5,0,8],[5,0,8]],"radius_m":0.001})",
                                               "wires[1].points_m[1]: this piece lies on"},
                                           Bad{"crossing_wire", "/wires/1", R"({"id":"b","points_m":[[1,-4,8],[1,4,8]],"radius_m":0.001})",
                                               "without a joint"},
                                           Bad{"no_wires", "/wires", "[]", "wires: there is no wire"}),
                         [](const auto& info) { return std::string(info.param.name); });

TEST_F(Cli, RefusesFilesThatAreNone)
{
    const Outcome missing = run("solve " + path("none.json"));
    EXPECT_EQ(missing.code, 2);
    EXPECT_NE(missing.err.find("none.json: cannot be read"), std::string::npos) << missing.err;

    const std::string text = read(caseFile("s01_dipole_free"));
    const Outcome cut = run("solve " + write("cut.json", text.substr(0, text.size() / 2)));
    EXPECT_EQ(cut.code, 2);
    EXPECT_NE(cut.err.find("too early"), std::string::npos);

    const Outcome deep = run("solve " + write("deep.json", std::string(200000, '[')));
    EXPECT_EQ(deep.code, 2);
    EXPECT_NE(deep.err.find("nested deeper"), std::string::npos);

    write("big.json", "{");
    fs::resize_file(path("big.json"), 100u << 20);
    const Outcome big = run("solve " + path("big.json"));
    EXPECT_EQ(big.code, 2);
    EXPECT_NE(big.err.find("100 MB"), std::string::npos);

    const Outcome nan = run("solve " + write("nan.json", "{\"format\":\"vetchling-wires\",\"version\":NaN}"));
    EXPECT_EQ(nan.code, 2);
    EXPECT_NE(nan.err.find("line 1"), std::string::npos) << nan.err;
}

TEST_F(Cli, SeveralFaultsAreSeveralLines)
{
    Json wires = Json::parse(read(caseFile("s12_coil_dipole_average")));
    wires["wires"][0].erase("radius_m");
    wires["frequencies_Hz"] = {-1};
    wires["loads"][0]["wire"] = "nobody";
    const Outcome o = run("solve " + write("bad.json", wires.dump()));
    EXPECT_EQ(o.code, 2);
    EXPECT_EQ(std::count(o.err.begin(), o.err.end(), '\n'), 3) << o.err;
}

TEST_F(Cli, UnknownCommandsAndNoneAreRefused)
{
    for (const char* arguments : {"", "dance", "solve", "solve a b c"}) {
        const Outcome o = run(arguments);
        EXPECT_EQ(o.code, 2) << arguments;
        EXPECT_NE(o.err.find("--help"), std::string::npos);
    }
    const Outcome help = run("--help");
    EXPECT_EQ(help.code, 0);
    for (const char* command : {"solve", "sweep", "new", "wires", "tune", "bands", "cutlist", "families"})
        EXPECT_NE(help.out.find(command), std::string::npos) << command;
}

TEST_F(Cli, StopsCleanlyOnInterrupt)
{
    Json wires = Json::parse(read(caseFile("s13_dipole_average_5cm")));
    wires["frequencies_Hz"] = Json::array();
    for (int i = 0; i < 4000; ++i)
        wires["frequencies_Hz"].push_back(7e6 + 100.0 * i);
    const std::string file = write("long.json", wires.dump()), out = path("out.txt"), err = path("err.txt");
    const pid_t child = fork();
    if (child == 0) {
        std::freopen(out.c_str(), "w", stdout);
        std::freopen(err.c_str(), "w", stderr);
        execl(VETCHLING_CLI, VETCHLING_CLI, "solve", file.c_str(), nullptr);
        _exit(99);
    }
    usleep(400000);
    kill(child, SIGINT);
    int status = 0;
    waitpid(child, &status, 0);
    ASSERT_TRUE(WIFEXITED(status));
    EXPECT_EQ(WEXITSTATUS(status), 2);
    EXPECT_TRUE(read(out).empty()); // nothing half-written
    EXPECT_NE(read(err).find("stopped"), std::string::npos);
}

// ---- designs

TEST_F(Cli, ListsFamilies)
{
    const Json families = Json::parse(run("families").out);
    EXPECT_EQ(families.size(), 38u);
    EXPECT_EQ(Json::parse(run("new --list").out), families);
    for (const Json& f : families)
        EXPECT_FALSE(f["parameters"].empty());
}

TEST_F(Cli, MakesADesignAndItsWires)
{
    const std::string file = path("v.vetchling");
    const Outcome made =
        run("new dipole --frequency 14.1e6 --set leg_m=5.1 --set 'apex_height_m=33ft 4in' --set end_height_m=7 -o " + file);
    ASSERT_EQ(made.code, 0) << made.err;
    const Outcome wires = run("wires " + file + " --frequency 14.1e6");
    ASSERT_EQ(wires.code, 0) << wires.err;
    const Json json = Json::parse(wires.out);
    EXPECT_NEAR(json["wires"][0]["points_m"][1][2], 10.16, 1e-9);
    const Outcome solved = run("solve " + write("w.json", wires.out));
    ASSERT_EQ(solved.code, 0) << solved.err;
    EXPECT_GT(Json::parse(solved.out)["results"][0]["impedance_ohm"][0], 10.0);
}

TEST_F(Cli, NewTakesWhatACountBringsInAnyOrder)
{
    const std::string one = path("one.vetchling"), other = path("other.vetchling");
    ASSERT_EQ(run("new loaded-dipole --set tube_1_m=1.5 --set droop_deg=40 --set tube_count=2 --set droop_m=0.5 -o " + one).code, 0);
    ASSERT_EQ(run("new loaded-dipole --set droop_m=0.5 --set tube_count=2 --set droop_deg=40 --set tube_1_m=1.5 -o " + other).code, 0);
    const auto lengths = [&](const std::string& file) { return run("cutlist " + file).out; };
    EXPECT_EQ(lengths(one), lengths(other));
    EXPECT_NE(lengths(one).find("1.5"), std::string::npos);
    EXPECT_EQ(run("new loaded-dipole --set tube_1_m=1.5 -o " + one).code, 2) << "one thickness has no tubes";
}

TEST_F(Cli, NewRefusesNonsense)
{
    const std::string file = path("v.vetchling");
    for (const char* arguments : {"new rhombic", "new dipole --set leg_m=banana", "new dipole --set wings=3", "new dipole --set leg_m",
                                  "new dipole --set end_height_m=-3"}) {
        const Outcome o = run(std::string(arguments) + " -o " + file);
        EXPECT_EQ(o.code, 2) << arguments;
        EXPECT_FALSE(o.err.empty());
        EXPECT_FALSE(fs::exists(file)) << arguments;
    }
    EXPECT_EQ(run("new dipole").code, 2);
}

TEST_F(Cli, TunesTheDemo)
{
    const Outcome o = run("tune " + demo() + " --antenna 'Coil dipole 30' --vary inductance_H");
    ASSERT_EQ(o.code, 0) << o.err;
    const Json json = Json::parse(o.out);
    EXPECT_EQ(json["vary"], "inductance_H");
    EXPECT_GT(json["value"], 1e-6);
    EXPECT_LT(std::abs(double(json["impedance_ohm"][1])), 1.0);
    EXPECT_GT(json["rule_of_thumb"], 1e-6);
    EXPECT_LE(json["solves"], 9);
    EXPECT_EQ(run("tune " + demo() + " --antenna Nobody").code, 2);
    EXPECT_EQ(run("tune " + demo() + " --vary nonsense").code, 2);
    EXPECT_EQ(run("tune " + demo() + " --target beauty").code, 2);
}

TEST_F(Cli, TellsBandsAndCutList)
{
    const Json bands = Json::parse(run("bands " + demo()).out);
    bool forty = false;
    for (const Json& b : bands)
        if (b["band"] == "40 m") {
            forty = true;
            EXPECT_LT(b["lowest_swr"], 1.5);
        }
    EXPECT_TRUE(forty);
    EXPECT_EQ(run("bands " + demo() + " --csv").out.rfind("band,from_Hz", 0), 0u);
    const Json cut = Json::parse(run("cutlist " + demo()).out);
    EXPECT_EQ(cut["pieces"][0]["pieces"], 2);
    EXPECT_GT(cut["wire_m"], 20.0);
    EXPECT_EQ(run("cutlist " + demo() + " --csv").out.rfind("cut,pieces", 0), 0u);
}

// A linked antenna: each band in its best configuration, unless one is asked for.
TEST_F(Cli, TellsTheBestConfigurationOfEachBand)
{
    const auto row = [](const Json& bands, const char* name) {
        for (const Json& b : bands)
            if (b["band"] == name)
                return b;
        return Json();
    };
    const Json best = Json::parse(run("bands " + demo()).out), inner = Json::parse(run("bands " + demo() + " --configuration 1").out);
    EXPECT_LT(row(best, "40 m")["lowest_swr"], 1.5);
    EXPECT_LT(row(best, "60 m")["lowest_swr"], 1.5);
    EXPECT_GT(row(inner, "60 m")["lowest_swr"], 5.0);
    EXPECT_NE(row(best, "40 m")["configuration"], row(best, "60 m")["configuration"]);
    EXPECT_FALSE(Json::parse(run("bands " + demo() + " --antenna 'Loop 17'").out)[0].contains("configuration"));
}

TEST_F(Cli, WritesTheWiresOfEachConfiguration)
{
    const Json open = Json::parse(run("wires " + demo() + " --configuration 1").out),
               closed = Json::parse(run("wires " + demo() + " --configuration 2").out);
    EXPECT_EQ(open["wires"].size(), 3u);
    EXPECT_EQ(closed["wires"].size(), 1u);
    EXPECT_EQ(run("wires " + demo() + " --configuration 3").code, 2);
}

TEST_F(Cli, TunesSeveralDimensionsTogether)
{
    const Outcome o = run("tune " + demo() + " --antenna 'Coil dipole 30' --vary inductance_H --vary leg_m --resistance 40");
    ASSERT_EQ(o.code, 0) << o.err;
    const Json json = Json::parse(o.out);
    EXPECT_NEAR(json["impedance_ohm"][0], 40.0, 0.5);
    EXPECT_NEAR(json["impedance_ohm"][1], 0.0, 0.5);
    EXPECT_EQ(json["values"].size(), 2u);
    EXPECT_EQ(run("tune " + demo() + " --vary leg_m --vary nonsense").code, 2);
}

// Tables of an earlier run change no figure, and one that was damaged is made anew.
TEST_F(Cli, KeepsTheSoilsTablesWhereItIsTold)
{
    const std::string design = path("v.vetchling"), folder = path("tables");
    ASSERT_EQ(run("new dipole --frequency 14.2e6 -o " + design).code, 0);
    const auto spread = [&](const std::string& tables) {
        ::setenv("VETCHLING_TABLES", tables.c_str(), 1);
        return run("spread " + design).out;
    };
    const std::string before = std::getenv("VETCHLING_TABLES") ? std::getenv("VETCHLING_TABLES") : "";
    const std::string alone = spread(""), first = spread(folder);
    const auto kept = [&] { return std::distance(fs::directory_iterator(folder), fs::directory_iterator()); };
    ASSERT_TRUE(fs::exists(folder));
    const auto count = kept();
    EXPECT_GT(count, 5);
    const std::string second = spread(folder);
    EXPECT_EQ(kept(), count) << "nothing was computed again";
    fs::resize_file(fs::directory_iterator(folder)->path(), 100);
    const std::string mended = spread(folder);
    ::setenv("VETCHLING_TABLES", before.c_str(), 1);
    EXPECT_FALSE(alone.empty());
    EXPECT_EQ(first, alone);
    EXPECT_EQ(second, alone);
    EXPECT_EQ(mended, alone);
}

TEST_F(Cli, WritesATableOfEveryFamilyOnASite)
{
    const bool all = vetchling::testing::longForm();
    const Outcome o = run("families --on " + demo() + (all ? "" : " --family inverted-l --family dipole --family delta-loop"));
    ASSERT_EQ(o.code, 0) << o.err;
    const std::size_t families = all ? Json::parse(run("families").out).size() : 3;
    EXPECT_EQ(std::size_t(std::count(o.out.begin(), o.out.end(), '\n')), families + 2) << "a line each, and two of the head";
    EXPECT_NE(o.out.find("| Inverted L |"), std::string::npos);
    EXPECT_EQ(run("families --on nowhere.vetchling").code, 2);
    EXPECT_EQ(run("families --on " + demo() + " --family nonsense").code, 2);
    EXPECT_EQ(run("families --on " + demo() + " --frequency 1").code, 2);
}

// At every frequency that builders ask for, a new antenna can be tuned, and what is tuned is resonant when solved again.
TEST_F(Cli, EveryFamilyIsMadeTunedAndSolved)
{
    const Json families = Json::parse(run("families").out);
    ASSERT_GE(families.size(), 38u);
    std::size_t number = 0;
    for (const Json& family : families)
        for (const char* frequency : {"3.6e6", "145e6"}) {
            if (!vetchling::testing::tried(number++, 11)) // families and frequencies take turns
                continue;
            const std::string id = family["family"], file = path("any.vetchling");
            SCOPED_TRACE(id + " " + frequency);
            ASSERT_EQ(run("new " + id + " --frequency " + frequency + " -o '" + file + "'").code, 0);
            const Outcome tuned = run("tune '" + file + "' -o '" + file + "'");
            ASSERT_EQ(tuned.code, 0) << tuned.err;
            const Outcome solved = run("solve '" + write("any.json", run("wires '" + file + "'").out) + "'");
            ASSERT_EQ(solved.code, 0) << solved.err;
            EXPECT_GT(Json::parse(solved.out)["results"][0]["impedance_ohm"][0], 0.0);
        }
}

TEST_F(Cli, TunesAllLengthsAndWritesThem)
{
    const std::string file = path("fan.vetchling"), tuned = path("tuned.vetchling");
    ASSERT_EQ(run("new fan-dipole --frequency 14.2e6 -o " + file).code, 0);
    const Outcome o = run("tune " + file + " -o " + tuned);
    ASSERT_EQ(o.code, 0) << o.err;
    const Json json = Json::parse(o.out);
    ASSERT_EQ(json["values"].size(), 2u);
    ASSERT_EQ(json["at_Hz"].size(), 2u);
    EXPECT_GT(json["rule_of_thumb"]["leg_2_m"], 2.0);
    for (const auto& z : json["impedance_ohm"])
        EXPECT_LT(std::abs(double(z[1])), 1.0);
    const Json design = Json::parse(read(tuned));
    EXPECT_EQ(design["antennas"][0]["parameters"]["leg_2_m"], json["values"]["leg_2_m"]);
    EXPECT_NE(Json::parse(read(file))["antennas"][0]["parameters"]["leg_2_m"], json["values"]["leg_2_m"]);
}

TEST_F(Cli, NewKnowsBandsSoilsAndConfigurations)
{
    const std::string file = path("v.vetchling");
    ASSERT_EQ(run("new vertical --frequency 145e6 --soil p368-wet -o " + file).code, 0);
    Json design = Json::parse(read(file));
    std::size_t must = 0;
    for (const auto& band : design["operation"]["bands"])
        if (band["wish"] == "must") {
            ++must;
            EXPECT_EQ(band["name"], "2 m");
        }
    EXPECT_EQ(must, 1u);
    ASSERT_EQ(run("new dipole --frequency 12e6 -o " + file).code, 0);
    design = Json::parse(read(file));
    EXPECT_EQ(design["site"]["soil"]["name"], "own soil");
    bool own = false;
    for (const auto& band : design["operation"]["bands"])
        if (band["wish"] == "must")
            own = std::abs(double(band["from_Hz"]) - 11.88e6) < 1.0 && std::abs(double(band["to_Hz"]) - 12.12e6) < 1.0;
    EXPECT_TRUE(own);
    EXPECT_EQ(run("wires " + file + " --configuration 1").code, 0);
    const Outcome second = run("wires " + file + " --configuration 2");
    EXPECT_EQ(second.code, 2);
    EXPECT_NE(second.err.find("--configuration"), std::string::npos);
    EXPECT_EQ(run("new dipole --soil moon -o " + file).code, 2);
}

TEST_F(Cli, BareNumbersAreSiAndUnitsAreRead)
{
    const std::string file = path("c.vetchling");
    ASSERT_EQ(run("new loaded-dipole --set inductance_H=8.19e-6 -o " + file).code, 0);
    EXPECT_EQ(Json::parse(read(file))["antennas"][0]["parameters"]["inductance_H"], 8.19e-6);
    const Outcome set =
        run("set " + file + " 'inductance_H=9 uH' wire.diameter_m=0.0016 design_frequency_Hz=7.05e6 swr_limit=3 power_W=50 -o " + file);
    ASSERT_EQ(set.code, 0) << set.err;
    const Json design = Json::parse(read(file));
    EXPECT_NEAR(design["antennas"][0]["parameters"]["inductance_H"], 9e-6, 1e-15);
    EXPECT_EQ(design["antennas"][0]["wire"]["diameter_m"], 0.0016);
    EXPECT_EQ(design["antennas"][0]["design_frequency_Hz"], 7.05e6);
    EXPECT_EQ(design["operation"]["swr_limit"], 3.0);
    const std::string before = read(file);
    for (const char* bad : {"leg_m=banana", "wings=3", "swr_limit=0.2", "soil=moon", "leg_m", "apex_height_m=-3"}) {
        const Outcome o = run("set " + file + " " + bad + " -o " + file);
        EXPECT_EQ(o.code, 2) << bad;
        EXPECT_FALSE(o.err.empty()) << bad;
    }
    EXPECT_EQ(read(file), before);
}

TEST_F(Cli, ChecksWhereAntennasHang)
{
    const Json good = Json::parse(run("check " + demo()).out)["antennas"];
    ASSERT_EQ(good.size(), 7u);
    EXPECT_TRUE(good[0]["fits"]);
    EXPECT_GT(good[0]["power_line_clearance_m"], 9.0);
    EXPECT_FALSE(good[2]["fits"]); // beyond the wall, in the marsh
    for (const auto& w : good[2]["warnings"])
        EXPECT_NE(w["code"], "support") << "a vertical stands by itself";
    Json design = Json::parse(read(VETCHLING_DATA "/demo/gannet-skerry.vetchling"));
    design["site"]["power_line"] = {{"from_m", {16, -50}}, {"to_m", {16, 80}}, {"height_m", 8}};
    design["antennas"][0]["parameters"]["apex_height_m"] = 14.9; // above the tower
    const Json bad = Json::parse(run("check " + write("bad.vetchling", design.dump())).out)["antennas"];
    const auto has = [](const Json& antenna, const char* code) {
        for (const auto& w : antenna["warnings"])
            if (w["code"] == code && w["at_m"].size() == 3)
                return true;
        return false;
    };
    EXPECT_TRUE(has(bad[0], "power-line"));
    EXPECT_TRUE(has(bad[0], "tie"));
    EXPECT_TRUE(has(bad[2], "boundary"));
    EXPECT_TRUE(has(bad[2], "low")); // radials on the marsh
    EXPECT_FALSE(bad[0]["fits"]);
    design["site"].erase("power_line");
    design["antennas"][1]["family"] = "moebius";
    const Json none = Json::parse(run("check " + write("none.vetchling", design.dump())).out)["antennas"];
    EXPECT_TRUE(none[0]["power_line_clearance_m"].is_null());
    EXPECT_FALSE(none[1]["fits"]);
    EXPECT_EQ(none[1]["warnings"].size(), 1u);
}

TEST_F(Cli, RefusesBrokenDesigns)
{
    for (const char* command : {"wires", "tune", "bands", "cutlist"}) {
        const Outcome o = run(std::string(command) + " " +
                              write("bad.vetchling", "{\"format\":\"vetchling-design\",\"version\":1,\"site\":{},\"antennas\":[]}"));
        EXPECT_EQ(o.code, 2);
        EXPECT_NE(o.err.find("site.soil: is missing"), std::string::npos) << o.err;
    }
}

} // namespace

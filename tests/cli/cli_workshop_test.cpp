/// The real program on coils and hanging wires.
#include "tests/cli/cli_fixture.h"

#include <cmath>

namespace {

TEST_F(Cli, CoilTellsInductanceOrTurns)
{
    const Outcome o = run("coil --mean-diameter 0.05 --wire 0.002 --pitch 0.004 --turns 10 --frequency 10.12e6");
    ASSERT_EQ(o.code, 0) << o.err;
    const Json coil = Json::parse(o.out);
    EXPECT_NEAR(double(coil["inductance_H"]) / 3.7420098e-6, 1.0, 0.004);
    EXPECT_NEAR(double(coil["low_frequency_inductance_H"]) / 3.8988953e-6, 1.0, 0.0025);
    EXPECT_NEAR(double(coil["length_m"]), 0.04, 1e-12);
    EXPECT_GT(double(coil["q"]), 600.0);
    const Json low = Json::parse(run("coil --mean-diameter '50 mm' --wire '2 mm' --pitch '4 mm' --turns 10").out);
    EXPECT_NEAR(double(low["inductance_H"]), double(coil["low_frequency_inductance_H"]), 1e-15);
    EXPECT_TRUE(low["q"].is_null());
    const Json back = Json::parse(run("coil --mean-diameter 0.05 --wire 0.002 --pitch 0.004 --inductance '3.9 uH'").out);
    EXPECT_NEAR(double(back["inductance_H"]), 3.9e-6, 1e-13);
    EXPECT_NEAR(double(back["turns"]), 10.0, 0.05);
}

TEST_F(Cli, SagTellsTheTautSolution)
{
    const Json taut = Json::parse(run("sag --span 40 --mass-per-metre 0.02 --end-tension 50").out);
    EXPECT_NEAR(double(taut["sag_m"]), 0.7873688259, 1e-8);
    EXPECT_NEAR(double(taut["wire_m"]), 40.04130013, 1e-7);
    const Json given = Json::parse(run("sag --span 20 --mass-per-metre 0.0095 --sag '5 cm'").out);
    EXPECT_NEAR(double(given["end_N"]), 93.16860951, 1e-6);
}

TEST_F(Cli, ExposureTellsBandByBandAndLimitByLimit)
{
    const std::string made = path("exposed.vetchling");
    ASSERT_EQ(run("new dipole --frequency 29e6 -o " + made).code, 0); // one band, few wires: it takes no time
    const Outcome o = run("exposure " + made);
    ASSERT_EQ(o.code, 0) << o.err;
    const Json rows = Json::parse(o.out)["rows"];
    ASSERT_GE(rows.size(), 4u) << "one row a limit";
    for (const Json& row : rows) {
        EXPECT_EQ(row["band"], "10 m");
        EXPECT_GT(double(row["distance_m"]), 0.1);
        EXPECT_TRUE(bool(row["bounded"]));
        EXPECT_GT(double(row["peak_V"]), 300.0) << "the ends of a half wave at 100 W";
        EXPECT_LT(double(row["peak_V"]), 2500.0);
    }
    const Json less = Json::parse(run("exposure " + made + " --limit icnirp-2020-public --duty 20").out)["rows"];
    ASSERT_EQ(less.size(), 1u);
    const Json full = *std::find_if(rows.begin(), rows.end(), [](const Json& r) { return r["limit"] == "icnirp-2020-public"; });
    EXPECT_LT(double(less[0]["distance_m"]), double(full["distance_m"]));
    EXPECT_NEAR(double(less[0]["averaged_W"]), 20.0, 1e-9);
    EXPECT_EQ(run("exposure " + made + " --limit of-nobody").code, 2);
    EXPECT_EQ(run("exposure " + made + " --duty 0").code, 2);
}

TEST_F(Cli, WorkshopRefusesInWords)
{
    const char* const bad[] = {"coil --mean-diameter 0.05 --wire 0.002 --pitch 0.001 --turns 10",
                               "coil --mean-diameter 0.05 --wire 0.002 --pitch 0.004",
                               "coil --mean-diameter 0.05 --wire 0.002 --pitch 0.004 --turns 10 --inductance 1e-6",
                               "coil --mean-diameter wide --wire 0.002 --pitch 0.004 --turns 10",
                               "coil --mean-diameter 0.05 --wire 0.002 --pitch 0.004 --turns 0",
                               "sag --span 40 --mass-per-metre 0.5 --end-tension 2",
                               "sag --span 40 --mass-per-metre 0.02",
                               "sag --span 40 --mass-per-metre 0.02 --sag 0"};
    for (const char* command : bad) {
        const Outcome o = run(command);
        EXPECT_EQ(o.code, 2) << command;
        EXPECT_TRUE(o.out.empty()) << command;
        EXPECT_GT(o.err.size(), 20u) << command;
    }
}

} // namespace

/// What is written down at the mast, in the file: every field there and back, only what was noted, and nonsense refused in words.
#include "core/design/design.h"
#include "core/files/design_file.h"

#include "tests/core/demo.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <cmath>

namespace vetchling::files {
namespace {

using Json = nlohmann::ordered_json;

Design withLog(TrimLog log)
{
    Design design;
    Antenna antenna;
    antenna.id = "antenna-1";
    antenna.name = "dipole";
    antenna.shape = shapes::findFamily("dipole")->standardShape(7.1e6);
    antenna.trim = std::move(log);
    design.antennas = {antenna};
    return design;
}

Measurement everything()
{
    Measurement m;
    m.id = "m1";
    m.when = "2026-05-12T10:40";
    m.remark = "north rope \"slack\", Größe";
    m.cutSinceLast = -0.035;
    m.folded = true;
    m.dip = 7.012e6;
    m.dipSwr = 1.37;
    m.parameter = "leg_m";
    m.configuration = 0;
    m.sweep = {{6.9e6, 2.1}, {7.0e6, 1.4}, {7.1e6, 1.9}};
    m.impedance = {{41.0, -30.0}, {44.5, -2.0}, {47.0, 25.0}};
    m.instrument = "analyser";
    m.height = 9.25;
    m.coax = 18.0;
    m.place = "lamp rock";
    m.weather = "rain, 4 °C";
    m.soil = SoilState::Frozen;
    m.pictures = {"/pictures/mast.jpg", "knot.png"};
    return m;
}

Json logJson(const Design& design) { return Json::parse(writeDesign(design))["antennas"][0]["trim"]; }

/// The design's file with one thing in its log changed.
std::string faultOf(const std::function<void(Json& trim)>& change)
{
    Json json = Json::parse(
        writeDesign(withLog({7.08e6, {everything()}, {{"r1", "2026-05-13T09:00", 7.09e6, 90e3, 41.0, 100.0, "59", "", {}}}, {}})));
    change(json["antennas"][0]["trim"]);
    return testing::firstFaultOf(parseDesign(json.dump()));
}

TEST(LogFile, EveryFieldComesBack)
{
    const AirReport report{"r1", "2026-05-13T09:00", 7.09e6, 90e3, 41.0, 100.0, "59", "with fading", {}, 142.0, 3.0, Fading::Slow};
    const Design design = withLog({7.08e6, {everything()}, {report}, {}});
    const auto back = parseDesign(writeDesign(design));
    ASSERT_TRUE(back.ok()) << back.firstFault();
    EXPECT_EQ(back->antennas[0].trim.measurements[0], everything());
    EXPECT_EQ(back->antennas[0].trim.reports[0], report);
    EXPECT_EQ(back->antennas[0].trim, design.antennas[0].trim);
}

TEST(LogFile, HoldsOnlyWhatWasNoted)
{
    Measurement plain;
    plain.id = "m1";
    plain.dip = 7.0e6;
    const Json m = logJson(withLog({0.0, {plain}, {}, {}}))["measurements"][0];
    for (const char* key :
         {"sweep", "impedance_ohm", "coax_m", "place", "weather", "soil", "pictures", "height_m", "instrument", "parameter"})
        EXPECT_FALSE(m.contains(key)) << key;
    EXPECT_FALSE(logJson(withLog({0.0, {plain}, {}, {}})).contains("reports"));
}

// What an older version wrote, and what a newer one will have written.
TEST(LogFile, OldOnesOpenAndUnknownFieldsStay)
{
    Json json = Json::parse(writeDesign(withLog({})));
    json["antennas"][0]["trim"] = Json::parse(R"({"target_Hz":7.08e6,"measurements":[
        {"when":"2025-05-12T10:40","remark":"dry","cut_each_end_m":0.0,"folded":false,"dip_Hz":6.9e6,"dip_swr":1.42,"humidity":0.8}],
        "reports":[{"frequency_Hz":7.1e6,"report":"57","antenna_there":"loop"}],"crew":3})");
    const auto read = parseDesign(json.dump());
    ASSERT_TRUE(read.ok()) << read.firstFault();
    const TrimLog& log = read->antennas[0].trim;
    EXPECT_EQ(log.measurements[0].soil, SoilState::NotNoted);
    EXPECT_EQ(log.measurements[0].coax, 0.0);
    EXPECT_FALSE(log.measurements[0].id.empty()) << "named when it is opened";
    EXPECT_FALSE(log.reports[0].id.empty());
    const Json again = logJson(*read);
    EXPECT_EQ(again["crew"], 3);
    EXPECT_EQ(again["measurements"][0]["humidity"], 0.8);
    EXPECT_EQ(again["reports"][0]["antenna_there"], "loop");
}

TEST(LogFile, NonsenseIsRefusedInWords)
{
    const auto first = [](Json& trim) -> Json& { return trim["measurements"][0]; };
    EXPECT_NE(faultOf([&](Json& t) { first(t)["soil"] = "muddy"; }).find("muddy"), std::string::npos);
    EXPECT_NE(faultOf([&](Json& t) { first(t)["dip_Hz"] = 12; }).find("dip"), std::string::npos);
    EXPECT_NE(faultOf([&](Json& t) { first(t)["coax_m"] = -2; }).find("coax"), std::string::npos);
    EXPECT_NE(faultOf([&](Json& t) { first(t)["height_m"] = -2; }).find("height"), std::string::npos);
    EXPECT_NE(faultOf([&](Json& t) { first(t)["configuration"] = 0; }).find("counts from 1"), std::string::npos);
    EXPECT_NE(faultOf([&](Json& t) { first(t)["pictures"] = Json::array({1}); }), "");
    EXPECT_NE(faultOf([&](Json& t) { first(t)["sweep"] = Json::array({Json::array({7e6})}); }), "");
    const auto report = [](Json& trim) -> Json& { return trim["reports"][0]; };
    EXPECT_NE(faultOf([&](Json& t) { report(t)["distance_m"] = 5e8; }).find("half round the Earth"), std::string::npos);
    EXPECT_NE(faultOf([&](Json& t) { report(t)["bearing_deg"] = 400; }).find("0 (north)"), std::string::npos);
    EXPECT_NE(faultOf([&](Json& t) { report(t)["power_W"] = -1; }).find("watts"), std::string::npos);
    EXPECT_NE(faultOf([&](Json& t) { report(t).erase("frequency_Hz"); }), "");
    EXPECT_NE(faultOf([&](Json& t) { report(t)["fading"] = "sideways"; }).find("fading"), std::string::npos);
    EXPECT_NE(faultOf([&](Json& t) { report(t)["k_index"] = 12; }).find("0 to 9"), std::string::npos);
    EXPECT_NE(faultOf([&](Json& t) { report(t)["solar_flux"] = 9; }).find("solar flux"), std::string::npos);
    EXPECT_EQ(faultOf([](Json&) {}), "");
}

// R and X belong to the points of their sweep: where the numbers differ they are nobody's.
TEST(LogFile, ImpedancesWithoutTheirSweepAreDropped)
{
    Json json = Json::parse(writeDesign(withLog({7.08e6, {everything()}, {}, {}})));
    json["antennas"][0]["trim"]["measurements"][0]["impedance_ohm"].erase(0);
    const auto read = parseDesign(json.dump());
    ASSERT_TRUE(read.ok()) << read.firstFault();
    EXPECT_TRUE(read->antennas[0].trim.measurements[0].impedance.empty());
    EXPECT_EQ(read->antennas[0].trim.measurements[0].sweep.size(), 3u);
}

TEST(Reports, AreCheckedAsTyped)
{
    AirReport good{"", "", 7.09e6, 0.0, std::nullopt, 0.0, "59", "", {}};
    EXPECT_TRUE(findReportFaults(good).empty()) << "distance, bearing and power need not be known";
    for (const auto& spoil : std::initializer_list<std::function<void(AirReport&)>>{
             [](AirReport& r) { r.frequency = 0.0; }, [](AirReport& r) { r.frequency = std::nan(""); },
             [](AirReport& r) { r.distance = -1.0; }, [](AirReport& r) { r.bearing = -1.0; },
             [](AirReport& r) { r.power = std::nan(""); }}) {
        AirReport bad = good;
        spoil(bad);
        EXPECT_EQ(findReportFaults(bad).size(), 1u);
    }
}

} // namespace
} // namespace vetchling::files

#include "core/files/data.h"
#include "core/files/design_file.h"
#include "core/files/json_reader.h"
#include "core/files/wire_file.h"
#include "core/files/workshop_file.h"

#include "tests/core/helpers.h"
#include "tests/temp_folder.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <set>
#include <sys/stat.h>

namespace vetchling::files {
namespace {

using namespace vetchling::testing;
namespace fs = std::filesystem;

const std::string goodWires =
    R"({"format":"vetchling-wires","version":1,"ground":{"kind":"real","relative_permittivity":13.0,"conductivity_S_per_m":0.005},
 "wires":[{"id":"a","points_m":[[0,-5,9],[0,5,9]],"radius_m":0.001,"conductivity_S_per_m":5.8e7}],
 "feeds":[{"wire":"a","at_m":5.0,"voltage_V":[1,0]}],
 "loads":[{"wire":"a","at_m":2.0,"resistance_ohm":0,"inductance_H":1e-6,"capacitance_F":0,"q":300}],
 "frequencies_Hz":[14.1e6],"pattern":{"elevations_deg":[5,20,60],"azimuths_deg":[0,90]}})";

TEST(WireFile, IsReadWhole)
{
    const auto wires = parseWireFile(goodWires);
    ASSERT_TRUE(wires.ok()) << wires.firstFault();
    EXPECT_EQ(wires->model.ground, averageSoil);
    ASSERT_EQ(wires->model.wires.size(), 1u);
    EXPECT_EQ(wires->model.wires[0].conductivity, 5.8e7);
    EXPECT_EQ(wires->model.loads[0].q, 300.0);
    EXPECT_EQ(wires->frequencies, std::vector<double>{14.1e6});
    EXPECT_EQ(wires->pattern.elevations.size(), 3u);
}

TEST(WireFile, SurvivesWritingAndReading)
{
    auto wires = *parseWireFile(goodWires);
    wires.model.wires[0].insulation = Insulation{2e-3, 2.3, 0.0002};
    wires.model.wires[0].endRadius = 0.0005;
    wires.model.wires[0].relativePermeability = 50.0;
    wires.model.wires[0].wall = 2e-4;
    wires.model.wires[0].coating = Coating{1.5e-5, 1.69e7, 2.0};
    wires.model.loads[0].kind = LoadKind::Parallel;
    const auto back = parseWireFile(writeWireFile(wires));
    ASSERT_TRUE(back.ok()) << back.firstFault();
    EXPECT_EQ(writeWireFile(*back), writeWireFile(wires));
    EXPECT_EQ(back->model.loads[0].kind, LoadKind::Parallel);
    EXPECT_EQ(back->model.wires[0].insulation->lossTangent, 0.0002);
    EXPECT_EQ(back->model.wires[0].wall, 2e-4);
    EXPECT_EQ(back->model.wires[0].coating, wires.model.wires[0].coating);
}

std::string replaced(std::string text, const std::string& from, const std::string& to)
{
    const auto at = text.find(from);
    EXPECT_NE(at, std::string::npos) << from;
    return text.replace(at, from.size(), to);
}

struct Broken {
    const char* name;
    const char* from;
    const char* to;
    const char* path;
    const char* words;
};

class BrokenWireFile : public ::testing::TestWithParam<Broken> {};

TEST_P(BrokenWireFile, NamesThePlace)
{
    const Broken& b = GetParam();
    const auto wires = parseWireFile(replaced(goodWires, b.from, b.to));
    ASSERT_FALSE(wires.ok());
    EXPECT_TRUE(mentions(wires.faults(), b.path, b.words)) << listed(wires.faults());
}

INSTANTIATE_TEST_SUITE_P(
    Files, BrokenWireFile,
    ::testing::Values(Broken{"no_format", "\"format\":\"vetchling-wires\",", "", "format", "missing"},
                      Broken{"other_format", "vetchling-wires", "something", "format", "is 'something'"},
                      Broken{"new_version", "\"version\":1", "\"version\":2", "version", "reads version 1"},
                      Broken{"no_ground", "\"ground\"", "\"grund\"", "ground", "missing"},
                      Broken{"odd_ground", "\"real\"", "\"swamp\"", "ground.kind", "is 'swamp'"},
                      Broken{"ground_text", "13.0", "\"wet\"", "ground.relative_permittivity", "not a finite number"},
                      Broken{"no_id", "\"id\":\"a\",", "", "wires[0].id", "missing"},
                      Broken{"number_id", "\"id\":\"a\"", "\"id\":7", "wires[0].id", "not a text"},
                      Broken{"point_of_two", "[0,-5,9]", "[0,-5]", "wires[0].points_m[0]", "3 finite numbers"},
                      Broken{"point_null", "[0,-5,9]", "[0,null,9]", "wires[0].points_m[0]", "3 finite numbers"},
                      Broken{"points_text", "[[0,-5,9],[0,5,9]]", "\"here\"", "wires[0].points_m", "not a list"},
                      Broken{"no_radius", "\"radius_m\":0.001,", "", "wires[0].radius_m", "missing"},
                      Broken{"zero_radius", "\"radius_m\":0.001", "\"radius_m\":0", "wires[0].radius_m", "radius in metres"},
                      Broken{"feed_elsewhere", "{\"wire\":\"a\",\"at_m\":5.0", "{\"wire\":\"b\",\"at_m\":5.0", "feeds[0].wire",
                             "no wire 'b'"},
                      Broken{"feed_off", "\"at_m\":5.0", "\"at_m\":50.0", "feeds[0].at_m", "off the wire"},
                      Broken{"voltage_of_one", "[1,0]", "[1]", "feeds[0].voltage_V", "2 finite numbers"},
                      Broken{"load_kind", "\"at_m\":2.0", "\"at_m\":2.0,\"kind\":\"odd\"", "loads[0].kind", "series or parallel"},
                      Broken{"no_frequencies", "\"frequencies_Hz\":[14.1e6],", "", "frequencies_Hz", "missing"},
                      Broken{"empty_frequencies", "[14.1e6]", "[]", "frequencies_Hz", "empty"},
                      Broken{"zero_frequency", "[14.1e6]", "[0]", "frequencies_Hz[0]", "10 kHz"},
                      Broken{"huge_frequency", "[14.1e6]", "[1e12]", "frequencies_Hz[0]", "10 kHz"},
                      Broken{"elevation_beyond", "[5,20,60]", "[5,120]", "pattern.elevations_deg[1]", "beyond 90"},
                      Broken{"feeds_object", "\"feeds\":[", "\"feeds\":{},\"x\":[", "feeds", "not a list"}),
    [](const auto& info) { return std::string(info.param.name); });

TEST(WireFile, TwoWiresNeedTwoNames)
{
    const auto wires = parseWireFile(
        replaced(goodWires, "],\n \"feeds\"", ",{\"id\":\"a\",\"points_m\":[[1,0,2],[3,0,2]],\"radius_m\":0.001}],\n \"feeds\""));
    ASSERT_FALSE(wires.ok());
    EXPECT_TRUE(mentions(wires.faults(), "wires[1].id", "already the name"));
}

TEST(Json, CutShortSaysSo)
{
    for (std::size_t length : {std::size_t(0), std::size_t(1), goodWires.size() / 2, goodWires.size() - 1}) {
        const auto wires = parseWireFile(goodWires.substr(0, length));
        ASSERT_FALSE(wires.ok());
        EXPECT_NE(wires.firstFault().find("too early"), std::string::npos) << wires.firstFault();
    }
}

TEST(Json, EveryTruncationIsRefusedCalmly)
{
    for (std::size_t length = 0; length < goodWires.size(); length += 7)
        EXPECT_FALSE(parseWireFile(goodWires.substr(0, length)).ok());
}

TEST(Json, SyntaxErrorsHaveLineAndColumn)
{
    const auto wires = parseWireFile("{\n \"format\": \"vetchling-wires\",\n oops }");
    ASSERT_FALSE(wires.ok());
    EXPECT_EQ(wires.faults().front().path.rfind("line 3", 0), 0u) << wires.firstFault();
}

TEST(Json, DeepNestingIsRefused)
{
    const std::string deep = std::string(200000, '[') + std::string(200000, ']');
    EXPECT_NE(parseWireFile(deep).firstFault().find("nested deeper"), std::string::npos);
    EXPECT_NE(parseDesign("{\"site\":" + deep + "}").firstFault().find("nested deeper"), std::string::npos);
}

TEST(Json, NumbersBeyondADoubleAreRefused) { EXPECT_FALSE(parseWireFile(replaced(goodWires, "14.1e6", "1e999")).ok()); }

TEST(Json, OtherTopLevelsAreRefused)
{
    for (const char* text : {"[]", "7", "\"x\"", "null"}) {
        EXPECT_FALSE(parseWireFile(text).ok());
        EXPECT_FALSE(parseDesign(text).ok());
    }
}

TEST(TextFile, TooLongMissingOrAFolderIsRefused)
{
    const testing::TempFolder temporary;
    const fs::path folder = temporary.path();
    const std::string big = (folder / "big.json").string();
    {
        std::ofstream file(big);
        file << "{";
    }
    fs::resize_file(big, 100u << 20);
    EXPECT_NE(readWireFile(big).firstFault().find("100 MB"), std::string::npos);
    EXPECT_NE(readWireFile((folder / "none.json").string()).firstFault().find("cannot be read"), std::string::npos);
    EXPECT_FALSE(readWireFile(folder.string()).ok());
}

// ---- designs

Design sample()
{
    Design d;
    d.site.name = "Test \"Hill\"";
    d.site.soil = {"x", "soil", "book", 20.0, 0.01};
    d.site.boundary = {{0, 0}, {30, 0}, {30, 20}};
    d.site.wallHeight = 1.5;
    d.site.supports = {{"mast", SupportKind::Pole, {3, 4}, 12.0, true}, {"oak", SupportKind::Tree, {9, 4}, 15.0, false}};
    d.site.buildings = {{"hut", {{1, 1}, {4, 1}, {4, 3}}, 2.0, 3.0}};
    d.site.waters = {{"pond", {{10, 10}, {12, 10}, {12, 12}}}};
    d.site.powerLine = PowerLine{{0, -5}, {30, -5}, 7.0};
    d.site.feedEntry = {4, 2};
    d.operation.bands = {{{"40 m", 7e6, 7.2e6}, Wish::Must}, {{"20 m", 14e6, 14.35e6}, Wish::Nice}, {{"15 m", 21e6, 21.45e6}, Wish::No}};
    d.operation.swrLimit = 1.8;
    d.operation.power = 400.0;
    d.operation.system = units::System::Imperial;
    Antenna a;
    a.name = "Süd-V";
    a.shape = shapes::findFamily("dipole")->standardShape(7.1e6);
    a.shape.wire.jacket = 0.0007;
    a.typed["leg_m"] = "33ft 4in";
    a.allowances.fold = 0.2;
    a.trim.target = 7.05e6;
    a.trim.measurements.push_back({"2026-05-12T10:40", "dry", 0.1, true, 6.98e6, 1.4});
    a.tuneForLowestSwr = true;
    a.notes = "line\nbreak";
    d.antennas = {a, a};
    d.antennas[0].shape.wire.metal.coating = Coating{1.5e-5, 5.8e7, 1.0};
    d.antennas[1].shape = shapes::findFamily("vertical")->standardShape(14.1e6);
    d.antennas[1].shape.wire.metal = {5.8e6, 100.0, Coating{0.0, 5.8e7, 1.0}, 0.1, {}};
    d.antennas[1].shape.partWires["radials"].diameter = 1e-3;
    d.antennas[1].copies.push_back({"c1", "before the storm", "2026-05-01T09:00", a.shape, a.typed, {}, {}, {}});
    nameThings(d);
    return d;
}

TEST(DesignFile, SurvivesWritingAndReading)
{
    const auto back = parseDesign(writeDesign(sample()));
    ASSERT_TRUE(back.ok()) << listed(back.faults());
    EXPECT_TRUE(*back == sample());
}

/// Puts a field into every object of a JSON document, however deep.
void addEverywhere(nlohmann::ordered_json& json, int& count)
{
    if (json.is_object()) {
        const bool wiresByPart = json.contains("radials"); // any name in there is a part's
        for (auto& [key, value] : json.items())
            addEverywhere(value, count);
        if (wiresByPart)
            return;
        json["future_" + std::to_string(count)] = {{"x", {1, 2}}, {"words", "kept"}};
        ++count;
    } else if (json.is_array()) {
        for (auto& value : json)
            addEverywhere(value, count);
    }
}

TEST(DesignFile, KeepsFieldsOfANewerProgramAtEveryDepth)
{
    auto json = nlohmann::ordered_json::parse(writeDesign(sample()));
    int count = 0;
    addEverywhere(json, count);
    ASSERT_GT(count, 20);
    const auto once = parseDesign(json.dump());
    ASSERT_TRUE(once.ok()) << listed(once.faults());
    const std::string again = writeDesign(*once);
    for (int i = 0; i < count; ++i)
        EXPECT_NE(again.find("\"future_" + std::to_string(i) + "\""), std::string::npos) << i;
    EXPECT_EQ(nlohmann::json::diff(nlohmann::json::parse(json.dump()), nlohmann::json::parse(again)).dump(), "[]"); // nothing lost
    EXPECT_TRUE(*parseDesign(again) == *once);
}

TEST(DesignFile, KeepsAnAntennaOfAFamilyOfTheFuture)
{
    auto json = nlohmann::ordered_json::parse(writeDesign(sample()));
    auto& antenna = json["antennas"][0];
    antenna["family"] = "moebius";
    antenna["parameters"] = {{"twists", 3}, {"corners_m", {{1, 2}, {3, 4}}}, {"twist_m", 0.5}};
    antenna["typed"] = {{"twist_m", "50 cm"}, {"twists", {{"text", "3"}, {"unit", ""}}}};
    const auto design = parseDesign(json.dump());
    ASSERT_TRUE(design.ok()) << listed(design.faults());
    ASSERT_EQ(design->antennas.size(), 2u);
    EXPECT_EQ(design->antennas[0].shape.parameters.at("twist_m"), 0.5);
    EXPECT_TRUE(nlohmann::json::parse(writeDesign(*design)) == nlohmann::json::parse(json.dump()));
}

// Files of before there were ids: things are called the same each time the file is opened, and no two alike.
// Before the coax had a length of its own as the return, the counterpoise's was it; and a wire was what no word was said of.
TEST(DesignFile, TheReturnOfOldFilesIsWhatItWas)
{
    std::ifstream in(VETCHLING_DATA "/demo/gannet-skerry.vetchling");
    const nlohmann::json demo = nlohmann::json::parse(in);
    const auto returnOf = [&](std::optional<double> kind) {
        nlohmann::json old = demo;
        auto& values = old["antennas"][1]["parameters"];
        for (const char* key : {"shield_m", "shield_height_m", "return_kind"})
            values.erase(key);
        values["counterpoise_m"] = 1.5;
        if (kind)
            values["return_kind"] = *kind;
        const auto design = parseDesign(old.dump());
        EXPECT_TRUE(design.ok()) << design.firstFault();
        const auto again = parseDesign(writeDesign(*design));
        EXPECT_TRUE(again.ok() && again->antennas[1].shape == design->antennas[1].shape) << "and stays so";
        return shapes::buildOver(again->antennas[1].shape, {});
    };
    for (const std::optional<double> kind : {std::optional<double>(), std::optional(0.0)}) {
        const auto wire = returnOf(kind);
        ASSERT_TRUE(wire.ok());
        EXPECT_FALSE(wire->shieldWire);
        EXPECT_NEAR(wire->model.wires[1].length(), 1.5, 1e-9);
    }
    const auto shield = returnOf(1.0);
    ASSERT_TRUE(shield.ok() && shield->shieldWire);
    EXPECT_NEAR(shield->model.wires[1].length(), 1.5, 1e-9) << "not up to the choke of the chain";
}

// An off-centre dipole of before that was choked at its transformer, whatever stood under Feed.
TEST(DesignFile, AnOldOffCentreDipoleIsChokedAtItsTransformer)
{
    std::ifstream in(VETCHLING_DATA "/demo/gannet-skerry.vetchling");
    nlohmann::json old = nlohmann::json::parse(in);
    auto& antenna = old["antennas"][1]; // with a chain whose choke hangs some metres down
    antenna["family"] = "off-centre-dipole";
    antenna["parameters"] = {{"length_m", 20.1}, {"apex_height_m", 8.0}, {"end_height_m", 8.0}, {"feed_percent", 20.0}};
    antenna["typed"] = nlohmann::json::object();
    const auto design = parseDesign(old.dump());
    ASSERT_TRUE(design.ok()) << design.firstFault();
    const auto built = shapes::buildOver(design->antennas[1].shape, {});
    ASSERT_TRUE(built.ok()) << built.firstFault();
    EXPECT_FALSE(built->shieldWire);
    Antenna fresh = design->antennas[1];
    fresh.shape.parameters["return_kind"] = 1.0;
    settleFeed(fresh, design->site);
    const auto followed = shapes::buildOver(fresh.shape, {});
    ASSERT_TRUE(followed.ok()) << followed.firstFault();
    EXPECT_TRUE(followed->shieldWire) << "as Feed has it";
}

TEST(DesignFile, OldFilesGetTheSameIdsEachTime)
{
    auto json = nlohmann::ordered_json::parse(writeDesign(sample()));
    for (auto* list : {&json["antennas"], &json["operation"]["bands"], &json["site"]["supports"]})
        for (auto& thing : *list)
            thing.erase("id");
    const auto first = parseDesign(json.dump()), second = parseDesign(json.dump());
    ASSERT_TRUE(first.ok() && second.ok());
    EXPECT_TRUE(*first == *second);
    EXPECT_NE(first->antennas[0].id, first->antennas[1].id);
    json["antennas"][0]["id"] = json["antennas"][1]["id"] = "same"; // copied by hand
    const auto doubled = parseDesign(json.dump());
    ASSERT_TRUE(doubled.ok());
    EXPECT_EQ(doubled->antennas[0].id, "same");
    EXPECT_NE(doubled->antennas[1].id, "same");
}

struct BrokenDesign {
    const char* name;
    const char* from;
    const char* to;
    const char* path;
    const char* words;
};

class BrokenDesignFile : public ::testing::TestWithParam<BrokenDesign> {};

TEST_P(BrokenDesignFile, NamesThePlace)
{
    const BrokenDesign& b = GetParam();
    const auto design = parseDesign(replaced(writeDesign(sample()), b.from, b.to));
    const bool refused = !design.ok();
    EXPECT_EQ(refused, b.path == std::string("format") || b.path == std::string("version"));
    ASSERT_TRUE(refused || design->damage);
    const Faults faults = refused ? design.faults() : design->damage->faults();
    EXPECT_TRUE(mentions(faults, b.path, b.words)) << listed(faults);
}

INSTANTIATE_TEST_SUITE_P(
    Files, BrokenDesignFile,
    ::testing::Values(
        BrokenDesign{"format", "vetchling-design", "other", "format", "is 'other'"},
        BrokenDesign{"version", "\"version\": 1", "\"version\": 99", "version", "newer program"},
        BrokenDesign{"no_site", "\"site\"", "\"sight\"", "site", "missing"},
        BrokenDesign{"support_kind", "\"pole\"", "\"balloon\"", "site.supports[0].kind", "'balloon'"},
        BrokenDesign{"support_height", "\"height_m\": 12.0", "\"height_m\": \"tall\"", "site.supports[0].height_m", "finite number"},
        BrokenDesign{"wish", "\"must\"", "\"perhaps\"", "operation.bands[0].wish", "'perhaps'"},
        BrokenDesign{"band_edges", "\"to_Hz\": 7200000.0", "\"to_Hz\": 6000000.0", "operation.bands[0]", "upper edge"},
        BrokenDesign{"limit", "\"swr_limit\": 1.8", "\"swr_limit\": 0.5", "operation.swr_limit", "above 1"},
        BrokenDesign{"power", "\"power_W\": 400.0", "\"power_W\": -4", "operation.power_W", "above 0"},
        BrokenDesign{"frequency", "\"design_frequency_Hz\": 7100000.0", "\"design_frequency_Hz\": 0", "antennas[0].design_frequency_Hz",
                     "10 kHz"},
        BrokenDesign{"parameter", "\"apex_height_m\": 10.0", "\"apex_height_m\": []", "antennas[0].parameters.apex_height_m",
                     "finite number"},
        BrokenDesign{"dip", "\"dip_Hz\": 6980000.0", "\"dip_Hz\": 1", "antennas[0].trim.measurements[0]", "frequency of the dip"}),
    [](const auto& info) { return std::string(info.param.name); });

TEST(DesignFile, SavesThroughARename)
{
    const testing::TempFolder temporary;
    const fs::path folder = temporary.path();
    const std::string path = (folder / "a.vetchling").string();
    EXPECT_TRUE(saveDesign(sample(), path).empty());
    EXPECT_TRUE(*readDesign(path) == sample());
}

// 2026-11: saving replaced the link and gave the file other permissions.
TEST(DesignFile, SavesThroughALinkAndKeepsThePermissions)
{
    const testing::TempFolder temporary;
    const fs::path folder = temporary.path();
    fs::create_directories(folder / "deep");
    std::ofstream(folder / "deep" / "real.vetchling") << "old";
    fs::permissions(folder / "deep" / "real.vetchling", fs::perms(0640));
    fs::create_symlink("deep/real.vetchling", folder / "link.vetchling");
    EXPECT_TRUE(saveDesign(sample(), (folder / "link.vetchling").string()).empty());
    EXPECT_TRUE(fs::is_symlink(folder / "link.vetchling"));
    EXPECT_EQ(fs::status(folder / "deep" / "real.vetchling").permissions(), fs::perms(0640));
    EXPECT_TRUE(*readDesign((folder / "deep" / "real.vetchling").string()) == sample());
    EXPECT_EQ(std::distance(fs::directory_iterator(folder / "deep"), fs::directory_iterator()), 1); // no leavings
}

TEST(DesignFile, ANewFileIsAsTheUsersMaskSays)
{
    const testing::TempFolder temporary;
    const mode_t before = ::umask(027);
    EXPECT_TRUE(saveDesign(sample(), temporary.file("new.vetchling")).empty());
    EXPECT_EQ(::umask(before), 027U) << "and the mask is as it was";
    EXPECT_EQ(fs::status(temporary.path() / "new.vetchling").permissions(), fs::perms(0640));
}

TEST(DesignFile, LeavesTheOldFileWholeWhenSavingFails)
{
    const testing::TempFolder temporary;
    const fs::path folder = temporary.path();
    fs::create_directories(folder / "a.vetchling"); // a folder in the way cannot be replaced by a file
    std::ofstream(folder / "a.vetchling" / "keep") << "me";
    const Faults faults = saveDesign(sample(), (folder / "a.vetchling").string());
    ASSERT_EQ(faults.size(), 1u);
    EXPECT_TRUE(fs::exists(folder / "a.vetchling" / "keep"));
    EXPECT_EQ(std::distance(fs::directory_iterator(folder), fs::directory_iterator()), 1); // no leavings
    EXPECT_FALSE(saveDesign(sample(), "/nowhere/at/all.vetchling").empty());
}

TEST(DesignFile, DemoIsGood)
{
    const auto demo = readDesign(VETCHLING_DATA "/demo/gannet-skerry.vetchling");
    ASSERT_TRUE(demo.ok()) << listed(demo.faults());
    EXPECT_EQ(demo->antennas.size(), 7u);
    EXPECT_EQ(extentOf(demo->site.boundary), (PlanPoint{34, 18}));
    for (const Antenna& a : demo->antennas) {
        const auto built = shapes::buildOver(a.shape, demo->site.soil.ground());
        ASSERT_TRUE(built.ok()) << a.name << built.firstFault();
        EXPECT_FALSE(fitOnSite(demo->site, built->model).nearPowerLine) << a.name;
    }
}

// ---- data

TEST(Data, SoilsAreSourcedAndPlausible)
{
    const auto soils = readSoils(VETCHLING_DATA "/soils.json");
    ASSERT_TRUE(soils.ok()) << listed(soils.faults());
    EXPECT_GE(soils->size(), 10u);
    for (const Soil& s : *soils) {
        EXPECT_FALSE(s.source.empty()) << s.id;
        EXPECT_GE(s.relativePermittivity, 1.0);
        EXPECT_GT(s.conductivity, 0.0);
    }
}

TEST(Data, SoilsMetInTheFieldHaveTheRangeOfTheirFigures)
{
    const auto soils = readSoils(VETCHLING_DATA "/soils.json");
    ASSERT_TRUE(soils.ok());
    std::set<std::string> met;
    for (const Soil& s : *soils) {
        if (!s.id.starts_with("met-"))
            continue;
        met.insert(s.id.substr(4));
        ASSERT_TRUE(s.dry && s.wet) << s.id;
        EXPECT_LT(s.dry->conductivity, s.conductivity) << s.id;
        EXPECT_GT(s.wet->conductivity, s.conductivity) << s.id;
        EXPECT_GE(s.wet->conductivity, 3.0 * s.dry->conductivity) << s.id << ": rain alone makes three";
    }
    EXPECT_EQ(met, (std::set<std::string>{"town", "sand", "loam", "clay", "rock", "marsh", "lake", "sea"}));
}

TEST(Data, EveryConductorHasItsStrength)
{
    const auto conductors = readConductors(VETCHLING_DATA "/conductors.json");
    const auto workshop = readWorkshopData(VETCHLING_DATA "/workshop.json");
    ASSERT_TRUE(conductors.ok() && workshop.ok());
    const auto strength = [&](const char* id) { return workshop->strengthOf(id).strength; };
    for (const Conductor& c : *conductors)
        EXPECT_TRUE(std::any_of(workshop->metals.begin(), workshop->metals.end(), [&](const MetalFacts& m) {
            return m.potential.id == c.id && m.strength;
        })) << c.id;
    EXPECT_GT(strength("copper-hard"), 1.5 * strength("copper"));
    EXPECT_LT(strength("copper-stranded"), strength("copper"));
    EXPECT_GT(strength("copper-clad-steel"), strength("copper-hard"));
}

TEST(Data, ConductorsAreMetals)
{
    const auto conductors = readConductors(VETCHLING_DATA "/conductors.json");
    ASSERT_TRUE(conductors.ok()) << listed(conductors.faults());
    for (const Conductor& c : *conductors) {
        EXPECT_GT(c.metal.conductivity, 1e6) << c.id;
        if (c.metal.coating) {
            EXPECT_GT(c.metal.coating->conductivity, c.metal.conductivity) << c.id;
        }
    }
}

// Cladding of a part of the radius grows with the wire; plating stays; a hair-thin wire is plating through and through.
TEST(Data, CoatingsFollowTheWireTheyAreOn)
{
    const auto conductors = readConductors(VETCHLING_DATA "/conductors.json");
    const auto wire = [&](const std::string& id, double diameter) {
        shapes::WireChoice choice;
        choice.diameter = diameter;
        for (const Conductor& c : *conductors)
            if (c.id == id)
                choice.metal = c.metal;
        return shapes::makeWire(choice, "w", {{0, 0, 5}, {1, 0, 5}});
    };
    EXPECT_NEAR(wire("copper-clad-steel", 2e-3).coating->thickness, 1e-4, 1e-12);
    EXPECT_NEAR(wire("copper-clad-steel", 4e-3).coating->thickness, 2e-4, 1e-12);
    EXPECT_NEAR(wire("copper-plated-steel", 4e-3).coating->thickness, 1.5e-5, 1e-12);
    EXPECT_FALSE(wire("copper-plated-steel", 2.5e-5).coating);
    EXPECT_EQ(wire("copper-plated-steel", 2.5e-5).conductivity, 5.8e7);
    EXPECT_FALSE(wire("copper", 2e-3).coating);
}

TEST(Data, BandPlansCoverThreeRegionsInRisingOrder)
{
    const auto plans = readBandPlans(VETCHLING_DATA "/bands.json");
    ASSERT_TRUE(plans.ok()) << listed(plans.faults());
    ASSERT_GE(plans->size(), 6u); // and channels at 27 MHz, marine and land mobile ranges
    for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_EQ((*plans)[i].id, "itu-r" + std::to_string(i + 1));
        EXPECT_EQ((*plans)[i].bands.front().name, "160 m");
        EXPECT_EQ((*plans)[i].bands.back().name, "23 cm");
    }
    for (const BandPlan& plan : *plans) {
        EXPECT_NE(plan.source.find("not checked"), std::string::npos) << plan.id;
        for (const auto& [band, segments] : plan.segments)
            for (const Segment& s : segments)
                EXPECT_GT(s.to, s.from) << band;
        EXPECT_GT(plan.year, 2000);
        EXPECT_FALSE(plan.source.empty());
        for (std::size_t i = 1; i < plan.bands.size(); ++i)
            EXPECT_GT(plan.bands[i].from, plan.bands[i - 1].to);
    }
    EXPECT_DOUBLE_EQ((*plans)[1].bands[3].to, 7.3e6); // Region 2 has the wider 40 m
}

TEST(Data, FaultsNameFileAndPlace)
{
    const testing::TempFolder folder;
    const fs::path file = folder.path() / "soils.json";
    std::ofstream(file) << R"({"soils":[{"id":"x","name":"y","relative_permittivity":"wet","conductivity_S_per_m":0.1}]})";
    const auto soils = readSoils(file.string());
    ASSERT_FALSE(soils.ok());
    EXPECT_EQ(soils.faults().front().path, file.string() + " soils[0].relative_permittivity");
    EXPECT_FALSE(readSoils("/nowhere.json").ok());
}

} // namespace
} // namespace vetchling::files

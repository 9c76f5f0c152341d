/// What was done at the bench as it is kept in a design, and recipes as files.
#include "core/files/design_file.h"
#include "core/files/recipe_file.h"
#include "core/files/workshop_file.h"
#include "core/study/safety.h"
#include "core/trim/next_step.h"
#include "core/tune/tune.h"
#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"
#include "tests/temp_folder.h"

#include <fstream>

namespace vetchling {
namespace {

using namespace vetchling::shapes;

Workshop busyWorkshop()
{
    Workshop w;
    w.pieces["leg/1"] = {true, 10.52};
    w.pieces["leg/2"] = {true, {}};
    w.spool = 41.0;
    w.tapeOffset = 0.02;
    w.parts["rope"] = {30.0, 0.8, false, {}};
    w.parts["own-1"] = {{}, {}, false, "flags"};
    w.rigging.pull = 55.0;
    w.rigging.weight = true;
    w.choke = {"manganese-zinc-2500", "61", 2, 9};
    w.transformer.turns = 3;
    w.limit = "fcc-public";
    w.mode = "data";
    w.sending = 0.5;
    return w;
}

TEST(WorkshopState, ComesBackFromItsFile)
{
    testing::Demo demo;
    demo.design.antennas[0].workshop = busyWorkshop();
    const auto back = files::parseDesign(files::writeDesign(demo.design));
    ASSERT_TRUE(back.ok()) << back.firstFault();
    EXPECT_EQ(back->antennas[0].workshop, busyWorkshop());
    EXPECT_EQ(back->antennas[1].workshop, demo.design.antennas[1].workshop);
}

TEST(WorkshopState, AnOldFileOpensWithTheUsualOne)
{
    testing::Demo demo;
    demo.design.antennas[0].workshop = Workshop();
    std::string text = files::writeDesign(demo.design);
    EXPECT_EQ(text.find("\"workshop\""), std::string::npos) << "nothing was done, nothing is written";
    for (std::size_t at; (at = text.find("\"pigtail_m\"")) != std::string::npos;)
        text.replace(at, 11, "\"once_m\"");
    const auto old = files::parseDesign(text);
    ASSERT_TRUE(old.ok());
    EXPECT_EQ(old->antennas[0].allowances.pigtail, Allowances().pigtail);
}

TEST(WorkshopState, NonsenseIsToldWithItsPlace)
{
    testing::Demo demo;
    demo.design.antennas[0].workshop = busyWorkshop();
    std::string text = files::writeDesign(demo.design);
    const std::string good = "\"pull_N\": 55.0";
    ASSERT_NE(text.find(good), std::string::npos);
    text.replace(text.find(good), good.size(), "\"pull_N\": -55.0");
    const auto bad = files::parseDesign(text);
    EXPECT_NE(testing::firstFaultOf(bad).find("antennas[0].workshop.rigging.pull_N"), std::string::npos) << testing::firstFaultOf(bad);
    EXPECT_EQ(bad->antennas[0].workshop.rigging.pull, Rigging().pull);
}

TEST(WorkshopTables, AreRefusedInWordsWhereTheyCannotBe)
{
    const auto refused = [](const std::string& what, const std::string& words) {
        const testing::TempFolder folder;
        const std::string path = folder.file("bench.json");
        std::ofstream(path) << "{\"metals\":[],\"ferrites\":[],\"rings\":[],\"modes\":[],\"tubes\":[]," << what << "}";
        std::string text;
        std::getline(std::ifstream(path), text, '\0');
        for (const char* key : {"metals", "ferrites", "rings", "modes", "tubes"}) { // the last of two keys of a name would hide the first
            const std::string empty = "\"" + std::string(key) + "\":[],";
            if (what.find("\"" + std::string(key) + "\"") != std::string::npos)
                text.erase(text.find(empty), empty.size());
        }
        std::ofstream(path) << text;
        const auto data = files::readWorkshopData(path);
        EXPECT_FALSE(data.ok()) << what;
        if (!data.ok()) {
            EXPECT_NE(data.firstFault().find(words), std::string::npos) << data.firstFault();
        }
    };
    refused(R"("metals":[{"id":"a","name":"A","potential_V":-1,"source":"s","density_kg_per_m3":-5,"strength_MPa":1,"modulus_GPa":1}])",
            "density");
    refused(R"("ferrites":[{"id":"a","name":"A","source":"s","initial_permeability":100,"permeability":[[3,50,1],[2,50,1]]}])", "rising");
    refused(R"("rings":[{"id":"a","name":"A","outer_m":0.02,"inner_m":0.03,"height_m":0.01}])", "wider outside");
    refused(R"("modes":[{"id":"a","name":"A","source":"s","duty_percent":120}])", "at most 100");
    refused(R"("tubes":[{"outer_m":0.01,"wall_m":0.006,"length_m":1}])", "hollow");
}

TEST(MeasurementFile, KeepsWhereHowAndTheWholeSweep)
{
    testing::Demo demo;
    Measurement m;
    m.id = "m1";
    m.dip = 7.02e6;
    m.dipSwr = 1.3;
    m.cutSinceLast = 0.05;
    m.parameter = "leg_m";
    m.configuration = 1;
    m.height = 9.0;
    m.instrument = "garden.s1p";
    m.sweep = {{6.9e6, 2.0}, {7.0e6, 1.4}, {7.1e6, 1.6}};
    demo.design.antennas[0].trim.measurements = {m};
    const std::string text = files::writeDesign(demo.design);
    const auto back = files::parseDesign(text);
    ASSERT_TRUE(back.ok()) << back.firstFault();
    EXPECT_EQ(back->antennas[0].trim.measurements, demo.design.antennas[0].trim.measurements);
    std::string wrong = text;
    const std::string good = "\"configuration\": 2";
    ASSERT_NE(wrong.find(good), std::string::npos);
    wrong.replace(wrong.find(good), good.size(), "\"configuration\": 0");
    EXPECT_NE(testing::firstFaultOf(files::parseDesign(wrong)).find("counts from 1"), std::string::npos);
}

// ---- recipes

struct Finished {
    Design design;
    Antenna antenna;
};

/// A dipole tuned for its place and then built 1 % longer, as its log says.
Finished finishedDipole()
{
    Finished f;
    f.antenna.name = "Old faithful";
    f.antenna.shape = shapeOf("dipole", {{"apex_height_m", 9.0}, {"end_height_m", 9.0}}, 14.15e6);
    em::GroundTableCache tables;
    const auto tuned = tuneAll(f.antenna.shape, f.design.site.soil.ground(), tables);
    EXPECT_TRUE(tuned.ok());
    const double leg = tuned->lengths.at(0).value;
    f.antenna.shape.parameters["leg_m"] = 1.01 * leg + 0.05;
    Measurement cut;
    cut.cutSinceLast = 0.05;
    cut.dip = 14.15e6;
    f.antenna.trim.measurements.push_back(cut);
    return f;
}

TEST(Recipe, TellsWhatWasBuiltAndComesBackFromItsFile)
{
    const Finished f = finishedDipole();
    const study::Recipe recipe = study::recipeOf(f.design, f.antenna, asLogged(f.antenna), {{"leg_m", -1.4e6}}, "2026-11-27");
    ASSERT_EQ(recipe.lengths.size(), 1u);
    EXPECT_NEAR(recipe.lengths[0].built, f.antenna.shape.parameters.at("leg_m") - 0.05, 1e-12) << "what was cut off is off";
    EXPECT_EQ(recipe.lengths[0].perUnit, -1.4e6);
    const auto back = files::parseRecipe(files::writeRecipe(recipe));
    ASSERT_TRUE(back.ok()) << back.firstFault();
    EXPECT_EQ(back->lengths, recipe.lengths);
    EXPECT_EQ(back->shape.parameters, recipe.shape.parameters);
    EXPECT_EQ(back->soil.conductivity, recipe.soil.conductivity);
    EXPECT_EQ(back->date, "2026-11-27");
    EXPECT_FALSE(files::parseRecipe("[]").ok());
    EXPECT_FALSE(files::parseRecipe("{\"format\":\"something\"}").ok());
}

TEST(Recipe, OntoTheSameWireAndSoilIsItself)
{
    const Finished f = finishedDipole();
    const study::Recipe recipe = study::recipeOf(f.design, f.antenna, asLogged(f.antenna), {}, {});
    em::GroundTableCache tables;
    const auto copy = study::copyOf(recipe, f.antenna.shape.wire, f.design.site.soil.ground(), tables);
    ASSERT_TRUE(copy.ok()) << copy.firstFault();
    EXPECT_NEAR(copy->lengths.at(0).copied, recipe.lengths[0].built, 1e-3);
    EXPECT_NEAR(copy->lengths.at(0).built / copy->lengths.at(0).modelledThere, 1.01, 1e-3);
}

// A jacket makes a wire electrically longer: the copy is shorter by what the model says, and 1 % of building stays.
TEST(Recipe, OntoAJacketedWireIsShorterAsTheModelSays)
{
    const Finished f = finishedDipole();
    const study::Recipe recipe = study::recipeOf(f.design, f.antenna, asLogged(f.antenna), {}, {});
    WireChoice jacketed = f.antenna.shape.wire;
    jacketed.jacket = 8e-4;
    em::GroundTableCache tables;
    const auto copy = study::copyOf(recipe, jacketed, f.design.site.soil.ground(), tables);
    ASSERT_TRUE(copy.ok());
    const auto& l = copy->lengths.at(0);
    EXPECT_LT(l.copied, recipe.lengths[0].built * 0.985);
    EXPECT_GT(l.copied, recipe.lengths[0].built * 0.93);
    EXPECT_NEAR(l.copied / l.modelledHere, l.built / l.modelledThere, 1e-9);
    EXPECT_EQ(copy->antenna.shape.wire.jacket, 8e-4);
}

TEST(Recipe, AnotherAntennaThanItSaysIsRefused)
{
    Finished f = finishedDipole();
    f.antenna.shape.parameters["leg_m"] *= 2.0;
    em::GroundTableCache tables;
    const auto copy = study::copyOf(study::recipeOf(f.design, f.antenna, asLogged(f.antenna), {}, {}), f.antenna.shape.wire,
                                    f.design.site.soil.ground(), tables);
    ASSERT_FALSE(copy.ok());
    EXPECT_NE(copy.firstFault().find("another antenna"), std::string::npos) << copy.firstFault();
}

// ---- safety

TEST(Safety, TellsDistanceAndVoltageBandByBand)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("dipole", {{"leg_m", 2.5}, {"apex_height_m", 6.0}, {"end_height_m", 6.0}}, 28.5e6);
    WantedBand ten;
    ten.band = {"10 m", 28.0e6, 29.0e6};
    ten.wish = Wish::Must;
    ten.id = "ten";
    design.operation.bands = {ten};
    study::Library library;
    int told = 0;
    const auto basis = study::safetyBasisOf(library, study::questionOf(design, a), {},
                                            [&](const study::SafetyBasis& soFar) { told += int(soFar.bands.size()); });
    ASSERT_TRUE(basis.ok()) << basis.firstFault();
    EXPECT_EQ(told, 1);
    const study::SafetyBand& band = basis->bands.at(0);
    // the ends of a half-wave wire: some hundred times the root of the power, and highest there
    EXPECT_GT(band.voltsAtOneWatt, 40.0);
    EXPECT_LT(band.voltsAtOneWatt, 200.0);
    EXPECT_GT(std::hypot(band.voltsAt.x, band.voltsAt.y), 2.0);
    LimitSet limit;
    limit.averagingMinutes = 6.0;
    limit.ranges.push_back({1e6, 100e6, LimitCurve{30.0, 0.0}, LimitCurve{0.08, 0.0}, {}});
    const auto full = study::keepRows(*basis, limit, 100.0, 1.0), less = study::keepRows(*basis, limit, 100.0, 0.2);
    ASSERT_EQ(full.size(), 1u);
    EXPECT_GT(full[0].keep.fromWires, less[0].keep.fromWires);
    EXPECT_NEAR(less[0].averaged, 20.0, 1e-12);
    EXPECT_NEAR(less[0].volts, full[0].volts, 1e-9) << "a duty does not lower the crest";
    EXPECT_NEAR(full[0].volts, 10.0 * band.voltsAtOneWatt, 1e-9);
    limit.averagingMinutes = 0.0;
    EXPECT_EQ(study::keepRows(*basis, limit, 100.0, 0.2)[0].averaged, 100.0) << "such a limit holds at every moment";
    limit.ranges.front().to = 20e6;
    EXPECT_TRUE(study::keepRows(*basis, limit, 100.0, 1.0).empty()) << "it says nothing here";
}

} // namespace
} // namespace vetchling

/// Chains as JSON: every kind and every key there and back, words for choices, faults with their place, results as they are promised.
#include "core/files/chain_file.h"
#include "core/files/design_file.h"
#include "tests/temp_folder.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <cmath>
#include <fstream>

namespace vetchling {
namespace {

using Json = nlohmann::json;

std::string chainText(const std::string& parts, double frequency = 7.1e6)
{
    return R"({"format":"vetchling-chain","version":1,"frequency_Hz":)" + std::to_string(frequency) + R"(,"load_ohm":[70,20],"parts":)" +
           parts + "}";
}

Design designWith(std::vector<ChainPart> parts)
{
    Antenna a = newAntenna(*shapes::findFamily("dipole"), 7.1e6);
    a.feed.chains = {{"c", "mine", {}, std::move(parts), {}}};
    a.feed.used = "c";
    Design d;
    d.antennas = {a};
    nameThings(d);
    settleFeeds(d);
    return d;
}

TEST(ChainFile, EveryKeyOfEveryKindComesBack)
{
    std::vector<ChainPart> parts;
    for (const PartKind* kind : partKinds()) {
        ChainPart p;
        p.id = "part of " + kind->id();
        p.kind = kind->id();
        p.basis = Basis(parts.size() % 3);
        for (const PartSpec& s : kind->specs()) // something else than the standard, inside the limits
            p.values[s.key] = s.choices.empty() ? s.standard + 0.25 * (s.highest - s.standard) : s.highest;
        if (kind->spec("loss_dB"))
            p.lossTable = {{1.8e6, 0.5}, {7e6, 0.25}, {30e6, 1.0}};
        ASSERT_TRUE(findPartFaults(p).empty()) << p.kind;
        parts.push_back(p);
    }
    const Design d = designWith(parts);
    const auto again = files::parseDesign(files::writeDesign(d));
    ASSERT_TRUE(again.ok()) << again.firstFault();
    ASSERT_EQ(again->antennas[0].feed.chains[0].parts.size(), parts.size());
    for (std::size_t i = 0; i < parts.size(); ++i)
        EXPECT_EQ(again->antennas[0].feed.chains[0].parts[i], parts[i]) << parts[i].kind;
    EXPECT_EQ(*again, d);
}

TEST(ChainFile, ChoicesAreWordsAndTakenAsNumbersToo)
{
    ChainPart tuner;
    tuner.id = "t";
    tuner.kind = part::tuner;
    tuner.values["place"] = part::atAntenna;
    const Json written = Json::parse(files::writeDesign(designWith({tuner})));
    EXPECT_EQ(written["antennas"][0]["feed"]["chains"][0]["parts"][0]["place"], "at the antenna");
    const auto words = files::parseChain(chainText(R"([{"kind":"tuner","place":"at the antenna"}])")),
               number = files::parseChain(chainText(R"([{"kind":"tuner","place":2}])"));
    ASSERT_TRUE(words.ok() && number.ok());
    EXPECT_EQ(words->parts[0].values, number->parts[0].values);
    EXPECT_FALSE(files::parseChain(chainText(R"([{"kind":"tuner","place":7}])")).ok());
}

TEST(ChainFile, TheImpedanceOfALineIsANumberOrAPair)
{
    const auto number = files::parseChain(chainText(R"([{"kind":"line","impedance_ohm":75}])")),
               pair = files::parseChain(chainText(R"([{"kind":"line","impedance_ohm":[75,0]}])")),
               complex = files::parseChain(chainText(R"([{"kind":"line","impedance_ohm":[75,-1.5]}])"));
    ASSERT_TRUE(number.ok() && pair.ok() && complex.ok());
    EXPECT_EQ(number->parts[0].values, pair->parts[0].values);
    EXPECT_EQ(partValue(complex->parts[0], "impedance_imag_ohm"), -1.5);
    EXPECT_FALSE(files::parseChain(chainText(R"([{"kind":"line","impedance_ohm":[75]}])")).ok());
    EXPECT_FALSE(files::parseChain(chainText(R"([{"kind":"line","impedance_ohm":"fifty"}])")).ok());
}

TEST(ChainFile, SeveralFaultsAreToldTogether)
{
    const auto chain = files::parseChain(R"({"format":"vetchling-design","version":1,"frequency_Hz":-3,"load_ohm":[0,1],
        "parts":[{"kind":"line","length_m":-1,"velocity_factor":2},{"loss_dB":1},{"kind":"meter","loss_table":[[7e6,0.3],[3e6,0.2]]}]})");
    ASSERT_FALSE(chain.ok());
    std::string all;
    for (const Fault& f : chain.faults())
        all += f.text() + "\n";
    for (const char* place : {"format: ", "frequency_Hz: ", "load_ohm: ", "parts[0].length_m: ", "parts[0].velocity_factor: ",
                              "parts[1].kind", "parts[2].loss_table: "})
        EXPECT_NE(all.find(place), std::string::npos) << place << "\n" << all;
}

TEST(ChainFile, ResultsHaveWhatIsPromised)
{
    const auto asked = files::parseChain(chainText(R"([{"kind":"transformer","ratio":4},{"kind":"line","length_m":10},{"kind":"tuner"}])"));
    ASSERT_TRUE(asked.ok());
    const Json result = Json::parse(files::writeChainResult(*asked, chainAt(asked->parts, asked->load, asked->frequency)));
    EXPECT_EQ(result["format"], "vetchling-chain-result");
    EXPECT_EQ(result["version"], 1);
    ASSERT_EQ(result["parts"].size(), 3u);
    double sum = 0.0;
    for (const Json& p : result["parts"]) {
        EXPECT_TRUE(p["kind"].is_string());
        EXPECT_EQ(p["impedance_ohm"].size(), 2u);
        EXPECT_TRUE(p["swr_50"].is_number());
        sum += double(p["loss_dB"]);
    }
    EXPECT_NEAR(double(result["total_dB"]), sum, 1e-12);
    EXPECT_NEAR(double(result["efficiency"]), std::pow(10.0, -0.1 * sum), 1e-12);
    EXPECT_FALSE(result["parts"][0].contains("solutions"));
    for (const Json& s : result["parts"][2]["solutions"]) {
        EXPECT_TRUE(s["topology"] == "shunt_load" || s["topology"] == "series_load");
        for (const char* element : {"shunt", "series"}) {
            EXPECT_TRUE(s[element]["kind"] == "L" || s[element]["kind"] == "C");
            EXPECT_GT(double(s[element]["value"]), 0.0);
        }
    }
}

TEST(ChainFile, ATableOfLinesSaysWhereItIsWrong)
{
    const testing::TempFolder folder;
    const std::string path = folder.file("lines.json");
    std::ofstream(path)
        << R"({"lines":[{"id":"a","name":"a","impedance_ohm":50,"velocity_factor":1.5,"k1_dB_per_100m":1,"k2_dB_per_100m":0}]})";
    const auto types = files::readLineTypes(path);
    ASSERT_FALSE(types.ok());
    EXPECT_NE(types.firstFault().find("lines[0].velocity_factor"), std::string::npos) << types.firstFault();
    EXPECT_FALSE(files::readLineTypes(path + ".nowhere").ok());
}

TEST(ChainFile, WhatComesBackIsNamedAndSettled)
{
    const std::string text =
        R"({"format":"vetchling-design","version":1,"site":{"name":"x","soil":{"relative_permittivity":13,"conductivity_S_per_m":0.005}},
        "antennas":[{"name":"a","family":"dipole","design_frequency_Hz":7.1e6,"parameters":{"leg_m":10},
          "feed":{"chains":[{"parts":[{"kind":"choke"},{"kind":"line"},{"kind":"of tomorrow","colour":"red"}]}],"hue":1},"copies":[]}]})";
    const auto design = files::parseDesign(text);
    ASSERT_TRUE(design.ok()) << design.firstFault();
    const Antenna& a = design->antennas[0];
    EXPECT_EQ(usedChain(a), &a.feed.chains[0]); // none is named as used: the first
    EXPECT_EQ(a.feed.chains[0].name, "chain");
    for (const ChainPart& p : a.feed.chains[0].parts)
        EXPECT_FALSE(p.id.empty());
    EXPECT_EQ(a.shape.feedpoint.size(), 1u);
    const std::string written = files::writeDesign(*design);
    EXPECT_NE(written.find("\"colour\": \"red\""), std::string::npos); // what is not known here is kept
    EXPECT_NE(written.find("\"hue\": 1"), std::string::npos);
    EXPECT_EQ(written.find("feedpoint"), std::string::npos); // what follows from the chain is not written
}

} // namespace
} // namespace vetchling

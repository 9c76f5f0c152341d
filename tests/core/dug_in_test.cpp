/// Verticals whose radials are dug in or that stand on a rod: from the family to the cut list, the parts and what the site is warned of.
#include "core/site/site.h"
#include "core/workshop/cut_list.h"
#include "core/workshop/parts_list.h"

#include "tests/core/shape_helpers.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

AntennaShape dugIn(const Parameters& more = {})
{
    Parameters changes{{"base_height_m", 0.1}, {"radial_depth_m", 0.05}, {"radial_count", 8.0}, {"radial_m", 7.0}};
    for (const auto& [key, value] : more)
        changes[key] = value;
    return shapeOf("vertical", changes);
}

const Wire* wireNamed(const BuiltAntenna& antenna, const std::string& id)
{
    const auto& wires = antenna.model.wires;
    const auto found = std::find_if(wires.begin(), wires.end(), [&](const Wire& w) { return w.id == id; });
    return found == wires.end() ? nullptr : &*found;
}

TEST(DugIn, RadialsLieLevelUnderTheSurface)
{
    const BuiltAntenna antenna = built(dugIn({{"radial_end_height_m", 3.0}}));
    EXPECT_TRUE(findFaults(antenna.model).empty()) << listed(findFaults(antenna.model));
    const Wire* lead = wireNamed(antenna, "lead to earth");
    ASSERT_TRUE(lead);
    EXPECT_DOUBLE_EQ(lead->points.front().z, 0.1);
    EXPECT_DOUBLE_EQ(lead->points.back().z, -0.05);
    for (int i = 1; i <= 8; ++i) {
        const Wire* radial = wireNamed(antenna, "radial " + std::to_string(i));
        ASSERT_TRUE(radial);
        EXPECT_NEAR(radial->length(), 7.0, 1e-9);
        for (Vec3 p : radial->points)
            EXPECT_DOUBLE_EQ(p.z, -0.05);
    }
    EXPECT_TRUE(antenna.insulators.empty()) << "radials end in the soil as they are cut";
}

// The soil takes less of a current that goes out in many wires.
TEST(DugIn, MoreRadialsLoseLess)
{
    em::GroundTableCache tables;
    double before = 0.0;
    for (double count : {2.0, 4.0, 16.0, 60.0}) {
        const em::Solution s = solved(built(dugIn({{"radial_count", count}})).model, 7.1e6, tables);
        const double sky = ledgerOf(s).sky;
        EXPECT_GT(sky, before) << count;
        before = sky;
    }
    EXPECT_GT(before, 0.2);
    EXPECT_LT(before, 0.5);
}

TEST(DugIn, ARodAloneCarriesAVertical)
{
    const BuiltAntenna antenna = built(dugIn({{"radial_count", 0.0}, {"rod_m", 2.0}, {"rod_diameter_m", 0.02}}));
    const Wire* rod = wireNamed(antenna, "ground rod");
    ASSERT_TRUE(rod);
    EXPECT_DOUBLE_EQ(rod->radius, 0.01);
    EXPECT_DOUBLE_EQ(rod->points.back().z, -2.0);
    EXPECT_EQ(antenna.model.wires.size(), 3u);
    const em::Solution s = solved(antenna.model, 7.1e6);
    EXPECT_GT(s.impedance.real(), 60.0); // earth of a rod beside the 36 ohm of the quarter wave
    EXPECT_LT(s.impedance.real(), 250.0);
}

TEST(DugIn, WhatCannotBeIsSaid)
{
    const auto refused = [](const Parameters& p) {
        const auto result = buildOver(dugIn(p), averageSoil);
        EXPECT_FALSE(result.ok());
        return result.ok() ? std::string() : result.faults().front().path;
    };
    EXPECT_EQ(refused({{"radial_depth_m", 0.004}}), "radial_depth_m");
    EXPECT_EQ(refused({{"radial_depth_m", 0.5}, {"rod_m", 0.3}}), "rod_m");
    EXPECT_EQ(refused({{"radial_count", 0.0}}), "radial_count");
}

// What is cut is what the model has, the rod aside, which is bought.
TEST(DugIn, CutListAndPartsFollow)
{
    const AntennaShape shape = dugIn({{"rod_m", 1.5}});
    const BuiltAntenna antenna = built(shape);
    double cut = 0.0, wires = 0.0;
    for (const CutRow& row : cutList(antenna.sections, {}))
        cut += row.pieces * row.radiating;
    for (const Wire& w : antenna.model.wires)
        wires += w.length();
    EXPECT_NEAR(cut + antenna.notCut, wires, 1e-9);
    Antenna whole;
    whole.shape = shape;
    const auto parts = partsOf(whole, antenna, {}, {}, {});
    const auto count = [&](const char* key) {
        const auto row = std::find_if(parts.begin(), parts.end(), [&](const PartRow& r) { return r.key == key; });
        return row == parts.end() ? 0.0 : row->count;
    };
    EXPECT_EQ(count("ground-rod"), 1.0);
    EXPECT_EQ(count("insulator"), 1.0) << "the radiator's end alone";
    const PackList pack = packListOf(whole, antenna, {}, {});
    EXPECT_NE(std::find_if(pack.order.begin(), pack.order.end(),
                           [](const Text& line) { return line.english().find("cables and pipes") != std::string::npos; }),
              pack.order.end());
}

TEST(DugIn, TheSiteIsWarnedOfCablesAndPipes)
{
    const auto warnings = fitOnSite({}, built(dugIn()).model).warnings;
    const auto of = [&](SiteWarning::Kind kind) {
        return std::count_if(warnings.begin(), warnings.end(), [&](const SiteWarning& w) { return w.kind == kind; });
    };
    EXPECT_GE(of(SiteWarning::Kind::Dig), 1);
    for (const SiteWarning& w : warnings)
        if (w.kind == SiteWarning::Kind::Low) {
            EXPECT_GT(w.at.z, 0.0);
        }
    const auto above = fitOnSite({}, built(shapeOf("vertical", {})).model).warnings;
    EXPECT_TRUE(std::none_of(above.begin(), above.end(), [](const SiteWarning& w) { return w.kind == SiteWarning::Kind::Dig; }));
}

} // namespace
} // namespace vetchling::shapes

#pragma once
/// Shapes of families as tests want them.

#include "core/shapes/family.h"
#include "tests/core/helpers.h"

namespace vetchling::shapes {

using namespace vetchling::testing;

inline BuiltAntenna built(const AntennaShape& shape)
{
    const auto result = buildOver(shape, averageSoil);
    EXPECT_TRUE(result.ok()) << result.firstFault();
    return result.ok() ? *result : BuiltAntenna{};
}

inline AntennaShape shapeOf(const std::string& family, const Parameters& changes, double frequency = 7.1e6)
{
    AntennaShape shape = findFamily(family)->standardShape(frequency);
    for (const auto& [key, value] : changes)
        shape.parameters[key] = value;
    return shape;
}

} // namespace vetchling::shapes

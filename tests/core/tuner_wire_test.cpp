#include "core/advice/gallery.h"

#include <gtest/gtest.h>

namespace vetchling {
namespace {

Design garden(std::vector<Support> supports)
{
    Design d;
    d.site.boundary = {{0.0, 0.0}, {25.0, 0.0}, {25.0, 12.0}, {0.0, 12.0}};
    d.site.supports = std::move(supports);
    return d;
}

/// Farthest point of the antenna outside the rectangle, m.
double outside(const Antenna& antenna)
{
    const auto built = shapes::buildOver(antenna.shape, Ground{});
    double most = -HUGE_VAL;
    for (const Wire& w : built->model.wires)
        for (Vec3 p : w.points)
            most = std::max({most, -p.x, p.x - 25.0, -p.y, p.y - 12.0});
    return most;
}

Support support(double x, double y, double height) { return {"s", SupportKind::Pole, {x, y}, height, false, newId(), {}}; }

// It was some 83 m long in a garden of 25 x 12 m.
TEST(TunerWire, StaysInTheGarden)
{
    for (const auto& supports : {std::vector<Support>{support(2.0, 6.0, 10.0), support(22.5, 6.0, 8.0)},
                                 std::vector<Support>{support(12.5, 6.0, 10.0)}, std::vector<Support>{support(24.0, 11.0, 12.0)}}) {
        const auto wire = advice::tunerWire(garden(supports), 7.1e6);
        ASSERT_TRUE(wire);
        EXPECT_LE(outside(*wire), 0.01);
        EXPECT_GT(wire->shape.parameters.at("length_m"), 5.0);
    }
}

TEST(TunerWire, GoesBetweenTwoSupports)
{
    const auto wire = advice::tunerWire(garden({support(2.0, 6.0, 10.0), support(22.5, 6.0, 8.0)}), 7.1e6);
    ASSERT_TRUE(wire);
    EXPECT_GT(wire->shape.parameters.at("length_m"), 15.0);
}

TEST(TunerWire, HasItsUsualLengthWhereNothingEndsIt)
{
    Design d;
    EXPECT_GT(advice::tunerWire(d, 7.1e6)->shape.parameters.at("length_m"), 40.0);
}

} // namespace
} // namespace vetchling

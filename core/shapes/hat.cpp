#include "core/shapes/hat.h"

#include <cmath>

namespace vetchling::shapes {

void addHat(std::vector<ParameterSpec>& all, double spokes, double inWaves)
{
    all.push_back(numberSpec("hat_count", coreText("core", "Spokes of a hat"), coilsGroup, {spokes, 0.0, 12.0},
                             coreText("core", "0 for no hat; more of them act like a longer one")));
    all.push_back(lengthSpec("hat_m", coreText("core", "Length of a spoke"), coilsGroup, {1.0, 0.005, 100.0}, {}, inWaves));
}

void addHatAt(const Family& family, const AntennaShape& shape, BuiltAntenna& out, Vec3 end, Vec3 along, const std::string& name)
{
    const Vec3 upright{0.0, 0.0, 1.0};
    const bool standing = std::hypot(along.x, along.y) < 1e-6;
    const Vec3 level = standing ? towards(family.value(shape, "bearing_deg")) : unit(cross(along, upright)), other = cross(along, level);
    const int count = int(std::lround(family.value(shape, "hat_count")));
    const bool first = out.model.wires.empty() || out.model.wires.back().id.rfind("spoke", 0) != 0;
    for (int i = 0; i < count; ++i) {
        const double turn = 2.0 * pi * i / count;
        const Vec3 tip = end + family.value(shape, "hat_m") * (std::cos(turn) * level + std::sin(turn) * other);
        out.model.wires.push_back(makeWire(wireOf(shape, "spokes"), "spoke " + name + std::to_string(i + 1), {end, tip}));
        if (first && i == 0) {
            out.handles.push_back({coreText("core", "spoke"), tip, {"hat_m"}});
            out.dimensions.push_back({end, tip, "hat_m"});
        }
    }
}

WireSection hatSection(const Family& family, const AntennaShape& shape, int hats)
{
    return {coreText("core", "spoke"), hats * int(std::lround(family.value(shape, "hat_count"))), family.value(shape, "hat_m"),
            WireEnd::Joint, WireEnd::Tube};
}

double hatReach(double spoke, double count) { return count > 0.0 ? (0.7 + 0.3 * count) * spoke : 0.0; }

} // namespace vetchling::shapes

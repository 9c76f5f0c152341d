#include "core/files/workshop_file.h"

#include "core/files/data_list.h"

namespace vetchling::files {
namespace {

double above(const JsonNode& node, const char* key)
{
    const double value = node.number(key);
    if (!(value > 0.0))
        node.faultAt(key, "must be above 0");
    return value;
}

MetalFacts readMetalFacts(const JsonNode& n)
{
    MetalFacts m;
    m.potential = {n.text("id"), n.text("name"), n.number("potential_V")};
    m.source = n.text("source");
    if (n.has("density_kg_per_m3"))
        m.strength = WireStrength{above(n, "density_kg_per_m3"), 1e6 * above(n, "strength_MPa"), 1e9 * above(n, "modulus_GPa")};
    return m;
}

FerriteClass readFerrite(const JsonNode& n)
{
    FerriteClass f;
    f.id = n.text("id");
    f.name = n.text("name");
    f.source = n.text("source");
    f.initial = above(n, "initial_permeability");
    f.saturation = n.number("saturation_T", f.saturation, true);
    f.snoek = 1e9 * n.number("snoek_GHz", 1e-9 * f.snoek, true);
    f.uncertainty = 0.01 * n.number("uncertainty_percent", 100.0 * f.uncertainty, true);
    for (const JsonNode& row : n.items("permeability", true)) {
        const std::vector<double> v = row.ownNumbers(3);
        if (v.size() != 3)
            continue;
        if (!(v[0] > 0.0 && (f.table.empty() || 1e6 * v[0] > f.table.back().frequency)))
            row.fault("write MHz, real part, loss part, the frequencies rising");
        f.table.push_back({1e6 * v[0], v[1], v[2]});
    }
    return f;
}

FerriteRing readRing(const JsonNode& n)
{
    const FerriteRing r{n.text("id"), n.text("name"), above(n, "outer_m"), above(n, "inner_m"), above(n, "height_m")};
    if (!(r.outer > r.inner))
        n.fault("a ring is wider outside than inside");
    return r;
}

Tube readTube(const JsonNode& n)
{
    const Tube t{above(n, "outer_m"), above(n, "wall_m"), above(n, "length_m")};
    if (!(2.0 * t.wall < t.outer))
        n.fault("a tube is hollow: its walls together are thinner than it is");
    return t;
}

Mode readMode(const JsonNode& n)
{
    const double duty = 0.01 * above(n, "duty_percent");
    if (duty > 1.0)
        n.faultAt("duty_percent", "is at most 100");
    return {n.text("id"), n.text("name"), n.text("source"), duty};
}

} // namespace

Result<WorkshopData> readWorkshopData(const std::string& path)
{
    const auto metals = readList<MetalFacts>(path, "metals", readMetalFacts);
    if (!metals)
        return metals.faults();
    const auto ferrites = readList<FerriteClass>(path, "ferrites", readFerrite);
    if (!ferrites)
        return ferrites.faults();
    const auto rings = readList<FerriteRing>(path, "rings", readRing);
    if (!rings)
        return rings.faults();
    const auto modes = readList<Mode>(path, "modes", readMode);
    if (!modes)
        return modes.faults();
    const auto tubes = readList<Tube>(path, "tubes", readTube);
    if (!tubes)
        return tubes.faults();
    return WorkshopData{*metals, *ferrites, *rings, *modes, *tubes};
}

} // namespace vetchling::files

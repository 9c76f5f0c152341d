#include "core/files/data.h"

#include "core/files/data_list.h"
#include "core/files/design_parts.h"
#include "core/files/metal.h"

namespace vetchling::files {
Result<std::vector<Soil>> readSoils(const std::string& path)
{
    return readList<Soil>(path, "soils", [](const JsonNode& n) {
        Soil soil{n.text("id"), n.text("name"), n.text("source", "", true), n.number("relative_permittivity", 13.0),
                  n.number("conductivity_S_per_m", 0.005)};
        readSeasons(n, soil);
        return soil;
    });
}

Result<std::vector<Conductor>> readConductors(const std::string& path)
{
    return readList<Conductor>(path, "conductors", [](const JsonNode& n) {
        return Conductor{n.text("id"), n.text("name"), n.text("source", "", true), readMetal(n)};
    });
}

Result<std::vector<BandPlan>> readBandPlans(const std::string& path)
{
    return readList<BandPlan>(path, "plans", [](const JsonNode& n) {
        BandPlan plan{n.text("id"), n.text("name"), n.text("source"), n.count("year", 0, 1900, 3000), {}, {}};
        for (const JsonNode& b : n.items("bands")) {
            const Band band{b.text("name"), 1e3 * b.number("from_kHz"), 1e3 * b.number("to_kHz")};
            if (!(band.from > 0.0 && band.to > band.from))
                b.fault("the band's upper edge must be above its lower edge");
            plan.bands.push_back(band);
            for (const JsonNode& s : b.items("segments", true)) {
                const Segment segment{s.text("name"), 1e3 * s.number("from_kHz"), 1e3 * s.number("to_kHz"), Wish::No};
                if (!(segment.from >= band.from && segment.to > segment.from && segment.to <= band.to))
                    s.fault("a segment must lie inside its band, its upper edge above its lower edge");
                plan.segments[band.name].push_back(segment);
            }
        }
        return plan;
    });
}

} // namespace vetchling::files

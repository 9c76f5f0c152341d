#include "core/files/metal.h"

namespace vetchling::files {

shapes::Metal readMetal(const JsonNode& node)
{
    shapes::Metal metal;
    metal.conductivity = node.number("conductivity_S_per_m", metal.conductivity, true);
    metal.relativePermeability = node.number("relative_permeability", 1.0, true);
    if (const auto coating = node.object("coating", true)) {
        metal.coating = Coating{coating->number("thickness_m", 0.0, true), coating->number("conductivity_S_per_m"),
                                coating->number("relative_permeability", 1.0, true)};
        metal.coatingPartOfRadius = coating->number("part_of_radius", 0.0, true);
        metal.kept = coating->rest();
        if (!(metal.coating->thickness > 0.0 || (metal.coatingPartOfRadius > 0.0 && metal.coatingPartOfRadius < 1.0)))
            coating->fault("needs a thickness_m above zero or a part_of_radius between 0 and 1");
    }
    return metal;
}

Json coatingJson(const shapes::Metal& metal)
{
    Json out{{"conductivity_S_per_m", metal.coating->conductivity}, {"relative_permeability", metal.coating->relativePermeability}};
    if (metal.coating->thickness > 0.0)
        out["thickness_m"] = metal.coating->thickness;
    else
        out["part_of_radius"] = metal.coatingPartOfRadius;
    addKept(out, metal.kept);
    return out;
}

} // namespace vetchling::files

#pragma once
/// The plain JSON tables that ship with the program and that users may edit: soils, conductors, band plans.

#include "core/bands/bands.h"
#include "core/shapes/family.h"
#include "core/site/site.h"

#include <string>
#include <vector>

namespace vetchling::files {

struct Conductor {
    std::string id, name, source;
    shapes::Metal metal;
};

/// Each reads one file; the fault names the file and the place.
Result<std::vector<Soil>> readSoils(const std::string& path);
Result<std::vector<Conductor>> readConductors(const std::string& path);
Result<std::vector<BandPlan>> readBandPlans(const std::string& path);

} // namespace vetchling::files

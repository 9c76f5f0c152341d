#pragma once
/// The design file ("vetchling-design"): one site, the wanted operation, and any number of antennas with their trims.
/// Old versions open for ever; fields this version does not know are kept and written back.

#include "core/bands/bands.h"
#include "core/shapes/family.h"
#include "core/site/site.h"
#include "core/trim/trim.h"
#include "core/units/units.h"
#include "core/workshop/cut_list.h"

#include <map>
#include <string>
#include <vector>

namespace vetchling {

struct Antenna {
    std::string name;
    shapes::AntennaShape shape;
    std::map<std::string, std::string> typed; ///< what the user typed for a parameter, kept beside the SI value
    Allowances allowances;
    TrimLog trim;
    bool tuneForLowestSwr = false; ///< else for resonance
    std::string notes;
    std::string unknownFields; ///< JSON object of fields of a newer version
    friend bool operator==(const Antenna&, const Antenna&) = default;
};

struct Operation {
    std::string bandPlan = "itu-r1"; ///< id of the plan the bands came from
    std::vector<WantedBand> bands;   ///< all bands on show, in rising order, with their wish
    double swrLimit = 2.0;
    double power = 100.0; ///< W
    units::System system = units::System::Metric;
    friend bool operator==(const Operation&, const Operation&) = default;
};

struct Design {
    Site site;
    Operation operation;
    std::vector<Antenna> antennas;
    std::string unknownFields;
    friend bool operator==(const Design&, const Design&) = default;
};

namespace files {

inline constexpr int designVersion = 1;

Result<Design> parseDesign(const std::string& text);
Result<Design> readDesign(const std::string& path);
std::string writeDesign(const Design& design);
/// Writes through a temporary file in the same folder and a rename: the old file stays whole if anything fails.
Faults saveDesign(const Design& design, const std::string& path);

} // namespace files
} // namespace vetchling

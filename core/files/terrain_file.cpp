#include "core/files/terrain_file.h"

#include "core/files/profile_json.h"
#include "core/physics.h"

#include <cmath>

namespace vetchling::files {

namespace {

void readElevations(const JsonNode& root, TerrainCase& out)
{
    constexpr std::size_t most = 100000;
    out.elevations = root.numbers("elevations_deg");
    if (out.elevations.size() > most)
        root.faultAt("elevations_deg", {coreText("core", "holds more than %1 angles"), std::to_string(most)});
    for (std::size_t i = 0; i < out.elevations.size() && i < most; ++i)
        if (!(out.elevations[i] > 0.0 && out.elevations[i] <= 90.0)) {
            root.faultAt("elevations_deg[" + std::to_string(i) + "]", coreText("core", "must be above 0 and at most 90 degrees"));
            return;
        }
}

} // namespace

Result<TerrainCase> readTerrainCase(const std::string& path)
{
    const Result<Json> json = readJsonFile(path);
    if (!json)
        return json.faults();
    Faults faults;
    const JsonNode root(*json, "", faults);
    TerrainCase out;
    out.frequency = root.number("frequency_Hz");
    out.height = root.number("source_height_m");
    const std::string polarization = root.text("polarization");
    out.vertical = polarization == "vertical";
    if (!polarization.empty() && polarization != "vertical" && polarization != "horizontal")
        root.faultAt("polarization", "is '" + polarization + "'; write horizontal or vertical");
    out.profile = readProfile(root);
    readElevations(root, out);
    if (!faults.empty())
        return faults;
    for (Fault& fault : findFrequencyFaults(out.frequency, "frequency_Hz"))
        faults.push_back(std::move(fault));
    if (!(out.height > 0.0 && out.height <= 1e4))
        root.faultAt("source_height_m", coreText("core", "must be above 0 and at most 10 km"));
    for (Fault& fault : findFaults(out.profile))
        faults.push_back(std::move(fault));
    if (!faults.empty())
        return faults;
    return out;
}

} // namespace vetchling::files

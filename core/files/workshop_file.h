#pragma once
/// The table of materials, cores and modes that ships with the program and that users may edit.

#include "core/workshop/workshop_data.h"

namespace vetchling::files {

/// The fault names the file and the place.
Result<WorkshopData> readWorkshopData(const std::string& path);

} // namespace vetchling::files

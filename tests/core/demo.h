#pragma once
/// The demo's design, and its antennas by name.

#include "core/files/design_file.h"

#include <algorithm>
#include <string>

namespace vetchling::testing {

struct Demo {
    Demo() : design(*files::readDesign(VETCHLING_DATA "/demo/gannet-skerry.vetchling")) {}
    const Antenna& antenna(const std::string& name) const
    {
        return *std::find_if(design.antennas.begin(), design.antennas.end(), [&](const Antenna& a) { return a.name == name; });
    }
    Design design;
};

} // namespace vetchling::testing

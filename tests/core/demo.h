#pragma once
/// The demo's design, and its antennas by name.

#include "core/files/design_file.h"

#include <algorithm>
#include <string>

namespace vetchling::testing {

/// Why a design was refused, or the first that is damaged in it; empty where all is well.
inline std::string firstFaultOf(const Result<Design>& read)
{
    if (!read)
        return read.firstFault();
    return read->damage ? read->damage->faults().front().text() : std::string();
}

struct Demo {
    Demo() : design(*files::readDesign(VETCHLING_DATA "/demo/gannet-skerry.vetchling")) {}
    const Antenna& antenna(const std::string& name) const
    {
        return *std::find_if(design.antennas.begin(), design.antennas.end(), [&](const Antenna& a) { return a.name == name; });
    }
    Design design;
};

} // namespace vetchling::testing

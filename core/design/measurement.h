#pragma once
/// What was measured on a finished antenna, and what was done to it since.

#include "core/id.h"
#include "core/result.h"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace vetchling {

struct Measurement {
    std::string when;          ///< ISO 8601, local
    std::string remark;        ///< weather, height, ground
    double cutSinceLast = 0.0; ///< m off each end since the measurement before; negative: lengthened
    bool folded = false;       ///< folded back instead of cut
    double dip = 0.0;          ///< Hz, where SWR is lowest
    double dipSwr = 0.0;       ///< 0: not noted
    Id id;
    KeptFields kept;
    std::string parameter;                        ///< that was cut; empty: the one that is trimmed for this dip
    std::optional<std::size_t> configuration;     ///< it was measured in; nothing: whose target is nearest
    std::vector<std::pair<double, double>> sweep; ///< Hz, SWR; rising; empty where the dip alone was read
    std::string instrument;                       ///< with what, and where
    std::optional<double> height;                 ///< m, of the highest wire then; nothing: where it is to hang
    friend bool operator==(const Measurement&, const Measurement&) = default;
};

struct TrimLog {
    double target = 0.0; ///< Hz; 0: the design frequency
    std::vector<Measurement> measurements;
    KeptFields kept;
    friend bool operator==(const TrimLog&, const TrimLog&) = default;
};

/// Faults of one measurement as typed; empty if it can be used.
Faults findMeasurementFaults(const Measurement& measurement);

} // namespace vetchling

#pragma once
/// What was measured on a finished antenna, and what was done to it since.

#include "core/design/measured_sweep.h"
#include "core/id.h"
#include "core/result.h"
#include "core/shared_list.h"

#include <array>
#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace vetchling {

/// What the soil was like; a site drifts with it.
enum class SoilState { NotNoted, Dry, Damp, Wet, Frozen };
inline constexpr std::array<const char*, 5> soilStateWords{"", "dry", "damp", "wet", "frozen"}; ///< in a file

struct Measurement {
    std::string when;          ///< ISO 8601, local
    std::string remark;        ///< weather, height, ground
    double cutSinceLast = 0.0; ///< m off each end since the measurement before; negative: lengthened
    bool folded = false;       ///< folded back instead of cut
    double dip = 0.0;          ///< Hz, where SWR is lowest
    double dipSwr = 0.0;       ///< 0: not noted
    Id id;
    KeptFields kept;
    std::string parameter;                       ///< that it was measured for and that was cut; empty: the one that is trimmed for this dip
    std::optional<std::size_t> configuration;    ///< it was measured in; nothing: whose target is nearest
    SharedList<std::pair<double, double>> sweep; ///< Hz, SWR; rising; empty where the dip alone was read
    std::string instrument;                      ///< with what, and where
    std::optional<double> height;                ///< m, of the highest wire then; nothing: where it is to hang
    SharedList<Complex> impedance;               ///< ohm at the points of the sweep, at the feedpoint; empty where the SWR alone is known
    double coax = 0.0;                           ///< m of it between the instrument and the feedpoint
    std::string place;                           ///< of an antenna that travels; empty: on its site
    std::string weather;
    SoilState soil = SoilState::NotNoted;
    std::vector<std::string> pictures; ///< paths
    friend bool operator==(const Measurement&, const Measurement&) = default;
};

/// How a signal came and went while it was reported.
enum class Fading { NotNoted, None, Slow, Fast, Deep };
inline constexpr std::array<const char*, 5> fadingWords{"", "none", "slow", "fast", "deep"}; ///< in a file

/// How it was heard, or heard others.
struct AirReport {
    Id id;
    std::string when;              ///< ISO 8601, local
    double frequency = 0.0;        ///< Hz
    double distance = 0.0;         ///< m
    std::optional<double> bearing; ///< degrees
    double power = 0.0;            ///< W at the radio; 0: not noted
    std::string report;            ///< as it was given: "59", "-12 dB"
    std::string remark;
    KeptFields kept;
    std::optional<double> solarFlux; ///< of the day, in solar flux units; nothing: not noted
    std::optional<double> kIndex;    ///< geomagnetic, 0 to 9
    Fading fading = Fading::NotNoted;
    friend bool operator==(const AirReport&, const AirReport&) = default;
};

/// Where it is known from how long the pieces were when the antenna was hoisted for the first time.
enum class CutFrom { NotKnown, CutList, Ticked, Measured, Typed };
inline constexpr std::array<const char*, 5> cutFromWords{"", "cut-list", "ticked", "measured", "typed"}; ///< in a file

struct TrimLog {
    double target = 0.0; ///< Hz, of the piece that is trimmed for the nearest frequency; 0: what each is tuned for
    std::vector<Measurement> measurements;
    std::vector<AirReport> reports;
    KeptFields kept;
    std::map<std::string, double> targets; ///< Hz, by the parameter that is trimmed for it
    std::map<std::string, double> asCut;   ///< SI that each piece of a parameter was longer than its plan when the log began
    CutFrom cutFrom = CutFrom::NotKnown;
    friend bool operator==(const TrimLog&, const TrimLog&) = default;
};

/// Faults of one measurement as typed; empty if it can be used.
Faults findMeasurementFaults(const Measurement& measurement);
Faults findReportFaults(const AirReport& report);

} // namespace vetchling

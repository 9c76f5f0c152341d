#pragma once
/// What the solver found for one antenna: immutable, made on a worker thread, read by all views.

#include "core/em/far_field.h"
#include "core/em/sweep.h"
#include "core/files/design.h"
#include "core/tune/tune.h"

#include <memory>
#include <optional>
#include <vector>

namespace vetchling::app {

inline constexpr double sweepFrom = 1.8e6, sweepTo = 30e6; ///< Hz; fixed, so that every antenna shares the soil's tables

/// The curve and what follows from it; ready first.
struct CurveResult {
    shapes::AntennaShape shape;
    shapes::BuiltAntenna built;
    em::ImpedanceCurve curve;
    std::vector<WantedBand> wanted;
    std::vector<Coverage> bands; ///< as wanted
    double limit = 2.0;
    double fundamental = 0.0;           ///< Hz: the dip nearest to the design frequency
    std::optional<Resonance> resonance; ///< nearest to the design frequency

    /// Impedance as the line sees it, behind the transformer if there is one.
    [[nodiscard]] Complex atLine(double frequency) const { return curve.at(frequency); }
    [[nodiscard]] double swrAt(double frequency) const { return swr(atLine(frequency)); }
    [[nodiscard]] int bandsUnderLimit() const;
    [[nodiscard]] int bandsWished() const;
};

/// One frequency looked at closely.
struct SpotResult {
    int band = -1; ///< index into the wanted bands
    em::Solution solution;
    std::shared_ptr<const em::FarField> field;
    double strongest = 0.0, strongestElevation = 0.0, strongestAzimuth = 0.0; ///< dBi, rad (mathematical azimuth)
    double straightUp = 0.0;                                                  ///< dBi
};

/// Fields, losses and lengths; ready a little later.
struct DetailResult {
    std::vector<SpotResult> spots;         ///< wished bands and the selected one
    int selected = 0;                      ///< index into spots
    std::optional<em::PowerLedger> ledger; ///< at the selected frequency
    struct OtherGround {
        std::string name;
        std::shared_ptr<const em::FarField> field;
    };
    std::vector<OtherGround> otherGrounds; ///< the selected frequency over wetter and drier ground
    double ruleValue = 0.0;                ///< of the tuned parameter
    std::optional<double> solvedValue;     ///< resonant at the design frequency; none if there is none near
    std::string solvedFault;               ///< why not
    double trimSlope = 0.0;                ///< Hz a metre from each end

    [[nodiscard]] const SpotResult* spot() const { return spots.empty() ? nullptr : &spots[std::size_t(selected)]; }
    [[nodiscard]] const SpotResult* spotOfBand(int band) const;
};

using CurvePointer = std::shared_ptr<const CurveResult>;
using DetailPointer = std::shared_ptr<const DetailResult>;

struct SolveRequest {
    std::shared_ptr<const Design> design;
    std::size_t antenna = 0;
    int selectedBand = -1;
};

/// The sweep and its coverage.
Result<CurvePointer> computeCurve(const SolveRequest& request, em::GroundTableCache& tables, const Watch& watch);
/// Fields at the wished bands, losses, tuned length and trim slope.
Result<DetailPointer> computeDetail(const SolveRequest& request, const CurveResult& curve, em::GroundTableCache& tables,
                                    const Watch& watch);

/// Frequency that stands for a band: its lowest SWR if the band is used at all, else its centre.
double spotFrequency(const Coverage& coverage, double limit);
/// Compass bearing of a mathematical azimuth and back; degrees and radians.
double bearingOf(double azimuth);
double azimuthOf(double bearing);

} // namespace vetchling::app

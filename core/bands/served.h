#pragma once
/// Whether a band is served behind a chain: the one judgement of trail, coverage, choices, map, gallery, variants and command line.

#include "core/bands/bands.h"
#include "core/line/chain.h"

namespace vetchling {

/// What is asked of a band, and of the radio.
struct ServedRule {
    double swrLimit = 2.0;
    double reference = 50.0;  ///< ohm that the SWR is told against
    double lossLimit = 3.0;   ///< dB of the chain, mismatch included
    double foldbackSwr = 2.0; ///< from here on the radio lowers its power, so that no more comes back than there; 0: it does not
    friend bool operator==(const ServedRule&, const ServedRule&) = default;
};

/// What a radio that sees an impedance puts into it, over what it puts into its reference: 1 - |G|^2, beyond the fold-back SWR times
/// (|G| there)^2 / |G|^2.
double takenUp(Complex impedance, const ServedRule& rule);

/// dB of the same.
double mismatchLoss(Complex impedance, const ServedRule& rule);

enum class Service { No, Partly, Served };

/// Of one band. Shares are of its width, or of its wished segments by their weights.
struct BandService {
    bool solved = false;         ///< else nothing below is told
    double share = 0.0;          ///< under the limit at the radio, tuners left out
    double shareWithTuner = 0.0; ///< the same with the chain's tuner, within its range; without one the share
    double loss = 0.0;           ///< dB in the chain at the band's centre
    double mismatch = 0.0;       ///< dB there that the radio does not put in
    Service service = Service::No;
    [[nodiscard]] double total() const { return loss + mismatch; }
};

/// What is judged of an antenna's port, whatever the chain: its impedance at even steps over the band, or over its wished segments.
struct PortOverBand {
    struct Stretch {
        double weight = 1.0;
        std::vector<std::pair<double, Complex>> points; ///< Hz, ohm
    };
    std::vector<Stretch> stretches;
    double centre = 0.0; ///< Hz
    Complex atCentre;
};
/// @param port the impedance at the antenna's own port
PortOverBand portOver(const ImpedanceAt& port, const WantedBand& wanted);

/// @param parts the whole chain, the shape's own parts before it
BandService serviceOf(const PortOverBand& port, const std::vector<ChainPart>& parts, const ServedRule& rule);

/// How many of the wished bands.
struct Tally {
    int served = 0, partly = 0, wished = 0;
    friend bool operator==(const Tally&, const Tally&) = default;
};
/// @param services in the bands' order
Tally tallyOf(const std::vector<BandService>& services, const std::vector<WantedBand>& bands);

} // namespace vetchling

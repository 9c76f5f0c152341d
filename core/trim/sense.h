#pragma once
/// Whether a sweep can be what it is taken for: signs that point to cable, calibration, soil, joints, and the check that tells.

#include "core/bands/bands.h"
#include "core/design/measured_sweep.h"
#include "core/design/measurement.h"

#include <vector>

namespace vetchling {

enum class SenseSign {
    BelowOne,         ///< an SWR below 1 anywhere: wrong trace or format
    FalseCalibration, ///< a resistance below zero: value: the lowest one, ohm
    LossyCable,       ///< far off resonance less comes back than the model says: value: dB one way
    HighEverywhere,   ///< no dip below 5: short, open, no counterpoise, a link open
    FlatLow,          ///< below 2 everywhere: a load, a very lossy cable
    RaisedDip,        ///< broad and raised: value: lowest SWR over the model's
    TwoDips,          ///< value: Hz of the second one: shield, metal nearby, another pair
    DipAtEdge,        ///< sweep wider
    FarFromModel,     ///< value: part of the frequency that the dip is off
    SwrOnly,          ///< taken through coax without R and X: only the SWR is used
    GoodEverywhere,   ///< a good match on several frequencies where the model has none: the cable; value: how many dips
    Jumped,           ///< nothing was done between two sweeps, and they differ: a joint; value: Hz that the dip went
    OtherInstrument,  ///< nothing was done, another instrument reads otherwise; value: Hz that it reads higher
    MovedWithCoax,    ///< another length of coax, another dip: the shield is part of the antenna; value: Hz
    Fits              ///< dip and width as the model says
};

struct SenseRow {
    SenseSign sign = SenseSign::Fits;
    double value = 0.0;
    Text words;          ///< what it is and what to do
    bool ofDips = false; ///< told of two dips alone: less sure than of two sweeps
    [[nodiscard]] bool good() const { return sign == SenseSign::Fits; }
    /// Whether it is no ground to cut by.
    [[nodiscard]] bool stops() const;
};

/// What to look at first, before anything is cut by it; nothing where the sign does not stop the saw.
Text checkFirst(SenseSign sign);

/// Dip, SWR and the sweep itself into a measurement.
void takeSweep(const MeasuredSweep& sweep, Measurement& measurement);
/// Back from a measurement; no points where it has none.
MeasuredSweep sweepOf(const Measurement& measurement);

/// @param model SWR at a frequency, at the same place as the sweep; not a number where it is unknown
/// @param cable dB one way that the feed line between loses at that frequency and that the model knows of
std::vector<SenseRow> senseOf(const MeasuredSweep& sweep, const std::function<double(double frequency)>& model, double cable = 0.0);

/// Of the last of some entries of a log, oldest first: its sweep by itself, against the entry before, and what coax did to it.
std::vector<SenseRow> senseOfLast(const std::vector<Measurement>& log, const std::vector<std::size_t>& entries,
                                  const std::function<double(double frequency)>& model);

/// Signs that two measurements give together, where nothing was cut or hoisted between them.
std::vector<SenseRow> senseBetween(const Measurement& before, const Measurement& last);

/// The log as if all of it had been read by the instrument of the last entry: dips and sweeps of others that read the same antenna in the
/// same state right before or after it are moved by the part that they differ. What no such pair links is left as it was read.
std::vector<Measurement> asReadByOne(const std::vector<Measurement>& log);

} // namespace vetchling

#pragma once
/// Why another program says otherwise: the same antenna's gain as it is told elsewhere.
///
/// Besides what arrives over real ground with all that is lost in it, gain is told without the loss in the near ground (currents and power
/// as over a perfect conductor, their waves reflected by the real soil) and over perfect ground altogether. The three differ by nothing for
/// a high dipole and by ten decibels and more for a long low wire.

#include "core/em/far_field.h"
#include "core/units/text.h"

#include <memory>
#include <optional>

namespace vetchling::study {

/// As fed from the line; the strongest gains are dBi over the whole sky.
struct GainElsewhere {
    std::shared_ptr<const em::FarField> withoutNearLoss, perfect;
    double strongestWithoutNearLoss = 0.0, strongestPerfect = 0.0;
};

/// The fields of a model over perfect ground, and of those currents over its own. Nothing where its ground is not soil, or where wires go
/// into it or lie on it. Faults: the solver's; stopped.
Result<std::optional<GainElsewhere>> gainElsewhere(const std::shared_ptr<const WireModel>& model, double frequency,
                                                   em::GroundTableCache& tables, const em::SolveOptions& options = {},
                                                   const Watch& watch = {});

/// dBi in the strongest direction.
double strongestGain(const em::FarField& field);

/// Which of the three somebody else's figure probably is, or that of a dipole taken for the reference.
/// @param figure dB as it is told @param here dBi, strongest over real ground
Text whoseGain(double figure, double here, const GainElsewhere& elsewhere);

} // namespace vetchling::study

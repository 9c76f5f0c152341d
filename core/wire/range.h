#pragma once
/// Where a model can be solved but lies outside the range in which the answer is right to a percent.

#include "core/wire/wire_model.h"

namespace vetchling {

struct RangeNote {
    std::size_t wire = 0;
    Vec3 at;      ///< the place on it
    Text message; ///< what is out of range and what to do
};

/// Wires thicker than 0.02 wavelength, bends sharper than 10 degrees, neighbours nearer than four radii, pieces shorter than
/// four radii. At most one note a wire and kind; none for models of more than 500 straight pieces. The model has no faults.
[[nodiscard]] std::vector<RangeNote> rangeNotes(const WireModel& model, double frequency);

} // namespace vetchling

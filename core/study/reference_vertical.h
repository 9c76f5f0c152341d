#pragma once
/// What every antenna is held against until another one is chosen: for each band a quarter-wave vertical of its own, its base and 16
/// quarter-wave radials 2 cm above this soil, without a line.

#include "core/em/far_field.h"
#include "core/study/study.h"

#include <memory>

namespace vetchling::study {

shapes::AntennaShape referenceVertical(double frequency);

/// What it does at a frequency, as fed at its foot.
struct Reference {
    std::shared_ptr<const em::FarField> field;
    Complex impedance; ///< ohm
};
/// Faults: the solver's; stopped.
Result<Reference> referenceAt(Library& library, const Ground& ground, double frequency, const Watch& watch = {});

} // namespace vetchling::study

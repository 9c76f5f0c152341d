#pragma once
/// Down to which length the model of a coil is held against helices solved turn by turn (tests/core/coil_length_test.cpp).

#include "core/wire/wire_model.h"

namespace vetchling {

/// Of its diameter: two turns a tenth of it apart.
inline constexpr double shortestCoil = 0.2;

/// A shorter one is taken as one in a point.
inline bool tooShort(const CoilSize& size) { return size.length < shortestCoil * size.diameter; }

} // namespace vetchling

#pragma once
/// What to wind, said alike on the coil's page and on the sheet.

#include "core/units/units.h"
#include "core/workshop/winding.h"

#include <QString>

namespace vetchling::app {

/// To the nearest half: "21", "20½".
QString turnWords(double turns);
/// "Wind 23 turns on a former of 32 mm, and tap at 21½."
QString windWords(const Wound& wound, units::System system);

} // namespace vetchling::app

#pragma once
/// What is told of how sure a figure is.

#include "app/view/words.h"
#include "core/study/spread.h"

namespace vetchling::app {

/// "± 24 kHz", half of what lies between the 5 and the 95 % point; empty without a dip.
QString toleranceWords(const study::BandSpread& band);
/// "So far it moves the dip: wet to dry soil 30 kHz, 20 cm of height 6, a cut off by 1 cm 7."; empty without a dip.
QString causesWords(const study::Spread& spread, const study::BandSpread& band, units::System system);

} // namespace vetchling::app

#pragma once
/// Texts of the core in the window's language and units.

#include "core/result.h"
#include "core/site/site.h"
#include "core/units/units.h"

#include <QString>

namespace vetchling::app {

/// A text of a function outside any class, in the context that the collecting tool gives to those of this namespace.
QString tr(const char* words);
/// A marked text of the core, translated.
QString coreWords(const std::string& english);
/// A sentence of the core, translated, with its values in the shown units. Paths, being keys of files, are left out.
QString coreWords(const Text& text, units::System system);

QString lengthWords(double metres, units::System system, int decimals = 2);
/// A support's height as its owner says it: "14 m", "8.5 m".
QString heightWords(double metres, units::System system);
/// Of ground farther off: whole metres or feet.
QString farWords(double metres, units::System system);
/// With its figures: "Wet ground: ε 30, 10 mS/m".
QString soilWords(const Soil& soil);
/// "pole".
QString supportWords(SupportKind kind);
QString smallWords(double metres, units::System system);
QString valueWords(double value, units::Quantity quantity, units::System system);
QString frequencyWords(double hertz);
/// The number alone.
QString megahertz(double hertz, int decimals = 2);
/// A number with a proper minus, and none before nothing.
QString numberWords(double value, int decimals);
/// One decimal, with a proper minus.
QString decibelWords(double decibels);
/// A title within a name: "20 m dipole".
QString inSentence(QString title);

} // namespace vetchling::app

#pragma once
/// A design that is damaged at one place, opened, edited and saved: what may have changed, and what not. Compares JSON, by itself.

#include "tests/damage.h"

#include <string>

namespace vetchling::testing {

/// The design of a text as the program writes it, with a log, so that there is something of each kind.
Doc wholeDesign(const std::string& text);
/// JSON of a text whose words that are no JSON are in quotes.
Doc quoted(std::string text);
/// Whether damage there is no trial of this: the head of the file, and what the trial edits.
bool isLeftOut(const Place& place);
/// What is wrong with how the design, damaged there, is opened, edited and saved; empty if all is well.
std::string damageOffence(const Doc& whole, const Place& place, const std::string& way);

} // namespace vetchling::testing

#pragma once
/// What is typed behind an option: numbers with or without a unit, and where the signal is to go.

#include "core/result.h"
#include "core/units/units.h"

#include <string>

namespace CLI {
class App;
class Option;
} // namespace CLI

namespace vetchling::cli {

/// SI, a number without a unit too; a fault that names the option is added where it is not understood. 0 for an empty text.
double number(const std::string& text, const char* option, units::Quantity quantity, Faults& faults);
/// An option that takes a number in SI, or with a unit.
CLI::Option* quantityOption(CLI::App* command, const std::string& name, double& target, units::Quantity quantity, const std::string& help);
/// @param elevation degrees, 0: not given @param bearing degrees, negative: not given
Faults findAimFaults(double elevation, double bearing);

} // namespace vetchling::cli

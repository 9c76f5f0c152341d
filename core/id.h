#pragma once
/// Stable names of the things in a design: made once, kept in the file, never shown and never used again.

#include <string>

namespace vetchling {

using Id = std::string;

/// Unlike any other, in this design and in every other one.
Id newId();

/// JSON members of a file that this version does not know, kept to be written back; empty if there are none.
using KeptFields = std::string;

} // namespace vetchling

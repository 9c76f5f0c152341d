#pragma once
/// JSON on stdout, for the .cpp files of the commands.

#include "core/physics.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace vetchling::cli {

using Json = nlohmann::ordered_json;

inline void print(const Json& json) { fmt::print("{}\n", json.dump(1)); }

/// [real, imaginary].
inline Json pair(Complex z) { return {z.real(), z.imag()}; }

} // namespace vetchling::cli

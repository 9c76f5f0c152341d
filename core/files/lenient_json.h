#pragma once
/// Reading JSON that may be damaged: as much of it as there is. Only for .cpp files of core/files.

#include "core/files/json_reader.h"

#include <optional>

namespace vetchling::files {

struct LenientJson {
    Json json;
    Faults remarks;                ///< keys that stand twice, letters that are none
    std::optional<Fault> cutShort; ///< where reading ended; what was begun there is left out, from the outermost item of a list
};

/// Words that are no JSON value (NaN, 1e999, abc) are kept as they stand, as texts that `writeLenient` writes back bare. Of a key that
/// stands twice the later one is used.
/// A fault where nothing can be had of it: nested beyond deepestNesting, an object of more than mostMembers, or no JSON at all.
Result<LenientJson> readLenient(const std::string& text);
std::string writeLenient(const Json& json);

inline constexpr std::size_t mostMembers = 20000; ///< of one object

} // namespace vetchling::files

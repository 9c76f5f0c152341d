#pragma once
/// Where in a design file something could not be read, and putting it back when the design is written. Only for .cpp files of core/files.

#include "core/design/file_damage.h"
#include "core/files/json_reader.h"

namespace vetchling::files {

/// @param file as it was read; @param written as the program writes what it read of it
std::vector<DamagedPart> damagedParts(const Json& file, const std::vector<Unread>& unread, const Json& written);

/// Puts each part back where it stood. What has another value by now keeps that: the part then goes to the list `set_aside` at the top.
/// A part in something that was removed since goes with it.
void putBack(Json& design, const std::vector<DamagedPart>& parts);

} // namespace vetchling::files

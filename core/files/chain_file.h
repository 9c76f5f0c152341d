#pragma once
/// Parts of feed chains as JSON: in a design ("feed"), and as a file of their own ("vetchling-chain"); the table of line types.

#include "core/design/feed.h"
#include "core/line/line_types.h"

#include <string>
#include <vector>

namespace vetchling::files {

/// A chain by itself, with what it is asked for.
struct ChainCase {
    double frequency = 0.0; ///< Hz
    Complex load;           ///< ohm
    std::vector<ChainPart> parts;
};

Result<ChainCase> parseChain(const std::string& text);
Result<ChainCase> readChain(const std::string& path);
/// "vetchling-chain-result".
std::string writeChainResult(const ChainCase& asked, const ChainState& state);

/// The fault names the file and the place.
Result<std::vector<LineType>> readLineTypes(const std::string& path);

} // namespace vetchling::files

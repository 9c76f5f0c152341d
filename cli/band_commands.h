#pragma once
/// bands, harmonics, lengths and settings: where an antenna can be used, and how it would serve best.

namespace CLI {
class App;
}

namespace vetchling::cli {

void addBandCommands(CLI::App& app, int& status);

} // namespace vetchling::cli

#pragma once
/// check: whether antennas fit their site, and everything that is left to do.

namespace CLI {
class App;
}

namespace vetchling::cli {

void addCheckCommand(CLI::App& app, int& status);

} // namespace vetchling::cli

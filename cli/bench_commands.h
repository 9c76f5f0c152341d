#pragma once
/// What is taken to the bench: the build sheet, and recipes of finished antennas.

namespace CLI {
class App;
}

namespace vetchling::cli {

/// Adds sheet, recipe and copy; `status` receives the exit code.
void addBenchCommands(CLI::App& app, int& status);

} // namespace vetchling::cli

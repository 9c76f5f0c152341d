#pragma once
/// Commands about what is not exactly known: spread, variants side by side, and what stands near.

namespace CLI {
class App;
}

namespace vetchling::cli {

/// Adds the commands; `status` receives the exit code of the one that runs.
void addSpreadCommands(CLI::App& app, int& status);

} // namespace vetchling::cli

#pragma once
/// Commands that read or make a design file.

namespace CLI {
class App;
}

namespace vetchling::cli {

/// Adds new, set, check, wires, tune and cutlist; `status` receives the exit code.
void addDesignCommands(CLI::App& app, int& status);

} // namespace vetchling::cli

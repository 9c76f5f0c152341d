#pragma once
/// Commands that read or make a design file.

namespace CLI {
class App;
}

namespace vetchling::cli {

/// Adds new, wires, tune, bands, cutlist and families; `status` receives the exit code.
void addDesignCommands(CLI::App& app, int& status);

} // namespace vetchling::cli

#pragma once
/// What was measured on a finished antenna, and what to do to it next.

namespace CLI {
class App;
}

namespace vetchling::cli {

/// Adds log and trim; `status` receives the exit code.
void addTrimCommands(CLI::App& app, int& status);

} // namespace vetchling::cli

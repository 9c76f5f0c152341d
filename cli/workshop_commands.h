#pragma once
/// coil, sag: what a builder winds and hangs, by itself.

namespace CLI {
class App;
}

namespace vetchling::cli {

void addWorkshopCommands(CLI::App& app, int& status);

} // namespace vetchling::cli

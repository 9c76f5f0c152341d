#pragma once
/// terrain, sky: what the ground along bearings does to one current's waves, and to a whole antenna's.

namespace CLI {
class App;
}

namespace vetchling::cli {

void addTerrainCommands(CLI::App& app, int& status);

} // namespace vetchling::cli

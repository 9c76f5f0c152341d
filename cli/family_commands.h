#pragma once
/// The families of antennas: their parameters, and what each comes to on a site.

#include <string>

namespace CLI {
class App;
}

namespace vetchling::cli {

/// Prints all families with their parameters, levers and configurations as JSON.
int familiesCommand();

/// Adds `families`; `status` receives the exit code.
void addFamilyCommands(CLI::App& app, int& status);

} // namespace vetchling::cli

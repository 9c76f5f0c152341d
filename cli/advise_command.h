#pragma once
/// `advise`: which antenna for this place.

namespace CLI {
class App;
}

namespace vetchling::cli {

void addAdviseCommand(CLI::App& app, int& status);

} // namespace vetchling::cli

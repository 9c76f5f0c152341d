#pragma once
/// chain, match, feed: what lies between an antenna and the radio.

namespace CLI {
class App;
}

namespace vetchling::cli {

void addFeedCommands(CLI::App& app, int& status);

} // namespace vetchling::cli

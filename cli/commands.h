#pragma once
/// vetchling-cli: the core on the command line. Results on stdout, faults on stderr, exit 0 or 2. See docs/cli.md.

namespace vetchling::cli {

int run(int argc, char** argv);

} // namespace vetchling::cli

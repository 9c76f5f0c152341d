#include "cli/output.h"

#include <fmt/chrono.h>
#include <fmt/format.h>

#include <csignal>
#include <cstdio>
#include <unistd.h>

namespace vetchling::cli {
namespace {

volatile std::sig_atomic_t interrupted = 0;

void onInterrupt(int) { interrupted = 1; }

} // namespace

std::string localTime()
{
    const std::time_t seconds = std::time(nullptr);
    return fmt::format("{:%Y-%m-%dT%H:%M}", fmt::localtime(seconds));
}

int report(const Faults& faults)
{
    for (const Fault& fault : faults)
        fmt::print(stderr, "{}\n", fault.text());
    return exitBad;
}

Watch terminalWatch()
{
    std::signal(SIGINT, onInterrupt);
    const Watch watch([] { return interrupted != 0; });
    if (!isatty(STDERR_FILENO))
        return watch;
    return watch.with([](double done) { fmt::print(stderr, "\r{:3.0f} %{}", 100.0 * done, done >= 1.0 ? "\n" : ""); });
}

} // namespace vetchling::cli

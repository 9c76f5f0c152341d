#include "bench/reporter.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>

namespace vetchling::bench {
namespace {

double counter(const benchmark::BenchmarkReporter::Run& run, const char* name)
{
    const auto found = run.counters.find(name);
    return found == run.counters.end() ? 0.0 : found->second.value;
}

} // namespace

void RatioReporter::ReportRuns(const std::vector<Run>& runs)
{
    for (const Run& run : runs) {
        if (run.run_type == Run::RT_Aggregate && run.aggregate_name != "median")
            continue;
        if (run.run_type == Run::RT_Iteration && run.repetitions > 1)
            continue;
        const double given = counter(run, "milliseconds"); // percentiles measure themselves
        m_rows.push_back({run.run_name.function_name, given > 0.0 ? given : run.GetAdjustedRealTime(), counter(run, "goal"),
                          counter(run, "unknowns"), counter(run, "solves"), counter(run, "error")});
    }
}

void RatioReporter::Finalize()
{
    const auto found = std::find_if(m_rows.begin(), m_rows.end(), [](const Row& r) { return r.name == unitName; });
    const double unit = found == m_rows.end() ? 0.0 : found->milliseconds;
    if (m_json) {
        auto out = nlohmann::ordered_json::array();
        for (const Row& r : m_rows)
            out.push_back({{"name", r.name},
                           {"time_U", unit > 0.0 ? r.milliseconds / unit : 0.0},
                           {"goal_U", r.goal},
                           {"milliseconds", r.milliseconds},
                           {"unknowns", int(r.unknowns)},
                           {"solves", int(r.solves)},
                           {"error_percent", r.error}});
        fmt::print("{}\n", out.dump(1));
        return;
    }
    fmt::print("{:<14} {:>9} {:>8} {:>10} {:>9} {:>7} {:>9}\n", "name", "time/U", "goal/U", "ms", "unknowns", "solves", "error %");
    for (const Row& r : m_rows)
        fmt::print("{:<14} {:>9.3f} {:>8} {:>10.3f} {:>9} {:>7} {:>9}\n", r.name, unit > 0.0 ? r.milliseconds / unit : 0.0,
                   r.goal > 0.0 ? fmt::format("{:g}", r.goal) : "-", r.milliseconds,
                   r.unknowns > 0 ? fmt::format("{:.0f}", r.unknowns) : "-", r.solves > 0 ? fmt::format("{:.0f}", r.solves) : "-",
                   r.error > 0 ? fmt::format("{:.3f}", r.error) : "-");
    fmt::print("U is one zgesv of 500 complex unknowns on one thread in this run; drag goals are in milliseconds\n");
}

} // namespace vetchling::bench

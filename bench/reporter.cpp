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

double median(std::vector<double> values)
{
    if (values.empty())
        return 0.0;
    std::sort(values.begin(), values.end());
    return values[values.size() / 2];
}

} // namespace

RatioReporter::Row& RatioReporter::rowOf(const std::string& name)
{
    const auto found = std::find_if(m_rows.begin(), m_rows.end(), [&](const Row& r) { return r.name == name; });
    if (found != m_rows.end())
        return *found;
    m_rows.push_back({name, {}, {}});
    return m_rows.back();
}

void RatioReporter::ReportRuns(const std::vector<Run>& runs)
{
    for (const Run& run : runs) {
        if (run.run_type != Run::RT_Iteration)
            continue;
        Row& row = rowOf(run.run_name.function_name);
        const double given = counter(run, "milliseconds"); // what measures itself
        row.goalInMilliseconds = given > 0.0;
        const double time = given > 0.0 ? given : run.GetAdjustedRealTime(), unit = counter(run, "unit");
        row.milliseconds.push_back(time);
        if (unit > 0.0)
            row.ratios.push_back(time / unit);
        row.goal = counter(run, "goal");
        row.unknowns = counter(run, "unknowns");
        row.solves = counter(run, "solves");
        row.error = counter(run, "error");
    }
}

void RatioReporter::Finalize() { m_json ? printJson() : printTable(); }

void RatioReporter::printJson() const
{
    auto out = nlohmann::ordered_json::array();
    for (const Row& r : m_rows)
        out.push_back({{"name", r.name},
                       {"time_U", median(r.ratios)},
                       {r.goalInMilliseconds ? "goal_ms" : "goal_U", r.goal},
                       {"milliseconds", median(r.milliseconds)},
                       {"unknowns", int(r.unknowns)},
                       {"solves", int(r.solves)},
                       {"error_percent", r.error}});
    fmt::print("{}\n", out.dump(1));
}

void RatioReporter::printTable() const
{
    fmt::print("{:<28} {:>9} {:>9} {:>10} {:>9} {:>7} {:>9}\n", "name", "time/U", "goal", "ms", "unknowns", "solves", "error %");
    for (const Row& r : m_rows)
        fmt::print("{:<28} {:>9} {:>9} {:>10.3f} {:>9} {:>7} {:>9}\n", r.name,
                   r.ratios.empty() ? "-" : fmt::format("{:.3f}", median(r.ratios)),
                   r.goal > 0.0 ? fmt::format("{:g} {}", r.goal, r.goalInMilliseconds ? "ms" : "U") : "-", median(r.milliseconds),
                   r.unknowns > 0 ? fmt::format("{:.0f}", r.unknowns) : "-", r.solves > 0 ? fmt::format("{:.0f}", r.solves) : "-",
                   r.error > 0 ? fmt::format("{:.3f}", r.error) : "-");
    fmt::print("U is one zgesv of 500 complex unknowns on one thread, timed beside each case; ratios are medians of pairs\n");
}

} // namespace vetchling::bench

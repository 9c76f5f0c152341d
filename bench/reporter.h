#pragma once
/// Prints results as ratios to U, the time of one zgesv of 500 complex unknowns on one thread, as a table or as JSON.

#include <benchmark/benchmark.h>

namespace vetchling::bench {

class RatioReporter : public benchmark::BenchmarkReporter {
public:
    explicit RatioReporter(bool json) : m_json(json) {}
    bool ReportContext(const Context&) override { return true; }
    void ReportRuns(const std::vector<Run>& runs) override;
    void Finalize() override;

private:
    struct Row {
        std::string name;
        double milliseconds, goal, unknowns, solves, error;
    };
    bool m_json;
    std::vector<Row> m_rows;
};

inline constexpr const char* unitName = "U";

} // namespace vetchling::bench

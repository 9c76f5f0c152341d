#pragma once
/// Prints results as ratios to U (unit.h), as a table or as JSON. A ratio is the median of pairs: each repetition of a case against the
/// units timed right before and after it.

#include <benchmark/benchmark.h>

#include <string>
#include <vector>

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
        std::vector<double> milliseconds, ratios;
        double goal = 0.0, unknowns = 0.0, solves = 0.0, error = 0.0;
        bool goalInMilliseconds = false;
    };
    Row& rowOf(const std::string& name);
    void printJson() const;
    void printTable() const;
    bool m_json;
    std::vector<Row> m_rows;
};

} // namespace vetchling::bench

#include "core/em/sweep.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vetchling::em {
namespace {

constexpr int latticeLevels = 12; // the nested set has 2^12 steps over the range
constexpr int firstStep = 1 << (latticeLevels - 4);
constexpr int quietRounds = 2;    // fits must agree this many times running
constexpr double fitTolerance = 1e-6;

/// How much a difference of reflection coefficients matters to the SWR, relative.
double swrDifference(Complex a, Complex b)
{
    const double room = std::max(0.0, 1.0 - std::norm(a));
    return 2.0 * std::abs(a - b) / (room + 0.05);
}

class Sampler {
public:
    Sampler(std::shared_ptr<const WireModel> model, const SweepOptions& options, GroundTableCache& tables, const Watch& watch, const SampleSink& sink)
        : m_model(std::move(model)), m_options(options), m_tables(tables), m_watch(watch), m_sink(sink)
    {
    }

    Result<ImpedanceCurve> run()
    {
        for (int i = 0; i <= 1 << latticeLevels; i += firstStep)
            if (!sample(i))
                return m_faults;
        refit();
        int quiet = 0;
        while (quiet < quietRounds && int(m_samples.size()) < m_options.mostSolves) {
            const std::optional<int> next = mostDoubtful();
            if (!next)
                break;
            const Complex predicted = m_now.at(coordinate(*next));
            if (!sample(*next))
                return m_faults;
            const double missed = swrDifference(m_samples[*next], predicted);
            refit();
            quiet = missed < m_options.swrTolerance && m_doubt < m_options.swrTolerance ? quiet + 1 : 0;
            m_watch.report(std::min(0.95, double(m_samples.size()) / m_options.mostSolves));
        }
        m_watch.report(1.0);
        return curve(quiet >= quietRounds);
    }

private:
    double coordinate(int index) const { return double(index) / (1 << latticeLevels); }
    double frequencyOf(int index) const { return m_options.from * std::pow(m_options.to / m_options.from, coordinate(index)); }

    bool sample(int index)
    {
        const Result<Solution> solution = solve(m_model, frequencyOf(index), m_tables, m_options.solve, m_watch);
        if (!solution) {
            m_faults = solution.faults();
            return false;
        }
        const Complex z = solution->impedance;
        m_samples[index] = (z - m_options.reference) / (z + m_options.reference);
        m_worstError = std::max(m_worstError, solution->impedanceErrorPercent);
        if (m_sink)
            m_sink(*solution);
        return true;
    }

    void refit()
    {
        std::vector<double> x;
        std::vector<Complex> y;
        for (const auto& [index, value] : m_samples) {
            x.push_back(coordinate(index));
            y.push_back(value);
        }
        m_before = m_now.empty() ? RationalFit(x, y, 1e-2) : m_now;
        m_now = RationalFit(x, y, fitTolerance);
    }

    /// The middle of the gap in which the last two fits differ most; a gap without doubt is judged by its width too.
    std::optional<int> mostDoubtful()
    {
        std::optional<int> chosen;
        double best = 0.0;
        m_doubt = 0.0;
        for (auto it = m_samples.begin(), next = std::next(it); next != m_samples.end(); ++it, ++next) {
            const int gap = next->first - it->first;
            if (gap < 2)
                continue;
            double difference = 0.0;
            for (double part : {0.15, 0.3, 0.5, 0.7, 0.85}) {
                const double x = coordinate(it->first) + part * coordinate(gap);
                difference = std::max(difference, swrDifference(m_now.at(x), m_before.at(x)));
                if (std::abs(m_now.at(x)) > 1.02) // no passive antenna reflects more than it gets
                    difference += 1.0;
            }
            m_doubt = std::max(m_doubt, difference);
            const double score = difference + 1e-4 * gap / firstStep;
            if (score > best)
                best = score, chosen = it->first + gap / 2;
        }
        return chosen;
    }

    ImpedanceCurve curve(bool converged)
    {
        ImpedanceCurve out;
        out.from = m_options.from;
        out.to = m_options.to;
        out.reference = m_options.reference;
        for (const auto& [index, value] : m_samples) {
            out.sampled.push_back(frequencyOf(index));
            out.impedances.push_back(m_options.reference * (1.0 + value) / (1.0 - value));
        }
        out.reflection = m_now;
        out.worstErrorPercent = m_worstError;
        out.converged = converged;
        out.solves = int(m_samples.size());
        return out;
    }

    std::shared_ptr<const WireModel> m_model;
    const SweepOptions& m_options;
    GroundTableCache& m_tables;
    const Watch& m_watch;
    const SampleSink& m_sink;
    std::map<int, Complex> m_samples; // lattice index -> reflection coefficient
    RationalFit m_now, m_before;
    double m_doubt = 0.0, m_worstError = 0.0;
    Faults m_faults;
};

} // namespace

Complex ImpedanceCurve::at(double frequency) const
{
    const Complex g = reflection.at(std::log(frequency / from) / std::log(to / from));
    return reference * (1.0 + g) / (1.0 - g);
}

double ImpedanceCurve::swrAt(double frequency) const { return swr(at(frequency), reference); }

std::vector<double> ImpedanceCurve::displayFrequencies(double first, double last) const
{
    constexpr int scanPieces = 3000, evenPieces = 48, deepest = 8;
    const auto capped = [&](double f) { return std::min(swrAt(f), 12.0); };
    std::vector<double> breaks;
    double before = 12.0, here = 12.0;
    for (int i = 0; i <= scanPieces; ++i) { // even steps and every dip, however narrow
        const double f = first + (last - first) * i / scanPieces, next = capped(f);
        if (i > 0 && here < before && here <= next)
            breaks.push_back(f - (last - first) / scanPieces);
        if (i % (scanPieces / evenPieces) == 0 || i == scanPieces)
            breaks.push_back(f);
        before = here;
        here = next;
    }
    for (double f : sampled)
        if (f > first && f < last)
            breaks.push_back(f);
    std::sort(breaks.begin(), breaks.end());
    breaks.erase(std::unique(breaks.begin(), breaks.end()), breaks.end());

    std::vector<double> out{breaks.front()};
    const std::function<void(double, double, double, double, int)> add = [&](double a, double sa, double b, double sb, int depth) {
        const double middle = 0.5 * (a + b), s = capped(middle), quarter = capped(0.75 * a + 0.25 * b);
        const bool straight = std::abs(s - 0.5 * (sa + sb)) < 0.005 * s && std::abs(quarter - 0.75 * sa - 0.25 * sb) < 0.005 * quarter;
        if (straight || depth >= deepest) {
            out.push_back(b);
            return;
        }
        add(a, sa, middle, s, depth + 1);
        add(middle, s, b, sb, depth + 1);
    };
    for (std::size_t i = 1; i < breaks.size(); ++i)
        add(breaks[i - 1], capped(breaks[i - 1]), breaks[i], capped(breaks[i]), 0);
    return out;
}

Result<ImpedanceCurve> sweep(std::shared_ptr<const WireModel> model, const SweepOptions& options, GroundTableCache& tables, const Watch& watch,
                             const SampleSink& sink)
{
    Faults faults = findFrequencyFaults(options.from, "from");
    for (Fault& fault : findFrequencyFaults(options.to, "to"))
        faults.push_back(std::move(fault));
    if (faults.empty() && !(options.to > options.from))
        faults.push_back({"to", "must be above the first frequency"});
    if (!faults.empty())
        return faults;
    return Sampler(std::move(model), options, tables, watch, sink).run();
}

} // namespace vetchling::em

#include "core/em/sweep.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <mutex>
#include <optional>

namespace vetchling::em {
namespace {

constexpr double widestStep = 0.25;     // octaves between the first samples
constexpr int fewestSteps = 4;          // over a narrow range
constexpr double finestGap = 1.0 / 512; // octaves; a narrower one is not halved
constexpr std::size_t batch = 4;        // most solves between two fits; the fits cost as much as the solves
constexpr double sharedMeshPart = 0.75; // of the top frequency; coarser by a third there, still within 0.1 %
constexpr double longestShared = 20.0;  // wavelengths
constexpr int largestShared = 320;      // unknowns
constexpr double narrow = 1.3;          // ratio of the range's ends: its mesh would hardly change, so it is shared
constexpr double narrowShared = 2.0;    // by models larger by this
constexpr double fitTolerance = 1e-4;   // above the jumps that a mesh changing with frequency makes

/// How much a difference of reflection coefficients matters to the SWR, relative.
double swrDifference(Complex a, Complex b)
{
    const double room = std::max(0.0, 1.0 - std::norm(a));
    return 2.0 * std::abs(a - b) / (room + 0.05);
}

class Sampler {
public:
    Sampler(std::shared_ptr<const WireModel> model, const SweepOptions& options, GroundTableCache& tables, const Watch& watch,
            const SampleSink& sink)
        : m_model(std::move(model)), m_options(options), m_tables(tables), m_watch(watch), m_sink(sink)
    {
    }

    Result<ImpedanceCurve> run()
    {
        shareMesh();
        const std::vector<double> first = firstPlaces();
        if (!sample(first))
            return m_faults;
        refit();
        bool agreed = false;
        while (!agreed && int(m_samples.size()) < m_options.mostSolves) {
            const std::vector<double> next = mostDoubtful();
            if (next.empty())
                break;
            std::vector<Complex> predicted;
            for (double place : next)
                predicted.push_back(m_now.at(coordinate(place)));
            if (!sample(next))
                return m_faults;
            double missed = 0.0;
            for (std::size_t i = 0; i < next.size(); ++i)
                missed = std::max(missed, swrDifference(m_samples[next[i]], predicted[i]));
            agreed = missed < m_options.swrTolerance && m_doubt < m_options.swrTolerance;
            refit();
            m_watch.report(std::min(0.95, double(m_samples.size()) / m_options.mostSolves));
        }
        m_watch.report(1.0);
        return curve(agreed);
    }

private:
    /// One mesh for all frequencies, where it stays small: a mesh that changes with frequency makes the impedance jump
    /// by its own error, which a rational fit chases in vain.
    void shareMesh()
    {
        MeshOptions shared = m_options.solve.mesh;
        shared.meshFrequency = sharedMeshPart * m_options.to;
        const double more = m_options.to < narrow * m_options.from ? narrowShared : 1.0;
        if (m_model->totalLength() / wavelength(m_options.to) < more * longestShared &&
            makeMesh(*m_model, m_options.to, shared).unknowns <= more * largestShared)
            m_prepared.emplace(m_model, shared, m_options.to, m_watch);
    }

    Result<Solution> solved(double frequency, const Watch& watch) const
    {
        return m_prepared ? m_prepared->solve(frequency, m_tables, watch) : solve(m_model, frequency, m_tables, m_options.solve, watch);
    }

    /// Places are octaves above 1 MHz. All but the ends of the range lie on whole fractions of an octave, the same ones for
    /// every range and antenna, so that sweeps share the soil's tables.
    static double placeOf(double frequency) { return std::log2(frequency / 1e6); }
    double frequencyOf(double place) const
    {
        return place <= m_first ? m_options.from : place >= m_last ? m_options.to : 1e6 * std::exp2(place);
    }
    double coordinate(double place) const { return (place - m_first) / (m_last - m_first); }

    std::vector<double> firstPlaces()
    {
        m_step = widestStep;
        while ((m_last - m_first) / m_step < fewestSteps)
            m_step *= 0.5;
        std::vector<double> places{m_first};
        for (double p = std::ceil(m_first / m_step) * m_step; p < m_last - 0.2 * m_step; p += m_step)
            if (p > m_first + 0.2 * m_step)
                places.push_back(p);
        places.push_back(m_last);
        return places;
    }

    /// The roundest place near the middle of a gap.
    static double middleOf(double a, double b)
    {
        const double step = std::exp2(std::floor(std::log2(0.5 * (b - a))));
        return std::round(0.5 * (a + b) / step) * step;
    }

    /// Solves at several places at once; false if one failed or a stop was asked for.
    bool sample(const std::vector<double>& places)
    {
        std::mutex mutex; // guards everything but the solve itself, the caller's functions too
        tbb::parallel_for(std::size_t(0), places.size(), [&](std::size_t i) {
            {
                const std::lock_guard lock(mutex);
                if (!m_faults.empty())
                    return;
                if (m_watch.stopped()) {
                    m_faults = {stoppedFault()};
                    return;
                }
            }
            const Result<Solution> solution = solved(frequencyOf(places[i]), m_watch.with({}));
            const std::lock_guard lock(mutex);
            if (!solution) {
                m_faults = solution.faults();
                return;
            }
            const Complex z = solution->impedance;
            m_samples[places[i]] = (z - m_options.reference) / (z + m_options.reference);
            m_worstError = std::max(m_worstError, solution->impedanceErrorPercent);
            if (m_sink)
                m_sink(*solution);
        });
        return m_faults.empty();
    }

    void refit()
    {
        std::vector<double> x;
        std::vector<Complex> y;
        for (const auto& [place, value] : m_samples) {
            x.push_back(coordinate(place));
            y.push_back(value);
        }
        m_before = m_now.empty() ? RationalFit(x, y, 1e-2) : m_now;
        m_now = RationalFit(x, y, fitTolerance);
    }

    /// The middles of the gaps in which the last two fits differ most; a gap without doubt is judged by its width too.
    std::vector<double> mostDoubtful()
    {
        std::vector<std::pair<double, double>> gaps;
        m_doubt = 0.0;
        for (auto it = m_samples.begin(), next = std::next(it); next != m_samples.end(); ++it, ++next) {
            const double gap = next->first - it->first;
            if (gap < std::min(finestGap, 0.1 * m_step))
                continue;
            double difference = 0.0;
            for (double part : {0.15, 0.3, 0.5, 0.7, 0.85}) {
                const double x = coordinate(it->first + part * gap);
                difference = std::max(difference, swrDifference(m_now.at(x), m_before.at(x)));
                if (std::abs(m_now.at(x)) > 1.02) // no passive antenna reflects more than it gets
                    difference += 1.0;
            }
            m_doubt = std::max(m_doubt, difference);
            gaps.emplace_back(difference + 1e-4 * gap / m_step, middleOf(it->first, next->first));
        }
        std::sort(gaps.rbegin(), gaps.rend());
        std::vector<double> chosen;
        for (const auto& [score, place] : gaps)
            if (chosen.size() < batch && (chosen.size() < 2 || score > m_options.swrTolerance))
                chosen.push_back(place);
        return chosen;
    }

    ImpedanceCurve curve(bool converged)
    {
        ImpedanceCurve out;
        out.from = m_options.from;
        out.to = m_options.to;
        out.reference = m_options.reference;
        for (const auto& [place, value] : m_samples) {
            out.sampled.push_back(frequencyOf(place));
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
    std::map<double, Complex> m_samples; // place -> reflection coefficient
    double m_first = placeOf(m_options.from), m_last = placeOf(m_options.to), m_step = widestStep;
    RationalFit m_now, m_before;
    double m_doubt = 0.0, m_worstError = 0.0;
    Faults m_faults;
    std::optional<PreparedModel> m_prepared;
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

Result<ImpedanceCurve> sweep(std::shared_ptr<const WireModel> model, const SweepOptions& options, GroundTableCache& tables,
                             const Watch& watch, const SampleSink& sink)
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

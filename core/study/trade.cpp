#include "core/study/trade.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

class Trader {
public:
    Trader(Library& library, const Subject& subject, double frequency, const TradeOptions& options, const Watch& watch)
        : m_library(library), m_subject(subject), m_frequency(frequency), m_options(options), m_watch(watch), m_quiet(watch.with({})),
          m_family(shapes::familyOf(subject.shape))
    {
    }

    Result<TradeCurve> run()
    {
        const std::vector<shapes::Trade> all = m_family.trades();
        if (all.empty())
            return Fault{"", {coreText("core", "%1 has nothing to trade: it is not shortened"), m_family.title()}};
        m_curve.what = all[std::min(m_options.pair, all.size() - 1)];
        const double present = m_family.value(m_subject.shape, m_curve.what.free);
        const int below = m_options.points / 2; // the present one lies in the middle, so that both sides start from it
        walk(present, m_options.from, below);
        std::reverse(m_curve.points.begin(), m_curve.points.end());
        add(present);
        walk(present, m_options.to, m_options.points - 1 - below);
        if (m_watch.stopped())
            return stoppedFault();
        std::sort(m_curve.points.begin(), m_curve.points.end(), [](const TradePoint& a, const TradePoint& b) { return a.free < b.free; });
        if (m_curve.points.empty())
            return m_faults;
        return m_curve;
    }

private:
    /// From the present value outwards, each tuned from the one before; ends where nothing is resonant.
    void walk(double present, double outermost, int count)
    {
        const shapes::AntennaShape start = m_subject.shape;
        for (int i = 1; i <= count && !m_watch.stopped(); ++i)
            if (!add(present * (1.0 + (outermost - 1.0) * i / count)))
                break;
        m_subject.shape = start;
    }

    bool add(double free)
    {
        const shapes::ParameterSpec* spec = m_family.spec(m_subject.shape, m_curve.what.free);
        if (free < spec->lowest || free > spec->highest)
            return false;
        m_subject.shape.parameters[m_curve.what.free] = free;
        std::optional<TradePoint> point = solved(true);
        if (!point)
            point = solved(false); // from the rule's value
        if (!point)
            return false;
        point->free = free;
        m_curve.points.push_back(*point);
        m_watch.report(double(m_curve.points.size()) / m_options.points);
        return true;
    }

    std::optional<TradePoint> solved(bool fromNeighbour)
    {
        TuneOptions tuning;
        tuning.startFromPresent = fromNeighbour;
        tuning.configuration = m_subject.configuration;
        const auto tuned = tune(m_subject.shape, m_subject.ground, m_curve.what.solved, m_frequency, m_library.tables(), tuning, m_quiet);
        if (!tuned) {
            m_faults = tuned.faults();
            return std::nullopt;
        }
        m_subject.shape.parameters[m_curve.what.solved] = tuned->value;
        const auto studied = m_library.study(m_subject);
        if (!studied)
            return std::nullopt;
        TradePoint point;
        point.solved = tuned->value;
        point.resistance = tuned->impedance.real();
        for (const shapes::WireSection& s : studied->built->sections)
            point.longestPiece = std::max(point.longestPiece, s.length);
        const auto ledger = studied->study->ledger(m_frequency, m_quiet);
        const std::optional<double> slope = reactanceSlope(studied->built->atLine());
        if (!ledger || !slope)
            return std::nullopt;
        point.efficiency = (*ledger)->sky;
        const double quality = 0.5 * m_frequency * *slope / point.resistance;
        point.width = m_frequency / (std::sqrt(2.0) * quality);
        return point;
    }

    /// |dZ/df|, ohm a hertz.
    std::optional<double> reactanceSlope(const WireModel& line)
    {
        constexpr double aside = 5e-4; // of the frequency
        const auto model = std::make_shared<const WireModel>(line);
        const auto low = em::solve(model, (1.0 - aside) * m_frequency, m_library.tables(), {}, m_quiet);
        const auto high = em::solve(model, (1.0 + aside) * m_frequency, m_library.tables(), {}, m_quiet);
        if (!low || !high)
            return std::nullopt;
        return std::abs(high->impedance - low->impedance) / (2.0 * aside * m_frequency);
    }

    Library& m_library;
    Subject m_subject;
    double m_frequency;
    const TradeOptions& m_options;
    const Watch& m_watch;
    const Watch m_quiet; ///< for what is only a part of the whole
    const shapes::Family& m_family;
    TradeCurve m_curve;
    Faults m_faults{{"", coreText("core", "nothing of it is resonant")}};
};

} // namespace

Result<TradeCurve> tradeCurve(Library& library, const Subject& subject, double frequency, const TradeOptions& options, const Watch& watch)
{
    return unlessStopped(watch, Trader(library, subject, frequency, options, watch).run());
}

} // namespace vetchling::study

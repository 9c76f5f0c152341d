#include "core/trim/site_fit.h"

#include "core/design/unread.h"
#include "core/study/answers.h"
#include "core/trim/sense.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr std::size_t unknowns = 4;
using Vector = std::array<double, unknowns>;
enum Unknown { Permittivity, Conductivity, Higher, Longer };

constexpr Vector prior{0.35, 0.7, 0.3, 0.012};                             // one standard deviation: of logarithms, m, part
constexpr Vector fitStep{0.15, 0.3, 0.15, 0.005};                          // for slopes
constexpr double dipNoise = 6e-4, swrNoise = 0.08, resistanceNoise = 0.07; // of the value
constexpr std::size_t mostMeasurements = 6;
constexpr double farOff = 0.12;     // of a band's centre, that a dip is looked for
constexpr double besideBand = 0.06; // of a band's edge, that its dip may lie outside

/// One thing that was read, or its model.
struct Datum {
    double value = 0.0, noise = 1.0;
};

struct State {
    shapes::AntennaShape shape; ///< as logged, as high as it hung
    std::size_t configuration = 0;
    double target = 0.0;
    const Measurement* read = nullptr;
};

class Fitter {
public:
    Fitter(study::Library& library, const Design& design, const Antenna& antenna, const Watch& watch)
        : m_library(library), m_design(design), m_antenna(antenna), m_watch(watch), m_quiet(watch.with({})), m_tasks(trimTasks(antenna)),
          m_subject(trimQuestionOf(design, antenna).subject)
    {
    }

    Result<SiteFit> run()
    {
        if (Faults faults = gather(); !faults.empty())
            return faults;
        const auto plan = modelled({});
        if (!plan)
            return plan.faults();
        std::vector<std::vector<Datum>> with(unknowns);
        for (std::size_t k = 0; k < unknowns; ++k) {
            Vector u{};
            u[k] = fitStep[k];
            const auto there = modelled(u);
            if (!there)
                return there.faults();
            with[k] = *there;
            m_watch.report(0.12 * double(k + 1));
        }
        const auto slope = [&](std::size_t row, std::size_t k) { return (with[k][row].value - (*plan)[row].value) / fitStep[k]; };
        // normal equations with the priors, as a symmetric matrix of four
        std::array<Vector, unknowns> matrix{};
        for (std::size_t k = 0; k < unknowns; ++k)
            matrix[k][k] = 1.0 / (prior[k] * prior[k]);
        for (std::size_t row = 0; row < m_read.size(); ++row)
            for (std::size_t i = 0; i < unknowns; ++i)
                for (std::size_t k = 0; k < unknowns; ++k)
                    matrix[i][k] += slope(row, i) * slope(row, k) / (m_read[row].noise * m_read[row].noise);
        const auto inverse = inverted(matrix);
        Vector u{};
        std::vector<Datum> here = *plan;
        for (int step = 0; step < 2; ++step) {
            Vector right{};
            for (std::size_t i = 0; i < unknowns; ++i) {
                right[i] = -u[i] / (prior[i] * prior[i]);
                for (std::size_t row = 0; row < m_read.size(); ++row)
                    right[i] += slope(row, i) * (m_read[row].value - here[row].value) / (m_read[row].noise * m_read[row].noise);
            }
            for (std::size_t i = 0; i < unknowns; ++i)
                for (std::size_t k = 0; k < unknowns; ++k)
                    u[i] += inverse[i][k] * right[k];
            const auto there = modelled(u);
            if (!there)
                return there.faults();
            here = *there;
        }
        m_watch.report(0.7);
        SiteFit fit = told(u, inverse);
        fit.before = misfit(*plan);
        fit.after = misfit(here);
        if (Faults faults = predict(fit, u, inverse); !faults.empty())
            return faults;
        return fit;
    }

private:
    Faults gather()
    {
        m_log = asReadByOne(m_antenna.trim.measurements);
        const std::vector<Measurement>& log = m_log;
        if (log.empty() || m_tasks.empty())
            return {{"", coreText("core", "there is nothing measured yet to learn from")}};
        study::Subject drawn = m_subject;
        const auto built = m_library.study(drawn);
        const double height = built ? heightOf(*built->built) : 0.0;
        const std::size_t first = log.size() > mostMeasurements ? log.size() - mostMeasurements : 0;
        for (std::size_t i = first; i < log.size(); ++i) {
            const TrimTask& task = m_tasks[taskOf(m_tasks, log[i])];
            const double higher = log[i].height && height > 0.0 ? *log[i].height - height : 0.0;
            m_states.push_back({raised(asLogged(m_antenna, i + 1), higher), task.configuration, task.target, &log[i]});
            for (const Datum& d : readOf(log[i]))
                m_read.push_back(d);
        }
        return {};
    }

    /// Dip, the logarithm of its SWR, and that of the resistance there where the sweep was the feedpoint's.
    static std::vector<Datum> readOf(const Measurement& m)
    {
        std::vector<Datum> out{{m.dip, dipNoise * m.dip}};
        if (m.dipSwr > 0.0)
            out.push_back({std::log(m.dipSwr), swrNoise});
        if (const auto r = resistanceAtDip(m))
            out.push_back({std::log(*r), resistanceNoise});
        return out;
    }

    static std::optional<double> resistanceAtDip(const Measurement& m)
    {
        if (m.impedance.empty())
            return std::nullopt;
        std::size_t best = 0;
        for (std::size_t i = 0; i < m.sweep.size(); ++i)
            if (std::abs(m.sweep[i].first - m.dip) < std::abs(m.sweep[best].first - m.dip))
                best = i;
        const double r = m.impedance[best].real();
        return r > 1.0 ? std::optional(r) : std::nullopt;
    }

    [[nodiscard]] study::Subject subjectOf(const shapes::AntennaShape& shape, std::size_t configuration, const Vector& u) const
    {
        study::Subject s = m_subject;
        s.shape = raised(shape, u[Higher]);
        s.configuration = configuration;
        const shapes::Family& family = shapes::familyOf(shape);
        for (const TrimTask& t : m_tasks)
            if (const shapes::ParameterSpec* spec = family.spec(shape, t.lever.parameter);
                spec && spec->quantity == units::Quantity::Length)
                s.shape =
                    family.levered(s.shape, t.lever.parameter,
                                   family.value(shape, t.lever.parameter) + u[Longer] * family.value(m_antenna.shape, t.lever.parameter));
        s.ground.relativePermittivity = std::max(1.5, s.ground.relativePermittivity * std::exp(u[Permittivity]));
        s.ground.conductivity *= std::exp(u[Conductivity]);
        return s;
    }

    Result<std::vector<Datum>> modelled(const Vector& u)
    {
        std::vector<Datum> out;
        for (const State& state : m_states) {
            const auto curve = curveNear(subjectOf(state.shape, state.configuration, u), state.target);
            if (!curve)
                return curve.faults();
            const double dip = (*curve)->fundamental;
            out.push_back({dip, 1.0});
            if (state.read->dipSwr > 0.0)
                out.push_back({std::log((*curve)->swrAt(dip)), 1.0});
            if (resistanceAtDip(*state.read))
                out.push_back({std::log(std::max(1.0, (*curve)->atLine(dip).real())), 1.0});
        }
        return out;
    }

    Result<study::CurvePointer> curveNear(study::Subject subject, double frequency)
    {
        study::Question q;
        subject.shape.designFrequency = frequency;
        q.subject = std::move(subject);
        WantedBand own;
        own.band = {"own", (1.0 - farOff) * frequency, (1.0 + farOff) * frequency};
        own.wish = Wish::Must;
        own.id = "own";
        q.bands = {own};
        return study::curveOf(m_library, q, m_quiet);
    }

    [[nodiscard]] double misfit(const std::vector<Datum>& model) const
    {
        double sum = 0.0;
        for (std::size_t i = 0; i < m_read.size(); ++i)
            sum += std::pow((model[i].value - m_read[i].value) / m_read[i].noise, 2);
        return std::sqrt(sum / double(m_read.size()));
    }

    /// By Gauss and Jordan; the priors keep it well posed.
    static std::array<Vector, unknowns> inverted(std::array<Vector, unknowns> a)
    {
        std::array<Vector, unknowns> out{};
        for (std::size_t i = 0; i < unknowns; ++i)
            out[i][i] = 1.0;
        for (std::size_t c = 0; c < unknowns; ++c) {
            const double pivot = a[c][c];
            for (std::size_t k = 0; k < unknowns; ++k)
                a[c][k] /= pivot, out[c][k] /= pivot;
            for (std::size_t r = 0; r < unknowns; ++r) {
                if (r == c)
                    continue;
                const double times = a[r][c];
                for (std::size_t k = 0; k < unknowns; ++k)
                    a[r][k] -= times * a[c][k], out[r][k] -= times * out[c][k];
            }
        }
        return out;
    }

    [[nodiscard]] SiteFit told(const Vector& u, const std::array<Vector, unknowns>& covariance) const
    {
        const auto sure = [&](Unknown k) { return std::sqrt(covariance[k][k]); };
        SiteFit fit;
        fit.measurements = int(m_states.size());
        const Ground& ground = m_subject.ground;
        fit.permittivity.value = std::max(1.5, ground.relativePermittivity * std::exp(u[Permittivity]));
        fit.permittivity.sure = fit.permittivity.value * sure(Permittivity);
        fit.conductivity.value = ground.conductivity * std::exp(u[Conductivity]);
        fit.conductivity.sure = fit.conductivity.value * sure(Conductivity);
        fit.higher = {u[Higher], sure(Higher)};
        fit.longer = {u[Longer], sure(Longer)};
        return fit;
    }

    /// Dips of the wished bands with the fit, and how far they may be off by what is not known better.
    Faults predict(SiteFit& fit, const Vector& u, const std::array<Vector, unknowns>& covariance)
    {
        const shapes::AntennaShape now = asLogged(m_antenna);
        const auto configurations = shapes::familyOf(now).configurations(now);
        for (const WantedBand& wanted : m_design.operation.bands) {
            if (wanted.wish == Wish::No)
                continue;
            const double centre = 0.5 * (wanted.band.from + wanted.band.to);
            std::size_t configuration = 0;
            for (std::size_t i = 0; i < configurations.size(); ++i)
                if (std::abs(configurations[i].frequency - centre) < std::abs(configurations[configuration].frequency - centre))
                    configuration = i;
            const auto dipOf = [&](const shapes::AntennaShape& shape, const Vector& at) -> std::optional<double> {
                const auto curve = curveNear(subjectOf(shape, configuration, at), centre);
                const double found = curve ? (*curve)->fundamental : 0.0;
                if (!(found > (1.0 - besideBand) * wanted.band.from && found < (1.0 + besideBand) * wanted.band.to) ||
                    !((*curve)->swrAt(found) < 5.0))
                    return std::nullopt;
                return found;
            };
            const auto dip = [&](const Vector& at) { return dipOf(now, at); };
            const auto planned = dipOf(m_antenna.shape, {}), fitted = dip(u);
            if (m_watch.stopped())
                return {{"", coreText("core", "stopped")}};
            if (!planned || !fitted)
                continue;
            Vector gradient{};
            for (std::size_t k = 0; k < unknowns; ++k) {
                Vector other = u;
                other[k] += fitStep[k];
                gradient[k] = (dip(other).value_or(*fitted) - *fitted) / fitStep[k];
            }
            double variance = std::pow(dipNoise * *fitted, 2);
            for (std::size_t i = 0; i < unknowns; ++i)
                for (std::size_t k = 0; k < unknowns; ++k)
                    variance += gradient[i] * covariance[i][k] * gradient[k];
            fit.bands.push_back({wanted.id, wanted.band.name, *planned, {*fitted, std::sqrt(variance)}});
        }
        return {};
    }

    study::Library& m_library;
    const Design& m_design;
    const Antenna& m_antenna;
    const Watch& m_watch;
    const Watch m_quiet; ///< for what is only a part of the whole
    std::vector<TrimTask> m_tasks;
    study::Subject m_subject;
    std::vector<Measurement> m_log; ///< as one instrument reads
    std::vector<State> m_states;
    std::vector<Datum> m_read;
};

} // namespace

Result<SiteFit> fitSite(study::Library& library, const Design& design, const Antenna& antenna, const Watch& watch)
{
    if (const std::string where = unreadOf(design, antenna.id); !where.empty())
        return Fault{"", unreadWords(where)};
    return unlessStopped(watch, Fitter(library, design, antenna, watch).run());
}

void useFit(Design& design, const Id& id, const SiteFit& fit)
{
    Antenna* antenna = findAntenna(design, id);
    if (!antenna)
        return;
    const shapes::Family& family = shapes::familyOf(antenna->shape);
    shapes::AntennaShape shape = raised(antenna->shape, fit.higher.value);
    for (const TrimTask& t : trimTasks(*antenna))
        if (const shapes::ParameterSpec* spec = family.spec(shape, t.lever.parameter); spec && spec->quantity == units::Quantity::Length)
            shape = family.levered(shape, t.lever.parameter, (1.0 + fit.longer.value) * family.value(antenna->shape, t.lever.parameter));
    takeShape(*antenna, shape);
    Soil& soil = antenna->soil ? *antenna->soil : design.site.soil;
    makeOwn(soil, "as fitted");
    soil.relativePermittivity = fit.permittivity.value;
    soil.conductivity = fit.conductivity.value;
}

} // namespace vetchling

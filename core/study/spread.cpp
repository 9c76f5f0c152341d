#include "core/study/spread.h"

#include "core/shapes/section_cuts.h"
#include "core/study/configurations.h"
#include "core/study/windows.h"

#include <algorithm>
#include <cmath>
#include <random>

namespace vetchling::study {
namespace {

constexpr Unsure all[] = {Unsure::Height, Unsure::Soil, Unsure::Cut, Unsure::Jacket, Unsure::Unequal};
constexpr double sigmas = 2.0;    // of a tolerance
constexpr int draws = 1500;       // half of them the mirror image of the others
constexpr int samples = 161;      // of a band's reflection
constexpr int shownSamples = 41;  // of its SWR
constexpr double dipBeside = 0.1; // of a band's edges: its dip is looked for there
constexpr double dipOfBand = 0.03;
constexpr double lowPart = 0.25; // of its height above the ground that a wire near the ground may be off by

double towards(double middle, double end, double part) { return middle * std::pow(end / middle, part); }

/// Everything of the antenna's own so much higher; what lies low is known better than what hangs.
void raise(WireModel& model, double by)
{
    const double most = lowPart * std::max(0.0, model.lowestPoint()); // what goes into the soil stays where it is
    const double rise = std::clamp(by, -most, most);
    for (Wire& wire : model.wires)
        for (Vec3& p : wire.points)
            p.z += rise;
}

/// A wire's end.
struct WireEndPlace {
    std::size_t wire = 0;
    bool atStart = false;
};

/// The free end that is reached from an end of a wire, and the wire passed on the way, m; nothing where more than two wires meet.
std::optional<std::pair<WireEndPlace, double>> freeEnd(const WireModel& model, WireEndPlace from)
{
    double passed = 0.0;
    for (std::size_t steps = 0; steps <= model.wires.size(); ++steps) {
        const Wire& wire = model.wires[from.wire];
        const Vec3 here = from.atStart ? wire.points.front() : wire.points.back();
        std::vector<WireEndPlace> next;
        for (std::size_t w = 0; w < model.wires.size(); ++w)
            for (bool start : {true, false}) {
                const Vec3 there = start ? model.wires[w].points.front() : model.wires[w].points.back();
                if (!(w == from.wire && start == from.atStart) && distance(here, there) <= jointTolerance)
                    next.push_back({w, start});
            }
        if (next.empty())
            return std::pair{from, passed};
        if (next.size() > 1)
            return std::nullopt;
        passed += model.wires[next[0].wire].length();
        from = {next[0].wire, !next[0].atStart};
    }
    return std::nullopt; // a ring
}

void lengthen(WireModel& model, WireEndPlace end, double by)
{
    Wire& wire = model.wires[end.wire];
    const std::size_t last = wire.points.size() - 1, at = end.atStart ? 0 : last, before = end.atStart ? 1 : last - 1;
    wire.points[at] = wire.points[at] + by * unit(wire.points[at] - wire.points[before]);
    if (!end.atStart)
        return;
    for (Feed& feed : model.feeds)
        feed.at += feed.wire == end.wire ? by : 0.0;
    for (Load& load : model.loads)
        load.at += load.wire == end.wire ? by : 0.0;
}

/// One side longer and the other shorter; false for what has no two like sides.
bool makeUnequal(WireModel& model, double by)
{
    const Feed& feed = model.feeds.front();
    const auto first = freeEnd(model, {feed.wire, true}), second = freeEnd(model, {feed.wire, false});
    if (!first || !second)
        return false;
    const double left = feed.at + first->second, right = model.wires[feed.wire].length() - feed.at + second->second;
    if (std::abs(left - right) > 0.1 * std::max(left, right))
        return false;
    lengthen(model, first->first, 0.5 * by);
    lengthen(model, second->first, -0.5 * by);
    return true;
}

void cutLonger(shapes::AntennaShape& shape, double by)
{
    const shapes::Family& family = shapes::familyOf(shape);
    std::vector<std::string> keys;
    for (const shapes::TunedLength& t : family.tuned(shape))
        keys.push_back(t.parameter);
    const auto add = [&](const std::string& key) {
        if (std::find(keys.begin(), keys.end(), key) == keys.end())
            keys.push_back(key);
    };
    if (const auto levers = family.levers(shape); !levers.empty()) // where a coil is what is tuned, tips are cut all the same
        add(levers.front().parameter);
    if (const auto built = shapes::buildOver(shape, Ground{GroundKind::Real, 13.0, 0.005}))
        for (const shapes::SectionCut& cut : shapes::sectionCuts(shape, *built)) // and so is wire that nobody tunes
            add(cut.lever.parameter);
    for (const std::string& key : keys)
        if (const auto* spec = family.spec(shape, key); spec && spec->quantity == units::Quantity::Length)
            shape = family.levered(shape, key, family.value(shape, key) + by);
}

bool thickenJacket(shapes::AntennaShape& shape, double by)
{
    bool any = false;
    const auto thicken = [&](shapes::WireChoice& wire) {
        any = any || wire.jacket > 0.0;
        if (wire.jacket > 0.0)
            wire.jacket = std::max(0.1 * wire.jacket, wire.jacket + by);
    };
    thicken(shape.wire);
    for (auto& [part, wire] : shape.partWires)
        thicken(wire);
    return any;
}

/// What is solved of one state of the antenna on one band.
struct BandState {
    std::optional<double> dip;       ///< Hz
    std::vector<Complex> reflection; ///< at the samples, moved along with the dip
    double gain = 0.0;               ///< dBi
};

/// How an answer goes through three points: at -1, 0 and 1.
template <class T> struct Parabola {
    T slope{}, bend{};
    Parabola() = default;
    Parabola(T low, T middle, T high) : slope(0.5 * (high - low)), bend(0.5 * (high + low) - middle) {}
    [[nodiscard]] T change(double part) const { return slope * part + bend * (part * part); }
};

/// One cause at one band.
struct Response {
    Unsure what;
    Parabola<double> dip, gain;
    std::vector<Parabola<Complex>> reflection;
};

/// The least |reflection| on a straight piece between two.
double leastBetween(Complex a, Complex b)
{
    const Complex d = b - a;
    const double whole = std::norm(d);
    const double t = whole > 0.0 ? std::clamp(-(std::conj(d) * a).real() / whole, 0.0, 1.0) : 0.0;
    return std::abs(a + t * d);
}

double swrOf(double reflection)
{
    constexpr double nearlyAll = 1.0 - 2e-6; // a million to one: parabolas may leave the circle
    const double r = std::min(reflection, nearlyAll);
    return (1.0 + r) / (1.0 - r);
}

Points pointsOf(std::vector<double> values)
{
    std::sort(values.begin(), values.end());
    const auto at = [&](double part) {
        const double place = part * double(values.size() - 1);
        const std::size_t low = std::size_t(place);
        const double rest = place - double(low);
        return low + 1 < values.size() ? values[low] + rest * (values[low + 1] - values[low]) : values[low];
    };
    return {at(0.05), at(0.5), at(0.95)};
}

/// Normal draws in tolerances, each with its mirror image; the same each time.
const std::vector<std::array<double, std::size(all)>>& drawnParts()
{
    static const auto made = [] {
        std::mt19937_64 random(20210517);
        std::normal_distribution<double> normal(0.0, 1.0 / sigmas);
        std::vector<std::array<double, std::size(all)>> out;
        for (int i = 0; i < draws / 2; ++i) {
            std::array<double, std::size(all)> draw{}, mirror{};
            for (std::size_t c = 0; c < std::size(all); ++c)
                draw[c] = normal(random), mirror[c] = -draw[c];
            out.push_back(draw);
            out.push_back(mirror);
        }
        return out;
    }();
    return made;
}

/// The reflection over a band as it may be: samples on an even scale of log f, which a shift of the dip moves as a whole.
class BandDraws {
public:
    BandDraws(const WantedBand& wanted, Window window) : m_band(wanted.band)
    {
        const double from = std::max(window.from, (1.0 - dipOfBand) * m_band.from), to = std::min(window.to, (1.0 + dipOfBand) * m_band.to);
        m_low = std::log(from);
        m_step = (std::log(to) - m_low) / (samples - 1);
    }

    [[nodiscard]] double frequency(int sample) const { return std::exp(m_low + m_step * sample); }

    void run(const BandState& now, const std::vector<Response>& causes, bool withGain, BandSpread& out) const
    {
        std::vector<double> dips, lowest, gains;
        std::vector<std::vector<double>> shown(shownSamples);
        std::vector<Complex> reflection(samples);
        for (const auto& parts : drawnParts()) {
            double shift = 0.0, gain = now.gain;
            reflection = now.reflection;
            for (const Response& cause : causes) {
                const double part = parts[std::size_t(cause.what)];
                shift += cause.dip.change(part);
                gain += cause.gain.change(part);
                for (int s = 0; s < samples; ++s)
                    reflection[std::size_t(s)] += cause.reflection[std::size_t(s)].change(part);
            }
            const double moved = now.dip ? std::log1p(shift / *now.dip) : 0.0;
            dips.push_back(now.dip.value_or(0.0) + shift);
            gains.push_back(gain);
            lowest.push_back(lowestIn(reflection, moved));
            for (int s = 0; s < shownSamples; ++s)
                shown[std::size_t(s)].push_back(swrOf(std::abs(at(reflection, shownAt(s) - moved))));
        }
        out.lowestSwr = pointsOf(std::move(lowest));
        if (now.dip && *now.dip > (1.0 - dipOfBand) * m_band.from && *now.dip < (1.0 + dipOfBand) * m_band.to)
            out.dip = pointsOf(std::move(dips));
        if (withGain)
            out.gain = pointsOf(std::move(gains));
        for (int s = 0; s < shownSamples; ++s) {
            const Points points = pointsOf(std::move(shown[std::size_t(s)]));
            out.frequency.push_back(std::exp(shownAt(s)));
            out.swrFrom.push_back(points[0]);
            out.swrTo.push_back(points[2]);
        }
    }

private:
    [[nodiscard]] double shownAt(int s) const
    {
        return std::log(m_band.from) + (std::log(m_band.to) - std::log(m_band.from)) * s / (shownSamples - 1);
    }
    /// By straight lines between the samples; the outermost beyond them.
    [[nodiscard]] Complex at(const std::vector<Complex>& reflection, double logFrequency) const
    {
        const double place = std::clamp((logFrequency - m_low) / m_step, 0.0, double(samples - 1));
        const std::size_t low = std::min(std::size_t(place), std::size_t(samples - 2));
        const double rest = place - double(low);
        return (1.0 - rest) * reflection[low] + rest * reflection[low + 1];
    }
    [[nodiscard]] double lowestIn(const std::vector<Complex>& reflection, double moved) const
    {
        const double from = std::log(m_band.from) - moved, to = std::log(m_band.to) - moved;
        Complex before = at(reflection, from);
        double least = std::abs(before);
        for (int s = 0; s < samples; ++s) {
            const double here = m_low + m_step * s;
            if (here <= from || here >= to)
                continue;
            least = std::min(least, leastBetween(before, reflection[std::size_t(s)]));
            before = reflection[std::size_t(s)];
        }
        return swrOf(std::min(least, leastBetween(before, at(reflection, to))));
    }

    Band m_band;
    double m_low = 0.0, m_step = 0.0;
};

class Spreader {
public:
    Spreader(Library& library, const SpreadQuestion& asked, const Watch& watch)
        : m_library(library), m_asked(asked), m_watch(watch), m_quiet(watch.with({}))
    {
    }

    Result<Spread> run()
    {
        Question question = m_asked.question;
        question.before.reset();
        const auto curves = curvesOf(m_library, question, m_quiet, Reach::Near);
        if (!curves)
            return curves.faults();
        m_curves = *curves;
        m_best = bestByBand(m_curves);
        m_out.asked = m_asked;
        m_out.bands.resize(m_best.size());
        for (std::size_t i = 0; i < m_best.size(); ++i) {
            m_out.bands[i].band = question.bands[i].id;
            m_out.bands[i].configuration = m_best[i].configuration;
            m_out.bands[i].solved = m_best[i].coverage.solved();
        }
        for (std::size_t c = 0; c < m_curves.size(); ++c)
            if (Faults faults = configuration(c); !faults.empty())
                return faults;
        return std::move(m_out);
    }

private:
    /// The window that a band of a curve was solved in.
    static std::optional<Window> windowOf(const Curve& curve, const Band& band)
    {
        for (const CurvePart& part : curve.parts)
            if (band.from >= part->from && band.to <= part->to)
                return Window{part->from, part->to};
        return std::nullopt;
    }

    Faults configuration(std::size_t c)
    {
        std::vector<std::size_t> bands;
        for (std::size_t i = 0; i < m_best.size(); ++i)
            if (m_out.bands[i].solved && m_best[i].configuration == c && windowOf(*m_curves[c], m_best[i].coverage.band))
                bands.push_back(i);
        if (bands.empty())
            return {};
        const auto now = statesOf(*m_curves[c]->built, bands, c, nullptr, Care::Usual);
        if (!now)
            return now.faults();
        // what is off moves a coarse answer as much as a careful one
        const auto middle = statesOf(*m_curves[c]->built, bands, c, &*now, Care::Coarse);
        if (!middle)
            return middle.faults();
        std::vector<std::vector<Response>> responses(bands.size());
        for (Unsure what : causesOf(m_asked, c)) {
            std::vector<std::vector<BandState>> ends;
            for (double part : {-1.0, 1.0}) {
                const auto off = antennaOff(m_asked, c, {{what, part}});
                if (!off)
                    return off.faults();
                auto states = statesOf(*off, bands, c, &*middle, Care::Coarse);
                if (!states)
                    return states.faults();
                ends.push_back(std::move(states).value());
            }
            for (std::size_t k = 0; k < bands.size(); ++k)
                responses[k].push_back(response(what, ends[0][k], (*middle)[k], ends[1][k]));
            m_watch.report((double(c) + double(std::size_t(what) + 1) / double(std::size(all))) / double(m_curves.size()));
        }
        for (std::size_t k = 0; k < bands.size(); ++k)
            conclude(bands[k], (*now)[k], responses[k]);
        return {};
    }

    /// @param now the antenna as computed, null for that one itself
    Result<std::vector<BandState>> statesOf(const shapes::BuiltAntenna& built, const std::vector<std::size_t>& bands, std::size_t c,
                                            const std::vector<BandState>* now, Care care)
    {
        const std::shared_ptr<Study> study = m_library.study(built.model, built.portReference);
        const double reference = m_asked.question.reference;
        std::vector<BandState> states;
        std::unique_ptr<em::PreparedModel> prepared;
        for (std::size_t k = 0; k < bands.size(); ++k) {
            const WantedBand& wanted = m_asked.question.bands[bands[k]];
            const Window window = *windowOf(*m_curves[c], wanted.band);
            const auto curve = study->curve(window, m_quiet, care);
            if (!curve)
                return curve.faults();
            m_out.solves += (*curve)->solves;
            const ImpedanceAt atLine = [&](double f) { return built.atLine((*curve)->at(f), f) * (50.0 / reference); };
            BandState state;
            const double near = now ? (*now)[k].dip.value_or(0.0) : m_best[bands[k]].coverage.at;
            if (!now || (*now)[k].dip)
                state.dip = nearestDip(atLine, near, std::max(window.from, (1.0 - dipBeside) * wanted.band.from),
                                       std::min(window.to, (1.0 + dipBeside) * wanted.band.to));
            const double moved = now && state.dip ? *state.dip / *(*now)[k].dip : 1.0;
            const BandDraws scale(wanted, window);
            for (int s = 0; s < samples; ++s) {
                const Complex z = atLine(std::clamp(scale.frequency(s) * moved, window.from, window.to));
                state.reflection.push_back((z - 50.0) / (z + 50.0));
            }
            if (wanted.wish != Wish::No)
                if (Faults faults = addGain(built, wanted.band.centre(), care, prepared, state); !faults.empty())
                    return faults;
            states.push_back(std::move(state));
        }
        return states;
    }

    Faults addGain(const shapes::BuiltAntenna& built, double frequency, Care care, std::unique_ptr<em::PreparedModel>& prepared,
                   BandState& state)
    {
        em::MeshOptions mesh;
        if (care == Care::Coarse)
            mesh.degree = 2;
        double highest = 0.0;
        for (const WantedBand& w : m_asked.question.bands)
            if (w.wish != Wish::No)
                highest = std::max(highest, w.band.centre());
        if (!prepared)
            prepared = std::make_unique<em::PreparedModel>(std::make_shared<const WireModel>(built.model), mesh, highest, m_quiet);
        if (m_watch.stopped())
            return {stoppedFault()};
        const auto solution = prepared->solve(frequency, m_library.tables(), m_quiet);
        if (!solution)
            return solution.faults();
        const double passed = built.transformer ? built.transformer->at(frequency).efficiency(solution->impedance) : 1.0;
        state.gain = gainTowards(em::FarField(*solution), m_asked.aim, m_quiet) + 10.0 * std::log10(std::max(passed, 1e-30));
        return {};
    }

    static Response response(Unsure what, const BandState& low, const BandState& now, const BandState& high)
    {
        Response out{what, {}, {low.gain, now.gain, high.gain}, {}};
        if (low.dip && now.dip && high.dip)
            out.dip = {*low.dip, *now.dip, *high.dip};
        for (std::size_t s = 0; s < now.reflection.size(); ++s)
            out.reflection.emplace_back(low.reflection[s], now.reflection[s], high.reflection[s]);
        return out;
    }

    void conclude(std::size_t band, const BandState& now, const std::vector<Response>& responses)
    {
        const WantedBand& wanted = m_asked.question.bands[band];
        BandSpread& out = m_out.bands[band];
        BandDraws(wanted, *windowOf(*m_curves[out.configuration], wanted.band)).run(now, responses, wanted.wish != Wish::No, out);
        if (!out.dip)
            return;
        for (const Response& r : responses)
            out.shifts.push_back({r.what, r.dip.slope});
        std::sort(out.shifts.begin(), out.shifts.end(),
                  [](const SpreadShift& a, const SpreadShift& b) { return std::abs(a.shift) > std::abs(b.shift); });
    }

    Library& m_library;
    const SpreadQuestion& m_asked;
    const Watch& m_watch;
    const Watch m_quiet; ///< for what is only a part of the whole
    std::vector<CurvePointer> m_curves;
    std::vector<BandChoice> m_best;
    Spread m_out;
};

} // namespace

const BandSpread* Spread::band(const Id& id) const
{
    const auto found = std::find_if(bands.begin(), bands.end(), [&](const BandSpread& b) { return b.band == id; });
    return found == bands.end() ? nullptr : &*found;
}

SpreadQuestion spreadQuestionOf(const Design& design, const Antenna& antenna, const Id& requested)
{
    SpreadQuestion out{questionOf(design, antenna, requested), design.operation.tolerances, soilUnder(design, antenna),
                       aimOf(design.operation)};
    out.question.before.reset();
    return out;
}

Result<Spread> spreadOf(Library& library, const SpreadQuestion& asked, const Watch& watch)
{
    return unlessStopped(watch, Spreader(library, asked, watch).run());
}

Ground soilAt(const Soil& soil, const Tolerances& tolerances, double part)
{
    const std::optional<SoilFigures>& end = part < 0.0 ? soil.dry : soil.wet;
    const double sign = part < 0.0 ? -1.0 : 1.0;
    const SoilFigures there =
        end.value_or(SoilFigures{std::max(1.0, soil.relativePermittivity * std::pow(tolerances.soilPermittivity, sign)),
                                 soil.conductivity * std::pow(tolerances.soilConductivity, sign)});
    const double away = std::abs(part);
    return {GroundKind::Real, towards(soil.relativePermittivity, there.relativePermittivity, away),
            soil.conductivity > 0.0 && there.conductivity > 0.0 ? towards(soil.conductivity, there.conductivity, away) : soil.conductivity,
            soil.pairFrequency};
}

std::vector<Unsure> causesOf(const SpreadQuestion& asked, std::size_t configuration)
{
    std::vector<Unsure> out{Unsure::Height};
    const Subject& subject = asked.question.subject;
    if (subject.ground.kind == GroundKind::Real)
        out.push_back(Unsure::Soil);
    out.push_back(Unsure::Cut);
    if (shapes::AntennaShape shape = subject.shape; thickenJacket(shape, 0.0))
        out.push_back(Unsure::Jacket);
    if (const auto built = shapes::buildOver(subject.shape, subject.ground, configuration))
        if (WireModel model = built->model; makeUnequal(model, 0.0))
            out.push_back(Unsure::Unequal);
    return out;
}

Result<shapes::BuiltAntenna> antennaOff(const SpreadQuestion& asked, std::size_t configuration, const Parts& parts)
{
    const auto part = [&](Unsure what) {
        const auto found = parts.find(what);
        return found == parts.end() ? 0.0 : found->second;
    };
    Subject subject = asked.question.subject;
    const Tolerances& t = asked.tolerances;
    if (const double wet = part(Unsure::Soil); wet != 0.0 && subject.ground.kind == GroundKind::Real)
        subject.ground = soilAt(asked.soil, t, wet);
    cutLonger(subject.shape, part(Unsure::Cut) * t.cut);
    thickenJacket(subject.shape, part(Unsure::Jacket) * t.jacket);
    auto built = shapes::buildOver(subject.shape, subject.ground, configuration);
    if (!built)
        return built.faults();
    shapes::BuiltAntenna out = std::move(built).value();
    raise(out.model, part(Unsure::Height) * t.height);
    makeUnequal(out.model, part(Unsure::Unequal) * t.unequal);
    finish(subject, out.model);
    return out;
}

double cutMargin(const BandSpread& band) { return band.dip ? std::max(0.0, 100.0 * ((*band.dip)[2] / (*band.dip)[1] - 1.0)) : 0.0; }

const char* nameOf(Unsure what)
{
    static const char* const names[] = {coreText("core", "height"), coreText("core", "soil"), coreText("core", "cut"),
                                        coreText("core", "jacket"), coreText("core", "unequal sides")};
    return names[std::size_t(what)];
}

} // namespace vetchling::study

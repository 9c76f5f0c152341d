#include "core/study/shield.h"

#include "core/study/neighbours.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr double overSoil = 0.02; // m that the coax lies above the soil
constexpr double gap = 0.05;      // m from the feedpoint to where the shield is joined, on a wire that runs through
constexpr double last = 3.0;      // m before the radio, where the current is looked at
constexpr double shortest = 0.3;  // m between corners of a route
constexpr int tracePoints = 80, placeCount = 14;

double lengthAlong(const std::vector<Vec3>& points)
{
    double sum = 0.0;
    for (std::size_t i = 1; i < points.size(); ++i)
        sum += distance(points[i - 1], points[i]);
    return sum;
}

/// Where the shield is joined: the wire's end the feed sits at, or a new vertex a little beside the feed.
Vec3 joinAt(WireModel& model)
{
    const Feed& feed = model.feeds.front();
    Wire& wire = model.wires[feed.wire];
    const double length = wire.length();
    if (feed.at < jointTolerance)
        return wire.points.front();
    if (feed.at > length - jointTolerance)
        return wire.points.back();
    const double after = std::min(feed.at + gap, 0.5 * (feed.at + length)), before = std::max(feed.at - gap, 0.5 * feed.at);
    // the lower one of the two sides: from a corner the coax hangs clear of the piece that goes up
    const double at = wire.pointAt(before).z < wire.pointAt(after).z - 1e-6 ? before : after;
    const Vec3 join = wire.pointAt(at);
    double along = 0.0;
    for (std::size_t i = 1; i < wire.points.size(); ++i) {
        const double piece = distance(wire.points[i - 1], wire.points[i]);
        if (std::abs(along + piece - at) < jointTolerance)
            return wire.points[i];
        if (along + piece > at) {
            wire.points.insert(wire.points.begin() + long(i), join);
            break;
        }
        along += piece;
    }
    return join;
}

Load chokeLoad(std::size_t wire, const ShieldChoke& choke, double longest, double frequency)
{
    Load load;
    load.wire = wire;
    load.at = std::clamp(choke.at, 0.06, longest - 0.06);
    const Complex z = chokingImpedance(choke.part, frequency).value_or(Complex(0.0));
    load.resistance = z.real();
    const double w = 2.0 * pi * frequency;
    if (z.imag() > 0.0)
        load.inductance = z.imag() / w;
    else if (z.imag() < 0.0)
        load.capacitance = -1.0 / (w * z.imag());
    return load;
}

/// The wire that is the whole shield in `withShield`.
std::size_t shieldPlace(const shapes::BuiltAntenna& built) { return built.shieldWire.value_or(built.model.wires.size()); }

class ShieldSolver {
public:
    ShieldSolver(Library& library, const ShieldQuestion& asked, const Watch& watch, const std::function<void(const ShieldAnswer&)>& publish,
                 const ShieldAnswer* known)
        : m_library(library), m_asked(asked), m_watch(watch), m_quiet(watch.with({})), m_publish(publish), m_known(known)
    {
    }

    Result<ShieldAnswer> run()
    {
        const auto first = builtFor({}, 0.0);
        if (!first)
            return first.faults();
        const auto shield = shieldAlong(m_asked.site, *first, m_asked.earthed);
        if (!shield)
            return shield.faults();
        m_answer.length = lengthOf(*shield);
        for (int i = 0; i < placeCount; ++i)
            m_answer.places.push_back(m_answer.length * (0.01 + 0.97 * i / (placeCount - 1)));
        const auto& bands = m_asked.feed.question.bands;
        for (const WantedBand& w : bands)
            m_answer.bands.push_back(bandFor(w));
        for (std::size_t i = 0; i < bands.size(); ++i) {
            if (Faults faults = solveBand(m_answer.bands[i], double(i) / double(bands.size())); !faults.empty())
                return faults;
            tell();
        }
        m_answer.complete = true;
        return m_answer;
    }

private:
    /// With what is known of it already.
    [[nodiscard]] ShieldBand bandFor(const WantedBand& w) const
    {
        ShieldBand out{w.id, w.band.name, w.band.centre(), w.wish, {}, {}, {}, {}, {}};
        for (const ShieldBand& b : m_known ? m_known->bands : std::vector<ShieldBand>())
            if (b.band == w.id) {
                out.without = b.without;
                out.bare = b.bare;
                out.byPlace = b.byPlace;
                out.gainByPlace = b.gainByPlace;
            }
        return out;
    }

    Result<shapes::BuiltAntenna> builtFor(const Id& band, double counterpoise)
    {
        const Subject& s = m_asked.feed.question.subject;
        const auto configured = m_asked.configurations.find(band);
        shapes::AntennaShape shape = s.shape;
        if (counterpoise > 0.0)
            shape.parameters["counterpoise_m"] = counterpoise;
        return shapes::buildOver(shape, s.ground, configured == m_asked.configurations.end() ? 0 : configured->second);
    }

    Faults solveBand(ShieldBand& band, double done)
    {
        const auto built = builtFor(band.band, 0.0);
        if (!built)
            return built.faults();
        const auto shield = shieldAlong(m_asked.site, *built, m_asked.earthed);
        if (!shield)
            return shield.faults();
        WireModel alone = built->model;
        alone.beyond = m_asked.feed.question.subject.beyond;
        if (Faults faults = solve(*built, *shield, m_asked.chokes, band.frequency, band.chosen); !faults.empty())
            return faults;
        if (!band.bare)
            if (Faults faults = solve(*built, *shield, {}, band.frequency, band.bare); !faults.empty())
                return faults;
        if (!band.without)
            if (Faults faults = look(std::move(alone), band.frequency, {}, band.without); !faults.empty())
                return faults;
        tell();
        for (std::size_t i = band.byPlace.size(); i < m_answer.places.size(); ++i) {
            std::optional<ShieldState> state;
            if (Faults faults = solve(*built, *shield, {{m_answer.places[i], m_asked.choke}}, band.frequency, state); !faults.empty())
                return faults;
            band.byPlace.push_back(state->atRadio);
            band.gainByPlace.push_back(state->gain);
            m_watch.report(done + double(i) / double(m_answer.places.size() * m_answer.bands.size()));
        }
        return counterpoises(band);
    }

    Faults counterpoises(ShieldBand& band)
    {
        for (double length : m_asked.counterpoises) {
            const auto built = builtFor(band.band, length);
            if (!built)
                continue;
            const auto shield = shieldAlong(m_asked.site, *built, m_asked.earthed);
            std::optional<ShieldState> state;
            if (shield && solve(*built, *shield, m_asked.chokes, band.frequency, state).empty())
                band.counterpoises.emplace_back(length, *state);
            if (m_watch.stopped())
                return {stoppedFault()};
        }
        return {};
    }

    Faults solve(const shapes::BuiltAntenna& built, const Shield& shield, const std::vector<ShieldChoke>& chokes, double frequency,
                 std::optional<ShieldState>& state)
    {
        Result<WireModel> model = withShield(built, shield, chokes, frequency);
        if (!model)
            return model.faults();
        WireModel whole = std::move(model).value();
        whole.beyond = m_asked.feed.question.subject.beyond;
        return look(std::move(whole), frequency, shieldPlace(built), state);
    }

    /// @param ofShield index of its wire; nothing: it is not looked at
    Faults look(WireModel model, double frequency, std::optional<std::size_t> ofShield, std::optional<ShieldState>& state)
    {
        const auto solution = em::solve(std::make_shared<const WireModel>(std::move(model)), frequency, m_library.tables(), {}, m_quiet);
        if (!solution)
            return solution.faults();
        ShieldState out;
        out.port = solution->impedance;
        const em::FarField field(*solution);
        out.gain = gainTowards(field, m_asked.feed.aim, m_quiet);
        if (ofShield && solution->inputPower > 0.0) {
            const std::size_t shield = *ofShield;
            const double scale = std::sqrt(0.5 * m_asked.power / solution->inputPower), length = solution->model->wires[shield].length();
            for (int i = 0; i <= tracePoints; ++i) {
                const double at = length * i / tracePoints, amperes = scale * std::abs(solution->currentAt(shield, at));
                out.along.push_back(amperes);
                out.strongest = std::max(out.strongest, amperes);
                if (at >= length - last)
                    out.atRadio = std::max(out.atRadio, amperes);
            }
            for (const Load& load : solution->model->loads)
                if (load.wire == shield) {
                    const double amperes = scale * std::abs(solution->currentAt(shield, load.at));
                    out.chokeHeat = std::max(out.chokeHeat, amperes * amperes * load.resistance);
                }
        }
        state = std::move(out);
        return {};
    }

    void tell() const
    {
        if (m_publish)
            m_publish(m_answer);
    }

    Library& m_library;
    const ShieldQuestion& m_asked;
    const Watch& m_watch;
    const Watch m_quiet; ///< for what is only a part of the whole
    const std::function<void(const ShieldAnswer&)>& m_publish;
    const ShieldAnswer* m_known;
    ShieldAnswer m_answer;
};

} // namespace

bool sameButForChokes(const ShieldQuestion& a, const ShieldQuestion& b)
{
    ShieldQuestion other = b;
    other.chokes = a.chokes;
    other.feed.question.subject.shape.feedpoint = a.feed.question.subject.shape.feedpoint; // parts of the chain, as the chokes are
    return a == other;
}

double lengthOf(const Shield& shield) { return lengthAlong(shield.points); }

Result<Shield> shieldAlong(const Site& site, const shapes::BuiltAntenna& built, bool earthed)
{
    WireModel model = built.model;
    const Vec3 join = joinAt(model);
    Shield out;
    out.earthed = earthed;
    out.points.push_back(join);
    double lowest = HUGE_VAL; // of wires that lie round the feedpoint: the coax keeps clear of them
    for (std::size_t i = 0; i < model.wires.size(); ++i)
        if (i != built.shieldWire)
            for (Vec3 p : model.wires[i].points)
                lowest = std::min(lowest, p.z);
    constexpr double overRadials = 0.08;
    const double clear = lowest > 3.0 * overSoil ? overSoil : overRadials;
    const bool drops = join.z > clear + overSoil;
    const double height = drops ? clear : join.z + 2.0 * overSoil;
    if (drops)
        out.points.push_back({join.x, join.y, height});
    Outline route = site.coaxRoute;
    route.push_back(site.feedEntry);
    for (PlanPoint p : route)
        if (const Vec3 next{p.x, p.y, height}; distance(next, out.points.back()) > shortest)
            out.points.push_back(next);
    if (out.points.size() < 2 || lengthOf(out) < 1.0)
        return Fault{"", coreText("core", "the feed line is shorter than a metre; set where it enters the house on the Site page")};
    return out;
}

Result<WireModel> withShield(const shapes::BuiltAntenna& built, const Shield& shield, const std::vector<ShieldChoke>& chokes,
                             double frequency)
{
    WireModel model = built.model;
    joinAt(model);
    Wire wire;
    wire.id = "shield";
    wire.points = shield.points;
    wire.radius = shield.radius;
    wire.conductivity = 5.8e7;
    const std::size_t place = shieldPlace(built);
    const double length = lengthOf(shield);
    if (place < model.wires.size()) // it is there up to the choke already
        model.wires[place] = std::move(wire);
    else
        model.wires.push_back(std::move(wire));
    for (const ShieldChoke& choke : chokes)
        if (chokingImpedance(choke.part, frequency))
            model.loads.push_back(chokeLoad(place, choke, length, frequency));
    if (shield.earthed)
        addEarth("station", shield.points.back(), model);
    if (Faults faults = findFaults(model); !faults.empty())
        return Fault{
            "",
            coreText("core", "the coax's outside comes too near to the antenna's wires to be counted in; lead its route away from them")};
    return model;
}

std::optional<double> ShieldAnswer::bestPlace() const
{
    if (!complete || bands.empty())
        return std::nullopt;
    double best = HUGE_VAL;
    std::optional<double> place;
    for (std::size_t i = 0; i < places.size(); ++i) {
        double sum = 0.0;
        for (const ShieldBand& b : bands)
            if (i < b.byPlace.size())
                sum += weightOf(b.wish) * b.byPlace[i] * b.byPlace[i];
        if (sum < best) {
            best = sum;
            place = places[i];
        }
    }
    return place;
}

std::optional<ShieldAnswer::AtBest> ShieldAnswer::atBest() const
{
    const std::optional<double> best = bestPlace();
    if (!best)
        return std::nullopt;
    const std::size_t place = std::size_t(std::find(places.begin(), places.end(), *best) - places.begin());
    AtBest out;
    out.place = *best;
    for (const ShieldBand& b : bands) {
        if (!b.chosen || place >= b.byPlace.size() || place >= b.gainByPlace.size())
            continue;
        if (b.byPlace[place] >= out.amperes)
            out.amperes = b.byPlace[place], out.loudest = b.band;
        if (b.chosen->atRadio >= out.amperesNow)
            out.amperesNow = b.chosen->atRadio, out.loudestNow = b.band;
        const double more = b.gainByPlace[place] - b.chosen->gain;
        if (more > out.gained)
            out.gained = more, out.gains = b.band;
        if (more < out.lost)
            out.lost = more, out.loses = b.band;
    }
    if (out.loudest.empty())
        return std::nullopt;
    return out;
}

std::vector<Id> ShieldAnswer::changed() const
{
    constexpr double another = 1.3, heard = -0.5; // SWR of one port against the other; dB
    std::vector<Id> out;
    for (const ShieldBand& b : bands) {
        if (!b.without || !b.chosen)
            continue;
        const Complex from = b.without->port, to = b.chosen->port;
        const double apart = std::abs((to - from) / (to + std::conj(from)));
        if ((1.0 + apart) / (1.0 - apart) > another || b.chosen->gain - b.without->gain < heard)
            out.push_back(b.band);
    }
    return out;
}

Result<ShieldAnswer> shieldAnswer(Library& library, const ShieldQuestion& asked, const Watch& watch,
                                  const std::function<void(const ShieldAnswer&)>& publish, const ShieldAnswer* known)
{
    return unlessStopped(watch, ShieldSolver(library, asked, watch, publish, known).run());
}

} // namespace vetchling::study

#include "core/advice/gallery.h"

#include "core/physics.h"
#include "core/shapes/hang.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

namespace vetchling::advice {
namespace {

using shapes::AntennaShape;
using shapes::Family;

/// From the top of a support down in a bearing.
AntennaShape sloping(const Family& family, const AntennaShape& standard, const Support& support, double bearing)
{
    constexpr double low = 2.6, steepest = 0.94; // m, out of reach; of the leg
    const double leg = family.value(standard, "leg_m"), top = support.height;
    const double half = std::min(0.5 * (top - low), steepest * leg), out = std::sqrt(leg * leg - half * half), angle = radians(bearing);
    AntennaShape next = standard;
    next.parameters["x_m"] = support.at.x + out * std::sin(angle);
    next.parameters["y_m"] = support.at.y + out * std::cos(angle);
    next.parameters["bearing_deg"] = shapes::bearingTowards(-std::sin(angle), -std::cos(angle));
    next.parameters["apex_height_m"] = top - half;
    next.parameters["end_height_m"] = top;
    next.parameters["second_end_m"] = -2.0 * half;
    return next;
}

bool forSeveralBands(const Family& family, const AntennaShape& shape)
{
    const auto tuned = family.tuned(shape);
    return std::any_of(tuned.begin(), tuned.end(), [&](const shapes::TunedLength& t) { return t.frequency != tuned.front().frequency; });
}

/// What stands on a mast of its own has its base, and radials in the air, over people's heads.
AntennaShape overHeads(AntennaShape shape)
{
    constexpr double onTheGround = 0.1, mast = 2.0, heads = 2.5; // m
    const Family& family = shapes::familyOf(shape);
    for (const char* key : {"base_height_m", "radial_end_height_m"})
        if (const bool ends = key[0] == 'r'; family.spec(shape, key))
            if (const double height = family.value(shape, key); height < heads && height >= (ends ? onTheGround : mast))
                shape.parameters[key] = heads;
    return shape;
}

/// Between two supports, or, where it is too long for any two of them, round a corner at a third.
std::optional<Place> straightOrBent(const Judge& judge, const AntennaShape& shape)
{
    const std::optional<Place> straight = betweenTwo(judge, shape);
    if (straight && straight->allowed() && straight->poles.empty())
        return straight;
    const std::optional<Place> bent = straight ? roundACorner(judge, shape) : std::nullopt;
    const bool better = bent && bent->allowed() && (!straight->allowed() || bent->poles.size() < straight->poles.size());
    return better ? bent : straight;
}

class Hanger {
public:
    /// @param count bands of what has a number of them; 0: as is usual
    Hanger(const Judge& judge, const Design& design, double frequency, int count = 0)
        : m_design(design), m_frequency(frequency), m_count(count), m_judge(judge)
    {
    }

    std::vector<Proposal> of(const Family& family) const
    {
        std::vector<Proposal> all;
        Antenna usual = newAntenna(family, innermost(family), m_design.site);
        takeCount(usual.shape, m_count);
        if (AntennaShape wanted = usual.shape; forSeveralBands(family, wanted)) {
            takeBands(wanted, m_design.operation.bands, [](const std::string&) { return true; });
            if (shapes::buildOver(wanted, m_design.site.soil.ground()))
                usual.shape = wanted;
        }
        usual.shape = overHeads(usual.shape);
        const bool isDipole = &family == &shapes::dipoleFamily();
        const bool any = !m_judge.supports().empty(), hangs = any && family.hangsBy(usual.shape).has_value();
        const auto add = [&](const Place& place, Ties ties, const char* suffix, const std::string& title) {
            all.push_back(made(family, usual, place, ties, suffix, title));
        };
        if (m_judge.supports().size() > 1)
            if (const auto place = straightOrBent(m_judge, usual.shape))
                add(*place, Ties::TwoSupports, " between", isDipole ? coreText("core", "Flat dipole") : family.title());
        if (isDipole || all.empty() || !all.front().place.allowed()) { // what cannot hang between two may hang from one
            const std::optional<Place> one = hangs ? fromOne(m_judge, usual.shape) : std::nullopt;
            add(one ? *one : byItself(m_judge, usual.shape), one ? Ties::OneSupport : Ties::NoSupport, "",
                isDipole && any ? coreText("core", "Inverted V") : family.title());
        }
        if (isDipole && any)
            if (const auto place = fromOne(m_judge, standard(family), [&](const Support& support, double bearing) {
                    return std::optional(sloping(family, standard(family), support, bearing));
                }))
                add(*place, Ties::OneSupport, " sloping", coreText("core", "Sloping dipole"));
        return all;
    }

private:
    /// What is added band by band downwards begins a wanted band higher where none is below: the frequency is its outermost one's.
    double innermost(const Family& family) const
    {
        const AntennaShape usual = family.standardShape(m_frequency);
        const auto tuned = family.tuned(usual);
        const bool downwards =
            family.configurations(usual).size() > 1 &&
            std::any_of(tuned.begin(), tuned.end(), [&](const shapes::TunedLength& t) { return t.frequency < m_frequency; });
        std::optional<double> above;
        for (const WantedBand& w : m_design.operation.bands) {
            if (w.wish == Wish::No)
                continue;
            if (w.band.to < m_frequency)
                return m_frequency;
            if (!above && w.band.from > m_frequency)
                above = w.band.centre();
        }
        return downwards && above ? *above : m_frequency;
    }

    AntennaShape standard(const Family& family) const { return family.standardShape(m_frequency); }

    static Proposal made(const Family& family, Antenna antenna, const Place& place, Ties ties, const char* suffix, const std::string& title)
    {
        antenna.shape = place.shape;
        antenna.name = title;
        return {family.id() + suffix, title, ties, forSeveralBands(family, antenna.shape), std::move(antenna), place};
    }

    const Design& m_design;
    double m_frequency;
    int m_count;
    const Judge& m_judge;
};

} // namespace

void takeCount(AntennaShape& shape, int count)
{
    const Family& family = shapes::familyOf(shape);
    for (const char* key : {"band_count", "pair_count"})
        if (const shapes::ParameterSpec* spec = family.spec(shape, key); spec && count > 0)
            shape.parameters[key] = std::clamp(double(count), spec->lowest, spec->highest);
}

Place keptInPlace(const Judge& judge, const Proposal& proposal, const AntennaShape& tuned)
{
    const Place here = judge.judge(tuned);
    if (here.allowed() || !proposal.place.allowed())
        return here;
    const bool sloping = proposal.id.ends_with(" sloping");
    const std::optional<Place> other = proposal.ties == Ties::TwoSupports              ? straightOrBent(judge, tuned)
                                       : proposal.ties == Ties::OneSupport && !sloping ? fromOne(judge, tuned)
                                       : sloping                                       ? std::nullopt
                                                                                       : std::optional(byItself(judge, tuned));
    return other && other->allowed() ? *other : here;
}

std::vector<Proposal> proposalsOf(const Judge& judge, const Design& design, const Family& family, double frequency, int count)
{
    return Hanger(judge, design, frequency, count).of(family);
}

std::vector<Proposal> proposals(const Design& design, double frequency, const std::vector<Id>& supports)
{
    const auto& families = shapes::families();
    const Judge judge(design, {supports});
    const Hanger hanger(judge, design, frequency);
    std::vector<std::vector<Proposal>> found(families.size());
    tbb::parallel_for(std::size_t(0), families.size(), [&](std::size_t i) { found[i] = hanger.of(*families[i]); });
    std::vector<Proposal> all;
    for (std::vector<Proposal>& its : found)
        std::move(its.begin(), its.end(), std::back_inserter(all));
    std::stable_sort(all.begin(), all.end(), [](const Proposal& a, const Proposal& b) { // what does not fit comes last in its group
        return a.ties != b.ties ? a.ties < b.ties : a.place.allowed() && !b.place.allowed();
    });
    return all;
}

std::optional<Antenna> tunerWire(const Design& design, double frequency)
{
    constexpr double shorter = 0.9, shortest = 5.0; // of the length before; m
    const Family& family = *shapes::findFamily("long-wire");
    Antenna wire = newAntenna(family, frequency, design.site);
    const Judge judge(design, {.room = 1.0}); // it is not tuned
    const auto fits = [](const std::optional<Place>& place) { return place && place->allowed() && place->poles.empty(); };
    for (double length = family.value(wire.shape, "length_m"); length > shortest; length = std::floor(10.0 * shorter * length) / 10.0) {
        wire.shape.parameters["length_m"] = length;
        std::optional<Place> place = judge.supports().size() > 1 ? betweenTwo(judge, wire.shape) : std::nullopt;
        if (!fits(place))
            place = judge.supports().empty() ? byItself(judge, wire.shape) : fromOne(judge, wire.shape);
        if (fits(place) || (judge.supports().empty() && place && place->allowed())) {
            wire.shape = place->shape;
            return wire;
        }
    }
    return std::nullopt;
}

Service Proposed::service(const Id& band) const
{
    for (std::size_t i = 0; i < wished.size(); ++i)
        if (wished[i] == band)
            return services[i].service;
    return Service::No;
}

int Proposed::served() const
{
    return int(std::count_if(services.begin(), services.end(), [](const BandService& s) { return s.service == Service::Served; }));
}

Result<Proposed> propose(study::Library& library, const Design& design, const Proposal& proposal, const Watch& watch,
                         const std::vector<Id>& supports)
{
    Proposed out;
    out.antenna = proposal.antenna;
    const Ground ground = design.site.soil.ground();
    TuneOptions options;
    options.goal = out.antenna.tuneForLowestSwr ? shapes::TuneGoal::LowestSwr : shapes::TuneGoal::Resonance;
    const auto tuned = tuneAll(out.antenna.shape, ground, library.tables(), options, watch);
    if (!tuned)
        return tuned.faults();
    for (const TunedValue& v : tuned->lengths)
        out.antenna.shape.parameters[v.length.parameter] = v.value;
    out.what = tuned->lengths.front().length;
    out.value = tuned->lengths.front().value;
    out.place = keptInPlace(Judge(design, {.supports = supports, .room = 1.0}), proposal, out.antenna.shape);
    if (!out.place.allowed() && proposal.place.allowed())
        return Fault{"", out.place.fault};
    out.antenna.shape = out.place.shape;
    Design wanted = design;
    std::erase_if(wanted.operation.bands, [](const WantedBand& w) { return w.wish == Wish::No; });
    const auto curves = curvesOf(library, study::questionOf(wanted, out.antenna), watch, study::Reach::Near);
    if (!curves)
        return curves.faults();
    out.built = curves->front()->built;
    for (const WantedBand& w : wanted.operation.bands)
        out.wished.push_back(w.id);
    out.services = study::servicesOf(*curves, study::bestByBand(*curves), study::termsOf(design.operation, out.antenna));
    for (const shapes::WireSection& s : out.built->sections)
        out.wire += s.pieces * s.length;
    return unlessStopped(watch, std::move(out));
}

} // namespace vetchling::advice

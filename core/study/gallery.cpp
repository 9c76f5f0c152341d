#include "core/study/gallery.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

using shapes::AntennaShape;
using shapes::Family;
using shapes::Hook;

Hook hookOf(const Support& support) { return {support.at.x, support.at.y, support.height}; }

std::optional<AntennaShape> between(const Family& family, const AntennaShape& standard, const GallerySupports& s)
{
    return s.second ? family.between(standard, hookOf(*s.first), hookOf(*s.second)) : std::nullopt;
}

/// From the top of the highest support down towards the other one, or anywhere.
std::optional<AntennaShape> sloping(const Family& family, const AntennaShape& standard, const GallerySupports& s)
{
    constexpr double low = 2.6, steepest = 0.94; // m, out of reach; of the leg
    const double leg = family.value(standard, "leg_m"), top = s.first->height;
    const double half = std::min(0.5 * (top - low), steepest * leg), out = std::sqrt(leg * leg - half * half);
    const Vec3 away = s.second ? unit(Vec3{s.second->at.x - s.first->at.x, s.second->at.y - s.first->at.y, 0.0}) : Vec3{0.0, 1.0, 0.0};
    AntennaShape next = standard;
    next.parameters["x_m"] = s.first->at.x + out * away.x;
    next.parameters["y_m"] = s.first->at.y + out * away.y;
    next.parameters["bearing_deg"] = shapes::bearingTowards(-away.x, -away.y);
    next.parameters["apex_height_m"] = top - half;
    next.parameters["end_height_m"] = top;
    next.parameters["second_end_m"] = -2.0 * half;
    return next;
}

/// What is tied between two supports must not be longer than they are apart.
Text tooLong(const AntennaShape& shape, const GallerySupports& supports)
{
    const auto built = shapes::buildOver(shape, {});
    if (!built)
        return built.faults().front().message;
    double longest = 0.0;
    for (const Wire& a : built->model.wires)
        for (const Wire& b : built->model.wires)
            for (Vec3 p : {a.points.front(), a.points.back()})
                for (Vec3 q : {b.points.front(), b.points.back()})
                    longest = std::max(longest, std::hypot(p.x - q.x, p.y - q.y));
    if (longest <= supports.apart())
        return {};
    return {coreText("core", "needs %1 between supports that are %2 apart"), Measure{longest, units::Quantity::Length},
            Measure{supports.apart(), units::Quantity::Length}};
}

bool forSeveralBands(const Family& family, const AntennaShape& shape)
{
    const auto tuned = family.tuned(shape);
    return std::any_of(tuned.begin(), tuned.end(), [&](const shapes::TunedLength& t) { return t.frequency != tuned.front().frequency; });
}

class Hanger {
public:
    Hanger(const Design& design, double frequency) : m_design(design), m_frequency(frequency), m_supports(gallerySupports(design.site)) {}

    std::vector<Proposal> run()
    {
        std::vector<Proposal> all;
        for (const Family* family : shapes::families())
            for (Proposal& p : of(*family))
                all.push_back(std::move(p));
        std::stable_sort(all.begin(), all.end(), [](const Proposal& a, const Proposal& b) { // what does not fit comes last in its group
            return a.ties != b.ties ? a.ties < b.ties : a.fault.empty() && !b.fault.empty();
        });
        return all;
    }

private:
    std::vector<Proposal> of(const Family& family)
    {
        std::vector<Proposal> all;
        Antenna usual = newAntenna(family, innermost(family), m_design.site);
        if (AntennaShape wanted = usual.shape; forSeveralBands(family, wanted)) {
            takeBands(wanted, m_design.operation.bands, [](const std::string&) { return true; });
            if (shapes::buildOver(wanted, m_design.site.soil.ground()))
                usual.shape = wanted;
        }
        const bool isDipole = &family == &shapes::dipoleFamily();
        const bool hangs = family.hangsBy(usual.shape).has_value();
        const bool canBetween = family.between(usual.shape, Hook{}, Hook{10.0, 0.0, std::nullopt}).has_value();
        if (canBetween && m_supports.second) {
            Antenna tied = usual;
            tied.shape = *between(family, usual.shape, m_supports);
            all.push_back(made(family, tied, Ties::TwoSupports, " between", isDipole ? coreText("core", "Flat dipole") : family.title()));
            all.back().fault = tooLong(tied.shape, m_supports);
        }
        if (isDipole || all.empty() || !all.front().fault.empty()) // what is too long for two supports may hang from one
            all.push_back(made(family, usual, hangs && m_supports.first ? Ties::OneSupport : Ties::NoSupport, "",
                               isDipole && m_supports.first ? coreText("core", "Inverted V") : family.title()));
        if (isDipole && m_supports.first) {
            Antenna slope = usual;
            slope.shape = *sloping(family, standard(family), m_supports);
            all.push_back(made(family, slope, Ties::OneSupport, " sloping", coreText("core", "Sloping dipole")));
        }
        return all;
    }

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

    Proposal made(const Family& family, Antenna antenna, Ties ties, const char* suffix, const std::string& title) const
    {
        Proposal p{family.id() + suffix, title, ties, forSeveralBands(family, antenna.shape), std::move(antenna), {}};
        p.antenna.name = title;
        if (const auto built = shapes::buildOver(p.antenna.shape, m_design.site.soil.ground()); !built)
            p.fault = built.faults().front().message;
        return p;
    }

    const Design& m_design;
    double m_frequency;
    GallerySupports m_supports;
};

} // namespace

double GallerySupports::apart() const { return second ? std::hypot(first->at.x - second->at.x, first->at.y - second->at.y) : 0.0; }

GallerySupports gallerySupports(const Site& site)
{
    std::vector<const Support*> all;
    for (const Support& s : site.supports)
        all.push_back(&s);
    std::stable_sort(all.begin(), all.end(), [](const Support* a, const Support* b) { return a->height > b->height; });
    return {all.empty() ? nullptr : all[0], all.size() < 2 ? nullptr : all[1]};
}

std::vector<Proposal> proposals(const Design& design, double frequency) { return Hanger(design, frequency).run(); }

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

Result<Proposed> propose(Library& library, const Design& design, const Proposal& proposal, const Watch& watch)
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
    Design wanted = design;
    std::erase_if(wanted.operation.bands, [](const WantedBand& w) { return w.wish == Wish::No; });
    const auto curves = curvesOf(library, questionOf(wanted, out.antenna), watch, Reach::Near);
    if (!curves)
        return curves.faults();
    out.built = curves->front()->built;
    for (const WantedBand& w : wanted.operation.bands)
        out.wished.push_back(w.id);
    out.services = servicesOf(*curves, bestByBand(*curves), termsOf(design.operation, out.antenna));
    for (const shapes::WireSection& s : out.built->sections)
        out.wire += s.pieces * s.length;
    return unlessStopped(watch, std::move(out));
}

} // namespace vetchling::study

#include "core/advice/place_cures.h"

#include "core/advice/places.h"

#include <algorithm>
#include <cmath>

namespace vetchling::advice {
namespace {

bool isOfPlace(const Finding& f) { return f.ofPlace && f.open(); }

int countOf(const std::vector<Finding>& all, const std::function<bool(const Finding&)>& which)
{
    return int(std::count_if(all.begin(), all.end(), which));
}

/// It takes what is told away, and puts nothing else of that gravity or a graver one in its place.
bool mends(const Finding& finding, const Design& before, const Design& after)
{
    const Antenna *was = findAntenna(before, finding.antenna), *is = findAntenna(after, finding.antenna);
    if (!was || !is)
        return false;
    const std::vector<Finding> old = placedFindings(before, *was), now = placedFindings(after, *is);
    const auto same = [&](const Finding& f) { return f.code == std::string(finding.code); };
    const auto grave = [](const Finding& f) { return f.gravity == Gravity::Danger || f.everywhere; };
    return countOf(now, same) < countOf(old, same) && countOf(now, isOfPlace) < countOf(old, isOfPlace) &&
           countOf(now, grave) <= countOf(old, grave);
}

std::string supportNames(const Design& design, const std::vector<Id>& ids)
{
    std::vector<std::string> names;
    for (const Id& id : ids)
        if (const Support* s = findSupport(design, id))
            names.push_back(s->name);
    return joinedNames(names);
}

Text poleWords(const std::vector<NewPole>& poles)
{
    return poles.size() == 1
               ? Text(coreText("core", "Put up a pole of %1"), Measure{poles.front().height + tieAllowance, units::Quantity::Length})
               : Text(coreText("core", "Put up %1 poles"), std::to_string(poles.size()));
}

std::function<void(Design&)> hangs(const Id& antenna, const Place& place)
{
    return [antenna, place](Design& design) {
        putUp(design, place.poles);
        if (Antenna* a = findAntenna(design, antenna))
            takeShape(*a, place.shape);
    };
}

/// As it hangs, on poles that are not there yet.
std::optional<Cure> byPoles(const Judge& judge, const Antenna& antenna)
{
    const Place place = judge.judge(antenna.shape);
    if (!place.allowed() || place.poles.empty())
        return std::nullopt;
    return Cure{poleWords(place.poles), [poles = place.poles](Design& design) { putUp(design, poles); }};
}

/// Elsewhere on the same site, with its lengths.
std::optional<Cure> elsewhere(const Judge& judge, const Design& design, const Antenna& antenna)
{
    const bool hangs = shapes::familyOf(antenna.shape).hangsBy(antenna.shape).has_value() && !judge.supports().empty();
    std::optional<Place> best;
    const auto look = [&](const std::optional<Place>& place) {
        if (place && place->allowed() && (!best || place->poles.size() < best->poles.size()))
            best = place;
    };
    if (judge.supports().size() > 1)
        look(betweenTwo(judge, antenna.shape)), look(roundACorner(judge, antenna.shape));
    if (hangs && (!best || !best->poles.empty()))
        look(fromOne(judge, antenna.shape));
    if (!hangs)
        look(byItself(judge, antenna.shape));
    if (!best || best->shape == antenna.shape)
        return std::nullopt;
    const std::string names = supportNames(design, best->supports);
    const Text label = best->poles.size() > 1 ? Text(coreText("core", "Elsewhere, on %1 new poles"), std::to_string(best->poles.size()))
                       : !best->poles.empty() ? Text(coreText("core", "Elsewhere, on a new pole"))
                       : names.empty()        ? Text(coreText("core", "Put it elsewhere"))
                                              : Text(coreText("core", "Hang it from %1"), names);
    return Cure{label, advice::hangs(antenna.id, *best)};
}

} // namespace

std::vector<Finding> placedFindings(const Design& design, const Antenna& antenna)
{
    const auto built = shapes::buildOver(antenna.shape, groundUnder(design, antenna));
    if (!built)
        return {};
    std::vector<Finding> all = placeFindings(antenna, fitOnSite(design.site, built->model));
    std::vector<std::pair<Id, Crossing>> crossings;
    for (const Antenna& other : design.antennas)
        if (other.id != antenna.id)
            if (const auto second = shapes::buildOver(other.shape, groundUnder(design, other)))
                if (const auto crossing = crossingOf(built->model, second->model))
                    crossings.emplace_back(other.id, *crossing);
    for (Finding& f : crossingFindings(design, antenna, crossings))
        all.push_back(std::move(f));
    return all;
}

void addPlaceCures(std::vector<Finding>& findings, const Design& design, const Antenna& antenna)
{
    if (std::none_of(findings.begin(), findings.end(), isOfPlace))
        return;
    Design others = design;
    std::erase_if(others.antennas, [&](const Antenna& a) { return a.id == antenna.id; });
    const Judge judge(others, {.supports = {}, .room = 1.0});
    const std::optional<Cure> poles = byPoles(judge, antenna);
    std::optional<std::optional<Cure>> place; // looked for once, where it is wanted
    for (Finding& f : findings) {
        if (!isOfPlace(f) || f.cure)
            continue;
        const auto offer = [&](const std::optional<Cure>& cure) {
            if (!cure || f.cure)
                return;
            Design after = design;
            cure->change(after);
            if (mends(f, design, after))
                f.cure = cure;
        };
        offer(poles);
        if (!f.cure && !place)
            place = elsewhere(judge, others, antenna);
        if (!f.cure)
            offer(*place);
    }
}

} // namespace vetchling::advice

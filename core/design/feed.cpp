#include "core/design/feed.h"

#include "core/design/design.h"
#include "core/shapes/end_fed_parts.h"

#include <algorithm>

namespace vetchling {
namespace {

template <class List> auto withId(List& list, const Id& id)
{
    return std::find_if(list.begin(), list.end(), [&](const auto& thing) { return thing.id == id; });
}

std::vector<std::string> chainNames(const Antenna& antenna)
{
    std::vector<std::string> names;
    for (const FeedChain& c : antenna.feed.chains)
        names.push_back(c.name);
    return names;
}

} // namespace

const FeedChain* usedChain(const Antenna& antenna)
{
    const auto& chains = antenna.feed.chains;
    if (chains.empty())
        return nullptr;
    const auto found = withId(chains, antenna.feed.used);
    return found == chains.end() ? &chains.front() : &*found;
}

FeedChain& ownChain(Antenna& antenna)
{
    if (antenna.feed.chains.empty()) {
        antenna.feed.chains.push_back({newId(), coreText("core", "chain"), {}, {}, {}});
        antenna.feed.used = antenna.feed.chains.front().id;
    }
    return const_cast<FeedChain&>(*usedChain(antenna));
}

const std::vector<ChainPart>& chainParts(const Antenna& antenna)
{
    static const std::vector<ChainPart> none;
    const FeedChain* used = usedChain(antenna);
    return used ? used->parts : none;
}

std::vector<ChainPart> wholeChain(const Antenna& antenna)
{
    const auto built = shapes::familyOf(antenna.shape).build(antenna.shape, 0);
    std::vector<ChainPart> all = built ? ownParts(built->transformer) : std::vector<ChainPart>();
    const auto& parts = chainParts(antenna);
    all.insert(all.end(), parts.begin(), parts.end());
    return all;
}

ChainPart* findPart(Antenna& antenna, const Id& part)
{
    if (antenna.feed.chains.empty())
        return nullptr;
    auto& parts = ownChain(antenna).parts;
    const auto found = withId(parts, part);
    return found == parts.end() ? nullptr : &*found;
}

ChainPart newPart(const std::string& kind)
{
    ChainPart out;
    out.id = newId();
    out.kind = kind;
    if (kind == part::transformer)
        out.values["loss_dB"] = 0.2;
    if (kind == part::tuner)
        out.values["range_swr"] = 3.0;
    if (kind == part::network)
        out.basis = Basis::Computed;
    return out;
}

Id addChain(Antenna& antenna, const std::string& name)
{
    FeedChain copy = ownChain(antenna);
    FeedChain& before = ownChain(antenna);
    for (const shapes::ParameterSpec& s : shapes::familyOf(antenna.shape).specs(antenna.shape))
        if (s.group == shapes::feedGroup)
            before.own[s.key] = shapes::familyOf(antenna.shape).value(antenna.shape, s.key);
    copy.id = newId();
    copy.own.clear();
    copy.name = freeName(name, chainNames(antenna));
    for (ChainPart& p : copy.parts)
        p.id = newId();
    antenna.feed.chains.push_back(copy);
    antenna.feed.used = copy.id;
    return copy.id;
}

bool useChain(Antenna& antenna, const Id& chain)
{
    auto& chains = antenna.feed.chains;
    const auto next = withId(chains, chain);
    if (next == chains.end())
        return false;
    FeedChain& before = ownChain(antenna);
    if (before.id == chain)
        return true;
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    for (const auto& [key, value] : next->own)
        if (const shapes::ParameterSpec* s = family.spec(antenna.shape, key)) {
            before.own[key] = family.value(antenna.shape, key);
            antenna.shape.parameters[key] = std::clamp(value, s->lowest, s->highest);
            antenna.typed.erase(key);
        }
    next->own.clear();
    antenna.feed.used = chain;
    return true;
}

bool removeChain(Antenna& antenna, const Id& chain)
{
    auto& chains = antenna.feed.chains;
    const auto found = withId(chains, chain);
    if (found == chains.end())
        return false;
    if (usedChain(antenna)->id == chain && chains.size() > 1)
        useChain(antenna, chains[found == chains.begin() ? 1 : 0].id);
    chains.erase(withId(chains, chain));
    if (chains.empty())
        antenna.feed.used.clear();
    return true;
}

bool movePart(Antenna& antenna, const Id& part, int places)
{
    if (antenna.feed.chains.empty())
        return false;
    auto& parts = ownChain(antenna).parts;
    const auto found = withId(parts, part);
    if (found == parts.end())
        return false;
    const long at = found - parts.begin(), to = at + places;
    if (to < 0 || to >= long(parts.size()))
        return false;
    if (to > at)
        std::rotate(found, found + 1, parts.begin() + to + 1);
    else
        std::rotate(parts.begin() + to, found, found + 1);
    settleTuners(parts);
    return true;
}

void moveTuner(Antenna& antenna, const Id& part, part::TunerPlace place)
{
    ChainPart* tuner = findPart(antenna, part);
    if (!tuner)
        return;
    putTuner(*tuner, place);
    auto& parts = ownChain(antenna).parts;
    const auto found = withId(parts, part);
    const auto line = std::find_if(parts.begin(), parts.end(), [](const ChainPart& p) { return p.kind == part::line; });
    if (line == parts.end())
        return;
    if (place == part::atAntenna && found > line)
        std::rotate(line, found, found + 1);
    else if (place == part::inRadio || (place == part::indoors && found < line))
        std::rotate(found, found + 1, parts.end());
}

void takeChain(Antenna& antenna, const std::vector<ChainPart>& whole, std::size_t own)
{
    for (std::size_t i = 0; i < own && i < whole.size(); ++i)
        if (whole[i].kind == part::transformer && shapes::familyOf(antenna.shape).spec(antenna.shape, "transformer_ratio")) {
            antenna.shape.parameters["transformer_ratio"] = partValue(whole[i], "ratio");
            antenna.typed.erase("transformer_ratio");
            if (shapes::familyOf(antenna.shape).spec(antenna.shape, "capacitor_F") &&
                partValue(whole[i], "capacitance_F") != shapes::familyOf(antenna.shape).value(antenna.shape, "capacitor_F")) {
                antenna.shape.parameters["capacitor_F"] = partValue(whole[i], "capacitance_F");
                antenna.typed.erase("capacitor_F");
            }
        }
    for (std::size_t i = 0; i < own && i < whole.size(); ++i)
        if (whole[i].kind == part::line && shapes::familyOf(antenna.shape).spec(antenna.shape, "line_ohm")) {
            const auto put = [&](const char* key, double value) {
                if (value == shapes::familyOf(antenna.shape).value(antenna.shape, key))
                    return;
                antenna.shape.parameters[key] = value;
                antenna.typed.erase(key);
            };
            put("line_m", partValue(whole[i], "length_m"));
            put("line_ohm", partValue(whole[i], "impedance_ohm"));
            put("line_velocity_percent", 100.0 * partValue(whole[i], "velocity_factor"));
            put("line_k1", partValue(whole[i], "k1_dB_per_100m"));
        }
    ownChain(antenna).parts.assign(whole.begin() + long(std::min(own, whole.size())), whole.end());
}

namespace {

/// Up to the nearest choke, else as long as the line is.
shapes::ShieldRun shieldRun(const std::vector<ChainPart>& parts, const Site& site)
{
    shapes::ShieldRun run;
    double line = 0.0;
    for (const ChainPart& p : parts) {
        if (p.kind == part::line)
            line += partValue(p, "length_m");
        if (p.kind == part::choke) {
            const double at = partValue(p, "at_m");
            run.length = run.toChoke ? std::min(run.length, at) : at;
            run.toChoke = true;
        }
    }
    if (!run.toChoke)
        run.length = line;
    if (run.toChoke)
        run.length = std::max(run.length, 1e-3); // at the transformer itself
    for (PlanPoint p : site.coaxRoute)
        run.route.push_back({p.x, p.y, 0.0});
    run.route.push_back({site.feedEntry.x, site.feedEntry.y, 0.0});
    return run;
}

void settleShape(shapes::AntennaShape& shape, const std::vector<ChainPart>& first, const shapes::ShieldRun& run)
{
    shape.feedpoint = first;
    shape.shield = shapes::followsFeedLine(shape) ? run : shapes::ShieldRun();
}

} // namespace

void settleFeed(Antenna& antenna, const Site& site)
{
    const auto& parts = chainParts(antenna);
    const std::vector<ChainPart> first(parts.begin(), parts.begin() + long(feedpointParts(parts)));
    const shapes::ShieldRun run = shieldRun(parts, site);
    settleShape(antenna.shape, first, run);
    for (StoredCopy& copy : antenna.copies)
        settleShape(copy.shape, first, run);
}

void settleFeeds(Design& design)
{
    for (Antenna& antenna : design.antennas)
        settleFeed(antenna, design.site);
}

} // namespace vetchling

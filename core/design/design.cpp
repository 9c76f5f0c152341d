#include "core/design/design.h"

#include "core/shapes/hang.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <functional>
#include <set>

namespace vetchling {
namespace {

template <class List> auto findById(List& list, const Id& id) -> decltype(list.data())
{
    const auto found = std::find_if(list.begin(), list.end(), [&](const auto& thing) { return thing.id == id; });
    return found == list.end() ? nullptr : &*found;
}

template <class List> int indexById(const List& list, const Id& id)
{
    const auto* found = findById(list, id);
    return found ? int(found - list.data()) : -1;
}

/// Makes an id from the kind of a thing and its place in its list.
using Namer = std::function<Id(const char* kind, std::size_t place)>;

template <class List> void nameAll(List& list, const char* kind, const Namer& name)
{
    std::set<Id> taken;
    for (const auto& thing : list)
        taken.insert(thing.id);
    std::set<Id> seen;
    for (std::size_t i = 0; i < list.size(); ++i) {
        if (!list[i].id.empty() && seen.insert(list[i].id).second)
            continue;
        std::size_t place = i;
        Id id = name(kind, place);
        while (!taken.insert(id).second)
            id = name(kind, ++place);
        list[i].id = id;
        seen.insert(id);
    }
}

void nameAll(Design& design, const Namer& name)
{
    nameAll(design.site.supports, "support", name);
    nameAll(design.site.buildings, "building", name);
    nameAll(design.site.waters, "water", name);
    nameAll(design.site.farGrounds, "far-ground", name);
    nameAll(design.site.profiles, "profile", name);
    nameAll(design.operation.bands, "band", name);
    nameAll(design.antennas, "antenna", name);
    for (Antenna& antenna : design.antennas) {
        nameAll(antenna.trim.measurements, "measurement", name);
        nameAll(antenna.trim.reports, "report", name);
        nameAll(antenna.copies, "copy", name);
        nameAll(antenna.variants, "variant", name);
        nameAll(antenna.feed.chains, "chain", name);
        for (FeedChain& chain : antenna.feed.chains)
            nameAll(chain.parts, "part", name);
    }
}

/// Whether an expression has a word in it.
bool mentions(const std::string& expression, const std::string& word)
{
    const auto isPart = [](unsigned char c) { return std::isalnum(c) != 0; };
    if (expression.empty() || expression[0] != '=')
        return false;
    for (std::size_t at = expression.find(word); at != std::string::npos; at = expression.find(word, at + 1)) {
        // "2side" is twice a side; "2side" with a letter before is another word
        const bool begins = at == 0 || !std::isalpha(static_cast<unsigned char>(expression[at - 1]));
        const std::size_t end = at + word.size();
        if (begins && (end >= expression.size() || !isPart(static_cast<unsigned char>(expression[end]))))
            return true;
    }
    return false;
}

/// Works out anew what was typed with a named length; what comes out of its limits stays as it was and is told.
Faults follow(Antenna& antenna, const std::string& name)
{
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    const units::Context context = contextOf(antenna);
    Faults faults;
    for (const auto& [key, text] : antenna.typed) {
        const shapes::ParameterSpec* spec = family.spec(antenna.shape, key);
        if (!spec || !mentions(text, name))
            continue;
        const Result<double> value = units::parse(text, spec->quantity, context);
        if (value && *value >= spec->lowest && *value <= spec->highest)
            antenna.shape.parameters[key] = *value;
        else
            faults.push_back({key, {coreText("core", "%1 cannot follow: %2 is outside its limits"), spec->label, text}});
    }
    return faults;
}

} // namespace

ServedRule servedRule(const Operation& operation)
{
    return {operation.swrLimit, operation.reference, operation.lossLimit, operation.foldbackSwr};
}

const Soil& soilUnder(const Design& design, const Antenna& antenna) { return antenna.soil ? *antenna.soil : design.site.soil; }
Ground groundUnder(const Design& design, const Antenna& antenna) { return soilUnder(design, antenna).ground(); }

Antenna newAntenna(const shapes::Family& family, double frequency, const Site& site)
{
    Antenna antenna;
    antenna.name = family.title();
    antenna.shape = family.standardShape(frequency);
    antenna.tuneForLowestSwr = family.usualGoal() == shapes::TuneGoal::LowestSwr;
    const PlanPoint extent = extentOf(site.boundary);
    antenna.shape.parameters["x_m"] = 0.5 * extent.x;
    antenna.shape.parameters["y_m"] = 0.5 * extent.y;
    const auto tallest = std::max_element(site.supports.begin(), site.supports.end(),
                                          [](const Support& a, const Support& b) { return a.height < b.height; });
    const std::optional<std::size_t> handle = family.hangsBy(antenna.shape);
    settleFeed(antenna, site);
    if (tallest == site.supports.end() || !handle)
        return antenna;
    const shapes::AntennaShape hung = shapes::newlyHung(antenna.shape, *handle, {tallest->at.x, tallest->at.y, tallest->height});
    if (shapes::buildOver(hung, site.soil.ground()))
        antenna.shape = hung;
    return antenna;
}

const Antenna* findAntenna(const Design& design, const Id& id) { return findById(design.antennas, id); }
Antenna* findAntenna(Design& design, const Id& id) { return findById(design.antennas, id); }
const WantedBand* findBand(const Design& design, const Id& id) { return findById(design.operation.bands, id); }
WantedBand* findBand(Design& design, const Id& id) { return findById(design.operation.bands, id); }
std::string bandNames(const Design& design, const std::vector<Id>& bands)
{
    std::vector<std::string> names;
    for (const Id& id : bands)
        if (const WantedBand* band = findBand(design, id))
            names.push_back(band->band.name);
    return joinedNames(names);
}
Support* findSupport(Design& design, const Id& id) { return findById(design.site.supports, id); }
const Support* findSupport(const Design& design, const Id& id) { return findById(design.site.supports, id); }
Building* findBuilding(Design& design, const Id& id) { return findById(design.site.buildings, id); }
const Building* findBuilding(const Design& design, const Id& id) { return findById(design.site.buildings, id); }
Water* findWater(Design& design, const Id& id) { return findById(design.site.waters, id); }
const Water* findWater(const Design& design, const Id& id) { return findById(design.site.waters, id); }

void takeShape(Antenna& antenna, const shapes::AntennaShape& shape)
{
    const shapes::AntennaShape before = antenna.shape;
    antenna.shape = shape;
    std::erase_if(antenna.typed, [&](const auto& typed) {
        return shapes::familyOf(shape).value(shape, typed.first) != shapes::familyOf(before).value(before, typed.first);
    });
}

void agree(Antenna& antenna, Compromise::From from)
{
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    Compromise compromise{from, {}};
    for (const shapes::TunedLength& t : family.tuned(antenna.shape))
        compromise.lengths[t.parameter] = family.value(antenna.shape, t.parameter);
    antenna.compromise = std::move(compromise);
}

const Compromise* compromiseOf(const Antenna& antenna)
{
    if (!antenna.compromise)
        return nullptr;
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    const auto& lengths = antenna.compromise->lengths;
    const auto holds = [&](const auto& l) {
        return family.spec(antenna.shape, l.first) && family.value(antenna.shape, l.first) == l.second;
    };
    return std::all_of(lengths.begin(), lengths.end(), holds) ? &*antenna.compromise : nullptr;
}

void changeSupport(Design& design, const Id& support, const std::function<void(Support&)>& change)
{
    const Site before = design.site;
    Support* changed = findSupport(design, support);
    if (!changed)
        return;
    change(*changed);
    for (Antenna& antenna : design.antennas)
        if (const shapes::AntennaShape shape = shapes::carried(before, *changed, antenna.shape); shape != antenna.shape)
            takeShape(antenna, shape);
}

int indexOfAntenna(const Design& design, const Id& id) { return indexById(design.antennas, id); }
int indexOfBand(const Design& design, const Id& id) { return indexById(design.operation.bands, id); }

Id bandFor(const Design& design, double frequency)
{
    constexpr double near = 0.02; // an antenna cut a little outside a band is still for it
    const auto& bands = design.operation.bands;
    for (double room : {0.0, near})
        for (const WantedBand& w : bands)
            if (frequency >= (1.0 - room) * w.band.from && frequency <= (1.0 + room) * w.band.to)
                return w.id;
    for (const WantedBand& w : bands)
        if (w.wish != Wish::No)
            return w.id;
    return bands.empty() ? Id() : bands.front().id;
}

void nameThings(Design& design)
{
    nameAll(design, [](const char* kind, std::size_t place) { return std::string(kind) + "-" + std::to_string(place + 1); });
}

void nameNewThings(Design& design)
{
    nameAll(design, [](const char*, std::size_t) { return newId(); });
}

std::string freeName(const std::string& wanted, const std::vector<std::string>& taken)
{
    const auto isTaken = [&](const std::string& name) { return std::find(taken.begin(), taken.end(), name) != taken.end(); };
    if (!isTaken(wanted))
        return wanted;
    const std::size_t digits = wanted.find_last_not_of("0123456789");
    const bool numbered = digits != std::string::npos && digits + 1 < wanted.size();
    const bool counted = numbered && wanted[digits] == ' ' && isTaken(wanted.substr(0, digits)); // "pole 2" beside "pole"
    const std::string stem = counted ? wanted.substr(0, digits) : wanted;
    const auto named = [&](int number) {
        const std::string n = std::to_string(number);
        return numbered && !counted ? stem + " (" + n + ")" : stem + " " + n; // "40 m V 30" is no count
    };
    int number = 2;
    while (isTaken(named(number)))
        ++number;
    return named(number);
}

std::vector<std::string> antennaNames(const Design& design, const Id& except)
{
    std::vector<std::string> names;
    for (const Antenna& a : design.antennas)
        if (a.id != except)
            names.push_back(a.name);
    return names;
}

std::vector<std::string> siteNames(const Site& site, const Id& except)
{
    std::vector<std::string> names;
    const auto take = [&](const auto& things) {
        for (const auto& thing : things)
            if (thing.id != except)
                names.push_back(thing.name);
    };
    take(site.supports);
    take(site.buildings);
    take(site.waters);
    return names;
}

void setParameter(Antenna& antenna, const std::string& key, double value, const std::string& typed, const std::string& when)
{
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    const shapes::ParameterSpec* spec = family.spec(antenna.shape, key);
    shapes::AntennaShape next = antenna.shape;
    next.parameters[key] = value;
    const std::string layout = family.layout(antenna.shape);
    const bool isKept = !antenna.copies.empty() && family.layout(antenna.copies.back().shape) == layout;
    if (spec && family.layout(next) != layout && value > family.value(antenna.shape, key) && !isKept)
        storeCopy(antenna, spec->label + ": " + layout, when);
    antenna.shape = std::move(next);
    if (typed.empty())
        antenna.typed.erase(key);
    else
        antenna.typed[key] = typed;
}

namespace {

/// Hz of the centre of the nearest band beyond a frequency, wished ones first; 0 if there is none.
double bandBeyond(const std::vector<WantedBand>& bands, double last, bool upwards)
{
    constexpr double apart = 1.05; // of the frequency
    for (const bool wished : {true, false}) {
        double nearest = 0.0;
        for (const WantedBand& w : bands) {
            const double f = w.band.centre();
            const bool beyond = upwards ? f > apart * last : f < last / apart;
            if (beyond && (!wished || w.wish != Wish::No) && (nearest == 0.0 || (upwards ? f < nearest : f > nearest)))
                nearest = f;
        }
        if (nearest > 0.0)
            return nearest;
    }
    return 0.0;
}

} // namespace

void takeBands(shapes::AntennaShape& shape, const std::vector<WantedBand>& bands, const std::function<bool(const std::string& key)>& isNew)
{
    const shapes::Family& family = shapes::familyOf(shape);
    std::vector<double> worked{shape.designFrequency};
    bool any = false;
    for (const shapes::ParameterSpec& spec : family.specs(shape)) {
        if (spec.key.rfind("frequency_", 0) != 0)
            continue;
        const double usual = family.value(shape, spec.key);
        if (isNew(spec.key)) {
            const bool upwards = usual > shape.designFrequency;
            const double last = upwards ? *std::max_element(worked.begin(), worked.end()) : *std::min_element(worked.begin(), worked.end());
            if (const double f = bandBeyond(bands, last, upwards); f > 0.0) {
                shape.parameters[spec.key] = f;
                any = true;
            }
        }
        worked.push_back(family.value(shape, spec.key));
    }
    if (!any)
        return;
    for (const shapes::TunedLength& t : family.tuned(shape))
        if (isNew(t.parameter))
            if (const auto rules = family.rules(shape, t); !rules.empty())
                shape.parameters[t.parameter] = rules.front().value;
}

void settleTyped(Antenna& antenna, const shapes::AntennaShape& before, const std::string& key, const Design& design)
{
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    takeBands(antenna.shape, design.operation.bands,
              [&](const std::string& other) { return !family.spec(before, other) && !before.parameters.contains(other); });
    antenna.shape = shapes::cornered(design.site, before, key, antenna.shape);
}

units::Context contextOf(const Antenna& antenna, units::System system)
{
    units::Context context;
    context.designFrequency = antenna.shape.designFrequency;
    context.system = system;
    for (const NamedLength& n : antenna.named)
        context.lengths[n.name] = n.length;
    return context;
}

Faults nameLength(Antenna& antenna, const std::string& name, double length, const std::string& typed)
{
    if (!units::isFreeName(name))
        return {{"", {coreText("core", "'%1' cannot name a length; take letters and digits, and no unit or function"), name}}};
    if (!std::isfinite(length))
        return {{"", coreText("core", "a named length must be a finite number")}};
    const auto known = std::find_if(antenna.named.begin(), antenna.named.end(), [&](const NamedLength& n) { return n.name == name; });
    if (known == antenna.named.end())
        antenna.named.push_back({name, length, typed, {}});
    else
        known->length = length, known->typed = typed;
    return follow(antenna, name);
}

void forgetLength(Antenna& antenna, const std::string& name)
{
    std::erase_if(antenna.named, [&](const NamedLength& n) { return n.name == name; });
    std::erase_if(antenna.typed, [&](const auto& typed) { return mentions(typed.second, name); });
}

Id storeCopy(Antenna& antenna, const std::string& name, const std::string& when)
{
    antenna.copies.push_back({newId(), name, when, antenna.shape, antenna.typed, {}, antenna.keptParameters, antenna.keptTyped});
    return antenna.copies.back().id;
}

bool takeCopy(Antenna& antenna, const Id& copy)
{
    const StoredCopy* stored = findById(antenna.copies, copy);
    if (!stored)
        return false;
    antenna.shape = stored->shape;
    antenna.typed = stored->typed;
    antenna.keptParameters = stored->keptParameters;
    antenna.keptTyped = stored->keptTyped;
    return true;
}

} // namespace vetchling

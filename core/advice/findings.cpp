#include "core/advice/findings.h"

#include <algorithm>

namespace vetchling::advice {
namespace {

using Kind = SiteWarning::Kind;

Text briefOf(Kind kind)
{
    switch (kind) {
    case Kind::PowerLine: return coreText("core", "power line in reach");
    case Kind::Building: return coreText("core", "touches a house");
    case Kind::Support: return coreText("core", "nothing holds it");
    case Kind::Mast: return coreText("core", "higher than a mast stands by itself");
    case Kind::Tie: return coreText("core", "not held as it hangs");
    case Kind::Tube: return coreText("core", "tubes too long to hold themselves");
    case Kind::Boundary: return coreText("core", "beyond the boundary");
    case Kind::Water: return coreText("core", "stands in water");
    case Kind::Metal: return coreText("core", "near metal");
    case Kind::Low: return coreText("core", "low enough to touch");
    case Kind::Dig: return coreText("core", "dug in");
    }
    return {};
}

} // namespace

const char* wordOf(Gravity gravity)
{
    constexpr const char* words[] = {"danger", "wrong", "next", "done"};
    return words[std::size_t(gravity)];
}

const char* idOf(Stage stage)
{
    constexpr const char* ids[] = {"site", "shape", "bands", "feed", "build", "trim"};
    return ids[std::size_t(stage)];
}

void sort(std::vector<Finding>& findings)
{
    std::stable_sort(findings.begin(), findings.end(), [](const Finding& a, const Finding& b) {
        return a.gravity != b.gravity ? a.gravity < b.gravity : a.gravity != Gravity::Danger && a.stage < b.stage;
    });
}

const char* codeOf(Kind kind)
{
    switch (kind) {
    case Kind::PowerLine: return "power-line";
    case Kind::Boundary: return "boundary";
    case Kind::Building: return "building";
    case Kind::Support:
    case Kind::Mast: return "support";
    case Kind::Tie:
    case Kind::Tube: return "tie";
    case Kind::Water: return "water";
    case Kind::Metal: return "metal";
    case Kind::Low: return "low";
    case Kind::Dig: return "dig";
    }
    return "";
}

std::vector<Finding> placeFindings(const Antenna& antenna, const FitReport& fit)
{
    constexpr Kind order[] = {Kind::PowerLine, Kind::Building, Kind::Support, Kind::Mast, Kind::Tie, Kind::Tube,
                              Kind::Boundary,  Kind::Water,    Kind::Metal,   Kind::Low,  Kind::Dig};
    std::vector<Finding> all;
    for (Kind kind : order)
        for (const SiteWarning& w : fit.warnings) {
            const auto is = [&](const Finding& f) { return f.code == codeOf(kind) && f.message.english() == w.message.english(); };
            if (w.kind != kind || std::any_of(all.begin(), all.end(), is)) // both ends alike are told once
                continue;
            const bool danger = kind == Kind::PowerLine || kind == Kind::Building;
            const bool hangs = kind == Kind::Support || kind == Kind::Mast || kind == Kind::Tie || kind == Kind::Tube || kind == Kind::Low;
            all.push_back({.antenna = antenna.id,
                           .gravity = danger      ? Gravity::Danger
                                      : w.upright ? Gravity::Next // nobody but the builder knows whether it is fenced off
                                                  : Gravity::Wrong,
                           .code = codeOf(kind),
                           .brief = w.upright ? coreText("core", "within reach at its foot") : briefOf(kind),
                           .message = w.message,
                           .stage = hangs ? Stage::Shape : Stage::Site,
                           .view = hangs ? "plan" : "",
                           .ofPlace = true,
                           .ofSupport = !w.support.empty(),
                           .at = w.at,
                           .everywhere = danger || kind == Kind::Support || kind == Kind::Mast});
            if ((kind == Kind::Low && !w.upright) || kind == Kind::Dig || kind == Kind::Boundary)
                break; // a star of radials says it once
        }
    return all;
}

std::vector<Finding> crossingFindings(const Design& design, const Antenna& antenna, const std::vector<std::pair<Id, Crossing>>& crossings)
{
    std::vector<Finding> all;
    for (const auto& [id, crossing] : crossings)
        if (const Antenna* other = findAntenna(design, id))
            all.push_back({.antenna = antenna.id,
                           .gravity = Gravity::Wrong,
                           .code = "crossing",
                           .brief = coreText("core", "too near to another antenna"),
                           .message = {coreText("core", "comes within %1 of %2, %3 high; keep wires apart, or take one down"),
                                       Measure{crossing.apart, units::Quantity::Length}, other->name,
                                       Measure{crossing.at.z, units::Quantity::Length}},
                           .stage = Stage::Site,
                           .ofPlace = true,
                           .at = crossing.at});
    return all;
}

} // namespace vetchling::advice

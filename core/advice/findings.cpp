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
    case Kind::Tie: return coreText("core", "not held as it hangs");
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

const char* codeOf(Kind kind)
{
    switch (kind) {
    case Kind::PowerLine: return "power-line";
    case Kind::Boundary: return "boundary";
    case Kind::Building: return "building";
    case Kind::Support: return "support";
    case Kind::Tie: return "tie";
    case Kind::Water: return "water";
    case Kind::Metal: return "metal";
    case Kind::Low: return "low";
    case Kind::Dig: return "dig";
    }
    return "";
}

std::vector<Finding> placeFindings(const Antenna& antenna, const FitReport& fit)
{
    constexpr Kind order[] = {Kind::PowerLine, Kind::Building, Kind::Support, Kind::Tie, Kind::Boundary,
                              Kind::Water,     Kind::Metal,    Kind::Low,     Kind::Dig};
    std::vector<Finding> all;
    for (Kind kind : order)
        for (const SiteWarning& w : fit.warnings) {
            if (w.kind != kind)
                continue;
            const bool danger = kind == Kind::PowerLine || kind == Kind::Building;
            all.push_back({antenna.id, danger ? Gravity::Danger : Gravity::Wrong, codeOf(kind), briefOf(kind), w.message,
                           !w.support.empty(), w.at, danger || kind == Kind::Support});
            if (kind == Kind::Low || kind == Kind::Dig || kind == Kind::Boundary)
                break; // a star of radials says it once
        }
    return all;
}

} // namespace vetchling::advice

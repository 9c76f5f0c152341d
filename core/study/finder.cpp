#include "core/study/finder.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {

FinderFacts finderFacts(const std::vector<Band>& bands, const FreeLengthOptions& options, std::shared_ptr<const LengthMap> map)
{
    FinderFacts out;
    out.options = options;
    out.map = std::move(map);
    if (auto free = freeLengths(bands, options)) {
        out.bands = bands;
        out.free = std::move(free).value();
        for (const Band& band : bands)
            out.zones.push_back(halfWaveZones(band, options));
    } else {
        out.faults = free.faults();
    }
    if (!out.map)
        return out;
    for (double ratio : drawnRatios) {
        std::vector<double>& line = out.worst.emplace_back();
        for (std::size_t i = 0; i < out.map->columns.size(); ++i)
            line.push_back(worstSwr(*out.map, i, ratio));
    }
    out.best = bestRatios(*out.map);
    return out;
}

std::optional<double> ratioFor(const FinderFacts& facts, double length)
{
    if (!facts.map || facts.map->columns.empty())
        return std::nullopt;
    const auto& columns = facts.map->columns;
    const auto nearest = std::min_element(columns.begin(), columns.end(), [&](const auto& a, const auto& b) {
        return std::abs(a.value - length) < std::abs(b.value - length);
    });
    const std::size_t column = std::size_t(nearest - columns.begin());
    std::optional<double> best;
    double least = HUGE_VAL;
    for (std::size_t r = 0; r < facts.worst.size(); ++r)
        if (column < facts.worst[r].size() && facts.worst[r][column] < least) {
            least = facts.worst[r][column];
            best = drawnRatios[r];
        }
    return best;
}

} // namespace vetchling::study

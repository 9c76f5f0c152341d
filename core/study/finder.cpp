#include "core/study/finder.h"

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

} // namespace vetchling::study

#include "core/study/ratios.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {

namespace {

void addRange(const LengthMap& map, RatioChoice& choice)
{
    choice.lowestResistance = choice.lowestReactance = HUGE_VAL;
    choice.highestResistance = choice.highestReactance = -HUGE_VAL;
    const std::vector<MapCell>& cells = map.columns[choice.column].cells;
    for (std::size_t i = 0; i < cells.size(); ++i) {
        if (map.question.question.bands[i].wish == Wish::No)
            continue;
        const Complex z = cells[i].port / choice.ratio;
        choice.lowestResistance = std::min(choice.lowestResistance, z.real());
        choice.highestResistance = std::max(choice.highestResistance, z.real());
        choice.lowestReactance = std::min(choice.lowestReactance, z.imag());
        choice.highestReactance = std::max(choice.highestReactance, z.imag());
    }
}

} // namespace

double worstSwr(const LengthMap& map, std::size_t column, double ratio)
{
    const std::vector<MapCell>& cells = map.columns[column].cells;
    double worst = 0.0;
    for (std::size_t i = 0; i < cells.size(); ++i) {
        if (map.question.question.bands[i].wish == Wish::No)
            continue;
        worst = std::max(worst, cells[i].solved ? swr(cells[i].port / ratio, map.question.question.reference) : HUGE_VAL);
    }
    return worst > 0.0 ? worst : HUGE_VAL;
}

std::vector<RatioChoice> bestRatios(const LengthMap& map)
{
    std::vector<RatioChoice> all;
    for (double ratio : woundRatios) {
        RatioChoice best;
        best.ratio = ratio;
        best.worstSwr = HUGE_VAL;
        for (std::size_t i = 0; i < map.columns.size(); ++i)
            if (const double worst = worstSwr(map, i, ratio); worst < best.worstSwr) {
                best.column = i;
                best.worstSwr = worst;
            }
        if (!std::isfinite(best.worstSwr))
            continue;
        addRange(map, best);
        all.push_back(best);
    }
    std::stable_sort(all.begin(), all.end(), [](const RatioChoice& a, const RatioChoice& b) { return a.worstSwr < b.worstSwr; });
    return all;
}

} // namespace vetchling::study

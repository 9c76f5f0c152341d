#include "core/study/length_map.h"

#include "core/bands/multiples.h"
#include "core/study/configurations.h"
#include "core/study/fed_fields.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace vetchling::study {
namespace {

constexpr double noGain = -300.0; // dBi

double highestSolved(const std::vector<BandChoice>& choices)
{
    double highest = 0.0;
    for (const BandChoice& c : choices)
        if (c.coverage.solved())
            highest = std::max(highest, c.coverage.band.centre());
    return highest;
}

/// The highest wished band's place; none where nothing is wished for.
std::optional<std::size_t> highestWished(const std::vector<WantedBand>& bands)
{
    for (std::size_t i = bands.size(); i-- > 0;)
        if (bands[i].wish != Wish::No)
            return i;
    return std::nullopt;
}

double sumOverWishes(const MapQuestion& question, const MapColumn& column, double MapCell::*what)
{
    double sum = 0.0;
    for (std::size_t i = 0; i < column.cells.size(); ++i)
        if (column.cells[i].solved)
            sum += weightOf(question.question.bands[i].wish) * column.cells[i].*what;
    return sum;
}

/// What comes first in a comparison of columns: score, then gain where the wishes are.
std::tuple<double, double> allRound(const MapQuestion& question, const MapColumn& column)
{
    return {column.score, sumOverWishes(question, column, &MapCell::gain)};
}

std::optional<std::size_t> placeOf(const std::vector<WantedBand>& bands, const Id& id)
{
    for (std::size_t i = 0; i < bands.size(); ++i)
        if (bands[i].id == id)
            return i;
    return std::nullopt;
}

} // namespace

double LengthMap::progress() const
{
    if (columns.empty())
        return 1.0;
    return double(std::count_if(columns.begin(), columns.end(), [](const MapColumn& c) { return c.computed() && c.care == Care::Usual; })) /
           double(columns.size());
}

Tally LengthMap::tally(std::size_t column) const
{
    std::vector<BandService> services;
    for (const MapCell& cell : columns[column].cells)
        services.push_back(cell.service);
    return tallyOf(services, question.question.bands);
}

std::optional<double> LengthMap::enoughHeight(std::size_t band) const
{
    constexpr double worthIt = 1.0; // dB a metre
    std::optional<double> enough;
    const MapColumn* above = nullptr;
    for (std::size_t i = columns.size(); i-- > 0;) {
        const MapColumn& c = columns[i];
        if (c.cells.empty() || !c.cells[band].solved)
            continue;
        if (above && (above->cells[band].gain - c.cells[band].gain) / (above->value - c.value) >= worthIt)
            return above == &columns.back() ? std::nullopt : std::optional(above->value);
        above = &c;
        enough = c.value;
    }
    return enough;
}

std::vector<double> mapValues(const shapes::ParameterSpec& spec, double from, double to, int count)
{
    from = std::max(from, spec.lowest);
    to = std::min(to, spec.highest);
    std::vector<double> values;
    for (int i = 0; i < count; ++i)
        values.push_back(count > 1 ? from + (to - from) * i / (count - 1) : from);
    return values;
}

Result<MapQuestion> mapQuestionOf(const Design& design, const Antenna& antenna, const std::string& vary, double from, double to, int count)
{
    MapQuestion out;
    out.question = questionOf(design, antenna);
    out.question.before.reset();
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    const auto tuned = family.tuned(antenna.shape);
    out.vary = !vary.empty() ? vary : tuned.empty() ? std::string() : tuned.front().parameter;
    const std::optional<Varied> varied = variedOf(design, antenna, out.vary);
    if (!varied)
        return Fault{"--vary", {coreText("core", "'%1' is no dimension of this antenna"), out.vary}};
    out.vary = varied->spec.key;
    const auto [usualLow, usualHigh] = usualRange(design, antenna, out.vary);
    const double low = from != 0.0 ? from : usualLow, high = to != 0.0 ? to : usualHigh;
    if (!(high > low) || count < 2 || count > 2000)
        return Fault{"--from", coreText("core", "give a range from a lower to a higher value, and 2 to 2000 steps")};
    out.values = mapValues(varied->spec, low, high, count);
    if (!(out.values.back() > out.values.front()))
        return Fault{"--from",
                     {coreText("core", "nothing of that range lies between %1 and %2"), Measure{varied->spec.lowest, varied->spec.quantity},
                      Measure{varied->spec.highest, varied->spec.quantity}}};
    // the present value is no matter of the map
    if (isHeight(out.vary)) {
        out.at = subjectsVariedTo(design, antenna, out.vary, out.values);
        out.question.subject = out.at.front();
    } else if (out.vary == turning && turns(antenna)) {
        for (const Subject& subject : subjectsVariedTo(design, antenna, out.vary, out.values))
            out.free.push_back(standsFree(design, subject));
        out.question.subject.shape = family.levered(out.question.subject.shape, out.vary, out.values.front());
    } else {
        out.question.subject.shape = family.levered(out.question.subject.shape, out.vary, out.values.front());
    }
    out.aim = aimOf(design.operation);
    out.terms = termsOf(design.operation, antenna);
    const auto& bands = design.operation.bands;
    out.favourite = placeOf(bands, design.operation.favourite) ? design.operation.favourite : Id();
    for (Wish wish : {Wish::Must, Wish::Nice})
        for (const WantedBand& w : bands)
            if (out.favourite.empty() && w.wish == wish && antenna.shape.designFrequency >= w.band.from &&
                antenna.shape.designFrequency <= w.band.to)
                out.favourite = w.id;
    for (Wish wish : {Wish::Must, Wish::Nice})
        for (const WantedBand& w : bands)
            if (out.favourite.empty() && w.wish == wish)
                out.favourite = w.id;
    return out;
}

Result<MapColumn> mapColumn(Library& library, const MapQuestion& map, double value, Care care, const Watch& watch, Reach reach)
{
    MapColumn column;
    column.value = value;
    column.care = care;
    Question question = map.question;
    if (const auto place = std::find(map.values.begin(), map.values.end(), value); !map.at.empty() && place != map.values.end())
        question.subject = map.at[std::size_t(place - map.values.begin())];
    else
        question.subject.shape = shapes::familyOf(question.subject.shape).levered(question.subject.shape, map.vary, value);
    const auto curves = curvesOf(library, question, watch, reach, care);
    if (!curves) {
        column.fault = curves.faults().front().message;
        return unlessStopped(watch, std::move(column));
    }
    const shapes::AntennaShape& shape = question.subject.shape;
    const double fundamental = ruleFundamental(map.question.subject.shape, map.vary, value);
    const std::vector<BandChoice> best = bestByBand(*curves);
    const std::optional<std::size_t> highest = highestWished(question.bands);
    FedFields fields(library, *curves, highestSolved(best), care, watch);
    std::vector<MapCell> cells;
    for (std::size_t i = 0; i < best.size(); ++i) {
        const Coverage& c = best[i].coverage;
        MapCell cell;
        cell.solved = c.solved() && (reach != Reach::Wished || question.bands[i].wish != Wish::No);
        cell.configuration = best[i].configuration;
        cell.multiple = !multiplesIn(c.band, fundamental, shapes::familyOf(shape).multiples()).empty();
        if (cell.solved) {
            cell.lowestSwr = c.lowestSwr;
            cell.at = c.at;
            cell.share = usableShare(c);
            cell.service = serviceOf(*(*curves)[cell.configuration], i, map.terms);
            for (int s = 0; s < traceSamples; ++s)
                cell.swr.push_back(
                    float((*curves)[cell.configuration]->swrAt(c.band.from + (c.band.to - c.band.from) * s / (traceSamples - 1))));
            const auto fed = fields.at(cell.configuration, c.band.centre());
            cell.port = fed ? fed->port : Complex();
            cell.gain = fed ? fed->gain(gainTowards(fed->field, map.aim, watch)) : noGain;
            cell.up = fed ? fed->gain(fed->field.gain(0.5 * pi, 0.0)) : noGain;
            cell.resistance = c.impedance.real();
            if (fed && highest == i) {
                const double azimuth = azimuthTowards(fed->field, map.aim, watch);
                column.lobe = lobeElevation(fed->field, azimuth);
                column.underLobe = fed->field.gain(column.lobe, azimuth) - fed->field.gain(map.aim.elevation, azimuth);
            }
        }
        cells.push_back(cell);
    }
    column.cells = std::move(cells);
    column.score = sumOverWishes(map, column, &MapCell::share);
    return unlessStopped(watch, std::move(column));
}

void judgeMap(LengthMap& map)
{
    constexpr double past = 3.0; // dB
    map.bestAllRound.reset();
    map.bestFavourite.reset();
    map.lobeCeiling.reset();
    if (!highestWished(map.question.question.bands))
        return;
    const std::optional<std::size_t> favourite = placeOf(map.question.question.bands, map.question.favourite);
    const auto forFavourite = [&](const MapColumn& column) {
        const MapCell& cell = column.cells[*favourite];
        const double mismatch = cell.share > 0.0 ? 0.0 : cell.solved ? -cell.lowestSwr : -HUGE_VAL;
        return std::tuple{cell.share, mismatch, column.score, cell.gain};
    };
    for (std::size_t i = 0; i < map.columns.size(); ++i) {
        const MapColumn& column = map.columns[i];
        if (column.cells.empty())
            continue;
        if (!map.bestAllRound || allRound(map.question, column) > allRound(map.question, map.columns[*map.bestAllRound]))
            map.bestAllRound = i;
        if (favourite && (!map.bestFavourite || forFavourite(column) > forFavourite(map.columns[*map.bestFavourite])))
            map.bestFavourite = i;
    }
    for (std::size_t i = map.columns.size(); i-- > 0;) { // from the longest down, as long as the angle stays under the lobe
        const MapColumn& column = map.columns[i];
        if (column.cells.empty())
            continue;
        if (!(column.underLobe > past && column.lobe > map.question.aim.elevation))
            break;
        map.lobeCeiling = column.value;
    }
}

} // namespace vetchling::study

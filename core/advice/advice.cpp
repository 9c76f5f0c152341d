#include "core/advice/advice.h"

#include <fmt/format.h>

#include <algorithm>
#include <tuple>

namespace vetchling::advice {

std::string Answer::key() const
{
    std::string all;
    for (const TriedPointer& t : antennas)
        all += (all.empty() ? "" : " + ") + t->key;
    return all;
}

std::string placeWords(const Design& design, const Place& place)
{
    std::vector<std::string> names;
    for (const Id& id : place.supports)
        if (const Support* s = findSupport(design, id))
            names.push_back(s->name);
    for (std::size_t i = 0; i < place.poles.size(); ++i)
        names.emplace_back(coreText("core", "new pole"));
    if (!names.empty())
        return fmt::format("{}", fmt::join(names, ", "));
    return coreText("core", "on the ground");
}

const char* wordOf(Help::Kind kind)
{
    constexpr const char* words[] = {"higher", "pole", "tuner", "fewer-bands"};
    return words[std::size_t(kind)];
}

std::vector<Row> rowsOf(const Advice& advice, const Design& design)
{
    const Weighed wanted = weighed(design, advice.rules);
    std::vector<Row> all;
    for (const TriedPointer& pointer : advice.tried) {
        const Tried& t = *pointer;
        Row row;
        row.key = t.key;
        row.family = t.antenna.shape.family;
        row.name = t.antenna.name;
        row.place = placeWords(design, t.place);
        row.reason = t.reason;
        row.judged = t.usable();
        row.exact = t.depth == Depth::Exact;
        row.wire = t.takes.wire;
        row.wish = wishOf(wanted.weights, worthsOf(advice.rules, t.bands));
        row.score = scoreOf(row.wish, effortOf(advice.rules, t.takes));
        for (std::size_t i = 0; i < advice.answers.size(); ++i)
            if (const Answer& a = advice.answers[i]; a.antennas.size() == 1 && a.antennas.front()->key == t.key) {
                row.rank = i + 1;
                row.wish = a.wish;
                row.score = a.score;
            }
        all.push_back(std::move(row));
    }
    const auto order = [](const Row& r) { return std::tuple(r.rank == 0, r.rank, !r.judged, -r.score); };
    std::stable_sort(all.begin(), all.end(), [&](const Row& a, const Row& b) { return order(a) < order(b); });
    return all;
}

std::vector<Id> hangUp(Design& design, const Answer& answer)
{
    std::vector<Id> ids;
    for (const TriedPointer& t : answer.antennas)
        ids.push_back(hangUp(design, *t));
    return ids;
}

} // namespace vetchling::advice

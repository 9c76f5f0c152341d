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
    return coreText("core", "by itself");
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

const Answer* bestOf(const Advice& advice, std::size_t antennas)
{
    const auto found =
        std::find_if(advice.answers.begin(), advice.answers.end(), [&](const Answer& a) { return a.antennas.size() == antennas; });
    return found == advice.answers.end() ? nullptr : &*found;
}

int servedBy(const Answer& answer)
{
    constexpr double served = 0.95;
    return int(
        std::count_if(answer.bands.begin(), answer.bands.end(), [](const AnswerBand& b) { return b.figure.shareWithTuner >= served; }));
}

namespace {

std::string percent(double part) { return fmt::format("{:.0f} %", 100.0 * part); }

} // namespace

std::vector<Text> whyNot(const Advice& advice, const std::string& family)
{
    const std::vector<Row>& rows = advice.rows;
    const auto its = std::find_if(rows.begin(), rows.end(), [&](const Row& r) { return r.family == family; });
    if (its == rows.end())
        return {coreText("core", "It was not tried: no site has what it needs.")};
    std::vector<Text> all;
    if (!its->judged)
        all.push_back({its->place.empty() ? coreText("core", "%1: %3.") : coreText("core", "%1 (%2): %3."), its->name, its->place,
                       its->reason.english()});
    else {
        all.push_back({coreText("core", "Its best here: %1, %2. It brings %3 of the wish and takes %4."), its->name, its->place,
                       percent(its->wish), percent(its->wish - its->score)});
        if (its->rank > 0)
            all.push_back({coreText("core", "That is answer %1."), std::to_string(its->rank)});
        else if (!advice.answers.empty())
            all.push_back(
                {coreText("core", "That leaves %1; the last one told has %2."), percent(its->score), percent(advice.answers.back().score)});
    }
    for (std::size_t i = 0; i < advice.answers.size(); ++i)
        for (const TriedPointer& t : advice.answers[i].antennas)
            if (t->antenna.shape.family == family && advice.answers[i].antennas.size() > 1) {
                all.push_back({coreText("core", "Beside others it is part of answer %1."), std::to_string(i + 1)});
                return all;
            }
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

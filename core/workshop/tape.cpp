#include "core/workshop/tape.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

using shapes::WireEnd;

constexpr double together = 1e-6;  // m
constexpr double turning = 0.9986; // cosine of 3 degrees

MarkKind tiedAt(WireEnd end)
{
    switch (end) {
    case WireEnd::Link: return MarkKind::Link;
    case WireEnd::Coil: return MarkKind::Coil;
    case WireEnd::Insulator: return MarkKind::Fold;
    case WireEnd::Centre:
    case WireEnd::Transformer: return MarkKind::Out;
    case WireEnd::Bare:
    case WireEnd::Joint:
    case WireEnd::Tube: break;
    }
    return MarkKind::Joint;
}

/// The wire from a place on, to where nothing is joined to it any more or to where it comes back.
class Walk {
public:
    Walk(const WireModel& model, Vec3 start) : m_model(model), m_used(model.wires.size(), false), m_path{start} {}

    /// Along the rest of a wire, forwards or backwards, then on through what is joined to its end by itself.
    std::vector<Vec3> along(std::size_t wire, double from, bool forwards)
    {
        m_used[wire] = true;
        const std::vector<Vec3>& points = m_model.wires[wire].points;
        double at = 0.0;
        std::vector<Vec3> before, after;
        for (std::size_t i = 0; i < points.size(); ++i) {
            at += i > 0 ? distance(points[i], points[i - 1]) : 0.0;
            (at < from - together ? before : after).push_back(points[i]);
        }
        std::reverse(before.begin(), before.end());
        append(forwards ? after : before);
        while (goOn())
            ;
        const Vec3 otherEnd = forwards ? points.front() : points.back();
        if (distance(m_path.back(), otherEnd) < together) { // round a loop and back to the feed
            std::vector<Vec3>& rest = forwards ? before : after;
            std::reverse(rest.begin(), rest.end());
            append(rest);
            append({Vec3(m_path.front())});
        }
        return m_path;
    }

private:
    void append(const std::vector<Vec3>& points)
    {
        for (const Vec3& p : points)
            if (distance(p, m_path.back()) > together)
                m_path.push_back(p);
    }

    bool goOn()
    {
        std::size_t next = m_model.wires.size();
        bool backwards = false;
        for (std::size_t i = 0; i < m_model.wires.size(); ++i)
            for (bool end : {false, true}) {
                const std::vector<Vec3>& p = m_model.wires[i].points;
                if (m_used[i] || distance(end ? p.back() : p.front(), m_path.back()) > together)
                    continue;
                if (next < m_model.wires.size())
                    return false; // a knot of more than two
                next = i, backwards = end;
            }
        if (next == m_model.wires.size())
            return false;
        m_used[next] = true;
        std::vector<Vec3> points = m_model.wires[next].points;
        if (backwards)
            std::reverse(points.begin(), points.end());
        append(points);
        return true;
    }

    const WireModel& m_model;
    std::vector<bool> m_used;
    std::vector<Vec3> m_path;
};

std::vector<double> turnsOf(const std::vector<Vec3>& path)
{
    std::vector<double> turns;
    double at = 0.0;
    for (std::size_t i = 1; i + 1 < path.size(); ++i) {
        at += distance(path[i], path[i - 1]);
        if (dot(unit(path[i] - path[i - 1]), unit(path[i + 1] - path[i])) < turning)
            turns.push_back(at);
    }
    return turns;
}

/// Distances of turns from the feed, to one side of it and to the other.
std::array<std::vector<double>, 2> turnsFromFeed(const shapes::BuiltAntenna& built)
{
    const WireModel& model = built.model;
    if (model.feeds.empty() || model.feeds.front().wire >= model.wires.size())
        return {};
    const Feed& feed = model.feeds.front();
    double whole = 0.0;
    const std::vector<Vec3>& points = model.wires[feed.wire].points;
    for (std::size_t i = 1; i < points.size(); ++i)
        whole += distance(points[i], points[i - 1]);
    const bool atStart = feed.at<together, atEnd = feed.at> whole - together;
    std::array<std::vector<double>, 2> out;
    if (!atEnd)
        out[0] = turnsOf(Walk(model, built.feedPoint).along(feed.wire, feed.at, true));
    if (!atStart)
        out[1] = turnsOf(Walk(model, built.feedPoint).along(feed.wire, feed.at, false));
    if (out[0].empty())
        std::swap(out[0], out[1]);
    return out;
}

bool atFeed(WireEnd end) { return end == WireEnd::Centre || end == WireEnd::Transformer; }

} // namespace

std::vector<TapeMark> tapeOf(const CutRow& row, const std::vector<double>& corners, double offset)
{
    std::vector<TapeMark> marks{{MarkKind::Peg, offset}};
    double at = offset + row.firstLoop;
    if (row.first == WireEnd::Link) {
        at += row.pigtail;
        marks.push_back({MarkKind::PigtailEnds, offset + row.pigtail});
    }
    if (at > offset)
        marks.push_back({tiedAt(row.first), at});
    const double start = at - (row.first == WireEnd::Link ? row.pigtail : 0.0);
    for (double corner : corners)
        if (corner > together && corner < row.radiating - together)
            marks.push_back({MarkKind::Corner, start + corner});
    at = offset + row.cut - row.lastLoop - (row.last == WireEnd::Link ? row.pigtail : 0.0);
    if (row.cut + offset - at > together)
        marks.push_back({tiedAt(row.last), at});
    if (row.last == WireEnd::Link && row.pigtail > 0.0)
        marks.push_back({MarkKind::PigtailEnds, at + row.lastLoop});
    marks.push_back({MarkKind::Cut, offset + row.cut});
    std::stable_sort(marks.begin(), marks.end(), [](const TapeMark& a, const TapeMark& b) { return a.at < b.at; });
    return marks;
}

std::vector<std::vector<double>> cornersOf(const shapes::BuiltAntenna& built)
{
    const std::array<std::vector<double>, 2> turns = turnsFromFeed(built);
    std::vector<std::vector<double>> all(built.sections.size());
    std::array<double, 2> gone{0.0, 0.0};
    std::size_t alone = 0, side = 0;
    for (std::size_t i = 0; i < built.sections.size(); ++i) {
        const shapes::WireSection& s = built.sections[i];
        if (atFeed(s.first)) {
            side = s.pieces == 1 ? alone++ % 2 : 0;
            gone[side] = 0.0;
        } else if (s.first != WireEnd::Coil && s.first != WireEnd::Link) {
            continue;
        }
        for (double turn : turns[side])
            if (turn > gone[side] && turn < gone[side] + s.length)
                all[i].push_back(turn - gone[side]);
        gone[side] += s.length;
    }
    return all;
}

std::vector<std::string> pieceKeys(const CutRow& row)
{
    std::vector<std::string> keys;
    for (int i = 1; i <= row.pieces; ++i)
        keys.push_back(row.name + "/" + std::to_string(i));
    return keys;
}

SpoolUse spoolUse(const std::vector<CutRow>& rows, double spool)
{
    SpoolUse use{spool, {}};
    std::vector<const CutRow*> order;
    for (const CutRow& row : rows)
        for (int i = 0; i < row.pieces; ++i)
            order.push_back(&row);
    std::stable_sort(order.begin(), order.end(), [](const CutRow* a, const CutRow* b) { return a->cut > b->cut; });
    double there = spool;
    for (const CutRow* row : order) {
        if (row->cut <= there + together)
            there -= row->cut;
        else if (use.without.empty() || use.without.back() != row->name)
            use.without.push_back(row->name);
        use.left -= row->cut;
    }
    return use;
}

} // namespace vetchling

#include "core/trim/measure_card.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double beyond = 0.02, partsOfWidth = 10.0;
constexpr double unmeasuredBelow = 0.05; // of the frequency, that building may have made it longer
constexpr double samePlace = 1e-6;       // m

} // namespace

bool joinedForDirectCurrent(const shapes::BuiltAntenna& built)
{
    if (built.transformer && built.transformer->ratio != 1.0)
        return true;
    const WireModel& model = built.model;
    if (model.feeds.empty())
        return false;
    // points in one heap where metal joins them, the fed wire parted at its feed
    std::vector<Vec3> points;
    std::vector<std::size_t> heap;
    const auto pointAt = [&](Vec3 p, bool own) {
        for (std::size_t i = 0; !own && i < points.size(); ++i)
            if (distance(points[i], p) < samePlace)
                return i;
        points.push_back(p);
        heap.push_back(points.size() - 1);
        return points.size() - 1;
    };
    const auto root = [&](std::size_t i) {
        while (heap[i] != i)
            i = heap[i];
        return i;
    };
    const Feed& feed = model.feeds.front();
    const std::size_t one = pointAt(built.feedPoint, true), other = pointAt(built.feedPoint, true);
    points[one].z += 10.0 * samePlace; // two terminals, found by nothing else
    points[other].z -= 10.0 * samePlace;
    for (std::size_t w = 0; w < model.wires.size(); ++w) {
        const std::vector<Vec3>& p = model.wires[w].points;
        double at = 0.0;
        for (std::size_t i = 1; i < p.size(); ++i) {
            const double length = distance(p[i], p[i - 1]);
            const bool fed = w == feed.wire && feed.at >= at - samePlace && feed.at <= at + length + samePlace;
            const auto join = [&](std::size_t a, std::size_t b) { heap[root(a)] = root(b); };
            if (!fed) {
                join(pointAt(p[i - 1], false), pointAt(p[i], false));
            } else {
                if (feed.at > at + samePlace)
                    join(pointAt(p[i - 1], false), one);
                if (feed.at < at + length - samePlace)
                    join(other, pointAt(p[i], false));
            }
            at += length;
        }
    }
    return root(one) == root(other);
}

MeasureCard measureCardOf(const TrimOutcome& outcome, const shapes::BuiltAntenna& built)
{
    using units::Quantity;
    MeasureCard card;
    const TrimNext& next = outcome.next;
    const double dip = next.predicted > 0.0 && next.change == 0.0 ? next.predicted : next.modelDip;
    card.direct = joinedForDirectCurrent(built);
    card.from = (1.0 - (next.predicted > 0.0 ? beyond : unmeasuredBelow)) * std::min({dip, next.aim, next.target});
    card.to = (1.0 + beyond) * std::max({dip, next.aim, next.target});
    card.step = next.width > 0.0 ? next.width / partsOfWidth : 1e-3 * next.target;
    card.aim = next.aim;
    auto& s = card.steps;
    s.push_back(
        card.direct
            ? coreText("core", "Ohmmeter first, at the plug: it shall read nearly a short. If it is open, a joint, a winding or a link is.")
            : coreText("core",
                       "Ohmmeter first, at the plug: it shall read open. If it is a short, look at plug, centre piece and a wet balun."));
    s.push_back({coreText("core", "Sweep from %1 to %2, in steps of %3 kHz or finer."), Measure{card.from, Quantity::Frequency},
                 Measure{card.to, Quantity::Frequency}, Measure{std::max(0.1, std::round(card.step / 100.0) / 10.0)}});
    s.push_back(coreText(
        "core",
        "Calibrate for just this range with open, short and load, at the end of the cable that goes to the antenna; again whenever the "
        "range changes."));
    s.push_back(coreText("core", "Read the SWR. R, X and \"X = 0\" are the antenna's only where the calibration ends at the feedpoint."));
    if (std::abs(next.aim - next.target) > 1e3)
        s.push_back({coreText("core", "It hangs lower or higher than it will: aim for a dip at %1 here, that is %2 up there."),
                     Measure{next.aim, Quantity::Frequency}, Measure{next.target, Quantity::Frequency}});
    else
        s.push_back({coreText("core", "Aim for a dip at %1, good within %2 kHz either side."), Measure{next.target, Quantity::Frequency},
                     Measure{std::round(next.tolerance / 1e3)}});
    s.push_back(coreText("core", "Same height, same place of the coax each time. Nobody near the wire; hands off while the sweep runs."));
    s.push_back(coreText(
        "core", "Too long or too short? A hand brought near an end, never touching, lengthens it: if the SWR falls, it was too short."));
    return card;
}

} // namespace vetchling

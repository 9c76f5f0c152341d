#include "core/workshop/tubes.h"

#include "core/physics.h"
#include "core/workshop/sag.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

namespace vetchling {
namespace {

constexpr double leastClearance = 1e-4, mostClearance = 8e-4; // m
constexpr double rounding = 1e-9;

double bore(const Tube& t) { return t.outer - 2.0 * t.wall; }
double section(const Tube& t) { return 0.25 * std::numbers::pi * (t.outer * t.outer - bore(t) * bore(t)); }
double inertia(const Tube& t) { return std::numbers::pi / 64.0 * (std::pow(t.outer, 4) - std::pow(bore(t), 4)); }

} // namespace

TubeFit fitOf(const Tube& outside, const Tube& inside)
{
    const double clearance = bore(outside) - inside.outer;
    return {clearance, clearance >= leastClearance - rounding, clearance > mostClearance + rounding};
}

Result<std::vector<double>> tubesOut(const std::vector<Tube>& tubes, double element, double overlap)
{
    if (tubes.empty())
        return Fault{"tubes", coreText("core", "an element of tubes has a tube")};
    double most = 0.0;
    for (std::size_t i = 0; i < tubes.size(); ++i) {
        if (i > 0 && !fitOf(tubes[i - 1], tubes[i]).slides)
            return Fault{"tubes",
                         coreText("core", "a tube does not slide into the one before; take a thinner one, or a thinner wall outside")};
        if (i > 0 && !(tubes[i].length > overlap))
            return Fault{"overlap", coreText("core", "a tube is not longer than its overlap")};
        most += tubes[i].length - (i > 0 ? overlap : 0.0);
    }
    if (!(element > 0.0) || element > most + rounding)
        return Fault{"element", coreText("core", "the tubes do not reach that length; add a tube, or overlap less")};
    std::vector<double> shows(tubes.size(), 0.0);
    double left = element;
    for (std::size_t i = 0; i < tubes.size() && left > 0.0; ++i) {
        shows[i] = std::min(left, tubes[i].length - (i > 0 ? overlap : 0.0));
        left -= shows[i];
    }
    return shows;
}

Droop droopOf(const std::vector<TubeSpan>& spans, const TubeMaterial& material, double tipMass)
{
    // from the tip inwards: force and moment at the outer end of each piece are those of all that is beyond it
    std::vector<double> force(spans.size() + 1), moment(spans.size() + 1);
    double mass = tipMass;
    force.back() = tipMass * gravity;
    for (std::size_t i = spans.size(); i-- > 0;) {
        const double l = spans[i].shows, w = material.density * section(spans[i].tube) * gravity;
        force[i] = force[i + 1] + w * l;
        moment[i] = moment[i + 1] + force[i + 1] * l + 0.5 * w * l * l;
        mass += material.density * section(spans[i].tube) * l;
    }
    double slope = 0.0, down = 0.0;
    for (std::size_t i = 0; i < spans.size(); ++i) {
        const double l = spans[i].shows, w = material.density * section(spans[i].tube) * gravity;
        const double stiffness = material.modulus * inertia(spans[i].tube), f = force[i + 1], m = moment[i + 1];
        down += slope * l + (f * l * l * l / 3.0 + m * l * l / 2.0 + w * std::pow(l, 4) / 8.0) / stiffness;
        slope += (f * l * l / 2.0 + m * l + w * l * l * l / 6.0) / stiffness;
    }
    return {down, mass, moment.front()};
}

Result<TubeSet> tubeSetFor(double element, double thickness, const std::vector<Tube>& atHand, double overlap)
{
    std::vector<Tube> sizes = atHand;
    std::sort(sizes.begin(), sizes.end(), [](const Tube& a, const Tube& b) { return a.outer > b.outer; });
    std::optional<TubeSet> best;
    double bestOff = HUGE_VAL;
    for (std::size_t first = 0; first < sizes.size(); ++first) {
        std::vector<Tube> chain{sizes[first]};
        for (std::size_t next = first + 1; next <= sizes.size(); ++next) {
            if (const auto shows = tubesOut(chain, element, overlap)) {
                TubeSet set{{}, overlap, false};
                double mean = 0.0;
                for (std::size_t i = 0; i < chain.size(); ++i) {
                    set.spans.push_back({chain[i], (*shows)[i]});
                    mean += chain[i].outer * (*shows)[i] / element;
                    set.shims |= i > 0 && fitOf(chain[i - 1], chain[i]).tooLoose;
                }
                if (std::abs(mean - thickness) < bestOff) {
                    bestOff = std::abs(mean - thickness);
                    best = set;
                }
                break;
            }
            if (next < sizes.size() && fitOf(chain.back(), sizes[next]).slides)
                chain.push_back(sizes[next]);
        }
    }
    if (!best)
        return Fault{"tubes", coreText("core", "no tubes at hand slide into one another and reach that length")};
    return *best;
}

Result<double> braceTension(double weight, double rise, double reach)
{
    if (!(rise > 0.0 && reach > 0.0))
        return Fault{"rise", coreText("core", "a brace rises above what it carries and reaches out to it")};
    return weight / std::sin(std::atan2(rise, reach));
}

} // namespace vetchling

#include "core/workshop/exposure.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <atomic>
#include <cmath>

namespace vetchling {
namespace {

constexpr double aboveSoil = 0.03, tall = 2.0; // m
constexpr int steps = 34, aroundWire = 12;

double distanceTo(const WireModel& model, Vec3 p)
{
    double least = HUGE_VAL;
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i)
            least = std::min(least, segmentDistance(p, p, w.points[i - 1], w.points[i]));
    return least;
}

double inPlan(const WireModel& model, Vec3 p)
{
    const auto flat = [](Vec3 v) { return Vec3{v.x, v.y, 0.0}; };
    double least = HUGE_VAL;
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i)
            least = std::min(least, segmentDistance(flat(p), flat(p), flat(w.points[i - 1]), flat(w.points[i])));
    return least;
}

struct Ray {
    Vec3 from, along;
    double start = 0.0; ///< m
};

/// Round every piece of wire at even places, and off its ends.
std::vector<Ray> raysOf(const WireModel& model, double frequency)
{
    std::vector<Ray> rays;
    const double apart = wavelength(frequency) / 24.0;
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i) {
            const Vec3 a = w.points[i - 1], b = w.points[i], t = unit(b - a);
            if (model.ground.kind != GroundKind::FreeSpace && a.z + b.z < 0.0) // in the soil nobody walks
                continue;
            const Vec3 side = unit(cross(t, std::abs(t.z) < 0.9 ? Vec3{0.0, 0.0, 1.0} : Vec3{1.0, 0.0, 0.0})), up = cross(side, t);
            const double length = distance(a, b), start = 4.0 * std::max(w.radius, w.endRadius.value_or(0.0)) + 1e-3;
            const int places = std::clamp(int(std::ceil(length / apart)), 2, 120);
            for (int k = 0; k <= places; ++k) {
                const Vec3 p = a + (b - a) * (double(k) / places);
                const double lean = k == 0 ? -1.0 : k == places ? 1.0 : 0.0;
                for (int n = 0; n < aroundWire; ++n) {
                    const double angle = 2.0 * pi * n / aroundWire;
                    const Vec3 out = side * std::cos(angle) + up * std::sin(angle);
                    rays.push_back({p, out, start});
                    if (lean != 0.0)
                        rays.push_back({p, unit(out + t * lean), start});
                }
                if (lean != 0.0)
                    rays.push_back({p, t * lean, start});
            }
        }
    return rays;
}

} // namespace

double LimitCurve::at(double frequency) const { return factor * std::pow(frequency / 1e6, power); }

const LimitRange* LimitSet::range(double frequency) const
{
    const auto found =
        std::find_if(ranges.begin(), ranges.end(), [&](const LimitRange& r) { return frequency > r.from && frequency <= r.to; });
    return found == ranges.end() ? nullptr : &*found;
}

Result<ExposureScan> ExposureScan::of(const em::Solution& solution, em::GroundTableCache& tables, const Watch& watch)
{
    ExposureScan out;
    out.m_frequency = solution.frequency;
    const em::NearField near(solution, tables);
    const WireModel& model = *solution.model;
    const bool soil = model.ground.kind != GroundKind::FreeSpace;
    const std::vector<Ray> rays = raysOf(model, solution.frequency);
    out.m_rays.resize(rays.size());
    const double farthest = std::max(60.0, 2.0 * wavelength(solution.frequency)),
                 scale = 1.0 / std::sqrt(std::max(solution.inputPower, 1e-300));
    std::atomic<std::size_t> done{0};
    tbb::parallel_for(std::size_t(0), rays.size(), [&](std::size_t i) {
        if (watch.stopped())
            return;
        const Ray& ray = rays[i];
        const double ratio = std::pow(farthest / ray.start, 1.0 / steps);
        double t = ray.start;
        for (int k = 0; k <= steps; ++k, t *= ratio) {
            Vec3 p = ray.from + ray.along * t;
            const bool ends = soil && p.z < aboveSoil; // on the soil
            if (ends && !(ray.from.z > aboveSoil))
                break;
            if (ends)
                p = ray.from + ray.along * ((ray.from.z - aboveSoil) / -ray.along.z);
            if (const auto field = near.at(p))
                out.m_rays[i].push_back(
                    {distanceTo(model, p), inPlan(model, p), p.z, scale * field->electric(), scale * field->magnetic()});
            if (ends)
                break;
        }
        ++done;
    });
    if (watch.stopped())
        return stoppedFault();
    return out;
}

KeepAway ExposureScan::keepAway(const LimitRange& range, double power) const
{
    const auto limitOf = [&](const std::optional<LimitCurve>& curve, double plane) {
        return curve ? curve->at(m_frequency) : range.powerFlux ? plane * std::sqrt(range.powerFlux->at(m_frequency)) : HUGE_VAL;
    };
    const double electric = limitOf(range.electric, std::sqrt(waveImpedance)),
                 magnetic = limitOf(range.magnetic, 1.0 / std::sqrt(waveImpedance));
    const double root = std::sqrt(power);
    KeepAway out;
    for (const auto& ray : m_rays) {
        // outermost step that exceeds, then on to where the limit is met, the field falling as a power of the distance between two steps
        for (std::size_t k = ray.size(); k-- > 0;) {
            const auto excess = [&](const Step& s) { return root * std::max(s.electric / electric, s.magnetic / magnetic); };
            const double here = excess(ray[k]);
            if (here < 1.0)
                continue;
            double reach = ray[k].fromWires, plan = ray[k].inPlan, height = ray[k].height;
            if (k + 1 < ray.size()) {
                const double next = excess(ray[k + 1]), share = std::log(here) / std::log(here / next);
                const auto between = [&](double a, double b) {
                    return a > 0.0 && b > 0.0 ? a * std::pow(b / a, share) : a + share * (b - a);
                };
                reach = between(ray[k].fromWires, ray[k + 1].fromWires);
                plan = between(ray[k].inPlan, ray[k + 1].inPlan);
                height = between(ray[k].height, ray[k + 1].height);
            } else if (int(ray.size()) > steps) {
                out.bounded = false; // exceeded as far as was looked, and not for the soil in the way
            }
            out.fromWires = std::max(out.fromWires, reach);
            if (height <= tall)
                out.onGround = std::max(out.onGround, plan);
            break;
        }
        for (const Step& s : ray) // a ray that goes on upwards may have passed people on its way
            if (s.height <= tall && root * std::max(s.electric / electric, s.magnetic / magnetic) >= 1.0)
                out.onGround = std::max(out.onGround, s.inPlan);
    }
    return out;
}

Result<KeepAway> keepAway(const em::Solution& solution, em::GroundTableCache& tables, const LimitRange& range, double power,
                          const Watch& watch)
{
    const Result<ExposureScan> scan = ExposureScan::of(solution, tables, watch);
    if (!scan)
        return scan.faults();
    return scan->keepAway(range, power);
}

} // namespace vetchling

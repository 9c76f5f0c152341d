#include "core/workshop/exposure.h"

#include "core/em/far_field.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <atomic>
#include <cmath>

namespace vetchling {
namespace {

constexpr double aboveSoil = 0.03, tall = 2.0;    // m
constexpr double lobesTo = 150.0, wiresTo = 60.0; // m, that is looked at least
constexpr double outwards = 1.02;                 // what may lie farther between two rays
constexpr int wireSteps = 34, lobeSteps = 26, aroundWire = 12;

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
    bool lobe = false;  ///< looked at farther out, and less near
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

/// The middle of all wires and, over a ground, of their images.
Vec3 middleOf(const WireModel& model)
{
    Vec3 low{HUGE_VAL, HUGE_VAL, HUGE_VAL}, high{-HUGE_VAL, -HUGE_VAL, -HUGE_VAL};
    for (const Wire& w : model.wires)
        for (const Vec3& p : w.points) {
            low = {std::min(low.x, p.x), std::min(low.y, p.y), std::min(low.z, p.z)};
            high = {std::max(high.x, p.x), std::max(high.y, p.y), std::max(high.z, p.z)};
        }
    Vec3 middle = (low + high) * 0.5;
    if (model.ground.kind != GroundKind::FreeSpace)
        middle.z = aboveSoil; // half-way to the image, where the two waves are counted from
    return middle;
}

/// Where lobes carry far, the rays from the wires pass beside them: from the middle along every lobe, at each bearing, and along the ground
/// at the height of a head.
void addLobes(const em::Solution& solution, std::vector<Ray>& rays)
{
    constexpr double degree = pi / 180.0, counts = 3.0, start = 2.0, head = tall - 0.1; // counts: dB below the strongest
    const WireModel& model = *solution.model;
    const bool soil = model.ground.kind != GroundKind::FreeSpace;
    const Vec3 middle = middleOf(model);
    std::vector<double> elevations, azimuths;
    for (int e = soil ? 1 : -89; e < 90; e += 2)
        elevations.push_back(e * degree);
    for (int a = 0; a < 360; a += 9)
        azimuths.push_back(a * degree);
    const auto gain = em::FarField(solution).over({}).gainGrid(elevations, azimuths); // as flat as the fields near by are
    double most = -HUGE_VAL;
    for (const auto& row : gain)
        most = std::max(most, *std::max_element(row.begin(), row.end()));
    for (std::size_t a = 0; a < azimuths.size(); ++a) {
        const double cosine = std::cos(azimuths[a]), sine = std::sin(azimuths[a]);
        for (std::size_t e = 0; e < elevations.size(); ++e) {
            const double here = gain[e][a], below = e > 0 ? gain[e - 1][a] : -HUGE_VAL,
                         above = e + 1 < elevations.size() ? gain[e + 1][a] : -HUGE_VAL;
            if (!(here >= below && here >= above && here > most - counts))
                continue;
            for (double beside : {-4.0 * degree, 0.0, 4.0 * degree, 8.0 * degree}) { // nearer by, the lobe is not quite there yet
                const double elevation = soil ? std::max(degree, elevations[e] + beside) : elevations[e] + beside;
                rays.push_back({middle, {std::cos(elevation) * cosine, std::cos(elevation) * sine, std::sin(elevation)}, start, true});
            }
        }
        if (soil)
            rays.push_back({{middle.x, middle.y, head}, {cosine, sine, 0.0}, start, true});
    }
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
    std::vector<Ray> rays = raysOf(model, solution.frequency);
    addLobes(solution, rays);
    out.m_rays.resize(rays.size());
    const double waves = 2.0 * wavelength(solution.frequency), scale = 1.0 / std::sqrt(std::max(solution.inputPower, 1e-300));
    std::atomic<std::size_t> done{0};
    tbb::parallel_for(std::size_t(0), rays.size(), [&](std::size_t i) {
        if (watch.stopped())
            return;
        const Ray& ray = rays[i];
        const int steps = ray.lobe ? lobeSteps : wireSteps;
        const double ratio = std::pow(std::max(ray.lobe ? lobesTo : wiresTo, waves) / ray.start, 1.0 / steps);
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
            } else if (ray[k].fromWires > 0.8 * std::max(lobesTo, 2.0 * wavelength(m_frequency))) {
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
    out.fromWires *= outwards;
    out.onGround *= outwards;
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

#include "core/study/radials.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr int counts[] = {2, 3, 4, 6, 8, 12, 16, 24, 32};
constexpr const char *countKey = "radial_count", *lengthKey = "radial_m";

std::optional<RadialPoint> pointOf(Library& library, Subject subject, double frequency, int count, double length, const Watch& watch)
{
    const shapes::Family& family = shapes::familyOf(subject.shape);
    const shapes::TunedLength tunedLength = family.tuned(subject.shape).front();
    subject.shape.parameters[countKey] = count;
    subject.shape.parameters[lengthKey] = length;
    TuneOptions options;
    options.startFromPresent = true;
    const auto tuned = tune(subject.shape, subject.ground, tunedLength.parameter, frequency, library.tables(), options, watch);
    if (!tuned)
        return std::nullopt;
    subject.shape.parameters[tunedLength.parameter] = tuned->value;
    const auto studied = library.study(subject);
    if (!studied)
        return std::nullopt;
    const auto spot = studied->study->spot(frequency, watch);
    const auto ledger = studied->study->ledger(frequency, watch);
    if (!spot || !ledger)
        return std::nullopt;
    return RadialPoint{count, length, tuned->value, tuned->impedance.real(), (*ledger)->sky, (*spot)->strongest};
}

/// The first point that no later one beats by as much as is worth it.
std::size_t enoughOf(const std::vector<RadialPoint>& points)
{
    for (std::size_t i = 0; i < points.size(); ++i)
        if (std::all_of(points.begin() + std::ptrdiff_t(i), points.end(),
                        [&](const RadialPoint& p) { return p.gain < points[i].gain + worthIt; }))
            return i;
    return 0;
}

} // namespace

Result<RadialCurve> radialCurve(Library& library, const Subject& subject, double frequency, double wire, const Watch& watch)
{
    const Watch quiet = watch.with({});
    const shapes::Family& family = shapes::familyOf(subject.shape);
    const shapes::ParameterSpec *count = family.spec(subject.shape, countKey), *length = family.spec(subject.shape, lengthKey);
    if (!count || !length)
        return Fault{"", {coreText("core", "%1 has no radials to count"), family.title()}};
    RadialCurve curve;
    curve.wire = wire > 0.0 ? wire : family.value(subject.shape, countKey) * family.value(subject.shape, lengthKey);
    for (int n : counts) {
        const double each = curve.wire / n;
        if (each < length->lowest || each > length->highest || n > count->highest)
            continue;
        if (const auto point = pointOf(library, subject, frequency, n, each, quiet))
            curve.points.push_back(*point);
        if (watch.stopped())
            return stoppedFault();
        watch.report(double(n) / counts[std::size(counts) - 1]);
    }
    if (curve.points.empty())
        return Fault{"", coreText("core", "with none of these counts it can be built and is resonant; change base or radial heights")};
    curve.enough = enoughOf(curve.points);
    return unlessStopped(watch, std::move(curve));
}

} // namespace vetchling::study

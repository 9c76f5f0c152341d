#include "app/plots/ground_sketch.h"

#include "app/view/words.h"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double waterConductivity = 1.0; // S/m

/// Corners within the reach, and the ends of it.
std::vector<ProfilePoint> shownCorners(const TerrainProfile& ground, double reach)
{
    std::vector<ProfilePoint> all{{-reach, ground.heightAt(-reach)}};
    for (const ProfilePoint& p : ground.corners)
        if (std::abs(p.x) < reach)
            all.push_back(p);
    all.push_back({reach, ground.heightAt(reach)});
    return all;
}

/// 1, 2 or 5 times a power of ten.
double roundStep(double least)
{
    const double power = std::pow(10.0, std::floor(std::log10(least)));
    for (double step : {1.0, 2.0, 5.0})
        if (step * power >= least)
            return step * power;
    return 10.0 * power;
}

} // namespace

double GroundSketch::farReach(const TerrainProfile& ground)
{
    constexpr double least = 60.0, most = 1500.0, beyond = 1.15; // m
    double farthest = 0.0;
    for (const ProfilePoint& p : ground.corners)
        farthest = std::max(farthest, std::abs(p.x));
    return std::clamp(beyond * farthest, least, most);
}

double GroundSketch::nearReach(const TerrainProfile& ground)
{
    constexpr double most = 400.0; // m
    return std::min(farReach(ground), most);
}

GroundSketch::Span GroundSketch::spanOf(const TerrainProfile& ground, double reach)
{
    Span span;
    const double own = ground.heightAt(0.0);
    for (const ProfilePoint& p : shownCorners(ground, reach))
        span = {std::max(span.rise, p.z - own), std::max(span.fall, own - p.z)};
    return span;
}

GroundSketch GroundSketch::fitted(const TerrainProfile& ground, const QRectF& area, QPointF foot, double rise, double fall, double reach)
{
    constexpr double steepest = 5.0;
    GroundSketch out{area, foot, reach, 1.0, 1.0};
    out.across = std::min(foot.x() - area.left(), area.right() - foot.x()) / out.reach;
    const Span span = spanOf(ground, reach);
    out.up = steepest * out.across;
    if (span.rise > 0.1)
        out.up = std::min(out.up, rise / span.rise);
    if (span.fall > 0.1)
        out.up = std::min(out.up, fall / span.fall);
    return out;
}

void GroundSketch::paint(Sketch& sketch, const TerrainProfile& ground, int strength) const
{
    const Colours& c = sketch.colours();
    const double own = ground.heightAt(0.0);
    const std::vector<ProfilePoint> corners = shownCorners(ground, reach);
    QPolygonF edge, run; // a run is all land or all water
    bool wet = false;
    const auto fill = [&] {
        if (run.size() > 1) {
            run << QPointF(run.back().x(), area.bottom()) << QPointF(run.front().x(), area.bottom());
            QPainterPath path;
            path.addPolygon(run);
            path.closeSubpath();
            sketch.painter().fillPath(path, Theme::withAlpha(wet ? c.skyPale : c.fill, strength));
        }
        run.clear();
    };
    for (std::size_t i = 0; i + 1 < corners.size(); ++i) {
        const QPointF a = at(corners[i].x, corners[i].z - own), b = at(corners[i + 1].x, corners[i + 1].z - own);
        edge << a << b;
        if (corners[i + 1].x - corners[i].x > 0.0) {
            const bool isWater = ground.soilAt(0.5 * (corners[i].x + corners[i + 1].x)).conductivity > waterConductivity;
            if (isWater != wet)
                fill();
            wet = isWater;
        }
        run << a << b;
    }
    fill();
    sketch.painter().setPen(QPen(c.inkSoft, 1.4));
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().drawPolyline(edge);
}

void GroundSketch::paintWords(Sketch& sketch, const TerrainProfile& ground, units::System system) const
{
    const Colours& c = sketch.colours();
    const double unit = system != units::System::Metric ? 0.3048 : 1.0, step = unit * roundStep(80.0 / across / unit);
    for (double x = step; x < 0.98 * reach; x += step)
        for (double side : {-1.0, 1.0})
            sketch.fit({{{at(side * x, 0.0).x(), area.bottom() - 3.0}, Qt::AlignHCenter | Qt::AlignBottom}}, farWords(x, system),
                       {c.inkSoft, 12});
    const double own = ground.heightAt(0.0);
    const std::vector<ProfilePoint> corners = shownCorners(ground, reach);
    const auto high =
        std::max_element(corners.begin(), corners.end(), [](const ProfilePoint& a, const ProfilePoint& b) { return a.z < b.z; });
    const auto low = std::min_element(corners.begin(), corners.end(), [](const ProfilePoint& a, const ProfilePoint& b) {
        return a.z != b.z ? a.z < b.z : std::abs(a.x) < std::abs(b.x); // of a sea the nearer shore
    });
    const auto tell = [&](const ProfilePoint& p, const QString& words, bool above, double outwards) {
        const QPointF place = at(p.x, p.z - own) + QPointF(p.x >= 0.0 ? outwards : -outwards, 0.0);
        const double x = std::clamp(place.x(), area.left() + 50.0, area.right() - 50.0);
        sketch.fit({{{x, place.y() + (above ? -5.0 : 5.0)}, Qt::AlignHCenter | (above ? Qt::AlignBottom : Qt::AlignTop)},
                    {{x, place.y() + 5.0}, Qt::AlignHCenter | Qt::AlignTop}},
                   words, {c.ink, 12, true});
    };
    if (high->z - own > 0.5)
        tell(*high, QObject::tr("%1 up").arg(farWords(high->z - own, system)), true, 0.0);
    if (own - low->z > 0.5) {
        const bool isWater = std::any_of(corners.begin(), corners.end(), [&](const ProfilePoint& p) {
            return p.z == low->z && ground.soilAt(p.x + (p.x >= 0.0 ? 0.1 : -0.1)).conductivity > waterConductivity;
        });
        tell(*low, (isWater ? QObject::tr("water, %1 below") : QObject::tr("%1 down")).arg(farWords(own - low->z, system)), false,
             isWater ? 66.0 : 0.0); // beyond the shore
    }
}

} // namespace vetchling::app

#include "core/site/height_grid.h"

#include "core/physics.h"
#include "core/site/place_words.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double metresPerDegree = 111195.0;

struct Sample {
    double distance, height;
    bool isSea;
};

/// m, that a line may be off there.
double tolerance(double distance) { return std::max(1.0, 0.003 * distance); }

/// Of the samples, those between which the rest is straight (Douglas & Peucker 1973).
void keepCorners(const std::vector<Sample>& all, std::size_t first, std::size_t last, std::vector<char>& kept)
{
    std::size_t worst = 0;
    double most = 1.0;
    for (std::size_t i = first + 1; i < last; ++i) {
        const double t = (all[i].distance - all[first].distance) / (all[last].distance - all[first].distance);
        const double off = std::abs(all[i].height - (1.0 - t) * all[first].height - t * all[last].height) / tolerance(all[i].distance);
        if (off > most)
            most = off, worst = i;
    }
    if (worst == 0)
        return;
    kept[worst] = 1;
    keepCorners(all, first, worst, kept);
    keepCorners(all, worst, last, kept);
}

GroundProfile::Point::Kind kindOf(const Soil& soil)
{
    return {soil.id, {soil.relativePermittivity, soil.conductivity}, soil.pairFrequency};
}

std::vector<GroundProfile::Point> pointsOf(const std::vector<Sample>& all, const GroundLinesQuery& query)
{
    std::vector<char> kept(all.size(), 0);
    kept.front() = kept.back() = 1;
    std::size_t from = 0; // shores part the line
    for (std::size_t i = 1; i < all.size(); ++i)
        if (all[i].isSea != all[i - 1].isSea || i + 1 == all.size()) {
            kept[i] = 1;
            keepCorners(all, from, i, kept);
            from = i;
        }
    std::vector<GroundProfile::Point> out;
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (!kept[i])
            continue;
        GroundProfile::Point p{std::round(all[i].distance), std::round(10.0 * all[i].height) / 10.0};
        if (i > 0 && all[i].isSea != all[i - 1].isSea)
            p.soil = kindOf(all[i].isSea ? query.sea : query.land);
        if (out.empty() || p.distance > out.back().distance)
            out.push_back(std::move(p));
    }
    return out;
}

} // namespace

double HeightGrid::heightAt(double east, double north) const
{
    const double x = (east - west) / cell, y = double(rows - 1) - (north - south) / cell; // from the north
    if (!(x >= -1e-9 && y >= -1e-9 && x <= double(columns - 1) + 1e-9 && y <= double(rows - 1) + 1e-9))
        return NAN;
    const std::size_t left = std::min(std::size_t(std::max(0.0, x)), columns - 1), top = std::min(std::size_t(std::max(0.0, y)), rows - 1);
    const std::size_t right = std::min(left + 1, columns - 1), bottom = std::min(top + 1, rows - 1);
    const double u = std::clamp(x - double(left), 0.0, 1.0), v = std::clamp(y - double(top), 0.0, 1.0);
    const auto at = [&](std::size_t row, std::size_t column) { return double(heights[row * columns + column]); };
    return (1.0 - v) * ((1.0 - u) * at(top, left) + u * at(top, right)) + v * ((1.0 - u) * at(bottom, left) + u * at(bottom, right));
}

Soil seaOf(const std::vector<Soil>& soils)
{
    constexpr double saltest = 1.0; // S/m, that fresh water and soils do not reach
    const auto found = std::find_if(soils.begin(), soils.end(), [](const Soil& s) { return s.conductivity > saltest; });
    return found != soils.end() ? *found : Soil{"", "sea", "", 70.0, 5.0};
}

Result<GroundLines> linesFrom(const HeightGrid& grid, const GroundLinesQuery& query)
{
    const auto heightAt = [&](double bearing, double distance) {
        if (grid.inDegrees) {
            const GeoPlace there = movedOnEarth(query.place, bearing, distance);
            return grid.heightAt(there.longitude, there.latitude);
        }
        return grid.heightAt(query.place.longitude + distance * std::sin(radians(bearing)),
                             query.place.latitude + distance * std::cos(radians(bearing)));
    };
    GroundLines out;
    out.footHeight = heightAt(0.0, 0.0);
    if (!std::isfinite(out.footHeight))
        return Fault{"", coreText("core", "the file has no height for this place")};
    const double step = std::clamp(0.5 * grid.cell * (grid.inDegrees ? metresPerDegree : 1.0), 2.0, 50.0);
    out.shortest = query.reach;
    for (double bearing = 0.0; bearing < 360.0 - 1e-9; bearing += query.every) {
        std::vector<Sample> all;
        for (double distance = 0.0; distance <= query.reach; distance += step) {
            const double height = heightAt(bearing, distance);
            if (!std::isfinite(height))
                break;
            const bool isSea = height <= 0.0 && distance > 0.0; // the antenna's own ground is the site's
            all.push_back({distance, std::max(height, isSea ? 0.0 : height) - out.footHeight, isSea});
        }
        out.shortest = std::min(out.shortest, all.back().distance);
        GroundProfile profile{"", bearing, {}, newId(), {}};
        if (all.size() > 1)
            profile.points = pointsOf(all, query);
        out.corners += profile.points.size();
        out.sea += std::any_of(all.begin(), all.end(), [](const Sample& s) { return s.isSea; });
        out.profiles.push_back(std::move(profile));
    }
    return out;
}

std::vector<GroundProfile> slopeLines(double fall, double towards, double length)
{
    constexpr int count = 36;
    std::vector<GroundProfile> all;
    for (int i = 0; i < count; ++i) {
        const double bearing = 360.0 / count * i, share = std::cos(radians(bearing - towards));
        const double height = -std::tan(radians(fall)) * share * length;
        all.push_back({"", bearing, {{0.0, 0.0}, {length, std::round(100.0 * height) / 100.0}}, newId(), {}});
    }
    return all;
}

} // namespace vetchling

#include "core/wire/wire_model.h"

#include "core/wire/soil_model.h"

#include <algorithm>
#include <cmath>

namespace vetchling {

Ground Ground::at(double frequency) const
{
    if (kind != GroundKind::Real || !(pairFrequency > 0.0))
        return *this;
    const SoilFiguresAt here = soilFiguresAt(relativePermittivity, conductivity, pairFrequency, frequency);
    return {kind, here.relativePermittivity, here.conductivity, 0.0};
}

Complex Ground::complexPermittivity(double frequency) const
{
    const Ground here = at(frequency);
    return {here.relativePermittivity, -here.conductivity / (2.0 * pi * frequency * vacuumPermittivity)};
}

double Wire::length() const
{
    double sum = 0.0;
    for (std::size_t i = 1; i < points.size(); ++i)
        sum += distance(points[i - 1], points[i]);
    return sum;
}

double Wire::radiusAt(double along) const
{
    if (!endRadius)
        return radius;
    const double total = length();
    return radius + (*endRadius - radius) * (total > 0.0 ? std::clamp(along / total, 0.0, 1.0) : 0.0);
}

Vec3 Wire::pointAt(double along) const
{
    for (std::size_t i = 1; i < points.size(); ++i) {
        const double piece = distance(points[i - 1], points[i]);
        if (along <= piece || i + 1 == points.size())
            return points[i - 1] + (piece > 0.0 ? along / piece : 0.0) * (points[i] - points[i - 1]);
        along -= piece;
    }
    return points.empty() ? Vec3{} : points.front();
}

Complex Load::impedance(double frequency) const
{
    const double w = 2.0 * pi * frequency;
    const Complex coil{q > 0.0 ? w * inductance / q : 0.0, w * inductance};
    if (kind == LoadKind::Series) {
        const double detuning = selfResonance > 0.0 ? frequency / selfResonance : 0.0; // 1/(1 - w^2 L C + j w C R)
        Complex sum = resistance + coil / (1.0 - detuning * detuning * (1.0 - (q > 0.0 ? imaginaryUnit / q : Complex{})));
        if (capacitance > 0.0)
            sum += 1.0 / (imaginaryUnit * w * capacitance);
        return sum;
    }
    Complex admittance = imaginaryUnit * w * capacitance;
    if (inductance > 0.0)
        admittance += 1.0 / coil;
    if (resistance > 0.0)
        admittance += 1.0 / resistance;
    return admittance == Complex{} ? Complex{} : 1.0 / admittance;
}

Complex Load::acrossCoil(double frequency) const
{
    if (kind != LoadKind::Parallel || capacitance <= 0.0)
        return 1.0;
    const double w = 2.0 * pi * frequency;
    const Complex coil{q > 0.0 ? w * inductance / q : 0.0, w * inductance};
    return 1.0 / (1.0 + imaginaryUnit * w * capacitance * coil);
}

double FarSector::shareAt(double azimuth) const
{
    const auto turned = [](double angle) { return angle - 2.0 * pi * std::floor(angle / (2.0 * pi)); };
    const double in = turned(azimuth - from), beyond = in - width, before = turned(from - azimuth);
    if (beyond <= 0.0)
        return 1.0;
    return std::max({0.0, 1.0 - (fadeAfter > 0.0 ? beyond / fadeAfter : 1.0), 1.0 - (fadeBefore > 0.0 ? before / fadeBefore : 1.0)});
}

FarSector FarSector::movedBy(double by) const
{
    FarSector out = *this;
    for (ProfilePoint& p : out.corners)
        p.x -= by;
    return out;
}

FarSector FarSector::turned() const
{
    FarSector out = *this;
    out.from += pi;
    out.corners.clear();
    for (auto p = corners.rbegin(); p != corners.rend(); ++p)
        out.corners.push_back({-p->x, p->z});
    out.soils.assign(soils.rbegin(), soils.rend());
    return out;
}

TerrainProfile FarSector::over(const Ground& own) const
{
    TerrainProfile profile{corners, {}};
    for (const std::optional<Ground>& soil : soils)
        profile.soils.push_back(soil.value_or(own));
    return profile;
}

FarSector shoreSector(double from, double width, double distance, const Ground& ground)
{
    return {from, width, 0.0, 0.0, {{distance, 0.0}}, {std::nullopt, ground}};
}

double WireModel::totalLength() const
{
    double sum = 0.0;
    for (const Wire& wire : wires)
        sum += wire.length();
    return sum;
}

double WireModel::lowestPoint() const
{
    double lowest = HUGE_VAL;
    for (const Wire& wire : wires)
        for (const Vec3& point : wire.points)
            lowest = std::min(lowest, point.z);
    return lowest;
}

} // namespace vetchling

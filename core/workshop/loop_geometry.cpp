#include "core/workshop/loop_geometry.h"

#include "core/physics.h"

#include <cmath>
#include <numbers>

namespace vetchling {
namespace {

LoopGeometry withCorners(LoopGeometry loop, const std::vector<double>& sides)
{
    double at = 0.0;
    for (double side : sides)
        loop.corners.push_back(at += side);
    return loop;
}

LoopGeometry delta(double perimeter, double apexDegrees)
{
    const double half = std::sin(0.5 * apexDegrees * std::numbers::pi / 180.0); // half the base of sides of 1
    const double side = perimeter / (2.0 + 2.0 * half), base = 2.0 * half * side;
    const double height = std::sqrt(side * side - 0.25 * base * base);
    return withCorners({side, base, base, height, 0.5 * base * height, {}}, {side, base, side});
}

} // namespace

Result<LoopGeometry> loopGeometry(double perimeter, const LoopForm& form)
{
    if (!(perimeter > 0.0) || !std::isfinite(perimeter))
        return Fault{"perimeter", coreText("core", "the wire round a loop has a length above 0")};
    const double quarter = 0.25 * perimeter;
    switch (form.kind) {
    case LoopKind::Square: return withCorners({quarter, quarter, quarter, quarter, quarter * quarter, {}}, std::vector<double>(4, quarter));
    case LoopKind::SquareOnCorner: {
        const double diagonal = quarter * std::numbers::sqrt2;
        return withCorners({quarter, quarter, diagonal, diagonal, quarter * quarter, {}}, std::vector<double>(4, quarter));
    }
    case LoopKind::DeltaEquilateral: return delta(perimeter, 60.0);
    case LoopKind::DeltaIsosceles:
        if (!(form.apexDegrees > 0.0 && form.apexDegrees < 180.0))
            return Fault{"apex", coreText("core", "the angle at the apex lies between 0 and 180 degrees")};
        return delta(perimeter, form.apexDegrees);
    case LoopKind::Rectangle: break;
    }
    if (!(form.widthToHeight > 0.0) || !std::isfinite(form.widthToHeight))
        return Fault{"ratio", coreText("core", "the ratio of width to height is above 0")};
    const double height = 0.5 * perimeter / (1.0 + form.widthToHeight), width = form.widthToHeight * height;
    return withCorners({width, width, width, height, width * height, {}}, {width, height, width, height});
}

} // namespace vetchling

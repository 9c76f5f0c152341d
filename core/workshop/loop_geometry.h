#pragma once
/// Plane loops from the wire round them: sides, how wide, how high, the area, and where the corners are on the tape.

#include "core/result.h"

#include <string>
#include <vector>

namespace vetchling {

enum class LoopKind { Square, SquareOnCorner, DeltaEquilateral, DeltaIsosceles, Rectangle };

struct LoopForm {
    LoopKind kind = LoopKind::Square;
    double apexDegrees = 60.0;  ///< between the two equal sides of an isosceles delta
    double widthToHeight = 1.0; ///< of a rectangle
};

struct LoopGeometry {
    double side = 0.0;                ///< m; of an isosceles delta one of the equal ones, of a rectangle the level one
    double base = 0.0;                ///< m, of a delta the side opposite the apex; else as `side`
    double width = 0.0, height = 0.0; ///< m over all, as it stands
    double area = 0.0;                ///< m2
    std::vector<double> corners;      ///< m along the wire from the first corner, the last one being the perimeter
};

/// Faults: a perimeter, an angle or a ratio that none has.
Result<LoopGeometry> loopGeometry(double perimeter, const LoopForm& form);

} // namespace vetchling

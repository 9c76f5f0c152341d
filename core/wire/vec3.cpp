#include "core/wire/vec3.h"

#include <algorithm>

namespace vetchling {

double segmentDistance(Vec3 a0, Vec3 a1, Vec3 b0, Vec3 b1)
{
    const Vec3 da = a1 - a0, db = b1 - b0, r = a0 - b0;
    const double aa = dot(da, da), bb = dot(db, db), ab = dot(da, db), ar = dot(da, r), br = dot(db, r);
    const double denominator = aa * bb - ab * ab;
    double s = bb > 0.0 || !(aa > 0.0) ? 0.0 : std::clamp(-ar / aa, 0.0, 1.0); // b may be one point
    if (denominator > 1e-12 * aa * bb)
        s = std::clamp((ab * br - ar * bb) / denominator, 0.0, 1.0);
    double t = bb > 0.0 ? (ab * s + br) / bb : 0.0;
    if (t < 0.0 || t > 1.0) {
        t = std::clamp(t, 0.0, 1.0);
        s = aa > 0.0 ? std::clamp((ab * t - ar) / aa, 0.0, 1.0) : 0.0;
    }
    return norm(r + s * da - t * db);
}

} // namespace vetchling

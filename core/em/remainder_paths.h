#pragma once
/// The paths over the soil that a pair of elements asks the remainder's table for: all of them that does not depend on the frequency, made
/// once for a sweep's mesh.

#include "core/em/blocks.h"
#include "core/em/ground_table.h"

namespace vetchling::em {

/// How a pair in the air is integrated over the remainder's field.
struct RemainderPaths {
    bool turned = false;                     ///< the first element is the longer one: the two change places
    bool plain = false;                      ///< by the points below; else they come too close, and a graded rule is made at each use
    bool fewOuter = false, fewInner = false; ///< nodes of either
    std::vector<TablePath> paths;            ///< outer by inner, their parts times the lengths that belong to du dv
};

/// What a pair of points adds to -t_m . E . t_n, m and n unit vectors at a and b, times a factor. @param columns of the table
TablePath remainderPath(Vec3 a, Vec3 m, Vec3 b, Vec3 n, double factor, int columns);

RemainderPaths remainderPaths(const Element& m, const Element& n, const Sampled& few, const Sampled& many, int columns);

} // namespace vetchling::em

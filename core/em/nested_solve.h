#pragma once
/// Solves the system level by level: the unknowns are ordered by the degree of their current function, and each level's
/// Schur complement is factored in turn. The whole costs what one factorisation costs, and the port current of every
/// lower degree falls out of it, from which the solver judges its error.

#include "core/em/system.h"

namespace vetchling::em {

struct NestedSolution {
    std::vector<Complex> unknowns;
    std::vector<Complex> portByLevel; ///< port . x of the system cut off after each level; the last is the solution's own
};

/// @param matrix      symmetric, row-major; overwritten
/// @param levelStarts first unknown of each level, rising from 0
/// @param port        row whose product with each level's solution is wanted
/// @param watch       looked at every few milliseconds
/// @return no unknowns if a level is singular or a stop was asked for
NestedSolution nestedSolve(Matrix& matrix, const std::vector<int>& levelStarts, const std::vector<Complex>& rhs,
                           const std::vector<Complex>& port, const Watch& watch = {});

} // namespace vetchling::em

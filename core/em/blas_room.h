#pragma once
/// Room behind the arrays that BLAS reads: zgemv of OpenBLAS 0.3.21 reads past their end where registers are wide (AVX-512), and where that
/// is the end of the memory the program falls. What it reads there counts for nothing.

#include "core/physics.h"

#include <vector>

namespace vetchling::em {

inline constexpr std::size_t blasRoom = 16; ///< numbers

inline void giveRoom(std::vector<Complex>& array) { array.reserve(array.size() + blasRoom); }

/// Zeros, with that room.
inline std::vector<Complex> zerosWithRoom(std::size_t size)
{
    std::vector<Complex> array;
    array.reserve(size + blasRoom);
    array.resize(size);
    return array;
}

} // namespace vetchling::em

#include "core/em/cos_sin.h"

#include <cmath>

// Compiled with -ffast-math, which lets the compiler call the vector functions of the C library.

namespace vetchling::em {
namespace {

VETCHLING_CLONES void cosines(const double* __restrict angle, int count, double* __restrict out)
{
    for (int i = 0; i < count; ++i)
        out[i] = std::cos(angle[i]);
}

VETCHLING_CLONES void sines(const double* __restrict angle, int count, double* __restrict out)
{
    for (int i = 0; i < count; ++i)
        out[i] = std::sin(angle[i]);
}

} // namespace

void cosSin(const double* angle, int count, double* cosine, double* sine)
{
    cosines(angle, count, cosine);
    sines(angle, count, sine);
}

} // namespace vetchling::em

#include "core/em/cos_sin.h"

#include <cmath>

// Compiled with -ffast-math, which lets the compiler call the vector functions of the C library; clones for wider
// registers are chosen when the program starts.
#if defined(__x86_64__) && defined(__GNUC__) && !defined(__clang__) && !defined(__SANITIZE_ADDRESS__) && !defined(__SANITIZE_THREAD__)
#define VETCHLING_CLONES __attribute__((target_clones("avx2", "default")))
#else
#define VETCHLING_CLONES
#endif

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

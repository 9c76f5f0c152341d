#pragma once
/// Cosines and sines of many angles at once, several to an instruction where the processor can.

/// Clones of a function for wider registers; which is taken is chosen when the program starts.
#if defined(__x86_64__) && defined(__GNUC__) && !defined(__clang__) && !defined(__SANITIZE_ADDRESS__) && !defined(__SANITIZE_THREAD__)
#define VETCHLING_CLONES __attribute__((target_clones("avx2", "default")))
#else
#define VETCHLING_CLONES
#endif

namespace vetchling::em {

/// cosine[i], sine[i] of angle[i], rad, |angle| below 1e6; accurate to 4 units in the last place.
void cosSin(const double* angle, int count, double* cosine, double* sine);

} // namespace vetchling::em

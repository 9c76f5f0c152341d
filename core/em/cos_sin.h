#pragma once
/// Cosines and sines of many angles at once, several to an instruction where the processor can.

namespace vetchling::em {

/// cosine[i], sine[i] of angle[i], rad, |angle| below 1e6; accurate to 4 units in the last place.
void cosSin(const double* angle, int count, double* cosine, double* sine);

} // namespace vetchling::em

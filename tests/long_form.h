#pragma once
/// Tests that take long have two forms: a short one that can fail too, and a long one for `./dev check long`.

#include <cstdlib>

namespace vetchling::testing {

inline bool longForm() { return std::getenv("VETCHLING_LONG") != nullptr; }

/// How many of something, by the form.
template <class Count> Count many(Count inShort, Count inLong) { return longForm() ? inLong : inShort; }

/// Whether the case of this number is tried: in the short form one of `every`.
inline bool tried(std::size_t number, std::size_t every) { return longForm() || number % every == 0; }

} // namespace vetchling::testing

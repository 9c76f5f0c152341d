#pragma once
#include "tests/validation/page.h"

namespace vetchling::testing {

/// Uneven ground against independent solutions.
void terrain(Page& page);

} // namespace vetchling::testing

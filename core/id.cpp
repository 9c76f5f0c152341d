#include "core/id.h"

#include <random>

namespace vetchling {

Id newId()
{
    static constexpr char letters[] = "abcdefghjkmnpqrstuvwxyz23456789"; // none that are mistaken for one another
    static constexpr int length = 10;
    thread_local std::mt19937_64 random{std::random_device{}()};
    std::uniform_int_distribution<std::size_t> any(0, sizeof letters - 2);
    Id id;
    for (int i = 0; i < length; ++i)
        id += letters[any(random)];
    return id;
}

} // namespace vetchling

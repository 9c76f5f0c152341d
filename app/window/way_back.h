#pragma once
/// The way one came through stages and antennas, to go back and forward on.

#include "core/id.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace vetchling::app {

class WayBack {
public:
    struct Place {
        int stage = 0;
        Id antenna;
        friend bool operator==(const Place&, const Place&) = default;
    };
    /// Where one is now; what lay forward is forgotten where that is new.
    void visit(const Place& place);
    /// The place before or after; nothing at either end. One is there then.
    std::optional<Place> back() { return step(-1); }
    std::optional<Place> forward() { return step(1); }
    /// Another design.
    void forget() { m_places.clear(), m_at = 0; }

private:
    std::optional<Place> step(int by);
    std::vector<Place> m_places;
    std::size_t m_at = 0;
};

} // namespace vetchling::app

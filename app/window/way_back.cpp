#include "app/window/way_back.h"

namespace vetchling::app {

void WayBack::visit(const Place& place)
{
    constexpr std::size_t most = 100;
    if (!m_places.empty() && m_places[m_at] == place)
        return;
    if (!m_places.empty())
        m_places.resize(m_at + 1);
    m_places.push_back(place);
    if (m_places.size() > most)
        m_places.erase(m_places.begin());
    m_at = m_places.size() - 1;
}

std::optional<WayBack::Place> WayBack::step(int by)
{
    if (m_places.empty() || (by < 0 ? m_at == 0 : m_at + 1 >= m_places.size()))
        return std::nullopt;
    m_at += std::size_t(by);
    return m_places[m_at];
}

} // namespace vetchling::app

#pragma once
/// The results used last, by key; shared between threads.

#include <list>
#include <memory>
#include <mutex>
#include <string>
#include <unordered_map>

namespace vetchling::study {

template <class T> class Recent {
public:
    using Pointer = std::shared_ptr<T>;
    /// @param capacity results kept; the one not used for longest goes first
    explicit Recent(std::size_t capacity) : m_capacity(capacity) {}

    /// Null if it is not there.
    Pointer find(const std::string& key)
    {
        const std::lock_guard lock(m_mutex);
        const auto found = m_places.find(key);
        if (found == m_places.end())
            return nullptr;
        m_entries.splice(m_entries.begin(), m_entries, found->second);
        return found->second->second;
    }

    /// Keeps a result unless another thread kept one meanwhile; returns the one that is kept.
    Pointer keep(const std::string& key, Pointer value)
    {
        const std::lock_guard lock(m_mutex);
        if (const auto found = m_places.find(key); found != m_places.end())
            return found->second->second;
        m_entries.emplace_front(key, value);
        m_places[key] = m_entries.begin();
        if (m_entries.size() > m_capacity) {
            m_places.erase(m_entries.back().first);
            m_entries.pop_back();
        }
        return value;
    }

    [[nodiscard]] std::size_t size() const
    {
        const std::lock_guard lock(m_mutex);
        return m_entries.size();
    }

private:
    using Entries = std::list<std::pair<std::string, Pointer>>;
    std::size_t m_capacity;
    mutable std::mutex m_mutex;
    Entries m_entries; ///< used last first
    std::unordered_map<std::string, typename Entries::iterator> m_places;
};

} // namespace vetchling::study

#pragma once
/// Files of what can be computed again: numbers as they lie in memory, a checksum at the end, a folder that loses what was not used for
/// longest.

#include <cstdint>
#include <cstring>
#include <optional>
#include <string>

namespace vetchling::files {

/// FNV-1a, 64 bits (Fowler, Noll & Vo 1991).
std::uint64_t checksum(const char* bytes, std::size_t size);

template <class T> void append(std::string& bytes, const T& value) { bytes.append(reinterpret_cast<const char*>(&value), sizeof value); }

/// Takes values off the front; false once there are too few bytes.
class Taker {
public:
    explicit Taker(const std::string& bytes) : m_at(bytes.data()), m_left(bytes.size()) {}
    bool take(void* to, std::size_t size)
    {
        if (m_left < size)
            return false;
        std::memcpy(to, m_at, size);
        m_at += size;
        m_left -= size;
        return true;
    }
    template <class T> bool take(T& value) { return take(&value, sizeof value); }
    [[nodiscard]] bool empty() const { return m_left == 0; }

private:
    const char* m_at;
    std::size_t m_left;
};

/// Writes them with their checksum; what fails leaves what was there.
bool writeKept(const std::string& path, std::string bytes);
/// Without the checksum; nothing where the file is missing or damaged. The file counts as used.
std::optional<std::string> readKept(const std::string& path);
/// Removes files that end in `extension`, the ones not used for longest first, until all have `largest` bytes at most.
void trimFolder(const std::string& folder, const std::string& extension, std::size_t largest);

} // namespace vetchling::files

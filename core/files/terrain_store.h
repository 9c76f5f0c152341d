#pragma once
/// Solved lines of uneven ground, kept in a folder between runs: nine bands all round take some seconds.
///
/// One file a line, frequency and set of heights: version, the line itself, the fields on it, and a checksum; a file that does not agree in
/// all of them is passed over and written anew. The folder holds at most `largest` bytes of them; those not used for longest go first.

#include "core/em/terrain_cache.h"

#include <atomic>
#include <string>

namespace vetchling::files {

class TerrainStore : public em::TerrainKeeper {
public:
    static constexpr std::size_t largest = 250u << 20; ///< bytes

    /// @param folder made if it is missing; where it cannot be, nothing is kept and nothing is said
    explicit TerrainStore(std::string folder, std::size_t largest = TerrainStore::largest);
    bool restore(const em::TerrainLine& line, em::TerrainSurface& surface) override;
    void keep(const em::TerrainLine& line, const em::TerrainSurface& surface) override;

private:
    [[nodiscard]] std::string pathOf(const std::string& head) const;

    std::string m_folder;
    std::size_t m_largest;
    std::atomic<std::size_t> m_written = 0; ///< bytes since the folder was looked through
};

} // namespace vetchling::files

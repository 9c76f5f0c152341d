#pragma once
/// The soil's tables, kept in a folder between runs, so that the first curve of a known soil needs no integrals.
///
/// One file a table: version, soil, frequency, rows, and a checksum; a file that does not agree in all of them is passed over and
/// written anew. The folder holds at most `largest` bytes; the files not used for longest go first. Thread-safe.

#include "core/em/ground_table.h"

#include <map>
#include <mutex>
#include <string>

namespace vetchling::files {

class TableStore {
public:
    static constexpr std::size_t largest = 50u << 20; ///< bytes

    /// @param folder made if it is missing; where it cannot be, nothing is kept and nothing is said
    explicit TableStore(std::string folder);

    /// Brings back what is kept of a table that is new and empty.
    void restore(em::GroundTable& table);
    /// Writes the tables that have grown since they were read or written; looks at the watch between two files.
    void save(const em::GroundTableCache& tables, const Watch& watch = {});

private:
    [[nodiscard]] std::string pathOf(const em::GroundTable& table) const;

    std::string m_folder;
    std::mutex m_mutex;
    std::map<std::string, std::size_t> m_kept; ///< numbers in the file, by its path
};

} // namespace vetchling::files

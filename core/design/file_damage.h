#pragma once
/// What of a file could not be read: it is kept as it stood, and written back by whoever writes the design.

#include "core/id.h"
#include "core/result.h"

#include <cstddef>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace vetchling {

/// From a value of the file to one inside it.
struct FileStep {
    std::string key;       ///< of a member; empty: an item of a list
    Id id;                 ///< of the item, where it has one; of the one before it where the item itself is damaged
    std::size_t place = 0; ///< of the item among those that could be read
    bool written = false;  ///< the program writes it by itself
};

/// A thing that a damaged part belongs to.
struct FileOwner {
    std::string kind;       ///< the list it stands in: "antennas"
    std::string name;       ///< empty: it has none
    Id id;                  ///< as the file says it
    std::size_t number = 0; ///< in the file, from 1
};

struct DamagedPart {
    std::string path;              ///< "antennas[2].trim.measurements[1]"
    std::vector<FileOwner> owners; ///< from outside
    Fault fault;                   ///< the first that was met; its path lies in the part
    std::vector<FileStep> steps;
    std::string asItStood; ///< JSON
    std::string standIn;   ///< JSON of what stands for it in the program; empty: nothing
};

struct FileDamage {
    std::vector<DamagedPart> parts;
    Faults remarks;                ///< what was read all the same: a key that stands twice
    std::optional<Fault> cutShort; ///< where reading had to end; such a file is not written over
    std::string file;              ///< that it was read from; empty: from a text

    /// Of the file, one line a part; in the order of the file.
    [[nodiscard]] Faults faults() const;
};

/// Whole antennas that could not be read.
std::vector<const DamagedPart*> lostAntennas(const FileDamage& damage);

/// The same without the parts at a place, which were mended: "operation.swr_limit", "antennas.wire.diameter_m".
/// @param antenna that it is of; empty: of none
std::shared_ptr<const FileDamage> withoutDamageAt(const FileDamage& damage, const std::string& keys, const Id& antenna = {});

} // namespace vetchling

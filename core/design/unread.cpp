#include "core/design/unread.h"

#include <algorithm>
#include <array>

namespace vetchling {
namespace {

/// Keys of an antenna that no length hangs on.
constexpr std::array told{"name",    "notes",      "reports", "variants", "named_lengths", "pictures", "remark",
                          "weather", "instrument", "place",   "when",     "soil",          "chains",   "workshop"};

bool isOnlyTold(const DamagedPart& part)
{
    return std::any_of(part.steps.begin(), part.steps.end(),
                       [](const FileStep& step) { return std::find(told.begin(), told.end(), step.key) != told.end(); });
}

} // namespace

std::string unreadOf(const Design& design, const Id& antenna)
{
    if (!design.damage)
        return {};
    for (const DamagedPart& part : design.damage->parts) {
        const bool within = part.steps.size() > 2 && part.steps[0].key == "antennas" && part.steps[1].id == antenna;
        if (within && !isOnlyTold(part))
            return part.fault.path;
    }
    return {}; // of a file that ends too early whole antennas are read, or none of them
}

Text unreadWords(const std::string& where)
{
    return {coreText("core", "Not all of this antenna could be read from its file (%1): its log and lengths may lack something. Before "
                             "anything is cut, hold a tape against the wire, and mend the file or drop what could not be read."),
            where};
}

} // namespace vetchling

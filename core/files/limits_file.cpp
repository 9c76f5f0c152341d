#include "core/files/limits_file.h"

#include "core/files/data_list.h"

namespace vetchling::files {
namespace {

std::optional<LimitCurve> readCurve(const JsonNode& node, const char* key)
{
    if (!node.has(key))
        return std::nullopt;
    const std::vector<double> pair = node.numbers(key, 2);
    if (pair.size() != 2)
        return std::nullopt;
    if (!(pair[0] > 0.0))
        node.faultAt(key, "a limit lies above 0");
    return LimitCurve{pair[0], pair[1]};
}

LimitRange readRange(const JsonNode& node)
{
    LimitRange range{1e6 * node.number("from_MHz"), 1e6 * node.number("to_MHz"), readCurve(node, "E_V_per_m"), readCurve(node, "H_A_per_m"),
                     readCurve(node, "S_W_per_m2")};
    if (!(range.from > 0.0 && range.to > range.from))
        node.fault("a range goes from a lower to a higher frequency");
    if (!range.powerFlux && !(range.electric && range.magnetic))
        node.fault("give E and H, or S");
    return range;
}

} // namespace

Result<std::vector<LimitSet>> readLimits(const std::string& path)
{
    return readList<LimitSet>(path, "limits", [](const JsonNode& n) {
        LimitSet set;
        set.id = n.text("id");
        set.name = n.text("name");
        set.source = n.text("source");
        set.note = n.text("note", "", true);
        set.year = n.count("year", 0, 1900, 3000);
        set.averagingMinutes = n.number("averaging_minutes", 0.0, true);
        for (const JsonNode& range : n.items("ranges"))
            set.ranges.push_back(readRange(range));
        return set;
    });
}

} // namespace vetchling::files

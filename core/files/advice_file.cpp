#include "core/files/advice_file.h"

#include "core/files/json_reader.h"

#include <cmath>

namespace vetchling::files {
namespace {

double weight(const JsonNode& node, const char* key, double usual)
{
    const double value = node.number(key, usual, true);
    if (!(value >= 0.0) || !std::isfinite(value))
        node.faultAt(key, "must be 0 or more");
    return value;
}

double part(const JsonNode& node, const char* key, double usual)
{
    const double value = weight(node, key, usual);
    if (value > 1.0)
        node.faultAt(key, "is a part of one, at most 1");
    return value;
}

double above(const JsonNode& node, const char* key, double usual)
{
    const double value = node.number(key, usual, true);
    if (!(value > 0.0))
        node.faultAt(key, "must be above 0");
    return value;
}

} // namespace

Result<advice::ScoreRules> readScoreRules(const std::string& path)
{
    const Result<Json> json = readJsonFile(path);
    if (!json)
        return json.faults();
    Faults faults;
    const JsonNode node(*json, "", faults);
    advice::ScoreRules r;
    r.must = weight(node, "must", r.must);
    r.nice = weight(node, "nice", r.nice);
    r.favourite = weight(node, "favourite_times", r.favourite);
    r.withTuner = part(node, "with_tuner", r.withTuner);
    r.matchPart = part(node, "match_part", r.matchPart);
    r.heardRange = above(node, "heard_dB", r.heardRange);
    r.worstPart = part(node, "worst_season_part", r.worstPart);
    r.heightOff = part(node, "height_off", r.heightOff);
    r.wire = above(node, "wire_m", r.wire);
    r.wireCosts = weight(node, "wire_costs", r.wireCosts);
    r.thingCosts = weight(node, "thing_costs", r.thingCosts);
    r.partCosts = weight(node, "part_costs", r.partCosts);
    r.same = weight(node, "same", r.same);
    if (faults.empty())
        return r;
    for (Fault& fault : faults)
        fault.path = path + " " + fault.path;
    return faults;
}

} // namespace vetchling::files

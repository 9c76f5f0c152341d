/// What was done and chosen at the bench, as part of an antenna in a design.
#include "core/files/design_parts.h"

#include <cmath>

namespace vetchling::files {
namespace {

/// Whips were called "whip, pulled out to" until 2026-11.
std::string withoutOldWords(std::string key)
{
    static const std::string old = ", pulled out to/";
    if (const std::size_t at = key.find(old); at != std::string::npos)
        key.replace(at, old.size(), "/");
    return key;
}

double least(const JsonNode& node, const char* key, double standard, double lowest)
{
    const double value = node.number(key, standard, true);
    if (value >= lowest)
        return value;
    node.standsIn(key, {coreText("core", "must be %1 or more"), Measure{lowest}});
    return standard;
}

CoreWinding readCore(const JsonNode& node, const CoreWinding& standard)
{
    return {node.text("ferrite", standard.mix, true), node.text("ring", standard.ring, true), node.count("rings", standard.rings, 1, 1000),
            node.count("turns", standard.turns, 1, 1000)};
}

Json coreJson(const CoreWinding& c) { return {{"ferrite", c.mix}, {"ring", c.ring}, {"rings", c.rings}, {"turns", c.turns}}; }

Rigging readRigging(const JsonNode& n)
{
    const Rigging d;
    Rigging r;
    r.pull = least(n, "pull_N", d.pull, 0.1);
    r.safety = least(n, "safety", d.safety, 1.0);
    r.wind = least(n, "wind_m_per_s", d.wind, 0.0);
    r.ice = least(n, "ice_m", d.ice, 0.0);
    r.centreMass = least(n, "centre_kg", d.centreMass, 0.0);
    r.ropeDiameter = least(n, "rope_m", d.ropeDiameter, 0.0);
    r.ropeStrength = least(n, "rope_breaks_N", d.ropeStrength, 0.0);
    r.weight = n.flag("weight_over_pulley", d.weight);
    return r;
}

Json riggingJson(const Rigging& r)
{
    return {{"pull_N", r.pull},          {"safety", r.safety},       {"wind_m_per_s", r.wind},          {"ice_m", r.ice},
            {"centre_kg", r.centreMass}, {"rope_m", r.ropeDiameter}, {"rope_breaks_N", r.ropeStrength}, {"weight_over_pulley", r.weight}};
}

} // namespace

Workshop readWorkshop(const JsonNode& node)
{
    const Workshop d;
    Workshop w;
    if (const auto pieces = node.object("pieces", true))
        for (const auto& [key, unused] : pieces->json().items())
            if (const auto piece = pieces->object(key, true))
                w.pieces[withoutOldWords(key)] = {piece->flag("done", false), piece->optionalNumber("measured_m")};
    w.spool = node.optionalNumber("spool_m");
    w.tapeOffset = node.number("tape_at_peg_m", d.tapeOffset, true);
    if (const auto parts = node.object("parts", true))
        for (const auto& [key, unused] : parts->json().items())
            if (const auto part = parts->object(key, true))
                w.parts[key] = {part->optionalNumber("count"), part->optionalNumber("price"), part->flag("left_out", false),
                                part->text("name", "", true)};
    if (const auto rigging = node.object("rigging", true))
        w.rigging = readRigging(*rigging);
    if (const auto choke = node.object("choke", true))
        w.choke = readCore(*choke, d.choke);
    if (const auto transformer = node.object("transformer", true))
        w.transformer = readCore(*transformer, d.transformer);
    w.limit = node.text("limit", d.limit, true);
    w.mode = node.text("mode", d.mode, true);
    w.sending = std::min(1.0, least(node, "sending", d.sending, 0.0));
    return w;
}

Json workshopJson(const Workshop& w)
{
    Json out{{"tape_at_peg_m", w.tapeOffset},
             {"rigging", riggingJson(w.rigging)},
             {"choke", coreJson(w.choke)},
             {"transformer", coreJson(w.transformer)},
             {"limit", w.limit},
             {"mode", w.mode},
             {"sending", w.sending}};
    for (const auto& [key, state] : w.pieces) {
        out["pieces"][key] = {{"done", state.done}};
        if (state.measured)
            out["pieces"][key]["measured_m"] = *state.measured;
    }
    if (w.spool)
        out["spool_m"] = *w.spool;
    for (const auto& [key, part] : w.parts) {
        Json json{{"left_out", part.leftOut}};
        if (part.count)
            json["count"] = *part.count;
        if (part.price)
            json["price"] = *part.price;
        if (!part.name.empty())
            json["name"] = part.name;
        out["parts"][key] = json;
    }
    return out;
}

} // namespace vetchling::files

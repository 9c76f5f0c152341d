#pragma once
/// Site and antennas of the design file. Only for .cpp files of core/files.
///
/// What is read is always a whole value: what cannot be read is told to the node, as a fault or as unread, and has the value of a new one.
/// What is written is an object with the members that were kept; lengths in m and frequencies in Hz, signs as in the structs.

#include "core/design/design.h"
#include "core/files/json_reader.h"

#include <array>

namespace vetchling::files {

Site readSite(const JsonNode& node);
Json siteJson(const Site& site);
FeedChains readFeed(const JsonNode& node);
Json feedJson(const FeedChains& feed);
Against readAgainst(const JsonNode& node);
Json againstJson(const Against& against);
Antenna readAntenna(const JsonNode& node);
Json antennaJson(const Antenna& antenna);
Workshop readWorkshop(const JsonNode& node);
Json workshopJson(const Workshop& workshop);

/// Strings of an optional array member; a fault where one is no text.
std::vector<std::string> readTexts(const JsonNode& node, const char* key);
Json textsJson(const std::vector<std::string>& texts);
Soil readSoil(const JsonNode& node);
Json soilJson(const Soil& soil);
/// The soil's dry and wet figures, where it has them.
void readSeasons(const JsonNode& node, Soil& soil);

/// Index of a word in a list; 0 stands in if it is none of them.
template <std::size_t N> std::size_t wordOf(const JsonNode& node, const char* key, const std::array<const char*, N>& words)
{
    const std::string text = node.text(key, words[0], true);
    for (std::size_t i = 0; i < N; ++i)
        if (text == words[i])
            return i;
    node.standsIn(key, "'" + text + "' is not known here; see docs/file-format.md");
    return 0;
}

/// The object with its kept members, for building lists.
inline Json withKept(Json object, const KeptFields& kept)
{
    addKept(object, kept);
    return object;
}

} // namespace vetchling::files

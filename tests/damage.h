#pragma once
/// Damaging a JSON document at one place in ten ways, and what must be left of it. Looks at texts and JSON only, not at how the program
/// reads.

#include <nlohmann/json.hpp>

#include <array>
#include <string>
#include <vector>

namespace vetchling::testing {

using Doc = nlohmann::ordered_json;
using Place = Doc::json_pointer;

inline constexpr std::array<const char*, 10> damageWays{"text",  "object", "null",     "missing", "huge",
                                                        "twice", "nan",    "overflow", "list",    "flag"};

/// Every member and every item of a list, from outside in.
inline void addPlaces(const Doc& at, const Place& here, std::vector<Place>& out)
{
    if (at.is_object())
        for (const auto& [key, value] : at.items()) {
            out.push_back(here / key);
            addPlaces(value, here / key, out);
        }
    else if (at.is_array())
        for (std::size_t i = 0; i < at.size(); ++i) {
            out.push_back(here / i);
            addPlaces(at[i], here / i, out);
        }
}

inline std::vector<Place> placesOf(const Doc& document)
{
    std::vector<Place> out;
    addPlaces(document, Place(), out);
    return out;
}

inline void removeAt(Doc& document, const Place& place)
{
    Doc& holder = document.at(place.parent_pointer());
    if (holder.is_array())
        holder.erase(std::size_t(std::stoul(place.back())));
    else
        holder.erase(place.back());
}

/// As a file that is damaged there.
inline std::string damagedText(Doc document, const Place& place, const std::string& way)
{
    constexpr const char* here = "@here@";
    std::string put;
    const std::string original = document.at(place).dump();
    if (way == "missing") {
        removeAt(document, place);
        return document.dump(1);
    }
    if (way == "text")
        put = "\"broken\"";
    else if (way == "object")
        put = "{\"broken\": 1}";
    else if (way == "null")
        put = "null";
    else if (way == "huge")
        put = "-1e300";
    else if (way == "nan")
        put = "NaN";
    else if (way == "overflow")
        put = "1e999";
    else if (way == "list")
        put = "[\"broken\"]";
    else if (way == "flag")
        put = "true";
    else if (document.at(place.parent_pointer()).is_object())
        put = "\"earlier\",\n\"" + place.back() + "\": " + original;
    else
        put = original + ", " + original; // of a list: the same item twice
    document.at(place) = here;
    std::string text = document.dump(1);
    return text.replace(text.find('"' + std::string(here) + '"'), std::string(here).size() + 2, put);
}

} // namespace vetchling::testing

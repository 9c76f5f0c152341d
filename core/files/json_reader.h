#pragma once
/// Reading JSON written by people: every fault is named with its place, and reading goes on to find the next one.
/// Only for .cpp files of core/files: it brings in the JSON library.

#include "core/result.h"

#include <nlohmann/json.hpp>

#include <optional>
#include <set>
#include <string>

namespace vetchling::files {

using Json = nlohmann::ordered_json;

inline constexpr std::size_t largestFile = 32u << 20; ///< bytes
inline constexpr int deepestNesting = 40;

/// Parses a text; a fault names line and column. Refuses nesting beyond deepestNesting.
Result<Json> parseJson(const std::string& text);
/// Reads and parses a file.
Result<Json> readJsonFile(const std::string& path);
/// Whole file as text, or why not.
Result<std::string> readTextFile(const std::string& path);

/// One value of a document together with its path and the list that collects faults.
class JsonNode {
public:
    JsonNode(const Json& json, std::string path, Faults& faults) : m_json(json), m_path(std::move(path)), m_faults(faults) {}

    [[nodiscard]] const Json& json() const { return m_json; }
    [[nodiscard]] const std::string& path() const { return m_path; }
    [[nodiscard]] std::string pathOf(const std::string& key) const { return m_path.empty() ? key : m_path + "." + key; }
    [[nodiscard]] bool has(const std::string& key) const
    {
        m_asked.insert(key);
        return m_json.is_object() && m_json.contains(key);
    }
    /// Members that nobody has asked for so far, as text of an object; empty if there are none.
    [[nodiscard]] std::string rest() const;

    void fault(Text message) const { m_faults.push_back({m_path, std::move(message)}); }
    void faultAt(const std::string& key, Text message) const { m_faults.push_back({pathOf(key), std::move(message)}); }

    /// A finite number; a fault and `fallback` where it is missing (unless `optional`) or not a number.
    [[nodiscard]] double number(const std::string& key, double fallback = 0.0, bool optional = false) const;
    [[nodiscard]] std::optional<double> optionalNumber(const std::string& key) const;
    [[nodiscard]] std::string text(const std::string& key, const std::string& fallback = {}, bool optional = false) const;
    [[nodiscard]] bool flag(const std::string& key, bool fallback) const;
    /// Numbers of an array; a fault if there are not exactly `count` (any number if 0).
    [[nodiscard]] std::vector<double> numbers(const std::string& key, std::size_t count = 0, bool optional = false) const;
    /// Elements of an array member, each with its path; a fault if it is missing or no array.
    [[nodiscard]] std::vector<JsonNode> items(const std::string& key, bool optional = false) const;
    /// A member that must be an object.
    [[nodiscard]] std::optional<JsonNode> object(const std::string& key, bool optional = false) const;
    /// Elements of this node itself as numbers.
    [[nodiscard]] std::vector<double> ownNumbers(std::size_t count) const;

private:
    const Json& m_json;
    std::string m_path;
    Faults& m_faults;
    mutable std::set<std::string> m_asked;
};

/// Writes kept members back into an object.
void addKept(Json& object, const std::string& kept);

} // namespace vetchling::files

#pragma once
/// Reading JSON written by people: every fault is named with its place, and reading goes on to find the next one.
/// Only for .cpp files of core/files: it brings in the JSON library.

#include "core/result.h"

#include <nlohmann/json.hpp>

#include <functional>
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
/// "line 3, column 7" of a byte, counted from 1.
std::string placeInText(const std::string& text, std::size_t byte);

/// A value that could not be read, and for which something else stands.
struct Unread {
    const Json* value; ///< null: it is missing
    Fault fault;
};

/// One value of a document together with its path and the list that collects faults.
/// Where there is a list for what is unread, a value that has a stand-in and a part that stands by itself go there instead, and
/// reading is good all the same.
class JsonNode {
public:
    JsonNode(const Json& json, std::string path, Faults& faults, std::vector<Unread>* unread = nullptr)
        : m_json(json), m_path(std::move(path)), m_faults(faults), m_unread(unread)
    {
    }

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
    /// Of a member for which something else is used; a fault where nothing may be unread.
    void standsIn(const std::string& key, Text message) const;
    /// The same of this node.
    void standsIn(Text message) const;

    /// Reads this node as a part that stands by itself: nothing where it could not be read and may stay unread.
    template <class Read> auto part(Read read) const -> std::optional<std::decay_t<std::invoke_result_t<Read, const JsonNode&>>>
    {
        const std::size_t faults = m_faults.size(), unread = m_unread ? m_unread->size() : 0;
        auto value = std::invoke(read, *this);
        if (!m_unread || m_faults.size() == faults)
            return value;
        leaveUnread(faults, unread);
        return std::nullopt;
    }
    /// Those parts, objects, of an optional list that could be read.
    template <class Read> auto parts(const std::string& key, Read read) const
    {
        std::vector<std::decay_t<std::invoke_result_t<Read, const JsonNode&>>> out;
        for (const JsonNode& item : items(key, true))
            if (!item.json().is_object())
                item.standsIn("is not an object in braces");
            else if (auto value = item.part(read))
                out.push_back(std::move(*value));
        return out;
    }
    /// An optional member that is an object and stands by itself.
    template <class Read> auto partAt(const std::string& key, Read read) const
    {
        const auto node = object(key, true);
        return node ? node->part(read) : std::nullopt;
    }
    /// An optional member that stands by itself, of any kind.
    template <class Read> auto valueAt(const std::string& key, Read read) const { return has(key) ? at(key).part(read) : std::nullopt; }

    /// A finite number; a fault and `fallback` where it is missing (unless `optional`) or not a number.
    [[nodiscard]] double number(const std::string& key, double fallback = 0.0, bool optional = false) const;
    /// Nothing where it is missing; a fault, and nothing, where it is no number.
    [[nodiscard]] std::optional<double> optionalNumber(const std::string& key) const;
    /// An optional number that must be good; else the message stands in the list and the fallback is used.
    [[nodiscard]] double goodNumber(const std::string& key, double fallback, bool (*good)(double), Text message) const;
    /// An optional whole number from `lowest` to `highest`.
    [[nodiscard]] int count(const std::string& key, int fallback, int lowest, int highest) const;
    [[nodiscard]] std::string text(const std::string& key, const std::string& fallback = {}, bool optional = false) const;
    [[nodiscard]] bool flag(const std::string& key, bool fallback) const;
    /// Numbers of an array; a fault if there are not exactly `count` (any number if 0).
    [[nodiscard]] std::vector<double> numbers(const std::string& key, std::size_t count = 0, bool optional = false) const;
    /// A member that is there.
    [[nodiscard]] JsonNode at(const std::string& key) const { return {m_json[key], pathOf(key), m_faults, m_unread}; }
    /// Elements of an array member, each with its path; a fault if it is missing or no array.
    [[nodiscard]] std::vector<JsonNode> items(const std::string& key, bool optional = false) const;
    /// Elements of this node itself; a fault if it is no list.
    [[nodiscard]] std::vector<JsonNode> ownItems() const;
    /// A member that must be an object.
    [[nodiscard]] std::optional<JsonNode> object(const std::string& key, bool optional = false) const;
    /// Elements of this node itself as numbers.
    [[nodiscard]] std::vector<double> ownNumbers(std::size_t count) const;

private:
    void leaveUnread(std::size_t faultsBefore, std::size_t unreadBefore) const;
    void standsInIf(bool optional, const std::string& key, Text message) const;

    const Json& m_json;
    std::string m_path;
    Faults& m_faults;
    std::vector<Unread>* m_unread;
    mutable std::set<std::string> m_asked;
};

/// Writes kept members back into an object.
void addKept(Json& object, const std::string& kept);

} // namespace vetchling::files

#include "core/files/json_reader.h"

#include <fmt/format.h>

#include <cmath>
#include <filesystem>
#include <fstream>
#include <sstream>

namespace vetchling::files {
namespace {

struct TooDeep {};

} // namespace

std::string placeInText(const std::string& text, std::size_t byte)
{
    std::size_t line = 1, column = 1;
    for (std::size_t i = 0; i + 1 < byte && i < text.size(); ++i)
        text[i] == '\n' ? (++line, column = 1) : ++column;
    return fmt::format("line {}, column {}", line, column);
}

Result<Json> parseJson(const std::string& text)
{
    const auto guard = [](int depth, Json::parse_event_t, Json&) {
        if (depth > deepestNesting)
            throw TooDeep{};
        return true;
    };
    try {
        return Json::parse(text, guard);
    } catch (const TooDeep&) {
        return Fault{"", fmt::format("not a file of ours: nested deeper than {} levels", deepestNesting)};
    } catch (const Json::parse_error& e) {
        const bool cut = e.byte >= text.size();
        return Fault{placeInText(text, e.byte), cut ? "the JSON ends too early; the file may have been cut short"
                                                    : "not valid JSON here; check commas, quotes and brackets"};
    } catch (const Json::exception&) { // numbers that do not fit a double
        return Fault{"", "a number is too large to be read; use ordinary decimal numbers"};
    }
}

Result<std::string> readTextFile(const std::string& path)
{
    std::error_code error;
    const auto size = std::filesystem::file_size(path, error);
    if (error)
        return Fault{path, "cannot be read (" + error.message() + "); check the name"};
    if (size > largestFile)
        return Fault{path, fmt::format("is {} MB long, more than the {} MB a design can need; check that it is the right file", size >> 20,
                                       largestFile >> 20)};
    std::ifstream file(path, std::ios::binary);
    std::ostringstream content;
    content << file.rdbuf();
    if (!file)
        return Fault{path, "cannot be read; check its permissions"};
    return content.str();
}

Result<Json> readJsonFile(const std::string& path)
{
    Result<std::string> text = readTextFile(path);
    if (!text)
        return text.faults();
    return parseJson(*text);
}

std::string JsonNode::rest() const
{
    Json rest = Json::object();
    if (m_json.is_object())
        for (const auto& [key, value] : m_json.items())
            if (!m_asked.count(key))
                rest[key] = value;
    return rest.empty() ? "" : rest.dump();
}

void addKept(Json& object, const std::string& kept)
{
    if (!kept.empty())
        object.update(Json::parse(kept, nullptr, false));
}

void JsonNode::standsIn(const std::string& key, Text message) const
{
    if (m_unread)
        m_unread->push_back({m_json.is_object() && m_json.contains(key) ? &m_json[key] : nullptr, {pathOf(key), std::move(message)}});
    else
        faultAt(key, std::move(message));
}

void JsonNode::standsIn(Text message) const
{
    if (m_unread)
        m_unread->push_back({&m_json, {m_path, std::move(message)}});
    else
        fault(std::move(message));
}

void JsonNode::standsInIf(bool optional, const std::string& key, Text message) const
{
    optional ? standsIn(key, std::move(message)) : faultAt(key, std::move(message));
}

/// With it goes what was unread inside it.
void JsonNode::leaveUnread(std::size_t faultsBefore, std::size_t unreadBefore) const
{
    const Fault first = m_faults[faultsBefore];
    m_faults.resize(faultsBefore);
    m_unread->erase(m_unread->begin() + std::ptrdiff_t(unreadBefore), m_unread->end());
    m_unread->push_back({&m_json, first});
}

double JsonNode::number(const std::string& key, double fallback, bool optional) const
{
    if (!has(key)) {
        if (!optional)
            faultAt(key, "is missing; give a number");
        return fallback;
    }
    const Json& value = m_json[key];
    if (!value.is_number() || !std::isfinite(value.get<double>())) {
        standsInIf(optional, key, "is not a finite number");
        return fallback;
    }
    return value.get<double>();
}

std::optional<double> JsonNode::optionalNumber(const std::string& key) const
{
    if (!has(key) || m_json[key].is_null())
        return std::nullopt;
    const double value = number(key, HUGE_VAL, true);
    return std::isfinite(value) ? std::optional(value) : std::nullopt;
}

double JsonNode::goodNumber(const std::string& key, double fallback, bool (*good)(double), Text message) const
{
    const double value = number(key, fallback, true);
    if (value == fallback || good(value))
        return value;
    standsIn(key, std::move(message));
    return fallback;
}

int JsonNode::count(const std::string& key, int fallback, int lowest, int highest) const
{
    const double value = number(key, fallback, true);
    if (value >= lowest && value <= highest)
        return int(value);
    standsIn(key, fmt::format("must be a number from {} to {}", lowest, highest));
    return fallback;
}

std::string JsonNode::text(const std::string& key, const std::string& fallback, bool optional) const
{
    if (!has(key)) {
        if (!optional)
            faultAt(key, "is missing; give a text");
        return fallback;
    }
    if (!m_json[key].is_string()) {
        standsInIf(optional, key, "is not a text in quotes");
        return fallback;
    }
    return m_json[key].get<std::string>();
}

bool JsonNode::flag(const std::string& key, bool fallback) const
{
    if (!has(key))
        return fallback;
    if (!m_json[key].is_boolean()) {
        standsIn(key, "is neither true nor false");
        return fallback;
    }
    return m_json[key].get<bool>();
}

std::vector<double> JsonNode::numbers(const std::string& key, std::size_t count, bool optional) const
{
    if (!has(key)) {
        if (!optional)
            faultAt(key, "is missing; give a list of numbers");
        return {};
    }
    const JsonNode list = at(key);
    const auto read = [count](const JsonNode& node) { return node.ownNumbers(count); };
    return optional ? list.part(read).value_or(std::vector<double>()) : read(list);
}

std::vector<double> JsonNode::ownNumbers(std::size_t count) const
{
    std::vector<double> out;
    if (m_json.is_array())
        for (const Json& value : m_json)
            if (value.is_number() && std::isfinite(value.get<double>()))
                out.push_back(value.get<double>());
    if (!m_json.is_array() || out.size() != m_json.size() || (count > 0 && out.size() != count)) {
        fault(count > 0 ? fmt::format("is not a list of {} finite numbers", count) : "is not a list of finite numbers");
        return {};
    }
    return out;
}

std::vector<JsonNode> JsonNode::items(const std::string& key, bool optional) const
{
    if (!has(key)) {
        if (!optional)
            faultAt(key, "is missing; give a list");
        return {};
    }
    if (m_json[key].is_array())
        return at(key).ownItems();
    standsInIf(optional, key, "is not a list");
    return {};
}

std::vector<JsonNode> JsonNode::ownItems() const
{
    std::vector<JsonNode> out;
    if (!m_json.is_array())
        fault("is not a list");
    else
        for (std::size_t i = 0; i < m_json.size(); ++i)
            out.emplace_back(m_json[i], fmt::format("{}[{}]", m_path, i), m_faults, m_unread);
    return out;
}

std::optional<JsonNode> JsonNode::object(const std::string& key, bool optional) const
{
    if (!has(key)) {
        if (!optional)
            faultAt(key, "is missing; give an object in braces");
        return std::nullopt;
    }
    if (!m_json[key].is_object()) {
        standsInIf(optional, key, "is not an object in braces");
        return std::nullopt;
    }
    return at(key);
}

} // namespace vetchling::files

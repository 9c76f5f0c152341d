#include "core/files/json_reader.h"

#include <fmt/format.h>

#include <cmath>
#include <filesystem>
#include <fstream>
#include <sstream>

namespace vetchling::files {
namespace {

struct TooDeep {};

/// Line and column of a byte, counted from 1.
std::string whereIs(const std::string& text, std::size_t byte)
{
    std::size_t line = 1, column = 1;
    for (std::size_t i = 0; i + 1 < byte && i < text.size(); ++i)
        text[i] == '\n' ? (++line, column = 1) : ++column;
    return fmt::format("line {}, column {}", line, column);
}

} // namespace

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
        return Fault{whereIs(text, e.byte), cut ? "the JSON ends too early; the file may have been cut short"
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

double JsonNode::number(const std::string& key, double fallback, bool optional) const
{
    if (!has(key)) {
        if (!optional)
            faultAt(key, "is missing; give a number");
        return fallback;
    }
    const Json& value = m_json[key];
    if (!value.is_number() || !std::isfinite(value.get<double>())) {
        faultAt(key, "is not a finite number");
        return fallback;
    }
    return value.get<double>();
}

std::optional<double> JsonNode::optionalNumber(const std::string& key) const
{
    if (!has(key) || m_json[key].is_null())
        return std::nullopt;
    return number(key);
}

std::string JsonNode::text(const std::string& key, const std::string& fallback, bool optional) const
{
    if (!has(key)) {
        if (!optional)
            faultAt(key, "is missing; give a text");
        return fallback;
    }
    if (!m_json[key].is_string()) {
        faultAt(key, "is not a text in quotes");
        return fallback;
    }
    return m_json[key].get<std::string>();
}

bool JsonNode::flag(const std::string& key, bool fallback) const
{
    if (!has(key))
        return fallback;
    if (!m_json[key].is_boolean()) {
        faultAt(key, "is neither true nor false");
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
    return JsonNode(m_json[key], pathOf(key), m_faults).ownNumbers(count);
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
    std::vector<JsonNode> out;
    if (!has(key)) {
        if (!optional)
            faultAt(key, "is missing; give a list");
        return out;
    }
    const Json& list = m_json[key];
    if (!list.is_array()) {
        faultAt(key, "is not a list");
        return out;
    }
    for (std::size_t i = 0; i < list.size(); ++i)
        out.emplace_back(list[i], fmt::format("{}[{}]", pathOf(key), i), m_faults);
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
        faultAt(key, "is not an object in braces");
        return std::nullopt;
    }
    return JsonNode(m_json[key], pathOf(key), m_faults);
}

} // namespace vetchling::files

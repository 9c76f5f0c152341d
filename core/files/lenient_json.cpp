#include "core/files/lenient_json.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdlib>
#include <string_view>
#include <unordered_set>

namespace vetchling::files {
namespace {

constexpr std::string_view bareMarkWritten = "\"\\u0001bare:";

bool isBareLetter(char c)
{
    return (c >= '0' && c <= '9') || (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '+' || c == '-' || c == '.' || c == '_';
}

bool isDigit(char c) { return c >= '0' && c <= '9'; }

/// By the grammar of RFC 8259, section 6.
bool isJsonNumber(std::string_view t)
{
    std::size_t i = 0;
    const auto digits = [&] {
        const std::size_t from = i;
        while (i < t.size() && isDigit(t[i]))
            ++i;
        return i > from;
    };
    if (i < t.size() && t[i] == '-')
        ++i;
    const std::size_t first = i;
    if (!digits() || (t[first] == '0' && i > first + 1))
        return false;
    if (i < t.size() && t[i] == '.' && (++i, !digits()))
        return false;
    if (i < t.size() && (t[i] == 'e' || t[i] == 'E')) {
        ++i;
        if (i < t.size() && (t[i] == '+' || t[i] == '-'))
            ++i;
        if (!digits())
            return false;
    }
    return i == t.size();
}

bool isJsonWord(std::string_view token)
{
    if (token == "true" || token == "false" || token == "null")
        return true;
    return isJsonNumber(token) && std::isfinite(std::strtod(std::string(token).c_str(), nullptr));
}

/// Words outside of texts that are no value become texts with a mark.
std::string withBareWordsQuoted(const std::string& text)
{
    std::string out;
    out.reserve(text.size() + 16);
    bool inText = false;
    for (std::size_t i = 0; i < text.size();) {
        const char c = text[i];
        if (inText || !isBareLetter(c)) {
            if (inText && c == '\\' && i + 1 < text.size())
                out += text[i++];
            else if (c == '"')
                inText = !inText;
            out += text[i++];
            continue;
        }
        std::size_t end = i;
        while (end < text.size() && isBareLetter(text[end]))
            ++end;
        const std::string_view token(text.data() + i, end - i);
        if (isJsonWord(token) || end == text.size()) // at the very end it may have been longer
            out += token;
        else
            (out += bareMarkWritten).append(token) += '"';
        i = end;
    }
    return out;
}

/// Bytes of the letter that begins here, by RFC 3629; 0: none does.
std::size_t letterAt(const std::string& text, std::size_t i)
{
    const auto byte = [&](std::size_t k) { return i + k < text.size() ? static_cast<unsigned char>(text[i + k]) : 0U; };
    const unsigned a = byte(0), b = byte(1);
    const auto follows = [&](std::size_t k) { return (byte(k) & 0xc0U) == 0x80U; };
    if (a < 0x80U)
        return 1;
    if (a >= 0xc2U && a < 0xe0U && follows(1))
        return 2;
    if (a >= 0xe0U && a < 0xf0U && follows(1) && follows(2) && !(a == 0xe0U && b < 0xa0U) && !(a == 0xedU && b >= 0xa0U))
        return 3;
    if (a >= 0xf0U && a < 0xf5U && follows(1) && follows(2) && follows(3) && !(a == 0xf0U && b < 0x90U) && !(a == 0xf4U && b >= 0x90U))
        return 4;
    return 0;
}

std::string withLetters(const std::string& text, Faults& remarks)
{
    std::size_t first = std::string::npos;
    std::string out;
    for (std::size_t i = 0, length; i < text.size(); i += std::max<std::size_t>(length, 1)) {
        length = letterAt(text, i);
        if (length == 0 && first == std::string::npos) {
            first = i;
            out = text.substr(0, i);
        }
        if (first != std::string::npos)
            length == 0 ? out += "\xef\xbf\xbd" : out.append(text, i, length);
    }
    if (first == std::string::npos)
        return text;
    remarks.push_back({placeInText(text, first + 1), "holds bytes that are no letters; they are shown as \xef\xbf\xbd"});
    return out;
}

/// Builds the values as they come. Of what ends too early the open items of lists are left out.
class Builder final : public Json::json_sax_t {
public:
    Builder(const std::string& text, LenientJson& out) : m_text(text), m_out(out) {}

    bool null() override { return put(nullptr); }
    bool boolean(bool value) override { return put(value); }
    bool number_integer(number_integer_t value) override { return put(value); }
    bool number_unsigned(number_unsigned_t value) override { return put(value); }
    bool number_float(number_float_t value, const string_t&) override { return put(value); }
    bool string(string_t& value) override { return put(std::move(value)); }
    bool binary(binary_t&) override { return false; }
    bool start_object(std::size_t) override { return open(Json::object()); }
    bool start_array(std::size_t) override { return open(Json::array()); }
    bool end_object() override { return close(); }
    bool end_array() override { return close(); }

    bool key(string_t& key) override
    {
        Level& level = m_levels.back();
        level.key = std::move(key);
        if (level.value.size() < mostMembers)
            return true;
        m_refused = Fault{path(), fmt::format("has more than {} members; this is no file of ours", mostMembers)};
        return false;
    }

    bool parse_error(std::size_t position, const std::string&, const nlohmann::detail::exception&) override
    {
        const bool cut = position >= m_text.size();
        m_out.cutShort = Fault{placeInText(m_text, position), cut ? "the JSON ends too early; the file may have been cut short"
                                                                  : "not valid JSON here; check commas, quotes and brackets"};
        leaveWhatIsOpen();
        return false;
    }

    [[nodiscard]] const std::optional<Fault>& refused() const { return m_refused; }
    [[nodiscard]] bool anything() const { return m_done; }

private:
    struct Level {
        Json value;
        std::string key; ///< of the member that is read
        std::unordered_set<std::string> keys;
    };

    [[nodiscard]] std::string path() const
    {
        std::string out;
        for (const Level& level : m_levels)
            if (level.value.is_array())
                out += fmt::format("[{}]", level.value.size());
            else if (!level.key.empty())
                (out += out.empty() ? "" : ".") += level.key;
        return out;
    }

    bool open(Json empty)
    {
        if (m_levels.size() >= std::size_t(deepestNesting)) {
            m_refused = Fault{"", fmt::format("not a file of ours: nested deeper than {} levels", deepestNesting)};
            return false;
        }
        m_levels.push_back({std::move(empty), {}, {}});
        return true;
    }

    bool close()
    {
        Json value = std::move(m_levels.back().value);
        m_levels.pop_back();
        return put(std::move(value));
    }

    bool put(Json value)
    {
        if (m_levels.empty()) {
            m_out.json = std::move(value);
            m_done = true;
            return true;
        }
        Level& level = m_levels.back();
        if (level.value.is_array()) {
            level.value.push_back(std::move(value));
        } else if (level.keys.insert(level.key).second) {
            level.value.get_ptr<Json::object_t*>()->emplace_back(level.key, std::move(value));
        } else {
            Json& earlier = level.value[level.key];
            m_out.remarks.push_back({path(), fmt::format("stands twice; the later one is used, the earlier was {}", shortened(earlier))});
            earlier = std::move(value);
        }
        return true;
    }

    static std::string shortened(const Json& value)
    {
        std::string words = value.dump(-1, ' ', false, Json::error_handler_t::replace);
        return words.size() <= 300 ? words : words.substr(0, 300) + " ...";
    }

    /// From the outermost open item of a list on, it is not all there.
    void leaveWhatIsOpen()
    {
        std::size_t whole = 0;
        while (whole < m_levels.size() && !(whole > 0 && m_levels[whole - 1].value.is_array()))
            ++whole;
        m_levels.resize(whole);
        m_done = m_done || !m_levels.empty();
        while (!m_levels.empty())
            close();
    }

    const std::string& m_text;
    LenientJson& m_out;
    std::vector<Level> m_levels;
    std::optional<Fault> m_refused;
    bool m_done = false;
};

} // namespace

Result<LenientJson> readLenient(const std::string& text)
{
    LenientJson out;
    const std::string readable = withBareWordsQuoted(withLetters(text, out.remarks));
    Builder builder(readable, out);
    const bool whole = Json::sax_parse(readable, &builder);
    if (builder.refused())
        return *builder.refused();
    if (!whole && !builder.anything())
        return out.cutShort.value_or(Fault{"", "no JSON"});
    return out;
}

std::string writeLenient(const Json& json)
{
    const std::string text = json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
    std::string out;
    std::size_t done = 0;
    for (std::size_t at = text.find(bareMarkWritten); at != std::string::npos; at = text.find(bareMarkWritten, at + 1)) {
        const std::size_t from = at + bareMarkWritten.size();
        std::size_t end = from;
        while (end < text.size() && isBareLetter(text[end]))
            ++end;
        if (end == from || text[end] != '"')
            continue;
        out.append(text, done, at - done).append(text, from, end - from);
        done = end + 1;
    }
    return out.append(text, done);
}

} // namespace vetchling::files

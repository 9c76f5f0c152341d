#include "core/files/height_file.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <map>
#include <optional>
#include <string_view>

namespace vetchling::files {
namespace {

constexpr std::size_t mostHeights = 1u << 24;
constexpr double lowestHeight = -500.0, highestHeight = 9000.0; // m, of ground on earth

std::string lower(std::string_view text)
{
    std::string out(text);
    std::transform(out.begin(), out.end(), out.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return out;
}

/// Words of a text, one after the other, with the line they stand in.
class Words {
public:
    explicit Words(std::string_view text) : m_text(text) {}
    std::optional<std::string_view> next()
    {
        while (m_at < m_text.size() && isSpace(m_text[m_at]))
            m_line += m_text[m_at++] == '\n';
        if (m_at == m_text.size())
            return std::nullopt;
        const std::size_t from = m_at;
        while (m_at < m_text.size() && !isSpace(m_text[m_at]))
            ++m_at;
        return m_text.substr(from, m_at - from);
    }
    [[nodiscard]] std::string place() const { return "line " + std::to_string(m_line); }
    void back(std::string_view word) { m_at = std::size_t(word.data() - m_text.data()); }

private:
    static bool isSpace(char c) { return c == ' ' || c == '\t' || c == '\n' || c == '\r'; }
    std::string_view m_text;
    std::size_t m_at = 0, m_line = 1;
};

std::optional<double> number(std::string_view word)
{
    double value = 0.0;
    const auto [end, fault] = std::from_chars(word.data(), word.data() + word.size(), value);
    return fault == std::errc() && end == word.data() + word.size() && std::isfinite(value) ? std::optional(value) : std::nullopt;
}

/// Names and numbers before the first line of heights.
Result<std::map<std::string, double>> readHead(Words& words)
{
    std::map<std::string, double> head;
    while (const auto word = words.next()) {
        if (number(*word)) {
            words.back(*word);
            break;
        }
        const auto value = words.next();
        const std::optional<double> given = value ? number(*value) : std::nullopt;
        if (!given || head.size() > 20)
            return Fault{words.place(), coreText("core", "is no grid of heights: after each of its names (ncols, nrows, …) a number must stand")};
        head[lower(*word)] = *given;
    }
    return head;
}

Result<HeightGrid> gridOf(const std::map<std::string, double>& head)
{
    const auto value = [&](const char* name) {
        const auto found = head.find(name);
        return found == head.end() ? NAN : found->second;
    };
    const double columns = value("ncols"), rows = value("nrows"), cell = value("cellsize");
    for (const char* name : {"ncols", "nrows", "cellsize"})
        if (!head.contains(name))
            return Fault{name, coreText("core", "is missing in the file's head")};
    if (!(columns >= 2.0 && rows >= 2.0 && columns == std::floor(columns) && rows == std::floor(rows) &&
          columns * rows <= double(mostHeights)))
        return Fault{"ncols", coreText("core", "must be 2 or more columns and rows, 16 million heights at most")};
    if (!(cell > 0.0 && cell <= 10000.0))
        return Fault{"cellsize", coreText("core", "must be above 0 and at most 10 km")};
    HeightGrid grid;
    grid.columns = std::size_t(columns), grid.rows = std::size_t(rows), grid.cell = cell;
    grid.west = head.contains("xllcenter") ? value("xllcenter") : value("xllcorner") + 0.5 * cell;
    grid.south = head.contains("yllcenter") ? value("yllcenter") : value("yllcorner") + 0.5 * cell;
    if (!std::isfinite(grid.west) || !std::isfinite(grid.south))
        return Fault{"xllcorner", coreText("core", "is missing in the file's head")};
    grid.inDegrees = cell < 0.1 && std::abs(grid.west) <= 360.0 && std::abs(grid.south) <= 90.0;
    return grid;
}

Result<HeightGrid> readText(const std::string& text)
{
    Words words(text);
    const auto head = readHead(words);
    if (!head)
        return head.faults();
    auto made = gridOf(*head);
    if (!made)
        return made;
    std::optional<HeightGrid> grid(std::move(made).value());
    const auto none = head->find("nodata_value");
    const std::size_t count = grid->columns * grid->rows;
    grid->heights.reserve(count);
    while (const auto word = words.next()) {
        const std::optional<double> height = number(*word);
        if (!height)
            return Fault{words.place(), coreText("core", "a height is no number")};
        if (grid->heights.size() == count)
            return Fault{words.place(), coreText("core", "there are more heights than ncols times nrows")};
        const bool isNone = (none != head->end() && *height == none->second) || *height < lowestHeight || *height > highestHeight;
        grid->heights.push_back(isNone ? NAN : float(*height));
    }
    if (grid->heights.size() != count)
        return Fault{
            words.place(),
            {coreText("core", "the file ends after %1 of its %2 heights"), std::to_string(grid->heights.size()), std::to_string(count)}};
    return std::move(*grid);
}

/// South-west corner of a tile, from a name like N54W004.
std::optional<GeoPlace> cornerOf(const std::string& stem)
{
    const std::string s = lower(stem);
    if (s.size() < 7 || (s[0] != 'n' && s[0] != 's') || (s[3] != 'e' && s[3] != 'w'))
        return std::nullopt;
    const auto north = number(std::string_view(s).substr(1, 2)), east = number(std::string_view(s).substr(4, 3));
    if (!north || !east || *north > 90.0 || *east > 180.0)
        return std::nullopt;
    return GeoPlace{s[0] == 's' ? -*north : *north, s[3] == 'w' ? -*east : *east};
}

Result<HeightGrid> readTile(const std::string& bytes, const std::string& stem)
{
    const std::size_t side = bytes.size() == std::size_t(2) * 1201 * 1201 ? 1201 : 3601;
    const auto corner = cornerOf(stem);
    if (!corner)
        return Fault{"", coreText("core", "a tile of heights must be named after its south-west corner, like N54W004")};
    HeightGrid grid;
    grid.columns = grid.rows = side;
    grid.west = corner->longitude, grid.south = corner->latitude;
    grid.cell = 1.0 / double(side - 1);
    grid.inDegrees = true;
    grid.heights.reserve(side * side);
    for (std::size_t i = 0; i < bytes.size(); i += 2) {
        const int value = (static_cast<unsigned char>(bytes[i]) << 8) | static_cast<unsigned char>(bytes[i + 1]);
        const double height = value >= 32768 ? value - 65536 : value;
        grid.heights.push_back(height < lowestHeight || height > highestHeight ? NAN : float(height));
    }
    return grid;
}

} // namespace

Result<HeightGrid> readHeightFile(const std::string& path)
{
    constexpr std::uintmax_t largest = 400u << 20; // bytes
    std::error_code unknown;
    const std::uintmax_t size = std::filesystem::file_size(path, unknown);
    std::ifstream file(path, std::ios::binary);
    if (unknown || !file)
        return Fault{"", coreText("core", "cannot be read")};
    if (size > largest)
        return Fault{"", coreText("core", "is larger than any grid of heights that can be taken")};
    const std::string bytes{std::istreambuf_iterator<char>(file), std::istreambuf_iterator<char>()};
    if (bytes.size() == std::size_t(2) * 1201 * 1201 || bytes.size() == std::size_t(2) * 3601 * 3601)
        return readTile(bytes, std::filesystem::path(path).stem().string());
    return readText(bytes);
}

} // namespace vetchling::files

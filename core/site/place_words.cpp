#include "core/site/place_words.h"

#include "core/physics.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <optional>

namespace vetchling {
namespace {

constexpr double earthRadius = 6371e3; // m

/// Longitude and latitude of a locator's middle; each pair of characters is so much finer.
std::optional<GeoPlace> locatorPlace(const std::string& text)
{
    if (text.size() != 4 && text.size() != 6 && text.size() != 8)
        return std::nullopt;
    double east = -180.0, north = -90.0, wide = 20.0, high = 10.0;
    for (std::size_t i = 0; i < text.size(); i += 2) {
        const bool letters = i % 4 == 0;
        if (i > 0)
            wide /= letters ? 24.0 : 10.0, high /= letters ? 24.0 : 10.0;
        const int count = !letters ? 10 : i == 0 ? 18 : 24;
        const int x = letters ? std::toupper(static_cast<unsigned char>(text[i])) - 'A' : text[i] - '0',
                  y = letters ? std::toupper(static_cast<unsigned char>(text[i + 1])) - 'A' : text[i + 1] - '0';
        if (x < 0 || x >= count || y < 0 || y >= count)
            return std::nullopt;
        east += x * wide, north += y * high;
    }
    return GeoPlace{north + 0.5 * high, east + 0.5 * wide};
}

/// Numbers and the letters N, S, E, W; nothing else but degree signs and what parts them.
struct Parts {
    std::vector<double> numbers;
    std::string letters;
    bool isSound = true;
};

Parts partsOf(std::string text)
{
    for (std::size_t degree = text.find("°"); degree != std::string::npos; degree = text.find("°"))
        text.replace(degree, std::string("°").size(), " ");
    const bool isDecimal = text.find('.') == std::string::npos && std::count(text.begin(), text.end(), ',') == 2; // a comma in each
    for (char& c : text)
        if (c == ',' || c == ';')
            c = c == ',' && isDecimal ? '.' : ' ';
    Parts out;
    for (std::size_t i = 0; i < text.size();) {
        const char c = char(std::toupper(static_cast<unsigned char>(text[i])));
        if (c == ' ' || c == '\t') {
            ++i;
        } else if (std::string("NSEW").find(c) != std::string::npos) {
            out.letters += c;
            ++i;
        } else {
            double value = 0.0;
            const auto [end, fault] = std::from_chars(text.data() + i + (c == '+' ? 1 : 0), text.data() + text.size(), value);
            if (fault != std::errc() || !std::isfinite(value)) {
                out.isSound = false;
                return out;
            }
            out.numbers.push_back(value);
            i = std::size_t(end - text.data());
        }
    }
    return out;
}

} // namespace

Result<GeoPlace> readPlace(const std::string& text)
{
    const std::size_t first = text.find_first_not_of(" \t"), last = text.find_last_not_of(" \t");
    const std::string plain = first == std::string::npos ? std::string() : text.substr(first, last - first + 1);
    if (const auto place = locatorPlace(plain))
        return *place;
    const Parts parts = partsOf(plain);
    const bool lettered = parts.letters.size() == 2 && std::string("NS").find(parts.letters[0]) != std::string::npos &&
                          std::string("EW").find(parts.letters[1]) != std::string::npos;
    if (!parts.isSound || parts.numbers.size() != 2 || !(parts.letters.empty() || lettered))
        return Fault{"", coreText("core", "give latitude and longitude like 54.12, -3.21, or a grid locator like IO84ab")};
    GeoPlace place{parts.numbers[0], parts.numbers[1]};
    if (lettered && parts.letters[0] == 'S')
        place.latitude = -place.latitude;
    if (lettered && parts.letters[1] == 'W')
        place.longitude = -place.longitude;
    if (std::abs(place.latitude) > 90.0 || std::abs(place.longitude) > 180.0)
        return Fault{"", coreText("core", "latitude must be within 90 degrees and longitude within 180")};
    return place;
}

std::string locatorOf(const GeoPlace& place)
{
    double east = std::clamp(place.longitude + 180.0, 0.0, 359.999999), north = std::clamp(place.latitude + 90.0, 0.0, 179.999999);
    std::string out;
    const auto take = [&](double wide, double high, char first) {
        out += char(first + int(east / wide));
        out += char(first + int(north / high));
        east = std::fmod(east, wide), north = std::fmod(north, high);
    };
    take(20.0, 10.0, 'A');
    take(2.0, 1.0, '0');
    take(2.0 / 24.0, 1.0 / 24.0, 'a');
    return out;
}

GeoPlace movedOnEarth(const GeoPlace& from, double bearing, double distance)
{
    const double north = distance * std::cos(radians(bearing)), east = distance * std::sin(radians(bearing));
    const double shrink = std::max(0.01, std::cos(radians(from.latitude)));
    return {from.latitude + degrees(north / earthRadius), from.longitude + degrees(east / (earthRadius * shrink))};
}

} // namespace vetchling

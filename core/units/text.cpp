#include "core/units/text.h"

#include "core/units/units.h"

namespace vetchling {

std::string Text::english() const
{
    std::string out = pattern;
    for (std::size_t i = values.size(); i-- > 0;) { // from the last, so that %1 does not take the head of %10
        const std::string place = "%" + std::to_string(i + 1);
        const auto* words = std::get_if<std::string>(&values[i]);
        const auto* measure = std::get_if<Measure>(&values[i]);
        const std::string value = words ? *words : units::format(measure->value, measure->quantity);
        for (std::size_t at = out.find(place); at != std::string::npos; at = out.find(place, at + value.size()))
            out.replace(at, place.size(), value);
    }
    return out;
}

std::string joinedNames(const std::vector<std::string>& names)
{
    std::string out;
    for (std::size_t i = 0; i < names.size(); ++i)
        out += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
    return out;
}

} // namespace vetchling

#include "tests/validation/damage_trial.h"

#include "core/files/design_file.h"

#include <set>

namespace vetchling::testing {
namespace {

/// Changes something that no test damages: a note.
std::string editedAndSaved(Design design)
{
    design.site.notes = "after the storm";
    return files::writeDesign(design);
}

/// Where two documents differ; the order of members does not matter.
void addDifferences(const Doc& a, const Doc& b, const Place& here, std::vector<Place>& out)
{
    if (a.is_object() && b.is_object()) {
        for (const auto& [key, value] : a.items())
            if (b.contains(key))
                addDifferences(value, b[key], here / key, out);
            else if (!value.empty()) // null, [] and {} say the same as nothing
                out.push_back(here / key);
        for (const auto& [key, value] : b.items())
            if (!a.contains(key))
                out.push_back(here / key);
    } else if (a.is_array() && b.is_array() && a.size() == b.size()) {
        for (std::size_t i = 0; i < a.size(); ++i)
            addDifferences(a[i], b[i], here / i, out);
    } else if (a != b) {
        out.push_back(here);
    }
}

bool isAt(const Place& place, const Place& there)
{
    const std::string a = place.to_string(), b = there.to_string();
    return a == b || a.rfind(b + "/", 0) == 0;
}

} // namespace

Doc wholeDesign(const std::string& text)
{
    Design design = *files::parseDesign(text);
    TrimLog& log = design.antennas.front().trim;
    log = {};
    Measurement m{"2026-05-12T10:40", "dry", 0.1, true, 6.98e6, 1.4, "m-1", {}};
    for (int i = 0; i < 3; ++i) {
        m.id = "m-" + std::to_string(i + 1);
        m.sweep = {{6.9e6, 2.0}, {7.0e6, 1.4}, {7.1e6, 1.9}};
        m.pictures = {"mast.png"};
        log.measurements.push_back(m);
    }
    log.reports.push_back({"r-1", "2026-05-12T10:40", 7.09e6, 9e4, 45.0, 100.0, "59", "", {}});
    return Doc::parse(files::writeDesign(design));
}

Doc quoted(std::string text)
{
    for (const std::string bare : {"NaN", "1e999"})
        for (std::size_t at = text.find(bare); at != std::string::npos; at = text.find(bare, at + bare.size() + 2))
            text.replace(at, bare.size(), '"' + bare + '"');
    return Doc::parse(text);
}

bool isLeftOut(const Place& place)
{
    static const std::set<std::string> out{"/format", "/version", "/site",
                                           "/site/notes"}; // of another format or a newer program it is no design
    return out.contains(place.to_string());
}

std::string damageOffence(const Doc& whole, const Place& place, const std::string& way)
{
    if (way == "twice" && whole.at(place.parent_pointer()).is_array())
        return ""; // two like things are no damage
    const std::string damaged = damagedText(whole, place, way);
    const auto opened = files::parseDesign(damaged);
    if (!opened)
        return "is refused: " + opened.firstFault();
    const Doc found = quoted(editedAndSaved(*opened));
    Doc expected = way == "twice" ? whole : quoted(damaged);
    expected["site"]["notes"] = "after the storm";
    const bool filled = way == "missing" || (way == "object" && whole.at(place).is_object()); // with what is usual there
    std::vector<Place> changed;
    addDifferences(expected, found, Place(), changed);
    for (const Place& at : changed)
        if (!filled || !isAt(at, place) || expected.contains(at))
            return "changed at " + at.to_string();
    return "";
}

} // namespace vetchling::testing

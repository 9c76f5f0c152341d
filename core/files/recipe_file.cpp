#include "core/files/recipe_file.h"

#include "core/files/design_parts.h"
#include "core/files/writer.h"

namespace vetchling::files {

Result<study::Recipe> parseRecipe(const std::string& text)
{
    const Result<Json> json = parseJson(text);
    if (!json)
        return json.faults();
    if (!json->is_object())
        return Fault{"", "a recipe is one object in braces"};
    Faults faults;
    const JsonNode root(*json, "", faults);
    if (root.text("format") != "vetchling-recipe")
        root.faultAt("format", "must say vetchling-recipe");
    (void)root.number("version");
    study::Recipe recipe;
    recipe.site = root.text("site", "", true);
    recipe.date = root.text("date", "", true);
    if (const auto antenna = root.object("antenna")) {
        const Antenna a = readAntenna(*antenna);
        recipe.name = a.name;
        recipe.notes = a.notes;
        recipe.shape = a.shape;
    }
    if (const auto soil = root.object("soil")) {
        recipe.soil.id = soil->text("id", "", true);
        recipe.soil.name = soil->text("name", "", true);
        recipe.soil.relativePermittivity = soil->number("relative_permittivity");
        recipe.soil.conductivity = soil->number("conductivity_S_per_m");
        recipe.soil.pairFrequency = soil->number("pair_frequency_Hz", 0.0, true);
        if (!(recipe.soil.relativePermittivity >= 1.0 && recipe.soil.conductivity >= 0.0))
            soil->fault("a soil has a relative permittivity of 1 or more and a conductivity of 0 or more");
    }
    for (const JsonNode& n : root.items("lengths"))
        recipe.lengths.push_back({n.text("parameter"), n.text("name", "", true), n.number("built"), n.number("frequency_Hz", 0.0, true),
                                  n.number("slope_Hz_per_unit", 0.0, true)});
    if (!faults.empty())
        return faults;
    return recipe;
}

Result<study::Recipe> readRecipe(const std::string& path)
{
    const Result<std::string> text = readTextFile(path);
    if (!text)
        return text.faults();
    return parseRecipe(*text);
}

std::string writeRecipe(const study::Recipe& recipe)
{
    Antenna antenna;
    antenna.name = recipe.name;
    antenna.notes = recipe.notes;
    antenna.shape = recipe.shape;
    Json lengths = Json::array();
    for (const study::RecipeLength& l : recipe.lengths)
        lengths.push_back({{"parameter", l.parameter},
                           {"name", l.name},
                           {"built", l.built},
                           {"frequency_Hz", l.frequency},
                           {"slope_Hz_per_unit", l.perUnit}});
    const Json out{{"format", "vetchling-recipe"},
                   {"version", 1},
                   {"site", recipe.site},
                   {"date", recipe.date},
                   {"soil",
                    {{"id", recipe.soil.id},
                     {"name", recipe.soil.name},
                     {"relative_permittivity", recipe.soil.relativePermittivity},
                     {"conductivity_S_per_m", recipe.soil.conductivity},
                     {"pair_frequency_Hz", recipe.soil.pairFrequency}}},
                   {"lengths", lengths},
                   {"antenna", antennaJson(antenna)}};
    return out.dump(1) + "\n";
}

Faults saveRecipe(const study::Recipe& recipe, const std::string& path) { return writeWhole(path, writeRecipe(recipe)); }

} // namespace vetchling::files

#include "cli/bench_commands.h"

#include "cli/chosen.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "cli/typed.h"
#include "core/files/data_folder.h"
#include "core/files/design_file.h"
#include "core/files/recipe_file.h"
#include "core/trim/next_step.h"
#include "core/units/units.h"

#include <CLI/CLI.hpp>
#include <fmt/chrono.h>
#include <fmt/format.h>

#include <unistd.h>

#include <cstdlib>
#include <ctime>
#include <filesystem>
#include <memory>
#include <string>
#include <vector>

namespace vetchling::cli {
namespace {

struct SheetRequest {
    std::string design, antenna, output, paper = "a4", templates;
    bool quick = false;
};

/// Pages are painted by the window's program, which stands beside this one: it becomes that.
int sheetCommand(const SheetRequest& request)
{
    if (request.output.empty() && request.templates.empty())
        return report({{"sheet", "say where to write it with -o, or its drilling templates with --templates"}});
    std::error_code unknown;
    const std::filesystem::path program = std::filesystem::read_symlink("/proc/self/exe", unknown).parent_path() / "vetchling";
    if (unknown || !std::filesystem::exists(program))
        return report({{"sheet", "the window's program, vetchling, is not beside this one; it paints the pages"}});
    std::vector<std::string> words{program.string(), "--paper", request.paper};
    const auto add = [&](const char* option, const std::string& value) {
        if (!value.empty())
            words.insert(words.end(), {option, value});
    };
    add("--sheet", request.output);
    add("--templates", request.templates);
    add("--antenna", request.antenna);
    if (request.quick)
        words.emplace_back("--quick");
    words.push_back(request.design);
    std::vector<char*> arguments;
    for (std::string& word : words)
        arguments.push_back(word.data());
    arguments.push_back(nullptr);
    setenv("QT_QPA_PLATFORM", "offscreen", 1);
    unsetenv("QT_LOGGING_RULES");
    execv(arguments.front(), arguments.data());
    return report({{"sheet", program.string() + " could not be started"}});
}

struct RecipeRequest {
    Request chosen;
    std::string recipe, output;
};

int recipeCommand(const RecipeRequest& request)
{
    const Result<Chosen> chosen = chosenAntenna(request.chosen);
    if (!chosen)
        return report(chosen.faults());
    const std::time_t now = std::time(nullptr);
    const study::Recipe recipe =
        study::recipeOf(chosen->design, chosen->antenna, asLogged(chosen->antenna), {}, fmt::format("{:%Y-%m-%d}", fmt::localtime(now)));
    if (Faults faults = files::saveRecipe(recipe, request.output); !faults.empty())
        return report(faults);
    return exitGood;
}

/// The recipe with the wire and soil of a design's antenna, added to that design.
int copyCommand(const RecipeRequest& request)
{
    const auto recipe = files::readRecipe(request.recipe);
    if (!recipe)
        return report(recipe.faults());
    const Result<Chosen> chosen = chosenAntenna(request.chosen);
    if (!chosen)
        return report(chosen.faults());
    em::GroundTableCache tables;
    const KeptTables kept(tables);
    const auto copy = study::copyOf(*recipe, chosen->antenna.shape.wire, chosen->design.site.soil.ground(), tables, terminalWatch());
    if (!copy)
        return report(copy.faults());
    Design design = chosen->design;
    Antenna antenna = copy->antenna;
    antenna.name = freeName(antenna.name, antennaNames(design));
    design.antennas.push_back(antenna);
    nameNewThings(design);
    if (Faults faults = files::saveDesign(design, request.output); !faults.empty())
        return report(faults);
    nlohmann::ordered_json lengths = nlohmann::ordered_json::array();
    for (const auto& l : copy->lengths)
        lengths.push_back({{"parameter", l.parameter},
                           {"built", l.built},
                           {"modelled_there", l.modelledThere},
                           {"modelled_here", l.modelledHere},
                           {"copied", l.copied}});
    fmt::print("{}\n", nlohmann::ordered_json({{"antenna", antenna.name}, {"lengths", lengths}}).dump(1));
    return exitGood;
}

} // namespace

void addBenchCommands(CLI::App& app, int& status)
{
    auto sheet = std::make_shared<SheetRequest>();
    CLI::App* pages = app.add_subcommand("sheet", "the build sheet as a PDF, and templates to drill by");
    pages->add_option("design", sheet->design, "design file (.vetchling)")->required();
    pages->add_option("--antenna", sheet->antenna, "name or id of the antenna; the first one if left out");
    pages->add_option("-o,--output", sheet->output, "PDF to write");
    pages->add_option("--paper", sheet->paper, "a4, letter, or phone for pages as wide as one");
    pages->add_option("--templates", sheet->templates, "drilling templates at 1:1, PDF or SVG by the name's ending");
    pages->add_flag("--quick", sheet->quick, "leave out what has to be solved: coil and distances");
    pages->callback([sheet, &status] { status = sheetCommand(*sheet); });

    auto recipe = std::make_shared<RecipeRequest>();
    CLI::App* kept = app.add_subcommand("recipe", "a finished antenna as it was built, to be built again");
    kept->add_option("design", recipe->chosen.design, "design file (.vetchling)")->required();
    kept->add_option("--antenna", recipe->chosen.antenna, "name or id of the antenna; the first one if left out");
    kept->add_option("-o,--output", recipe->output, "recipe to write")->required();
    kept->callback([recipe, &status] { status = recipeCommand(*recipe); });

    auto copy = std::make_shared<RecipeRequest>();
    CLI::App* built = app.add_subcommand("copy", "a recipe for the wire and soil of a design, its lengths corrected by the model");
    built->add_option("recipe", copy->recipe, "recipe file")->required();
    built->add_option("design", copy->chosen.design, "design it is for")->required();
    built->add_option("--antenna", copy->chosen.antenna, "whose wire it is built of; the first one if left out");
    built->add_option("-o,--output", copy->output, "design to write, with the copy in it")->required();
    built->callback([copy, &status] { status = copyCommand(*copy); });
}

} // namespace vetchling::cli

#include "cli/chosen.h"

#include "core/design/variants.h"
#include "core/files/design_file.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

namespace vetchling::cli {

Result<Design> openDesign(const std::string& path)
{
    Result<Design> design = files::readDesign(path);
    if (design && design->damage)
        for (const Fault& fault : design->damage->faults())
            fmt::print(stderr, "note: {}\n", fault.text());
    return design;
}

Result<std::size_t> chosenConfiguration(const Request& request, const shapes::AntennaShape& shape)
{
    const auto all = shapes::familyOf(shape).configurations(shape);
    if (request.configuration.empty())
        return std::size_t(0);
    for (std::size_t i = 0; i < all.size(); ++i)
        if (all[i].name == request.configuration || std::to_string(i + 1) == request.configuration)
            return i;
    return Fault{"--configuration", fmt::format("'{}' is none of this antenna's {}; give a name or a number from 1 to {}",
                                                request.configuration, all.size(), all.size())};
}

Result<std::size_t> chosenPlace(const Request& request, const Design& design)
{
    const auto lost = design.damage ? lostAntennas(*design.damage) : std::vector<const DamagedPart*>();
    for (const DamagedPart* part : lost)
        if (!request.antenna.empty() && (part->owners.back().name == request.antenna || part->owners.back().id == request.antenna))
            return Fault{"--antenna", fmt::format("'{}' cannot be read: {}", request.antenna, part->fault.text())};
    if (design.antennas.empty())
        return lost.empty() ? Fault{"antennas", "the design has no antenna; add one"} : lost.front()->fault;
    if (request.antenna.empty())
        return std::size_t(0);
    for (std::size_t i = 0; i < design.antennas.size(); ++i)
        if (design.antennas[i].name == request.antenna || design.antennas[i].id == request.antenna)
            return i;
    return Fault{"--antenna", "there is no antenna '" + request.antenna + "' in this design"};
}

Result<Antenna> chosenVariant(const Request& request, const Antenna& antenna)
{
    if (request.variant.empty())
        return antenna;
    for (const Variant& v : antenna.variants)
        if (v.name == request.variant || v.id == request.variant)
            return asVariant(antenna, v.id);
    return Fault{"--variant", fmt::format("{} has no variant '{}'", antenna.name, request.variant)};
}

Result<Chosen> chosenAntenna(const Request& request)
{
    Result<Design> design = openDesign(request.design);
    if (!design)
        return design.faults();
    const Result<std::size_t> place = chosenPlace(request, *design);
    if (!place)
        return place.faults();
    const Result<Antenna> varied = chosenVariant(request, design->antennas[*place]);
    if (!varied)
        return varied.faults();
    const Antenna* found = &*varied;
    const Result<std::size_t> configuration = chosenConfiguration(request, found->shape);
    if (!configuration)
        return configuration.faults();
    const study::Subject subject = study::questionOf(*design, *found, {}, *configuration).subject;
    Result<shapes::BuiltAntenna> built = shapes::buildOver(subject.shape, subject.ground, subject.configuration);
    if (!built)
        return built.faults();
    return Chosen{*design, *found, subject, std::move(built).value()};
}

CLI::App* addAntennaCommand(CLI::App& app, const std::shared_ptr<Request>& request, int& status, const char* name, const char* help,
                            int (*run)(const Request&))
{
    CLI::App* command = app.add_subcommand(name, help);
    command->add_option("design", request->design, "design file (.vetchling)")->required();
    command->add_option("--antenna", request->antenna, "name or id of the antenna; the first one if left out");
    command->add_option("--variant", request->variant, "name or id of its variant; the antenna as drawn if left out");
    command->add_option("--configuration", request->configuration, "name or number of the configuration, 1 the innermost");
    command->callback([request, &status, run] { status = run(*request); });
    return command;
}

} // namespace vetchling::cli

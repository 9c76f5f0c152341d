#include "cli/terrain_commands.h"

#include "cli/chosen.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "core/files/data.h"
#include "core/files/data_folder.h"
#include "core/files/design_file.h"
#include "core/files/height_file.h"
#include "core/files/terrain_file.h"
#include "core/site/place_words.h"
#include "core/study/skies.h"

#include <CLI/CLI.hpp>

#include <cmath>
#include <memory>

namespace vetchling::cli {
namespace {

/// dB over flat ground of the soil at the antenna's foot.
Result<std::vector<double>> overFlat(const files::TerrainCase& c, const Watch& watch)
{
    const auto field = em::TerrainField::solve(c.profile, c.frequency, {c.height}, watch);
    if (!field)
        return field.faults();
    std::vector<double> all;
    for (double degrees : c.elevations) {
        const double elevation = radians(degrees);
        const em::TerrainResponse there = field->responses(em::Side::Along, elevation).front(),
                                  flat = em::flatResponse(c.profile.soilAt(0.0), c.frequency, c.height, elevation);
        all.push_back(20.0 * std::log10(std::abs(c.vertical ? there.vertical / flat.vertical : there.across / flat.across)));
    }
    return all;
}

int terrainCommand(const std::string& path)
{
    const auto one = files::readTerrainCase(path);
    if (!one)
        return report(one.faults());
    const auto decibels = overFlat(*one, terminalWatch());
    if (!decibels)
        return report(decibels.faults());
    print(Json{{"elevations_deg", one->elevations}, {"F_dB", *decibels}});
    return exitGood;
}

struct SkyRequest {
    Request chosen;
    std::string band;
};

/// [bearing][elevation], from [elevation][azimuth].
Json byBearing(const std::vector<std::vector<double>>& grid, std::size_t bearings)
{
    Json all = Json::array();
    for (std::size_t b = 0; b < bearings; ++b) {
        all.push_back(Json::array());
        for (const std::vector<double>& row : grid)
            all.back().push_back(row[b]);
    }
    return all;
}

/// Every ten degrees round, every degree up to 60 and every five above.
struct Directions {
    std::vector<double> bearings, elevations; ///< degrees
    Directions()
    {
        for (int b = 0; b < 360; b += 10)
            bearings.push_back(b);
        for (int e = 1; e <= 90; e += e < 60 ? 1 : 5)
            elevations.push_back(e);
    }
    [[nodiscard]] std::vector<std::vector<double>> gains(const em::FarField& field) const
    {
        std::vector<double> azimuths, up;
        for (double b : bearings)
            azimuths.push_back(radians(90.0 - b));
        for (double e : elevations)
            up.push_back(radians(e));
        return field.gainGrid(up, azimuths);
    }
};

int skyCommand(const SkyRequest& request)
{
    const Result<Chosen> chosen = chosenAntenna(request.chosen);
    if (!chosen)
        return report(chosen.faults());
    Design design = chosen->design;
    if (!request.band.empty()) {
        std::erase_if(design.operation.bands, [&](const WantedBand& w) { return w.band.name != request.band && w.id != request.band; });
        if (design.operation.bands.empty())
            return report({{"--band", {coreText("core", "the design has no band %1"), request.band}}});
        design.operation.bands.front().wish = Wish::Must; // whoever asks for it wants it
    }
    study::Library library;
    const KeptTables kept(library.tables());
    const auto skies = study::skiesOf(library, design, chosen->antenna, terminalWatch());
    if (!skies)
        return report(skies.faults());
    const Directions directions;
    if (request.chosen.csv)
        fmt::print("band,bearing_deg,elevation_deg,gain_dBi,gain_flat_dBi\n");
    Json bands = Json::array();
    for (const WantedBand& w : design.operation.bands) {
        const auto sky = skies->bands.find(w.id);
        if (sky == skies->bands.end())
            continue;
        const auto over = directions.gains(*sky->second.field), flat = directions.gains(sky->second.field->over({}));
        if (request.chosen.csv)
            for (std::size_t e = 0; e < directions.elevations.size(); ++e)
                for (std::size_t b = 0; b < directions.bearings.size(); ++b)
                    fmt::print("{},{},{},{:.2f},{:.2f}\n", w.band.name, directions.bearings[b], directions.elevations[e], over[e][b],
                               flat[e][b]);
        bands.push_back({{"band", w.band.name},
                         {"bearings_deg", directions.bearings},
                         {"elevations_deg", directions.elevations},
                         {"gain_dBi", byBearing(over, directions.bearings.size())},
                         {"gain_flat_dBi", byBearing(flat, directions.bearings.size())}});
    }
    if (!request.chosen.csv)
        print(Json{{"bands", bands}});
    return exitGood;
}

struct HeightsRequest {
    std::string design, file, place, output;
};

/// The ground along bearings all round a design's site, from a file of heights.
int heightsCommand(const HeightsRequest& request)
{
    auto design = files::readDesign(request.design);
    const auto grid = files::readHeightFile(request.file);
    const auto soils = files::readSoils(files::findDataFolder() + "/soils.json");
    for (const Faults* faults : {design ? nullptr : &design.faults(), grid ? nullptr : &grid.faults(), soils ? nullptr : &soils.faults()})
        if (faults)
            return report(*faults);
    Design changed = std::move(design).value();
    GroundLinesQuery query{grid->middle(), 10.0, 5000.0, changed.site.soil, seaOf(*soils)};
    if (!grid->inDegrees && !request.place.empty())
        return report({{"--place", coreText("core", "the grid is in metres: its middle is the antenna's place")}});
    if (grid->inDegrees) {
        const auto place = request.place.empty() && changed.site.place ? Result<GeoPlace>(*changed.site.place) : readPlace(request.place);
        if (!place)
            return report({{"--place", place.faults().front().message}});
        query.place = *place;
        changed.site.place = *place;
    }
    auto lines = linesFrom(*grid, query);
    if (!lines)
        return report(lines.faults());
    changed.site.profiles = lines->profiles;
    if (Faults faults = request.output.empty() ? Faults() : files::saveDesign(changed, request.output); !faults.empty())
        return report(faults);
    Json bearings = Json::array();
    for (const GroundProfile& p : lines->profiles)
        bearings.push_back(
            {{"bearing_deg", p.bearing}, {"points", p.points.size()}, {"reaches_m", p.points.empty() ? 0.0 : p.points.back().distance}});
    print(Json{{"foot_height_m", lines->footHeight}, {"bearings", bearings}});
    return exitGood;
}

} // namespace

void addTerrainCommands(CLI::App& app, int& status)
{
    const auto path = std::make_shared<std::string>();
    CLI::App* terrain = app.add_subcommand("terrain", "what uneven ground does to the waves of one current, against flat ground, as JSON");
    terrain->add_option("case", *path, "case: frequency, height, polarization, profile, soils, elevations")->required();
    terrain->callback([path, &status] { status = terrainCommand(*path); });

    const auto from = std::make_shared<HeightsRequest>();
    CLI::App* heights = app.add_subcommand("heights", "takes the ground along bearings all round a site from a file of heights");
    heights->add_option("design", from->design, "design file (.vetchling)")->required();
    heights->add_option("file", from->file, "plain grid of heights, or a raw one-degree tile")->required();
    heights->add_option("--place", from->place,
                        "latitude and longitude, or a grid locator; without it the design's, or a grid in m its middle");
    heights->add_option("-o", from->output, "the design with that ground");
    heights->callback([from, &status] { status = heightsCommand(*from); });

    const auto request = std::make_shared<SkyRequest>();
    CLI::App* sky = app.add_subcommand("sky", "an antenna's gain all round on each wanted band, over its ground and over flat ground");
    sky->add_option("design", request->chosen.design, "design file (.vetchling)")->required();
    sky->add_option("--antenna", request->chosen.antenna, "its name; without it the first one");
    sky->add_option("--band", request->band, "one band by its name, wanted or not; without it all that are wanted");
    sky->add_flag("--csv", request->chosen.csv, "a row a direction: band, bearing, elevation, gain, gain over flat ground");
    sky->callback([request, &status] { status = skyCommand(*request); });
}

} // namespace vetchling::cli

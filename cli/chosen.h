#pragma once
/// Which antenna of which design a command is about.

#include "core/study/answers.h"

#include <memory>
#include <string>
#include <vector>

namespace CLI {
class App;
}

namespace vetchling::cli {

struct Request {
    std::string design, antenna, variant, family, output, goal, soil, configuration;
    std::vector<std::string> settings, vary;
    double frequency = 0.0, resistance = 0.0, permittivity = 13.0, conductivity = 0.005;
    bool list = false, csv = false, all = false;
};

struct Chosen {
    Design design;
    Antenna antenna;
    study::Subject subject;
    shapes::BuiltAntenna built;
};

/// Reads a design; what is damaged in it is told on stderr, and goes on with it as it stands.
Result<Design> openDesign(const std::string& path);
/// By name or number, 1 the innermost; the first one where none is named.
Result<std::size_t> chosenConfiguration(const Request& request, const shapes::AntennaShape& shape);
/// By name or id, the first one where none is named.
Result<std::size_t> chosenPlace(const Request& request, const Design& design);
/// The antenna, or its variant where the request names one.
Result<Antenna> chosenVariant(const Request& request, const Antenna& antenna);
/// Reads the design, picks the antenna by name or id (the first one where none is named) and builds it over the site's soil.
Result<Chosen> chosenAntenna(const Request& request);
/// Adds a command on one antenna of a design, with the options that say which; `status` receives the exit code.
CLI::App* addAntennaCommand(CLI::App& app, const std::shared_ptr<Request>& request, int& status, const char* name, const char* help,
                            int (*run)(const Request&));

} // namespace vetchling::cli

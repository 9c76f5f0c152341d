/// Writes docs/validation.md and its plots: vetchling_validate DOCS-FOLDER. Everything in it is computed here.

#include "core/em/near_field.h"
#include "core/em/sweep.h"
#include "core/files/chain_file.h"
#include "core/files/design_file.h"
#include "core/files/wire_file.h"
#include "tests/core/helpers.h"
#include "tests/validation/advice_brute.h"
#include "tests/validation/coated_wire.h"
#include "tests/validation/hallen.h"
#include "tests/validation/page.h"
#include "tests/validation/random_antennas.h"
#include "tests/validation/spread_draws.h"
#include "tests/validation/terrain_page.h"
#include "tests/validation/trim_builder.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <chrono>
#include <filesystem>
#include <fstream>
#include <functional>
#include <map>

namespace vetchling::testing {
namespace {

constexpr double f = 14.1e6;
const double lambda = wavelength(f);

em::Solution at(const WireModel& model, const em::SolveOptions& options = {}, double frequency = f)
{
    static em::GroundTableCache tables(100);
    const auto solution = em::solve(std::make_shared<const WireModel>(model), frequency, tables, options);
    if (!solution) {
        fmt::print(stderr, "{}\n", solution.firstFault());
        std::exit(1);
    }
    return *solution;
}

em::SolveOptions fine()
{
    em::SolveOptions options;
    options.mesh.degree = 5;
    options.mesh.elementsPerWavelength = 5.0;
    options.mesh.fineness = 16.0;
    return options;
}

double gainOf(const em::Solution& s, double elevation, double azimuth) { return em::FarField(s).gain(elevation, azimuth); }

/// Mutual impedance of two thin half-wave dipoles side by side (Carter 1932, Proc. IRE 20, 1004), by its integral.
Complex carter(double apart)
{
    const double k = 2.0 * pi, half = 0.25;
    Complex sum = 0.0;
    constexpr int steps = 4000;
    for (int i = 0; i < steps; ++i) {
        const double z = half * (2.0 * (i + 0.5) / steps - 1.0);
        const double r1 = std::hypot(apart, z - half), r2 = std::hypot(apart, z + half);
        const Complex field = std::exp(Complex{0.0, -k * r1}) / r1 + std::exp(Complex{0.0, -k * r2}) / r2; // cos(k half) = 0
        sum += std::sin(k * (half - std::abs(z))) * field * (2.0 * half / steps);
    }
    return Complex{0.0, 30.0} * sum;
}

/// A figure of a half-wave wire at radius zero: the parabola through three radii over 1/ln(length/radius).
Complex thinLimit(const std::function<Complex(double radius)>& figure)
{
    double x[3];
    Complex y[3], sum = 0.0;
    for (int i = 0; i < 3; ++i) {
        const double radius = lambda * std::pow(10.0, -4 - 2 * i);
        x[i] = 1.0 / std::log(0.5 * lambda / radius);
        y[i] = figure(radius);
    }
    for (int i = 0; i < 3; ++i) {
        const int j = (i + 1) % 3, k = (i + 2) % 3;
        sum += y[i] * (x[j] * x[k]) / ((x[i] - x[j]) * (x[i] - x[k]));
    }
    return sum;
}

void textbook(Page& page)
{
    page.heading("Against closed forms");
    page.say("| what | figure | source | solved | difference |\n|---|---|---|---|---|");
    const auto row = [&](const char* what, double figure, const char* source, double solved, const char* unit) {
        page.say(fmt::format("| {} | {:.4g} {} | {} | {:.4g} {} | {:+.2g} |", what, figure, unit, source, solved, unit, solved - figure));
    };
    const double thin = 1e-7 * lambda;
    const Complex half = thinLimit([](double radius) { return at(dipole(0.5 * lambda, 0, freeSpace, radius)).impedance; });
    row("half-wave dipole of no radius, R", 73.13, "induced EMF, Balanis 2016, 8-61", half.real(), "ohm");
    row("half-wave dipole of no radius, X", 42.54, "same, 8-61", half.imag(), "ohm");
    row("half-wave dipole, gain", 2.15, "Balanis 4-91", gainOf(at(dipole(0.5 * lambda, 0, freeSpace, thin)), 0, 0.5 * pi), "dBi");
    const double shortLength = 0.02 * lambda;
    const em::Solution small = at(dipole(shortLength, 0, freeSpace, 1e-6 * lambda));
    row("short dipole, R", 20.0 * std::pow(pi * 0.02, 2.0), "20 (pi L/wl)^2, Balanis 4-37", small.impedance.real(), "ohm");
    row("short dipole, gain", 1.761, "Balanis 4-30", gainOf(small, 0, 0.5 * pi), "dBi");
    const double side = 0.006 * lambda;
    const Complex loop =
        at(fedWire({{0, 0, 0}, {side, 0, 0}, {side, side, 0}, {0, side, 0}, {0, 0, 0}}, 0.5 * side, freeSpace, 1e-5 * lambda)).impedance;
    row("small square loop, R", 31171.0 * std::pow(side * side / (lambda * lambda), 2.0), "Balanis 5-24", loop.real(), "ohm");
    const em::Solution monopole = at(fedWire({{0, 0, 0}, {0, 0, 0.25 * lambda}}, 0.0, perfectGround, thin));
    row("quarter wave on perfect ground, gain at the horizon", 5.16, "half-wave dipole + 3.01 dB", gainOf(monopole, 1e-3, 0), "dBi");
    for (double apart : {0.25, 0.5, 1.0}) {
        const Complex mutual = thinLimit([&](double radius) {
            WireModel pair = dipole(0.5 * lambda, 0, freeSpace, radius);
            pair.wires.push_back(wire("b", {{-0.25 * lambda, apart * lambda, 0}, {0.25 * lambda, apart * lambda, 0}}, radius));
            pair.feeds.push_back({1, 0.25 * lambda, 1.0});
            const Complex even = at(pair).impedance;
            pair.feeds[1].voltage = -1.0;
            return 0.5 * (even - at(pair).impedance);
        });
        const Complex expected = carter(apart);
        const std::string what = fmt::format("mutual impedance of half-wave dipoles {} wavelengths apart", apart);
        row((what + ", R").c_str(), expected.real(), "Carter 1932, sinusoidal currents", mutual.real(), "ohm");
        row((what + ", X").c_str(), expected.imag(), "same", mutual.imag(), "ohm");
    }
    page.say("\nThe closed forms assume sinusoidal currents on wires of no radius; figures of no radius and mutual impedances are "
             "extrapolated from "
             "radii of 1e-4, 1e-6 and 1e-8 wavelengths by a parabola in 1/ln(length/radius), which is slow to settle. The short dipole's "
             "triangle "
             "of current is an approximation that a real wire misses by some percent.");
}

void thickTubes(Page& page)
{
    page.heading("Thick tubes");
    page.say("Centre-fed tubes in free space against Hallen's equation with the exact kernel, solved by other means "
             "(`tests/validation/hallen.cpp`), with the same gap of two radii.\n");
    page.say("| length / wl | radius / wl | Z by Hallen | Z solved | difference % | own estimate % |\n|---|---|---|---|---|---|");
    em::SolveOptions usual;
    usual.wantedErrorPercent = em::usualErrorPercent;
    for (double length : {0.45, 0.5, 0.7, 0.95})
        for (double radius : {0.004, 0.007, 0.01, 0.02}) {
            const Complex z = hallenImpedance(length, radius, 2.0 * radius, int(4.0 * length / radius));
            const em::Solution s = at(dipole(length * lambda, 0.0, freeSpace, radius * lambda), usual);
            page.say(fmt::format("| {} | {} | {:.2f} {:+.2f}j | {:.2f} {:+.2f}j | {:.2f} | {:.2f} |", length, radius, z.real(), z.imag(),
                                 s.impedance.real(), s.impedance.imag(), 100.0 * relative(s.impedance, z), s.impedanceErrorPercent));
        }
}

void insulation(Page& page)
{
    page.heading("Insulated wire");
    page.say("The current on a wire of 40 wavelengths in a jacket, between its nodes, against the exact surface wave on a coated wire "
             "(Goubau 1950).\n");
    page.say("| radius mm | jacket mm | er | velocity factor, exact | solved |\n|---|---|---|---|---|");
    for (const CoatedWire& w : {CoatedWire{1e-3, 1e-3, 3.0}, CoatedWire{1e-3, 0.5e-3, 2.3}, CoatedWire{0.3e-3, 0.3e-3, 3.0},
                                CoatedWire{0.5e-3, 0.8e-3, 2.3}, CoatedWire{2e-3, 4e-3, 4.0}})
        page.say(fmt::format("| {} | {} | {} | {:.4f} | {:.4f} |", 1e3 * w.radius, 1e3 * w.thickness, w.permittivity,
                             1.0 / surfaceWaveSlowness(w, f), 1.0 / slownessOnALongWire(w, f, 40.0)));
}

void reference(Page& page)
{
    page.heading("Against independent programs");
    page.say("Other bases, another form of the soil's field, other quadrature. +- is their own uncertainty. They are driven by a step "
             "of voltage, here it acts over two radii: that is most of the difference where |Z| is large (s02).\n");
    page.say("| case | Z expected | +- % | Z solved | difference % | own estimate % | gain dB | efficiency "
             "|\n|---|---|---|---|---|---|---|---|");
    std::vector<std::filesystem::path> files;
    for (const auto& entry : std::filesystem::directory_iterator(VETCHLING_TEST_DATA "/reference/cases"))
        files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    em::GroundTableCache tables(10);
    for (const std::filesystem::path& path : files) {
        const auto wires = files::readWireFile(path.string());
        std::ifstream file(VETCHLING_TEST_DATA "/reference/expected/" + path.filename().string());
        const auto expected = nlohmann::json::parse(file)["results"][0];
        em::SolveOptions options;
        options.wantedErrorPercent = em::usualErrorPercent;
        const em::Solution s = at(wires->model, options, expected["frequency_Hz"]);
        const Complex z{expected["impedance_ohm"][0], expected["impedance_ohm"][1]};
        const double uncertainty = expected["impedance_uncertainty_ohm"];
        const em::FarField field(s);
        double gain = 0.0, top = -300.0;
        for (const auto& row : expected["gain_dBi"])
            for (double g : row)
                top = std::max(top, g);
        for (std::size_t e = 0; e < wires->pattern.elevations.size(); ++e)
            for (std::size_t a = 0; a < wires->pattern.azimuths.size(); ++a)
                if (const double g = expected["gain_dBi"][e][a]; g > top - 20.0)
                    gain = std::max(gain,
                                    std::abs(field.gain(radians(wires->pattern.elevations[e]), radians(wires->pattern.azimuths[a])) - g));
        page.say(fmt::format("| {} | {:.2f} {:+.2f}j | {:.2f} | {:.2f} {:+.2f}j | {:.3f} | {:.2f} | {:.4f} | {:.5f} |",
                             path.stem().string(), z.real(), z.imag(), 100.0 * uncertainty / std::abs(z), s.impedance.real(),
                             s.impedance.imag(), 100.0 * relative(s.impedance, z), s.impedanceErrorPercent, gain,
                             std::abs(ledgerOf(s).sky - double(expected["efficiency"]))));
    }
}

void convergence(Page& page)
{
    page.heading("Convergence with the mesh");
    page.say("Difference in Z to a mesh of degree 5 with the finest elements sixteen times shorter.\n");
    WireModel thick = dipole(0.47 * lambda, 0.3 * lambda, averageSoil, 0.01 * lambda);
    WireModel folded = fedWire({{-5, 0, 8}, {5, 0, 8}, {5, 0.1, 8}, {-5, 0.1, 8}, {-5, 0, 8}}, 5.0, averageSoil);
    const std::vector<std::pair<std::string, WireModel>> models{
        {"dipole over soil", dipole(10, 6, averageSoil)},
        {"inverted V", fedWire({{-4.5, 0, 4}, {0, 0, 8}, {4.5, 0, 4}}, std::hypot(4.5, 4), averageSoil)},
        {"folded dipole", folded},
        {"tube, 0.01 wl", thick},
        {"full-wave loop", fedWire({{0, 0, 3}, {5.4, 0, 3}, {5.4, 0, 8.4}, {0, 0, 8.4}, {0, 0, 3}}, 2.7, averageSoil)}};
    Plot plot{"Error against unknowns", "unknowns", "error in Z, %", {}, false};
    for (const auto& [name, model] : models) {
        const Complex settled = at(model, fine()).impedance;
        Series series{name, {}, {}, true};
        for (auto [degree, fineness] : {std::pair(2, 0.5), std::pair(3, 0.7), std::pair(4, 1.0), std::pair(4, 3.0), std::pair(5, 6.0)}) {
            em::SolveOptions options;
            options.mesh.degree = degree;
            options.mesh.fineness = fineness;
            const em::Solution s = at(model, options);
            series.x.push_back(s.mesh->unknowns);
            series.y.push_back(100.0 * relative(s.impedance, settled));
        }
        plot.series.push_back(series);
    }
    page.plot("convergence", plot);
}

/// ohm of one of two equal electrodes in the soil joined by a fed wire over it; its neighbour's share is taken off.
double electrode(const Ground& soil, const std::function<void(WireModel&, double)>& add)
{
    constexpr double apart = 60.0;
    WireModel model = fedWire({{0, 0, 0.2}, {apart, 0, 0.2}}, 0.5 * apart, soil);
    add(model, 0.0);
    add(model, apart);
    return 0.5 * at(model, {}, 1e4).impedance.real() + 1.0 / (2.0 * pi * soil.conductivity * apart);
}

void buried(Page& page)
{
    page.heading("Wires in the soil");
    page.say("Resistance to earth at 10 kHz in soil of 1 mS/m. Dwight's formula for rods takes an even current and is an upper bound.\n");
    page.say("| electrode | published, ohm | solved, ohm | difference % |\n|---|---|---|---|");
    const Ground soil{GroundKind::Real, 10.0, 0.001};
    constexpr double radius = 8e-3;
    const auto row = [&](const std::string& what, double published, double found) {
        page.say(fmt::format("| {} | {:.1f} | {:.1f} | {:+.2f} |", what, published, found, 100.0 * (found / published - 1.0)));
    };
    for (double length : {0.5, 1.0, 1.5, 2.4, 4.0})
        row(fmt::format("rod of {} m, 16 mm thick; Dwight 1936", length),
            (std::log(4.0 * length / radius) - 1.0) / (2.0 * pi * soil.conductivity * length), electrode(soil, [&](WireModel& m, double x) {
                m.wires.push_back(wire("rod" + std::to_string(int(x)), {{x, 0, 0.2}, {x, 0, -length}}, radius));
            }));
    for (double length : {5.0, 10.0, 20.0}) {
        constexpr double depth = 0.3, thin = 2e-3;
        row(fmt::format("level wire of {} m, 4 mm thick, 0.3 m deep; Sunde 1949", length),
            (std::log(2.0 * length / std::sqrt(2.0 * thin * depth)) - 1.0) / (pi * soil.conductivity * length),
            electrode(soil, [&](WireModel& m, double x) {
                const std::string name = std::to_string(int(x));
                m.wires.push_back(wire("lead" + name, {{x, 0, 0.2}, {x, 0, -depth}}, 2e-4));
                m.wires.push_back(wire("level" + name, {{x, -0.5 * length, -depth}, {x, 0, -depth}, {x, 0.5 * length, -depth}}, thin));
            }));
    }
    constexpr int count = 120;
    em::GroundTableCache tables(20);
    std::vector<std::array<double, 3>> outcomes(count); // true error, estimate, ledger off
    tbb::parallel_for(0, count, [&](int seed) {
        const RandomAntenna antenna = randomBuried(unsigned(seed));
        const auto model = std::make_shared<const WireModel>(antenna.model);
        em::SolveOptions usual, finer = fine();
        usual.wantedErrorPercent = em::usualErrorPercent;
        finer.mesh.fineness = 8.0;
        const auto answer = em::solve(model, antenna.frequency, tables, usual), truth = em::solve(model, antenna.frequency, tables, finer);
        if (answer && truth)
            outcomes[std::size_t(seed)] = {100.0 * relative(answer->impedance, truth->impedance), answer->impedanceErrorPercent,
                                           std::abs(em::powerLedger(*answer, tables)->sum() - 1.0)};
    });
    int honest = 0, withinOne = 0;
    double balance = 0.0;
    for (const auto& [error, estimate, off] : outcomes) {
        honest += error <= estimate;
        withinOne += error <= 1.0;
        balance = std::max(balance, off);
    }
    page.say(fmt::format(
        "\n{} random antennas with wires in the soil (`tests/validation/random_buried.cpp`) against a much finer mesh: the true "
        "error is below the estimate in **{}** and below 1 % in {}; their power adds up within {:.2g} %.",
        count, honest, withinOne, 100.0 * balance));
}

void honesty(Page& page)
{
    page.heading("How honest the error estimate is");
    constexpr int count = 200;
    struct Outcome {
        std::string kind;
        double error = 0.0, estimate = 0.0, off = 0.0; ///< percent, percent, share
    };
    em::GroundTableCache tables(20);
    std::vector<Outcome> outcomes(count); // in the order of the seeds, so that the page changes only where the figures do
    tbb::parallel_for(0, count, [&](int seed) {
        const RandomAntenna antenna = randomAntenna(unsigned(seed));
        const auto model = std::make_shared<const WireModel>(antenna.model);
        em::SolveOptions usual;
        usual.wantedErrorPercent = em::usualErrorPercent;
        const auto answer = em::solve(model, antenna.frequency, tables, usual), truth = em::solve(model, antenna.frequency, tables, fine());
        if (!answer || !truth)
            return;
        const auto ledger = em::powerLedger(*answer, tables);
        outcomes[std::size_t(seed)] = {antenna.kind, 100.0 * relative(answer->impedance, truth->impedance), answer->impedanceErrorPercent,
                                       std::abs(ledger->sum() - 1.0)};
    });
    std::map<std::string, Series> byKind;
    int honest = 0, withinHalf = 0, withinOne = 0, met = 0, balanced = 0;
    double balance = 0.0;
    for (const Outcome& o : outcomes) {
        if (o.kind.empty())
            continue;
        honest += o.error <= o.estimate;
        withinHalf += o.error <= 0.5;
        withinOne += o.error <= 1.0;
        met += o.estimate <= em::usualErrorPercent;
        balance = std::max(balance, o.off);
        balanced += o.off <= 0.005;
        byKind[o.kind].x.push_back(o.error);
        byKind[o.kind].y.push_back(o.estimate);
    }
    page.say(fmt::format(
        "{} random antennas of every shape in the field (`tests/validation/random_antennas.cpp`) against a much finer mesh. The true error "
        "is below the estimate in **{}**; it is below 0.5 % in {} and below 1 % in {}. The estimate meets the wanted 0.5 % in {}; the "
        "others "
        "say that they do not.\n",
        count, honest, withinHalf, withinOne, met));
    page.say(fmt::format(
        "Their power ledgers (sky, soil, wire, loads, each by its own integral) add to the input within 0.5 % in {}; worst {:.2f} %.",
        balanced, 100.0 * balance));
    Plot plot{"Estimate against true error", "true error in Z, %", "estimate, %", {}, true};
    Series rest{"other shapes", {}, {}, false};
    for (auto& [kind, series] : byKind) {
        series.name = kind;
        series.joined = false;
        if (kind == "thick tube" || kind == "vertical with radials" || kind == "coil-loaded" || kind == "fan")
            plot.series.push_back(series);
        else
            rest.x.insert(rest.x.end(), series.x.begin(), series.x.end()), rest.y.insert(rest.y.end(), series.y.begin(), series.y.end());
    }
    plot.series.insert(plot.series.begin(), rest);
    page.plot("honesty", plot);
}

void limits(Page& page)
{
    page.heading("Limits, reciprocity, continuity");
    page.say("| what | difference |\n|---|---|");
    const auto row = [&](const std::string& what, double difference) { page.say(fmt::format("| {} | {:.1e} |", what, difference)); };
    const std::vector<Vec3> bent{{-5, 0, 2}, {0, 1, 5}, {5, 0, 3}};
    const auto over = [&](Ground ground) { return at(fedWire(bent, 5.0, ground)).impedance; };
    row("soil of er 1 + 1e-7 against free space", relative(over({GroundKind::Real, 1.0 + 1e-7, 0.0}), over(freeSpace)));
    row("soil of 1e7 S/m against perfect ground", relative(over({GroundKind::Real, 1.0, 1e7}), over(perfectGround)));
    row("monopole on perfect ground against half of the dipole with its image",
        relative(2.0 * at(fedWire({{0, 0, 0}, {0, 0, 5}}, 0.0, perfectGround)).impedance,
                 at(fedWire({{0, 0, -5}, {0, 0, 5}}, 5.0)).impedance));
    WireModel three = dipole(9, 2, averageSoil);
    three.wires.push_back(wire("v", {{1, 8, 0.5}, {1, 8, 6}}));
    three.feeds.push_back({1, 2.0, 0.0});
    const Complex there = at(three).feedCurrents[1];
    std::swap(three.feeds[0].voltage, three.feeds[1].voltage);
    row("reciprocity of a horizontal and a vertical wire over soil", relative(at(three).feedCurrents[0], there));
    double worst = 0.0;
    std::vector<Complex> z;
    for (double h = 1e-3; h < 2.0; h *= 1.15)
        z.push_back(std::log(at(dipole(10, h, averageSoil, 1e-4)).impedance));
    for (std::size_t i = 2; i + 1 < z.size(); ++i)
        worst = std::max(worst, std::abs(z[i + 1] - 3.0 * z[i] + 3.0 * z[i - 1] - z[i - 2]));
    row("height from 1 mm to 2 m in steps of 15 %: largest third difference of ln Z", worst);
    worst = 0.0;
    z.clear();
    for (double sigma = 1e-4; sigma < 10.0; sigma *= 1.15)
        z.push_back(std::log(at(dipole(10, 2, {GroundKind::Real, 13.0, sigma})).impedance));
    for (std::size_t i = 2; i + 1 < z.size(); ++i)
        worst = std::max(worst, std::abs(z[i + 1] - 3.0 * z[i] + 3.0 * z[i - 1] - z[i - 2]));
    row("conductivity from 1e-4 to 10 S/m in steps of 15 %: the same", worst);
}

void spread(Page& page)
{
    constexpr std::size_t draws = 100;
    page.heading("How far it may be off");
    page.say(fmt::format(
        "A V for 40 m of jacketed wire, height, soil, cut, jacket and sides drawn at once {} times over each soil and solved, against "
        "what is told of the spread. kHz from the antenna as computed; 5, 50 and 95 % points. The draws fill each cause's "
        "spread evenly, in a random order.\n",
        draws));
    page.say("| soil | drawn | told | largest difference | of the width | SWR drawn | SWR told |\n|---|---|---|---|---|---|---|");
    unsigned seed = 11;
    for (const Soil& soil : fiveSoils()) {
        study::Library library;
        const study::SpreadQuestion asked = vOverSoil(soil);
        const auto told = study::spreadOf(library, asked);
        if (!told || !told->bands.front().dip)
            continue;
        const study::BandSpread& band = told->bands.front();
        const double middle = solvedOff(library, asked, {}).dip;
        std::vector<double> dips, lowest;
        for (const DrawnAntenna& d : evenDraws(library, asked, draws, seed++)) {
            dips.push_back(d.dip);
            lowest.push_back(d.lowestSwr);
        }
        const double parts[] = {0.05, 0.5, 0.95};
        std::string drawn, say, swrDrawn, swrTold;
        double worst = 0.0;
        for (std::size_t i = 0; i < 3; ++i) {
            const double is = pointOf(dips, parts[i]);
            worst = std::max(worst, std::abs(is - (*band.dip)[i]));
            drawn += fmt::format("{}{:+.1f}", i ? ", " : "", (is - middle) / 1e3);
            say += fmt::format("{}{:+.1f}", i ? ", " : "", ((*band.dip)[i] - middle) / 1e3);
            swrDrawn += fmt::format("{}{:.2f}", i ? ", " : "", pointOf(lowest, parts[i]));
            swrTold += fmt::format("{}{:.2f}", i ? ", " : "", band.lowestSwr[i]);
        }
        page.say(fmt::format("| {} | {} | {} | {:.1f} | {:.0f} % | {} | {} |", soil.name, drawn, say, worst / 1e3,
                             100.0 * worst / ((*band.dip)[2] - (*band.dip)[0]), swrDrawn, swrTold));
    }
}

struct TrimTally {
    int finished = 0, passed = 0;
    std::vector<double> cuts;
    [[nodiscard]] std::string words() const
    {
        double sum = 0.0;
        for (double c : cuts)
            sum += c;
        if (cuts.empty())
            return "none had a dip | | ";
        return fmt::format("{} of {} | {:.0f}, {:.1f}, {:.0f} | {}", finished, cuts.size(), pointOf(cuts, 0.5), sum / double(cuts.size()),
                           pointOf(cuts, 1.0), passed);
    }
};

TrimTally trimmed(const std::string& family, int times, bool ratio)
{
    study::Library library;
    std::mt19937 random(1127);
    TrimTally tally;
    for (int i = 0; i < times; ++i) {
        const TrimRun run = trimOne(family, random, library, ratio);
        if (!run.dip)
            continue; // nothing to be trimmed by: wires behind 9:1 over wet ground
        tally.finished += run.finished ? 1 : 0;
        tally.passed += run.passedMark ? 1 : 0;
        tally.cuts.push_back(run.cuts);
    }
    return tally;
}

/// Antennas by somebody who does as told, and as many of one length by the plain ratio of frequencies.
void trimming(Page& page)
{
    constexpr int each = 12;
    const std::vector<std::string> families = heldFamilies();
    page.heading("Trimming by the advice");
    page.say(fmt::format(
        "{} antennas of each of {} families, each with other soil, height and wire than its plan, its dip read within 0.04 %, brought to "
        "its "
        "goals by somebody who does what `trim` says. What hangs there is points of wire that are sawn, moved and scaled: it knows nothing "
        "of the family's parameters and levers, and its dip is looked for on a grid of its own. Beside it, for those of one length, the "
        "plain ratio of frequencies, nine tenths of it at once. What has no dip to be measured, pairs behind 9:1, is left out. Passed the "
        "mark: a cut went farther than it may be off (a quarter of the "
        "2:1 width, at most 0.5 %).\n",
        each, families.size()));
    page.say("| family | finished | cuts: median, mean, most | passed | by ratio: finished | median, mean, most | passed "
             "|\n|---|---|---|---|---|---|---|");
    for (const std::string& family : families) {
        Antenna plan;
        plan.shape = shapes::findFamily(family)->standardShape(14.15e6);
        page.say(fmt::format("| {} | {} | {} |", family, trimmed(family, each, false).words(),
                             trimTasks(plan).size() == 1 ? trimmed(family, each, true).words() : "| |"));
    }
}

void cost(Page& page)
{
    page.heading("How cost grows");
    page.say("One impedance over soil with the soil's table warm, on the machine that wrote this page.\n");
    const auto seconds = [](const WireModel& model, int& unknowns) {
        (void)at(model);
        const auto start = std::chrono::steady_clock::now();
        unknowns = at(model).mesh->unknowns;
        return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
    };
    Series wires{"straight wire", {}, {}, true}, radials{"radials", {}, {}, true};
    page.say("| wavelengths of wire | unknowns | ms |\n|---|---|---|");
    for (double n : {0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0}) {
        int unknowns = 0;
        const double t = seconds(fedWire({{0, 0, 3}, {n * lambda, 0, 3}}, 0.25 * lambda, averageSoil), unknowns);
        page.say(fmt::format("| {} | {} | {:.1f} |", n, unknowns, 1e3 * t));
        wires.x.push_back(n), wires.y.push_back(1e3 * t);
    }
    page.say("\n| radials, 2 cm above soil | unknowns | ms |\n|---|---|---|");
    for (int n : {2, 4, 8, 16, 32, 64, 120}) {
        WireModel model = fedWire({{0, 0, 0.02}, {0, 0, 0.02 + 0.24 * lambda}}, 0.0, averageSoil);
        for (int i = 0; i < n; ++i) {
            const double a = 2.0 * pi * i / n;
            model.wires.push_back(wire("r", {{0, 0, 0.02}, {0.25 * lambda * std::cos(a), 0.25 * lambda * std::sin(a), 0.02}}));
        }
        int unknowns = 0;
        const double t = seconds(model, unknowns);
        page.say(fmt::format("| {} | {} | {:.1f} |", n, unknowns, 1e3 * t));
        radials.x.push_back(n), radials.y.push_back(1e3 * t);
    }
    page.plot("cost-length", {"Time against length", "wavelengths of wire", "ms", {wires}, false});
    page.plot("cost-radials", {"Time against radials", "radials", "ms", {radials}, false});
}

/// The best of each of the six sites by trying everything, kept as data. @return the exit code
int winners(const std::string& folder)
{
    const std::string data = VETCHLING_SOURCE_DATA;
    const auto lines = files::readLineTypes(data + "/lines.json");
    nlohmann::ordered_json out;
    for (const char* name : {"hilltop", "long-strip", "one-tree", "park", "roof-only", "town-garden"}) {
        const auto design = files::readDesign(fmt::format("{}/sites/{}.vetchling", VETCHLING_TEST_DATA, name));
        if (!design || !lines)
            return 2;
        const Best best = bestByBruteForce(*design, *lines);
        fmt::print(stderr, "{}: {:.3f} of {} tried: {}\n", name, best.score, best.tried, fmt::join(best.antennas, " + "));
        out[name] = {{"score", best.score}, {"antennas", best.antennas}, {"tried", best.tried}};
    }
    std::ofstream(std::filesystem::path(folder) / "advice-best.json") << out.dump(1) << "\n";
    return 0;
}

} // namespace
} // namespace vetchling::testing

int main(int argc, char** argv)
{
    using namespace vetchling::testing;
    if (argc < 2) {
        fmt::print(stderr, "vetchling_validate FOLDER [trimming|advice]\n");
        return 2;
    }
    if (argc == 3 && std::string(argv[2]) == "advice")
        return winners(argv[1]);
    Page page(argv[1]);
    if (argc == 3 && std::string(argv[2]) == "trimming") { // by itself
        trimming(page);
        page.save();
        return 0;
    }
    page.say("# Validation\n\nWritten by `./dev validate`; nothing here is typed by hand. How it is computed: [theory.md](theory.md).");
    for (auto* section :
         {textbook, thickTubes, insulation, reference, buried, honesty, convergence, limits, terrain, spread, trimming, cost})
        section(page);
    page.save();
    return 0;
}

#include "core/workshop/templates.h"

#include "core/line/parts.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace vetchling {
namespace {

using shapes::WireEnd;

constexpr double spare = 1e-3, leastHole = 3e-3, widestHole = 7e-3; // m

/// To half a millimetre, as drills come.
double drill(double diameter) { return std::ceil(2000.0 * std::max(diameter, leastHole) - 1e-9) / 2000.0; }

/// Over its jacket, m: what is threaded through holes; rods are clamped.
double thinnest(const shapes::AntennaShape& shape)
{
    double least = shape.wire.diameter + 2.0 * shape.wire.jacket;
    for (const auto& [part, wire] : shape.partWires)
        least = std::min(least, wire.diameter + 2.0 * wire.jacket);
    return least;
}

bool has(const shapes::BuiltAntenna& built, WireEnd end)
{
    return std::any_of(built.sections.begin(), built.sections.end(), [&](const auto& s) { return s.first == end || s.last == end; });
}

Plate centrePlate(double wire)
{
    Plate p{coreText("core", "centre piece"), 1, 0.090, 0.070, {}};
    p.holes.push_back({0.045, 0.058, 8e-3, coreText("core", "halyard")});
    for (double side : {-1.0, 1.0}) {
        p.holes.push_back({0.045 + side * 0.033, 0.040, wire, coreText("core", "wire, in")});
        p.holes.push_back({0.045 + side * 0.033, 0.040 - 4.0 * wire, wire, coreText("core", "wire, back: takes the pull")});
        p.holes.push_back({0.045 + side * 0.014, 0.034, 4.5e-3, coreText("core", "screw for the lug")});
        p.holes.push_back({0.045 + side * 0.007, 0.010, 4e-3, coreText("core", "tie for the coax")});
    }
    return p;
}

/// A strip with two holes for each of two wires.
Plate strip(const char* name, int count, double between, double wire)
{
    const double edge = 3.0 * wire, pair = 3.5 * wire;
    Plate p{name, count, between + 2.0 * (pair + edge), std::max(8.0 * wire, 0.025), {}};
    const double middle = 0.5 * p.height;
    p.holes = {{edge, middle, wire, coreText("core", "wire, back: takes the pull")},
               {edge + pair, middle, wire, coreText("core", "wire, in")},
               {edge + pair + between, middle, wire, coreText("core", "wire, in")},
               {edge + 2.0 * pair + between, middle, wire, coreText("core", "wire, back: takes the pull")}};
    return p;
}

Plate endPlate(int count, double wire)
{
    Plate p{coreText("core", "end insulator"), count, 0.070, 0.025, {}};
    p.holes = {{3.0 * wire, 0.0125, wire, coreText("core", "wire")}, {0.058, 0.0125, 7e-3, coreText("core", "rope")}};
    return p;
}

Plate radialPlate(int radials)
{
    constexpr double side = 0.12;
    Plate p{coreText("core", "radial plate"), 1, side, side, {}};
    p.holes.push_back({0.5 * side, 0.5 * side, 16e-3, coreText("core", "socket of the feed")});
    for (int i = 0; i < radials; ++i) {
        const double angle = 2.0 * pi * i / radials;
        p.holes.push_back({0.5 * side + 0.046 * std::cos(angle), 0.5 * side + 0.046 * std::sin(angle), 5.5e-3,
                           coreText("core", "screw for a radial's lug")});
    }
    return p;
}

/// Lids of a pipe that a transformer or choke stands in: the socket below, terminals and a hook above, a hole for the water.
std::vector<Plate> housingCaps(double across, int terminals)
{
    const double middle = 0.5 * across;
    Plate lower{coreText("core", "round housing, lower cap"), 1, across, across, {}, true}, upper = lower;
    lower.holes = {{middle, middle, 16e-3, coreText("core", "socket of the feed")},
                   {middle, 0.18 * across, 4e-3, coreText("core", "lets water out")}};
    upper.name = coreText("core", "round housing, upper cap");
    upper.holes = {{middle, 0.82 * across, 6e-3, coreText("core", "hook or eye that takes the pull")}};
    for (int i = 0; i < terminals; ++i)
        upper.holes.push_back({middle + (terminals == 1 ? 0.0 : (i == 0 ? -1.0 : 1.0) * 0.27 * across), 0.42 * across, 5.5e-3,
                               coreText("core", "screw for the lug")});
    return {lower, upper};
}

} // namespace

std::vector<Plate> platesFor(const Antenna& antenna, const shapes::BuiltAntenna& built)
{
    std::vector<Plate> plates;
    const double wire = drill(thinnest(antenna.shape) + spare);
    if (wire <= widestHole && (has(built, WireEnd::Centre) || has(built, WireEnd::Transformer)))
        plates.push_back(centrePlate(wire));
    if (const int links = built.ends(WireEnd::Link) / 2; links > 0) {
        const double gap = shapes::familyOf(antenna.shape).value(antenna.shape, "link_gap_m");
        plates.push_back(strip(coreText("core", "link insulator"), links, std::clamp(gap, 0.02, 0.12), wire));
    }
    if (const double apart = shapes::familyOf(antenna.shape).value(antenna.shape, "spacing_m"); apart > 0.0 && apart <= 0.25)
        plates.push_back(strip(coreText("core", "spreader"), 1, apart, wire));
    if (const int insulators = built.ends(WireEnd::Insulator); insulators > 0 && wire <= widestHole)
        plates.push_back(endPlate(insulators, wire));
    for (const shapes::WireSection& s : built.sections)
        if (s.first == WireEnd::Joint && s.last == WireEnd::Insulator && s.pieces > 1)
            plates.push_back(radialPlate(std::clamp(s.pieces, 2, 32)));
    const std::vector<ChainPart> chain = wholeChain(antenna);
    if (has(built, WireEnd::Transformer) ||
        std::any_of(chain.begin(), chain.end(), [](const ChainPart& p) { return p.kind == part::choke || p.kind == part::transformer; })) {
        constexpr double pipe = 0.075; // m, a drain pipe's cap, which takes rings of 61 mm
        for (Plate& cap : housingCaps(pipe, has(built, WireEnd::Centre) ? 2 : 1))
            plates.push_back(std::move(cap));
    }
    return plates;
}

std::vector<std::vector<PlacedPlate>> placePlates(const std::vector<Plate>& plates, double width, double height)
{
    constexpr double words = 0.012, bar = 0.02; // m below each plate, and at the foot of the page
    std::vector<std::vector<PlacedPlate>> pages(1);
    double y = templateMargin;
    for (std::size_t i = 0; i < plates.size(); ++i) {
        if (y + plates[i].height + words > height - bar && !pages.back().empty()) {
            pages.emplace_back();
            y = templateMargin;
        }
        pages.back().push_back({i, std::max(templateMargin, 0.5 * (width - plates[i].width)), y});
        y += plates[i].height + words + templateMargin;
    }
    return pages;
}

std::vector<double> holeSizes(const Plate& plate)
{
    constexpr double tenth = 1e-4; // m
    std::set<long> sizes;
    for (const Hole& hole : plate.holes)
        sizes.insert(std::lround(hole.diameter / tenth));
    std::vector<double> out;
    for (long size : sizes)
        out.push_back(double(size) * tenth);
    return out;
}

std::string platesSvg(const std::vector<Plate>& plates, const std::string& title)
{
    double width = 0.1, height = 2.0 * templateMargin;
    for (const Plate& p : plates) {
        width = std::max(width, p.width + 2.0 * templateMargin);
        height += p.height + 2.0 * templateMargin;
    }
    height += 2.0 * templateMargin;
    const double w = 1e3 * width, h = 1e3 * height;
    std::string out =
        fmt::format("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0:.1f}mm\" "
                    "height=\"{1:.1f}mm\" viewBox=\"0 0 {0:.1f} {1:.1f}\">\n<title>{2}</title>\n"
                    "<g fill=\"none\" stroke=\"black\" stroke-width=\"0.25\" font-family=\"sans-serif\" font-size=\"3\">\n",
                    w, h, title);
    const auto words = [](double x, double y, const std::string& text) {
        return fmt::format("<text x=\"{:.2f}\" y=\"{:.2f}\" fill=\"black\" stroke=\"none\">{}</text>\n", x, y, text);
    };
    const std::vector<PlacedPlate> places = placePlates(plates, width, 10.0 + height).front();
    for (const PlacedPlate& placed : places) {
        const Plate& p = plates[placed.plate];
        const double x = 1e3 * placed.x, y = 1e3 * placed.y;
        if (p.round)
            out += fmt::format("<circle cx=\"{:.2f}\" cy=\"{:.2f}\" r=\"{:.2f}\"/>\n", x + 500.0 * p.width, y + 500.0 * p.height,
                               500.0 * p.width);
        else
            out += fmt::format("<rect x=\"{:.2f}\" y=\"{:.2f}\" width=\"{:.2f}\" height=\"{:.2f}\" rx=\"3\"/>\n", x, y, 1e3 * p.width,
                               1e3 * p.height);
        for (const Hole& hole : p.holes) {
            const double hx = x + 1e3 * hole.x, hy = y + 1e3 * (p.height - hole.y), r = 500.0 * hole.diameter;
            out += fmt::format(
                "<circle cx=\"{0:.2f}\" cy=\"{1:.2f}\" r=\"{2:.2f}\"/><path d=\"M{3:.2f} {1:.2f}H{4:.2f}M{0:.2f} {5:.2f}V{6:.2f}\"/>\n", hx,
                hy, r, hx - r - 1.0, hx + r + 1.0, hy - r - 1.0, hy + r + 1.0);
        }
        std::string sizes;
        for (double size : holeSizes(p))
            sizes += fmt::format("{}{:.1f}", sizes.empty() ? "" : ", ", 1e3 * size);
        out += words(x, y + 1e3 * p.height + 4.0,
                     fmt::format("{} x {}, {:.0f} x {:.0f} mm, holes {} mm", p.count, p.name, 1e3 * p.width, 1e3 * p.height, sizes));
    }
    const double foot = h - 8.0, left = 1e3 * templateMargin;
    out += fmt::format("<path d=\"M{0:.2f} {1:.2f}h{2:.2f}M{0:.2f} {3:.2f}v4M{4:.2f} {3:.2f}v4\"/>\n", left, foot, 1e3 * templateBar,
                       foot - 2.0, left + 1e3 * templateBar);
    out += words(left, foot + 5.0, "50 mm: measure this bar before drilling");
    return out + "</g>\n</svg>\n";
}

} // namespace vetchling

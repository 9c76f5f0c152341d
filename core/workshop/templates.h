#pragma once
/// Plates and caps to be drilled, at full size: centre piece, link, spreader, end insulator, radial plate, the lids of a round housing.

#include "core/design/design.h"

#include <string>
#include <vector>

namespace vetchling {

struct Hole {
    double x = 0.0, y = 0.0, diameter = 0.0; ///< m from the plate's lower left corner
    std::string use;                         ///< marked for translation
};

struct Plate {
    std::string name;                 ///< marked for translation
    int count = 1;                    ///< of this one
    double width = 0.0, height = 0.0; ///< m
    std::vector<Hole> holes;
    bool round = false; ///< a cap: as wide as high
};

/// The drills that a plate takes, m, to a tenth of a millimetre, thinnest first.
std::vector<double> holeSizes(const Plate& plate);

/// Holes take the wire with its jacket and a millimetre to spare; edges keep three hole diameters of material towards the pull.
std::vector<Plate> platesFor(const Antenna& antenna, const shapes::BuiltAntenna& built);

struct PlacedPlate {
    std::size_t plate = 0;
    double x = 0.0, y = 0.0; ///< m of its upper left corner on the page
};
inline constexpr double templateMargin = 0.012, templateBar = 0.05; ///< m
/// Plates one below the other on pages of a width and height, what has no room going onto the next page.
std::vector<std::vector<PlacedPlate>> placePlates(const std::vector<Plate>& plates, double width, double height);

/// One drawing of all plates at 1:1, in millimetres, with a bar of 50 mm to measure the print by.
std::string platesSvg(const std::vector<Plate>& plates, const std::string& title);

} // namespace vetchling

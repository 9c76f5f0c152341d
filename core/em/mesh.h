#pragma once
/// The mesh: straight elements with polynomial currents, made from a wire model for one frequency.
///
/// Current on an element, v = -1..1 along it: two end functions (1-v)/2, (1+v)/2 and bubbles
/// B_k = (P_k - P_(k-2))/(4k-2), k = 2..degree (P: Legendre). Continuity and Kirchhoff's law hold by construction:
/// at a joint of n element ends, n-1 unknowns flow from the first end into each of the others; at a free end the
/// current is zero; at an end on perfect ground it is free and flows into the image.

#include "core/wire/wire_model.h"

#include <array>
#include <vector>

namespace vetchling::em {

inline constexpr int largestDegree = 5;
inline constexpr double nearRatio = 0.9;   ///< pairs closer than this times the longer element take graded rules
inline constexpr double shortRatio = 0.25; ///< of length to distance, below which few nodes do

struct MeshOptions {
    int degree = 4; ///< of the current, 2 to largestDegree
    double elementsPerWavelength = 4.0;
    double meshFrequency = 0.0; ///< Hz: makes the mesh for this frequency instead, so that a sweep has one mesh
    double fineness = 1.0;      ///< finest elements are shorter by this, coarsest by its cube root
    double gapInRadii = 2.0;    ///< length of a feed or load, all of it
    bool symmetry = true;       ///< looks for elements that share their unknowns
};

struct Element {
    std::size_t wire = 0;
    double from = 0.0, to = 0.0; ///< m along its wire
    Vec3 start, end, tangent;
    double length = 0.0;
    double radius = 0.0, radiusSlope = 0.0; ///< m in the middle, and its change from there to the end of a tapered wire
    int coil = -1;                          ///< the load whose turns it is part of; none: -1
    bool inSoil = false;                    ///< below the surface of real soil; no element passes it

    [[nodiscard]] Vec3 centre() const { return 0.5 * (start + end); }
    [[nodiscard]] double radiusAt(double v) const { return radius + radiusSlope * v; }
    /// Point at v = -1..1.
    [[nodiscard]] Vec3 at(double v) const { return centre() + (0.5 * length * v) * tangent; }
};

/// The same element under the ground plane.
Element mirroredElement(Element e);

/// One local function of one element and its share of an unknown.
struct Share {
    int unknown;
    int function; ///< 0: (1-v)/2, 1: (1+v)/2, k: B_k
    double factor;
};

/// A feed or load as seen by the mesh: its current is the sum of unknowns times factors. It is the mean over a gap of two
/// radii, the length along which the voltage is applied too: a gap of no length has no impedance to settle to, its
/// capacitance grows with the logarithm of the finest element (King 1956, ch. II). One radius of it lies on either side; where more
/// than two wires meet and on the ground there is the side of its own wire alone.
using PortRow = std::vector<std::pair<int, double>>;

struct Mesh {
    double frequency = 0.0;
    int degree = 3;
    int unknowns = 0;             ///< in order of degree: joints and ends first, then B_2 of all elements, B_3 ...
    std::vector<int> levelStarts; ///< first unknown of degree 1, 2, ... degree
    std::vector<Element> elements;
    std::vector<std::vector<Share>> shares;      ///< by element; several elements may share an unknown
    std::vector<PortRow> feeds, loads;           ///< in the order of the model; empty for a coil that has a length
    std::vector<PortRow> widerFeeds, widerLoads; ///< the same over twice the gap, to judge what it matters
    std::vector<std::array<PortRow, 2>> lines;   ///< both ends; a stub's second is empty

    std::vector<int> orbit; ///< by element, of those that carry equal currents and share unknowns (symmetry.h); empty: none do

    [[nodiscard]] bool reachesSoil() const;
};

/// Legendre polynomials P_0..P_degree at x.
void legendre(double x, int degree, double* out);
/// The local current functions 0..degree at v.
void localCurrents(double v, int degree, double* out);
/// Their derivatives by v.
void localSlopes(double v, int degree, double* out);
/// Current at v = -1..1 of an element from its local coefficients, function 0..degree.
Complex currentOn(int degree, const std::vector<Complex>& local, double v);

/// Its derivative by v.
Complex currentSlopeOn(int degree, const std::vector<Complex>& local, double v);

/// The model must have no faults. Elements are graded geometrically towards ends, feeds, loads, bends and joints, and
/// divided where a wire passes the surface of real soil; their length follows the wave in their medium.
Mesh makeMesh(const WireModel& model, double frequency, const MeshOptions& options = {});

/// The same mesh on the same wires a little changed: elements keep their places between vertices, feeds and loads.
/// @return no elements if the two models do not have the same wires with as many points, feeds and loads
Mesh movedMesh(const Mesh& mesh, const WireModel& from, const WireModel& to);

} // namespace vetchling::em

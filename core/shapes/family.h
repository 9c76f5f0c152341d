#pragma once
/// Antenna families: from a few parameters to wires, feeds and loads in site coordinates, and to a first length.
/// A family is one .cpp file and one line in registry.cpp.

#include "core/result.h"
#include "core/units/units.h"
#include "core/wire/wire_model.h"

#include <map>
#include <string>
#include <vector>

namespace vetchling::shapes {

/// Values by key, SI, angles in degrees; keys end in their unit, e.g. "apex_height_m".
using Parameters = std::map<std::string, double>;

struct ParameterSpec {
    std::string key, label, group;
    units::Quantity quantity = units::Quantity::Length;
    double standard = 0.0, lowest = 0.0, highest = 0.0;
    std::vector<std::string> choices; ///< words for 0, 1, 2 ...; empty for a number
    std::string help;
};

/// A metal, with another one on its outside if it is coated.
struct Metal {
    double conductivity = 5.8e7; ///< S/m
    double relativePermeability = 1.0;
    std::optional<Coating> coating;   ///< its thickness is 0 where it grows with the wire:
    double coatingPartOfRadius = 0.0; ///< cladding of so much of the radius
    friend bool operator==(const Metal&, const Metal&) = default;
};

/// Conductor and jacket of all wires of an antenna.
struct WireChoice {
    std::string conductor = "copper"; ///< id in data/conductors.json
    Metal metal;
    double diameter = 2e-3; ///< m, of the metal
    double jacket = 0.0;    ///< m, thickness of the insulation; 0: bare
    double jacketPermittivity = 3.0;
    double jacketLossTangent = 0.0;
    friend bool operator==(const WireChoice&, const WireChoice&) = default;
};

/// What defines an antenna electrically, apart from its site.
struct AntennaShape {
    std::string family;
    Parameters parameters;
    WireChoice wire;
    double designFrequency = 7.1e6; ///< Hz
    friend bool operator==(const AntennaShape&, const AntennaShape&) = default;
};

/// A point that can be dragged; it moves when any of its parameters changes.
struct Handle {
    std::string name; ///< "apex", "end"
    Vec3 at;
    std::vector<std::string> parameters;
};

/// A dimension line between two points; the label is the distance.
struct Dimension {
    Vec3 from, to;
    std::string parameter;
};

/// A length of wire as cut: how many equal pieces, how long they are electrically, and what happens at each end.
enum class WireEnd { Centre, Insulator, Joint, Coil, Transformer };
struct WireSection {
    std::string name;
    int pieces = 1;
    double length = 0.0; ///< m, radiating
    WireEnd first = WireEnd::Centre, last = WireEnd::Insulator;
};

struct BuiltAntenna {
    WireModel model; ///< free space; the ground is put in by the caller
    std::vector<Handle> handles;
    std::vector<Dimension> dimensions;
    std::vector<WireSection> sections;
    Vec3 feedPoint;
    std::vector<Vec3> coils, insulators;
    bool highVoltageFeed = false;
};

/// A handed-down constant over the frequency.
struct RuleOfThumb {
    std::string name, assumption;
    double feetMegahertz = 0.0; ///< constant in ft MHz for `length`; 0 where the rule is no such constant
    double metreMegahertz = 0.0;
    double value = 0.0; ///< of the tuned parameter, SI
};

class Family {
public:
    virtual ~Family() = default;
    [[nodiscard]] virtual std::string id() const = 0;
    [[nodiscard]] virtual std::string title() const = 0;
    [[nodiscard]] virtual std::string summary() const = 0;
    [[nodiscard]] virtual std::vector<ParameterSpec> parameters() const = 0;
    /// The parameter a length search changes first, and its name in a sentence ("a side").
    [[nodiscard]] virtual std::string tunedParameter() const = 0;
    [[nodiscard]] virtual std::string tunedName() const = 0;
    /// First values by rule of thumb, the customary one first. @param frequency Hz
    [[nodiscard]] virtual std::vector<RuleOfThumb> rules(const AntennaShape& shape, double frequency) const = 0;
    /// Wires in site coordinates, or what is impossible with the key of the parameter to change.
    [[nodiscard]] virtual Result<BuiltAntenna> build(const AntennaShape& shape) const = 0;
    /// Builders trim this family by cutting the same from each of so many wire ends.
    [[nodiscard]] virtual int trimmedEnds() const { return 2; }

    /// The parameter's value, or its standard one.
    [[nodiscard]] double value(const AntennaShape& shape, const std::string& key) const;
    [[nodiscard]] const ParameterSpec* spec(const std::string& key) const;
    /// A shape with standard values, its tuned parameter from the rule of thumb.
    [[nodiscard]] AntennaShape standardShape(double frequency) const;

private:
    [[nodiscard]] const std::vector<ParameterSpec>& cachedParameters() const;
    mutable std::vector<ParameterSpec> m_parameters;
};

/// All families, in the order they are offered.
const std::vector<const Family*>& families();
/// Null if there is none of that id.
const Family* findFamily(const std::string& id);

/// Checks the parameters against their limits, builds, puts in the ground and checks the wires.
Result<BuiltAntenna> buildOver(const AntennaShape& shape, const Ground& ground);

/// Horizontal unit vector of a compass bearing, degrees.
Vec3 towards(double bearing);
/// A wire of the chosen material.
Wire makeWire(const WireChoice& choice, std::string id, std::vector<Vec3> points);
/// Specs of the position parameters every family has.
std::vector<ParameterSpec> placeParameters();
/// A transformer at the feed; none where it would change nothing. The loss, into 50 ohm on its line side, is all in the core.
/// @param winding, leakage H on the line's side; 0: not counted
std::optional<Transformer> transformer(double ratio, double lossPercent = 0.0, double winding = 0.0, double leakage = 0.0);

/// A family has one static instance, named here and listed in registry.cpp.
const Family& dipoleFamily();
const Family& endFedFamily();
const Family& verticalFamily();
const Family& deltaLoopFamily();
const Family& loadedDipoleFamily();

} // namespace vetchling::shapes

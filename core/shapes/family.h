#pragma once
/// Antenna families: from a few parameters to wires, feeds and loads in site coordinates, and to a first length.
/// A family is one .cpp file and one line in registry.cpp; nothing outside this room knows any one of them by name.

#include "core/id.h"
#include "core/line/transformer.h"
#include "core/result.h"
#include "core/units/units.h"
#include "core/wire/wire_model.h"

#include <map>
#include <mutex>
#include <string>
#include <vector>

namespace vetchling::shapes {

/// Values by key, SI, angles in degrees; keys end in their unit, e.g. "apex_height_m".
using Parameters = std::map<std::string, double>;

/// Texts are English, marked for translation with coreText.
struct ParameterSpec {
    std::string key, label, group;
    units::Quantity quantity = units::Quantity::Length;
    double standard = 0.0, lowest = 0.0, highest = 0.0;
    std::vector<std::string> choices; ///< words for 0, 1, 2 ...; empty for a number
    std::string help;
    double scaled = 0.0; ///< standard as a part of the wavelength, of a frequency as a multiple of the design's; 0: `standard`
};

/// Groups of parameters that several families share.
inline constexpr const char *hangsGroup = coreText("core", "Where it hangs"), *standsGroup = coreText("core", "Where it stands"),
                            *lengthGroup = coreText("core", "Length"), *feedGroup = coreText("core", "Feed"),
                            *coilsGroup = coreText("core", "Coils");

/// A metal, with another one on its outside if it is coated.
struct Metal {
    double conductivity = 5.8e7; ///< S/m
    double relativePermeability = 1.0;
    std::optional<Coating> coating;   ///< its thickness is 0 where it grows with the wire:
    double coatingPartOfRadius = 0.0; ///< cladding of so much of the radius
    KeptFields kept;                  ///< of the coating
    friend bool operator==(const Metal&, const Metal&) = default;
};

/// Conductor and jacket of a wire.
struct WireChoice {
    std::string conductor = "copper"; ///< id in data/conductors.json
    Metal metal;
    double diameter = 2e-3; ///< m, of the metal
    double jacket = 0.0;    ///< m, thickness of the insulation; 0: bare
    double jacketPermittivity = 3.0;
    double jacketLossTangent = 0.0;
    KeptFields kept;
    friend bool operator==(const WireChoice&, const WireChoice&) = default;
};

/// What defines an antenna electrically, apart from its site.
/// The outside of the feed line from the feedpoint to the first choke.
struct ShieldRun {
    double length = 0.0;     ///< m; 0: neither choke nor line is drawn
    bool toChoke = false;    ///< else to the radio
    std::vector<Vec3> route; ///< m, corners on the ground, to the entry; empty: away from the antenna
    friend bool operator==(const ShieldRun&, const ShieldRun&) = default;
};

struct AntennaShape {
    std::string family;
    Parameters parameters;
    WireChoice wire;
    std::map<std::string, WireChoice> partWires; ///< by part, where it is not `wire`
    double designFrequency = 7.1e6;              ///< Hz
    std::vector<ChainPart> feedpoint = {};       ///< fixed parts between its own feed and the line; see settleFeed
    ShieldRun shield = {};                       ///< where the return current flows in it; see settleFeed
    friend bool operator==(const AntennaShape&, const AntennaShape&) = default;
};

/// A part that may have a wire or tube of its own.
struct Part {
    std::string id, name; ///< "radials"
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
enum class WireEnd { Centre, Insulator, Joint, Coil, Transformer, Link, Tube, Bare }; ///< Bare: ends in the soil as it is cut
struct WireSection {
    std::string name;
    int pieces = 1;
    double length = 0.0; ///< m, radiating
    WireEnd first = WireEnd::Centre, last = WireEnd::Insulator;
    bool trimmed = true;   ///< whether it is cut long, to be trimmed
    double overlap = 0.0;  ///< m more of it, in the tube before
    double diameter = 0.0; ///< m; 0: of the wire
};

/// A coil's place and the direction of the wire through it.
struct CoilPlace {
    Vec3 at, along;
};

/// A link between two sections, and the direction of the wire through it.
struct LinkPlace {
    Vec3 at, along;
    bool open = false;
};

struct BuiltAntenna {
    WireModel model;                        ///< at the antenna's own port; free space, the ground is put in by the caller
    std::optional<Transformer> transformer; ///< between the port and the line
    double portReference = 50.0;            ///< ohm that the port is near where the antenna is used
    std::vector<Handle> handles;
    std::vector<Dimension> dimensions;
    std::vector<WireSection> sections;
    double notCut = 0.0;                   ///< m of the model's wires that are there already: a vehicle's body, a coax's shield
    std::optional<std::size_t> shieldWire; ///< the wire that is the feed line's outside, from the feedpoint on; nothing: it is not counted
    Vec3 feedPoint;
    std::vector<CoilPlace> coils, traps, resistors;
    std::vector<Vec3> insulators;
    std::vector<LinkPlace> links;
    bool highVoltageFeed = false;

    /// Ends of this kind on all pieces.
    [[nodiscard]] int ends(WireEnd end) const;
    /// The model with the transformer at its feed: what the line sees.
    [[nodiscard]] WireModel atLine() const;
    /// Impedance at the line for one at the port, ohm.
    [[nodiscard]] Complex atLine(Complex port, double frequency) const { return transformer ? transformer->atLine(port, frequency) : port; }
};

/// Where something is to be tied: a place in plan, m, and how high what stands there reaches, if it is a support.
struct Hook {
    double x = 0.0, y = 0.0;
    std::optional<double> top;
    bool alone = false; ///< what is opposite stays, being tied itself
};

/// A handed-down constant over the frequency.
struct RuleOfThumb {
    std::string name, assumption;
    double feetMegahertz = 0.0; ///< constant in ft MHz for `length`; 0 where the rule is no such constant
    double metreMegahertz = 0.0;
    double value = 0.0; ///< of the tuned parameter, SI
};

enum class TuneGoal { Resonance, LowestSwr };

/// A length (or coil) that makes the antenna work on a frequency.
struct TunedLength {
    std::string parameter;
    std::string name;              ///< in a sentence: "a side"
    double frequency = 0.0;        ///< Hz
    std::size_t configuration = 0; ///< that it is tuned in
};

/// What a builder can change on the finished antenna.
enum class LeverKind { Cut, Slide, Angle, Tap }; ///< only a cut cannot be undone
enum class LeverSide { OpenEnd, Middle, Feed };  ///< from which side of the wire
struct Lever {
    std::string parameter;
    std::string name; ///< in a sentence: "each side"
    LeverKind kind = LeverKind::Cut;
    LeverSide side = LeverSide::OpenEnd;
    int pieces = 1; ///< changed alike
};

/// A dimension that is free, and the one that is solved for it so that the antenna stays resonant.
struct Trade {
    std::string free, solved;
};

/// The multiples of its lowest resonance at which an antenna is near its customary impedance again: odd ones where it is fed in a
/// maximum of the current, all of them where it is fed at an end or closed to a loop.
enum class Multiples { Odd, All };

/// What carries an antenna: supports that it hangs from, a mast that it is mounted on and turns with, a tripod or stake under an upright,
/// a vehicle.
enum class Carrier { Hung, Mast, Tripod, Vehicle };

/// One of the states an antenna can be put in, innermost first: links open or closed, a telescope's setting.
struct Configuration {
    std::string name;
    double frequency = 0.0; ///< Hz it is for
};

class Family {
public:
    virtual ~Family() = default;
    [[nodiscard]] virtual std::string id() const = 0;
    [[nodiscard]] virtual std::string title() const = 0;
    [[nodiscard]] virtual std::string summary() const = 0;
    /// They follow from the shape: a fan of three pairs has three lengths.
    [[nodiscard]] virtual std::vector<ParameterSpec> parameters(const AntennaShape& shape) const = 0;
    /// What decides which parameters there are; shapes of one layout share their specs.
    [[nodiscard]] virtual std::string layout(const AntennaShape&) const { return {}; }
    /// The lengths that are tuned, in the order in which they are; the first one is for the design frequency.
    [[nodiscard]] virtual std::vector<TunedLength> tuned(const AntennaShape& shape) const = 0;
    [[nodiscard]] virtual TuneGoal usualGoal() const { return TuneGoal::Resonance; }
    /// First values of a tuned length by rule of thumb, the customary one first.
    [[nodiscard]] virtual std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const = 0;
    /// Wires in site coordinates, or what is impossible with the key of the parameter to change.
    [[nodiscard]] virtual Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t configuration) const = 0;
    /// What trimming changes, the customary one first.
    [[nodiscard]] virtual std::vector<Lever> levers(const AntennaShape& shape) const = 0;
    /// The shape with a lever's parameter at another value, all else staying where it is built: what is told as a part of a length keeps
    /// its metres, and what is taken in the middle takes what is beyond along.
    [[nodiscard]] virtual AntennaShape levered(const AntennaShape& shape, const std::string& key, double value) const;
    /// Takes what is left to make a new antenna's dimensions sensible together, once its lengths are there.
    virtual void settle(AntennaShape&) const {}
    /// The shape with a handle (by its place among the built antenna's) brought to a hook: an end turns there, anything else takes the
    /// whole along; heights follow where the hook has a top, and lengths stay. What a wire does not reach is left to a rope in its line.
    [[nodiscard]] virtual AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const;
    /// The handle that the highest support is for, as `hung` counts them; nothing for what stands by itself.
    [[nodiscard]] virtual std::optional<std::size_t> hangsBy(const AntennaShape&) const { return 0; }
    /// Hung by its ends between two supports, for what is made to; the higher or first-named end comes first. Lengths stay.
    [[nodiscard]] virtual std::optional<AntennaShape> between(const AntennaShape&, const Hook&, const Hook&) const { return std::nullopt; }
    /// The same lengths without bends, slopes and dropped ends, as the rules of thumb take them.
    [[nodiscard]] virtual AntennaShape straightened(const AntennaShape& shape) const { return shape; }
    /// The shape in words, where its figures alone hardly tell it; a sentence each.
    [[nodiscard]] virtual std::vector<Text> remarks(const AntennaShape&) const { return {}; }
    /// What can be traded against one another in a shortened antenna, the customary pair first.
    [[nodiscard]] virtual std::vector<Trade> trades() const { return {}; }
    /// Whether it can be proposed for a site: what is drawn by hand, or stands on a vehicle, is one's own idea.
    [[nodiscard]] virtual bool isForSites() const { return true; }
    [[nodiscard]] virtual Carrier carrier() const { return Carrier::Hung; }
    /// It is cut for no band in particular: a tuner makes its matter.
    [[nodiscard]] virtual bool isForAnyBand() const { return false; }
    /// Of what works on several bands: whether it is made for two such ones together, Hz, rising.
    [[nodiscard]] virtual bool suits(double /*low*/, double /*high*/) const { return true; }
    /// Where it works again as a rule.
    [[nodiscard]] virtual Multiples multiples() const { return Multiples::Odd; }
    /// The same wire in the same place fed from its other end, or, fed between its ends, with these changed over; nothing where that is
    /// nothing new, or would be another antenna.
    [[nodiscard]] virtual std::optional<AntennaShape> flipped(const AntennaShape&) const { return std::nullopt; }
    /// Whether a parameter adds, moves or removes corners of a wire whose ends stay where they are tied.
    [[nodiscard]] virtual bool shapesCorners(const std::string&) const { return false; }
    /// What corners begin with that were not there before: the wire goes on through them as it was. @param next as typed
    virtual void beginCorners(const AntennaShape&, AntennaShape& /*next*/) const {}
    /// One more corner: in the piece that runs through a point, or with a new last piece up to it where none does.
    [[nodiscard]] virtual std::optional<AntennaShape> withCorner(const AntennaShape&, Vec3) const { return std::nullopt; }
    /// The same wire made to work on one band below its own as well, by a coil and a tail at its far end; first values, to be tuned.
    [[nodiscard]] virtual std::optional<AntennaShape> withLowerBand(const AntennaShape&, double) const { return std::nullopt; }
    /// Without the corner that a handle stands for.
    [[nodiscard]] virtual std::optional<AntennaShape> withoutCorner(const AntennaShape&, std::size_t) const { return std::nullopt; }
    /// At least one.
    [[nodiscard]] virtual std::vector<Configuration> configurations(const AntennaShape& shape) const
    {
        return {{{}, shape.designFrequency}};
    }
    [[nodiscard]] virtual std::vector<Part> parts() const { return {{"wire", coreText("core", "Wire")}}; }

    /// The parameter's value, or its standard one.
    [[nodiscard]] double value(const AntennaShape& shape, const std::string& key) const;
    /// Null if a shape of this layout has no such parameter.
    [[nodiscard]] const ParameterSpec* spec(const AntennaShape& shape, const std::string& key) const;
    /// All of them, remembered by layout.
    [[nodiscard]] const std::vector<ParameterSpec>& specs(const AntennaShape& shape) const;
    /// A shape with standard values, its tuned lengths from the rules of thumb.
    [[nodiscard]] AntennaShape standardShape(double frequency) const;
    /// The first tuned length's customary rule.
    [[nodiscard]] double ruleValue(const AntennaShape& shape) const;

private:
    mutable std::mutex m_mutex;
    mutable std::map<std::string, std::vector<ParameterSpec>> m_specs;
};

/// All families, in the order they are offered.
const std::vector<const Family*>& families();
/// Null if there is none of that id.
const Family* findFamily(const std::string& id);
/// The shape's family; one that has no parameters and cannot be built where this program does not know it.
const Family& familyOf(const AntennaShape& shape);

/// Checks the parameters against their limits, builds, puts in the ground and checks the wires.
Result<BuiltAntenna> buildOver(const AntennaShape& shape, const Ground& ground, std::size_t configuration = 0);

/// What a configuration is for, Hz; the design frequency where there is no such configuration.
double frequencyOf(const AntennaShape& shape, std::size_t configuration);

/// Horizontal unit vector of a compass bearing, degrees.
Vec3 towards(double bearing);
/// Compass bearing of a horizontal direction, degrees from 0 to 360.
double bearingTowards(double east, double north);
/// Height of the end of a wire of some length that is pulled from a point towards a hook's top, `away` m off in plan: on the straight line
/// there; the top itself where the wire is longer than that.
double ropeHeight(double fromHeight, double away, double top, double length);
/// The wire of a part.
const WireChoice& wireOf(const AntennaShape& shape, const std::string& part);
/// A wire of the chosen material.
Wire makeWire(const WireChoice& choice, std::string id, std::vector<Vec3> points);
/// Adds the position parameters every family has.
void addPlace(std::vector<ParameterSpec>& specs);
/// A transformer at the feed; none where it would change nothing. The loss, into 50 ohm on its line side, is all in the core.
/// @param winding, leakage H on the line's side; 0: not counted @param capacitor F across the line's terminals
std::optional<Transformer> transformer(double ratio, double lossPercent = 0.0, double winding = 0.0, double leakage = 0.0,
                                       double capacitor = 0.0);
/// The antenna's own line, with a transformer at its lower end where the ratio is not 1.
std::optional<Transformer> ownLine(const OwnLine& line, double ratio = 1.0);
/// The ratio of a transformer at the feed, "transformer_ratio".
ParameterSpec transformerRatio(double standard, double highest = 20.0);
/// The customary rules of a full-wave loop, as the wire round it.
std::vector<RuleOfThumb> loopRules(double frequency);
/// A constant in ft MHz over the frequency, `part` of it being the tuned parameter.
RuleOfThumb feetRule(std::string name, std::string assumption, double feetMegahertz, double part, double frequency);

/// A family has one static instance, named here and listed in registry.cpp.
const Family& dipoleFamily();
const Family& bentDipoleFamily();
const Family& offCentreDipoleFamily();
const Family& foldedDipoleFamily();
const Family& endFedFamily();
const Family& verticalFamily();
const Family& deltaLoopFamily();
const Family& polygonLoopFamily();
const Family& loadedDipoleFamily();
const Family& fanDipoleFamily();
const Family& linkedDipoleFamily();
const Family& extendedDipoleFamily();
const Family& tubeDipoleFamily();
const Family& whipPairFamily();
const Family& rodDipoleFamily();
const Family& trapDipoleFamily();
const Family& hatDipoleFamily();
const Family& linearLoadedDipoleFamily();
const Family& doubletFamily();
const Family& linkedEndFedFamily();
const Family& endFedTailFamily();
const Family& endFedPairFamily();
const Family& longWireFamily();
const Family& terminatedWireFamily();
const Family& longVFamily();
const Family& whipFamily();
const Family& loadedVerticalFamily();
const Family& invertedLFamily();
const Family& tVerticalFamily();
const Family& halfWaveVerticalFamily();
const Family& fiveEighthsFamily();
const Family& threeQuartersFamily();
const Family& nonResonantVerticalFamily();
const Family& stubVerticalFamily();
const Family& twoBandWhipFamily();
const Family& trapVerticalFamily();
const Family& mobileWhipFamily();
const Family& freeWireFamily();

} // namespace vetchling::shapes

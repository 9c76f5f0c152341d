#pragma once
/// The document as values: one site, the wanted operation, and any number of antennas, each with a stable id.
/// Nothing here reads or writes files, and nothing is referred to by its place in a list.

#include "core/bands/bands.h"
#include "core/bands/served.h"
#include "core/design/feed.h"
#include "core/design/file_damage.h"
#include "core/design/measurement.h"
#include "core/design/tolerances.h"
#include "core/design/variant.h"
#include "core/design/winding.h"
#include "core/design/workshop.h"
#include "core/id.h"
#include "core/shapes/family.h"
#include "core/site/site.h"
#include "core/units/units.h"

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace vetchling {

/// Wire that does not radiate but has to be cut.
struct Allowances {
    double centre = 0.06;       ///< m taken by the loop round the centre piece or transformer terminal, each end there
    double fold = 0.30;         ///< m folded back at an insulator
    double coilTail = 0.04;     ///< m into a coil's terminal
    double jointTail = 0.05;    ///< m soldered at a joint
    double linkTail = 0.06;     ///< m round a link's insulator, each side
    double pigtail = 0.08;      ///< m on each side of a link, part of the path
    double mount = 0.0;         ///< m of a rod or tube inside its mount or connector, beyond the path
    double marginPercent = 1.4; ///< cut long by, of the radiating length
    KeptFields kept;
    friend bool operator==(const Allowances&, const Allowances&) = default;
};

/// An antenna as it was at some moment, kept under a name: a milestone to go back to.
struct StoredCopy {
    Id id;
    std::string name, when; ///< when: ISO 8601, local
    shapes::AntennaShape shape;
    TypedTexts typed;
    KeptFields kept, keptParameters, keptTyped;
    friend bool operator==(const StoredCopy&, const StoredCopy&) = default;
};

/// A length that expressions may name: "side", and the fields that say `=side/2` follow it.
struct NamedLength {
    std::string name;
    double length = 0.0; ///< m
    std::string typed;   ///< what was written for it
    KeptFields kept;
    friend bool operator==(const NamedLength&, const NamedLength&) = default;
};

/// What stands round an antenna and is counted in.
struct Surroundings {
    enum class Feed { Open, Terminated };
    bool metal = false;          ///< supports of metal
    bool coax = false;           ///< the shield of its own feed line, along its route
    std::map<Id, Feed> antennas; ///< other antennas that are up, and what their feed ends in
    friend bool operator==(const Surroundings&, const Surroundings&) = default;
};

/// Lengths chosen for several bands together, which tuning to one frequency would give up.
struct Compromise {
    enum class From {
        Map,
        Shift,
        Finder,
        Joint
    } from = From::Map;         ///< the length map, shifted harmonics, the wire finder, tuning of several
    shapes::Parameters lengths; ///< what is tuned, as it was then
    friend bool operator==(const Compromise&, const Compromise&) = default;
};

struct Antenna {
    Id id;
    std::string name;
    shapes::AntennaShape shape;
    TypedTexts typed;
    std::vector<NamedLength> named;
    Allowances allowances;
    TrimLog trim;
    bool tuneForLowestSwr = false; ///< else for resonance
    std::string notes;
    std::vector<std::string> pictures; ///< paths
    std::vector<StoredCopy> copies;    ///< oldest first
    std::vector<Variant> variants;
    std::optional<Compromise> compromise;
    std::optional<Soil> soil; ///< where it is another one than the site's
    Surroundings surroundings;
    FeedChains feed;
    Winding winding;   ///< of its coils
    Workshop workshop; ///< what was done and chosen at the bench
    KeptFields kept, keptParameters, keptTyped;
    friend bool operator==(const Antenna&, const Antenna&) = default;
};

struct Operation {
    std::string bandPlan = "itu-r1"; ///< id of the plan the bands came from
    std::vector<WantedBand> bands;   ///< all bands on show, in rising order, with their wish
    double swrLimit = 2.0;
    double lossLimit = 3.0;           ///< dB of a chain, mismatch included, up to which a band counts as served
    double foldbackSwr = 2.0;         ///< from here on the radio lowers its power; 0: it does not
    double reference = 50.0;          ///< ohm that the SWR is told against
    Id favourite;                     ///< band that comes first where all cannot be had; may be empty
    double aimElevation = 20.0;       ///< degrees, where the signal is to go
    std::optional<double> aimBearing; ///< degrees; nothing: wherever it is strongest at that angle
    double aimSector = 0.0;           ///< degrees of bearings round the aim that gain is averaged over; 0: towards the aim alone
    Against against;                  ///< what the net gain is held against
    double power = 100.0;             ///< W
    Tolerances tolerances;
    units::System system = units::System::Metric;
    KeptFields kept;
    friend bool operator==(const Operation&, const Operation&) = default;
};

struct Design {
    Site site;
    Operation operation;
    std::vector<Antenna> antennas;
    KeptFields kept;
    std::shared_ptr<const FileDamage> damage; ///< of the file it was read from; null: none
    friend bool operator==(const Design&, const Design&) = default;
};

/// What a band is judged by.
ServedRule servedRule(const Operation& operation);

/// What an antenna stands on: its own soil, else the site's.
const Soil& soilUnder(const Design& design, const Antenna& antenna);
Ground groundUnder(const Design& design, const Antenna& antenna);

/// A new antenna of a family's standard dimensions, named after it; hung from the site's tallest support, else in the middle of the site.
Antenna newAntenna(const shapes::Family& family, double frequency, const Site& site = {});

/// Null if there is none of that id.
const Antenna* findAntenna(const Design& design, const Id& id);
Antenna* findAntenna(Design& design, const Id& id);
const WantedBand* findBand(const Design& design, const Id& id);
WantedBand* findBand(Design& design, const Id& id);
/// "40 m", "40 m and 10 m", "40 m, 15 m and 10 m".
std::string bandNames(const Design& design, const std::vector<Id>& bands);
Support* findSupport(Design& design, const Id& id);
const Support* findSupport(const Design& design, const Id& id);
Building* findBuilding(Design& design, const Id& id);
const Building* findBuilding(const Design& design, const Id& id);
Water* findWater(Design& design, const Id& id);
const Water* findWater(const Design& design, const Id& id);

/// Another shape for an antenna; what was typed for the values that change is forgotten.
void takeShape(Antenna& antenna, const shapes::AntennaShape& shape);
/// Its tuned lengths, as they are, suit several bands together.
void agree(Antenna& antenna, Compromise::From from);
/// Null where none was taken, or a length was changed since.
const Compromise* compromiseOf(const Antenna& antenna);
/// Changes a support, and takes along what is tied to it (shapes::carried).
void changeSupport(Design& design, const Id& support, const std::function<void(Support&)>& change);

/// Place in the list, for what is drawn in rows; -1 if there is none of that id.
int indexOfAntenna(const Design& design, const Id& id);
int indexOfBand(const Design& design, const Id& id);

/// The band that an antenna for this frequency is judged on: the one that holds it, else the first wanted one; empty without bands.
Id bandFor(const Design& design, double frequency);

/// The name, or the same with the next free number: "pole", "pole 2"; "Tower V 40 (2)" where a number belongs to the name.
std::string freeName(const std::string& wanted, const std::vector<std::string>& taken);
/// Names in use, but for one thing's own.
std::vector<std::string> antennaNames(const Design& design, const Id& except = {});
std::vector<std::string> siteNames(const Site& site, const Id& except = {});

/// Gives an id to everything that has none or shares one. After reading a file: by kind and place ("antenna-2"), so that an old
/// file's things are called the same each time it is opened.
void nameThings(Design& design);
/// The same with new ids, for what an edit brought in.
void nameNewThings(Design& design);

/// Sets a parameter and keeps what was typed for it. One more pair or link than before changes what all the others do: then the state
/// before is kept as a copy, once.
/// @param when as for a copy
void setParameter(Antenna& antenna, const std::string& key, double value, const std::string& typed, const std::string& when);
/// Further lengths (a pair of a fan, a link) are for bands: the next one that is wished for, beyond those the antenna has in the direction
/// that its family adds them, else the next one on show; with their lengths by rule. Without one they stay as they are.
/// @param isNew whether a parameter is one of them
void takeBands(shapes::AntennaShape& shape, const std::vector<WantedBand>& bands, const std::function<bool(const std::string& key)>& isNew);
/// What follows from a value typed for a parameter: further lengths it brought along take bands, as above, and corners are where the wire
/// was and leave its ends tied (shapes::cornered).
void settleTyped(Antenna& antenna, const shapes::AntennaShape& before, const std::string& key, const Design& design);

/// What its expressions may refer to: design frequency and named lengths.
units::Context contextOf(const Antenna& antenna, units::System system = units::System::Metric);
/// Names a length, or gives it another value; what was typed as an expression with it is worked out anew.
/// Faults: a name that means something else, a length that is no length; the parameters that could not follow stay.
Faults nameLength(Antenna& antenna, const std::string& name, double length, const std::string& typed);
/// Takes the name away; what followed it keeps its value.
void forgetLength(Antenna& antenna, const std::string& name);

/// Keeps the antenna's present shape as a copy at the end of its list; returns the copy's id.
Id storeCopy(Antenna& antenna, const std::string& name, const std::string& when);
/// Brings a stored shape back; false if there is no such copy.
bool takeCopy(Antenna& antenna, const Id& copy);

} // namespace vetchling

#pragma once
/// What was done and chosen at the bench for one antenna: pieces ticked off, what is left on the spool, ropes and wind, cores, parts.
/// Everything is found by a key that stays: of a piece "leg/2", of a part "wire", of an own part "own-1".

#include "core/id.h"

#include <map>
#include <optional>
#include <string>

namespace vetchling {

struct PieceState {
    bool done = false;
    std::optional<double> measured; ///< m, as cut
    friend bool operator==(const PieceState&, const PieceState&) = default;
};

/// What the user says of a part; what is not said follows from the design.
struct PartChange {
    std::optional<double> count, price; ///< price of one, or of a metre
    bool leftOut = false;
    std::string name; ///< of an own part
    friend bool operator==(const PartChange&, const PartChange&) = default;
};

/// How it hangs and what weather it has to stand.
struct Rigging {
    double pull = 40.0;           ///< N, level pull in the wire when the air is still
    double safety = 4.0;          ///< breaking load over the pull that is allowed
    double wind = 25.0;           ///< m/s, gusts
    double ice = 0.0;             ///< m round the wire
    double centreMass = 0.4;      ///< kg of centre piece, choke and hanging coax where no support holds the middle
    double ropeDiameter = 5e-3;   ///< m
    double ropeStrength = 2500.0; ///< N
    bool weight = false;          ///< a weight over a pulley instead of a fixed rope
    friend bool operator==(const Rigging&, const Rigging&) = default;
};

/// Turns on a stack of rings.
struct CoreWinding {
    std::string mix = "nickel-zinc-850", ring = "36";
    int rings = 1;
    int turns = 11;
    friend bool operator==(const CoreWinding&, const CoreWinding&) = default;
};

struct Workshop {
    std::map<std::string, PieceState> pieces;
    std::optional<double> spool; ///< m of wire there is; nothing: bought as needed
    double tapeOffset = 0.0;     ///< m that the tape shows at the peg
    std::map<std::string, PartChange> parts;
    Rigging rigging;
    CoreWinding choke, transformer{"nickel-zinc-850", "61", 1, 2};
    std::string limit = "icnirp-2020-public"; ///< id in data/limits.json
    std::string mode = "speech";              ///< id in data/workshop.json
    double sending = 1.0;                     ///< part of the averaging time that one sends
    friend bool operator==(const Workshop&, const Workshop&) = default;
};

} // namespace vetchling

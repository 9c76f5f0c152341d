#pragma once
/// How an antenna is fed: chains of parts from its own port to the radio, one of them in use.

#include "core/line/chain.h"
#include "core/shapes/family.h"

#include <string>
#include <vector>

namespace vetchling {

struct Antenna;
struct Design;
struct Site;

/// What comes after the shape's own line and transformer, towards the radio.
struct FeedChain {
    Id id;
    std::string name;
    shapes::Parameters own;       ///< of the shape's own feed (transformer_ratio ...), of a chain that is not in use: what it would have
    std::vector<ChainPart> parts; ///< from the antenna to the radio
    KeptFields kept;
    friend bool operator==(const FeedChain&, const FeedChain&) = default;
};

struct FeedChains {
    std::vector<FeedChain> chains; ///< none: nothing behind the antenna's own feed
    Id used;                       ///< the one in use; the first where there is none of that id
    KeptFields kept;
    friend bool operator==(const FeedChains&, const FeedChains&) = default;
};

/// What the net gain of an antenna is held against.
struct Against {
    enum class Kind { Vertical, Dipole, Antenna, Pinned, Own };
    Kind kind = Kind::Vertical;
    Id antenna;        ///< where it is another one of the site
    double gain = 0.0; ///< dBi, where it is one's own figure
    friend bool operator==(const Against&, const Against&) = default;
};

/// The chain in use; null if there is none.
const FeedChain* usedChain(const Antenna& antenna);
/// The same to be changed; made where there is none.
FeedChain& ownChain(Antenna& antenna);
/// Of the chain in use; empty without one.
const std::vector<ChainPart>& chainParts(const Antenna& antenna);
/// Everything from the port to the radio: what the shape brings along, then the chain in use.
std::vector<ChainPart> wholeChain(const Antenna& antenna);
/// Null if there is none of that id in the chain in use.
ChainPart* findPart(Antenna& antenna, const Id& part);

/// A part of a kind with sensible values for a new one; a line or tuner of the kind that is most used.
ChainPart newPart(const std::string& kind);
/// Another chain like the one in use, and it is used from now on; returns its id.
Id addChain(Antenna& antenna, const std::string& name);
/// Puts another chain to use, with the shape's own feed as it has it; false if there is none of that id.
bool useChain(Antenna& antenna, const Id& chain);
/// Takes a chain away; another one is used where it was. False if there is none of that id.
bool removeChain(Antenna& antenna, const Id& chain);
/// Moves a part so many places towards the radio, a tuner becomes what it is there; false where it is at the end.
bool movePart(Antenna& antenna, const Id& part, int places);
/// Says where a tuner is, and puts it there in the chain.
void moveTuner(Antenna& antenna, const Id& part, part::TunerPlace place);

/// Makes a worked-out chain the one in use: the shape's own transformer takes its ratio, its own line its figures, the rest its parts.
/// @param own how many of the first parts the shape brought along
void takeChain(Antenna& antenna, const std::vector<ChainPart>& whole, std::size_t own);

/// What of the chain in use belongs to the feedpoint goes into the antenna's shapes, and how its shield lies where the return current
/// flows on it; to be called after every change of either.
void settleFeed(Antenna& antenna, const Site& site);
void settleFeeds(Design& design);

} // namespace vetchling

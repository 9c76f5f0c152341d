#include "core/workshop/cautions.h"

#include "core/design/unread.h"
#include "core/line/parts.h"
#include "core/site/standing.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

using shapes::Carrier;
using shapes::WireEnd;

bool hasEnd(const shapes::BuiltAntenna& built, std::initializer_list<WireEnd> ends)
{
    return std::any_of(built.sections.begin(), built.sections.end(), [&](const shapes::WireSection& s) {
        return std::find(ends.begin(), ends.end(), s.first) != ends.end() || std::find(ends.begin(), ends.end(), s.last) != ends.end();
    });
}

bool soldered(const shapes::BuiltAntenna& built)
{
    return hasEnd(built, {WireEnd::Joint, WireEnd::Coil, WireEnd::Centre, WireEnd::Transformer, WireEnd::Link});
}

bool carried(const Antenna& antenna)
{
    const Carrier carrier = shapes::familyOf(antenna.shape).carrier();
    return carrier == Carrier::Vehicle || carrier == Carrier::Tripod ||
           std::any_of(antenna.trim.measurements.begin(), antenna.trim.measurements.end(),
                       [](const Measurement& m) { return !m.place.empty(); });
}

bool onVehicle(const Antenna& antenna) { return shapes::familyOf(antenna.shape).carrier() == Carrier::Vehicle; }

/// Something of it has to be reached higher than a person stands.
bool isHigh(const shapes::BuiltAntenna& built)
{
    constexpr double reached = 3.5; // m
    return std::any_of(built.model.wires.begin(), built.model.wires.end(),
                       [](const Wire& w) { return std::any_of(w.points.begin(), w.points.end(), [](Vec3 p) { return p.z > reached; }); });
}

bool heldBy(const Site& site, const shapes::BuiltAntenna& built, SupportKind kind)
{
    const std::vector<Id> holding = supportsHolding(site, built.model);
    return std::any_of(site.supports.begin(), site.supports.end(), [&](const Support& s) {
        return s.kind == kind && (kind != SupportKind::Tower || s.metal) &&
               std::find(holding.begin(), holding.end(), s.id) != holding.end();
    });
}

bool openTuner(const Antenna& antenna)
{
    const std::vector<ChainPart> chain = wholeChain(antenna);
    return std::any_of(chain.begin(), chain.end(), [](const ChainPart& p) { return p.kind == part::tuner && partValue(p, "place") > 0.5; });
}

class List {
public:
    void say(const char* heading, Text words) { m_all.push_back({heading, std::move(words)}); }
    std::vector<Caution> take() { return std::move(m_all); }

private:
    std::vector<Caution> m_all;
};

} // namespace

std::vector<Caution> benchCautions(const Antenna& antenna, const shapes::BuiltAntenna& built)
{
    List list;
    const bool tubes = hasEnd(built, {WireEnd::Tube});
    list.say(
        coreText("core", "Cutting"),
        tubes ? coreText("core", "Eye protection and gloves where tube is sawn or drilled: chips fly, edges cut. Clamp what is drilled.")
              : coreText("core", "Eye protection and gloves: springy wire whips when it is cut and when it comes off its spool. Clamp what "
                                 "is drilled."));
    if (soldered(built))
        list.say(coreText("core", "Soldering"),
                 coreText("core",
                          "Solder on the bench, with air moving and glasses on: fumes, spitting flux, hot metal. Not on a ladder, not "
                          "while it rains, not near anything that burns."));
    if (openTuner(antenna))
        list.say(coreText("core", "Open tuner"),
                 coreText("core", "Coil and plates of an open tuner carry kilovolts at a hundred watts: box it, and nobody's hand near it "
                                  "while it is sent on."));
    return list.take();
}

std::vector<Caution> cautionsOf(const Design& design, const Antenna& antenna, const shapes::BuiltAntenna& built, const BuildFacts* facts)
{
    List list;
    const Site& site = design.site;
    const bool vehicle = onVehicle(antenna), away = carried(antenna);
    if (const std::string where = unreadOf(design, antenna.id); !where.empty())
        list.say(coreText("core", "Not all read"), unreadWords(where));
    if (site.powerLine || site.powerLineUnread)
        list.say(coreText("core", "Power line"),
                 coreText("core", "One is on this site. Nothing that can fall, swing or be thrown may reach it: "
                                  "ask who runs it before you begin."));
    if (vehicle)
        list.say(coreText("core", "Driving"),
                 coreText("core",
                          "Know your height with the whip on: bridges, branches, garages, lines. Stop off the road before anything is "
                          "set, look round before you step out, and tune nothing while driving."));
    if (built.model.lowestPoint() < 0.0)
        list.say(coreText("core", "Digging"),
                 coreText("core",
                          "Before radials are dug in or a rod is driven: ask the owner and the utilities where cables and pipes lie, and "
                          "dig by hand near them. A rod of the mains' earth is an electrician's."));
    list.say(coreText("core", "Touching"),
             vehicle ? coreText("core", "Nobody touches whip or car while it is sent on: burns at the whip and its coil.")
                     : coreText("core",
                                "Nobody touches the antenna while it is sent on: burns at the ends, and at the feedpoint of an end-fed. "
                                "Keep ends out of reach or fenced."));
    if (facts && facts->rigging.lowest() < walkingHeight)
        list.say(coreText("core", "Walking"),
                 {coreText("core", "Wire or rope comes down to %1: mark it, or somebody runs into it in the dark."),
                  Measure{facts->rigging.lowest(), units::Quantity::Length}});
    if (away)
        list.say(coreText("core", "Thunder"),
                 coreText("core", "Outdoors: when it thunders, stop at once, lay mast and whip down if that is done "
                                  "in seconds, and leave for a house or a closed car."));
    if (!away)
        list.say(coreText("core", "Lightning"),
                 coreText("core", "Bond mast and shield to earth as the local code says, by a licensed electrician; "
                                  "bleed static off; unplug when thunder is near."));
    if (facts && !facts->rigging.spans.empty())
        list.say(coreText("core", "Tension"),
                 {coreText("core", "Up to %1 N in weather: a wire that parts whips. Eye protection; nobody in its line."),
                  Measure{std::round(facts->rigging.strongestPull())}});
    if (heldBy(site, built, SupportKind::Tower))
        list.say(coreText("core", "Tower"),
                 coreText("core", "A crank-up or tilting tower: nobody on it or under it unless it is locked, and hands "
                                  "out of its sections and off its cable."));
    if (!vehicle && shapes::familyOf(antenna.shape).carrier() != Carrier::Tripod && isHigh(built))
        list.say(coreText("core", "Climbing"),
                 coreText("core", "Only with a harness, a second person and a structure made for it; else from the "
                                  "ground, or by who is trained."));
    if (away)
        list.say(coreText("core", "Batteries"),
                 coreText("core", "In the field: a fuse at the battery's pole, no metal across its poles, no charging "
                                  "unwatched, in the sun or in a closed car."));
    return list.take();
}

namespace {

/// The steps for each kind of what carries it.
class PuttingUp {
public:
    PuttingUp(const Antenna& antenna, const shapes::BuiltAntenna& built, const RiggingReport& rigging, const Site& site)
        : m_built(built), m_rigging(rigging), m_site(site), m_carrier(shapes::familyOf(antenna.shape).carrier()),
          m_radials(std::any_of(built.sections.begin(), built.sections.end(), [](const shapes::WireSection& s) {
              return s.first == WireEnd::Joint && s.last == WireEnd::Insulator && s.pieces > 1;
          }))
    {
    }

    std::vector<Text> run()
    {
        if (m_site.powerLine)
            say(coreText("core", "Look up first: keep everything farther from the power line than it can fall."));
        if (m_built.model.lowestPoint() < 0.0)
            say(coreText("core", "Before anything is dug in or driven: ask where cables and pipes lie, and keep clear of them."));
        if (m_carrier == Carrier::Vehicle) {
            onVehicle();
            return std::move(m_steps);
        }
        if (m_carrier == Carrier::Mast)
            onMast();
        else if (m_carrier == Carrier::Tripod || mastStandOf(m_site, m_built.model, 0.0))
            upright();
        else
            hung();
        say(coreText("core", "Sweep before sending; keep people away from the ends."));
        return std::move(m_steps);
    }

private:
    void say(const char* words) { m_steps.emplace_back(words); }

    void onVehicle()
    {
        say(coreText("core", "Park level and clear of lines, trees and people; brake on, engine off."));
        say(coreText(
            "core", "Fix the mount on bare metal and check with the ohmmeter: shield to body a short, inner to body open but for a coil."));
        say(coreText("core", "Lead the coax in clear of doors, seat rails and the engine's wiring; a choke where it comes in."));
        say(coreText("core", "Screw the whip on, set coil and length for the band, and step clear of the car."));
        say(coreText("core", "Sweep with the doors shut and nobody leaning on it, as it will be used."));
        say(coreText("core", "Before you drive: height known, whip tied down or taken off where it is too high."));
    }

    void onMast()
    {
        say(coreText("core", "Put it together on the ground, both sides alike by the tape, clamps tight."));
        say(coreText("core", "Coax with a loop at the mast so that it can turn; choke at the feedpoint; ohmmeter."));
        say(coreText("core", "Look round the circle that it turns in: nothing within it, nobody's path below."));
        say(coreText("core", "Raise the mast with two people or more, guys in hand; turn it once round by hand."));
    }

    void upright()
    {
        const bool tripod = m_carrier == Carrier::Tripod;
        say(tripod
                ? coreText("core", "Stand the tripod on firm level ground, legs spread; weights or pegs before anything is put on.")
                : coreText("core", "Set the stake, base or hinge that it stands on; lay the guys out and peg them before it is raised."));
        if (m_radials)
            say(coreText("core", "Lay the radials out in even angles, join them to the plate and flag their ends."));
        say(m_radials ? coreText("core", "Choke and coax at the foot, and the ohmmeter: shield to radials a short.")
                      : coreText("core", "Join choke and coax at the feedpoint and check with the ohmmeter."));
        if (hasTopWire())
            say(coreText("core", "Rig the ropes that its upper wire runs to before it goes up; nobody stands below."));
        say(tripod ? coreText("core", "Screw the whip on and draw it out from the thinnest section down; hold the foot, not the tip.")
            : hasEnd(m_built, {WireEnd::Tube})
                ? coreText("core",
                           "Put the tubes together on the ground, grease and clamp each; raise it with two people, one at the foot.")
                : coreText("core", "Tie the wire to the pole's tip on the ground; raise the pole with two people, one at the foot, one at "
                                   "the guys."));
        say(coreText("core", "Stand away from it by its own height when you sweep; hands and bodies near it shift the dip."));
    }

    void hung()
    {
        say(coreText("core", "Pace out the supports and lay the wire along its line."));
        if (heldBy(m_site, m_built, SupportKind::Roof) || heldBy(m_site, m_built, SupportKind::Wall))
            say(coreText("core",
                         "At roof and wall: tie to what carries, not to gutters or tiles; a ladder is held, and nobody works alone."));
        if (heldBy(m_site, m_built, SupportKind::Tree))
            say(coreText("core", "In a tree: throw the line over a live fork, a loop or pulley that gives as the tree moves; no nails, no "
                                 "wire round bark."));
        if (!m_rigging.ropes.empty())
            say(coreText("core", "Throw or rig the ropes; nobody stands below."));
        if (m_radials)
            say(coreText("core", "Spread the radials and join them to the plate; flag their ends."));
        say(coreText("core", "Join choke and coax at the feedpoint and check with the ohmmeter."));
        if (!m_built.links.empty())
            say(coreText("core", "Set the links for the highest band first; close them one by one for the lower ones."));
        say(coreText("core", "Raise it evenly, tie off, and mark what hangs below 2.5 m."));
    }

    /// A level wire high up, of an upright that is bent or has a top.
    [[nodiscard]] bool hasTopWire() const
    {
        const Vec3 feed = m_built.feedPoint;
        return std::any_of(m_rigging.spans.begin(), m_rigging.spans.end(), [&](const SpanReport& s) {
            return std::min(s.place.start.z, s.place.end.z) > std::max(heldFrom, feed.z + 1.0);
        });
    }

    const shapes::BuiltAntenna& m_built;
    const RiggingReport& m_rigging;
    const Site& m_site;
    Carrier m_carrier;
    bool m_radials;
    std::vector<Text> m_steps;
};

} // namespace

std::vector<Text> puttingUp(const Antenna& antenna, const shapes::BuiltAntenna& built, const RiggingReport& rigging, const Site& site)
{
    return PuttingUp(antenna, built, rigging, site).run();
}

std::vector<BenchCard> benchCards(const Antenna& antenna, const shapes::BuiltAntenna& built)
{
    std::vector<BenchCard> all;
    const auto jacketed = [](const shapes::WireChoice& w) { return w.jacket > 0.0; };
    const bool jacket = jacketed(antenna.shape.wire) || std::any_of(antenna.shape.partWires.begin(), antenna.shape.partWires.end(),
                                                                    [&](const auto& p) { return jacketed(p.second); });
    if (soldered(built))
        all.push_back(
            {coreText("core", "A soldered joint"),
             {jacket
                  ? coreText("core", "Strip only what the lug takes; push the jacket back and hold it with a wet rag or a clip: heat "
                                     "creeps along the wire and the jacket shrinks away.")
                  : coreText("core", "Brighten the metal; hard-drawn or clad wire goes soft where it is heated, so no pull on that part."),
              coreText("core", "Tin wire and lug by themselves first, then bring them together: a big tip, quickly, two to three seconds."),
              coreText("core", "Clean the flux off, tug it, and look: bright and hollow, not a grey ball."),
              coreText("core", "Heat-shrink with glue over joint and a thumb's width of jacket, or self-fusing tape: water creeps into "
                               "stranded wire for metres.")}});
    if (hasEnd(built, {WireEnd::Tube}))
        all.push_back(
            {coreText("core", "A rod to a rod"),
             {coreText("core", "Threads: seat them to the shoulder, a spring washer or a second nut against it; no paste on what carries "
                               "current unless it says so."),
              coreText("core", "Sleeves: at least four diameters inside one another, slots sawn twice, a clamp over the slots."),
              coreText("core", "A drop of paste against corrosion; different metals kept apart by stainless steel; mark the depth with a "
                               "line so that it comes together alike each time.")}});
    const std::vector<ChainPart> chain = wholeChain(antenna);
    const bool box = hasEnd(built, {WireEnd::Transformer}) || std::any_of(chain.begin(), chain.end(), [](const ChainPart& p) {
                         return p.kind == part::choke || p.kind == part::transformer;
                     });
    if (box)
        all.push_back(
            {coreText("core", "A socket in a thick wall"),
             {coreText("core",
                       "A panel socket's thread is made for a few millimetres of metal: thin the plastic from inside round the hole "
                       "with a flat bit, or set it on a small plate outside."),
              coreText("core", "Drill small, then step up; slow, with wood behind, so that the plastic does not crack."),
              coreText("core", "A ring or sealing compound outside, the lug under the nut bright, and a drain hole at the lowest place of "
                               "the box.")}});
    return all;
}

} // namespace vetchling

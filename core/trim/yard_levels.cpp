#include "core/trim/yard.h"

#include <algorithm>

namespace vetchling {

Text yardFaultName(YardFault fault)
{
    switch (fault) {
    case YardFault::TooLong: return coreText("core", "only cut long, as it should be");
    case YardFault::WetSoil: return coreText("core", "soil much wetter than planned");
    case YardFault::HungLow: return coreText("core", "hung much lower than planned");
    case YardFault::BadCrimp: return coreText("core", "a bad crimp at the feedpoint");
    case YardFault::WrongTurns: return coreText("core", "coils with the wrong number of turns");
    case YardFault::LossyCoax: return coreText("core", "a lossy coax between");
    case YardFault::BadCalibration: break;
    }
    return coreText("core", "a bad calibration");
}

std::vector<Text> yardExplanation(YardFault fault, const YardDone& done)
{
    switch (fault) {
    case YardFault::TooLong: {
        std::vector<Text> words{coreText("core", "The dip lay low, its SWR and width were the model's: nothing but length.")};
        if (done.cut)
            words.push_back(done.folded ? coreText("core", "Folding first cost no wire; a cut is for when one is sure.")
                                        : coreText("core", "Folding first would have cost no wire."));
        return words;
    }
    case YardFault::WetSoil:
        return {coreText("core", "The least SWR was not the plan's, and no length mends that: over other soil the wire has another "
                                 "resistance, while its resonance hardly moves."),
                done.hoisted ? coreText("core", "The change with height told: it was not that of the soil that was planned.")
                             : coreText("core", "Another height would have told: over another soil it changes otherwise.")};
    case YardFault::HungLow:
        return {coreText("core", "Dip, width and least SWR were not the plan's: near the soil resistance and resonance change together."),
                done.hoisted ? coreText("core", "With the height both changed as from no other fault.")
                             : coreText("core", "Hoisting it by some metres would have brought both back: no other fault answers so.")};
    case YardFault::BadCrimp:
        return {done.sweptTwice
                    ? coreText("core", "The least SWR was raised and jumped from sweep to sweep, the dip stayed where it was: resistance "
                                       "in a joint.")
                    : coreText("core", "The least SWR was raised. A second sweep of the same wire would have jumped, with the dip where it "
                                       "was: resistance in a joint."),
                coreText("core", "Cutting moves the dip and never mends the SWR. A crimp, a screw or a plug does.")};
    case YardFault::WrongTurns:
        return {
            coreText(
                "core",
                "The dip was some percent off, more than a tape forgets: the coils. A tenth of the turns is a fifth of the inductance."),
            coreText("core", "Tips are for the last half percent; more than that is wound or unwound.")};
    case YardFault::LossyCoax:
        return {
            coreText("core",
                     "Far off the dip the SWR was low: what comes back passes the cable twice. Half the return loss there is its loss."),
            done.loaded ? coreText("core", "The coax alone, open at its top, must read high. This one did not: change it.")
                        : coreText("core", "The coax alone, open at its top, must read high. It was not tried; this one does not.")};
    case YardFault::BadCalibration: break;
    }
    return {done.loaded
                ? coreText("core", "A resistor of known value on the plug read wrong: the open was touched when it was calibrated.")
                : coreText("core", "The open was touched when it was calibrated. A resistor of known value on the plug would have told."),
            coreText("core",
                     "A good calibration takes a minute: open, short and load at the end of the cable, hands off, for just this range.")};
}

int yardSeconds(YardAct act)
{
    switch (act) {
    case YardAct::Sweep: return 30;
    case YardAct::Ohmmeter:
    case YardAct::Hand: return 10;
    case YardAct::Load: return 60;
    case YardAct::Fold:
    case YardAct::Cut: return 120;
    case YardAct::Height: return 300;
    default: return 0;
    }
}

const std::vector<YardLevel>& yardLevels()
{
    using enum YardFault;
    static const std::vector<YardLevel> all{
        {"first-dipole",
         coreText("core", "A first dipole"),
         coreText("core", "Cut long, as one should, and hung. Bring the dip to its mark with as few hoists as you can."),
         "dipole",
         14.15e6,
         {},
         {TooLong},
         false,
         6,
         0.3},
        {"only-a-meter",
         coreText("core", "Only a meter"),
         coreText("core", "No analyser today: only a power meter: read it on a low, a middle and a high channel, and compare."),
         "dipole",
         7.1e6,
         {},
         {TooLong},
         true,
         7,
         0.5},
        {"will-not-come-down",
         coreText("core", "A dip that is not right"),
         coreText("core", "The crew cut by the rule and measured once. Something is not as the plan says: find it before you cut."),
         "dipole",
         7.1e6,
         {{"apex_height_m", 9.0}, {"end_height_m", 8.0}},
         {HungLow, BadCrimp, LossyCoax, BadCalibration},
         false,
         6,
         0.4},
        {"end-fed",
         coreText("core", "An end-fed wire"),
         coreText("core", "One wire, a transformer, two bands. Trim it on the lower one; the upper one follows."),
         "end-fed",
         7.01e6,
         {{"transformer_ratio", 64.0}}, // in the middle of what dry and wet soil make of it
         {TooLong, WetSoil},
         false,
         7,
         0.5,
         {14.25e6}},
        {"linked",
         coreText("core", "Links, inside out"),
         coreText("core",
                  "Two bands on one pair of legs, all sections cut long. The inner one first: what is cut there moves the outer one."),
         "linked-dipole",
         10.12e6,
         {},
         {TooLong, BadCrimp},
         false,
         9,
         0.5},
        {"coil-and-tips",
         coreText("core", "Coil and tips"),
         coreText("core", "A short dipole with a coil in each arm. The tips are for the last bit only: are the coils right?"),
         "loaded-dipole",
         7.1e6,
         {},
         {TooLong, WrongTurns},
         false,
         7,
         0.6},
    };
    return all;
}

const YardLevel* findYardLevel(const std::string& id)
{
    const auto& all = yardLevels();
    const auto found = std::find_if(all.begin(), all.end(), [&](const YardLevel& l) { return l.id == id; });
    return found == all.end() ? nullptr : &*found;
}

} // namespace vetchling

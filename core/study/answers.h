#pragma once
/// What is said of an antenna on its site, for window and command line alike: how well it covers its bands as the line sees it, and
/// in detail its fields, losses, lengths and levers. All values are immutable once made; times and views are the callers'.

#include "core/design/design.h"
#include "core/study/length_causes.h"
#include "core/study/study.h"
#include "core/study/told_gain.h"
#include "core/tune/tune.h"

#include <memory>
#include <optional>
#include <vector>

namespace vetchling::study {

/// What is asked.
struct Question {
    Subject subject;
    std::vector<WantedBand> bands;
    double limit = 2.0; ///< SWR
    Id requested;       ///< band that is looked at; may be empty
    shapes::TuneGoal goal = shapes::TuneGoal::Resonance;
    std::optional<shapes::AntennaShape> before; ///< as it was with fewer pairs or links, to be compared with
    double reference = 50.0;                    ///< ohm that the SWR is told against
    std::vector<ChainPart> towardsRadio = {};   ///< what lies between the feedpoint and where the SWR is told; empty: it is told there
    friend bool operator==(const Question&, const Question&) = default;
};

/// Which of the tuned lengths is looked at: that of the configuration, else the one for the requested band, else the first.
std::size_t lengthAskedFor(const Question& question);

Question questionOf(const Design& design, const Antenna& antenna, const Id& requested = {}, std::size_t configuration = 0);

/// The curve and what follows from it.
class Curve {
public:
    Question question;
    std::shared_ptr<const shapes::BuiltAntenna> built;
    std::vector<CurvePart> parts;              ///< at the port, by window
    bool complete = true;                      ///< no band is pending
    Care care = Care::Usual;                   ///< it was computed with
    std::vector<Coverage> bands;               ///< of the question's, in their order, where the SWR is told
    double fundamental = 0.0;                  ///< Hz: the dip nearest to the design frequency, else that
    std::optional<Resonance> resonance;        ///< nearest to the fundamental, at the line
    std::shared_ptr<const Socket> socket = {}; ///< of the question's parts towards the radio; null: the SWR is told at the feedpoint

    /// Whether a frequency lies in a window that was solved.
    [[nodiscard]] bool covers(double frequency) const;
    /// Impedance as the line sees it, behind the transformer if there is one; not a number where it was not solved.
    [[nodiscard]] Complex atLine(double frequency) const;
    [[nodiscard]] Complex atPort(double frequency) const;
    /// Impedance where the SWR is told: at the feedpoint, or behind the question's parts.
    [[nodiscard]] Complex seen(double frequency) const;
    /// Not a number where it was not solved.
    [[nodiscard]] double swrAt(double frequency) const;
    /// Of the bands that it is cut for, the one with the lowest SWR and the one with the highest, where there are two that differ by
    /// more than a tenth; empty ids else.
    [[nodiscard]] std::pair<Id, Id> favoured() const;
    [[nodiscard]] int bandsWished() const;
    [[nodiscard]] int solves() const;
    /// Null if there is none of that id.
    [[nodiscard]] const Coverage* band(const Id& id) const;
};

/// One frequency looked at closely, as fed from the line: powers count from there.
struct Spot {
    Id band;
    em::Solution solution;
    std::shared_ptr<const em::FarField> field;
    double strongest = 0.0, strongestElevation = 0.0, strongestAzimuth = 0.0; ///< dBi, rad (mathematical azimuth)
    double straightUp = 0.0;                                                  ///< dBi
    double lobeWidth = 0.0;                                                   ///< rad in elevation, to half power, of the strongest lobe
    bool behindTransformer = false;
    double resonanceError = 0.0; ///< Hz that the impedance's error moves the resonance by; 0 where X is larger than R
};

/// A tuned length: by rule, and solved on this site.
struct Length {
    shapes::TunedLength what;
    double ruleValue = 0.0;
    std::optional<double> solved;
    Text fault; ///< why it is not
};

/// How the dip answers to a lever.
struct LeverSlope {
    shapes::Lever lever;
    double perUnit = 0.0; ///< Hz that the dip moves for one SI unit more of the parameter, each piece; 0: unknown
};

/// What would bring a dip that lies beside a wished band into it, solved: the change of the first lever, and what it does elsewhere.
struct Cure {
    Id band;
    double change = 0.0;          ///< of the lever's parameter, each piece, SI
    double lowestSwr = 0.0;       ///< in the band then
    std::vector<Id> lost, gained; ///< other wished bands that are no longer, or then, under the limit
};

/// Where a dip went since the antenna was as it is kept.
struct DipMove {
    double from = 0.0, to = 0.0; ///< Hz
};

inline constexpr int ribbonPieces = 6; ///< of an element

struct Detail {
    std::vector<Spot> spots;               ///< wished bands and the requested one
    std::size_t selected = 0;              ///< the requested one's place
    std::optional<em::PowerLedger> ledger; ///< at the selected frequency, from the line
    struct OtherGround {
        const char* name; ///< marked for translation
        std::shared_ptr<const em::FarField> field;
    };
    double strongestHere = 0.0;             ///< dBi at the selected frequency, as `elsewhere` is told beside it
    std::optional<GainElsewhere> elsewhere; ///< how others may tell that gain; nothing where wires touch the soil
    /// Currents at the selected frequency as em::currentRibbon gives them, of ribbonPieces a piece.
    std::vector<std::vector<double>> ribbon;
    std::vector<std::vector<double>> voltage; ///< the same of the voltage, as em::voltageRibbon gives it but 1 at the strongest
    double strongestVoltsAtOneWatt = 0.0;     ///< V peak anywhere on the wires, as endVoltsAtOneWatt
    double endVoltsAtOneWatt = 0.0;           ///< V peak at the first wire's ends at the selected frequency, for a watt into the line
    std::vector<OtherGround> otherGrounds;    ///< the selected frequency over wetter and drier ground
    std::vector<Length> lengths;              ///< in the family's order
    std::size_t explained = 0;                ///< the length that is looked at
    std::vector<LengthCause> causes;          ///< why that one is not its rule's
    std::vector<LeverSlope> levers;           ///< the one that trimming takes first
    std::vector<DipMove> moves;               ///< of the dips that the kept state had, where both are known
    std::vector<Cure> cures;                  ///< of wished bands whose dip lies beside them, where there is one

    /// The selected band's, and that of another; null where nothing was solved there.
    [[nodiscard]] const Spot* spot() const { return spots.empty() ? nullptr : &spots[selected]; }
    [[nodiscard]] const Spot* spotOfBand(const Id& band) const;
    /// Null if there is none for that band.
    [[nodiscard]] const Cure* cureOf(const Id& band) const;
    /// Hz that the dip rises for a metre cut from each end; 0: unknown.
    [[nodiscard]] double trimSlope() const;
};

using CurvePointer = std::shared_ptr<const Curve>;
using DetailPointer = std::shared_ptr<const Detail>;

/// How much of the question is answered: near bands come at once, far ones (windows.h) may take long. Wished: bands that are wished for
/// alone, on the windows that they have among all.
enum class Reach { Near, All, Wished };

/// The windows of the question solved and judged. Faults: what cannot be built or solved; stopped.
Result<CurvePointer> curveOf(Library& library, const Question& question, const Watch& watch = {}, Reach reach = Reach::All,
                             Care care = Care::Usual);
/// Fields at the wished bands, losses, lengths and levers. @param curve the answer to the same question
Result<DetailPointer> detailOf(Library& library, const Curve& curve, const Watch& watch = {});

/// An antenna's impedance as the line sees it, over a range.
struct Swept {
    std::vector<double> frequency; ///< Hz, rising
    std::vector<Complex> impedance;
    int solves = 0;
};

inline constexpr int pointsABand = 51;

/// Dense enough that straight lines between the points keep the SWR, and at least `pointsABand` in each wanted band and in all.
/// Faults: no range; the solver's; stopped.
Result<Swept> sweepOf(Library& library, const Question& question, double from, double to, const Watch& watch = {});

/// Frequency that stands for a band: its lowest SWR if the band is used at all, else its centre.
double spotFrequency(const Coverage& coverage, double limit);

} // namespace vetchling::study

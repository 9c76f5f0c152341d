#pragma once
/// The practice yard: made-up antennas with hidden faults, to be measured, judged and trimmed before the wire runs out.

#include "core/design/design.h"
#include "core/trim/as_built.h"
#include "core/trim/next_step.h"

#include <optional>
#include <string>
#include <vector>

namespace vetchling {

/// What may be the matter.
enum class YardFault { TooLong, WetSoil, HungLow, BadCrimp, WrongTurns, LossyCoax, BadCalibration };
Text yardFaultName(YardFault fault);

struct YardLevel {
    std::string id;
    Text title, story;
    std::string family;
    double frequency = 0.0; ///< Hz
    shapes::Parameters parameters = {};
    std::vector<YardFault> suspects = {}; ///< one of them is drawn, beside the everyday ones
    bool meterOnly = false;               ///< no analyser: three readings of a power meter
    int hoists = 6;
    double spare = 0.4;            ///< m of wire that may be wasted
    std::vector<double> also = {}; ///< Hz, that count at the end beside what is trimmed
};
/// From a first dipole to links and coils.
const std::vector<YardLevel>& yardLevels();
/// Null if there is none of that id.
const YardLevel* findYardLevel(const std::string& id);

enum class YardAct { Start, Sweep, Ohmmeter, Hand, Load, Fold, Cut, Height, Hint, Verdict };
/// s that it takes.
int yardSeconds(YardAct act);

/// What was done of all that could be.
struct YardDone {
    bool cut = false, folded = false, hoisted = false, loaded = false, sweptTwice = false;
};
/// What each sign meant, once it is known: of what was done, and what would have told.
std::vector<Text> yardExplanation(YardFault fault, const YardDone& done);

/// One line of what was done and seen.
struct YardNote {
    YardAct act = YardAct::Start;
    int seconds = 0; ///< since the start
    Text words;
};

struct YardVerdict {
    bool right = false;  ///< the fault was named, and so is mended
    double wasted = 0.0; ///< m of wire: joined on again, or cut beyond what finishes
    int hoists = 0;
    int bandsUnder = 0, bands = 0; ///< with an SWR below 2 on their mark
    bool passed = false;           ///< named, every band under 2, within hoists and wire
    std::vector<Text> missing;     ///< why it is not passed
    std::vector<Text> explained;   ///< what each sign meant
};

class Yard {
public:
    /// A level with its hidden antenna. The same seed draws the same. Faults: the solver's; stopped.
    static Result<Yard> open(study::Library& library, const YardLevel& level, unsigned seed, const Watch& watch = {});

    [[nodiscard]] const YardLevel& level() const { return m_level; }
    [[nodiscard]] const Antenna& plan() const { return m_plan; }
    [[nodiscard]] const std::vector<TrimTask>& tasks() const { return m_tasks; }
    [[nodiscard]] const std::vector<YardNote>& notes() const { return m_notes; }
    [[nodiscard]] int hoistsUsed() const { return m_hoists; }
    [[nodiscard]] double higher() const { return m_handling.higher; }
    /// The last sweep as the instrument showed it; none on a level with a meter only.
    [[nodiscard]] const std::optional<MeasuredSweep>& sweep() const { return m_sweep; }
    [[nodiscard]] const std::vector<std::pair<double, double>>& channels() const { return m_channels; } ///< Hz and SWR of a meter
    [[nodiscard]] const std::optional<YardVerdict>& verdict() const { return m_verdict; }
    /// What was the matter; for after the verdict.
    [[nodiscard]] YardFault fault() const { return m_fault; }
    /// m that a task's pieces were shortened so far, each.
    [[nodiscard]] double shortened(std::size_t task) const;
    /// As it looks with a task's links: the wires of the plan as they hang now; null for a task that is not there.
    [[nodiscard]] const shapes::BuiltAntenna* hanging(std::size_t task) const
    {
        return task < m_hanging.size() ? m_hanging[task].get() : nullptr;
    }

    /// What the instrument would show of the plan with a task's links, over the range that is swept; null for a task that is not there.
    [[nodiscard]] const MeasuredSweep* planned(std::size_t task) const { return task < m_planned.size() ? &m_planned[task] : nullptr; }

    // Each writes what was seen into the notes. Faults: a task that is not there, what cannot hang, a finished level; nothing is changed
    // then.
    Faults measure(study::Library& library, std::size_t task, const Watch& watch = {});
    Faults ohmmeter();
    Faults hand(study::Library& library, std::size_t task, const Watch& watch = {});
    /// A load on the plug, and the coax open at its top.
    Faults load();
    /// Shortens (or lengthens, where negative) each piece of a task, m.
    Faults change(std::size_t task, double amount, bool fold);
    Faults hoistTo(double higher);
    /// What an old hand would say; it costs a hoist.
    Faults hint(study::Library& library, const Watch& watch = {});
    Faults finish(study::Library& library, YardFault guess, const Watch& watch = {});

private:
    Yard(YardLevel level, Antenna plan, YardFault fault, unsigned seed);
    [[nodiscard]] Faults mayAct(std::size_t task) const;
    void note(YardAct act, Text words);
    MeasuredSweep shown(const std::vector<double>& frequencies, const std::vector<Complex>& impedances);
    void logIt(std::size_t task, double dip, double swr);
    [[nodiscard]] AsBuilt builtFor(std::size_t task) const;
    void look();
    Faults drawPlan(study::Library& library, const Watch& watch);
    [[nodiscard]] YardDone done() const;
    Result<double> swrOn(study::Library& library, std::size_t task, double mark, bool mended, const Watch& watch) const;
    Result<double> cutTooFar(study::Library& library, std::size_t task, const Watch& watch) const;

    YardLevel m_level;
    Antenna m_plan;
    std::vector<TrimTask> m_tasks;
    YardFault m_fault;
    AsBuilt m_built;
    InstrumentFaults m_instrument;
    ChainPart m_coax;
    std::mt19937 m_random;
    Handling m_handling;
    std::vector<YardNote> m_notes;
    std::vector<std::shared_ptr<const shapes::BuiltAntenna>> m_hanging; ///< by task
    std::vector<MeasuredSweep> m_planned;                               ///< by task
    std::optional<MeasuredSweep> m_sweep;
    std::vector<std::pair<double, double>> m_channels;
    std::optional<YardVerdict> m_verdict;
    std::map<std::size_t, double> m_sinceMeasured, m_cut, m_folded; ///< by task, m of each piece
    int m_seconds = 0, m_hoists = 0;
    double m_joined = 0.0; ///< m, that had been cut and was joined on again
    bool m_lowered = true; ///< it has to be hoisted before it is measured
};

} // namespace vetchling

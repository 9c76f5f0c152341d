#pragma once
/// Which antenna for this place? Every family in every allowed place, on the wanted bands, alone and together.
///
/// Method: places are judged by the rules of the site; each is tuned and solved coarsely behind its own chain; combinations are bounded by
/// the best of each band of their parts and hung beside one another; finalists are solved as the bands and feed studies do, in four seasons
/// more, until the first ten are.

#include "core/advice/advice.h"

#include <functional>
#include <map>

namespace vetchling::advice {

/// One search. What was found stays when it is stopped, so that it goes on there the next time.
class Advisor {
public:
    using Better = std::function<void(const AdvicePointer&)>; ///< called on a computing thread, with what is known so far

    Advisor(const std::shared_ptr<em::GroundTableCache>& tables, Design design, AdviceWish wish, ScoreRules rules,
            std::vector<LineType> lines);

    /// Faults: no band is wanted; stopped.
    Result<AdvicePointer> run(const Watch& watch = {}, const Better& better = {});

    [[nodiscard]] const Design& design() const { return m_design; }
    [[nodiscard]] const AdviceWish& wish() const { return m_wish; }

private:
    /// A family for some of the bands.
    struct Plan {
        const shapes::Family* family = nullptr;
        std::vector<Id> bands;
        double frequency = 0.0;
        int count = 0;
        bool placed = false;
    };
    void planAll();
    [[nodiscard]] std::vector<Tried> placesOf(const Plan& plan, const Bench& bench) const;
    Faults tryAll(const Watch& watch, const Better& better);
    Faults keepKept(const Watch& watch);
    Faults combine(const Watch& watch, const Better& better);
    /// One more antenna beside each of some answers.
    Faults extend(std::size_t from, std::size_t to, const Watch& watch);
    Faults finish(const Watch& watch, const Better& better);
    Faults solveFinalists(const std::vector<std::string>& keys, const Watch& watch);
    Faults addInfluence(Answer& answer, const Watch& watch);
    [[nodiscard]] std::optional<Tried> beside(const std::vector<std::string>& hung, const std::string& key, const Watch& watch) const;
    [[nodiscard]] std::vector<Answer> best(std::size_t count, bool once) const;
    [[nodiscard]] Answer answerOf(const std::vector<std::string>& keys) const;
    [[nodiscard]] AdvicePointer told(bool complete) const;
    [[nodiscard]] Bench bench(const Design& design) const;
    void addAnswer(std::vector<std::string> keys);

    study::Library mutable m_library;
    SeasonReferences mutable m_references;
    Design m_design;
    AdviceWish m_wish;
    ScoreRules m_rules;
    std::vector<LineType> m_lines;
    Weighed m_weighed;

    std::vector<Plan> m_plans;
    std::vector<std::string> m_order;     ///< keys of what was tried
    std::map<std::string, Tried> m_tried; ///< by key; beside others too
    std::vector<Tried> m_kept;
    std::vector<std::vector<std::string>> m_answers;
    std::size_t m_combined = 1; ///< antennas that answers have up to now
    std::map<std::string, std::vector<double>> m_influence; ///< by an answer's key
};

} // namespace vetchling::advice

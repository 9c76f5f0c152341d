#pragma once
/// Which antenna for this place? Every family in every allowed place, on the wanted bands, alone and together.
///
/// Method: places are judged by the rules of the site; each is tuned and solved coarsely behind its own chain; combinations are bounded by
/// the best of each band of their parts and hung beside one another; finalists are solved as the bands and feed studies do, in four seasons
/// more, until the first ten are.

#include "core/advice/advice.h"
#include "core/advice/plans.h"

#include <functional>
#include <map>
#include <mutex>

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
    static constexpr std::size_t chunk = 8;      ///< that are tried side by side
    static constexpr std::size_t finalists = 10; ///< answers that are told exactly

    /// One for the same bands is known that leaves next to nothing to win beside others.
    [[nodiscard]] bool hasLike(const Plan& plan) const;
    /// Whether a plan may come among the first, alone or beside another. @param first what is best so far
    [[nodiscard]] bool mayMatter(const Plan& plan, const std::vector<Answer>& first) const;
    Faults tryAll(const Watch& watch, const Better& better);
    Faults tryPlans(const std::vector<std::size_t>& now, const Watch& watch);
    std::vector<std::size_t> smallestOfThoseWithout();
    Faults keepKept(const Watch& watch);
    Faults combine(const Watch& watch, const Better& better);
    /// One more antenna beside each of some answers.
    Faults extend(std::size_t from, std::size_t to, const Watch& watch);
    Faults finish(const Watch& watch, const Better& better);
    Faults solveFinalists(const std::vector<std::string>& keys, const Watch& watch);
    Faults lookForHelp(const Watch& watch, const Better& better);
    /// What else would be, of some plans only and coarsely: the best answer then.
    struct Asked {
        Help::Kind kind;
        Text what;
        Design design;
        AdviceWish wish;
    };
    [[nodiscard]] std::vector<Asked> changes() const;
    [[nodiscard]] std::optional<Answer> quickBest(const Asked& asked, const Watch& watch) const;
    [[nodiscard]] std::optional<Help> withoutOneBand() const;
    [[nodiscard]] std::size_t exactOnes() const;
    void tell(double done) const;
    void dropUnhangable();
    [[nodiscard]] std::vector<double> influenceOf(const Answer& answer, const Watch& watch) const;
    [[nodiscard]] std::optional<Tried> beside(const std::vector<std::string>& hung, const std::string& key, const Watch& watch) const;
    [[nodiscard]] std::vector<Answer> best(std::size_t count, bool once) const;
    [[nodiscard]] Answer answerOf(const std::vector<std::string>& keys) const;
    [[nodiscard]] AdvicePointer told(bool complete) const;
    [[nodiscard]] Bench bench(const Design& design) const;
    void addAnswer(std::vector<std::string> keys);
    void take(Tried tried);

    std::mutex m_running;              ///< a search that was left may still be looking at its watch when it goes on
    const Watch* m_progress = nullptr; ///< of the search that runs
    study::Library mutable m_library;
    SeasonReferences mutable m_references;
    Design m_design;
    AdviceWish m_wish;
    ScoreRules m_rules;
    std::vector<LineType> m_lines;
    Weighed m_weighed;

    std::vector<Plan> m_plans;
    std::vector<std::string> m_order;            ///< keys of what was tried
    std::map<std::string, TriedPointer> m_tried; ///< by key; beside others too
    std::vector<TriedPointer> m_kept;
    std::vector<std::vector<std::string>> m_answers;
    std::vector<Help> m_help;
    bool m_helped = false;
    std::size_t m_combined = 1;                             ///< antennas that answers have up to now
    std::map<std::string, std::vector<double>> m_influence; ///< by an answer's key
};

} // namespace vetchling::advice

#pragma once
/// What to do next to the antenna on show, to the piece that is chosen: that of the configuration on show. Worked out in the background
/// whenever plan, log or choice change.

#include "app/document/asked.h"
#include "core/trim/measure_card.h"
#include "core/trim/readings.h"
#include "core/trim/sense.h"
#include "core/trim/site_fit.h"
#include "core/trim/step_effects.h"

#include <QObject>

namespace vetchling::app {

class AntennaModels;

class TrimDesk : public QObject {
    Q_OBJECT
public:
    TrimDesk(Document& document, const AntennaModels& models, SolveService& solver, QObject* parent = nullptr);

    void want();
    /// Null before the first, and for an antenna that nothing is known of.
    [[nodiscard]] std::shared_ptr<const TrimOutcome> outcome() const { return m_answer.answer() ? m_outcome : nullptr; }
    /// What is to be done next; null as above, and as long as plan and log are not those it was worked out for: nobody cuts twice by it.
    [[nodiscard]] const TrimNext* next() const;
    /// In the order of the work; known at once.
    [[nodiscard]] const std::vector<TrimTask>& tasks() const;
    /// Place of the one that all is told of: of the configuration on show, where that has several the one that was chosen, else the first
    /// that is not finished.
    [[nodiscard]] std::size_t place() const { return m_place; }
    /// Null without an antenna or without any length that is trimmed.
    [[nodiscard]] const TrimTask* task() const { return m_place < tasks().size() ? &m_tasks[m_place] : nullptr; }
    void choose(std::size_t task);
    /// Places in the log of what was measured for it, oldest first.
    [[nodiscard]] const std::vector<std::size_t>& entries() const { return m_entries; }
    /// The last of them; null without any.
    [[nodiscard]] const Measurement* last() const;
    /// The antenna with its log begun.
    [[nodiscard]] const Antenna* hung() const { return ofShown() && m_hung ? &*m_hung : nullptr; }
    void setTarget(double hertz);
    /// How much longer than planned its piece was hoisted first, SI.
    void setAsCut(double longer);
    [[nodiscard]] bool busy() const { return m_answer.busy(); }
    /// By the person, before there was an answer.
    [[nodiscard]] bool givenUp() const { return m_answer.givenUp(); }
    /// What the next step does to the other bands; empty before that is known.
    [[nodiscard]] std::vector<Text> effects() const;
    /// The highest SWR across the trimmed band with the dip where it was measured last, where that is under the limit and a cut is advised.
    [[nodiscard]] std::optional<double> enough() const { return m_enough; }
    /// Fits soil, height and length to the log; `ready` follows.
    void fit();
    [[nodiscard]] bool fitting() const { return m_fit.busy(); }
    /// Of the log as it is; null before it is asked for.
    [[nodiscard]] std::shared_ptr<const SiteFit> fitted() const;
    [[nodiscard]] const Faults& fitFaults() const { return m_fit.faults(); }
    [[nodiscard]] const Faults& faults() const { return m_answer.faults(); }

    /// Null as long as nothing is known of that piece; of how the antenna was before until `next` is there again.
    [[nodiscard]] const MeasureCard* card() const { return m_card && outcome() && m_cardOf == m_place ? &*m_card : nullptr; }
    /// Whether the last sweep can be what it is taken for; empty without one.
    [[nodiscard]] const std::vector<SenseRow>& sense() const;
    /// Whether a length stands behind a sign that stops the saw.
    [[nodiscard]] bool doubted() const { return next() && next()->behind; }
    /// The person has looked and takes the last measurement as it is: the length is told. Until another one is written down.
    void believe();

    /// What was typed at the mast, by the curve on show; nothing before there is one.
    [[nodiscard]] std::optional<Result<ReadDip>> workOut(const std::string& readings) const;
    /// See takeSweepThrough.
    static void takeSweep(const MeasuredSweep& sweep, bool whole, double coax, const LineType* type, Measurement& measurement);

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void ready();

private:
    struct EffectsQuestion {
        DesignPointer design;
        Id antenna;
        std::shared_ptr<const TrimOutcome> outcome;
        friend bool operator==(const EffectsQuestion&, const EffectsQuestion&) = default;
    };
    struct FitQuestion {
        DesignPointer design;
        Id antenna;
        TrimLog log;
        friend bool operator==(const FitQuestion& a, const FitQuestion& b) { return a.antenna == b.antenna && a.log == b.log; }
    };
    [[nodiscard]] FitQuestion fitQuestion() const;
    /// Which piece, and what the log has of it.
    void turn();
    /// A page may ask before a change was heard of.
    [[nodiscard]] bool ofShown() const;
    [[nodiscard]] std::size_t placeOnShow() const;
    [[nodiscard]] TrimQuestion questionNow() const;
    void look();
    void makeCard();
    void takeOutcome();
    void wantEffects();
    void lookWhetherEnough();
    Document& m_document;
    const AntennaModels& m_models;
    SolveService& m_solver;
    Asked<TrimQuestion, TrimOutcome> m_answer;
    Asked<EffectsQuestion, std::vector<BandEffect>> m_effects;
    Asked<FitQuestion, SiteFit> m_fit;
    Id m_of; ///< antenna
    std::vector<TrimTask> m_tasks;
    std::size_t m_place = 0;
    std::vector<std::size_t> m_entries;
    std::optional<Antenna> m_hung;
    std::map<Id, std::string> m_chosen; ///< parameter, by antenna, where a configuration has several
    std::size_t m_cardOf = 0;
    bool m_fresh = false;                         ///< the answer is to the question as it would be put now
    std::shared_ptr<const TrimOutcome> m_outcome; ///< with what stands behind a doubt, where that measurement is believed
    Id m_believed;                                ///< measurement
    std::optional<double> m_enough;
    std::optional<MeasureCard> m_card;
};

} // namespace vetchling::app

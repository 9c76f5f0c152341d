#pragma once
/// What to do next to the antenna on show: worked out in the background whenever plan or log change.

#include "app/document/backgrounded.h"
#include "core/trim/measure_card.h"
#include "core/trim/sense.h"
#include "core/trim/site_fit.h"
#include "core/trim/step_effects.h"

#include <QObject>

namespace vetchling::app {

class AntennaModels;
class Document;

class TrimDesk : public QObject {
    Q_OBJECT
public:
    TrimDesk(Document& document, const AntennaModels& models, SolveService& solver, QObject* parent = nullptr);

    void want();
    /// Null before the first, and for an antenna that nothing is known of.
    [[nodiscard]] std::shared_ptr<const TrimOutcome> outcome() const;
    /// What is to be done next; null as above.
    [[nodiscard]] const TrimNext* next() const;
    /// The length that is trimmed next, or would be first; null without an antenna or without any.
    [[nodiscard]] const TrimTask* task() const;
    /// The one that is trimmed in the configuration on show.
    [[nodiscard]] const TrimTask* shownTask() const;
    [[nodiscard]] bool busy() const { return m_answer.busy(); }
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

    /// Null as long as nothing is known.
    [[nodiscard]] const MeasureCard* card() const { return m_card && outcome() ? &*m_card : nullptr; }
    /// Whether the last sweep can be what it is taken for; empty without one.
    [[nodiscard]] const std::vector<SenseRow>& sense() const { return m_sense; }

signals:
    void ready();

private:
    void judge();
    void makeCard();
    void wantEffects();
    void lookWhetherEnough();
    Document& m_document;
    const AntennaModels& m_models;
    SolveService& m_solver;
    Backgrounded<TrimOutcome> m_answer;
    Backgrounded<std::vector<BandEffect>> m_effects;
    Backgrounded<SiteFit> m_fit;
    std::optional<TrimQuestion> m_asked;
    TrimLog m_fittedLog; ///< that the fit is of
    Id m_fittedAntenna;
    std::vector<SenseRow> m_sense;
    std::optional<double> m_enough;
    std::optional<MeasureCard> m_card;
};

} // namespace vetchling::app

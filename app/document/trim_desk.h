#pragma once
/// What to do next to the antenna on show: worked out in the background whenever plan or log change.

#include "app/document/backgrounded.h"
#include "core/study/measure_card.h"
#include "core/trim/sense.h"

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
    [[nodiscard]] std::shared_ptr<const study::TrimOutcome> outcome() const;
    /// What is to be done next; null as above.
    [[nodiscard]] const study::TrimNext* next() const;
    /// The length that is trimmed next, or would be first; null without an antenna or without any.
    [[nodiscard]] const study::TrimTask* task() const;
    /// The one that is trimmed in the configuration on show.
    [[nodiscard]] const study::TrimTask* shownTask() const;
    [[nodiscard]] bool busy() const { return m_answer.busy(); }
    [[nodiscard]] const Faults& faults() const { return m_answer.faults(); }

    /// Null as long as nothing is known.
    [[nodiscard]] const study::MeasureCard* card() const { return m_card && outcome() ? &*m_card : nullptr; }
    /// Whether the last sweep can be what it is taken for; empty without one.
    [[nodiscard]] const std::vector<SenseRow>& sense() const { return m_sense; }

signals:
    void ready();

private:
    void judge();
    void makeCard();
    Document& m_document;
    const AntennaModels& m_models;
    SolveService& m_solver;
    Backgrounded<study::TrimOutcome> m_answer;
    std::optional<study::TrimQuestion> m_asked;
    std::vector<SenseRow> m_sense;
    std::optional<study::MeasureCard> m_card;
};

} // namespace vetchling::app

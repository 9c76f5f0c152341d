#pragma once
/// Several dimensions of the antenna on show tuned at once, in the background.

#include "app/document/asked.h"
#include "core/tune/joint.h"

#include <QObject>

namespace vetchling::app {

struct TuneQuestion {
    shapes::AntennaShape shape;
    Ground ground;
    std::vector<JointLever> levers;
    JointAim aim;
    friend bool operator==(const TuneQuestion&, const TuneQuestion&) = default;
};

class TuneDesk : public QObject {
    Q_OBJECT
public:
    TuneDesk(Document& document, SolveService& solver, QObject* parent = nullptr);
    /// Tunes the antenna as it is; `ready` follows, and the document has the lengths where it is still the antenna that was asked for.
    void start(const std::vector<JointLever>& levers, const JointAim& aim);
    /// Stops; nothing is changed.
    void leave();
    [[nodiscard]] bool busy() const { return m_answer.busy(); }
    [[nodiscard]] double progress() const { return m_answer.progress(); }
    /// Null before the first, and once another antenna is on show.
    [[nodiscard]] std::shared_ptr<const JointOutcome> outcome() const { return m_answer.answer(); }
    /// What the outcome is of; null without one.
    [[nodiscard]] std::shared_ptr<const TuneQuestion> asked() const { return m_answer.answered(); }
    [[nodiscard]] const Faults& faults() const { return m_answer.faults(); }
    /// The antenna was changed while it was tuned, so that the outcome was not taken.
    [[nodiscard]] bool overtaken() const { return m_overtaken; }

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void ready();

private:
    void take();
    Document& m_document;
    Asked<TuneQuestion, JointOutcome> m_answer;
    bool m_overtaken = false;
};

} // namespace vetchling::app

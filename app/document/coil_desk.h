#pragma once
/// The coils of the antenna on show as something to wind: asked in the background while somebody looks, and their edits.

#include "app/document/asked.h"
#include "core/study/coil_study.h"

#include <QObject>

namespace vetchling::app {

class CoilDesk : public QObject {
    Q_OBJECT
public:
    CoilDesk(Document& document, SolveService& solver, QObject* parent = nullptr);

    /// Keys of the coils there are.
    [[nodiscard]] std::vector<std::string> coils() const;
    /// The one that is looked at; empty without any.
    [[nodiscard]] std::string shown() const;
    void show(const std::string& key);
    void want();
    /// Null before the first, and for an antenna without coils.
    [[nodiscard]] std::shared_ptr<const study::CoilAnswer> answer() const;
    [[nodiscard]] Standing standing() const;
    [[nodiscard]] bool busy() const { return m_answer.busy(); }
    [[nodiscard]] bool givenUp() const { return m_answer.givenUp(); }
    [[nodiscard]] const Faults& faults() const { return m_answer.faults(); }

    void setTurnsAtHand(double turns);
    [[nodiscard]] double turnsAtHand() const { return m_turns; }
    void setWinding(const Winding& winding, const QString& mergeKey = {});
    /// The model takes the Q of the winding, and its size where it is long enough (coil_limits.h) and the shape has a place for it.
    void takeWinding();
    /// The model takes the coil for a point again.
    void takePoint();
    /// The model has something else than the winding would give it.
    [[nodiscard]] bool differs() const;

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void ready();

private:
    [[nodiscard]] study::CoilQuestion question() const;
    Document& m_document;
    Asked<study::CoilQuestion, study::CoilAnswer> m_answer;
    std::string m_shown;
    double m_turns = 0.0;
};

} // namespace vetchling::app

#pragma once
/// What the stage Site asks of the antenna on show: what each thing near it does to it.

#include "app/document/backgrounded.h"
#include "core/study/neighbours.h"

#include <QObject>

namespace vetchling::app {

class Document;

class SiteDesk : public QObject {
    Q_OBJECT
public:
    SiteDesk(Document& document, SolveService& solver, QObject* parent = nullptr);

    /// What could be counted in beside the antenna on show.
    [[nodiscard]] std::vector<study::Neighbourhood> neighbourhood() const;
    void wantEffects();
    /// The last answer, while it is of the antenna and site as they are; null else.
    [[nodiscard]] std::shared_ptr<const std::vector<study::NeighbourEffect>> effects() const;
    [[nodiscard]] const Faults& faults() const { return m_effects.faults(); }
    [[nodiscard]] bool busy() const { return m_effects.busy(); }

signals:
    void effectsReady();

private:
    Document& m_document;
    SolveService& m_solver;
    std::shared_ptr<const Design> m_of;
    Id m_antenna;
    Backgrounded<std::vector<study::NeighbourEffect>> m_effects;
};

} // namespace vetchling::app

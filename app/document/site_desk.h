#pragma once
/// What the stage Site asks of the antenna on show: what each thing near it does to it.

#include "app/document/asked.h"
#include "core/study/neighbours.h"

#include <QObject>

namespace vetchling::app {

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

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void effectsReady();

private:
    Document& m_document;
    struct EffectsQuestion {
        DesignPointer design;
        Id antenna, band;
        std::size_t configuration = 0;
        friend bool operator==(const EffectsQuestion& a, const EffectsQuestion& b)
        {
            return a.antenna == b.antenna && a.band == b.band && a.configuration == b.configuration && a.design->site == b.design->site &&
                   a.design->antennas == b.design->antennas;
        }
    };
    [[nodiscard]] EffectsQuestion question() const;
    Asked<EffectsQuestion, std::vector<study::NeighbourEffect>> m_effects;
};

} // namespace vetchling::app

#include "app/document/site_desk.h"

#include "app/document/document.h"

namespace vetchling::app {

SiteDesk::SiteDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver), m_effects(solver, [this] { emit effectsReady(); })
{
    connect(&document, &Document::currentChanged, this, [this] { m_effects.forget(); });
    connect(&document, &Document::designReplaced, this, [this] { m_effects.forget(); });
}

std::vector<study::Neighbourhood> SiteDesk::neighbourhood() const
{
    return m_document.hasAntenna() ? study::neighbourhoodOf(m_document.design(), m_document.antenna())
                                   : std::vector<study::Neighbourhood>();
}

void SiteDesk::wantEffects()
{
    if (!m_document.hasAntenna())
        return;
    m_of = m_document.snapshot();
    m_antenna = m_document.current();
    const Id band = bandFor(*m_of, shapes::frequencyOf(m_document.antenna().shape, m_document.configuration()));
    m_effects.ask([design = m_of, id = m_antenna, band, configuration = m_document.configuration(),
                   &library = m_solver.library()](const Watch& watch, const auto& publish) {
        publish(study::neighbourEffects(library, *design, *findAntenna(*design, id), band, configuration, watch));
    });
}

std::shared_ptr<const std::vector<study::NeighbourEffect>> SiteDesk::effects() const
{
    const bool fresh = m_of && m_antenna == m_document.current() && m_of->antennas == m_document.design().antennas &&
                       m_of->site == m_document.design().site;
    return fresh ? m_effects.answer() : nullptr;
}

} // namespace vetchling::app

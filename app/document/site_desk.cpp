#include "app/document/site_desk.h"

namespace vetchling::app {

SiteDesk::SiteDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document),
      m_effects(
          document, solver,
          [&library = solver.library()](const EffectsQuestion& asked, const Watch& watch, const auto&) {
              return study::neighbourEffects(library, *asked.design, *findAntenna(*asked.design, asked.antenna), asked.band,
                                             asked.configuration, watch);
          },
          [this] { emit effectsReady(); })
{
}

std::vector<study::Neighbourhood> SiteDesk::neighbourhood() const
{
    return m_document.hasAntenna() ? study::neighbourhoodOf(m_document.design(), m_document.antenna())
                                   : std::vector<study::Neighbourhood>();
}

SiteDesk::EffectsQuestion SiteDesk::question() const
{
    const double frequency = shapes::frequencyOf(m_document.antenna().shape, m_document.configuration());
    return {m_document.snapshot(), m_document.current(), bandFor(m_document.design(), frequency), m_document.configuration()};
}

void SiteDesk::wantEffects()
{
    if (m_document.hasAntenna())
        m_effects.want(question());
}

std::shared_ptr<const std::vector<study::NeighbourEffect>> SiteDesk::effects() const
{
    return m_document.hasAntenna() && m_effects.answers(question()) ? m_effects.answer() : nullptr;
}

std::vector<NamedWaiting> SiteDesk::waitings() { return {{tr("Neighbours"), m_effects.waiting()}}; }

} // namespace vetchling::app

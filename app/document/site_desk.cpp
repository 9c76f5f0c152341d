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
          [this] { emit effectsReady(); }),
      m_solver(solver),
      m_places(
          document, solver,
          [&library = solver.library()](const PlacesQuestion& asked, const Watch& watch,
                                        const auto& soFar) -> Result<std::vector<study::PlaceGain>> {
              const study::Spot& spot = *asked.detail->spotOfBand(asked.band);
              const auto higher = study::fieldHigher(library.tables(), spot.solution, watch);
              if (!higher)
                  return higher.faults();
              return study::gainsByPlace(*spot.field, *higher, *asked.site, {asked.bearing, asked.elevation, asked.reach}, watch, soFar);
          },
          [this] { emit placesReady(); })
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

std::optional<TerrainProfile> SiteDesk::lineTowards(double bearing) const
{
    const Site& site = m_document.design().site;
    const Ground own = m_document.hasAntenna() ? groundUnder(m_document.design(), m_document.antenna()) : site.soil.ground();
    if (const auto ahead = study::groundTowards(site, bearing))
        return ahead->over(own);
    if (const auto behind = study::groundTowards(site, std::fmod(bearing + 180.0, 360.0)))
        return behind->turned().over(own);
    return std::nullopt;
}

std::optional<SiteDesk::PlacesQuestion> SiteDesk::placesQuestion(double bearing, double reach) const
{
    const DetailPointer detail = m_solver.detail();
    const study::Spot* spot = detail ? detail->spot() : nullptr;
    if (!spot || reach <= 0.0)
        return std::nullopt;
    const Design& design = m_document.design();
    return PlacesQuestion{detail,
                          spot->band,
                          study::sectorsOf(design.site),
                          bearing,
                          design.operation.aimElevation,
                          reach,
                          std::make_shared<const Site>(design.site)};
}

void SiteDesk::wantPlaces(double bearing, double reach)
{
    m_bearing = bearing, m_reach = reach;
    if (auto question = placesQuestion(bearing, reach))
        m_places.want(std::move(*question));
}

std::shared_ptr<const std::vector<study::PlaceGain>> SiteDesk::places() const
{
    const auto question = placesQuestion(m_bearing, m_reach);
    return question && m_places.answers(*question) ? m_places.answer() : nullptr;
}

bool SiteDesk::placesWhole() const
{
    const auto question = placesQuestion(m_bearing, m_reach);
    return question && m_places.standing(*question) == Standing::Whole;
}

std::optional<study::PlaceGain> SiteDesk::gainAtPlace(double away) const
{
    const auto all = places();
    for (std::size_t i = 1; all && i < all->size(); ++i) {
        const study::PlaceGain &a = (*all)[i - 1], &b = (*all)[i];
        if (away < a.away - 1e-9 || away > b.away + 1e-9)
            continue;
        const double t = (away - a.away) / (b.away - a.away);
        study::PlaceGain out{away, a.gain + t * (b.gain - a.gain), a.isFirm && b.isFirm, std::nullopt};
        if (a.higher && b.higher)
            out.higher = *a.higher + t * (*b.higher - *a.higher);
        return out;
    }
    return std::nullopt;
}

QString SiteDesk::placesBand() const
{
    const WantedBand* band = findBand(m_document.design(), m_document.selectedBand());
    return band ? QString::fromStdString(band->band.name) : tr("the selected band");
}

std::vector<NamedWaiting> SiteDesk::waitings()
{
    return {{tr("Neighbours"), m_effects.waiting()}, {tr("Gain by place"), m_places.waiting()}};
}

} // namespace vetchling::app

#include "app/document/sky_desk.h"

#include "app/document/document.h"
#include "core/study/neighbours.h"

namespace vetchling::app {

SkyDesk::SkyDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver), m_grid(solver, [this] { emit gridReady(); }),
      m_comparison(solver, [this] { emit comparisonReady(); })
{
    connect(&document, &Document::designReplaced, this, [this] {
        m_left.clear();
        m_comparison.forget();
        m_asked.reset();
    });
}

void SkyDesk::wantGrid()
{
    const DetailPointer detail = m_solver.detail();
    const study::Spot* spot = detail ? detail->spot() : nullptr;
    if (!spot || spot->field == m_gridOf)
        return;
    m_gridOf = spot->field;
    m_grid.ask([field = spot->field](const Watch&, const auto& publish) { publish(study::skyGrid(*field)); });
}

bool SkyDesk::compares(const Id& antenna) const { return antenna == m_document.current() || !m_left.contains(antenna); }

void SkyDesk::setCompared(const Id& antenna, bool on)
{
    if (on)
        m_left.erase(antenna);
    else
        m_left.insert(antenna);
    wantComparison();
}

/// The antenna on show as drawn and its variants, but for the one that is looked at.
std::vector<Antenna> SkyDesk::variantsBeside() const
{
    std::vector<Antenna> all;
    const Antenna* stored = findAntenna(m_document.stored(), m_document.current());
    if (!stored)
        return all;
    const auto add = [&](const Id& variant, const std::string& name) {
        if (variant == m_document.variant())
            return;
        all.push_back(asVariant(*stored, variant));
        all.back().id = variant.empty() ? "as drawn" : variant;
        all.back().name = name;
    };
    if (!stored->variants.empty())
        add({}, tr("its form as drawn").toStdString());
    for (const Variant& v : stored->variants)
        add(v.id, tr("its variant %1").arg(QString::fromStdString(v.name)).toStdString());
    return all;
}

void SkyDesk::setComparesVariants(bool on)
{
    m_variants = on;
    wantComparison();
}

void SkyDesk::setComparesVerticals(bool on)
{
    m_verticals = on;
    wantComparison();
}

void SkyDesk::wantComparison()
{
    if (!m_document.hasAntenna() || m_document.dragging())
        return;
    const DesignPointer design = m_document.snapshot();
    Asked asked{{}, design->operation, design->site.soil.ground(), m_verticals ? m_document.selectedBand() : Id()};
    asked.operation.aimElevation = 0.0; // where one looks is no matter of the fields
    asked.operation.aimBearing.reset();
    std::vector<Antenna> antennas;
    for (const Antenna& a : design->antennas)
        if (compares(a.id))
            antennas.push_back(a);
    if (comparesVariants())
        for (const Antenna& a : variantsBeside())
            antennas.push_back(a);
    for (const Antenna& a : antennas)
        asked.antennas.push_back({a.id, a.shape, study::questionOf(*design, a).subject.beyond});
    if (m_asked == asked)
        return;
    m_asked = asked;
    m_comparison.ask([design, asked, antennas, beyond = study::sectorsOf(design->site),
                      &library = m_solver.library()](const Watch& watch, const auto& publish) {
        std::vector<study::Skies> all;
        for (const Antenna& antenna : antennas) {
            const Result<study::Skies> skies = study::skiesOf(library, *design, antenna, watch);
            if (watch.stopped())
                return;
            all.push_back(skies ? *skies : study::Skies{antenna.id, antenna.name, {}});
            publish(all); // one after the other, so that something is there at once
        }
        if (const WantedBand* band = findBand(*design, asked.vertical))
            if (const auto verticals = study::verticalSkies(library, asked.ground, *band, watch, beyond)) {
                all.insert(all.end(), verticals->begin(), verticals->end());
                publish(all);
            }
    });
}

} // namespace vetchling::app

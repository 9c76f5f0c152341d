#include "app/document/sky_desk.h"

#include "core/study/neighbours.h"

namespace vetchling::app {

SkyDesk::SkyDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver),
      m_grid(
          document, solver, [](const Field& field, const Watch&, const auto&) -> Result<study::SkyGrid> { return study::skyGrid(*field); },
          [this] { emit gridReady(); }),
      m_comparison(
          document, solver,
          [&library = solver.library()](const Comparison& asked, const Watch& watch, const auto& soFar) {
              return study::allSkies(library, *asked.design, asked.antennas, asked.vertical, watch, soFar);
          },
          [this] { emit comparisonReady(); })
{
    connect(&document, &Document::designReplaced, this, [this] { m_left.clear(); });
}

void SkyDesk::look(double elevation, double bearing)
{
    const DetailPointer detail = m_solver.detail(), pinned = m_solver.pinnedDetail();
    const study::Spot* spot = detail ? detail->spot() : nullptr;
    if (!spot) {
        m_lobes.reset();
        return;
    }
    if (m_lobes && m_lobes->detail == detail && m_lobes->elevation == elevation && m_lobes->bearing == bearing && m_pinned == pinned)
        return;
    m_pinned = pinned;
    Lobes lobes{detail, elevation, bearing, study::lobeOf(*spot->field, elevation, bearing), std::nullopt};
    if (const study::Spot* other = pinned ? pinned->spotOfBand(spot->band) : nullptr)
        lobes.pinned = study::lobeOf(*other->field, elevation, bearing);
    m_lobes = std::make_shared<const Lobes>(std::move(lobes));
}

void SkyDesk::wantGrid()
{
    const DetailPointer detail = m_solver.detail();
    if (const study::Spot* spot = detail ? detail->spot() : nullptr)
        m_grid.want(spot->field);
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
    if (!m_document.hasAntenna())
        return;
    Comparison asked{m_document.snapshot(), {}, {}, m_document.design().operation, m_verticals ? m_document.selectedBand() : Id()};
    asked.operation.aimElevation = 0.0;
    asked.operation.aimBearing.reset();
    for (const Antenna& a : asked.design->antennas)
        if (compares(a.id))
            asked.antennas.push_back(a);
    if (comparesVariants())
        for (const Antenna& a : variantsBeside())
            asked.antennas.push_back(a);
    for (const Antenna& a : asked.antennas)
        asked.wires.push_back({a.id, a.shape, groundUnder(*asked.design, a), study::questionOf(*asked.design, a).subject.beyond});
    m_comparison.want(std::move(asked));
}

std::vector<NamedWaiting> SkyDesk::waitings()
{
    return {{tr("Sky all round"), m_grid.waiting()}, {tr("Skies side by side"), m_comparison.waiting()}};
}

} // namespace vetchling::app

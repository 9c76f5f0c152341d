#include "app/document/sky_desk.h"

#include "core/study/far_ground.h"
#include "core/study/neighbours.h"
#include "core/study/sky.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double lowest = 0.1; // degrees: on the horizon itself a soil takes all

} // namespace

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
    const bool sameField = m_lobes && m_lobes->detail == detail;
    const bool sameCut = sameField && m_lobes->bearing == bearing, sameRound = sameField && m_lobes->elevation == elevation;
    m_pinned = pinned;
    Lobes lobes{detail, elevation, bearing, {}, std::nullopt, std::nullopt};
    lobes.shown.cut = sameCut ? m_lobes->shown.cut : study::verticalCut(*spot->field, bearing); // over hills these take their time
    lobes.shown.round = sameRound ? m_lobes->shown.round : study::roundCut(*spot->field, elevation);
    lobes.shown.there = spot->field->gain(radians(std::max(elevation, lowest)), study::azimuthOf(bearing));
    if (const study::Spot* other = pinned ? pinned->spotOfBand(spot->band) : nullptr)
        lobes.pinned = study::lobeOf(*other->field, elevation, bearing);
    addGround(lobes);
    m_lobes = std::make_shared<const Lobes>(std::move(lobes));
}

void SkyDesk::addGround(Lobes& lobes) const
{
    const Site& site = m_document.design().site;
    if (study::sectorsOf(site).empty())
        return;
    const study::Spot& spot = *lobes.detail->spot();
    const em::FarField flat = spot.field->over({});
    const double elevation = radians(std::max(lobes.elevation, lowest)), behind = study::azimuthOf(lobes.bearing) + pi;
    Lobes::Ground g{study::lobeOf(flat, lobes.elevation, lobes.bearing), study::groundTowards(site, lobes.bearing),
                    spot.solution.model->ground};
    if (!g.line) { // what lies behind is then ahead
        if (const auto back = study::groundTowards(site, std::fmod(lobes.bearing + 180.0, 360.0)))
            g.line = back->turned();
    }
    g.there = lobes.shown.there - g.flat.there;
    g.behind = spot.field->gain(elevation, behind) - flat.gain(elevation, behind);
    g.least = HUGE_VAL, g.most = -HUGE_VAL;
    for (std::size_t i = 0; i < lobes.shown.round.size(); ++i) {
        g.least = std::min(g.least, lobes.shown.round[i] - g.flat.round[i]);
        g.most = std::max(g.most, lobes.shown.round[i] - g.flat.round[i]);
    }
    lobes.ground = std::move(g);
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

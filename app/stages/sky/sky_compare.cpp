#include "app/stages/sky/sky_compare.h"

#include "app/view/band_words.h"
#include "app/view/board_table.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "core/study/sky.h"

#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double nameWidth = 176.0; // px

} // namespace

SkyCompare::SkyCompare(ViewContext& context) : AimedCanvas(context)
{
    setObjectName(QStringLiteral("skyCompare"));
    setAccessibleName(tr("Antennas compared; arrow keys move the ray"));
    setMinimumHeight(320);
}

void SkyCompare::show(std::shared_ptr<const std::vector<study::Skies>> skies)
{
    m_skies = std::move(skies);
    update();
}

/// Where colours come again, lines are dashed.
Qt::PenStyle SkyCompare::styleOf(std::size_t place)
{
    constexpr std::size_t colours = 6;
    return place < colours ? Qt::SolidLine : place < 2 * colours ? Qt::DashLine : Qt::DotLine;
}

QColor SkyCompare::colourOf(std::size_t place) const
{
    const Colours& c = m_context.theme.colours();
    const QColor colours[] = {c.leaf, c.sky, c.petal, c.brick, c.inkSoft, c.leafMid};
    return colours[place % std::size(colours)];
}

/// Antennas as they are called now; what is not of the design has a text of the core.
QString SkyCompare::nameOf(const study::Skies& skies) const
{
    if (skies.antenna.empty())
        return tr("vertical, %1").arg(coreWords(skies.name));
    const Antenna* antenna = findAntenna(m_context.document.design(), skies.antenna);
    return antenna ? QString::fromStdString(antenna->name) : QString::fromStdString(skies.name);
}

std::vector<const WantedBand*> SkyCompare::bands() const
{
    std::vector<const WantedBand*> all;
    for (const WantedBand& w : m_context.document.design().operation.bands)
        if (w.wish != Wish::No)
            all.push_back(&w);
    return all;
}

std::optional<double> SkyCompare::gainOf(const study::Skies& skies, const Id& band) const
{
    const auto found = skies.bands.find(band);
    if (found == skies.bands.end())
        return std::nullopt;
    return found->second.field->gain(radians(std::max(0.1, m_elevation)), study::azimuthOf(m_bearing));
}

std::vector<QStringList> SkyCompare::cells() const
{
    std::vector<QStringList> lines;
    QStringList head{tr("At %1° towards %2°").arg(m_elevation, 0, 'f', 0).arg(m_bearing, 3, 'f', 0, QLatin1Char('0'))};
    for (const WantedBand* w : bands())
        head << QString::fromStdString(w->band.name);
    lines.push_back(head);
    for (std::size_t i = 0; m_skies && i < m_skies->size(); ++i) {
        QStringList line{nameOf((*m_skies)[i])};
        for (const WantedBand* w : bands()) {
            const std::optional<double> gain = gainOf((*m_skies)[i], w->id);
            line << (gain ? decibelWords(*gain) : QStringLiteral("–"));
        }
        lines.push_back(line);
    }
    return lines;
}

double SkyCompare::tableHeight() const { return BoardTable::heightOf(m_skies ? m_skies->size() : 0); }

QString SkyCompare::lead() const
{
    const Id band = m_context.document.selectedBand();
    std::vector<std::pair<double, QString>> order;
    for (std::size_t i = 0; m_skies && i < m_skies->size(); ++i)
        if (const std::optional<double> gain = gainOf((*m_skies)[i], band))
            order.emplace_back(*gain, nameOf((*m_skies)[i]));
    const WantedBand* wanted = findBand(m_context.document.design(), band);
    if (order.size() < 2 || !wanted)
        return {};
    std::sort(order.begin(), order.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    return tr("On %1 %2 leads %3 by %4 dB there, %5.")
        .arg(QString::fromStdString(wanted->band.name), order[0].second, order[1].second, decibelWords(order[0].first - order[1].first),
             audibleWords(order[0].first - order[1].first));
}

HalfDial SkyCompare::dialFor(const QSizeF& size) const
{
    const double room = size.height() - tableHeight() - 66.0;
    const double radius = std::max(50.0, std::min(0.5 * size.width() - 60.0, room - 26.0));
    return {{0.5 * size.width(), 26.0 + radius}, radius, 0.0};
}

void SkyCompare::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    if (!m_skies) {
        sketch.text({0.5 * size.width(), 60.0},
                    m_context.document.hasAntenna() ? tr("Being computed …") : tr("No antenna yet: add one with + at the top."),
                    Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 14});
        return;
    }
    const double height = tableHeight();
    paintDial(sketch, dialFor(size));
    paintTable(sketch, {0.0, size.height() - height - 4.0, size.width(), height});
}

void SkyCompare::paintDial(Sketch& sketch, const HalfDial& place) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    const Id band = m_context.document.selectedBand();
    double strongest = -HUGE_VAL;
    std::vector<std::vector<double>> gains;
    for (const study::Skies& skies : *m_skies) {
        const auto found = skies.bands.find(band);
        gains.push_back(found != skies.bands.end() ? study::verticalCut(*found->second.field, m_bearing) : std::vector<double>());
        for (double gain : gains.back())
            strongest = std::max(strongest, gain);
    }
    if (!std::isfinite(strongest)) {
        sketch.text(place.centre - QPointF(0, 0.5 * place.radius), tr("None of these was solved on this band."), Qt::AlignCenter,
                    {c.inkSoft, 13});
        return;
    }
    HalfDial dial = place;
    dial.top = HalfDial::rimFor(strongest);
    dial.paintGround(sketch);
    for (std::size_t i = 0; i < gains.size(); ++i) {
        QPainterPath path;
        for (std::size_t k = 0; k < gains[i].size(); ++k) {
            const QPointF at = dial.at(gains[i][k], double(k));
            k == 0 ? path.moveTo(at) : path.lineTo(at);
        }
        const bool isShown = (*m_skies)[i].antenna == m_context.document.current();
        p.setPen(QPen(colourOf(i), isShown ? 2.8 : 1.6, styleOf(i)));
        p.setBrush(Qt::NoBrush);
        p.drawPath(path);
        sketch.reservePath(path);
    }
    sketch.line(dial.centre - QPointF(dial.radius + 20, 0), dial.centre + QPointF(dial.radius + 20, 0), c.inkSoft, 1.5);
    const QPointF tip = dial.rim(m_elevation);
    sketch.line(dial.centre, tip, c.petal, 2.0);
    sketch.reserveLine(dial.centre, tip);
    p.setPen(QPen(c.ink, 1.2));
    p.setBrush(c.petal);
    p.drawEllipse(tip, 7, 7);
    sketch.reserve(QRectF(tip - QPointF(8, 8), QSizeF(16, 16)));
    dial.paintWords(sketch);
    dial.paintTowards(sketch, m_bearing, 5.0);
}

double SkyCompare::paintTable(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const std::vector<QStringList> lines = cells();
    const std::vector<const WantedBand*> wanted = bands();
    if (wanted.empty())
        return 0.0;
    const double pitch = (area.width() - nameWidth) / double(wanted.size());
    std::vector<double> best(wanted.size(), -HUGE_VAL);
    for (std::size_t b = 0; b < wanted.size(); ++b)
        for (std::size_t i = 0; m_skies && i < m_skies->size(); ++i)
            if (const std::optional<double> gain = gainOf((*m_skies)[i], wanted[b]->id))
                best[b] = std::max(best[b], *gain);
    std::vector<BoardTable::Column> heads{{lines.front()[0], 2.0}};
    for (std::size_t b = 0; b < wanted.size(); ++b)
        heads.push_back({lines.front()[int(b) + 1], nameWidth + pitch * (double(b) + 0.5), Qt::AlignHCenter});
    BoardTable table(sketch, area.topLeft(), area.width(), heads);
    for (std::size_t i = 1; i < lines.size(); ++i) {
        const QRectF row = table.begin();
        const double middle = row.center().y();
        sketch.line({row.left() + 1, middle}, {row.left() + 21, middle}, colourOf(i - 1), 2.0, styleOf(i - 1)); // two dashes of them
        sketch.text({row.left() + 26.0, middle}, sketch.theme().elided(lines[i][0], nameWidth - 30.0, BoardTable::pixels),
                    Qt::AlignLeft | Qt::AlignVCenter, {c.ink, BoardTable::pixels});
        for (std::size_t b = 0; b < wanted.size(); ++b) {
            const double x = row.left() + heads[b + 1].at;
            const std::optional<double> gain = gainOf((*m_skies)[i - 1], wanted[b]->id);
            const bool leads = gain && *gain == best[b] && lines.size() > 2;
            if (wanted[b]->id == m_context.document.selectedBand())
                sketch.painter().fillRect(QRectF(x - 0.5 * pitch, row.top() + 1.0, pitch, row.height() - 2.0), c.leafPale);
            constexpr double tuner = 3.0; // SWR that most built-in ones cope with
            const bool mismatched = gain && (*m_skies)[i - 1].bands.at(wanted[b]->id).lowestSwr > tuner;
            table.cell(b + 1, lines[i][int(b) + 1], mismatched ? c.inkFaint : c.ink, leads);
            if (leads)
                sketch.painter().fillRect(QRectF(x - 16.0, row.bottom() - 5.0, 32.0, 3.0), colourOf(i - 1));
        }
    }
    return table.bottom() - area.top();
}

void SkyCompare::aimAt(QPointF p)
{
    const HalfDial dial = dialFor(size());
    const QPointF to = p - dial.centre;
    if (to.y() > 12.0 || std::hypot(to.x(), to.y()) > dial.radius + 40.0)
        return;
    aimOnDial(to);
}

void SkyCompare::mousePressEvent(QMouseEvent* event)
{
    const double top = height() - tableHeight() - 4.0;
    if (event->position().y() < top) {
        aimAt(event->position());
        return;
    }
    const std::vector<const WantedBand*> wanted = bands(); // a band's column selects it
    const double pitch = (width() - nameWidth) / std::max(1.0, double(wanted.size()));
    const int column = int(std::floor((event->position().x() - nameWidth) / pitch));
    if (column >= 0 && column < int(wanted.size()))
        m_context.document.selectBand(wanted[std::size_t(column)]->id);
}

} // namespace vetchling::app

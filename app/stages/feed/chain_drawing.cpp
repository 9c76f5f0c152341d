#include "app/stages/feed/chain_drawing.h"

#include "app/document/antenna_models.h"
#include "app/stages/feed/chain_glyphs.h"
#include "app/view/feed_words.h"
#include "app/view/words.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double glyphY = 26.0;

struct DrawingWords {
    Q_DECLARE_TR_FUNCTIONS(ChainDrawing)
};

} // namespace

void ChainDrawing::add(const Document& document, const study::FeedReport* report, const study::FeedRow* row, const ChainPart& part,
                       std::size_t index, bool own)
{
    const units::System system = document.design().operation.system;
    Place place{part.id, part, feed::partName(part), feed::partFigure(part, system), {}, {}, own};
    place.tip = coreWords(kindOf(part).help());
    if (own)
        place.tip += QLatin1Char(' ') + DrawingWords::tr("It belongs to the antenna's shape.");
    if (report && row) {
        const Joint& joint = row->state.joints[index];
        const char* const marks[] = {"≈ ", "= ", "✓ "}; // assumed, computed, measured
        place.loss = joint.refused        ? DrawingWords::tr("does not tune")
                     : joint.loss < 0.005 ? DrawingWords::tr("no loss")
                                          : QString::fromUtf8(marks[std::size_t(part.basis)]) + feed::decibelWords(joint.loss);
        const double root = std::sqrt(row->power);
        place.tip += DrawingWords::tr("\nOn %1: %2, SWR %3, %4 and %5 peak, %6 lost (%7).")
                         .arg(QString::fromStdString(row->band.name), feed::shortImpedance(joint.impedance), swrText(swr(joint.impedance)),
                              feed::voltWords(root * joint.volts), DrawingWords::tr("%1 A").arg(root * joint.amperes, 0, 'f', 2),
                              feed::wattWords(row->power * joint.lost()), feed::basisWords(part.basis));
    }
    m_places.push_back(std::move(place));
}

void ChainDrawing::take(const Document& document, const std::shared_ptr<const study::FeedReport>& report, const Id& band)
{
    m_places.clear();
    if (!document.hasAntenna())
        return;
    const study::FeedRow* row = report ? report->row(band) : nullptr;
    if (report && !row && !report->rows.empty())
        row = &report->rows.front();
    ChainPart end;
    end.kind = "antenna";
    Place antenna{{}, end, DrawingWords::tr("antenna"), QString::fromStdString(document.antenna().name), {}, {}, true};
    if (row) {
        antenna.loss = feed::shortImpedance(row->band.port);
        antenna.tip = DrawingWords::tr("Its own port on %1: %2, %3 peak")
                          .arg(QString::fromStdString(row->band.name), feed::shortImpedance(row->band.port),
                               feed::voltWords(std::sqrt(row->power) * row->state.portVolts));
    }
    m_places.push_back(antenna);
    if (report)
        for (std::size_t i = 0; i < report->parts.size(); ++i)
            add(document, report.get(), row, report->parts[i], i, i < report->own);
    else
        for (const ChainPart& part : chainParts(document.antenna()))
            add(document, nullptr, nullptr, part, 0, false);
    end.kind = "radio";
    Place radio{{},
                end,
                DrawingWords::tr("radio"),
                valueWords(document.design().operation.power, units::Quantity::Power, units::System::Metric),
                {},
                {},
                true};
    if (row)
        radio.tip = DrawingWords::tr("It sees %1 on %2, SWR %3")
                        .arg(feed::shortImpedance(row->state.impedance()), QString::fromStdString(row->band.name),
                             swrText(swr(row->state.impedance())));
    m_places.push_back(radio);
}

void ChainDrawing::layOut(const QRectF& area) { m_area = area; }

QPointF ChainDrawing::centreOf(std::size_t place) const
{
    const double step = m_area.width() / double(std::max<std::size_t>(1, m_places.size()));
    return {m_area.left() + step * (double(place) + 0.5), m_area.top() + glyphY};
}

QRectF ChainDrawing::boxOf(std::size_t place) const
{
    const double step = m_area.width() / double(std::max<std::size_t>(1, m_places.size()));
    const double width = std::min(step - 6.0, 124.0);
    return {centreOf(place).x() - 0.5 * width, m_area.top(), width, height - 8.0};
}

void ChainDrawing::paint(Sketch& sketch, const Id& chosen, const Id& hovered, const std::optional<std::pair<Id, QPointF>>& dragged) const
{
    const Colours& c = sketch.colours();
    for (std::size_t i = 1; i < m_places.size(); ++i) {
        const QPointF gap(0.5 * glyphSize + 3.0, 0.0);
        const bool line = m_places[i].what.kind == part::line || m_places[i - 1].what.kind == part::line;
        sketch.line(centreOf(i - 1) + gap, centreOf(i) - gap, line ? c.ink : c.leaf, line ? 2.4 : 1.6);
    }
    for (std::size_t i = 0; i < m_places.size(); ++i) {
        const Place& p = m_places[i];
        const QRectF box = boxOf(i);
        const bool moving = dragged && dragged->first == p.part && !p.part.empty();
        if (!p.part.empty() && (p.part == chosen || p.part == hovered)) {
            sketch.painter().setPen(QPen(p.part == chosen ? c.petal : c.hairline, 1.4));
            sketch.painter().setBrush(Qt::NoBrush);
            sketch.painter().drawRoundedRect(box, 6, 6);
        }
        paintPartGlyph(sketch, p.what, moving ? QPointF(dragged->second.x(), centreOf(i).y()) : centreOf(i), c.ink);
        const QPointF below(centreOf(i).x(), m_area.top() + glyphY + 26.0);
        const double room = box.width() - 4.0;
        sketch.text(below, sketch.theme().elided(p.name, room, 12, true), Qt::AlignHCenter | Qt::AlignTop, {c.ink, 12, true});
        sketch.text(below + QPointF(0, 16), sketch.theme().elided(p.figure, room, 12), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
        const bool port = i == 0 || i + 1 == m_places.size();
        sketch.text(below + QPointF(0, 32), sketch.theme().elided(p.loss, room, 12), Qt::AlignHCenter | Qt::AlignTop,
                    {port ? c.inkSoft : c.brick, 12});
    }
}

Id ChainDrawing::partAt(QPointF p) const
{
    for (std::size_t i = 0; i < m_places.size(); ++i)
        if (boxOf(i).contains(p))
            return m_places[i].part;
    return {};
}

std::vector<Id> ChainDrawing::movable() const
{
    std::vector<Id> all;
    for (const Place& p : m_places)
        if (!p.own)
            all.push_back(p.part);
    return all;
}

int ChainDrawing::placeAt(QPointF p) const
{
    int place = 0, last = -1;
    for (std::size_t i = 0; i < m_places.size(); ++i)
        if (!m_places[i].own) {
            const double half = 0.5 * (boxOf(i).width() + 6.0);
            if (p.x() > centreOf(i).x() - half)
                last = place;
            ++place;
        }
    return std::max(0, last);
}

QString ChainDrawing::tipAt(QPointF p) const
{
    for (std::size_t i = 0; i < m_places.size(); ++i)
        if (boxOf(i).contains(p))
            return m_places[i].tip;
    return {};
}

} // namespace vetchling::app

#include "app/stages/trim/trim_board.h"

#include "app/plots/swr_chart.h"
#include "app/view/axis.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double goodBandwidth = 0.0008; // of the target: a dip this near needs no more cutting
const std::vector<double> columnShares{0.16, 0.28, 0.14, 0.14, 0.28};
constexpr double chartTop = 10.0, chartHeight = 200.0, cardTop = chartTop + chartHeight + 34.0, cardHeight = 106.0; // px
constexpr double logTop = cardTop + cardHeight + 14.0;

} // namespace

TrimBoard::TrimBoard(ViewContext& context)
    : Canvas(context), m_log(new LogModel(this)), m_table(new Table(m_log, columnShares, this))
{
    setObjectName(QStringLiteral("trimBoard"));
    setAccessibleName(tr("Measured dips and what to cut next"));
    m_table->setObjectName(QStringLiteral("logTable"));
    m_table->setAccessibleName(tr("Log of measurements"));
    const auto again = [this] {
        refreshLog();
        update();
    };
    connect(&context.document, &Document::designChanged, this, again);
    connect(&context.document, &Document::currentChanged, this, again);
    connect(&context.solver, &SolveService::detailReady, this, qOverload<>(&QWidget::update));
    refreshLog();
}

void TrimBoard::refreshLog()
{
    m_log->setLog(m_context.document.hasAntenna() ? m_context.document.antenna().trim.measurements : std::vector<Measurement>(), system());
    m_table->setVisible(m_log->rowCount() > 0);
    m_table->setGeometry(0, int(logTop), width(), std::max(60, height() - int(logTop)));
    m_table->scrollToBottom();
}

void TrimBoard::resizeEvent(QResizeEvent* event)
{
    Canvas::resizeEvent(event);
    refreshLog();
}

double TrimBoard::target() const
{
    if (!m_context.document.hasAntenna())
        return 0.0;
    const Antenna& a = m_context.document.antenna();
    return a.trim.target > 0.0 ? a.trim.target : a.shape.designFrequency;
}

TrimAdvice TrimBoard::advice() const
{
    const DetailPointer detail = m_context.solver.detail();
    if (!m_context.document.hasAntenna() || !detail)
        return {};
    return trimAdvice(m_context.document.antenna().trim, target(), detail->trimSlope(), goodBandwidth * target());
}

QString TrimBoard::headline() const
{
    const TrimAdvice a = advice();
    const QString amount = QString::fromStdString(units::formatSmall(a.amount, system()));
    const auto levers = m_context.document.family().levers(m_context.document.antenna().shape);
    const bool sides = !levers.empty() && levers.front().pieces > 1;
    switch (a.action) {
    case TrimAction::Measure: return tr("Hoist it, measure the dip, and type it in at the right.");
    case TrimAction::Cut:
        return sides ? tr("Cut %1 from each side, then hoist and measure again.").arg(amount)
                     : tr("Cut %1 from the end, then hoist and measure again.").arg(amount);
    case TrimAction::Lengthen:
        return sides ? tr("Too short: lengthen each side by %1, then measure again.").arg(amount)
                     : tr("Too short: lengthen it by %1, then measure again.").arg(amount);
    case TrimAction::Done: return tr("Done: the dip is where you want it. Leave it alone.");
    }
    return {};
}

QString TrimBoard::explanation() const
{
    const TrimAdvice a = advice();
    if (!(a.slope > 0.0))
        return m_context.solver.detail() ? tr("The model finds no resonance near the goal, so no slope is known; tune the shape first.")
                                         : tr("The model is being computed …");
    const QString perCm = tr("%1 kHz a centimetre").arg(a.slope / 1e5, 0, 'f', 1);
    if (a.action == TrimAction::Measure)
        return tr("The model says the dip rises %1 cut.").arg(perCm);
    const QString cuts =
        std::abs(a.slope / a.modelSlope - 1.0) < 0.002
            ? tr("The model")
            : tr("The model, corrected by your cuts (%1 to %2 kHz a cm),").arg(a.modelSlope / 1e5, 0, 'f', 1).arg(a.slope / 1e5, 0, 'f', 1);
    const QString needed = QString::fromStdString(units::formatSmall(a.predicted, system()));
    if (a.action == TrimAction::Cut)
        return tr("%1 says %2 would reach %3; take %4 % of it now. Folding back first can be undone.")
            .arg(cuts, needed, QString::fromStdString(units::formatFrequency(target())))
            .arg(100.0 * cutShare, 0, 'f', 0);
    if (a.action == TrimAction::Lengthen)
        return tr("%1 says %2 are missing to come down to %3.").arg(cuts, needed, QString::fromStdString(units::formatFrequency(target())));
    return tr("The last dip is %1 kHz from %2.")
        .arg(std::abs(a.off) / 1e3, 0, 'f', 0)
        .arg(QString::fromStdString(units::formatFrequency(target())));
}

void TrimBoard::render(Sketch& sketch, const QSizeF& size)
{
    sketch.painter().fillRect(QRectF({0, 0}, size), sketch.colours().paper);
    if (!m_context.document.hasAntenna())
        return;
    paintCurves(sketch, size.width());
    paintAdvice(sketch, cardTop, size.width());
    if (!onScreen() || m_log->rowCount() == 0)
        paintLog(sketch, logTop, size);
}

/// The model's curve, moved to each measured dip; the goal dashed.
void TrimBoard::paintCurves(Sketch& sketch, double width) const
{
    const Colours& c = sketch.colours();
    const CurvePointer curve = m_context.solver.curve();
    const auto& log = m_context.document.antenna().trim.measurements;
    SwrChart chart{QRectF(40, chartTop, width - 70, chartHeight), 0.0, 0.0};
    double low = target(), high = target();
    for (const Measurement& m : log)
        low = std::min(low, m.dip), high = std::max(high, m.dip);
    const double pad = std::max(0.025 * target(), 0.35 * (high - low));
    chart.from = low - pad;
    chart.to = high + pad;
    const WantedBand* wanted = findBand(m_context.document.design(), bandFor(m_context.document.design(), target()));
    const Band band = wanted ? wanted->band : Band{};
    chart.frame(sketch, std::clamp(band.from, chart.from, chart.to), std::clamp(band.to, chart.from, chart.to),
                m_context.document.design().operation.swrLimit, true);
    for (double f : niceTicks(chart.from, chart.to, 8))
        sketch.text({chart.x(f), chart.area.bottom() + 4}, QString::number(f / 1e6, 'f', chart.to - chart.from < 2e5 ? 3 : 2),
                    Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text({chart.area.right() + 30, chart.area.bottom() + 4}, tr("MHz"), Qt::AlignRight | Qt::AlignTop, {c.inkFaint, 12});
    if (curve && curve->fundamental > 0.0) {
        const auto moved = [&](double dip) { return [&, dip](double f) { return curve->swrAt(f * curve->fundamental / dip); }; };
        QPen dashed(c.leaf, 1.8);
        dashed.setDashPattern({5, 3});
        chart.curve(sketch, moved(target()), dashed);
        const double lowest = curve->swrAt(curve->fundamental);
        sketch.label({chart.x(target()) + 4, chart.y(lowest) + 6}, tr("goal %1").arg(target() / 1e6, 0, 'f', 3),
                     Qt::AlignLeft | Qt::AlignTop, {c.leaf, 12, true});
        for (std::size_t i = 0; i < log.size(); ++i) {
            const bool last = i + 1 == log.size();
            chart.curve(sketch, moved(log[i].dip), QPen(last ? c.ink : c.inkFaint, last ? 2.0 : 1.0));
            const QPointF at(chart.x(log[i].dip), chart.y(lowest));
            sketch.painter().setPen(QPen(c.ink, 1.2));
            sketch.painter().setBrush(c.card);
            sketch.painter().drawEllipse(at, 4, 4);
            const QString words = last     ? tr("now %1").arg(log[i].dip / 1e6, 0, 'f', 3)
                                  : i == 0 ? tr("as cut")
                                           : tr("after %1").arg(QString::fromStdString(units::formatSmall(log[i].cutSinceLast, system())));
            sketch.label(at + QPointF(0, 8), words, Qt::AlignHCenter | Qt::AlignTop, {last ? c.ink : c.inkSoft, 12, last});
        }
    }
}

void TrimBoard::paintAdvice(Sketch& sketch, double top, double width) const
{
    const Colours& c = sketch.colours();
    const QRectF card(0, top, width, cardHeight);
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(c.petalPale);
    sketch.painter().drawRoundedRect(card, 6, 6);
    sketch.text({18, top + 12}, headline(), Qt::AlignLeft | Qt::AlignTop, {c.ink, 18, true});
    sketch.painter().setFont(sketch.theme().font(13));
    sketch.painter().setPen(c.ink);
    sketch.painter().drawText(QRectF(18, top + 40, width - 36, 36), Qt::TextWordWrap, explanation());
    sketch.text({18, top + 80}, tr("Same height, same sides, same surroundings each time. Nobody touches the wire while transmitting."),
                Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
}

void TrimBoard::paintLog(Sketch& sketch, double top, const QSizeF& size) const
{
    const double y = paintTable(sketch, *m_log, columnShares, top, size.width(), size.height());
    if (m_log->rowCount() == 0)
        sketch.text({0, y + 8}, tr("Nothing measured yet. Last year's figures are worth keeping: note height, weather and soil."),
                    Qt::AlignLeft | Qt::AlignTop, {sketch.colours().inkSoft, 12});
}

} // namespace vetchling::app

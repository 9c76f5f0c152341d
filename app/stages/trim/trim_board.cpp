#include "app/stages/trim/trim_board.h"

#include "app/plots/swr_chart.h"
#include "app/stages/trim/trim_words.h"
#include "app/view/axis.h"
#include "app/view/words.h"
#include "core/design/unread.h"

#include <QKeyEvent>
#include <QPushButton>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

const std::vector<double> columnShares{0.19, 0.33, 0.11, 0.12, 0.25};
constexpr double chartTop = 10.0, highestChart = 330.0, lowestChart = 105.0, axisHeight = 34.0; // px
constexpr double logRoom = 104.0;                                                               // px: the log's head and three rows
constexpr double orderRow = 25.0, senseRow = 34.0;                                              // px

} // namespace

TrimBoard::TrimBoard(ViewContext& context, TrimDesk& desk)
    : Canvas(context), m_desk(desk), m_log(new LogModel(this)), m_table(new Table(m_log, columnShares, this)),
      m_believe(new QPushButton(tr("I have looked: show the length"), this))
{
    setObjectName(QStringLiteral("trimBoard"));
    setAccessibleName(tr("Measured dips and what to cut next"));
    m_table->setObjectName(QStringLiteral("logTable"));
    m_table->setAccessibleName(tr("Log of measurements"));
    m_believe->setObjectName(QStringLiteral("believe"));
    m_believe->hide();
    connect(m_believe, &QPushButton::clicked, &desk, &TrimDesk::believe);
    const auto again = [this] {
        refreshLog();
        placeButton();
        update();
    };
    m_table->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed);
    m_table->setToolTip(tr("Double click mends a cell, Delete removes a line"));
    m_table->installEventFilter(this);
    connect(m_log, &LogModel::mended, this, &TrimBoard::mended);
    connect(m_log, &LogModel::refused, this, &TrimBoard::refused);
    connect(m_table->selectionModel(), &QItemSelectionModel::selectionChanged, this, &TrimBoard::chosenChanged);
    connect(&context.document, &Document::designChanged, this, again);
    connect(&context.document, &Document::currentChanged, this, again);
    connect(&context.solver, &SolveService::curveReady, this, qOverload<>(&QWidget::update));
    connect(&context.solver, &SolveService::detailReady, this, qOverload<>(&QWidget::update));
    connect(&desk, &TrimDesk::ready, this, again);
    refreshLog();
}

void TrimBoard::refreshLog()
{
    const std::vector<Measurement> log =
        m_context.document.hasAntenna() ? m_context.document.antenna().trim.measurements : std::vector<Measurement>();
    m_log->setLog(log, system(),
                  log.empty() ? std::vector<LogWords>() : logWordsOf(m_context.document.design(), m_context.document.antenna(), system()));
    m_table->setVisible(m_log->rowCount() > 0);
    m_table->setGeometry(0, int(logTop()), width(), std::max(60, height() - int(logTop())));
    m_table->scrollToBottom();
}

void TrimBoard::resizeEvent(QResizeEvent* event)
{
    Canvas::resizeEvent(event);
    refreshLog();
    placeButton();
}

/// At the foot of the card, where a length stands behind a doubt.
void TrimBoard::placeButton()
{
    m_believe->setVisible(m_desk.doubted());
    if (!m_desk.doubted())
        return;
    const QSize hint = m_believe->sizeHint();
    m_believe->setGeometry(18, int(cardTop() + cardHeight(width())) - hint.height() - 10, hint.width(), hint.height());
}

bool TrimBoard::eventFilter(QObject* watched, QEvent* event)
{
    if (watched == m_table && event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Delete) {
        emit removeWanted();
        return true;
    }
    return Canvas::eventFilter(watched, event);
}

void TrimBoard::setPending(MeasuredSweep sweep)
{
    m_pending = std::move(sweep);
    update();
}

Id TrimBoard::chosen() const
{
    const QModelIndexList rows = m_table->selectionModel()->selectedRows();
    return rows.isEmpty() ? Id() : m_log->idAt(rows.front().row());
}

bool TrimBoard::mendChosen()
{
    const QModelIndex cell = m_table->currentIndex();
    if (!m_table->hasFocus() || !(m_log->flags(cell) & Qt::ItemIsEditable))
        return false;
    m_table->edit(cell);
    return true;
}

QString TrimBoard::leverWords() const
{
    const TrimTask* task = m_desk.task();
    return task ? coreWords(task->lever.name) : QString();
}

QString TrimBoard::slopeWords(double hertzAMetre) const
{
    const bool metric = system() == units::System::Metric;
    constexpr double centimetre = 0.01, inch = 0.0254, kilohertz = 1e3;
    return (metric ? tr("%1 kHz a cm") : tr("%1 kHz an inch")).arg(hertzAMetre * (metric ? centimetre : inch) / kilohertz, 0, 'f', 1);
}

double TrimBoard::target() const
{
    if (const TrimTask* task = m_desk.task())
        return task->target;
    return m_context.document.hasAntenna() ? shapes::frequencyOf(m_context.document.antenna().shape, m_context.document.configuration())
                                           : 0.0;
}

QString TrimBoard::headline() const
{
    if (const TrimNext* next = m_desk.next())
        return coreWords(next->words, system());
    return m_desk.givenUp()          ? tr("Not worked out: it was left. Go on below the stages.")
           : m_desk.faults().empty() ? tr("Being worked out …")
                                     : coreWords(m_desk.faults().front().message, system());
}

QString TrimBoard::explanation() const
{
    const TrimNext* next = m_desk.next();
    if (!next)
        return {};
    if (const std::string where = unreadOf(m_context.document.design(), m_context.document.current()); !where.empty())
        return coreWords(unreadWords(where), system());
    if (next->behind)
        return tr("The last sweep cannot be what it seems (below): a length worked out of it may be wrong, and wire that is cut is gone.");
    if (next->modelSlope == 0.0)
        return tr("The model finds no resonance near the goal, so no slope is known; tune the shape first.");
    QStringList words;
    if (std::abs(next->aim - next->target) > 1e3)
        words << tr("It hangs at another height now than it will: aim at %1 here for %2 up there.")
                     .arg(frequencyWords(next->aim), frequencyWords(next->target));
    const double off = next->learned.offset;
    if (next->predicted > 0.0) {
        const QString side = off > 0.0 ? tr("above") : tr("below");
        words << tr("The real antenna's dip lies %1 kHz %2 the model's; sure within %3 kHz.")
                     .arg(std::abs(off) / 1e3, 0, 'f', 0)
                     .arg(side)
                     .arg(2e-3 * next->sure, 0, 'f', 0);
    } else {
        if (std::abs(next->modelDip / next->target - 1.0) > 1e-3)
            words << tr("As it hangs now the model has it at %1.").arg(frequencyWords(next->modelDip));
        words << tr("The model says the dip rises %1 cut from %2.").arg(slopeWords(-next->modelSlope), leverWords());
    }
    if (next->change != 0.0)
        words << tr("The dip should come to %1.").arg(frequencyWords(next->predicted));
    if (next->step == TrimStep::Cut) {
        if (std::abs(next->predicted - next->target) > next->tolerance)
            words << tr("Not all of it at once: what is cut is gone.");
        words << (next->fold > 0.0 ? tr("Folded back tight, %1 do the same, and can be undone; loosely it takes more.")
                                         .arg(smallWords(next->fold, system()))
                                   : tr("Folding back first can be undone."));
    }
    return words.join(QLatin1Char(' '));
}

/// What the step does elsewhere; the usual caution where it does nothing.
QString TrimBoard::beside() const
{
    QStringList words;
    const TrimNext* next = m_desk.next();
    if (next && next->other) {
        const OtherLever& o = *next->other;
        const bool turned =
            std::abs(o.change) >= 1.0 &&
            shapes::familyOf(m_context.document.antenna().shape).spec(m_context.document.antenna().shape, o.lever.parameter)->quantity ==
                units::Quantity::Angle;
        const QString amount = turned ? tr("%1°").arg(std::abs(o.change), 0, 'f', 0)
                               : o.lever.kind == shapes::LeverKind::Tap
                                   ? valueWords(std::abs(o.change), units::Quantity::Inductance, system())
                                   : smallWords(std::abs(o.change), system());
        words << (o.change < 0.0 ? tr("Or set %1 %2 lower: that does it too, and can be undone.")
                                 : tr("Or set %1 %2 higher: that does it too, and can be undone."))
                     .arg(coreWords(o.lever.name), amount);
    }
    if (const auto enough = m_desk.enough())
        words << tr("As it is the whole band is under %1, and so under your limit: stop here if you like.").arg(*enough, 0, 'f', 1);
    for (const Text& t : m_desk.effects())
        words << coreWords(t, system());
    if (words.isEmpty())
        words << tr("Same height, same sides, same surroundings each time. Nobody touches the wire while transmitting.");
    return words.join(QLatin1Char(' '));
}

double TrimBoard::heightOfWords(const QString& words, double width) const
{
    return QFontMetricsF(m_context.theme.font(13)).boundingRect(QRectF(0, 0, width, 1000), Qt::TextWordWrap, words).height();
}

double TrimBoard::cardHeight(double width) const
{
    const double button = m_desk.doubted() ? m_believe->sizeHint().height() + 10.0 : 0.0;
    return 40.0 + heightOfWords(explanation(), width - 36.0) + 6.0 + heightOfWords(beside(), width - 36.0) + 14.0 + button;
}

/// What stands between card and log.
double TrimBoard::rowsHeight() const
{
    const double tasks = m_desk.tasks().size() > 1 ? double(m_desk.tasks().size()) : 0.0, rows = double(m_desk.sense().size());
    return (rows > 0.0 ? 22.0 + senseRow * rows + 4.0 : 0.0) + (tasks > 0.0 ? 22.0 + orderRow * tasks + 6.0 : 0.0);
}

/// Lower in a low window, so that the last lines of the log are seen.
double TrimBoard::chartHeight() const
{
    const double rest = chartTop + axisHeight + cardHeight(width()) + 14.0 + rowsHeight() + logRoom;
    return std::clamp(double(height()) - rest, lowestChart, highestChart);
}

double TrimBoard::cardTop() const { return chartTop + chartHeight() + axisHeight; }

double TrimBoard::logTop() const { return cardTop() + cardHeight(width()) + 14.0 + rowsHeight(); }

/// Signs of the last sweep, and the check that tells.
double TrimBoard::paintSense(Sketch& sketch, double top, double width) const
{
    if (m_desk.sense().empty())
        return top;
    const Colours& c = sketch.colours();
    sketch.text({0.0, top}, tr("Does it make sense?"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    double y = top + 20.0;
    for (const SenseRow& row : m_desk.sense()) {
        const QPointF at(9.0, y + 0.5 * senseRow - 2.0);
        sketch.painter().setPen(Qt::NoPen);
        sketch.painter().setBrush(row.good() ? c.leafPale : c.petalPale);
        sketch.painter().drawEllipse(at, 8.0, 8.0);
        sketch.text(at, row.good() ? QStringLiteral("✓") : QStringLiteral("?"), Qt::AlignHCenter | Qt::AlignVCenter, {c.ink, 11, true});
        sketch.painter().setFont(sketch.theme().font(12));
        sketch.painter().setPen(c.ink);
        sketch.painter().drawText(QRectF(26.0, y, width - 28.0, senseRow), Qt::TextWordWrap, coreWords(row.words, system()));
        y += senseRow;
    }
    return y + 4.0;
}

/// Which piece comes when, where there are several.
double TrimBoard::paintOrder(Sketch& sketch, double top, double width) const
{
    const std::vector<TrimTask>& tasks = m_desk.tasks();
    if (tasks.size() < 2)
        return top;
    const auto known = m_desk.next() ? m_desk.outcome() : nullptr;
    const Colours& c = sketch.colours();
    sketch.text({0.0, top}, tr("Which piece, in which order"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    double y = top + 20.0;
    for (std::size_t i = 0; i < tasks.size(); ++i) {
        const bool shown = i == m_desk.place(), done = known && known->states[i] == TrimStep::Done;
        if (shown)
            sketch.painter().fillRect(QRectF(0.0, y, width, orderRow - 2.0), c.leafPale);
        sketch.text({8.0, y + 0.5 * orderRow - 1.0}, QString::number(i + 1), Qt::AlignLeft | Qt::AlignVCenter, {c.ink, 12, true});
        sketch.text({30.0, y + 0.5 * orderRow - 1.0}, tr("%1, %2").arg(frequencyWords(tasks[i].target), coreWords(tasks[i].lever.name)),
                    Qt::AlignLeft | Qt::AlignVCenter, {c.ink, 12, shown});
        sketch.text({width - 8.0, y + 0.5 * orderRow - 1.0},
                    done                           ? tr("finished: crimp it")
                    : known && i == known->working ? tr("this one now")
                    : !known                       ? QString()
                                                   : tr("waits: what is cut inside moves it"),
                    Qt::AlignRight | Qt::AlignVCenter, {done ? c.leaf : c.inkSoft, 12});
        y += orderRow;
    }
    return y;
}

void TrimBoard::render(Sketch& sketch, const QSizeF& size)
{
    sketch.painter().fillRect(QRectF({0, 0}, size), sketch.colours().paper);
    if (!m_context.document.hasAntenna()) {
        sketch.text({0.5 * size.width(), 60.0}, tr("No antenna yet: add one with + at the top."), Qt::AlignHCenter | Qt::AlignTop,
                    {sketch.colours().inkSoft, 14});
        return;
    }
    paintCurves(sketch, size.width());
    paintAdvice(sketch, cardTop(), size.width());
    const double below = paintSense(sketch, cardTop() + cardHeight(size.width()) + 10.0, size.width());
    paintOrder(sketch, below, size.width());
    if (!onScreen() || m_log->rowCount() == 0)
        paintLog(sketch, logTop(), size);
}

/// Holds the goal, everything measured, and the model's dip where that is near.
SwrChart TrimBoard::chartFor(double width) const
{
    constexpr double near = 0.06, room = 0.025;
    double low = target(), high = target();
    const auto& log = m_context.document.antenna().trim.measurements;
    for (std::size_t i : m_desk.entries())
        if (std::abs(log[i].dip / target() - 1.0) < 2.0 * near)
            low = std::min(low, log[i].dip), high = std::max(high, log[i].dip);
    if (const auto dip = m_pending.dip())
        low = std::min(low, dip->frequency), high = std::max(high, dip->frequency);
    if (const CurvePointer curve = m_context.solver.curve(); curve && std::abs(curve->fundamental / target() - 1.0) < near)
        low = std::min(low, curve->fundamental), high = std::max(high, curve->fundamental);
    const double pad = std::max(room * target(), 0.35 * (high - low));
    return {QRectF(40, chartTop, width - 70, chartHeight()), low - pad, high + pad};
}

/// The model as drawn, the goal, and what was measured: points where a dip and its SWR were read.
void TrimBoard::paintCurves(Sketch& sketch, double width) const
{
    const Colours& c = sketch.colours();
    const Design& design = m_context.document.design();
    const CurvePointer curve = m_context.solver.curve();
    const SwrChart chart = chartFor(width);
    const WantedBand* wanted = findBand(design, bandFor(design, target()));
    const Band band = wanted ? wanted->band : Band{};
    chart.frame(sketch, std::clamp(band.from, chart.from, chart.to), std::clamp(band.to, chart.from, chart.to), design.operation.swrLimit,
                true);
    for (double f : niceTicks(chart.from, chart.to, 8))
        sketch.text({chart.x(f), chart.area.bottom() + 4}, QString::number(f / 1e6, 'f', chart.to - chart.from < 2e5 ? 3 : 2),
                    Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text({chart.area.right() + 30, chart.area.bottom() + 4}, tr("MHz"), Qt::AlignRight | Qt::AlignTop, {c.inkFaint, 12});
    const double goal = chart.x(target());
    sketch.line({goal, chart.area.top()}, {goal, chart.area.bottom()}, c.leaf, 1.4, Qt::DashLine);
    sketch.text({goal + 5, chart.area.top()}, tr("goal %1").arg(target() / 1e6, 0, 'f', 3), Qt::AlignLeft | Qt::AlignTop,
                {c.leaf, 12, true});
    sketch.reserveLine({goal, chart.area.top()}, {goal, chart.area.bottom()});
    for (const MeasuredPoint& p : m_pending.points)
        if (p.frequency >= chart.from && p.frequency <= chart.to)
            sketch.reserve(QRectF(chart.x(p.frequency) - 3, chart.y(std::clamp(p.swr, 1.0, 5.0)) - 3, 6, 6));
    sketch.keepWithin(chart.area);
    if (curve)
        paintExpected(sketch, chart, *curve);
    if (curve) {
        chart.curve(
            sketch, [&](double f) { return curve->swrAt(f); }, QPen(c.inkFaint, 1.4));
        std::vector<Sketch::Place> places; // below the curve or above it, from its left end on
        for (double share : {0.06, 0.1, 0.15, 0.2, 0.3, 0.7, 0.8, 0.88, 0.94}) {
            const double f = chart.from + share * (chart.to - chart.from), swr = curve->swrAt(f);
            for (double away : {8.0, 16.0, 24.0})
                if (!std::isnan(swr) && swr < 5.0) {
                    places.push_back({{chart.x(f), chart.y(swr) + away}, Qt::AlignRight | Qt::AlignTop});
                    places.push_back({{chart.x(f), chart.y(swr) - away}, Qt::AlignLeft | Qt::AlignBottom});
                }
        }
        sketch.fit(places, tr("model, as drawn"), {c.inkSoft, 12});
    }
    paintMeasured(sketch, chart);
    sketch.keepWithin({});
}

/// The model's curve moved to where the dip should be after the next step, and how far it may be off.
void TrimBoard::paintExpected(Sketch& sketch, const SwrChart& chart, const study::Curve& curve) const
{
    const TrimNext* next = m_desk.next();
    if (!next || !(next->predicted > 0.0) || !(curve.fundamental > 0.0))
        return;
    const Colours& c = sketch.colours();
    const auto moved = [&](double dip) { return [&curve, by = dip / curve.fundamental](double f) { return curve.swrAt(f / by); }; };
    constexpr int steps = 120;
    const auto least = moved(next->predicted - 2.0 * next->sure), most = moved(next->predicted + 2.0 * next->sure),
               middle = moved(next->predicted);
    std::vector<double> frequency, low, high;
    for (int i = 0; i <= steps; ++i) {
        const double f = chart.from + (chart.to - chart.from) * i / steps;
        const double values[] = {least(f), middle(f), most(f)};
        if (std::any_of(std::begin(values), std::end(values), [](double v) { return std::isnan(v); }))
            continue;
        frequency.push_back(f);
        low.push_back(*std::min_element(std::begin(values), std::end(values)));
        high.push_back(*std::max_element(std::begin(values), std::end(values)));
    }
    if (frequency.size() < 2)
        return;
    chart.between(sketch, frequency, low, high, c.skyPale);
    chart.curve(sketch, middle, QPen(c.sky, 1.4, Qt::DashLine));
    const double right = chart.to - 0.16 * (chart.to - chart.from);
    const double swr = middle(right);
    if (!std::isnan(swr) && swr < 5.0)
        sketch.label({chart.x(right), chart.y(swr) - 8},
                     next->change != 0.0 ? tr("expected after this step") : tr("model, with what was learned"),
                     Qt::AlignRight | Qt::AlignBottom, {c.sky, 12});
}

void TrimBoard::paintMeasured(Sketch& sketch, const SwrChart& chart) const
{
    const Colours& c = sketch.colours();
    const auto& log = m_context.document.antenna().trim.measurements;
    const std::vector<std::size_t>& own = m_desk.entries(); // other bands have their own picture
    const Id marked = chosen();
    constexpr double radius = 4.5, capped = 5.0; // px; the chart's top
    const auto place = [&](const Measurement& m) {
        return QPointF(chart.x(m.dip), m.dipSwr > 0.0 ? chart.y(std::min(m.dipSwr, capped)) : chart.area.bottom());
    };
    for (std::size_t i : own) { // sweeps: the last as dots, those before as a thin line
        const bool last = i == own.back();
        QPainterPath line;
        for (const auto& [f, swr] : log[i].sweep) {
            if (f < chart.from || f > chart.to)
                continue;
            const QPointF at(chart.x(f), chart.y(std::min(swr, capped)));
            line.elementCount() == 0 ? line.moveTo(at) : line.lineTo(at);
            if (last && log[i].sweep.size() <= 120) {
                sketch.painter().setPen(QPen(c.ink, 1.0));
                sketch.painter().setBrush(c.card);
                sketch.painter().drawEllipse(at, 2.6, 2.6);
            }
        }
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().setPen(QPen(last ? c.ink : c.inkFaint, last ? 1.6 : 1.0));
        sketch.painter().drawPath(line);
    }
    if (!m_pending.points.empty()) {
        for (const MeasuredPoint& p : m_pending.points)
            if (p.frequency >= chart.from && p.frequency <= chart.to) {
                sketch.painter().setPen(QPen(c.petal, 1.2));
                sketch.painter().setBrush(c.card);
                sketch.painter().drawEllipse(QPointF(chart.x(p.frequency), chart.y(std::clamp(p.swr, 1.0, capped))), 2.4, 2.4);
            }
        const auto dip = m_pending.dip();
        sketch.label({chart.x(dip->frequency), chart.y(std::clamp(dip->swr, 1.0, capped)) + 8}, tr("read, not written down"),
                     Qt::AlignHCenter | Qt::AlignTop, {c.ink, 12});
    }
    for (std::size_t i : own)
        sketch.reserve(QRectF(place(log[i]) - QPointF(radius, radius), QSizeF(2 * radius, 2 * radius)));
    for (std::size_t k = own.size(); k-- > 0;) { // the last one has the first choice of a place for its words
        const std::size_t i = own[k];
        const Measurement& m = log[i];
        const bool last = k + 1 == own.size(), first = k == 0;
        sketch.painter().setPen(QPen(m.id == marked ? c.petal : c.ink, m.id == marked ? 2.4 : 1.2));
        sketch.painter().setBrush(m.dipSwr > 0.0 ? (last ? c.ink : c.card) : QBrush(Qt::NoBrush));
        sketch.painter().drawEllipse(place(m), radius, radius);
        constexpr std::size_t mostNamed = 5; // beyond, the log tells
        if (!last && !first && m.id != marked && own.size() > mostNamed)
            continue;
        const QString words = last    ? tr("now %1").arg(m.dip / 1e6, 0, 'f', 3)
                              : first ? tr("as cut %1").arg(m.dip / 1e6, 0, 'f', 3)
                                      : tr("%1: %2").arg(i + 1).arg(m.dip / 1e6, 0, 'f', 3);
        chart.name(sketch, place(m), radius, words, {last ? c.ink : c.inkSoft, 12, last});
    }
}

void TrimBoard::paintAdvice(Sketch& sketch, double top, double width) const
{
    const Colours& c = sketch.colours();
    const QRectF card(0, top, width, cardHeight(width));
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(c.petalPale);
    sketch.painter().drawRoundedRect(card, 6, 6);
    sketch.text({18, top + 12}, sketch.theme().elided(headline(), width - 36.0, 18, true), Qt::AlignLeft | Qt::AlignTop, {c.ink, 18, true});
    const double why = heightOfWords(explanation(), width - 36.0);
    sketch.painter().setFont(sketch.theme().font(13));
    sketch.painter().setPen(c.ink);
    sketch.painter().drawText(QRectF(18, top + 40, width - 36, why + 2), Qt::TextWordWrap, explanation());
    sketch.painter().setPen(c.inkSoft);
    sketch.painter().drawText(QRectF(18, top + 46 + why, width - 36, card.height()), Qt::TextWordWrap, beside());
}

void TrimBoard::paintLog(Sketch& sketch, double top, const QSizeF& size) const
{
    if (top + tableHeaderHeight + tableRowHeight > size.height())
        return; // a low picture leaves it out
    const double y = paintTable(sketch, *m_log, columnShares, top, size.width(), size.height());
    if (m_log->rowCount() == 0)
        sketch.text({0, y + 8}, tr("Nothing measured yet. Last year's figures are worth keeping: note height, weather and soil."),
                    Qt::AlignLeft | Qt::AlignTop, {sketch.colours().inkSoft, 12});
}

} // namespace vetchling::app

#include "app/stages/trim/log_board.h"

#include "app/plots/swr_chart.h"
#include "app/view/axis.h"
#include "app/view/words.h"
#include "core/design/unread.h"

#include <QKeyEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {

LogBoard::LogBoard(ViewContext& context, LogDesk& desk)
    : Canvas(context), m_desk(desk), m_model(new LogBookModel(this)), m_table(new Table(m_model, bookShares(), this))
{
    setObjectName(QStringLiteral("logBoard"));
    setAccessibleName(tr("The log of this antenna"));
    m_table->setObjectName(QStringLiteral("logBook"));
    m_table->setAccessibleName(tr("Everything that was written down"));
    m_table->setSelectionMode(QAbstractItemView::ExtendedSelection);
    m_table->setToolTip(tr("Choose two with Ctrl to compare them; Delete removes one"));
    m_table->installEventFilter(this);
    connect(m_table->selectionModel(), &QItemSelectionModel::selectionChanged, this, [this] {
        update();
        emit chosenChanged();
    });
    refresh();
}

void LogBoard::refresh()
{
    const std::vector<Id> before = chosen();
    const LogFacts now = facts();
    m_model->setLog(now.log, now.system, now.words);
    if (chosen() != before)
        for (const Id& id : before)
            if (const int row = m_model->rowOf(id); row >= 0)
                m_table->selectionModel()->select(m_model->index(row, 0), QItemSelectionModel::Select | QItemSelectionModel::Rows);
    m_table->setVisible(m_model->rowCount() > 0);
    m_table->setGeometry(0, int(LogDrawing::bookTop), width(), std::max(60, height() - int(LogDrawing::bookTop)));
    update();
}

void LogBoard::resizeEvent(QResizeEvent* event)
{
    Canvas::resizeEvent(event);
    refresh();
}

bool LogBoard::eventFilter(QObject* watched, QEvent* event)
{
    if (watched == m_table && event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Delete) {
        emit removeWanted();
        return true;
    }
    return Canvas::eventFilter(watched, event);
}

std::vector<Id> LogBoard::chosen() const
{
    std::vector<int> rows;
    for (const QModelIndex& index : m_table->selectionModel()->selectedRows())
        rows.push_back(index.row());
    std::sort(rows.begin(), rows.end());
    std::vector<Id> ids;
    for (int row : rows)
        if (ids.size() < 2)
            ids.push_back(m_model->idAt(row));
    return ids;
}

QString LogBoard::sentence() const
{
    if (const std::string where = unreadOf(m_context.document.design(), m_context.document.current()); !where.empty())
        return coreWords(unreadWords(where), m_context.system());
    if (const auto two = chosen(); two.size() == 2) {
        QStringList words;
        for (const Text& t : m_desk.compared(two[0], two[1]))
            words << coreWords(t, m_context.system());
        return words.isEmpty() ? tr("These two say nothing of one another.") : words.join(QLatin1Char(' '));
    }
    QStringList words;
    for (const LogLine& line : m_desk.lines())
        if (line.drift)
            words << (m_desk.lines().size() > 1
                          ? tr("%1: %2").arg(frequencyWords(line.series.target), coreWords(driftWords(*line.drift), m_context.system()))
                          : coreWords(driftWords(*line.drift), m_context.system()));
    if (words.isEmpty())
        return m_model->rowCount() == 0 ? tr("Nothing written down yet. Last year's figures are worth keeping.")
                                        : tr("Measure again next season, on wet and on dry ground: then this says what wanders and why.");
    return words.join(QLatin1Char(' '));
}

LogFacts LogBoard::facts() const
{
    LogFacts facts;
    facts.sentence = sentence();
    facts.system = m_context.system();
    facts.site = QString::fromStdString(m_context.document.design().site.name);
    facts.name = m_context.document.shownName();
    if (m_context.document.hasAntenna())
        facts.log = m_context.document.antenna().trim,
        facts.words = logWordsOf(m_context.document.design(), m_context.document.antenna(), facts.system);
    facts.lines = m_desk.lines();
    facts.span = m_desk.span();
    facts.marked = chosen();
    return facts;
}

void LogBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    const QRectF area(44, LogDrawing::top, size.width() - 70, LogDrawing::height);
    if (!m_context.document.hasAntenna() || m_model->rowCount() == 0)
        sketch.text({0, 20},
                    m_context.document.hasAntenna()
                        ? tr("Write the first measurement down under Next, or a report from the air on the right.")
                        : tr("No antenna yet: add one with + at the top."),
                    Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
    else if (!paintCompared(sketch, area))
        LogDrawing(facts()).times(sketch, area);
    if (!onScreen() && m_model->rowCount() > 0)
        paintTable(sketch, *m_model, bookShares(), LogDrawing::bookTop, size.width(), size.height());
}

/// Two sweeps over one another, where both have one.
bool LogBoard::paintCompared(Sketch& sketch, const QRectF& area) const
{
    const auto two = chosen();
    if (two.size() != 2)
        return false;
    const Measurement *a = m_desk.measurement(two[0]), *b = m_desk.measurement(two[1]);
    if (!a || !b || a->sweep.size() < 2 || b->sweep.size() < 2)
        return false;
    const Colours& c = sketch.colours();
    const SwrChart chart{area.adjusted(0, 4, 0, -20), std::min(a->sweep.front().first, b->sweep.front().first),
                         std::max(a->sweep.back().first, b->sweep.back().first)};
    chart.frame(sketch, chart.from, chart.from, m_context.document.design().operation.swrLimit, false);
    for (double f : niceTicks(chart.from, chart.to, 8))
        sketch.text({chart.x(f), chart.area.bottom() + 4}, QString::number(f / 1e6, 'f', 2), Qt::AlignHCenter | Qt::AlignTop,
                    {c.inkSoft, 12});
    const auto draw = [&](const Measurement& m, const QColor& colour, Qt::PenStyle style, bool later) {
        QPainterPath line;
        for (const auto& [f, swr] : m.sweep) {
            const QPointF at(chart.x(f), chart.y(std::clamp(swr, 1.0, 5.0)));
            line.elementCount() == 0 ? line.moveTo(at) : line.lineTo(at);
        }
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().setPen(QPen(colour, 1.8, style));
        sketch.painter().drawPath(line);
        sketch.label({chart.x(m.dip), chart.y(std::clamp(m.dipSwr, 1.0, 5.0)) + (later ? 6 : -6)},
                     tr("%1: %2").arg(later ? tr("later") : tr("earlier"), QString::number(m.dip / 1e6, 'f', 3)),
                     Qt::AlignHCenter | (later ? Qt::AlignTop : Qt::AlignBottom), {colour, 12, later});
    };
    draw(*a, c.inkSoft, Qt::DashLine, false);
    draw(*b, c.ink, Qt::SolidLine, true);
    return true;
}

} // namespace vetchling::app

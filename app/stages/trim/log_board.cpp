#include "app/stages/trim/log_board.h"

#include "app/plots/swr_chart.h"
#include "app/view/axis.h"
#include "app/view/words.h"
#include "core/design/unread.h"
#include "core/files/writer.h"

#include <QBuffer>
#include <QDate>
#include <QKeyEvent>
#include <QPdfWriter>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

const std::vector<double> bookShares{0.165, 0.16, 0.075, 0.08, 0.065, 0.125, 0.165, 0.165};
constexpr double timesTop = 8.0, timesHeight = 210.0, bookTop = timesTop + timesHeight + 16.0; // px
constexpr qint64 epochJulian = 2440588;                                                        // of 1970-01-01

QString dayWords(double day, double span)
{
    constexpr double hours = 3.0, years = 400.0; // days
    if (span < hours) {
        const int minutes = int(std::lround(1440.0 * (day - std::floor(day))));
        return QStringLiteral("%1:%2").arg(minutes / 60).arg(minutes % 60, 2, 10, QLatin1Char('0'));
    }
    const QDate date = QDate::fromJulianDay(epochJulian + qint64(std::floor(day)));
    return QLocale(QLocale::English).toString(date, span > years ? QStringLiteral("MMM yyyy") : QStringLiteral("d MMM"));
}

} // namespace

LogBoard::LogBoard(ViewContext& context, LogDesk& desk)
    : Canvas(context), m_desk(desk), m_model(new LogBookModel(this)), m_table(new Table(m_model, bookShares, this))
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
    m_model->setLog(m_context.document.hasAntenna() ? m_context.document.antenna().trim : TrimLog(), m_context.system());
    if (chosen() != before)
        for (const Id& id : before)
            if (const int row = m_model->rowOf(id); row >= 0)
                m_table->selectionModel()->select(m_model->index(row, 0), QItemSelectionModel::Select | QItemSelectionModel::Rows);
    m_table->setVisible(m_model->rowCount() > 0);
    m_table->setGeometry(0, int(bookTop), width(), std::max(60, height() - int(bookTop)));
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

void LogBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    const QRectF area(44, timesTop, size.width() - 70, timesHeight);
    if (!m_context.document.hasAntenna() || m_model->rowCount() == 0)
        sketch.text({0, 20},
                    m_context.document.hasAntenna()
                        ? tr("Write the first measurement down under Next, or a report from the air on the right.")
                        : tr("No antenna yet: add one with + at the top."),
                    Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
    else if (!paintCompared(sketch, area))
        paintTimes(sketch, area);
    if (!onScreen() && m_model->rowCount() > 0)
        paintTable(sketch, *m_model, bookShares, bookTop, size.width(), size.height());
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

void LogBoard::paintTimes(Sketch& sketch, const QRectF& area) const
{
    const auto span = m_desk.span();
    if (!span) {
        sketch.text(area.topLeft(), tr("No entry has a date."), Qt::AlignLeft | Qt::AlignTop, {sketch.colours().inkSoft, 12});
        return;
    }
    const double pad = std::max(0.03, 0.06 * (span->second - span->first));
    const double from = span->first - pad, to = span->second + pad;
    const auto& lines = m_desk.lines();
    const double foot = 40.0, each = (area.height() - foot) / double(std::max<std::size_t>(1, lines.size()));
    for (std::size_t i = 0; i < lines.size(); ++i)
        paintSeries(sketch, QRectF(area.left(), area.top() + each * double(i), area.width(), each - 8.0), lines[i], from, to,
                    i + 1 == lines.size());
    paintReports(sketch, QRectF(area.left(), area.bottom() - 20.0, area.width(), 20.0), from, to);
}

/// Off the goal, so that bands share one look: the goal is a line, wet readings are filled, dry ones hollow.
void LogBoard::paintSeries(Sketch& sketch, const QRectF& area, const LogLine& line, double from, double to, bool dates) const
{
    const Colours& c = sketch.colours();
    double least = -5e3, most = 5e3; // Hz off the goal
    for (const DipPoint& p : line.series.points)
        least = std::min(least, 1.15 * (p.dip - line.series.target)), most = std::max(most, 1.15 * (p.dip - line.series.target));
    most += 0.12 * (most - least); // words stand over the points
    const auto place = [&](double day, double dip) {
        return QPointF(area.left() + area.width() * (day - from) / (to - from),
                       area.bottom() - area.height() * std::clamp((dip - line.series.target - least) / (most - least), 0.0, 1.0));
    };
    sketch.line({area.left(), area.bottom()}, {area.right(), area.bottom()}, c.hairline);
    const double goal = place(from, line.series.target).y();
    sketch.line({area.left(), goal}, {area.right(), goal}, c.leaf, 1.2, Qt::DashLine);
    sketch.reserve(QRectF(area.right() - 120, goal - 16, 120, 18));
    sketch.reserveLine({area.left(), goal}, {area.right(), goal});
    const std::vector<Id> marked = chosen();
    sketch.text({area.right(), goal - 2}, tr("goal %1").arg(line.series.target / 1e6, 0, 'f', 3), Qt::AlignRight | Qt::AlignBottom,
                {c.leaf, 12, true});
    for (double kilohertz : niceTicks(least / 1e3, most / 1e3, 4))
        sketch.text({area.left() - 6, place(from, line.series.target + 1e3 * kilohertz).y()},
                    QStringLiteral("%1%2")
                        .arg(kilohertz > 0   ? QStringLiteral("+")
                             : kilohertz < 0 ? QStringLiteral("−")
                                             : QString())
                        .arg(std::abs(kilohertz)),
                    Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 11});
    QPointF before;
    for (std::size_t i = 0; i < line.series.points.size(); ++i) {
        const DipPoint& p = line.series.points[i];
        const QPointF at = place(p.day, p.dip);
        if (i > 0)
            sketch.line(before, at, c.inkFaint, 1.2);
        before = at;
    }
    for (const DipPoint& p : line.series.points) {
        const QPointF at = place(p.day, p.dip);
        const bool damp = p.soil == SoilState::Wet || p.soil == SoilState::Damp;
        const bool now = std::find(marked.begin(), marked.end(), p.measurement) != marked.end();
        if (now) {
            sketch.painter().setPen(QPen(c.petal, 2.0));
            sketch.painter().setBrush(Qt::NoBrush);
            sketch.painter().drawEllipse(at, 8.0, 8.0);
        }
        sketch.painter().setPen(QPen(c.sky, 1.6));
        sketch.painter().setBrush(damp ? c.sky : c.card);
        sketch.painter().drawEllipse(at, 4.5, 4.5);
        sketch.reserve(QRectF(at - QPointF(5, 5), QSizeF(10, 10)));
    }
    for (const DipPoint& p : line.series.points)
        if (p.soil != SoilState::NotNoted)
            sketch.label(place(p.day, p.dip) + QPointF(0, -7), coreWords(soilStateWords[std::size_t(p.soil)]),
                         Qt::AlignHCenter | Qt::AlignBottom, {c.inkSoft, 11});
    if (!dates)
        return;
    for (double day : niceTicks(from, to, 6))
        sketch.text({place(day, 0.0).x(), area.bottom() + 4}, dayWords(day, to - from), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 11});
    sketch.text({area.left() - 6, area.bottom() + 4}, tr("kHz"), Qt::AlignRight | Qt::AlignTop, {c.inkFaint, 11});
}

/// Reports from the air as petals under the time line.
void LogBoard::paintReports(Sketch& sketch, const QRectF& area, double from, double to) const
{
    const Colours& c = sketch.colours();
    for (const AirReport& r : m_context.document.antenna().trim.reports)
        if (const auto day = dayOf(r.when)) {
            const double x = area.left() + area.width() * (*day - from) / (to - from);
            sketch.triangle({x, area.top() + 4}, c.petal, c.petal);
            sketch.label({x + 8, area.top() + 9}, QString::fromStdString(r.report), Qt::AlignLeft | Qt::AlignVCenter, {c.inkSoft, 11});
        }
}

Faults LogBoard::writePage(const QString& path)
{
    constexpr double pageWidth = 900.0; // px of the drawing
    QByteArray content;
    {
        QBuffer buffer(&content);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        writer.setPageSize(QPageSize(m_context.system() == units::System::Metric ? QPageSize::A4 : QPageSize::Letter));
        writer.setPageOrientation(QPageLayout::Landscape);
        writer.setPageMargins(QMarginsF(13, 13, 13, 13), QPageLayout::Millimeter);
        writer.setTitle(tr("Log of %1").arg(m_context.document.shownName()));
        writer.setCreator(QStringLiteral("Vetchling"));
        QPainter painter(&writer);
        painter.scale(writer.width() / pageWidth, writer.width() / pageWidth);
        const QSizeF size(pageWidth, pageWidth * writer.height() / writer.width());
        for (int row = paintPage(painter, size); row < m_model->rowCount();) {
            writer.newPage();
            row = paintRest(painter, size, row);
        }
    }
    return files::writeWhole(path.toStdString(), content.toStdString());
}

/// Returns the first row that is left over.
int LogBoard::paintPage(QPainter& painter, const QSizeF& size) const
{
    constexpr double head = 62.0;
    Theme paper;
    paper.setMode(Theme::Mode::Paper);
    Sketch sketch(painter, paper);
    sketch.text({0, 0},
                tr("Log of %1, %2").arg(m_context.document.shownName(), QString::fromStdString(m_context.document.design().site.name)),
                Qt::AlignLeft | Qt::AlignTop, {paper.colours().ink, 16, true});
    painter.setFont(paper.font(12));
    painter.setPen(paper.colours().ink);
    painter.drawText(QRectF(0, 24, size.width(), head - 26.0), Qt::TextWordWrap, sentence());
    painter.save();
    painter.translate(0, head);
    paintTimes(sketch, QRectF(44, timesTop, size.width() - 70, timesHeight));
    paintTable(sketch, *m_model, bookShares, bookTop, size.width(), size.height() - head, 0);
    painter.restore();
    return tableRowsThatFit(bookTop, size.height() - head);
}

int LogBoard::paintRest(QPainter& painter, const QSizeF& size, int row) const
{
    Theme paper;
    paper.setMode(Theme::Mode::Paper);
    Sketch sketch(painter, paper);
    paintTable(sketch, *m_model, bookShares, 0.0, size.width(), size.height(), row);
    return row + tableRowsThatFit(0.0, size.height());
}

} // namespace vetchling::app

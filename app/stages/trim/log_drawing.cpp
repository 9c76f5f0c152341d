#include "app/stages/trim/log_drawing.h"

#include "app/stages/trim/log_book_model.h"
#include "app/view/axis.h"
#include "app/view/paper.h"
#include "app/view/words.h"
#include "app/widgets/table.h"

#include <QDate>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr std::size_t mostNamed = 24;                  // points that have words of their own
constexpr double pageWidth = 900.0, headHeight = 62.0; // px of the drawing
constexpr qint64 epochJulian = 2440588;                // of 1970-01-01

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

void paintHead(Sketch& sketch, const LogFacts& facts, double width)
{
    const Colours& c = sketch.colours();
    sketch.text({0, 0}, QCoreApplication::translate("LogDrawing", "Log of %1, %2").arg(facts.name, facts.site),
                Qt::AlignLeft | Qt::AlignTop, {c.ink, 16, true});
    sketch.painter().setFont(sketch.theme().font(12));
    sketch.painter().setPen(c.ink);
    sketch.painter().drawText(QRectF(0, 24, width, headHeight - 26.0), Qt::TextWordWrap, facts.sentence);
}

} // namespace

const std::vector<double>& bookShares()
{
    static const std::vector<double> shares{0.15, 0.225, 0.065, 0.075, 0.06, 0.11, 0.16, 0.155};
    return shares;
}

void LogDrawing::times(Sketch& sketch, const QRectF& area) const
{
    if (!m_facts.span) {
        sketch.text(area.topLeft(), tr("No entry has a date."), Qt::AlignLeft | Qt::AlignTop, {sketch.colours().inkSoft, 12});
        return;
    }
    const double pad = std::max(0.03, 0.06 * (m_facts.span->second - m_facts.span->first));
    const double from = m_facts.span->first - pad, to = m_facts.span->second + pad;
    const auto& lines = m_facts.lines;
    const double foot = 40.0, each = (area.height() - foot) / double(std::max<std::size_t>(1, lines.size()));
    for (std::size_t i = 0; i < lines.size(); ++i)
        paintSeries(sketch, QRectF(area.left(), area.top() + each * double(i), area.width(), each - 8.0), lines[i], from, to,
                    i + 1 == lines.size());
    paintReports(sketch, QRectF(area.left(), area.bottom() - 20.0, area.width(), 20.0), from, to);
}

/// Off the goal, so that bands share one look: the goal is a line, wet readings are filled, dry ones hollow.
void LogDrawing::paintSeries(Sketch& sketch, const QRectF& area, const LogLine& line, double from, double to, bool dates) const
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
    const std::vector<Id>& marked = m_facts.marked;
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
            sketch.line(before, at, c.inkFaint, 1.2), sketch.reserveLine(before, at);
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
    const bool many = line.series.points.size() > mostNamed;
    for (const DipPoint& p : many ? std::vector<DipPoint>() : line.series.points)
        if (p.soil != SoilState::NotNoted)
            sketch.label(place(p.day, p.dip) + QPointF(0, -7), coreWords(soilStateWords[std::size_t(p.soil)]),
                         Qt::AlignHCenter | Qt::AlignBottom, {c.inkSoft, 11});
    if (many)
        sketch.text({area.left() + 4, area.bottom() - 4}, tr("filled: on wet or damp soil; hollow: on dry, frozen, or not noted"),
                    Qt::AlignLeft | Qt::AlignBottom, {c.inkSoft, 11});
    if (!dates)
        return;
    for (double day : niceTicks(from, to, 6))
        if (place(day, 0.0).x() > area.left() + 24.0) // the unit stands there
            sketch.text({place(day, 0.0).x(), area.bottom() + 4}, dayWords(day, to - from), Qt::AlignHCenter | Qt::AlignTop,
                        {c.inkSoft, 11});
    sketch.text({area.left() - 6, area.bottom() + 4}, tr("kHz"), Qt::AlignRight | Qt::AlignTop, {c.inkFaint, 11});
}

/// Reports from the air as petals under the time line.
void LogDrawing::paintReports(Sketch& sketch, const QRectF& area, double from, double to) const
{
    const Colours& c = sketch.colours();
    const bool many = m_facts.log.reports.size() > mostNamed;
    for (const AirReport& r : m_facts.log.reports)
        if (const auto day = dayOf(r.when)) {
            const double x = area.left() + area.width() * (*day - from) / (to - from);
            sketch.triangle({x, area.top() + 4}, c.petal, c.petal);
            if (!many)
                sketch.label({x + 8, area.top() + 9}, QString::fromStdString(r.report), Qt::AlignLeft | Qt::AlignVCenter, {c.inkSoft, 11});
        }
}

Faults writeLogPage(const LogFacts& facts, const QString& path)
{
    const QPageSize size(facts.system == units::System::Metric ? QPageSize::A4 : QPageSize::Letter);
    const PaperForm form{QCoreApplication::translate("LogDrawing", "Log of %1").arg(facts.name), size, {13.0, 13.0, 13.0, 13.0}, true};
    return writePdf(path, form, [&](QPdfWriter& pages) -> Faults {
        QPainter painter(&pages);
        painter.scale(pages.width() / pageWidth, pages.width() / pageWidth);
        const double height = pageWidth * pages.height() / pages.width();
        Theme paper;
        paper.setMode(Theme::Mode::Paper);
        LogBookModel book;
        book.setLog(facts.log, facts.system, facts.words);
        {
            Sketch sketch(painter, paper);
            paintHead(sketch, facts, pageWidth);
            painter.save();
            painter.translate(0, headHeight);
            LogDrawing(facts).times(sketch, QRectF(44, LogDrawing::top, pageWidth - 70, LogDrawing::height));
            paintTable(sketch, book, bookShares(), LogDrawing::bookTop, pageWidth, height - headHeight, 0);
            painter.restore();
        }
        for (int row = tableRowsThatFit(LogDrawing::bookTop, height - headHeight); row < book.rowCount();
             row += tableRowsThatFit(0.0, height)) {
            pages.newPage();
            Sketch sketch(painter, paper);
            paintTable(sketch, book, bookShares(), 0.0, pageWidth, height, row);
        }
        return {};
    });
}

} // namespace vetchling::app

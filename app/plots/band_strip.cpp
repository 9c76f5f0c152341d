#include "app/plots/band_strip.h"

#include "app/document/document.h"
#include "app/document/solve_service.h"
#include "app/plots/sketch.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double traceTop = 26.0, traceBottom = 88.0; // px in the strip
constexpr double leftMargin = 20.0, rightMargin = 44.0;
constexpr double lensShare = 0.62; // of the width for bands, the rest for what lies between
constexpr int samplesInBand = 90, samplesBetween = 70;
constexpr int progressHeight = 2; // px at the top

} // namespace

QPolygonF simplified(const QPolygonF& line)
{
    constexpr double within = 0.25;
    QPolygonF out;
    for (qsizetype from = 0; from < line.size();) {
        const QPointF start = line[from];
        out << start;
        double lowest = -HUGE_VAL, highest = HUGE_VAL; // slopes that pass all points since the start; x rises
        qsizetype to = from + 1;
        for (; to < line.size(); ++to) {
            const double dx = std::max(line[to].x() - start.x(), 1e-9), slope = (line[to].y() - start.y()) / dx;
            if (slope < lowest || slope > highest)
                break;
            lowest = std::max(lowest, slope - within / dx);
            highest = std::min(highest, slope + within / dx);
        }
        from = std::max(from + 1, to - 1);
        if (to == line.size() && from == to - 1 && from > 0) {
            out << line[from];
            break;
        }
    }
    return out;
}

BandLens::BandLens(const std::vector<Band>& bands, double left, double right)
{
    if (bands.empty() || right <= left)
        return;
    const double width = right - left, count = double(bands.size());
    const double lens = std::min(150.0, lensShare * width / count), gap = (width - lens * count) / (count + 1.0);
    m_stops.push_back({std::min(sweepFrom, 0.98 * bands.front().from), left});
    for (std::size_t i = 0; i < bands.size(); ++i) {
        const double x = left + gap + double(i) * (lens + gap);
        m_stops.push_back({bands[i].from, x});
        m_stops.push_back({bands[i].to, x + lens});
    }
    m_stops.push_back({std::max(sweepTo, 1.01 * bands.back().to), right});
}

double BandLens::x(double frequency) const
{
    auto next = std::upper_bound(m_stops.begin(), m_stops.end(), frequency, [](double f, const Stop& s) { return f < s.frequency; });
    next = std::clamp(next, m_stops.begin() + 1, m_stops.end() - 1);
    const Stop &a = *(next - 1), &b = *next;
    return a.x + (b.x - a.x) * (frequency - a.frequency) / (b.frequency - a.frequency);
}

double BandLens::frequency(double x) const
{
    auto next = std::upper_bound(m_stops.begin(), m_stops.end(), x, [](double v, const Stop& s) { return v < s.x; });
    next = std::clamp(next, m_stops.begin() + 1, m_stops.end() - 1);
    const Stop &a = *(next - 1), &b = *next;
    return a.frequency + (b.frequency - a.frequency) * (x - a.x) / (b.x - a.x);
}

int BandLens::bandAt(double x) const
{
    for (std::size_t i = 1; i + 2 < m_stops.size() + 1 && i + 1 < m_stops.size(); i += 2)
        if (x >= m_stops[i].x && x <= m_stops[i + 1].x)
            return int(i / 2);
    return -1;
}

BandStrip::BandStrip(Document& document, SolveService& solver, const Theme& theme, QWidget* parent)
    : QWidget(parent), m_document(document), m_solver(solver), m_theme(theme)
{
    setObjectName(QStringLiteral("bandStrip"));
    setFixedHeight(124);
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("SWR on every band"));
    connect(&m_solver, &SolveService::curveReady, this, [this] {
        rebuild();
        m_fresh = true;
    });
    connect(&m_solver, &SolveService::pinChanged, this, &BandStrip::rebuild);
    connect(&m_solver, &SolveService::stateChanged, this, &BandStrip::advance);
    connect(&m_document, &Document::designChanged, this, &BandStrip::documentChanged);
    connect(&m_document, &Document::currentChanged, this, &BandStrip::rebuild);
    connect(&m_document, &Document::bandSelected, this, qOverload<>(&QWidget::update));
    connect(&m_theme, &Theme::changed, this, qOverload<>(&QWidget::update));
}

/// A change of the antenna shows when its curve arrives.
void BandStrip::documentChanged()
{
    const Operation& operation = m_document.design().operation;
    if (operation.bands != m_shown.bands || operation.swrLimit != m_shown.swrLimit || !m_solver.curve())
        rebuild();
}

void BandStrip::advance()
{
    if (m_solver.curve() && m_solver.faults().empty())
        update(0, 0, width(), progressHeight);
    else
        update();
}

void BandStrip::rebuild()
{
    m_shown = m_document.design().operation;
    std::vector<Band> bands;
    for (const WantedBand& w : m_document.design().operation.bands)
        bands.push_back(w.band);
    m_lens = BandLens(bands, leftMargin, width() - rightMargin);
    m_trace = m_solver.curve() ? traceOf(*m_solver.curve()) : QPolygonF();
    m_pinned = m_solver.pinnedCurve() ? traceOf(*m_solver.pinnedCurve()) : QPolygonF();
    describe();
    update();
}

/// The strip in words, for screen readers.
void BandStrip::describe()
{
    QStringList words;
    if (const CurvePointer curve = m_solver.curve())
        for (std::size_t i = 0; i < curve->bands.size(); ++i)
            words << tr("%1: %2").arg(QString::fromStdString(curve->bands[i].band.name), swrText(curve->bands[i].lowestSwr));
    setAccessibleDescription(words.join(QStringLiteral(", ")));
}

QPolygonF BandStrip::traceOf(const CurveResult& curve) const
{
    QPolygonF trace;
    if (m_lens.empty())
        return trace;
    const auto add = [&](double from, double to, int samples) {
        for (int i = 0; i < samples; ++i) {
            const double f = std::clamp(from + (to - from) * i / samples, sweepFrom, sweepTo);
            trace << QPointF(m_lens.x(f), y(curve.swrAt(f)));
        }
    };
    double last = sweepFrom;
    for (const WantedBand& w : m_document.design().operation.bands) {
        add(last, w.band.from, samplesBetween);
        add(w.band.from, w.band.to, samplesInBand);
        last = w.band.to;
    }
    add(last, sweepTo, samplesBetween);
    return simplified(trace);
}

double BandStrip::y(double swr) const { return traceBottom - (traceBottom - traceTop) * swrFraction(swr); }

void BandStrip::paintEvent(QPaintEvent* event)
{
    QPainter painter(this);
    const Colours& c = m_theme.colours();
    painter.fillRect(event->rect(), c.panel);
    if (event->rect().bottom() >= progressHeight)
        paintAll(painter);
    if (m_solver.busy())
        painter.fillRect(QRectF(0, 0, width() * m_solver.progress(), progressHeight), c.leafMid);
    if (m_fresh) {
        m_fresh = false;
        emit traced();
    }
}

void BandStrip::paintAll(QPainter& painter) const
{
    Sketch sketch(painter, m_theme);
    const Colours& c = m_theme.colours();
    sketch.line({0.0, 0.5}, {double(width()), 0.5}, c.hairline);
    sketch.text({14, height() - 17.0},
                m_solver.curve()            ? tr("SWR on every band")
                : m_solver.faults().empty() ? tr("SWR: being computed")
                                            : tr("SWR: this shape cannot be computed"),
                Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12, true});
    if (m_lens.empty())
        return;
    for (double s : {1.5, 2.0, 3.0}) {
        const bool isLimit = std::abs(s - m_document.design().operation.swrLimit) < 0.01;
        if (!isLimit)
            sketch.line({leftMargin, y(s)}, {width() - rightMargin, y(s)}, c.hairline);
        sketch.text({width() - 8.0, y(s)}, QString::number(s), Qt::AlignRight | Qt::AlignVCenter, {c.inkFaint, 11});
    }
    paintBands(sketch);
    const double limit = m_document.design().operation.swrLimit;
    sketch.line({leftMargin, y(limit)}, {width() - rightMargin, y(limit)}, c.inkSoft, 1.0, Qt::DashLine);
    paintTrace(sketch, m_pinned, true);
    paintTrace(sketch, m_trace, false);
    paintMultiples(sketch);
    paintCrosshair(sketch);
}

void BandStrip::paintBands(Sketch& sketch) const
{
    const Colours& c = m_theme.colours();
    const auto& wanted = m_document.design().operation.bands;
    const CurvePointer curve = m_solver.curve();
    const double limit = m_document.design().operation.swrLimit;
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        const double left = m_lens.bandLeft(int(i)), right = m_lens.bandRight(int(i));
        const bool wished = wanted[i].wish != Wish::No;
        QPainter& p = sketch.painter();
        p.setPen(Qt::NoPen);
        p.setBrush(wished ? c.leafPale : c.fill);
        p.drawRoundedRect(QRectF(left, traceTop - 1, right - left, traceBottom - traceTop + 2), 2, 2);
        if (int(i) == m_document.selectedBand())
            p.fillRect(QRectF(left, traceBottom + 2, right - left, 3), c.petal);
        const QString name = QString::fromStdString(wanted[i].band.name);
        sketch.text({left + 3, 7}, name, Qt::AlignLeft | Qt::AlignTop, {wished ? c.ink : c.inkSoft, 12, true});
        if (curve && i < curve->bands.size()) {
            const double s = curve->bands[i].lowestSwr;
            const QString words = s > swrCap ? QStringLiteral(">9") : QString::number(s, 'f', 2);
            sketch.text({right - 3, 7}, words, Qt::AlignRight | Qt::AlignTop, {s <= limit ? c.leaf : c.brick, 12, true});
        }
        const int decimals = wanted[i].band.to - wanted[i].band.from < 0.5e6 ? 2 : 1;
        sketch.text({left, traceBottom + 5}, QString::number(wanted[i].band.from / 1e6, 'f', decimals), Qt::AlignLeft | Qt::AlignTop,
                    {c.inkFaint, 11});
        sketch.text({right, traceBottom + 5}, QString::number(wanted[i].band.to / 1e6, 'f', decimals), Qt::AlignRight | Qt::AlignTop,
                    {c.inkFaint, 11});
    }
}

void BandStrip::paintTrace(Sketch& sketch, const QPolygonF& trace, bool pinned) const
{
    if (trace.empty())
        return;
    const Colours& c = m_theme.colours();
    QPen pen(pinned ? c.inkSoft : c.ink, pinned ? 1.0 : 1.7);
    if (pinned)
        pen.setDashPattern({4, 3});
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(pen);
    sketch.painter().drawPolyline(trace);
}

void BandStrip::paintMultiples(Sketch& sketch) const
{
    const CurvePointer curve = m_solver.curve();
    if (!curve || !(curve->fundamental > 0.0))
        return;
    const Colours& c = m_theme.colours();
    double lastRight = 150.0;
    for (int n = 1; n * curve->fundamental < sweepTo && n <= 9; ++n) {
        const double f = n * curve->fundamental, x = m_lens.x(f);
        if (x - 5 < lastRight)
            continue;
        sketch.line({x, traceBottom}, {x, height() - 14.0}, c.petal);
        sketch.triangle({x, height() - 14.0}, c.petal, c.inkSoft);
        lastRight = sketch
                        .text({x + 8, height() - 17.0}, tr("×%1 = %2").arg(n).arg(f / 1e6, 0, 'f', 2), Qt::AlignLeft | Qt::AlignTop,
                              {c.inkSoft, 11})
                        .right() +
                    6;
    }
}

void BandStrip::paintCrosshair(Sketch& sketch) const
{
    const CurvePointer curve = m_solver.curve();
    if (m_hover < leftMargin || m_hover > width() - rightMargin || !curve)
        return;
    const Colours& c = m_theme.colours();
    const double f = std::clamp(m_lens.frequency(m_hover), sweepFrom, sweepTo);
    const Complex z = curve->atLine(f);
    const double s = curve->swrAt(f);
    sketch.line({m_hover, traceTop - 2}, {m_hover, traceBottom + 2}, c.inkSoft);
    sketch.painter().setBrush(c.petal);
    sketch.painter().setPen(QPen(c.ink, 1.0));
    sketch.painter().drawEllipse(QPointF(m_hover, y(s)), 3.5, 3.5);
    const QString words = tr("%1 MHz   SWR %2   %3").arg(f / 1e6, 0, 'f', 3).arg(swrText(s), impedanceText(z.real(), z.imag()));
    const double w = m_theme.typeset(words, 12, true).size.width() + 16.0, x = std::clamp(m_hover - 0.5 * w, 4.0, width() - w - 4.0);
    const double top = y(s) > 0.5 * (traceTop + traceBottom) ? traceTop : traceBottom - 22.0;
    sketch.painter().setBrush(c.card);
    sketch.painter().setPen(QPen(c.hairline, 1.0));
    sketch.painter().drawRoundedRect(QRectF(x, top, w, 20), 4, 4);
    sketch.text({x + 8, top + 10}, words, Qt::AlignLeft | Qt::AlignVCenter, {c.ink, 12, true});
}

void BandStrip::resizeEvent(QResizeEvent*) { rebuild(); }

void BandStrip::mousePressEvent(QMouseEvent* event)
{
    if (!m_lens.empty())
        m_document.selectBand(m_lens.bandAt(event->position().x()));
}

void BandStrip::mouseMoveEvent(QMouseEvent* event)
{
    m_hover = event->position().x();
    update();
}

void BandStrip::leaveEvent(QEvent*)
{
    m_hover = -1.0;
    update();
}

void BandStrip::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Left)
        m_document.selectBand(m_document.selectedBand() - 1);
    else if (event->key() == Qt::Key_Right)
        m_document.selectBand(m_document.selectedBand() + 1);
    else
        QWidget::keyPressEvent(event);
}

} // namespace vetchling::app

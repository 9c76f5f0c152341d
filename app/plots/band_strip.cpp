#include "app/plots/band_strip.h"

#include "app/view/sketch.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double traceTop = 26.0, traceBottom = 88.0; // px in the strip
constexpr double leftMargin = 20.0, rightMargin = 44.0;
constexpr double lensShare = 0.68; // of the width for bands, the rest for what lies between
constexpr int samplesInBand = 90, samplesBetween = 70;
constexpr double widestLens = 150.0, bandPitch = 104.0; // px; more bands than fit at the pitch scroll
constexpr double multipleWidth = 76.0;                  // px of "×3 = 21.25" and its triangle
constexpr int progressHeight = 2;                       // px at the top

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
    constexpr double beyond = 0.15; // of the outermost bands' edges; solved in any case (study/windows.h)
    if (bands.empty() || right <= left)
        return;
    const double width = right - left, count = double(bands.size());
    const double lens = std::min(widestLens, lensShare * width / count), gap = (width - lens * count) / (count + 1.0);
    m_stops.push_back({(1.0 - beyond) * bands.front().from, left});
    for (std::size_t i = 0; i < bands.size(); ++i) {
        const double x = left + gap + double(i) * (lens + gap);
        m_stops.push_back({bands[i].from, x});
        m_stops.push_back({bands[i].to, x + lens});
    }
    m_stops.push_back({(1.0 + beyond) * bands.back().to, right});
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

BandStrip::BandStrip(ViewContext& context, QWidget* parent)
    : QWidget(parent), m_document(context.document), m_solver(context.solver), m_variants(context.variants), m_theme(context.theme)
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
    setToolTip(tr("At the feedpoint or at the radio: press the words, or R"));
    connect(&m_variants, &VariantsDesk::comparisonReady, this, [this] {
        takeOthers();
        update();
    });
    connect(&m_variants, &VariantsDesk::spreadReady, this, [this] {
        takeSpread();
        update();
    });
    connect(&m_solver, &SolveService::stateChanged, this, &BandStrip::advance);
    connect(&m_document, &Document::designChanged, this, &BandStrip::documentChanged);
    connect(&m_document, &Document::currentChanged, this, &BandStrip::rebuild);
    connect(&m_document, &Document::bandSelected, this, [this] {
        showSelected();
        update();
    });
    connect(&m_theme, &Theme::changed, this, qOverload<>(&QWidget::update));
}

/// A change of the antenna shows when its curve arrives.
void BandStrip::documentChanged()
{
    const Operation& operation = m_document.design().operation;
    if (operation.bands != m_operation.bands || operation.swrLimit != m_operation.swrLimit || !m_solver.curve())
        rebuild();
}

void BandStrip::advance()
{
    if (m_solver.curve() && m_solver.faults().empty())
        update(0, 0, width(), progressHeight);
    else
        update();
}

std::vector<WantedBand> BandStrip::bandsOnShow() const
{
    std::vector<WantedBand> shown;
    const CurvePointer curve = m_solver.curve();
    for (const WantedBand& w : m_document.design().operation.bands) {
        const Coverage* coverage = curve ? curve->band(w.id) : nullptr;
        if (w.wish != Wish::No || w.id == m_document.selectedBand() || (coverage && coverage->solved()))
            shown.push_back(w);
    }
    return shown;
}

void BandStrip::rebuild()
{
    m_operation = m_document.design().operation;
    m_shown = bandsOnShow();
    std::vector<Band> bands;
    for (const WantedBand& w : m_shown)
        bands.push_back(w.band);
    m_width = std::max(double(width()), leftMargin + rightMargin + bandPitch * double(bands.size()));
    m_lens = BandLens(bands, leftMargin, m_width - rightMargin);
    m_trace = m_solver.curve() ? traceOf(*m_solver.curve()) : Trace();
    m_pinned = m_solver.pinnedCurve() ? traceOf(*m_solver.pinnedCurve()) : Trace();
    takeSpread();
    takeOthers();
    takeTrial();
    showSelected();
    describe();
    update();
}

void BandStrip::scrollTo(double offset) { m_scroll = std::clamp(offset, 0.0, m_width - width()); }

/// Moves the content so that the selected band is in sight.
void BandStrip::showSelected()
{
    scrollTo(m_scroll);
    for (std::size_t i = 0; i < m_shown.size() && !m_lens.empty(); ++i) {
        if (m_shown[i].id != m_document.selectedBand())
            continue;
        if (m_lens.bandLeft(int(i)) < m_scroll)
            scrollTo(m_lens.bandLeft(int(i)) - leftMargin);
        else if (m_lens.bandRight(int(i)) > m_scroll + width())
            scrollTo(m_lens.bandRight(int(i)) + rightMargin - width());
    }
}

/// The strip in words, for screen readers.
void BandStrip::describe()
{
    QStringList words;
    if (const CurvePointer curve = m_solver.curve())
        for (const Coverage& c : curve->bands)
            if (c.solved())
                words << tr("%1: %2").arg(QString::fromStdString(c.band.name), swrText(c.lowestSwr));
    setAccessibleDescription(words.join(QStringLiteral(", ")));
}

BandStrip::Trace BandStrip::traceOf(const study::Curve& curve) const
{
    Trace trace(1);
    if (m_lens.empty())
        return trace;
    const auto add = [&](double from, double to, int samples) {
        for (int i = 0; i < samples; ++i) {
            const double f = from + (to - from) * i / samples, s = curve.swrAt(f);
            if (!std::isnan(s))
                trace.back() << QPointF(m_lens.x(f), y(s));
            else if (!trace.back().isEmpty())
                trace.emplace_back();
        }
    };
    double last = m_lens.from();
    for (const WantedBand& w : m_shown) {
        add(last, w.band.from, samplesBetween);
        add(w.band.from, w.band.to, samplesInBand);
        last = w.band.to;
    }
    add(last, m_lens.to(), samplesBetween);
    for (QPolygonF& line : trace)
        line = simplified(line);
    return trace;
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
    if (hasFocus()) {
        painter.setPen(QPen(c.leaf, 2.0));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(QRectF(rect()).adjusted(1.0, 1.0, -1.0, -1.0));
    }
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
    const QString title = m_operation.bands.empty()    ? tr("SWR: no band is wanted yet")
                          : !m_document.hasAntenna()   ? tr("SWR: no antenna yet")
                          : !m_solver.faults().empty() ? tr("SWR: this shape cannot be computed")
                          : m_solver.curve()           ? planeWords()
                                                       : tr("SWR: being computed");
    const QRectF words = sketch.text({14, height() - 17.0}, title, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12, true});
    if (m_overPlane) // it can be pressed
        sketch.line(words.bottomLeft(), words.bottomRight(), c.leaf, 1.4);
    if (m_lens.empty())
        return;
    paintScale(sketch);
    painter.save();
    if (m_width > width()) // what has been scrolled out keeps off the scale
        painter.setClipRect(QRectF(0, 0, width() - rightMargin + 8.0, height()));
    painter.translate(-m_scroll, 0.0);
    paintBands(sketch);
    const double limit = m_operation.swrLimit;
    sketch.line({leftMargin, y(limit)}, {m_width - rightMargin, y(limit)}, c.inkSoft, 1.0, Qt::DashLine);
    paintSpread(sketch);
    for (const auto& [pen, trace] : m_others) {
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().setPen(pen);
        for (const QPolygonF& line : trace)
            sketch.painter().drawPolyline(line);
    }
    paintTrace(sketch, m_pinned, true);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(m_theme.colours().leaf, 2.0, Qt::DashLine));
    for (const QPolygonF& line : m_trial)
        painter.drawPolyline(line);
    paintTrace(sketch, m_trace, false);
    paintMultiples(sketch);
    painter.restore();
    paintCrosshair(sketch);
}

void BandStrip::paintScale(Sketch& sketch) const
{
    const Colours& c = m_theme.colours();
    for (double s : {1.5, 2.0, 3.0}) {
        if (std::abs(s - m_operation.swrLimit) >= 0.01)
            sketch.line({leftMargin, y(s)}, {width() - rightMargin, y(s)}, c.hairline);
        sketch.text({width() - 8.0, y(s)}, QString::number(s), Qt::AlignRight | Qt::AlignVCenter, {c.inkFaint, 11});
    }
    if (m_scroll > 0.5)
        sketch.text({6.0, traceTop + 24.0}, QStringLiteral("‹"), Qt::AlignLeft | Qt::AlignVCenter, {c.ink, 15, true});
    if (m_scroll < m_width - width() - 0.5)
        sketch.text({width() - rightMargin + 12.0, traceTop + 24.0}, QStringLiteral("›"), Qt::AlignLeft | Qt::AlignVCenter,
                    {c.ink, 15, true});
}

void BandStrip::paintBands(Sketch& sketch) const
{
    for (std::size_t i = 0; i < m_shown.size(); ++i)
        paintBand(sketch, i);
}

void BandStrip::paintBand(Sketch& sketch, std::size_t place) const
{
    const Colours& c = m_theme.colours();
    const WantedBand& w = m_shown[place];
    const double left = m_lens.bandLeft(int(place)), right = m_lens.bandRight(int(place));
    const bool wished = w.wish != Wish::No;
    QPainter& p = sketch.painter();
    p.setPen(Qt::NoPen);
    p.setBrush(wished ? c.leafPale : c.fill);
    p.drawRoundedRect(QRectF(left, traceTop - 1, right - left, traceBottom - traceTop + 2), 2, 2);
    if (w.id == m_document.selectedBand())
        p.fillRect(QRectF(left, traceBottom + 2, right - left, 3), c.petal);
    sketch.text({left + 3, 7}, QString::fromStdString(w.band.name), Qt::AlignLeft | Qt::AlignTop, {wished ? c.ink : c.inkSoft, 12, true});
    const CurvePointer curve = m_solver.curve();
    if (const Coverage* coverage = curve ? curve->band(w.id) : nullptr) {
        const double s = coverage->lowestSwr;
        const QString words = coverage->verdict == Verdict::Pending ? QStringLiteral("…")
                              : !coverage->solved()                 ? tr("solve …")
                              : s > swrCap                          ? QStringLiteral(">9")
                                                                    : QString::number(s, 'f', 2);
        sketch.text({right - 3, 7}, words, Qt::AlignRight | Qt::AlignTop,
                    {!coverage->solved()         ? c.inkFaint
                     : s <= m_operation.swrLimit ? c.leaf
                                                 : c.brick,
                     12, true});
    }
    const int decimals = w.band.to - w.band.from < 0.5e6 ? 2 : 1;
    if (w.band.to < 1e9 || right - left > 90.0) {
        sketch.text({left, traceBottom + 5}, QString::number(w.band.from / 1e6, 'f', decimals), Qt::AlignLeft | Qt::AlignTop,
                    {c.inkFaint, 11});
        sketch.text({right, traceBottom + 5}, QString::number(w.band.to / 1e6, 'f', decimals), Qt::AlignRight | Qt::AlignTop,
                    {c.inkFaint, 11});
    } else {
        sketch.text({left, traceBottom + 5}, QString::number(w.band.from / 1e6, 'f', 0), Qt::AlignLeft | Qt::AlignTop, {c.inkFaint, 11});
        sketch.text({right, traceBottom + 5}, QString::number(w.band.to / 1e6, 'f', 0), Qt::AlignRight | Qt::AlignTop, {c.inkFaint, 11});
    }
}

void BandStrip::paintTrace(Sketch& sketch, const Trace& trace, bool pinned) const
{
    const Colours& c = m_theme.colours();
    QPen pen(pinned ? c.inkSoft : c.ink, pinned ? 1.0 : 1.7);
    if (pinned)
        pen.setDashPattern({4, 3});
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(pen);
    for (const QPolygonF& line : trace)
        if (!line.isEmpty())
            sketch.painter().drawPolyline(line);
}

/// Where the curve may lie, for what nobody knows exactly.
void BandStrip::paintSpread(Sketch& sketch) const
{
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(m_theme.withAlpha(m_theme.colours().sky, 80));
    for (const QPolygonF& area : m_spread)
        sketch.painter().drawPolygon(area);
}

/// Variants that are not looked at.
void BandStrip::takeOthers()
{
    m_others.clear();
    if (m_solver.plane() == SolveService::Plane::Radio)
        return; // the others have chains of their own
    for (const VariantsDesk::Other& other : m_variants.others())
        if (const CurvePointer curve = other.curve(m_document.configuration()))
            m_others.emplace_back(variantPen(other.row, m_theme.colours(), 1.1), traceOf(*curve));
}

void BandStrip::setTrial(std::vector<std::pair<Id, CurvePointer>> curves)
{
    m_trialCurves = std::move(curves);
    takeTrial();
    update();
}

void BandStrip::takeTrial()
{
    m_trial.clear();
    for (const WantedBand& w : m_shown)
        for (const auto& [band, curve] : m_trialCurves)
            if (band == w.id && !m_lens.empty()) {
                QPolygonF& line = m_trial.emplace_back();
                for (int i = 0; i <= samplesInBand; ++i)
                    if (const double f = w.band.from + (w.band.to - w.band.from) * i / samplesInBand, s = curve->swrAt(f); !std::isnan(s))
                        line << QPointF(m_lens.x(f), y(s));
            }
}

void BandStrip::takeSpread()
{
    m_spread.clear();
    const bool here = m_solver.plane() == SolveService::Plane::Feedpoint; // where it was worked out
    const auto spread = here && m_variants.always() ? m_variants.freshSpread() : nullptr;
    for (const study::BandSpread& band : spread ? spread->bands : std::vector<study::BandSpread>()) {
        const bool shown = std::any_of(m_shown.begin(), m_shown.end(), [&](const WantedBand& w) { return w.id == band.band; });
        const bool linked = band.configuration == m_document.configuration(); // the strip tells of the links as they are
        if (!shown || !linked || band.frequency.empty() || m_lens.empty())
            continue;
        QPolygonF area;
        for (std::size_t i = 0; i < band.frequency.size(); ++i)
            area << QPointF(m_lens.x(band.frequency[i]), y(band.swrFrom[i]));
        for (std::size_t i = band.frequency.size(); i-- > 0;)
            area << QPointF(m_lens.x(band.frequency[i]), y(band.swrTo[i]));
        m_spread.push_back(area);
    }
}

void BandStrip::paintMultiples(Sketch& sketch) const
{
    const CurvePointer curve = m_solver.curve();
    if (!curve || !(curve->fundamental > 0.0))
        return;
    const Colours& c = m_theme.colours();
    double lastRight = m_scroll + 150.0;
    for (int n = 1; n * curve->fundamental < m_lens.to() && n <= 9; ++n) {
        const double f = n * curve->fundamental, x = m_lens.x(f);
        if (f < m_lens.from() || x - 5 < lastRight || x + multipleWidth > m_width)
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
    if (m_hover < leftMargin || m_hover > m_width - rightMargin || !curve)
        return;
    const double f = m_lens.frequency(m_hover), s = curve->swrAt(f), x = m_hover - m_scroll;
    if (std::isnan(s))
        return;
    const Colours& c = m_theme.colours();
    const Complex z = curve->seen(f);
    sketch.line({x, traceTop - 2}, {x, traceBottom + 2}, c.inkSoft);
    sketch.painter().setBrush(c.petal);
    sketch.painter().setPen(QPen(c.ink, 1.0));
    sketch.painter().drawEllipse(QPointF(x, y(s)), 3.5, 3.5);
    const QStringList words{tr("%1 MHz   SWR %2   %3").arg(f / 1e6, 0, 'f', 3).arg(swrText(s), impedanceText(z.real(), z.imag()))};
    const double top = y(s) > 0.5 * (traceTop + traceBottom) ? traceTop : traceBottom - 22.0;
    sketch.card({x - 0.5 * sketch.cardSize(words).width(), top}, words, QRectF(4, 0, width() - 8.0, height()));
}

QString BandStrip::planeWords() const
{
    return m_solver.plane() == SolveService::Plane::Radio ? tr("SWR at the radio") : tr("SWR at the feedpoint");
}

bool BandStrip::overPlane(QPointF p) const
{
    constexpr double words = 136.0, line = 20.0;
    return m_solver.curve() && p.x() < words && p.y() > height() - line;
}

void BandStrip::resizeEvent(QResizeEvent*) { rebuild(); }

void BandStrip::mousePressEvent(QMouseEvent* event)
{
    if (m_lens.empty())
        return;
    if (overPlane(event->position())) {
        const bool radio = m_solver.plane() == SolveService::Plane::Radio;
        m_solver.setPlane(radio ? SolveService::Plane::Feedpoint : SolveService::Plane::Radio);
        return;
    }
    if (const int place = m_lens.bandAt(inContent(event->position().x())); place >= 0)
        m_document.selectBand(m_shown[std::size_t(place)].id);
}

void BandStrip::mouseMoveEvent(QMouseEvent* event)
{
    m_overPlane = overPlane(event->position());
    m_hover = m_overPlane ? -1.0 : inContent(event->position().x());
    setCursor(m_overPlane ? Qt::PointingHandCursor : Qt::ArrowCursor);
    update();
}

void BandStrip::leaveEvent(QEvent*)
{
    m_hover = -1.0;
    update();
}

void BandStrip::wheelEvent(QWheelEvent* event)
{
    if (m_width <= width()) {
        event->ignore();
        return;
    }
    scrollTo(m_scroll - (event->angleDelta().x() != 0 ? event->angleDelta().x() : event->angleDelta().y()));
    update();
    event->accept();
}

void BandStrip::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Left)
        m_document.stepBand(-1);
    else if (event->key() == Qt::Key_Right)
        m_document.stepBand(1);
    else
        QWidget::keyPressEvent(event);
}

} // namespace vetchling::app

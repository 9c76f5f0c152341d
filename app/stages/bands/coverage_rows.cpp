#include "app/stages/bands/coverage_rows.h"

#include "app/view/band_words.h"
#include "app/view/sketch.h"
#include "app/view/spread_words.h"
#include "app/view/words.h"

#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double bandRowHeight = 124.0, lineHeight = 34.0, headingHeight = 34.0, chartLeft = 150.0, wordsWidth = 250.0;
constexpr double hopeless = 5.0; // SWR at best past which a band is a line: no tuner outside the feedpoint would take it well

constexpr double withinReach = 0.03; // of the frequency: a dip that far off can be brought in

/// Without a sign before nothing.
QString decibels(double value)
{
    if (std::abs(value) < 0.05)
        value = 0.0;
    return QString::number(value, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−"));
}

} // namespace

CoverageRows::CoverageRows(ViewContext& context, BandsDesk& desk) : Canvas(context), m_desk(desk)
{
    setObjectName(QStringLiteral("bandRows"));
    setMouseTracking(true);
    connect(&context.solver, &SolveService::curveReady, this, &CoverageRows::refresh);
    connect(&context.solver, &SolveService::detailReady, this, qOverload<>(&QWidget::update));
    connect(&context.solver, &SolveService::pinChanged, this, qOverload<>(&QWidget::update));
    connect(&context.document, &Document::designChanged, this, &CoverageRows::refresh);
    connect(&context.document, &Document::bandSelected, this, &CoverageRows::refresh);
    connect(&desk, &BandsDesk::operatingReady, this, &CoverageRows::refresh);
}

void CoverageRows::setReactances(bool on)
{
    m_reactances = on;
    update();
}

std::optional<CoverageRows::Shown> CoverageRows::shown(const Id& band) const
{
    const WantedBand* wanted = findBand(m_context.document.design(), band);
    const CurvePointer live = m_context.solver.curve();
    if (!wanted || !live)
        return std::nullopt;
    const std::shared_ptr<const study::Operating> all = m_desk.operating();
    if (const study::BandChoice* choice = all && all->curves.size() > 1 ? all->choice(band) : nullptr;
        choice && choice->configuration != live->question.subject.configuration && choice->coverage.solved()) {
        const auto configurations = m_context.document.family().configurations(m_context.document.antenna().shape);
        if (choice->configuration < configurations.size())
            return Shown{wanted, all->curves[choice->configuration], &choice->coverage,
                         configurationWords(configurations, choice->configuration)};
    }
    const Coverage* coverage = live->band(band);
    if (!coverage)
        return std::nullopt;
    const auto configurations = m_context.document.family().configurations(m_context.document.antenna().shape);
    return Shown{wanted, live, coverage,
                 configurations.size() > 1 ? configurationWords(configurations, live->question.subject.configuration) : QString()};
}

bool CoverageRows::isLarge(const Id& band) const
{
    const std::optional<Shown> row = shown(band);
    if (!row || !row->coverage->solved())
        return row && row->coverage->verdict == Verdict::Pending;
    const Coverage& c = *row->coverage;
    const bool dipIsNear =
        c.nearbyDip && *c.nearbyDip > (1.0 - withinReach) * c.band.from && *c.nearbyDip < (1.0 + withinReach) * c.band.to;
    return c.lowestSwr <= hopeless || dipIsNear;
}

std::vector<Id> CoverageRows::rows() const
{
    std::vector<Id> large, lines;
    for (const WantedBand& w : m_context.document.design().operation.bands)
        if (w.wish != Wish::No || w.id == m_context.document.selectedBand())
            (isLarge(w.id) ? large : lines).push_back(w.id);
    large.insert(large.end(), lines.begin(), lines.end());
    return large;
}

/// Where there is room, rows with a chart are higher, up to a measure that reads well.
std::vector<CoverageRows::Place> CoverageRows::places(const QSizeF& size) const
{
    constexpr double mostGrowth = 90.0; // px
    const std::vector<Id> bands = rows();
    const auto charts = std::count_if(bands.begin(), bands.end(), [this](const Id& band) { return isLarge(band); });
    const double least = bandRowHeight * double(charts) + lineHeight * double(long(bands.size()) - charts) + headingHeight;
    const double growth = charts > 0 ? std::clamp((size.height() - least) / double(charts), 0.0, mostGrowth) : 0.0;
    std::vector<Place> all;
    double top = 0.0;
    bool before = true;
    for (const Id& band : bands) {
        const bool large = isLarge(band);
        if (before && !large)
            top += headingHeight;
        before = large;
        const double height = large ? bandRowHeight + growth : lineHeight;
        all.push_back({band, QRectF(0.0, top, size.width(), height), large});
        top += height;
    }
    return all;
}

void CoverageRows::refresh()
{
    const std::vector<Place> all = places(QSizeF(width(), 0.0));
    setMinimumHeight(all.empty() ? 80 : int(all.back().area.bottom()) + 8);
    update();
}

void CoverageRows::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    const std::vector<Place> all = places(size);
    if (!m_context.solver.curve() || all.empty()) {
        const QString missing = all.empty()                         ? tr("No band is wanted yet: choose them at the right.")
                                : !m_context.document.hasAntenna()  ? tr("No antenna yet: add one with + at the top.")
                                : m_context.solver.faults().empty() ? tr("Being computed …")
                                                                    : tr("This shape cannot be computed.");
        sketch.text({0.5 * size.width(), 60.0}, missing, Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 14});
        return;
    }
    bool before = true;
    for (const Place& place : all) {
        const std::optional<Shown> row = shown(place.band);
        if (!row)
            continue;
        if (before && !place.large) {
            sketch.line({0, place.area.top() - headingHeight + 6}, {size.width(), place.area.top() - headingHeight + 6}, c.hairline);
            sketch.text({0, place.area.top() - 8}, tr("No dip near these"), Qt::AlignLeft | Qt::AlignBottom, {c.inkSoft, 12, true});
        }
        before = place.large;
        place.large ? paintRow(sketch, *row, place.area) : paintLine(sketch, *row, place.area);
    }
}

void CoverageRows::mousePressEvent(QMouseEvent* event)
{
    for (const Place& place : places(QSizeF(size())))
        if (place.area.contains(event->position())) {
            m_context.document.selectBand(place.band);
            return;
        }
}

void CoverageRows::mouseMoveEvent(QMouseEvent* event)
{
    m_pointer = event->position();
    update();
}

void CoverageRows::leaveEvent(QEvent*)
{
    m_pointer = {-1, -1};
    update();
}

SwrChart CoverageRows::chartOf(const Band& band, const QRectF& row) const
{
    const double pad = 0.55 * (band.to - band.from);
    return {QRectF(chartLeft, row.top() + 10, row.width() - chartLeft - wordsWidth - 22, row.height() - 38), band.from - pad,
            band.to + pad};
}

void CoverageRows::paintRow(Sketch& sketch, const Shown& shown, const QRectF& row)
{
    const Colours& c = sketch.colours();
    const Coverage& coverage = *shown.coverage;
    const study::Curve& curve = *shown.curve;
    const SwrChart chart = chartOf(coverage.band, row);
    if (shown.wanted->id == m_context.document.selectedBand())
        sketch.painter().fillRect(QRectF(0, row.top() + 12, 3, row.height() - 40), c.petal);
    paintName(sketch, shown, row);
    const auto swrAt = [&](double f) { return curve.swrAt(f); };
    chart.frame(sketch, coverage.band.from, coverage.band.to, curve.question.limit, shown.wanted->wish != Wish::No);
    if (coverage.solved())
        chart.hatchPastLimit(sketch, coverage.band.from, coverage.band.to, curve.question.limit, swrAt);
    if (const study::BandSpread* spread = spreadOf(shown.wanted->id))
        chart.between(sketch, spread->frequency, spread->swrFrom, spread->swrTo, sketch.theme().withAlpha(c.sky, 70));
    paintSegments(sketch, *shown.wanted, chart);
    if (const CurvePointer pinned = m_context.solver.pinnedCurve()) {
        QPen dashed(c.inkSoft, 1.0);
        dashed.setDashPattern({4, 3});
        chart.curve(
            sketch, [&](double f) { return pinned->swrAt(f); }, dashed);
    }
    const bool alone = m_context.solver.plane() == SolveService::Plane::Radio; // the others have chains of their own
    for (const VariantsDesk::Other& other : alone ? std::vector<VariantsDesk::Other>() : m_context.variants.others())
        if (const CurvePointer varied = other.curve(curve.question.subject.configuration))
            chart.curve(
                sketch, [&](double f) { return varied->swrAt(f); }, variantPen(other.row, c, 1.2));
    chart.curve(sketch, swrAt, QPen(c.ink, 1.8));
    paintMeasured(sketch, chart);
    if (m_reactances)
        paintReactances(sketch, curve, chart);
    paintTicks(sketch, chart, coverage.band);
    if (coverage.solved())
        paintMarks(sketch, coverage, chart);
    paintWords(sketch, shown, row);
    paintUse(sketch, shown.wanted->id, row, true);
    paintReading(sketch, curve, chart);
}

/// The latest that was measured in the chart's range: a sweep's points, or the dip alone; of the feedpoint, as they are in the log.
void CoverageRows::paintMeasured(Sketch& sketch, const SwrChart& chart) const
{
    if (m_context.solver.plane() != SolveService::Plane::Feedpoint || !m_context.document.hasAntenna())
        return;
    constexpr double capped = 5.0, most = 60.0;
    const auto& log = m_context.document.antenna().trim.measurements;
    const auto inside = [&](double f) { return f >= chart.from && f <= chart.to; };
    const auto last = std::find_if(log.rbegin(), log.rend(), [&](const Measurement& m) { return inside(m.dip); });
    if (last == log.rend())
        return;
    const Colours& c = sketch.colours();
    sketch.painter().setPen(QPen(c.sky, 1.2));
    sketch.painter().setBrush(c.card);
    const std::size_t step = std::max<std::size_t>(1, std::size_t(double(last->sweep.size()) / most));
    for (std::size_t i = 0; i < last->sweep.size(); i += step)
        if (inside(last->sweep[i].first))
            sketch.painter().drawEllipse(QPointF(chart.x(last->sweep[i].first), chart.y(std::clamp(last->sweep[i].second, 1.0, capped))),
                                         2.2, 2.2);
    if (last->dipSwr < 1.0)
        return;
    const QPointF dip(chart.x(last->dip), chart.y(std::clamp(last->dipSwr, 1.0, capped)));
    sketch.painter().setBrush(c.sky);
    sketch.painter().drawEllipse(dip, 3.6, 3.6);
    chart.name(sketch, dip, 3.6, tr("measured %1").arg(last->dip / 1e6, 0, 'f', 3), {c.sky, 12});
}

void CoverageRows::paintName(Sketch& sketch, const Shown& shown, const QRectF& row) const
{
    const Colours& c = sketch.colours();
    const Band& band = shown.wanted->band;
    const auto line = [&](double y, const QString& words, const QColor& colour) {
        sketch.text({10, row.top() + y}, words, Qt::AlignLeft | Qt::AlignTop, {colour, 12});
    };
    sketch.text({10, row.top() + 6}, QString::fromStdString(band.name), Qt::AlignLeft | Qt::AlignTop, {c.ink, 18, true});
    const int decimals = band.to - band.from < 5e4 ? 4 : 3;
    line(32, QStringLiteral("%1 – %2").arg(band.from / 1e6, 0, 'f', decimals).arg(band.to / 1e6, 0, 'f', decimals), c.inkSoft);
    if (shown.coverage->harmonic > 0.0)
        line(48, tr("%1 × f").arg(shown.coverage->harmonic, 0, 'f', 2), c.inkFaint);
    double y = 64;
    if (!shown.configuration.isEmpty()) {
        line(y, shown.configuration, c.leaf);
        y += 16;
    }
    if (shown.coverage->wholeTo > shown.coverage->wholeFrom)
        line(y,
             tr("%1 kHz under %2")
                 .arg((shown.coverage->wholeTo - shown.coverage->wholeFrom) / 1e3, 0, 'f', 0)
                 .arg(shown.curve->question.limit),
             c.inkFaint);
}

/// How far the band's curve may be off; null where that is not known, or not asked for.
const study::BandSpread* CoverageRows::spreadOf(const Id& band) const
{
    const bool atFeedpoint = m_context.solver.plane() == SolveService::Plane::Feedpoint;
    m_spread = atFeedpoint && m_context.variants.always() ? m_context.variants.freshSpread() : nullptr;
    return m_spread ? m_spread->band(band) : nullptr;
}

void CoverageRows::paintTicks(Sketch& sketch, const SwrChart& chart, const Band& band) const
{
    const Colours& c = sketch.colours();
    const int decimals = band.to - band.from < 5e4 ? 3 : 2;
    for (double f : {band.from, band.to})
        sketch.text({chart.x(f), chart.area.bottom() + 3}, QString::number(f / 1e6, 'f', decimals), Qt::AlignHCenter | Qt::AlignTop,
                    {c.inkSoft, 12});
    for (double f : {chart.from, chart.to})
        sketch.label({chart.x(f), chart.area.bottom() + 3}, QString::number(f / 1e6, 'f', decimals), Qt::AlignHCenter | Qt::AlignTop,
                     {c.inkFaint, 12});
}

void CoverageRows::paintMarks(Sketch& sketch, const Coverage& coverage, const SwrChart& chart) const
{
    const Colours& c = sketch.colours();
    if (coverage.lowestSwr <= 5.0) {
        sketch.painter().setPen(QPen(c.ink, 1.2));
        sketch.painter().setBrush(c.petal);
        sketch.painter().drawEllipse(QPointF(chart.x(coverage.at), chart.y(coverage.lowestSwr)), 4.5, 4.5);
    }
    if (coverage.resonance && coverage.resonance->frequency > chart.from && coverage.resonance->frequency < chart.to)
        sketch.triangle({chart.x(coverage.resonance->frequency), chart.area.bottom() - 9}, c.skyPale, c.sky);
}

/// Along the foot of the chart: wished ones filled, with their names; without a wish the names alone, quietly.
void CoverageRows::paintSegments(Sketch& sketch, const WantedBand& wanted, const SwrChart& chart) const
{
    const Colours& c = sketch.colours();
    const bool any = std::any_of(wanted.segments.begin(), wanted.segments.end(), [](const Segment& s) { return s.wish != Wish::No; });
    if (!any)
        return;
    for (const Segment& s : wanted.segments) {
        if (s.wish == Wish::No)
            continue;
        const QRectF bar(chart.x(s.from), chart.area.bottom() - 7, chart.x(s.to) - chart.x(s.from), 7);
        sketch.painter().fillRect(bar, s.wish == Wish::Must ? c.leaf : c.leafMid);
        sketch.label({bar.center().x(), bar.top() - 2}, coreWords(s.name), Qt::AlignHCenter | Qt::AlignBottom,
                     {c.leaf, 11, false, c.leafPale});
    }
}

/// R and X over the same stretch, on an axis of their own from -100 to +200 ohm at the right.
void CoverageRows::paintReactances(Sketch& sketch, const study::Curve& curve, const SwrChart& chart) const
{
    const Colours& c = sketch.colours();
    const auto y = [&](double ohm) { return chart.area.bottom() - chart.area.height() * (std::clamp(ohm, -100.0, 200.0) + 100.0) / 300.0; };
    QPainterPath r, x;
    const int steps = int(chart.area.width());
    for (int i = 0; i <= steps; ++i) {
        const double f = chart.from + (chart.to - chart.from) * i / steps;
        const Complex z = curve.seen(f);
        const QPointF pr(chart.x(f), y(z.real())), px(chart.x(f), y(z.imag()));
        i == 0 ? r.moveTo(pr) : r.lineTo(pr);
        i == 0 ? x.moveTo(px) : x.lineTo(px);
    }
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(QPen(c.sky, 1.3));
    sketch.painter().drawPath(r);
    sketch.painter().setPen(QPen(c.brick, 1.3));
    sketch.painter().drawPath(x);
    for (double ohm : {-100.0, 0.0, 100.0, 200.0})
        sketch.text({chart.area.right() + 3, y(ohm)},
                    ohm == 200.0 ? tr("200 Ω") : QString::number(ohm).replace(QLatin1Char('-'), QStringLiteral("−")),
                    Qt::AlignLeft | Qt::AlignVCenter, {c.inkFaint, 11});
    const Complex end = curve.seen(chart.from);
    sketch.label({chart.area.left() + 6, y(end.real()) - 2}, tr("R"), Qt::AlignLeft | Qt::AlignBottom, {c.sky, 12, true});
    sketch.label({chart.area.left() + 20, y(end.imag()) - 2}, tr("X"), Qt::AlignLeft | Qt::AlignBottom, {c.brick, 12, true});
}

void CoverageRows::paintWords(Sketch& sketch, const Shown& shown, const QRectF& row) const
{
    const Colours& c = sketch.colours();
    const Coverage& coverage = *shown.coverage;
    const double left = row.right() - wordsWidth + 16;
    if (coverage.solved()) {
        const bool good = coverage.lowestSwr <= shown.curve->question.limit;
        const QRectF figure = sketch.text({left, row.top() + 5}, swrText(coverage.lowestSwr), Qt::AlignLeft | Qt::AlignTop,
                                          {good ? c.leaf : c.brick, 18, true});
        const study::BandSpread* spread = spreadOf(shown.wanted->id);
        const QString sure = spread ? toleranceWords(*spread) : QString();
        sketch.text({figure.right() + 8, row.top() + 11}, tr("at %1 %2").arg(QString::number(coverage.at / 1e6, 'f', 3), sure).trimmed(),
                    Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
        if (std::min(coverage.lowEdgeSwr, coverage.highEdgeSwr) < swrCap)
            sketch.text({left, row.bottom() - 20}, tr("edges %1, %2").arg(swrText(coverage.lowEdgeSwr), swrText(coverage.highEdgeSwr)),
                        Qt::AlignLeft | Qt::AlignTop, {c.inkFaint, 11});
    }
    const DetailPointer detail = m_context.solver.detail();
    const study::Cure* cure = detail ? detail->cureOf(shown.wanted->id) : nullptr;
    const auto all = m_desk.operating();
    const auto shift = all ? all->shifts.find(shown.wanted->id) : std::map<Id, study::HarmonicShift>::const_iterator();
    QStringList words{bandSentence(coverage, shown.curve->question.limit,
                                   cure ? cureSentence(*cure, detail->levers.front().lever, m_context.document.design()) : QString())};
    if (all && shift != all->shifts.end())
        words.prepend(shiftSentence(shift->second));
    if (const BandService* service = m_desk.service(shown.wanted->id))
        words.prepend(serviceSentence(*service, m_context.document.design().operation));
    sketch.painter().setFont(sketch.theme().font(12));
    sketch.painter().setPen(c.ink);
    sketch.painter().drawText(QRectF(left, row.top() + 32, wordsWidth - 20, row.height() - 54), Qt::TextWordWrap,
                              words.join(QLatin1Char(' ')));
}

/// Gain towards the wanted angle beside the match, straight up, and against the band's reference vertical.
void CoverageRows::paintUse(Sketch& sketch, const Id& band, const QRectF& row, bool large) const
{
    const auto all = m_desk.operating();
    if (!all)
        return;
    const auto use = all->uses.find(band);
    if (use == all->uses.end())
        return;
    const Colours& c = sketch.colours();
    const double right = row.right() - 6;
    const QString towards =
        tr("%1 dBi at %2°").arg(decibels(use->second.gain)).arg(m_context.document.design().operation.aimElevation, 0, 'f', 0);
    if (!large) {
        sketch.text({right, row.top() + 9}, towards, Qt::AlignRight | Qt::AlignTop, {c.sky, 12});
        return;
    }
    sketch.text({right, row.top() + 11}, towards, Qt::AlignRight | Qt::AlignTop, {c.sky, 12, true});
    const double against = use->second.gain - use->second.reference;
    const QString compared = tr("%1%2 dB to a vertical").arg(against >= 0.05 ? QStringLiteral("+") : QString(), decibels(against));
    const QString up = use->second.straightUp > -40.0 ? tr("%1 up").arg(decibels(use->second.straightUp)) : tr("none up");
    const std::vector<Sketch::Place> place{{{right, row.bottom() - 20}, Qt::AlignRight | Qt::AlignTop}};
    if (sketch.fit(place, QStringLiteral("%1 · %2").arg(compared, up), {c.inkSoft, 11}).isNull())
        sketch.fit(place, compared, {c.inkSoft, 11});
}

/// Why it is none for this wire, but where its chain helps.
QString CoverageRows::reasonWords(const Shown& shown) const
{
    const BandService* service = m_desk.service(shown.wanted->id);
    const QString reason = reasonSentence(*shown.coverage);
    if (!service || service->service == Service::No)
        return reason;
    const Complex z = shown.coverage->impedance;
    return tr("%1 By the chain, not by the wire: %2.")
        .arg(serviceSentence(*service, m_context.document.design().operation), impedanceText(z.real(), z.imag()));
}

/// One line with the reason.
void CoverageRows::paintLine(Sketch& sketch, const Shown& shown, const QRectF& row) const
{
    const Colours& c = sketch.colours();
    const Coverage& coverage = *shown.coverage;
    if (shown.wanted->id == m_context.document.selectedBand())
        sketch.painter().fillRect(QRectF(0, row.top() + 5, 3, row.height() - 10), c.petal);
    sketch.text({10, row.top() + 7}, QString::fromStdString(shown.wanted->band.name), Qt::AlignLeft | Qt::AlignTop, {c.ink, 15, true});
    if (coverage.solved())
        sketch.text({76, row.top() + 9}, swrText(coverage.lowestSwr), Qt::AlignLeft | Qt::AlignTop, {c.brick, 12, true});
    const QRectF words(chartLeft, row.top() + 9, row.width() - chartLeft - 112, 18);
    sketch.painter().setFont(sketch.theme().font(12));
    sketch.painter().setPen(c.ink);
    sketch.painter().drawText(words, Qt::AlignLeft | Qt::AlignTop,
                              sketch.painter().fontMetrics().elidedText(reasonWords(shown), Qt::ElideRight, int(words.width())));
    paintUse(sketch, shown.wanted->id, row, false);
    sketch.line({0, row.bottom() - 1}, {row.right(), row.bottom() - 1}, c.hairline);
}

void CoverageRows::paintReading(Sketch& sketch, const study::Curve& curve, const SwrChart& chart) const
{
    if (!chart.area.contains(m_pointer) || !curve.covers(chart.frequencyAt(m_pointer.x())))
        return;
    const Colours& c = sketch.colours();
    const double f = chart.frequencyAt(m_pointer.x());
    const Complex z = curve.seen(f);
    sketch.line({m_pointer.x(), chart.area.top()}, {m_pointer.x(), chart.area.bottom()}, c.inkSoft);
    const QString words = tr("%1 MHz  SWR %2  %3").arg(f / 1e6, 0, 'f', 3).arg(swrText(curve.swrAt(f)), impedanceText(z.real(), z.imag()));
    const QStringList lines{words};
    sketch.card({m_pointer.x() - 0.5 * sketch.cardSize(lines).width(), chart.area.top() - 9}, lines,
                QRectF(chart.area.left(), 0, chart.area.width(), height()));
}

} // namespace vetchling::app

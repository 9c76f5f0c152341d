#include "app/stages/trim/yard_board.h"

#include "app/plots/swr_chart.h"
#include "app/view/axis.h"
#include "app/view/words.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double pictureHeight = 300.0, actsTop = pictureHeight + 12.0, actsHeight = 46.0, notesTop = actsTop + actsHeight + 16.0; // px
constexpr double soilShare = 0.14, noteRow = 19.0;
constexpr int startHour = 10;

/// "10:02"
QString clock(int seconds)
{
    return QStringLiteral("%1:%2").arg(startHour + seconds / 3600).arg(seconds / 60 % 60, 2, 10, QLatin1Char('0'));
}

/// Plan direction in which the wires reach farthest.
std::pair<double, double> broadside(const WireModel& model)
{
    double best = -1.0;
    std::pair<double, double> along{1.0, 0.0};
    for (const Wire& a : model.wires)
        for (const Vec3& p : a.points)
            for (const Wire& b : model.wires)
                for (const Vec3& q : b.points)
                    if (const double d = std::hypot(p.x - q.x, p.y - q.y); d > best && d > 1e-9) {
                        best = d;
                        along = {(p.x - q.x) / d, (p.y - q.y) / d};
                    }
    return along;
}

} // namespace

YardBoard::YardBoard(ViewContext& context, YardDesk& desk) : Canvas(context), m_desk(desk)
{
    setObjectName(QStringLiteral("yardBoard"));
    setAccessibleName(tr("Practice yard"));
    setMinimumHeight(520);
    connect(addAct(tr("Sweep"), tr("30 s"), QStringLiteral("yardSweep")), &QPushButton::clicked, this, [this] { m_desk.measure(m_task); });
    connect(addAct(tr("Ohmmeter"), tr("10 s"), QStringLiteral("yardOhmmeter")), &QPushButton::clicked, this, [this] { m_desk.ohmmeter(); });
    connect(addAct(tr("Hand near"), tr("10 s"), QStringLiteral("yardHand")), &QPushButton::clicked, this, [this] { m_desk.hand(m_task); });
    connect(addAct(tr("Test load"), tr("1 min"), QStringLiteral("yardLoad")), &QPushButton::clicked, this, [this] { m_desk.load(); });
    connect(addAct(tr("Fold"), tr("2 min"), QStringLiteral("yardFold")), &QPushButton::clicked, this, &YardBoard::foldAsked);
    connect(addAct(tr("Cut"), tr("2 min"), QStringLiteral("yardCut")), &QPushButton::clicked, this, &YardBoard::cutAsked);
    connect(addAct(tr("Height"), tr("5 min"), QStringLiteral("yardHeight")), &QPushButton::clicked, this, &YardBoard::heightAsked);
    auto* verdict = addAct(tr("I think"), tr("it is …"), QStringLiteral("yardVerdict"));
    verdict->setProperty("strong", true);
    connect(verdict, &QPushButton::clicked, this, &YardBoard::verdictAsked);
    connect(&desk, &YardDesk::changed, this, &YardBoard::refresh);
    refresh();
}

QPushButton* YardBoard::addAct(const QString& words, const QString& time, const QString& objectName)
{
    auto* button = new QPushButton(words + QLatin1Char('\n') + time, this);
    button->setObjectName(objectName);
    button->setAccessibleName(words);
    button->setProperty("small", true);
    m_acts.push_back(button);
    return button;
}

void YardBoard::resizeEvent(QResizeEvent* event)
{
    Canvas::resizeEvent(event);
    const double gap = 7.0, each = (width() - gap * double(m_acts.size() - 1)) / double(m_acts.size());
    for (std::size_t i = 0; i < m_acts.size(); ++i)
        m_acts[i]->setGeometry(int(double(i) * (each + gap)), int(actsTop), int(each), int(actsHeight));
}

void YardBoard::refresh()
{
    const auto yard = m_desk.yard();
    const bool may = yard && !m_desk.busy() && !yard->verdict();
    for (QPushButton* button : m_acts)
        button->setEnabled(may);
    if (yard && m_task >= yard->tasks().size())
        m_task = 0;
    update();
}

QStringList YardBoard::notes() const
{
    QStringList out;
    if (const auto yard = m_desk.yard())
        for (const YardNote& n : yard->notes())
            out << tr("%1  %2").arg(clock(n.seconds), coreWords(n.words, m_context.system()));
    return out;
}

void YardBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    const auto yard = m_desk.yard();
    if (!yard) {
        sketch.text({0.0, 20.0},
                    m_desk.busy() ? tr("A crew is putting it up …")
                                  : tr("Choose a level on the right: a made-up antenna with hidden faults."),
                    Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 14});
        return;
    }
    paintPicture(sketch, QRectF(0.0, 0.0, size.width(), pictureHeight), *yard);
    double top = notesTop;
    if (yard->verdict())
        top = paintVerdict(sketch, top, size.width(), *yard);
    paintNotes(sketch, top, size);
}

void YardBoard::paintPicture(Sketch& sketch, const QRectF& area, const Yard& yard) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    p.setPen(Qt::NoPen);
    p.setBrush(c.skyPale);
    p.drawRoundedRect(area, 6, 6);
    const double soilTop = area.bottom() - soilShare * area.height();
    p.fillRect(QRectF(area.left(), soilTop, area.width(), area.bottom() - soilTop), c.fill);
    sketch.line({area.left(), soilTop}, {area.right(), soilTop}, c.inkSoft, 1.5);
    sketch.text({area.left() + 18, area.top() + 12}, coreWords(yard.level().title, m_context.system()), Qt::AlignLeft | Qt::AlignTop,
                {c.ink, 15, true});
    p.setFont(sketch.theme().font(12));
    p.setPen(c.ink);
    const double chartWidth = std::min(300.0, 0.4 * area.width());
    p.drawText(QRectF(area.left() + 18, area.top() + 34, area.width() - chartWidth - 50, 52), Qt::TextWordWrap,
               coreWords(yard.level().story, m_context.system()));
    const shapes::BuiltAntenna* built = yard.hanging(m_task);
    if (!built)
        return;
    const auto across = broadside(built->model);
    const auto along = [&](const Vec3& q) { return across.first * q.x + across.second * q.y; };
    double low = HUGE_VAL, high = -HUGE_VAL, top = 0.0;
    for (const Wire& w : built->model.wires)
        for (const Vec3& q : w.points) {
            low = std::min(low, along(q)), high = std::max(high, along(q)), top = std::max(top, q.z);
        }
    const double room = area.width() - chartWidth - 110.0; // the reading stands beside it
    const double scale = std::min(room / std::max(1.0, high - low), (soilTop - area.top() - 96.0) / std::max(1.0, top));
    const double middle = area.left() + 60.0 + 0.5 * room;
    const auto place = [&](const Vec3& q) { return QPointF(middle + (along(q) - 0.5 * (low + high)) * scale, soilTop - q.z * scale); };
    // masts where it is held up
    for (const Wire& w : built->model.wires)
        for (const Vec3* q : {&w.points.front(), &w.points.back()})
            if (const QPointF at = place(*q);
                q->z > 1.0 && (std::abs(along(*q) - low) < 0.02 * (high - low) || std::abs(along(*q) - high) < 0.02 * (high - low)))
                sketch.line({at.x(), at.y() - 8}, {at.x(), soilTop}, c.inkFaint, 4.0);
    const QPointF feed = place(built->feedPoint);
    for (const Wire& w : built->model.wires) {
        QPainterPath path(place(w.points.front()));
        for (const Vec3& q : w.points)
            path.lineTo(place(q));
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(c.leaf, 2.4));
        p.drawPath(path);
    }
    sketch.line(feed, {feed.x(), soilTop - 30}, c.ink, 1.6);
    const QRectF box(feed.x() - 48, soilTop - 30, 96, 28);
    p.setPen(QPen(c.inkSoft, 1));
    p.setBrush(c.card);
    p.drawRoundedRect(box, 4, 4);
    sketch.text(box.center(), yard.level().meterOnly ? tr("meter") : tr("analyser"), Qt::AlignHCenter | Qt::AlignVCenter, {c.ink, 12});
    sketch.feed(feed);
    paintReading(sketch, QRectF(area.right() - chartWidth - 14, area.top() + 14, chartWidth, 118), yard);
}

void YardBoard::paintSweep(Sketch& sketch, const SwrChart& chart, const MeasuredSweep& sweep, const QPen& pen)
{
    QPainterPath line;
    for (const MeasuredPoint& q : sweep.points) {
        const QPointF at(chart.x(q.frequency), chart.y(std::clamp(q.swr, 1.0, 5.0)));
        line.elementCount() == 0 ? line.moveTo(at) : line.lineTo(at);
    }
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(pen);
    sketch.painter().drawPath(line);
}

/// What is to be seen where all is as planned, before anything was read.
void YardBoard::paintPlan(Sketch& sketch, const QRectF& area, const Yard& yard) const
{
    const MeasuredSweep* plan = yard.planned(m_task);
    if (!plan || plan->points.size() < 2)
        return;
    const Colours& c = sketch.colours();
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(c.card);
    sketch.painter().drawRoundedRect(area, 4, 4);
    const SwrChart chart{area.adjusted(34, 8, -12, -22), plan->points.front().frequency, plan->points.back().frequency};
    chart.frame(sketch, chart.from, chart.from, 2.0, false);
    for (double f : niceTicks(chart.from, chart.to, 6))
        sketch.text({chart.x(f), chart.area.bottom() + 3}, QString::number(f / 1e6, 'f', 2), Qt::AlignHCenter | Qt::AlignTop,
                    {c.inkSoft, 11});
    paintSweep(sketch, chart, *plan, QPen(c.inkFaint, 1.4));
    sketch.text({chart.area.left() + 6, chart.area.top() + 2}, tr("the plan"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 11});
}

/// The last sweep, or a meter's three channels, beside the plan's.
void YardBoard::paintReading(Sketch& sketch, const QRectF& area, const Yard& yard) const
{
    const Colours& c = sketch.colours();
    if (yard.sweep() && yard.sweep()->points.size() > 1) {
        sketch.painter().setPen(Qt::NoPen);
        sketch.painter().setBrush(c.card);
        sketch.painter().drawRoundedRect(area, 4, 4);
        const auto& points = yard.sweep()->points;
        const SwrChart chart{area.adjusted(34, 8, -12, -22), points.front().frequency, points.back().frequency};
        const double mark = yard.tasks()[m_task].target;
        chart.frame(sketch, chart.from, chart.from, 2.0, false);
        for (double f : niceTicks(chart.from, chart.to, 6))
            sketch.text({chart.x(f), chart.area.bottom() + 3}, QString::number(f / 1e6, 'f', 2), Qt::AlignHCenter | Qt::AlignTop,
                        {c.inkSoft, 11});
        if (mark > chart.from && mark < chart.to)
            sketch.line({chart.x(mark), chart.area.top()}, {chart.x(mark), chart.area.bottom()}, c.leaf, 1.4, Qt::DashLine);
        if (const MeasuredSweep* plan = yard.planned(m_task)) {
            paintSweep(sketch, chart, *plan, QPen(c.inkFaint, 1.4));
            sketch.text({chart.area.left() + 6, chart.area.top() + 2}, tr("pale: the plan"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 11});
        }
        paintSweep(sketch, chart, *yard.sweep(), QPen(c.ink, 1.6));
        return;
    }
    if (yard.channels().size() != 3) {
        paintPlan(sketch, area, yard);
        return;
    }
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(c.card);
    sketch.painter().drawRoundedRect(area, 4, 4);
    const double base = area.bottom() - 26.0, tall = area.height() - 50.0;
    QPointF before;
    if (const MeasuredSweep* plan = yard.planned(m_task)) { // pale, where the channels would stand
        for (int i = 0; i < 3; ++i) {
            const double f = yard.channels()[std::size_t(i)].first;
            const auto nearest =
                std::min_element(plan->points.begin(), plan->points.end(), [&](const MeasuredPoint& a, const MeasuredPoint& b) {
                    return std::abs(a.frequency - f) < std::abs(b.frequency - f);
                });
            sketch.painter().setPen(QPen(c.inkFaint, 1.2));
            sketch.painter().setBrush(Qt::NoBrush);
            sketch.painter().drawEllipse(QPointF(area.left() + area.width() * (0.2 + 0.3 * i),
                                                 base - tall * swrFraction(std::clamp(nearest->swr, 1.0, 5.0)) / swrFraction(5.0)),
                                         7, 7);
        }
        sketch.text({area.left() + 8, area.top() + 6}, tr("pale: the plan"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 11});
    }
    for (int i = 0; i < 3; ++i) {
        const auto& [f, swr] = yard.channels()[std::size_t(i)];
        const QPointF at(area.left() + area.width() * (0.2 + 0.3 * i), base - tall * swrFraction(std::min(swr, 5.0)) / swrFraction(5.0));
        if (i > 0)
            sketch.line(before, at, c.leaf, 2.0);
        before = at;
    }
    for (int i = 0; i < 3; ++i) {
        const auto& [f, swr] = yard.channels()[std::size_t(i)];
        const QPointF at(area.left() + area.width() * (0.2 + 0.3 * i), base - tall * swrFraction(std::min(swr, 5.0)) / swrFraction(5.0));
        sketch.painter().setPen(QPen(c.ink, 1.2));
        sketch.painter().setBrush(c.petalPale);
        sketch.painter().drawEllipse(at, 5, 5);
        sketch.text(at + QPointF(0, -8), QString::number(swr, 'f', 1), Qt::AlignHCenter | Qt::AlignBottom, {c.ink, 12, true});
        sketch.text({at.x(), base + 6}, QString::number(f / 1e6, 'f', 3), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 11});
    }
}

double YardBoard::paintVerdict(Sketch& sketch, double top, double width, const Yard& yard) const
{
    const Colours& c = sketch.colours();
    const YardVerdict& v = *yard.verdict();
    QStringList lines;
    for (const Text& t : v.missing)
        lines << coreWords(t, m_context.system());
    for (const Text& t : v.explained)
        lines << coreWords(t, m_context.system());
    sketch.painter().setFont(sketch.theme().font(13));
    const QString words = lines.join(QLatin1Char('\n'));
    const QRectF needed = sketch.painter().boundingRect(QRectF(0, 0, width - 36, 400), Qt::TextWordWrap, words);
    const QRectF card(0, top, width, needed.height() + 54);
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(v.passed ? c.leafPale : c.petalPale);
    sketch.painter().drawRoundedRect(card, 6, 6);
    const QString head = v.passed  ? tr("Passed: it was %1.")
                         : v.right ? tr("Found: it was %1. Not finished, though:")
                                   : tr("Not found: it was %1.");
    const QString fault = yard.notes().empty() ? QString() : coreWords(yardFaultName(yard.fault()), m_context.system());
    sketch.text({18, top + 12}, head.arg(fault), Qt::AlignLeft | Qt::AlignTop, {c.ink, 15, true});
    sketch.painter().setFont(sketch.theme().font(13));
    sketch.painter().setPen(c.ink);
    sketch.painter().drawText(QRectF(18, top + 38, width - 36, needed.height() + 4), Qt::TextWordWrap, words);
    return card.bottom() + 14;
}

void YardBoard::paintNotes(Sketch& sketch, double top, const QSizeF& size) const
{
    const Colours& c = sketch.colours();
    const QStringList all = notes();
    sketch.text({0, top}, tr("What you saw"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    double y = top + 20.0;
    if (!m_desk.faults().empty()) {
        sketch.text({0, y}, coreWords(m_desk.faults().front().message, m_context.system()), Qt::AlignLeft | Qt::AlignTop, {c.brick, 13});
        y += noteRow + 2.0;
    } else if (m_desk.busy()) {
        sketch.text({0, y}, tr("being done …"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        y += noteRow + 2.0;
    }
    const int fit = std::max(1, int((size.height() - y) / noteRow));
    for (qsizetype i = std::max<qsizetype>(1, all.size() - fit); i < all.size(); ++i) { // the first one is the story
        const bool last = i + 1 == all.size();
        sketch.text({0, y}, sketch.theme().elided(all[i], size.width(), 13, last), Qt::AlignLeft | Qt::AlignTop,
                    {last ? c.ink : c.inkSoft, 13, last});
        y += noteRow;
    }
}

} // namespace vetchling::app

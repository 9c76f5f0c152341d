#include "app/stages/feed/shield_chart.h"

#include "app/view/axis.h"
#include "app/view/board_table.h"
#include "app/view/feed_words.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "core/shapes/end_fed_parts.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double groupHead = 18.0; // px, over the headings

QString milliamperes(double amperes) { return QString::number(1e3 * amperes, 'f', amperes < 0.0095 ? 1 : 0); }

/// The pen of a band's curve, told by its dashes too.
QPen bandPen(std::size_t i, const Colours& c)
{
    const QColor colours[] = {c.leaf, c.sky, c.brick, c.ink};
    const Qt::PenStyle styles[] = {Qt::SolidLine, Qt::DashLine, Qt::DotLine};
    return QPen(colours[i % 4], 2.0, styles[(i / 4 + i) % 3]);
}

double chokePlace(const Document& document)
{
    for (const ChainPart& p : chainParts(document.antenna()))
        if (p.kind == part::choke)
            return partValue(p, "at_m");
    return -1.0;
}

} // namespace

ShieldChart::ShieldChart(ViewContext& context, FeedDesk& desk, QWidget* parent) : Canvas(context, parent), m_desk(desk)
{
    setObjectName(QStringLiteral("shieldChart"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setMinimumHeight(330);
    setAccessibleName(tr("Current on the outside of the coax at the radio, by the place of the choke"));
}

double ShieldChart::Frame::y(double amperes) const
{
    const double decade = std::log10(std::max(amperes, 1e-9));
    return area.bottom() - area.height() * std::clamp((decade - lowest) / (highest - lowest), 0.0, 1.0);
}

ShieldChart::Frame ShieldChart::frameOf(const study::ShieldAnswer& answer, const QSizeF& size) const
{
    Frame frame;
    const double table = groupHead + BoardTable::heightOf(answer.bands.size());
    frame.area = QRectF(46.0, 26.0, size.width() - 46.0 - 60.0, std::max(90.0, size.height() - table - 26.0 - 48.0));
    frame.length = std::max(1.0, answer.length);
    double least = 1e9, most = 0.0;
    for (const study::ShieldBand& b : answer.bands)
        for (double a : b.byPlace) {
            least = std::min(least, a);
            most = std::max(most, a);
        }
    frame.lowest = std::floor(std::log10(std::max(1e-4, std::min(least, 0.01))));
    frame.highest = std::ceil(std::log10(std::max(0.1, most)));
    return frame;
}

void ShieldChart::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    const auto answer = m_desk.shield();
    if (!answer || answer->bands.empty()) {
        const Faults& faults = m_desk.shieldFaults();
        const QString words = !faults.empty() ? coreWords(faults.front().message, m_context.system())
                              : m_desk.shielding() || m_desk.busy() || m_context.solver.busy()
                                  ? tr("The coax's outside is being computed …")
                              : answer ? tr("No band is wanted: wish for some on the Bands page.")
                                       : tr("Nothing is known of this antenna yet.");
        sketch.text({0.0, 20.0}, words, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        return;
    }
    const Frame frame = frameOf(*answer, size);
    paintAxes(sketch, frame);
    paintCurves(sketch, *answer, frame);
    paintMarks(sketch, *answer, frame);
    paintTable(sketch, {0.0, frame.area.bottom() + 50.0, size.width(), size.height()});
}

void ShieldChart::paintAxes(Sketch& sketch, const Frame& frame) const
{
    const Colours& c = sketch.colours();
    sketch.text({0.0, 0.0},
                tr("Current at the radio, mA at %1 W, for one choke at this place").arg(m_context.document.design().operation.power),
                Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    for (double decade = frame.lowest; decade <= frame.highest + 0.1; decade += 1.0) {
        const double y = frame.y(std::pow(10.0, decade));
        sketch.line({frame.area.left(), y}, {frame.area.right(), y}, c.hairline);
        sketch.text({frame.area.left() - 6.0, y}, QString::number(1e3 * std::pow(10.0, decade), 'g', 4), Qt::AlignRight | Qt::AlignVCenter,
                    {c.inkSoft, 12});
    }
    const bool feet = m_context.system() != units::System::Metric;
    const double unit = feet ? 0.3048 : 1.0;
    for (double tick : niceTicks(0.0, frame.length / unit, 8)) {
        const double x = frame.x(tick * unit);
        sketch.line({x, frame.area.bottom()}, {x, frame.area.bottom() + 4.0}, c.inkFaint);
        sketch.text({x, frame.area.bottom() + 5.0}, QString::number(tick), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    }
    sketch.line(frame.area.bottomLeft(), frame.area.bottomRight(), c.inkFaint);
    sketch.text({frame.area.right(), frame.area.bottom() + 21.0},
                feet ? tr("ft along the coax from the feedpoint") : tr("m along the coax from the feedpoint"),
                Qt::AlignRight | Qt::AlignTop, {c.inkSoft, 12});
}

void ShieldChart::paintCurves(Sketch& sketch, const study::ShieldAnswer& answer, const Frame& frame) const
{
    const Colours& c = sketch.colours();
    std::vector<std::pair<double, std::size_t>> ends;
    for (std::size_t i = 0; i < answer.bands.size(); ++i) {
        const study::ShieldBand& b = answer.bands[i];
        QPolygonF line;
        for (std::size_t k = 0; k < b.byPlace.size(); ++k)
            line << QPointF(frame.x(answer.places[k]), frame.y(b.byPlace[k]));
        if (line.isEmpty())
            continue;
        sketch.painter().setPen(bandPen(i, c));
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().drawPolyline(line);
        ends.emplace_back(line.back().y(), i);
    }
    std::sort(ends.begin(), ends.end());
    double free = -1e9;
    for (const auto& [y, i] : ends) {
        const double at = std::max(y, free);
        sketch.text({frame.area.right() + 8.0, at}, QString::fromStdString(answer.bands[i].name), Qt::AlignLeft | Qt::AlignVCenter,
                    {bandPen(i, c).color(), 12, true});
        free = at + 15.0;
    }
}

void ShieldChart::paintMarks(Sketch& sketch, const study::ShieldAnswer& answer, const Frame& frame) const
{
    const Colours& c = sketch.colours();
    const auto mark = [&](double at, const QString& words, const QColor& colour, Qt::PenStyle style) {
        const double x = frame.x(std::clamp(at, 0.0, frame.length));
        sketch.line({x, frame.area.top()}, {x, frame.area.bottom()}, colour, 1.4, style);
        std::vector<Sketch::Place> places;
        for (double down : {2.0, 18.0, 34.0}) {
            places.push_back({{x + 4.0, frame.area.top() + down}, Qt::AlignLeft | Qt::AlignTop});
            places.push_back({{x - 4.0, frame.area.top() + down}, Qt::AlignRight | Qt::AlignTop});
        }
        sketch.keepWithin(frame.area);
        sketch.put(places, words, {c.ink, 12, false, c.paper});
        sketch.keepWithin({});
    };
    if (const double now = chokePlace(m_context.document); now >= 0.0)
        mark(now, tr("the choke now"), c.petal, Qt::SolidLine);
    if (const auto best = answer.bestPlace())
        mark(*best, tr("least for all, %1").arg(lengthWords(*best, m_context.system(), 1)), c.leaf, Qt::DashLine);
    if (m_place && onScreen()) {
        QStringList lines{tr("a choke at %1").arg(lengthWords(*m_place, m_context.system(), 1))};
        for (const study::ShieldBand& b : answer.bands) {
            std::size_t nearest = 0;
            for (std::size_t k = 0; k < b.byPlace.size(); ++k)
                if (std::abs(answer.places[k] - *m_place) < std::abs(answer.places[nearest] - *m_place))
                    nearest = k;
            if (nearest < b.byPlace.size())
                lines << tr("%1: %2 mA, %3")
                             .arg(QString::fromStdString(b.name), milliamperes(b.byPlace[nearest]),
                                  b.without && nearest < b.gainByPlace.size() ? feed::signedWords(b.gainByPlace[nearest] - b.without->gain)
                                                                              : QString());
        }
        const double x = frame.x(*m_place);
        sketch.line({x, frame.area.top()}, {x, frame.area.bottom()}, c.inkSoft, 1.0);
        sketch.card({x + 10.0, frame.area.top() + 20.0}, lines, frame.area);
    }
}

/// What the antenna is without the rest of the coax.
QString ShieldChart::aloneWords() const
{
    const Document& document = m_context.document;
    return document.hasAntenna() && shapes::shieldActs(document.antenna().shape) ? tr("only its return") : tr("no coax");
}

std::vector<QStringList> ShieldChart::cells() const
{
    std::vector<QStringList> out{{tr("band"), tr("%1: port").arg(aloneWords()), tr("coax, no choke: port"), tr("gain"),
                                  tr("mA at the radio"), tr("with the chain's choke: port"), tr("gain"), tr("mA at the radio")}};
    const auto answer = m_desk.shield();
    for (const study::ShieldBand& b : answer ? answer->bands : std::vector<study::ShieldBand>()) {
        QStringList line{QString::fromStdString(b.name), b.without ? feed::shortImpedance(b.without->port) : QString()};
        for (const auto* state : {&b.bare, &b.chosen}) {
            const bool known = state->has_value() && b.without;
            line << (known ? feed::shortImpedance((*state)->port) : QString())
                 << (known ? feed::signedWords((*state)->gain - b.without->gain) : QString())
                 << (known ? milliamperes((*state)->atRadio) : QString());
        }
        out.push_back(line);
    }
    return out;
}

void ShieldChart::paintTable(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const double starts[] = {0.0, 0.085, 0.25, 0.43, 0.545, 0.63, 0.81, 0.925};
    const double width = area.width(), y = area.top();
    const auto x = [&](std::size_t i) { return width * starts[i]; };
    sketch.text({x(1), y}, aloneWords(), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12, true});
    sketch.text({x(2), y}, tr("coax, no choke"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12, true});
    sketch.text({x(5), y}, tr("with the chain's choke"), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12, true});
    const QString names[] = {{}, tr("port"), tr("port"), tr("gain"), tr("mA"), tr("port"), tr("gain"), tr("mA")};
    std::vector<BoardTable::Column> heads;
    for (std::size_t i = 0; i < std::size(names); ++i)
        heads.push_back({names[i], x(i)});
    BoardTable table(sketch, {area.left(), y + groupHead}, width, heads);
    const auto rows = cells();
    for (std::size_t r = 1; r < rows.size(); ++r) {
        table.begin();
        for (std::size_t i = 0; i < std::size(names); ++i)
            table.cell(i, rows[r][int(i)], i == 0 ? bandPen(r - 1, c).color() : c.ink, i == 0);
    }
}

void ShieldChart::mouseMoveEvent(QMouseEvent* event)
{
    const auto answer = m_desk.shield();
    m_place.reset();
    if (answer && !answer->bands.empty()) {
        const Frame frame = frameOf(*answer, size());
        if (frame.area.contains(event->position()))
            m_place = (event->position().x() - frame.area.left()) / frame.area.width() * frame.length;
    }
    update();
}

void ShieldChart::mousePressEvent(QMouseEvent* event)
{
    mouseMoveEvent(event);
    if (m_place)
        m_desk.placeChoke(*m_place);
}

void ShieldChart::leaveEvent(QEvent*)
{
    m_place.reset();
    update();
}

void ShieldChart::keyPressEvent(QKeyEvent* event)
{
    const auto answer = m_desk.shield();
    const bool along = event->key() == Qt::Key_Left || event->key() == Qt::Key_Right;
    if (!answer || answer->bands.empty())
        return Canvas::keyPressEvent(event);
    if (along) {
        const double by = (event->key() == Qt::Key_Left ? -0.02 : 0.02) * answer->length;
        m_place = std::clamp(m_place.value_or(std::max(0.0, chokePlace(m_context.document))) + by, 0.0, answer->length);
        update();
    } else if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && m_place) {
        m_desk.placeChoke(*m_place);
    } else {
        Canvas::keyPressEvent(event);
    }
}

} // namespace vetchling::app

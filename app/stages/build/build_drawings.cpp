#include "app/stages/build/build_drawings.h"

#include "app/view/words.h"

#include <QPaintDevice>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

using shapes::WireEnd;

bool hasEnd(const shapes::BuiltAntenna& built, WireEnd end)
{
    return std::any_of(built.sections.begin(), built.sections.end(), [&](const auto& s) { return s.first == end || s.last == end; });
}

/// From space to the drawing: across is the direction in plan in which the antenna is longest; seen from above where it lies flat.
class Projection {
public:
    Projection(const shapes::BuiltAntenna& built, const BuildFacts& facts, const QRectF& area) : m_area(area)
    {
        double xx = 0.0, xy = 0.0, yy = 0.0, low = HUGE_VAL, high = -HUGE_VAL;
        std::vector<Vec3> points;
        for (const Wire& w : built.model.wires)
            points.insert(points.end(), w.points.begin(), w.points.end());
        for (const Vec3& p : points)
            m_middle = m_middle + p * (1.0 / double(points.size()));
        for (const Vec3& p : points) {
            const Vec3 d = p - m_middle;
            xx += d.x * d.x, xy += d.x * d.y, yy += d.y * d.y;
            low = std::min(low, p.z), high = std::max(high, p.z);
        }
        const double angle = 0.5 * std::atan2(2.0 * xy, xx - yy);
        m_across = {std::cos(angle), std::sin(angle), 0.0};
        if (m_across.x < 0.0)
            m_across = m_across * -1.0;
        const double spread = std::hypot(xx - yy, 2.0 * xy), thin = 0.5 * (xx + yy - spread), wide = 0.5 * (xx + yy + spread);
        m_above = high - low < 0.3 && thin > 0.02 * wide;
        // what holds the ropes, as long as the wires stay large enough to be read
        double extent = 0.0;
        for (const Vec3& p : points)
            extent = std::max(extent, distance(p, m_middle));
        const double farthest = area.width() < 400.0 ? 0.5 * extent : 25.0;
        for (const RopeReport& rope : facts.rigging.ropes)
            if (!m_above && distance(rope.start, rope.hold) < farthest)
                points.push_back(rope.hold);
        for (const Support& s : facts.supports)
            if (!m_above && distance({s.at.x, s.at.y, m_middle.z}, m_middle) < extent + farthest)
                points.push_back({s.at.x, s.at.y, s.height});
        fit(points);
    }

    [[nodiscard]] bool fromAbove() const { return m_above; }
    [[nodiscard]] QPointF at(Vec3 p) const
    {
        const QPointF f = flat(p);
        return {m_area.center().x() + m_scale * (f.x() - m_centre.x()), m_area.center().y() - m_scale * (f.y() - m_centre.y())};
    }
    [[nodiscard]] double groundLine() const { return at({m_middle.x, m_middle.y, 0.0}).y(); }

private:
    [[nodiscard]] QPointF flat(Vec3 p) const
    {
        const Vec3 d = p - m_middle;
        return {d.x * m_across.x + d.y * m_across.y, m_above ? d.y * m_across.x - d.x * m_across.y : p.z};
    }
    void fit(const std::vector<Vec3>& points)
    {
        QRectF box(flat(points.front()), QSizeF(0.0, 0.0));
        for (const Vec3& p : points) {
            const QPointF f = flat(p);
            box.setLeft(std::min(box.left(), f.x()));
            box.setRight(std::max(box.right(), f.x()));
            box.setTop(std::min(box.top(), m_above ? f.y() : std::min(f.y(), 0.0)));
            box.setBottom(std::max(box.bottom(), f.y()));
        }
        m_scale = std::min(m_area.width() / std::max(box.width(), 0.5), m_area.height() / std::max(box.height(), 0.5));
        m_centre = box.center();
    }

    QRectF m_area;
    Vec3 m_middle, m_across;
    bool m_above = false;
    double m_scale = 1.0;
    QPointF m_centre;
};

} // namespace

std::vector<DetailKind> detailsOf(const shapes::BuiltAntenna& built, const BuildFacts& facts)
{
    std::vector<DetailKind> all;
    if (hasEnd(built, WireEnd::Centre) || hasEnd(built, WireEnd::Transformer))
        all.push_back(DetailKind::Centre);
    if (hasEnd(built, WireEnd::Link))
        all.push_back(DetailKind::Link);
    if (hasEnd(built, WireEnd::Coil) || !built.coils.empty())
        all.push_back(DetailKind::Coil);
    if (hasEnd(built, WireEnd::Insulator))
        all.push_back(DetailKind::End);
    if (std::any_of(built.sections.begin(), built.sections.end(),
                    [](const auto& s) { return s.first == WireEnd::Joint && s.last == WireEnd::Insulator && s.pieces > 1; }))
        all.push_back(DetailKind::RadialPlate);
    if (std::any_of(facts.pieces.begin(), facts.pieces.end(), [](const BuildPiece& p) {
            return std::any_of(p.marks.begin(), p.marks.end(), [](const TapeMark& m) { return m.kind == MarkKind::Corner; });
        }))
        all.push_back(DetailKind::LoopCorner);
    return all;
}

QString BuildDrawings::title(DetailKind kind)
{
    switch (kind) {
    case DetailKind::Centre: return tr("At the feedpoint");
    case DetailKind::Link: return tr("At a link");
    case DetailKind::End: return tr("At an end");
    case DetailKind::Coil: return tr("At a coil");
    case DetailKind::RadialPlate: return tr("Radial plate");
    case DetailKind::LoopCorner: return tr("At a corner");
    }
    return {};
}

QString BuildDrawings::small(double metres) const { return smallWords(metres, m_facts.system); }

QString BuildDrawings::words(DetailKind kind) const
{
    const Allowances& a = m_facts.antenna.allowances;
    switch (kind) {
    case DetailKind::Centre: return tr("through two holes, %1 taken: no pull on the joint").arg(small(a.centre));
    case DetailKind::Link: return tr("pigtails %1, slack: the insulator pulls").arg(small(a.pigtail));
    case DetailKind::End: return tr("fold %1 back along itself, two ties").arg(small(a.fold));
    case DetailKind::Coil: return tr("leads %1; the former carries the pull").arg(small(a.coilTail));
    case DetailKind::RadialPlate: return tr("a screw and lug each, %1 soldered").arg(small(a.jointTail));
    case DetailKind::LoopCorner: return tr("runs free through an eye, no knot");
    }
    return {};
}

void BuildDrawings::wire(const std::vector<QPointF>& points, bool added)
{
    QPainterPath path(points.front());
    for (std::size_t i = 1; i < points.size(); ++i) { // rounded where it turns
        const QPointF here = points[i];
        if (i + 1 < points.size()) {
            const QPointF middle = 0.5 * (here + points[i + 1]);
            path.quadTo(here, middle);
        } else {
            path.lineTo(here);
        }
    }
    m_sketch.painter().setBrush(Qt::NoBrush);
    m_sketch.painter().setPen(QPen(added ? m_sketch.colours().petal : m_sketch.colours().leaf, 2.2, Qt::SolidLine, Qt::RoundCap));
    m_sketch.painter().drawPath(path);
}

void BuildDrawings::plate(const QRectF& area)
{
    m_sketch.painter().setPen(QPen(m_sketch.colours().inkSoft, 1.2));
    m_sketch.painter().setBrush(m_sketch.colours().card);
    m_sketch.painter().drawRoundedRect(area, 5, 5);
}

void BuildDrawings::hole(QPointF at, double radius)
{
    m_sketch.painter().setPen(QPen(m_sketch.colours().inkSoft, 1.1));
    m_sketch.painter().setBrush(m_sketch.colours().paper);
    m_sketch.painter().drawEllipse(at, radius, radius);
}

void BuildDrawings::centre(QPointF at)
{
    const bool box = hasEnd(m_facts.built, WireEnd::Transformer);
    plate({at.x() - 34, at.y() - 26, 68, 46});
    hole(at + QPointF(0, -18), 3.5);
    for (double side : {-1.0, 1.0}) {
        if (box && side < 0.0)
            continue;
        hole(at + QPointF(side * 26, -2), 2.4);
        hole(at + QPointF(side * 26, 10), 2.4);
        wire({at + QPointF(side * 84, 22), at + QPointF(side * 26, 10), at + QPointF(side * 12, 4), at + QPointF(side * 26, -2)});
        wire({at + QPointF(side * 26, -2), at + QPointF(side * 18, -6), at + QPointF(side * 8, 6)}, true);
        hole(at + QPointF(side * 8, 6), 2.0);
    }
    m_sketch.painter().setPen(QPen(m_sketch.colours().ink, 4.0, Qt::SolidLine, Qt::FlatCap));
    m_sketch.painter().drawLine(at + QPointF(0, 20), at + QPointF(0, 38));
}

void BuildDrawings::link(QPointF at)
{
    plate({at.x() - 34, at.y() - 14, 68, 14});
    for (double side : {-1.0, 1.0}) {
        hole(at + QPointF(side * 27, -7), 2.2);
        wire({at + QPointF(side * 92, -7), at + QPointF(side * 27, -7)});
        wire({at + QPointF(side * 32, -7), at + QPointF(side * 32, 20), at + QPointF(side * 9, 20)}, true);
    }
    m_sketch.painter().setPen(QPen(m_sketch.colours().inkSoft, 1.2));
    m_sketch.painter().setBrush(m_sketch.colours().petal);
    m_sketch.painter().drawRoundedRect(QRectF(at.x() - 10, at.y() + 15, 20, 10), 2, 2);
}

void BuildDrawings::end(QPointF at)
{
    wire({at + QPointF(-92, 0), at + QPointF(18, 0)});
    wire({at + QPointF(18, 0), at + QPointF(34, -5), at + QPointF(18, -10), at + QPointF(-44, -10)}, true);
    m_sketch.painter().setPen(QPen(m_sketch.colours().inkSoft, 1.4));
    for (double x : {-36.0, -4.0})
        m_sketch.painter().drawLine(at + QPointF(x, -14), at + QPointF(x, 4));
    plate({at.x() + 22, at.y() - 12, 30, 14});
    QPen rope(m_sketch.colours().inkSoft, 1.6);
    rope.setDashPattern({4, 3});
    m_sketch.painter().setPen(rope);
    m_sketch.painter().drawLine(at + QPointF(52, -5), at + QPointF(94, 4));
}

void BuildDrawings::coil(QPointF at)
{
    plate({at.x() - 40, at.y() - 12, 80, 24});
    const Winding& w = m_facts.antenna.winding;
    const int drawn = 12;
    for (int i = 0; i < drawn; ++i) {
        const double x = at.x() - 26.0 + 52.0 * i / (drawn - 1.0);
        m_sketch.painter().setPen(QPen(i + 2 < drawn || w.spare <= 0.0 ? m_sketch.colours().petal : m_sketch.colours().inkFaint, 2.0));
        m_sketch.painter().drawLine(QPointF(x, at.y() + 14), QPointF(x + 3.0, at.y() - 14));
    }
    wire({at + QPointF(-94, 0), at + QPointF(-36, 0)});
    wire({at + QPointF(94, 0), at + QPointF(36, 0)});
    wire({at + QPointF(-36, 0), at + QPointF(-30, 8), at + QPointF(-26, 14)}, true);
    wire({at + QPointF(36, 0), at + QPointF(30, -8), at + QPointF(22, -16)}, true);
    m_sketch.text(at + QPointF(22, -18), tr("tap"), Qt::AlignHCenter | Qt::AlignBottom, {m_sketch.colours().inkSoft, 11});
}

void BuildDrawings::radialPlate(QPointF at)
{
    plate({at.x() - 21, at.y() - 21, 42, 42});
    int radials = 4;
    for (const shapes::WireSection& s : m_facts.built.sections)
        if (s.first == WireEnd::Joint && s.last == WireEnd::Insulator && s.pieces > 1)
            radials = std::min(s.pieces, 32);
    for (int i = 0; i < radials; ++i) {
        const double angle = 2.0 * pi * (i + 0.25) / radials;
        const QPointF out(std::cos(angle), std::sin(angle));
        wire({at + 15.0 * out, at + 37.0 * out});
        hole(at + 15.0 * out, 1.6);
    }
    hole(at, 5.0);
}

void BuildDrawings::loopCorner(QPointF at)
{
    wire({at + QPointF(-80, 26), at + QPointF(0, -14), at + QPointF(80, 26)});
    m_sketch.painter().setPen(QPen(m_sketch.colours().inkSoft, 1.4));
    m_sketch.painter().setBrush(Qt::NoBrush);
    m_sketch.painter().drawEllipse(at + QPointF(0, -4), 7, 9);
    QPen rope(m_sketch.colours().inkSoft, 1.6);
    rope.setDashPattern({4, 3});
    m_sketch.painter().setPen(rope);
    m_sketch.painter().drawLine(at + QPointF(0, -14), at + QPointF(0, -36));
}

void BuildDrawings::detail(DetailKind kind, const QRectF& area)
{
    const Colours& c = m_sketch.colours();
    m_sketch.text(area.topLeft(), title(kind), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
    const QPointF at(area.left() + std::min(0.5 * area.width(), 104.0), area.top() + 58.0);
    switch (kind) {
    case DetailKind::Centre: centre(at); break;
    case DetailKind::Link: link(at); break;
    case DetailKind::End: end(at); break;
    case DetailKind::Coil: coil(at); break;
    case DetailKind::RadialPlate: radialPlate(at); break;
    case DetailKind::LoopCorner: loopCorner(at); break;
    }
    m_sketch.painter().setFont(m_sketch.theme().font(11));
    m_sketch.painter().setPen(c.inkSoft);
    m_sketch.painter().drawText(QRectF(area.left(), area.top() + 100.0, area.width() - 8.0, 32.0), Qt::TextWordWrap, words(kind));
}

namespace {

/// Whether two lines share more than an end.
bool runsAlong(const QLineF& a, const QLineF& b)
{
    constexpr double near = 6.0; // px
    const QPointF along = (b.p2() - b.p1()) / b.length();
    int shared = 0;
    for (int i = 1; i < 10; ++i) {
        const QPointF p = a.pointAt(0.1 * i) - b.p1();
        const double t = QPointF::dotProduct(p, along), off = std::hypot(p.x() - t * along.x(), p.y() - t * along.y());
        shared += off < near && t > near && t < b.length() - near;
    }
    return shared > 1;
}

} // namespace

std::vector<std::pair<std::string, Vec3>> heightsOf(const shapes::BuiltAntenna& built)
{
    constexpr double same = 0.05; // m
    std::vector<std::pair<std::string, Vec3>> all;
    for (const shapes::Handle& h : built.handles)
        all.emplace_back(h.name, h.at);
    const auto add = [&](const Vec3& at) {
        const auto alike = [&](const auto& known) { return std::abs(known.second.z - at.z) < same; };
        // the handle of the other side, as far from the feedpoint
        const auto twin = std::find_if(all.begin(), all.end(), [&](const auto& known) {
            return std::abs(distance(known.second, built.feedPoint) - distance(at, built.feedPoint)) < same;
        });
        if (twin != all.end() && !alike(*twin) && distance(twin->second, at) > same)
            all.insert(twin + 1, {twin->first, at});
    };
    for (const auto& link : built.links)
        add(link.at);
    for (const shapes::CoilPlace& coil : built.coils)
        add(coil.at);
    return all;
}

void BuildDrawings::whole(const QRectF& area)
{
    const Colours& c = m_sketch.colours();
    const shapes::BuiltAntenna& built = m_facts.built;
    if (built.model.wires.empty())
        return;
    const Projection see(built, m_facts.facts, area.adjusted(46, built.coils.empty() ? 22 : 40, -46, -14));
    m_sketch.keepWithin(area);
    m_sketch.painter().save();
    m_sketch.painter().setClipRect(area);
    if (!see.fromAbove())
        m_sketch.line({area.left(), see.groundLine()}, {area.right(), see.groundLine()}, c.inkFaint, 1.0);
    if (!see.fromAbove())
        for (const RopeReport& rope : m_facts.facts.rigging.ropes) {
            m_sketch.line(see.at(rope.start), see.at(rope.hold), c.inkSoft, 1.2, Qt::DashLine);
            m_sketch.reserveLine(see.at(rope.start), see.at(rope.hold));
            m_sketch.line(see.at(rope.hold), see.at({rope.hold.x, rope.hold.y, 0.0}), c.inkFaint, 2.0);
            m_sketch.reserveLine(see.at(rope.hold), see.at({rope.hold.x, rope.hold.y, 0.0}));
        }
    if (!see.fromAbove())
        for (const Support& s : m_facts.facts.supports) {
            const QPointF top = see.at({s.at.x, s.at.y, s.height}), foot = see.at({s.at.x, s.at.y, 0.0});
            m_sketch.line(top, foot, c.inkFaint, s.kind == SupportKind::Tower ? 6.0 : 3.0);
            m_sketch.reserveLine(top, foot);
        }
    for (const Wire& w : built.model.wires) {
        QPainterPath path(see.at(w.points.front()));
        for (std::size_t i = 1; i < w.points.size(); ++i) {
            path.lineTo(see.at(w.points[i]));
            m_sketch.reserveLine(see.at(w.points[i - 1]), see.at(w.points[i]));
        }
        m_sketch.painter().setBrush(Qt::NoBrush);
        m_sketch.painter().setPen(QPen(c.leaf, 2.0));
        m_sketch.painter().drawPath(path);
    }
    for (const shapes::CoilPlace& p : built.coils)
        m_sketch.coil(see.at(p.at), 0.0);
    m_sketch.feed(see.at(built.feedPoint));
    std::vector<QRectF> words;                              // of dimensions that stand already
    std::vector<QLineF> lines;                              // and they themselves
    const double aside = built.coils.empty() ? 13.0 : 24.0; // clear of what is drawn on the wire
    for (const shapes::Dimension& d : built.dimensions) {
        const QPointF a = see.at(d.from), b = see.at(d.to);
        if (QLineF(a, b).length() < 24.0)
            continue;
        const QPointF along = (b - a) / QLineF(a, b).length();
        QPointF across(-along.y(), along.x());
        if (!built.coils.empty() && across.y() > 0.0)
            across = -across;
        const QString figure = lengthWords(distance(d.from, d.to), m_facts.system);
        for (double off : {aside, -aside, aside + 16.0, -aside - 16.0, aside + 32.0}) {
            const QRectF box = m_sketch.wordsOf({a + off * across, b + off * across, figure});
            const QLineF line(a + off * across, b + off * across);
            const auto inTheWay = [&](const QRectF& other) { return other.intersects(box); };
            const auto upon = [&](const QLineF& other) { return runsAlong(line, other); };
            if (!area.contains(box) || std::any_of(words.begin(), words.end(), inTheWay) || std::any_of(lines.begin(), lines.end(), upon))
                continue;
            words.push_back(box);
            lines.push_back(line);
            m_sketch.dimension(a + off * across, b + off * across, figure);
            break;
        }
    }
    m_sketch.painter().restore();
    if (see.fromAbove())
        return;
    std::vector<QPointF> told;
    for (const auto& [name, place] : heightsOf(built)) {
        const QPointF at = see.at(place);
        if (std::any_of(told.begin(), told.end(), [&](QPointF p) { return QLineF(p, at).length() < 30.0; }))
            continue;
        told.push_back(at);
        m_sketch.label(at + QPointF(0, -8), tr("%1, %2 high").arg(coreWords(name), lengthWords(place.z, m_facts.system, 1)),
                       Qt::AlignHCenter | Qt::AlignBottom, {c.inkSoft, 11});
    }
    for (const Support& s : m_facts.facts.supports)
        if (area.contains(see.at({s.at.x, s.at.y, 0.0})))
            m_sketch.label(see.at({s.at.x, s.at.y, 0.45 * s.height}) + QPointF(8, 0),
                           tr("%1, %2").arg(coreWords(s.name), lengthWords(s.height, m_facts.system, 1)), Qt::AlignLeft | Qt::AlignVCenter,
                           {c.inkFaint, 11});
}

/// Each size once: "3.0, 4.5 and 8.0".
QString holeWords(const Plate& plate)
{
    QStringList sizes;
    for (double size : holeSizes(plate))
        sizes << QString::number(1e3 * size, 'f', 1);
    const QString last = sizes.takeLast();
    return sizes.isEmpty() ? last : QCoreApplication::translate("BuildDrawings", "%1 and %2").arg(sizes.join(QStringLiteral(", ")), last);
}

int paintPlates(QPainter& painter, const Theme& theme, const std::vector<Plate>& plates, const std::function<void()>& newPage)
{
    const double perMetre = painter.device()->logicalDpiX() / 0.0254;
    const QRectF page = painter.viewport();
    const auto pages = placePlates(plates, page.width() / perMetre, page.height() / perMetre);
    for (std::size_t i = 0; i < pages.size(); ++i) {
        if (i > 0)
            newPage();
        painter.save();
        const double perPixel = perMetre * 0.0254 / 96.0;
        painter.scale(perPixel, perPixel);
        const double px = 96.0 / 0.0254; // a metre
        Sketch sketch(painter, theme);
        const Colours& c = theme.colours();
        for (const PlacedPlate& placed : pages[i]) {
            const Plate& p = plates[placed.plate];
            const QRectF area(placed.x * px, placed.y * px, p.width * px, p.height * px);
            painter.setBrush(Qt::NoBrush);
            painter.setPen(QPen(c.ink, 0.8));
            p.round ? painter.drawEllipse(area) : painter.drawRoundedRect(area, 8, 8);
            for (const Hole& hole : p.holes) {
                const QPointF at(area.left() + hole.x * px, area.bottom() - hole.y * px);
                const double r = 0.5 * hole.diameter * px;
                painter.drawEllipse(at, r, r);
                painter.drawLine(at - QPointF(r + 4, 0), at + QPointF(r + 4, 0));
                painter.drawLine(at - QPointF(0, r + 4), at + QPointF(0, r + 4));
                sketch.reserve(QRectF(at - QPointF(r + 4, r + 4), QSizeF(2 * r + 8, 2 * r + 8)));
            }
            for (const Hole& hole : p.holes)
                sketch.label(QPointF(area.left() + hole.x * px + 0.5 * hole.diameter * px + 5, area.bottom() - hole.y * px),
                             QString::number(1e3 * hole.diameter, 'f', 1), Qt::AlignLeft | Qt::AlignVCenter, {c.inkSoft, 8});
            sketch.text(area.bottomLeft() + QPointF(0, 4),
                        QCoreApplication::translate("BuildDrawings", "%1 × %2, %3 × %4 mm, holes %5 mm")
                            .arg(p.count)
                            .arg(coreWords(p.name))
                            .arg(1e3 * p.width, 0, 'f', 0)
                            .arg(1e3 * p.height, 0, 'f', 0)
                            .arg(holeWords(p)),
                        Qt::AlignLeft | Qt::AlignTop, {c.ink, 12});
        }
        const double foot = page.height() / perPixel - 40.0, left = templateMargin * px, bar = templateBar * px;
        painter.setPen(QPen(c.ink, 1.0));
        painter.drawLine(QPointF(left, foot), QPointF(left + bar, foot));
        for (double x : {left, left + bar})
            painter.drawLine(QPointF(x, foot - 5), QPointF(x, foot + 5));
        sketch.text(
            {left, foot + 8},
            QCoreApplication::translate("BuildDrawings", "50 mm: measure this bar before drilling. Eye protection; clamp the plate."),
            Qt::AlignLeft | Qt::AlignTop, {c.ink, 12});
        painter.restore();
    }
    return int(pages.size());
}

} // namespace vetchling::app

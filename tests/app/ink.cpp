#include "tests/app/ink.h"

#include <QFontMetricsF>
#include <QPaintEngine>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <optional>

namespace vetchling::app {
namespace {

constexpr double touch = 0.6;         // px that two inks may share: rounded glyphs
constexpr double edge = 1.0;          // px that a glyph may reach out by rounding
constexpr int solid = 200, seen = 90; // alpha from which a fill hides, a stroke disturbs
constexpr double faint = 0.30;        // of the range from paper to ink: lines of a grid, hatching

double lightness(const QColor& c) { return c.lightnessF(); }

QPolygonF shrunk(const QRectF& r, const QTransform& by) { return by.map(QPolygonF(r.adjusted(touch, touch, -touch, -touch))); }

} // namespace

class InkEngine : public QPaintEngine {
public:
    explicit InkEngine(Ink& ink) : QPaintEngine(AllFeatures), m_ink(ink) {}
    bool begin(QPaintDevice*) override { return true; }
    bool end() override { return true; }
    [[nodiscard]] Type type() const override { return User; }

    void updateState(const QPaintEngineState& state) override
    {
        const auto dirty = state.state();
        if (dirty & DirtyTransform)
            m_transform = state.transform();
        if (dirty & DirtyPen)
            m_pen = state.pen();
        if (dirty & DirtyBrush)
            m_brush = state.brush();
        if (dirty & DirtyOpacity)
            m_opacity = state.opacity();
        if (dirty & (DirtyClipEnabled | DirtyClipPath | DirtyClipRegion))
            m_clipped = state.isClipEnabled();
    }
    void drawPath(const QPainterPath& path) override
    {
        fill(path);
        stroke(path);
    }
    void drawPolygon(const QPointF* points, int count, PolygonDrawMode mode) override
    {
        QPainterPath path;
        QPolygonF polygon;
        for (int i = 0; i < count; ++i)
            polygon << points[i];
        if (mode != PolylineMode && count > 0)
            polygon << points[0];
        path.addPolygon(polygon);
        if (mode != PolylineMode)
            fill(path);
        stroke(path);
    }
    void drawLines(const QLineF* lines, int count) override
    {
        QPainterPath path;
        for (int i = 0; i < count; ++i) {
            path.moveTo(lines[i].p1());
            path.lineTo(lines[i].p2());
        }
        stroke(path);
    }
    void drawRects(const QRectF* rects, int count) override
    {
        for (int i = 0; i < count; ++i) {
            QPainterPath path;
            path.addRect(rects[i]);
            fill(path);
            stroke(path);
        }
    }
    void drawEllipse(const QRectF& r) override
    {
        QPainterPath path;
        path.addEllipse(r);
        fill(path);
        stroke(path);
    }
    void drawPixmap(const QRectF&, const QPixmap&, const QRectF&) override {}
    void drawImage(const QRectF&, const QImage&, const QRectF&, Qt::ImageConversionFlags) override {}
    void drawTextItem(const QPointF& at, const QTextItem& item) override
    {
        const QString text = item.text().trimmed();
        if (text.isEmpty())
            return;
        const QRectF box = QFontMetricsF(item.font(), &m_ink).tightBoundingRect(item.text()).translated(at);
        const bool goesOn = m_last && m_last->order == m_ink.m_order && QLineF(m_last->end, m_transform.map(at)).length() < touch;
        m_last = Run{m_ink.m_order + 1, m_transform.map(at + QPointF(item.width(), 0.0))};
        if (goesOn) { // the same line in another font
            m_box |= box;
            m_ink.m_words.back() = {m_ink.m_words.back().text + item.text(), shrunk(m_box, m_transform), m_ink.m_order++};
            return;
        }
        m_box = box;
        m_ink.m_words.push_back({text, shrunk(box, m_transform), m_ink.m_order++});
    }

private:
    void fill(const QPainterPath& path)
    {
        if (m_brush.style() == Qt::SolidPattern && m_brush.color().alpha() * m_opacity > solid)
            m_ink.m_fills.push_back({m_transform.map(path), m_ink.m_order++});
    }
    void stroke(const QPainterPath& path)
    {
        const QColor c = m_pen.color();
        if (m_pen.style() == Qt::NoPen || m_clipped || c.alpha() * m_opacity < seen ||
            std::abs(lightness(Qt::white) - lightness(c)) < faint)
            return;
        QPainterPathStroker pen;
        pen.setWidth(std::max(0.5, m_pen.widthF()));
        m_ink.m_strokes.push_back({m_transform.map(pen.createStroke(path)), m_ink.m_order++});
    }

    struct Run {
        int order = 0; ///< of what comes next
        QPointF end;
    };

    Ink& m_ink;
    std::optional<Run> m_last;
    QRectF m_box;
    QTransform m_transform;
    QPen m_pen;
    QBrush m_brush;
    double m_opacity = 1.0;
    bool m_clipped = false;
};

Ink::Ink(QSizeF size) : m_size(size), m_engine(std::make_unique<InkEngine>(*this)) {}
Ink::~Ink() = default;
QPaintEngine* Ink::paintEngine() const { return m_engine.get(); }

int Ink::metric(PaintDeviceMetric which) const
{
    constexpr double inch = 25.4;
    constexpr int dots = 96;
    switch (which) {
    case PdmWidth: return int(m_size.width());
    case PdmHeight: return int(m_size.height());
    case PdmWidthMM: return int(m_size.width() * inch / dots);
    case PdmHeightMM: return int(m_size.height() * inch / dots);
    case PdmNumColors: return 1 << 24;
    case PdmDepth: return 32;
    case PdmDevicePixelRatio: return 1;
    case PdmDevicePixelRatioScaled: return int(devicePixelRatioFScale());
    default: return dots;
    }
}

QStringList Ink::wordsOnWords() const
{
    QStringList found;
    for (std::size_t i = 0; i < m_words.size(); ++i)
        for (std::size_t k = i + 1; k < m_words.size(); ++k)
            if (m_words[i].ink.intersects(m_words[k].ink))
                found << QStringLiteral("%1 × %2").arg(m_words[i].text, m_words[k].text);
    return found;
}

bool Ink::isCovered(const Words& words, const Stroke& stroke) const
{
    return stroke.order < words.order && std::any_of(m_fills.begin(), m_fills.end(), [&](const Fill& f) {
               return f.order > stroke.order && f.order < words.order && f.area.contains(words.ink.boundingRect().center());
           });
}

QStringList Ink::wordsStruck() const
{
    QStringList found;
    for (const Words& words : m_words) {
        QPainterPath ink;
        ink.addPolygon(words.ink);
        for (const Stroke& stroke : m_strokes)
            if (stroke.line.boundingRect().intersects(words.ink.boundingRect()) && stroke.line.intersects(ink) &&
                !isCovered(words, stroke)) {
                const QRectF where = stroke.line.boundingRect();
                found << QStringLiteral("%1 at %2,%3 by a line in %4,%5 %6x%7")
                             .arg(words.text)
                             .arg(words.ink.boundingRect().x(), 0, 'f', 0)
                             .arg(words.ink.boundingRect().y(), 0, 'f', 0)
                             .arg(where.x(), 0, 'f', 0)
                             .arg(where.y(), 0, 'f', 0)
                             .arg(where.width(), 0, 'f', 0)
                             .arg(where.height(), 0, 'f', 0);
                break;
            }
    }
    return found;
}

QStringList Ink::texts() const
{
    QStringList all;
    for (const Words& w : m_words)
        all << w.text;
    return all;
}

QStringList Ink::wordsCut() const
{
    QStringList found;
    for (const Words& words : m_words)
        if (!QRectF(QPointF(), m_size).adjusted(-edge, -edge, edge, edge).contains(words.ink.boundingRect()))
            found << QStringLiteral("%1 at %2,%3").arg(words.text).arg(words.ink.boundingRect().x()).arg(words.ink.boundingRect().y());
    return found;
}

} // namespace vetchling::app

#pragma once
/// One painter for all graphics: text, labels that avoid each other, dimension lines, hatching, handles, glyphs.

#include "app/view/theme.h"

#include <QPainter>
#include <QPainterPath>
#include <QPointF>
#include <QRectF>
#include <QString>
#include <QStringList>

#include <vector>

namespace vetchling::app {

class Sketch {
public:
    Sketch(QPainter& painter, const Theme& theme);

    [[nodiscard]] QPainter& painter() { return m_painter; }
    [[nodiscard]] const Colours& colours() const { return m_theme.colours(); }
    [[nodiscard]] const Theme& theme() const { return m_theme; }

    struct Ink {
        QColor colour;
        int pixels = 12;
        bool bold = false;
        QColor halo = {}; ///< fills the ground behind the words where they stand on a pattern
    };
    /// Small pictures go without words and dimensions.
    void setWordless(bool wordless) { m_wordless = wordless; }

    /// Text at an anchor: AlignLeft puts it right of the point, AlignHCenter centred, AlignRight left of it;
    /// AlignTop below the point, AlignVCenter centred, AlignBottom above. Returns where it stands.
    QRectF text(QPointF anchor, const QString& words, Qt::Alignment alignment, const Ink& ink);
    /// An anchor, and on which side of it words stand, as for `text`.
    struct Place {
        QPointF at;
        Qt::Alignment alignment;
    };
    /// Text at the first of some places that touches nothing reserved; left out, and null, if there is none.
    QRectF fit(const std::vector<Place>& places, const QString& words, const Ink& ink);
    /// The same; where there is none, at the place where it covers least, on a ground of its own.
    QRectF put(const std::vector<Place>& places, const QString& words, const Ink& ink);
    /// Text moved up, down or sideways until it touches nothing reserved; left out if there is no room within 60 px.
    QRectF label(QPointF anchor, const QString& words, Qt::Alignment alignment, const Ink& ink);
    /// The name of something round, beside it: above, right, left or below, where it touches least of what is reserved; left out if the
    /// thing itself is outside the area that labels stay within.
    /// @param always else also left out where it would cover something
    QRectF name(QPointF at, double radius, const QString& words, const Ink& ink, bool always = true);
    /// Labels and names stay inside this area.
    void keepWithin(const QRectF& area) { m_within = area; }
    /// Area that labels keep clear of.
    void reserve(const QRectF& area) { m_taken.push_back(area); }
    void reserveLine(QPointF a, QPointF b);
    void reservePath(const QPainterPath& path);

    /// A card with lines of words, the first one bold, kept inside an area. @param corner top left Returns where it stands.
    QRectF card(QPointF corner, const QStringList& lines, const QRectF& within);
    [[nodiscard]] QSizeF cardSize(const QStringList& lines) const;

    void line(QPointF a, QPointF b, const QColor& colour, double width = 1.0, Qt::PenStyle style = Qt::SolidLine);
    /// A line with arrowheads and the words turned along it, upright to read.
    struct Dimension {
        QPointF a, b;
        QString words;
        double share = 0.5; ///< of the way, where its words stand
    };
    /// Places the words in the middle, or where else along the line they touch nothing reserved and stay inside the area of labels, and
    /// reserves line and words; an empty one where there is no room for it.
    Dimension plan(QPointF a, QPointF b, const QString& words);
    /// Left without its words where these would leave the area of labels.
    void draw(const Dimension& dimension);
    void dimension(QPointF a, QPointF b, const QString& words) { draw(plan(a, b, words)); }
    /// Where its words come to stand.
    [[nodiscard]] QRectF wordsOf(const Dimension& dimension) const;
    void hatch(const QPainterPath& area, const QColor& colour, double spacing = 6.0);
    void arrowHead(QPointF tip, QPointF from, const QColor& colour);
    /// Petal ring that can be dragged.
    void handle(QPointF at, bool hot);

    // Glyphs; each looks like the thing.
    void feed(QPointF at);
    /// @param length of it on the screen, where it is longer than the symbol
    void coil(QPointF at, double angle, double length = 0.0);
    void trap(QPointF at, double angle);
    void resistor(QPointF at, double angle);
    void link(QPointF at, double angle, bool open);
    void insulator(QPointF at, double angle);
    void leaf(QPointF stem, bool filled);
    void triangle(QPointF tip, const QColor& fill, const QColor& edge);

private:
    void draw(QPointF topLeft, const Typeset& set, const QColor& colour);
    [[nodiscard]] bool isFree(const QRectF& area) const;
    /// px squared of what is reserved, or lies outside, ten times.
    [[nodiscard]] double covered(const QRectF& area) const;

    QPainter& m_painter;
    const Theme& m_theme;
    std::vector<QRectF> m_taken;
    QRectF m_within; ///< null: anywhere
    bool m_wordless = false;
};

/// Vertical place of an SWR on a reflected-power-like axis: 0 at 1:1, 1 at the cap (9:1 and beyond).
double swrFraction(double swr);
inline constexpr double swrCap = 9.0;
/// "1.20", "over 9".
QString swrText(double swr);
/// "52 - j3 ohm" with the proper signs.
QString impedanceText(double resistance, double reactance);

} // namespace vetchling::app

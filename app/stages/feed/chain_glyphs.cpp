#include "app/stages/feed/chain_glyphs.h"

#include "core/line/parts.h"

#include <cmath>

namespace vetchling::app {
namespace {

class Glyph {
public:
    Glyph(Sketch& sketch, QPointF centre, const QColor& ink) : m_sketch(sketch), m_p(sketch.painter()), m_c(centre), m_ink(ink)
    {
        m_p.save();
        m_p.setPen(QPen(ink, 1.4, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        m_p.setBrush(Qt::NoBrush);
    }
    ~Glyph() { m_p.restore(); }
    Glyph(const Glyph&) = delete;
    Glyph& operator=(const Glyph&) = delete;

    /// A wire on a mast, fed at a petal ring.
    void antenna()
    {
        line(-15, 16, -5, -15);
        line(-5, -15, 15, -8);
        m_p.setBrush(m_sketch.colours().petal);
        m_p.drawEllipse(at(0, 5), 4.0, 4.0);
        line(-2, 1, -5, -15);
    }

    /// Two windings beside one another on a core.
    void transformer()
    {
        frame();
        for (const int side : {-1, 1}) {
            QPainterPath winding(at(side * 4, -12));
            for (int i = 0; i < 4; ++i)
                winding.arcTo(QRectF(at(side * 7 - 4, -12 + 6 * i), QSizeF(8, 6)), 90.0, side > 0 ? -180.0 : 180.0);
            m_p.drawPath(winding);
        }
    }

    /// A ring with the line wound through it.
    void choke()
    {
        m_p.drawEllipse(m_c, 16.0, 16.0);
        m_p.drawEllipse(m_c, 6.5, 6.5);
        for (double degrees : {30.0, 90.0, 150.0, 210.0, 330.0}) {
            const double a = degrees * pi / 180.0;
            line(6.5 * std::cos(a), -6.5 * std::sin(a), 16.0 * std::cos(a + 0.25), -16.0 * std::sin(a + 0.25));
        }
    }

    /// A coil of cable.
    void coax()
    {
        m_p.drawEllipse(m_c, 16.0, 16.0);
        QPainterPath spiral(at(2, 0));
        for (int i = 1; i <= 60; ++i) {
            const double a = 0.2 * i, r = 2.0 + 0.16 * i;
            spiral.lineTo(at(r * std::cos(a), r * std::sin(a)));
        }
        m_p.drawPath(spiral);
    }

    /// Two wires with spreaders.
    void openLine()
    {
        line(-17, -6, 17, -6);
        line(-17, 6, 17, 6);
        for (int x : {-11, 0, 11})
            line(x, -6, x, 6);
    }

    /// Two pieces of unlike line in a row.
    void section()
    {
        m_p.drawRoundedRect(QRectF(at(-17, -7), QSizeF(18, 14)), 3, 3);
        m_p.drawRoundedRect(QRectF(at(1, -4), QSizeF(16, 8)), 2, 2);
    }

    void stub(bool shorted)
    {
        line(-16, -10, 16, -10);
        line(-4, -10, -4, 14);
        line(4, -10, 4, 14);
        if (shorted)
            line(-4, 14, 4, 14);
    }

    /// A coil in the path, a capacitor across.
    void network()
    {
        frame();
        QPainterPath coil(at(-13, -6));
        for (int i = 0; i < 3; ++i)
            coil.arcTo(QRectF(at(-13 + 5 * i, -9), QSizeF(5, 6)), 180.0, -180.0);
        m_p.drawPath(coil);
        line(2, -6, 13, -6);
        line(7, -6, 7, 2);
        line(2, 2, 12, 2);
        line(2, 6, 12, 6);
        line(7, 6, 7, 13);
    }

    /// A box with two knobs.
    void tuner()
    {
        frame();
        m_p.drawEllipse(at(-5, -4), 6.0, 6.0);
        line(-5, -4, -1, -8);
        m_p.drawEllipse(at(8, 8), 4.0, 4.0);
        line(8, 8, 8, 4);
    }

    void attenuator() { m_p.drawPolygon(QPolygonF{at(-16, -13), at(16, -4), at(16, 4), at(-16, 13)}); }

    /// A dial with its needle.
    void meter()
    {
        m_p.drawRoundedRect(QRectF(at(-17, -13), QSizeF(34, 26)), 4, 4);
        m_p.drawArc(QRectF(at(-12, -7), QSizeF(24, 24)), 30 * 16, 120 * 16);
        line(0, 8, 6, -5);
    }

    void several()
    {
        frame();
        m_p.setBrush(m_ink);
        for (int x : {-8, 0, 8})
            m_p.drawEllipse(at(x, 0), 1.8, 1.8);
    }

    void radio()
    {
        m_p.drawRoundedRect(QRectF(at(-19, -15), QSizeF(38, 30)), 4, 4);
        m_p.drawRect(QRectF(at(-14, -10), QSizeF(17, 9)));
        m_p.drawEllipse(at(11, 5), 4.0, 4.0);
        line(-14, 8, 1, 8);
    }

private:
    [[nodiscard]] QPointF at(double x, double y) const { return m_c + QPointF(x, y); }
    void line(double x1, double y1, double x2, double y2) { m_p.drawLine(at(x1, y1), at(x2, y2)); }
    void frame() { m_p.drawRoundedRect(QRectF(at(-17, -17), QSizeF(34, 34)), 5, 5); }

    Sketch& m_sketch;
    QPainter& m_p;
    QPointF m_c;
    QColor m_ink;
};

} // namespace

void paintPartGlyph(Sketch& sketch, const ChainPart& part, QPointF centre, const QColor& ink)
{
    Glyph glyph(sketch, centre, ink);
    const std::string& kind = part.kind;
    if (kind == "antenna")
        glyph.antenna();
    else if (kind == "radio")
        glyph.radio();
    else if (kind == part::transformer)
        glyph.transformer();
    else if (kind == part::choke)
        glyph.choke();
    else if (kind == part::line)
        partValue(part, "balanced") > 0.5 ? glyph.openLine() : glyph.coax();
    else if (kind == part::section)
        glyph.section();
    else if (kind == part::stub)
        glyph.stub(partValue(part, "shorted") > 0.5);
    else if (kind == part::network)
        glyph.network();
    else if (kind == part::tuner)
        glyph.tuner();
    else if (kind == part::attenuator)
        glyph.attenuator();
    else if (kind == part::meter)
        glyph.meter();
    else
        glyph.several();
}

} // namespace vetchling::app

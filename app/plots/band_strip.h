#pragma once
/// The spectrum at the bottom of the window: each band opened like under a lens, the stretches between pressed together,
/// the SWR trace through all of it.

#include "app/view/context.h"

#include <QPolygonF>
#include <QWidget>

namespace vetchling::app {

/// The line without the points that lie within a quarter of a pixel of it.
QPolygonF simplified(const QPolygonF& line);

/// Horizontal places of frequencies: bands at equal widths, gaps between them narrow.
class BandLens {
public:
    BandLens() = default;
    /// @param bands rising, not overlapping
    BandLens(const std::vector<Band>& bands, double left, double right);

    [[nodiscard]] double x(double frequency) const;
    [[nodiscard]] double frequency(double x) const;
    [[nodiscard]] int bandAt(double x) const; ///< -1 between bands
    [[nodiscard]] double bandLeft(int band) const { return m_stops[std::size_t(2 * band + 1)].x; }
    [[nodiscard]] double bandRight(int band) const { return m_stops[std::size_t(2 * band + 2)].x; }
    [[nodiscard]] bool empty() const { return m_stops.size() < 4; }
    [[nodiscard]] double from() const { return m_stops.front().frequency; }
    [[nodiscard]] double to() const { return m_stops.back().frequency; }

private:
    struct Stop {
        double frequency, x;
    };
    std::vector<Stop> m_stops;
};

class BandStrip : public QWidget {
    Q_OBJECT
public:
    explicit BandStrip(ViewContext& context, QWidget* parent = nullptr);

    [[nodiscard]] QSize sizeHint() const override { return {1280, 124}; }
    /// What is looked at on trial, dashed: of each band the curve that would serve it. Empty: nothing is.
    void setTrial(std::vector<std::pair<Id, CurvePointer>> curves);

signals:
    /// The trace of a new result has been painted; for measuring how fast a drag is followed.
    void traced();

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void wheelEvent(QWheelEvent*) override;

private:
    void documentChanged();
    void rebuild();
    void advance();
    void describe();
    using Trace = std::vector<QPolygonF>; ///< one line for each stretch that was solved
    [[nodiscard]] std::vector<WantedBand> bandsOnShow() const;
    [[nodiscard]] Trace traceOf(const study::Curve& curve) const;
    void takeTrial();
    void scrollTo(double offset);
    void showSelected();
    void paintTrace(class Sketch& sketch, const Trace& trace, bool pinned) const;
    void paintSpread(class Sketch& sketch) const;
    void takeSpread();
    void takeOthers();
    void paintAll(QPainter& painter) const;
    void paintScale(class Sketch& sketch) const;
    void paintBands(class Sketch& sketch) const;
    void paintBand(class Sketch& sketch, std::size_t place) const;
    void paintMultiples(class Sketch& sketch) const;
    void paintCrosshair(class Sketch& sketch) const;
    [[nodiscard]] double y(double swr) const;
    [[nodiscard]] QString planeWords() const;
    /// On the words that tell where the SWR is seen.
    [[nodiscard]] bool overPlane(QPointF p) const;
    [[nodiscard]] double inContent(double x) const { return x + m_scroll; }

    Document& m_document;
    SolveService& m_solver;
    VariantsDesk& m_variants;
    const Theme& m_theme;
    std::vector<std::pair<QPen, Trace>> m_others;
    std::vector<std::pair<Id, CurvePointer>> m_trialCurves;
    Trace m_trial;
    std::vector<QPolygonF> m_spread; ///< areas in the content where the curve may lie
    BandLens m_lens;
    Operation m_operation;                ///< bands and limit as shown
    std::vector<WantedBand> m_shown;      ///< bands in the strip: wanted ones and those that were solved
    double m_width = 0.0, m_scroll = 0.0; ///< px of the whole content, and how far it is moved left
    Trace m_trace, m_pinned;
    double m_hover = -1.0; ///< in the content
    bool m_overPlane = false;
    bool m_fresh = false;
};

} // namespace vetchling::app

#pragma once
/// The bands below one another: those that work large, with curve, match and use; those that do not as a line with its reason.

#include "app/document/bands_desk.h"
#include "app/plots/swr_chart.h"
#include "app/view/canvas.h"

namespace vetchling::app {

class CoverageRows final : public Canvas {
    Q_OBJECT
public:
    CoverageRows(ViewContext& context, BandsDesk& desk);

    void setReactances(bool on);
    /// Ids of the bands that are on show: the large ones first.
    [[nodiscard]] std::vector<Id> rows() const;
    [[nodiscard]] bool isLarge(const Id& band) const;
    void refresh();
    void render(Sketch& sketch, const QSizeF& size) override;

protected:
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;

private:
    /// A band as it is shown: the present curve where the antenna has one state, else that of the state that serves it best.
    struct Shown {
        const WantedBand* wanted;
        CurvePointer curve;
        const Coverage* coverage;
        QString configuration; ///< empty where there is but one
    };
    [[nodiscard]] std::optional<Shown> shown(const Id& band) const;
    struct Place {
        Id band;
        QRectF area;
        bool large;
    };
    /// @param width px
    [[nodiscard]] std::vector<Place> places(const QSizeF& size) const;
    [[nodiscard]] SwrChart chartOf(const Band& band, const QRectF& row) const;
    void paintRow(Sketch& sketch, const Shown& shown, const QRectF& row);
    [[nodiscard]] QString reasonWords(const Shown& shown) const;
    void paintLine(Sketch& sketch, const Shown& shown, const QRectF& row) const;
    void paintName(Sketch& sketch, const Shown& shown, const QRectF& row) const;
    [[nodiscard]] const study::BandSpread* spreadOf(const Id& band) const;
    mutable std::shared_ptr<const study::Spread> m_spread; ///< while it is painted
    void paintTicks(Sketch& sketch, const SwrChart& chart, const Band& band) const;
    void paintMeasured(Sketch& sketch, const SwrChart& chart) const;
    void paintMarks(Sketch& sketch, const Coverage& coverage, const SwrChart& chart) const;
    void paintSegments(Sketch& sketch, const WantedBand& wanted, const SwrChart& chart) const;
    void paintReactances(Sketch& sketch, const study::Curve& curve, const SwrChart& chart) const;
    void paintWords(Sketch& sketch, const Shown& shown, const QRectF& row) const;
    void paintUse(Sketch& sketch, const Id& band, const QRectF& row, bool large) const;
    void paintReading(Sketch& sketch, const study::Curve& curve, const SwrChart& chart) const;

    BandsDesk& m_desk;
    bool m_reactances = false;
    QPointF m_pointer{-1, -1};
};

} // namespace vetchling::app

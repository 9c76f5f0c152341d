#pragma once
/// The view that says which length would serve best.

#include "app/stages/bands/bands_view.h"
#include "app/stages/bands/length_map_chart.h"
#include "app/stages/bands/shift_panel.h"

namespace vetchling::app {

class ValueEdit;

class LengthMapView final : public BandsView {
    Q_OBJECT
public:
    LengthMapView(ViewContext& context, BandsDesk& desk, QObject* parent);

    QString id() const override { return QStringLiteral("map"); }
    QString name() const override { return tr("Map"); }
    QWidget* widget() override { return m_chart; }
    Canvas* canvas() override { return m_chart; }
    QString title() const override { return tr("Bands: which length?"); }
    QString sentence() const override;
    QString tableText() const override;
    bool offered() const override { return !dimensions().empty(); }
    QString layout() const override;
    void buildLedger(Ledger& ledger) override;
    void forgetLedger() override;
    void refresh() override;

private:
    /// Parameters that a map can vary: what is tuned, what trimming changes, further lengths and coils that are no place.
    [[nodiscard]] std::vector<std::string> dimensions() const;
    [[nodiscard]] const shapes::ParameterSpec* spec() const;
    [[nodiscard]] QString valueText(double value) const;
    void choose(const std::string& vary);
    void take(double value, bool dragging);
    void refreshFigures();
    [[nodiscard]] std::optional<std::size_t> columnShown() const;

    LengthMapChart* m_chart;
    Id m_antenna; ///< the range was chosen for
    std::string m_vary;
    double m_from = 0.0, m_to = 0.0;
    QComboBox* m_dimension = nullptr;
    ValueEdit *m_fromEdit = nullptr, *m_toEdit = nullptr;
    QLabel *m_heading = nullptr, *m_why = nullptr;
    std::vector<std::pair<Id, QLabel*>> m_figures;
    QPushButton *m_takeBest = nullptr, *m_takeFavourite = nullptr;
    std::unique_ptr<ShiftPanel> m_shift; ///< null where there is nothing to shift them with
};

} // namespace vetchling::app

#pragma once
/// The view that says which length would serve best.

#include "app/plots/pair_chart.h"
#include "app/stages/bands/bands_view.h"
#include "app/stages/bands/length_map_chart.h"
#include "app/stages/bands/shift_panel.h"

class QStackedWidget;

namespace vetchling::app {

class ValueEdit;

class LengthMapView final : public BandsView {
    Q_OBJECT
public:
    LengthMapView(ViewContext& context, BandsDesk& desk, QObject* parent);

    QString id() const override { return QStringLiteral("map"); }
    QString name() const override { return tr("Map"); }
    QWidget* widget() override { return m_stack; }
    Canvas* canvas() override { return asCurves() ? static_cast<Canvas*>(m_curves) : m_chart; }
    QString title() const override
    {
        return height() ? tr("Bands: how high?") : turned() ? tr("Bands: which way?") : tr("Bands: which length?");
    }
    QString sentence() const override;
    QString tableText() const override;
    bool offered() const override { return !lengths().empty() || !dimensions().empty(); }
    QString layout() const override;
    void buildLedger(Ledger& ledger) override;
    void forgetLedger() override;
    void refresh() override;

private:
    /// Parameters that a map can vary: what is tuned, what trimming changes, further lengths and coils that are no place.
    [[nodiscard]] std::vector<std::string> lengths() const;
    /// Those, heights, and the bearing of what turns.
    [[nodiscard]] std::vector<std::string> dimensions() const;
    /// Whether it is one of the heights that is varied, or the bearing of what turns: told as curves of one band.
    [[nodiscard]] bool height() const { return study::isHeight(m_vary); }
    [[nodiscard]] bool turned() const { return m_varied && m_varied->spec.key == study::turning; }
    [[nodiscard]] bool asCurves() const { return height() || turned(); }
    /// The band that curves are told for: the selected one, else the favourite, else the first that is wished for; none without a map.
    [[nodiscard]] std::optional<std::size_t> bandShown() const;
    void showCurves(const QString& words);
    void addRows(PairChart::Content& out, const study::LengthMap& map, std::size_t band);
    [[nodiscard]] QString heightSentence(const study::LengthMap& map) const;
    [[nodiscard]] QString turnSentence(const study::LengthMap& map) const;
    /// "towards 250°", or where it is strongest.
    [[nodiscard]] QString aimWords(const study::Aim& aim) const;
    [[nodiscard]] QString valueText(double value) const;
    void choose(const std::string& vary);
    void take(double value, bool dragging);
    void refreshFigures();
    [[nodiscard]] std::optional<std::size_t> columnShown() const;

    QStackedWidget* m_stack;
    LengthMapChart* m_chart;
    PairChart* m_curves; ///< in place of the map where it is told so
    std::optional<study::Varied> m_varied;
    std::vector<double> m_solvedAt; ///< values of the chart's choices
    Id m_antenna;                   ///< the range was chosen for
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

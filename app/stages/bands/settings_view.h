#pragma once
/// The view that says how an antenna that can be set is set for each band.

#include "app/stages/bands/bands_view.h"
#include "app/stages/bands/settings_chart.h"

namespace vetchling::app {

class SettingsView final : public BandsView {
    Q_OBJECT
public:
    SettingsView(ViewContext& context, BandsDesk& desk, QObject* parent);

    QString id() const override { return QStringLiteral("settings"); }
    QString name() const override { return tr("Settings"); }
    QWidget* widget() override { return m_chart; }
    Canvas* canvas() override { return m_chart; }
    QString title() const override { return tr("Bands: settings"); }
    QString sentence() const override;
    QString tableText() const override;
    bool offered() const override;
    void buildLedger(Ledger& ledger) override;
    void forgetLedger() override { m_now = nullptr; }
    void refresh() override;

private:
    void take(const Id& band);
    void saveCard();
    [[nodiscard]] const study::SettingRow* rowOf(const Id& band) const;
    [[nodiscard]] QString instruction() const;
    [[nodiscard]] QString nowWords() const;

    SettingsChart* m_chart;
    QLabel *m_now = nullptr, *m_for = nullptr, *m_said = nullptr;
    QPushButton* m_take = nullptr;
};

} // namespace vetchling::app

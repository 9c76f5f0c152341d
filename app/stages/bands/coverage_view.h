#pragma once
/// The view that says where the antenna can be operated now.

#include "app/stages/bands/bands_view.h"
#include "app/stages/bands/coverage_rows.h"

#include <QScrollArea>

namespace vetchling::app {

class NameEdit;
class ValueEdit;

class CoverageView final : public BandsView {
    Q_OBJECT
public:
    CoverageView(ViewContext& context, BandsDesk& desk, QObject* parent);

    QString id() const override { return QStringLiteral("coverage"); }
    QString name() const override { return tr("Coverage"); }
    QWidget* widget() override { return m_scroll; }
    Canvas* canvas() override { return m_rows; }
    QString title() const override { return tr("Bands"); }
    QString sentence() const override;
    QString tableText() const override;
    QString layout() const override;
    void buildLedger(Ledger& ledger) override;
    void forgetLedger() override { m_region = nullptr; }
    void refresh() override;
    [[nodiscard]] CoverageRows* rows() const { return m_rows; }

private:
    void buildWishes(Ledger& ledger);
    void buildSegments(Ledger& ledger);
    void buildJudged(Ledger& ledger);
    void buildOwnRange(Ledger& ledger);
    void takePlan(int index);
    void addRange(const std::string& name, double from, double to);
    void editOperation(const QString& text, const QString& mergeKey, const std::function<void(Operation&)>& change);

    QScrollArea* m_scroll;
    CoverageRows* m_rows;
    std::vector<QComboBox*> m_wishes, m_segments;
    QComboBox *m_region = nullptr, *m_favourite = nullptr;
    ValueEdit *m_limit = nullptr, *m_lossLimit = nullptr, *m_reference = nullptr, *m_power = nullptr, *m_angle = nullptr,
              *m_bearing = nullptr, *m_distance = nullptr;
    QLabel *m_match = nullptr, *m_return = nullptr, *m_against = nullptr, *m_rangeNote = nullptr;
};

} // namespace vetchling::app

#pragma once
/// Groups of the ledger of Feed: what net gain is held against, and the outside of the coax.

#include "app/document/feed_desk.h"
#include "app/view/context.h"
#include "app/widgets/ledger.h"

#include <QCheckBox>
#include <QObject>

namespace vetchling::app {

class AgainstPanel : public QObject {
    Q_OBJECT
public:
    AgainstPanel(ViewContext& context, Ledger& ledger, QObject* parent);
    void refresh();

private:
    void change(const QString& text, const QString& mergeKey, const std::function<void(Operation&)>& to);

    ViewContext& m_context;
    Ledger& m_ledger;
    QComboBox* m_kind;
    ValueEdit *m_gain, *m_sector;
    QLabel* m_aim;
    std::vector<Id> m_others; ///< antennas, after the kinds that are always there
};

class ShieldPanel : public QObject {
    Q_OBJECT
public:
    ShieldPanel(ViewContext& context, FeedDesk& desk, Ledger& ledger, QObject* parent);
    void refresh();

private:
    [[nodiscard]] QString heatWords() const;
    [[nodiscard]] QString counterpoiseWords() const;
    /// What one school and the other would get here, in figures.
    [[nodiscard]] QString schoolWords() const;

    ViewContext& m_context;
    FeedDesk& m_desk;
    QCheckBox* m_earthed;
    ValueEdit* m_place;
    QPushButton* m_best;
    QLabel *m_heat, *m_counterpoise, *m_there = nullptr, *m_elsewhere = nullptr, *m_schools = nullptr;
};

} // namespace vetchling::app

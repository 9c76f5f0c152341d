#pragma once
/// Sea or other ground beyond a shore, by bearing: what low waves are reflected by there.

#include "app/view/context.h"
#include "app/widgets/ledger.h"

namespace vetchling::app {

class ValueEdit;

class FarGroundPanel : public QObject {
    Q_OBJECT
public:
    FarGroundPanel(ViewContext& context, Ledger& ledger, QObject* parent);
    void refresh();

private:
    void add();
    void remove();
    void change(const QString& key, const std::function<void(FarGround&)>& change);
    [[nodiscard]] const FarGround* chosen() const;
    [[nodiscard]] QString words() const;

    ViewContext& m_context;
    Ledger& m_ledger;
    Id m_chosen;
    QComboBox *m_choice, *m_kind;
    ValueEdit *m_from, *m_to, *m_distance;
    QPushButton* m_remove;
    QLabel* m_note;
};

} // namespace vetchling::app

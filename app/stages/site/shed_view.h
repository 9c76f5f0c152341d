#pragma once
/// Have and need: what lies in the shed, what the antenna on show needs of it, and which bands each antenna reaches with it.

#include "app/stages/site/rows_model.h"
#include "app/view/context.h"
#include "app/widgets/ledger.h"
#include "app/widgets/table.h"

namespace vetchling::app {

class ShedView : public QWidget {
    Q_OBJECT
public:
    explicit ShedView(ViewContext& context, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] QString sentence() const;
    [[nodiscard]] QString tableText() const;

private:
    void buildEditor();
    void addItem();
    void change(const std::function<void(StockItem&)>& change);
    [[nodiscard]] const StockItem* chosen() const; ///< null without one
    [[nodiscard]] std::vector<QStringList> haveRows() const;
    [[nodiscard]] std::vector<QStringList> needRows() const;
    [[nodiscard]] std::vector<QStringList> bandRows() const;
    [[nodiscard]] QString kindWords(StockKind kind) const;
    [[nodiscard]] QString howWords(const Met& met) const;
    void refreshEditor();

    ViewContext& m_context;
    RowsModel *m_have, *m_need, *m_bands;
    Table *m_haveTable, *m_needTable, *m_bandTable;
    QLabel *m_needTitle, *m_total;
    Ledger* m_editor;
    Id m_chosen; ///< item of the shed; empty: none
    // of the editor; null before it is built
    NameEdit* m_name = nullptr;
    QComboBox* m_kind = nullptr;
    struct Field {
        ValueEdit* edit;
        double StockItem::*value;
    };
    std::vector<Field> m_fields;
    ValueEdit* m_count = nullptr;
    QPushButton* m_remove = nullptr;
    QLabel* m_said = nullptr;
};

} // namespace vetchling::app

#pragma once
/// The ledger of the view Variants: which there are, their names and notes, what is not exactly known, and what else is compared.

#include "app/view/context.h"
#include "app/widgets/ledger.h"

#include <QObject>

namespace vetchling::app {

class VariantsPanel : public QObject {
    Q_OBJECT
public:
    VariantsPanel(ViewContext& context, Ledger& ledger, QObject* parent);

    /// What its rows depend on.
    [[nodiscard]] static std::string layout(const Document& document);
    void refresh();
    /// The sentence over the chart.
    [[nodiscard]] static QString sentence(const ViewContext& context);

private:
    void addVariants();
    void addSoil();
    void takeSoil(int row);
    void refreshSoil();
    void addTolerances();

    ViewContext& m_context;
    Ledger& m_ledger;
    std::vector<std::pair<Id, QPushButton*>> m_names;
    NameEdit* m_name = nullptr;
    QLineEdit* m_note = nullptr;
    QPushButton *m_take = nullptr, *m_remove = nullptr;
    std::vector<std::pair<double Tolerances::*, ValueEdit*>> m_tolerances;
    QComboBox* m_soil = nullptr;
    ValueEdit *m_permittivity = nullptr, *m_conductivity = nullptr;
    QLabel *m_soilNote = nullptr, *m_pinned = nullptr, *m_causes = nullptr;
};

} // namespace vetchling::app

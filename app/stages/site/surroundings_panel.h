#pragma once
/// Metal, other antennas and the coax's shield near the antenna on show: what each does to it, and whether it is counted in.

#include "app/document/site_desk.h"
#include "app/view/context.h"
#include "app/widgets/ledger.h"

class QCheckBox;

namespace vetchling::app {

class SurroundingsPanel : public QObject {
    Q_OBJECT
public:
    SurroundingsPanel(ViewContext& context, SiteDesk& desk, Ledger& ledger, QObject* parent);
    void refresh();

private:
    void change(const std::function<void(Surroundings&)>& change);
    [[nodiscard]] QString effectWords() const;

    ViewContext& m_context;
    SiteDesk& m_desk;
    QCheckBox *m_metal, *m_coax;
    QComboBox *m_other, *m_state;
    std::vector<Id> m_others; ///< in the choice
    QPushButton* m_ask;
    QLabel* m_words;
};

} // namespace vetchling::app

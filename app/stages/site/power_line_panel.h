#pragma once
/// Whether an overhead power line is near, and where.

#include "app/view/context.h"
#include "app/widgets/ledger.h"

class QCheckBox;

namespace vetchling::app {

class PowerLinePanel : public QObject {
    Q_OBJECT
public:
    PowerLinePanel(ViewContext& context, Ledger& ledger, QObject* parent);
    void refresh();
    /// Puts it where it was before, if it was there, else south of the boundary; or takes it away.
    void switchTo(bool on);

private:
    struct Field {
        ValueEdit* edit;
        std::function<double(const PowerLine&)> part;
    };

    ViewContext& m_context;
    Ledger& m_ledger;
    QCheckBox* m_has;
    std::vector<Field> m_fields;
    std::optional<PowerLine> m_before;
};

} // namespace vetchling::app

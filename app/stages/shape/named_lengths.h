#pragma once
/// Rows of the ledger for lengths that expressions may name: `=side/2` in any field follows "side".

#include "app/view/context.h"
#include "app/widgets/ledger.h"

#include <QLineEdit>

namespace vetchling::app {

class ValueEdit;

/// Made anew with the ledger.
class NamedLengths : public QObject {
    Q_OBJECT
public:
    NamedLengths(ViewContext& context, Ledger& ledger, QObject* parent);
    void refresh();

private:
    void set(const std::string& name, double length, const QString& typed, bool dragging);
    void add();

    ViewContext& m_context;
    std::vector<std::pair<std::string, ValueEdit*>> m_rows;
    QLineEdit* m_name;
    ValueEdit* m_length;
    QLabel* m_complaint;
};

} // namespace vetchling::app

#pragma once
/// Rows of the ledger for the conductor, its size and jacket, of all of the antenna or of one part, and the design frequency.

#include "app/view/context.h"
#include "app/widgets/ledger.h"

namespace vetchling::app {

class ValueEdit;

/// Made anew with the ledger.
class WireRows : public QObject {
    Q_OBJECT
public:
    WireRows(ViewContext& context, Ledger& ledger, QObject* parent);
    void refresh();

private:
    [[nodiscard]] Document& document() const { return m_context.document; }
    [[nodiscard]] units::System system() const { return m_context.system(); }
    [[nodiscard]] const shapes::Family& family() const { return m_context.document.family(); }
    [[nodiscard]] std::string partShown() const;
    void editWire(const QString& text, const QString& mergeKey, const std::function<void(shapes::WireChoice&)>& change);

    ViewContext& m_context;
    Ledger& m_ledger;
    QComboBox *m_part = nullptr, *m_conductor;
    ValueEdit *m_diameter, *m_jacket, *m_frequency;
};

} // namespace vetchling::app

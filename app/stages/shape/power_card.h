#pragma once
/// Rows of the ledger that say where the power goes, how sure that is, and what it can do to a hand.

#include "app/view/context.h"
#include "app/widgets/bars.h"
#include "app/widgets/ledger.h"

namespace vetchling::app {

/// Made anew with the ledger.
class PowerCard : public QObject {
    Q_OBJECT
public:
    PowerCard(ViewContext& context, Ledger& ledger, QObject* parent);
    void refresh();
    /// RF burns, where they apply: the voltage at open ends and at an end-fed feedpoint.
    [[nodiscard]] QString cautionText() const;

private:
    [[nodiscard]] Document& document() const { return m_context.document; }
    [[nodiscard]] SolveService& solver() const { return m_context.solver; }

    ViewContext& m_context;
    QLabel *m_powerHeading, *m_certainty;
    ShareBar* m_power;
};

} // namespace vetchling::app

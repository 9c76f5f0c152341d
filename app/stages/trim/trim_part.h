#pragma once
/// A part of the trim stage: measuring, the log, the practice yard. Each has its views, its ledger and its desks.

#include "app/stages/stage.h"
#include "app/view/context.h"

namespace vetchling::app {

class TrimPart : public QObject {
public:
    /// @param ledger the stage's, to which the part adds its own
    TrimPart(ViewContext& context, StagePage& page, Ledger& ledger, QObject* parent);

    [[nodiscard]] virtual bool has(const QWidget* view) const = 0;
    /// Brings one of its views up to date, with title and sentence of the page.
    virtual void show(const QWidget* view) = 0;
    /// What that view tells, for copying.
    [[nodiscard]] virtual QString tableText(const QWidget* view) const = 0;
    /// What is typed in one ledger stays while another is looked at.
    void showLedger(bool shown) { m_ledger->setVisible(shown); }

protected:
    [[nodiscard]] Document& document() const { return m_context.document; }
    [[nodiscard]] SolveService& solver() const { return m_context.solver; }
    [[nodiscard]] units::System system() const { return m_context.system(); }

    ViewContext& m_context;
    StagePage& m_page;
    Ledger* m_ledger;
};

} // namespace vetchling::app

#pragma once
/// One of the views of Bands: a graphic, the sentence that says its answer, and the rows of the ledger that matter for it.

#include "app/document/bands_desk.h"
#include "app/view/canvas.h"
#include "app/widgets/ledger.h"

#include <QObject>

namespace vetchling::app {

class BandsView : public QObject {
    Q_OBJECT
public:
    BandsView(ViewContext& context, BandsDesk& desk, QObject* parent) : QObject(parent), m_context(context), m_desk(desk) {}

    [[nodiscard]] virtual QString id() const = 0;
    [[nodiscard]] virtual QString name() const = 0; ///< on the button
    [[nodiscard]] virtual QWidget* widget() = 0;
    [[nodiscard]] virtual Canvas* canvas() = 0;
    [[nodiscard]] virtual QString title() const = 0;
    [[nodiscard]] virtual QString sentence() const = 0;
    /// For copying; empty if there is none.
    [[nodiscard]] virtual QString tableText() const { return {}; }
    /// Whether the antenna on show has such a view.
    [[nodiscard]] virtual bool offered() const { return true; }
    /// What the rows of the ledger depend on; they are made anew when it changes.
    [[nodiscard]] virtual QString layout() const { return {}; }
    virtual void buildLedger(Ledger& ledger) = 0;
    /// The rows that were built are about to go.
    virtual void forgetLedger() = 0;
    /// Brings graphic and ledger up to date.
    virtual void refresh() = 0;

signals:
    void changed(); ///< sentence or figures are others

protected:
    [[nodiscard]] Document& document() const { return m_context.document; }
    [[nodiscard]] SolveService& solver() const { return m_context.solver; }
    [[nodiscard]] units::System system() const { return m_context.system(); }
    /// Why there is nothing to show, for all views alike; empty if there is.
    [[nodiscard]] QString missing() const;
    /// "17 m"; empty for a band that is not there.
    [[nodiscard]] QString bandName(const Id& band) const;

    ViewContext& m_context;
    BandsDesk& m_desk;
};

} // namespace vetchling::app

#include "app/stages/trim/yard_part.h"

#include "app/stages/trim/yard_panel.h"

namespace vetchling::app {

YardPart::YardPart(ViewContext& context, StagePage& page, Ledger& ledger, QObject* parent)
    : TrimPart(context, page, ledger, parent), m_desk(context.solver), m_board(new YardBoard(context, m_desk)),
      m_panel(new YardPanel(context, m_desk, *m_board, *m_ledger, this))
{
}

QWidget* YardPart::yard() const { return m_board; }

void YardPart::show(const QWidget*)
{
    m_page.setTitle(tr("Practice yard"));
    m_page.setSentence(tr("A made-up antenna with hidden faults. Find them before the wire runs out."));
    if (!m_desk.yard() && !m_desk.busy() && m_desk.faults().empty())
        m_desk.open(m_desk.nextLevel());
    m_board->refresh();
    m_panel->refresh();
}

QString YardPart::tableText(const QWidget*) const { return m_board->notes().join(QLatin1Char('\n')); }

} // namespace vetchling::app

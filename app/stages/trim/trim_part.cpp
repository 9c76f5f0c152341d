#include "app/stages/trim/trim_part.h"

#include "core/bands/wanted.h"

namespace vetchling::app {

TrimPart::TrimPart(ViewContext& context, StagePage& page, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_page(page), m_ledger(new Ledger(&ledger))
{
    m_ledger->layout()->setContentsMargins(0, 0, 0, 0);
    m_ledger->setBandCentre([this](const std::string& name) { return centreOf(document().design().operation.bands, name); });
    ledger.add(m_ledger);
}

} // namespace vetchling::app

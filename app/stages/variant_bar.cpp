#include "app/stages/variant_bar.h"

namespace vetchling::app {

VariantBar::VariantBar(ViewContext& context, QWidget* parent) : m_context(context)
{
    setParent(parent);
    setObjectName(QStringLiteral("variantBar"));
    setAccessibleName(tr("Variant"));
    setToolTip(tr("The variant that is looked at and changed; Shift+V goes to the next one"));
    setVisible(false);
    connect(this, &QComboBox::activated, this, [this](int row) {
        const auto& all = m_context.document.antenna().variants;
        m_context.document.setVariant(row < 1 || row > int(all.size()) ? Id() : all[std::size_t(row - 1)].id);
    });
}

void VariantBar::refresh()
{
    const bool any = m_context.document.hasAntenna() && !m_context.document.antenna().variants.empty();
    setVisible(any);
    if (!any)
        return;
    QStringList names{tr("as drawn")};
    int chosen = 0;
    for (const Variant& v : m_context.document.antenna().variants) {
        names << QString::fromStdString(v.name);
        if (v.id == m_context.document.variant())
            chosen = int(names.size()) - 1;
    }
    QStringList shown;
    for (int i = 0; i < count(); ++i)
        shown << itemText(i);
    if (shown != names) {
        clear();
        addItems(names);
    }
    setCurrentIndex(chosen);
}

} // namespace vetchling::app

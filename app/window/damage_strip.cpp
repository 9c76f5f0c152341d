#include "app/window/damage_strip.h"

#include "app/view/words.h"
#include "app/window/damage_dialog.h"
#include "core/design/unread.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

namespace vetchling::app {

DamageStrip::DamageStrip(ViewContext& context, QWidget* parent) : QWidget(parent), m_context(context), m_words(new QLabel)
{
    setObjectName(QStringLiteral("damageStrip"));
    setAttribute(Qt::WA_StyledBackground);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(14, 6, 10, 6);
    m_words->setWordWrap(true);
    m_words->setProperty("role", "caution");
    auto* show = new QPushButton(tr("What could not be read"));
    show->setObjectName(QStringLiteral("showDamage"));
    show->setAutoDefault(false);
    connect(show, &QPushButton::clicked, this, [this] { makeDamageDialog(m_context.document, window())->show(); });
    layout->addWidget(m_words, 1);
    layout->addWidget(show);
    hide();
}

QString DamageStrip::words() const { return isHidden() ? QString() : m_words->text(); }

void DamageStrip::refresh()
{
    const std::string where = unreadOf(m_context.document.design(), m_context.document.current());
    setVisible(!where.empty());
    if (where.empty())
        return;
    m_words->setText(coreWords(unreadWords(where), m_context.system()));
    const Colours& c = m_context.theme.colours();
    setStyleSheet(
        QStringLiteral("QWidget#damageStrip { background: %1; border-bottom: 1px solid %2; }").arg(c.petalPale.name(), c.petal.name()));
}

} // namespace vetchling::app

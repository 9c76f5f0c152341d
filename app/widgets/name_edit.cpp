#include "app/widgets/name_edit.h"

#include <QKeyEvent>

namespace vetchling::app {

NameEdit::NameEdit(QWidget* parent) : QLineEdit(parent)
{
    setProperty("wide", true);
    connect(this, &QLineEdit::editingFinished, this, &NameEdit::confirm);
}

void NameEdit::setName(const QString& name)
{
    const bool typing = hasFocus() && text() != m_name;
    m_name = name;
    if (!typing)
        revert();
}

void NameEdit::confirm()
{
    const QString typed = text().trimmed();
    if (typed == m_name || typed.isEmpty()) {
        revert();
        return;
    }
    m_name = typed;
    setText(m_name); // what was typed is taken: undo is the window's from here on
    emit named(typed);
}

void NameEdit::revert()
{
    if (text() != m_name)
        setText(m_name);
}

void NameEdit::keyPressEvent(QKeyEvent* event)
{
    if (event->key() != Qt::Key_Escape) {
        QLineEdit::keyPressEvent(event);
        return;
    }
    revert();
    emit abandoned();
}

} // namespace vetchling::app

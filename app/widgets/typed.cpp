#include "app/widgets/typed.h"

#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"

#include <QKeyEvent>

namespace vetchling::app {

QString takeTyped(QWidget* window)
{
    for (NameEdit* edit : window->findChildren<NameEdit*>())
        edit->confirm();
    for (ValueEdit* edit : window->findChildren<ValueEdit*>())
        if (edit->isEnabled() && !edit->confirm()) {
            edit->setFocus();
            return edit->complaint();
        }
    return {};
}

QString takeTypedOrForget(QWidget* window)
{
    QString first;
    for (NameEdit* edit : window->findChildren<NameEdit*>())
        edit->confirm();
    for (ValueEdit* edit : window->findChildren<ValueEdit*>())
        if (!edit->confirm()) {
            if (first.isEmpty())
                first = edit->complaint();
            edit->revert();
        }
    return first;
}

bool isPlainLetter(int key, Qt::KeyboardModifiers modifiers)
{
    return key >= Qt::Key_A && key <= Qt::Key_Z && !(modifiers & ~Qt::KeyboardModifiers(Qt::ShiftModifier | Qt::KeypadModifier));
}

bool belongsToWindow(const QKeyEvent& key, const QLineEdit& field)
{
    if (!(key.modifiers() & Qt::ControlModifier) || key.modifiers() & Qt::AltModifier || key.key() < Qt::Key_A || key.key() > Qt::Key_Z)
        return false;
    if (key.matches(QKeySequence::Undo))
        return !field.isUndoAvailable();
    if (key.matches(QKeySequence::Redo))
        return !field.isRedoAvailable();
    if (key.modifiers() & Qt::ShiftModifier)
        return true;
    constexpr int own[] = {Qt::Key_A, Qt::Key_C, Qt::Key_V, Qt::Key_X};
    return std::find(std::begin(own), std::end(own), key.key()) == std::end(own);
}

} // namespace vetchling::app

#pragma once
/// What is typed in the fields of a window and not confirmed yet.

#include <QString>

class QKeyEvent;
class QLineEdit;
class QWidget;

namespace vetchling::app {

/// Takes it. The first value that cannot be taken gets the focus, and its complaint is returned; empty if all is well.
QString takeTyped(QWidget* window);
/// The same where nothing can be asked: what cannot be taken is forgotten. Returns the first complaint.
QString takeTypedOrForget(QWidget* window);

/// Whether a key with Ctrl is the window's even while a field has the focus: all but a field's own editing, and undo where the field has
/// nothing of its own to undo.
bool belongsToWindow(const QKeyEvent& key, const QLineEdit& field);

/// A letter alone, or with Shift: such keys act where a drawing has the focus, and are typed everywhere else.
bool isPlainLetter(int key, Qt::KeyboardModifiers modifiers);

} // namespace vetchling::app

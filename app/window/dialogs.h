#pragma once
/// The few dialogs: the shortcut sheet, About.

#include <QDialog>

#include <vector>

class QDialogButtonBox;

namespace vetchling::app {

struct Shortcut {
    QString keys, does;
};

/// The buttons of a dialog that makes something: plain words, the making one strong and the default.
QDialogButtonBox* okAndCancel(QDialog* dialog, const QString& words, const QString& objectName);

QDialog* makeShortcutSheet(const std::vector<Shortcut>& shortcuts, QWidget* parent);
QDialog* makeAbout(QWidget* parent);

} // namespace vetchling::app

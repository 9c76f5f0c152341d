#pragma once
/// The few dialogs: a new antenna, the shortcut sheet, About.

#include "core/design/design.h"

#include <QDialog>

#include <optional>

class QComboBox;
class QDialogButtonBox;
class QLabel;
class QLineEdit;

namespace vetchling::app {

class ValueEdit;

/// Chooses a family, a frequency (or a band by its name), a name, and what it hangs from.
class NewAntennaDialog : public QDialog {
    Q_OBJECT
public:
    NewAntennaDialog(const Design& design, QWidget* parent = nullptr);
    [[nodiscard]] Antenna antenna() const;
    void accept() override;

private:
    void describe();

    const Design& m_design;
    QComboBox *m_family, *m_support;
    QLineEdit* m_name;
    QLabel* m_summary;
    ValueEdit* m_frequency;
};

struct Shortcut {
    QString keys, does;
};

/// The buttons of a dialog that makes something: plain words, the making one strong and the default.
QDialogButtonBox* okAndCancel(QDialog* dialog, const QString& words, const QString& objectName);

QDialog* makeShortcutSheet(const std::vector<Shortcut>& shortcuts, QWidget* parent);
QDialog* makeAbout(QWidget* parent);

} // namespace vetchling::app

#pragma once
/// The few dialogs: a new antenna, the shortcut sheet, About.

#include "core/design/design.h"

#include <QDialog>

#include <optional>

class QComboBox;

namespace vetchling::app {

class ValueEdit;

/// Chooses a family, a name and a frequency; the antenna starts with the family's rule of thumb at the middle of the site.
class NewAntennaDialog : public QDialog {
    Q_OBJECT
public:
    NewAntennaDialog(const Design& design, QWidget* parent = nullptr);
    [[nodiscard]] Antenna antenna() const;

private:
    const Design& m_design;
    QComboBox* m_family;
    class QLineEdit* m_name;
    ValueEdit* m_frequency;
    bool m_named = false;
};

struct Shortcut {
    QString keys, does;
};

QDialog* makeShortcutSheet(const std::vector<Shortcut>& shortcuts, QWidget* parent);
QDialog* makeAbout(QWidget* parent);

} // namespace vetchling::app

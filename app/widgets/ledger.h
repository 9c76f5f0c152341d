#pragma once
/// The right-hand column: quiet headings, rows of label and input, figures, notes and buttons.

#include "core/units/units.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>
#include <QWidget>

#include <functional>

namespace vetchling::app {

class NameEdit;
class ValueEdit;

class Ledger : public QWidget {
    Q_OBJECT
public:
    static constexpr int paneWidth = 300; ///< px, of the pane that it stands in
    explicit Ledger(QWidget* parent = nullptr);
    /// Frequency fields made from now on take names of bands; see units::Context.
    void setBandCentre(std::function<double(const std::string&)> centre) { m_bandCentre = std::move(centre); }

    void heading(const QString& words);
    /// A heading that is pressed to fold away what follows it, up to `endFold`; returns the button, which is checked while open.
    QToolButton* fold(const QString& words, const QString& objectName, bool open);
    void endFold() { m_rows = m_layout; }
    /// A labelled input; the label names it for screen readers too, and its complaint or question appears below the row.
    ValueEdit* value(const QString& label, units::Quantity quantity, const QString& objectName);
    QComboBox* choice(const QString& label, const QStringList& words, const QString& objectName);
    /// A labelled name.
    NameEdit* name(const QString& label, const QString& objectName);
    /// Small buttons side by side.
    std::vector<QPushButton*> buttons(const std::vector<std::pair<QString, QString>>& wordsAndNames);
    /// The label that names an input.
    [[nodiscard]] QLabel* labelOf(QWidget* field) const;
    /// Shows or hides an input with its label.
    void setRowVisible(QWidget* field, bool visible);
    /// Scrolls the pane it stands in until a row is at its top.
    void bringUp(const QWidget* row);
    /// A label on the left and a figure on the right; returns the figure.
    QLabel* figure(const QString& label);
    QLabel* note(const QString& words = {});
    QLabel* caution(const QString& words);
    QPushButton* button(const QString& words, const QString& objectName, bool strong = false);
    void add(QWidget* widget);
    void line();
    /// Removes all rows, so that they can be made anew.
    void clear();
    /// Keeps the rows at the top; call once after the last row.
    void finish();

private:
    QHBoxLayout* row(const QString& label, QWidget* field);
    void placeChoice(QBoxLayout* line, QComboBox* box);
    QVBoxLayout *m_layout, *m_rows; ///< all, and where rows are added now
    std::function<double(const std::string&)> m_bandCentre;
};

} // namespace vetchling::app

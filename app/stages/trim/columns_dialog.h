#pragma once
/// Which column of a file holds what, with the file's first lines under the choices, and what comes of it.

#include "core/files/measured_file.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace vetchling::app {

class ColumnsDialog : public QDialog {
    Q_OBJECT
public:
    ColumnsDialog(const QString& fileName, std::string text, QWidget* parent);
    /// Null as long as the choices give none.
    [[nodiscard]] const MeasuredSweep* sweep() const { return m_sweep ? &*m_sweep : nullptr; }

private:
    void fill();
    void judge();
    std::string m_text;
    files::CsvLayout m_layout;
    QComboBox *m_separator, *m_unit;
    QCheckBox* m_comma;
    QTableWidget* m_table;
    std::vector<QComboBox*> m_columns;
    QLabel* m_outcome;
    QPushButton* m_take;
    std::optional<MeasuredSweep> m_sweep;
};

} // namespace vetchling::app

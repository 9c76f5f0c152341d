#pragma once
/// Asks which range a sweep shall cover.

#include "core/design/design.h"

#include <QDialog>

class QComboBox;
class QLabel;

namespace vetchling::app {

class ValueEdit;

class SweepRangeDialog : public QDialog {
    Q_OBJECT
public:
    /// @param band the one that is proposed; may be empty
    SweepRangeDialog(const Design& design, const Id& band, QWidget* parent = nullptr);
    [[nodiscard]] double from() const; ///< Hz
    [[nodiscard]] double to() const;   ///< Hz
    void accept() override;

private:
    void take(int choice);

    const Design& m_design;
    QComboBox* m_range;
    ValueEdit *m_from, *m_to;
    QLabel* m_complaint;
};

} // namespace vetchling::app

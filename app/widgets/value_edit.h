#pragma once
/// An input for one value with its unit: takes what people type, steps with wheel and arrows, says what is wrong.

#include "core/units/units.h"

#include <QLineEdit>

namespace vetchling::app {

class ValueEdit : public QLineEdit {
    Q_OBJECT
public:
    ValueEdit(units::Quantity quantity, QWidget* parent = nullptr);

    /// Shows a value; ignored while the user is typing.
    void setValue(double value, units::System system, const QString& typed = {});
    void setDesignFrequency(double hertz) { m_frequency = hertz; }
    void setRange(double lowest, double highest);
    [[nodiscard]] double value() const { return m_value; }
    /// What the value means, in a few words; shown over the field.
    void setHelp(const QString& words);

signals:
    /// The user set a value. `typed` is what was written, empty after a step; `dragging` for steps.
    void edited(double value, const QString& typed, bool dragging);
    /// What is wrong with the text; empty when it is fine again.
    void complained(const QString& message);

protected:
    void focusInEvent(QFocusEvent*) override;
    void focusOutEvent(QFocusEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    void commit();
    void step(double direction, bool fine);
    void show();
    void showHelp();
    void complain(const QString& message);

    units::Quantity m_quantity;
    units::System m_system = units::System::Metric;
    double m_value = 0.0, m_frequency = 0.0, m_lowest = -1e300, m_highest = 1e300;
    QString m_typed, m_shown, m_help;
};

} // namespace vetchling::app

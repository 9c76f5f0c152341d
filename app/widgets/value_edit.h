#pragma once
/// An input for one value with its unit: takes what people type, steps with wheel and arrows, says what is wrong.

#include "core/units/units.h"

#include <QLineEdit>

#include <functional>
#include <map>

namespace vetchling::app {

class ValueEdit : public QLineEdit {
    Q_OBJECT
public:
    ValueEdit(units::Quantity quantity, QWidget* parent = nullptr);

    /// Shows a value; what the user is typing, or has typed and cannot be taken for the same value, stays.
    void setValue(double value, units::System system, const QString& typed = {});
    /// Reads and writes by another system of units from now on; what is being typed stays.
    void setSystem(units::System system);
    /// Shows nothing: a value is not there before it is typed, and may be taken away again.
    void clearValue(units::System system);
    void clearValueUnlessTyping(units::System system);
    void setDesignFrequency(double hertz) { m_frequency = hertz; }
    void setRange(double lowest, double highest);
    /// Frequency fields take names of bands with it; see units::Context.
    void setBandCentre(std::function<double(const std::string&)> centre) { m_bandCentre = std::move(centre); }
    /// What expressions may name; see units::Context.
    void setNamedLengths(std::map<std::string, double> lengths) { m_lengths = std::move(lengths); }
    [[nodiscard]] double value() const { return m_value; }
    [[nodiscard]] bool hasValue() const { return !m_empty; }
    /// Something is typed that is not taken yet.
    [[nodiscard]] bool pending() const { return text() != m_shown; }
    /// Takes what is typed; false, with the complaint, if it cannot be.
    bool confirm();
    /// Forgets what is typed.
    void revert();
    /// What is wrong with the text; empty if nothing.
    [[nodiscard]] QString complaint() const { return m_complaint; }
    /// A quiet question about a value that was taken; empty takes it back.
    void ask(const QString& question);
    /// What the value means, in a few words; shown over the field.
    void setHelp(const QString& words);

signals:
    /// The user set a value. `typed` is what was written, empty after a step; `dragging` for steps.
    void edited(double value, const QString& typed, bool dragging);
    /// What is wrong with the text; empty when it is fine again.
    void complained(const QString& message);
    void asked(const QString& question);

protected:
    void focusInEvent(QFocusEvent*) override;
    void focusOutEvent(QFocusEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    [[nodiscard]] units::Context context() const;
    void step(double direction, bool fine);
    void show();
    void showHelp();
    void complain(const QString& message);

    units::Quantity m_quantity;
    units::System m_system = units::System::Metric;
    double m_value = 0.0, m_frequency = 0.0, m_lowest = -1e300, m_highest = 1e300;
    bool m_empty = false, m_optional = false, m_typedShown = false; ///< what was typed is shown from getting the focus to the next value
    std::function<double(const std::string&)> m_bandCentre;
    std::map<std::string, double> m_lengths;
    QString m_typed, m_shown, m_help, m_complaint;
};

} // namespace vetchling::app

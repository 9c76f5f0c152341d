#include "app/widgets/value_edit.h"

#include "app/view/words.h"

#include <QKeyEvent>
#include <QStyle>
#include <QToolTip>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

/// One notch of the wheel: what a builder would change at a time.
double notchOf(units::Quantity quantity, double value, units::System system)
{
    const bool imperial = system != units::System::Metric;
    switch (quantity) {
    case units::Quantity::Length: return imperial ? 0.0254 : (std::abs(value) < 0.5 ? 0.01 : 0.05);
    case units::Quantity::SmallLength: return imperial ? 0.00635 : 0.005;
    case units::Quantity::Frequency: return 5e3 * std::pow(10.0, std::max(0.0, std::floor(std::log10(value / 3e6)) - 1.0));
    case units::Quantity::WireSize: return 1e-4;
    case units::Quantity::Angle: return 1.0;
    case units::Quantity::Power: return 10.0;
    case units::Quantity::Capacitance: return std::max(5e-12, 0.01 * std::abs(value));
    case units::Quantity::Inductance: return std::max(1e-8, 0.01 * std::abs(value));
    case units::Quantity::Percent: return 0.5;
    case units::Quantity::Resistance: return std::abs(value) < 100.0 ? 1.0 : 10.0;
    case units::Quantity::Decibel: return 0.05;
    case units::Quantity::Plain: break;
    }
    return std::abs(value) >= 20.0 || value == std::floor(value) ? 1.0 : (std::abs(value) < 0.2 ? 0.001 : 0.1);
}

} // namespace

ValueEdit::ValueEdit(units::Quantity quantity, QWidget* parent) : QLineEdit(parent), m_quantity(quantity)
{
    setFixedWidth(112);
    connect(this, &QLineEdit::editingFinished, this, &ValueEdit::confirm);
    connect(this, &QLineEdit::textEdited, this, [this] {
        complain({});
        ask({});
    });
}

void ValueEdit::setRange(double lowest, double highest)
{
    m_lowest = lowest;
    m_highest = highest;
}

void ValueEdit::setValue(double value, units::System system, const QString& typed)
{
    const bool same = !m_empty && value == m_value && system == m_system;
    m_value = value;
    m_system = system;
    m_typed = typed;
    m_empty = false;
    if (pending() && (hasFocus() || (same && !m_complaint.isEmpty())))
        return;
    complain({});
    if (!same)
        ask({});
    show();
}

void ValueEdit::setSystem(units::System system)
{
    if (system == m_system)
        return;
    if (m_empty)
        clearValueUnlessTyping(system);
    else if (m_shown.isEmpty() || pending()) // it was given nothing yet; what is typed is shown
        m_system = system;
    else
        setValue(m_value, system, m_typed);
}

void ValueEdit::clearValue(units::System system)
{
    m_system = system;
    m_typed.clear();
    m_empty = m_optional = true;
    revert();
}

void ValueEdit::clearValueUnlessTyping(units::System system)
{
    m_system = system;
    if (!pending())
        show();
}

void ValueEdit::show()
{
    m_shown = m_empty ? QString() : QString::fromStdString(units::format(m_value, m_quantity, m_system));
    if (m_typedShown && !m_typed.isEmpty())
        m_shown = m_typed;
    if (pending()) {
        setText(m_shown);
        setCursorPosition(0);
    }
    showHelp();
}

void ValueEdit::revert()
{
    complain({});
    ask({});
    show();
}

void ValueEdit::ask(const QString& question) { emit asked(question); }

void ValueEdit::setHelp(const QString& words)
{
    m_help = words;
    showHelp();
}

void ValueEdit::showHelp()
{
    QStringList words;
    if (!m_help.isEmpty())
        words << m_help;
    if (!m_typed.isEmpty())
        words << tr("typed as %1").arg(m_typed);
    setToolTip(words.join(QStringLiteral("; ")));
}

units::Context ValueEdit::context() const { return {m_frequency, m_system, false, m_bandCentre, m_lengths}; }

bool ValueEdit::confirm()
{
    if (!pending())
        return m_complaint.isEmpty();
    const std::string written = text().trimmed().toStdString();
    if (written.empty() && m_optional) {
        clearValue(m_system);
        return true;
    }
    const Result<double> parsed = units::parse(written, m_quantity, context());
    if (!parsed) {
        complain(coreWords(parsed.faults().front().message, m_system));
        return false;
    }
    if (*parsed < m_lowest || *parsed > m_highest) {
        complain(tr("%1 is outside %2 to %3")
                     .arg(text().trimmed(), QString::fromStdString(units::format(m_lowest, m_quantity, m_system)),
                          QString::fromStdString(units::format(m_highest, m_quantity, m_system))));
        return false;
    }
    complain({});
    const QString typed = QString::fromStdString(units::withUnit(written, m_quantity, context()));
    m_value = *parsed;
    m_typed.clear();
    m_typedShown = m_empty = false;
    show();
    setText(m_shown); // what was typed is taken: undo is the window's from here on
    emit edited(*parsed, typed, false);
    return true;
}

void ValueEdit::complain(const QString& message)
{
    if (message == m_complaint)
        return;
    m_complaint = message;
    setProperty("wrong", !message.isEmpty());
    style()->unpolish(this);
    style()->polish(this);
    setAccessibleDescription(message);
    emit complained(message);
}

void ValueEdit::focusInEvent(QFocusEvent* event)
{
    QLineEdit::focusInEvent(event);
    m_typedShown = true;
    if (!pending())
        show();
    selectAll();
}

void ValueEdit::focusOutEvent(QFocusEvent* event)
{
    QLineEdit::focusOutEvent(event);
    m_typedShown = false;
    if (m_complaint.isEmpty())
        show();
}

void ValueEdit::step(double direction, bool fine)
{
    const double notch = notchOf(m_quantity, m_value, m_system) * (fine ? 0.2 : 1.0);
    const double value = std::clamp(m_value + direction * notch, m_lowest, m_highest);
    if (m_empty || value == m_value)
        return;
    complain({});
    ask({});
    m_value = value;
    m_typed.clear();
    m_typedShown = false;
    show();
    emit edited(value, {}, true);
}

void ValueEdit::wheelEvent(QWheelEvent* event)
{
    if (!hasFocus()) {
        event->ignore();
        return;
    }
    step(event->angleDelta().y() > 0 ? 1.0 : -1.0, event->modifiers() & Qt::ShiftModifier);
    event->accept();
}

void ValueEdit::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down)
        step(event->key() == Qt::Key_Up ? 1.0 : -1.0, event->modifiers() & Qt::ShiftModifier);
    else if (event->key() == Qt::Key_Escape && (pending() || !m_complaint.isEmpty()))
        revert();
    else
        QLineEdit::keyPressEvent(event);
}

} // namespace vetchling::app

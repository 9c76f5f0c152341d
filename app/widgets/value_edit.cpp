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
    const bool imperial = system == units::System::Imperial;
    switch (quantity) {
    case units::Quantity::Length: return imperial ? 0.0254 : (std::abs(value) < 0.5 ? 0.01 : 0.05);
    case units::Quantity::SmallLength: return imperial ? 0.00635 : 0.005;
    case units::Quantity::Frequency: return 5e3 * std::pow(10.0, std::max(0.0, std::floor(std::log10(value / 3e6)) - 1.0));
    case units::Quantity::WireSize: return 1e-4;
    case units::Quantity::Angle: return 1.0;
    case units::Quantity::Power: return 10.0;
    case units::Quantity::Inductance: return std::max(1e-8, 0.01 * std::abs(value));
    case units::Quantity::Percent: return 0.5;
    case units::Quantity::Plain: break;
    }
    return std::abs(value) >= 20.0 || value == std::floor(value) ? 1.0 : (std::abs(value) < 0.2 ? 0.001 : 0.1);
}

} // namespace

ValueEdit::ValueEdit(units::Quantity quantity, QWidget* parent) : QLineEdit(parent), m_quantity(quantity)
{
    setFixedWidth(112);
    connect(this, &QLineEdit::editingFinished, this, &ValueEdit::commit);
    connect(this, &QLineEdit::textEdited, this, [this] {
        if (property("wrong").toBool())
            complain({});
    });
}

void ValueEdit::setRange(double lowest, double highest)
{
    m_lowest = lowest;
    m_highest = highest;
}

void ValueEdit::setValue(double value, units::System system, const QString& typed)
{
    const bool typing = hasFocus() && text() != m_shown;
    m_value = value;
    m_system = system;
    m_typed = typed;
    if (!typing)
        show();
}

void ValueEdit::show()
{
    m_shown = QString::fromStdString(units::format(m_value, m_quantity, m_system));
    setText(m_shown);
    setCursorPosition(0);
    showHelp();
}

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

void ValueEdit::commit()
{
    if (text() == m_shown)
        return;
    const Result<double> parsed = units::parse(text().toStdString(), m_quantity, {m_frequency, m_system});
    if (!parsed) {
        complain(coreWords(parsed.faults().front().message, m_system));
        return;
    }
    if (*parsed < m_lowest || *parsed > m_highest) {
        complain(tr("%1 is outside %2 to %3")
                     .arg(text(), QString::fromStdString(units::format(m_lowest, m_quantity, m_system)),
                          QString::fromStdString(units::format(m_highest, m_quantity, m_system))));
        return;
    }
    complain({});
    const QString typed = text().trimmed();
    m_value = *parsed;
    m_shown = text();
    emit edited(*parsed, typed, false);
    show();
}

void ValueEdit::complain(const QString& message)
{
    setProperty("wrong", !message.isEmpty());
    style()->unpolish(this);
    style()->polish(this);
    setAccessibleDescription(message);
    emit complained(message);
}

void ValueEdit::focusInEvent(QFocusEvent* event)
{
    QLineEdit::focusInEvent(event);
    if (!m_typed.isEmpty() && text() == m_shown) {
        m_shown = m_typed;
        setText(m_typed);
    }
    selectAll();
}

void ValueEdit::focusOutEvent(QFocusEvent* event)
{
    QLineEdit::focusOutEvent(event);
    if (!property("wrong").toBool())
        show();
}

void ValueEdit::step(double direction, bool fine)
{
    const double notch = notchOf(m_quantity, m_value, m_system) * (fine ? 0.2 : 1.0);
    const double value = std::clamp(m_value + direction * notch, m_lowest, m_highest);
    if (value == m_value)
        return;
    complain({});
    m_value = value;
    m_typed.clear();
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
    else if (event->key() == Qt::Key_Escape) {
        complain({});
        show();
    } else
        QLineEdit::keyPressEvent(event);
}

} // namespace vetchling::app

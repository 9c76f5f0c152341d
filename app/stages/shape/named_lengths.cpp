#include "app/stages/shape/named_lengths.h"

#include "app/view/words.h"
#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"

#include <QPointer>

namespace vetchling::app {

NamedLengths::NamedLengths(ViewContext& context, Ledger& ledger, QObject* parent) : QObject(parent), m_context(context)
{
    const std::vector<NamedLength>& named = context.document.antenna().named;
    ledger.fold(tr("Named lengths"), QStringLiteral("fold named"), !named.empty());
    for (const NamedLength& n : named) {
        const QString name = QString::fromStdString(n.name);
        ValueEdit* edit = ledger.value(name, units::Quantity::Length, QStringLiteral("named ") + name);
        connect(edit, &ValueEdit::edited, this,
                [this, name = n.name](double length, const QString& typed, bool dragging) { set(name, length, typed, dragging); });
        m_rows.emplace_back(n.name, edit);
    }
    for (const NamedLength& n : named) {
        QPushButton* forget =
            ledger.button(tr("Forget %1").arg(QString::fromStdString(n.name)), QStringLiteral("forget ") + QString::fromStdString(n.name));
        connect(forget, &QPushButton::clicked, this, [this, name = n.name] {
            m_context.document.editAntenna(tr("forget a named length"), {}, [&](Antenna& a) { forgetLength(a, name); });
        });
    }
    m_name = ledger.name(tr("New name"), QStringLiteral("newName"));
    m_name->setPlaceholderText(tr("side"));
    m_length = ledger.value(tr("Its length"), units::Quantity::Length, QStringLiteral("newLength"));
    m_length->clearValue(context.system());
    QPushButton* add = ledger.button(tr("Name this length"), QStringLiteral("addName"));
    connect(add, &QPushButton::clicked, this, &NamedLengths::add);
    m_complaint = ledger.caution({});
    m_complaint->setObjectName(QStringLiteral("namedComplaint"));
    ledger.note(tr("A field above may then say =%1/2 or =%1+20 cm, and follows when it changes.").arg(tr("side")));
    ledger.endFold();
}

void NamedLengths::refresh()
{
    const Antenna& antenna = m_context.document.antenna();
    const std::map<std::string, double> lengths = contextOf(antenna).lengths;
    for (const auto& [name, edit] : m_rows)
        for (const NamedLength& n : antenna.named)
            if (n.name == name) {
                edit->setDesignFrequency(antenna.shape.designFrequency);
                edit->setValue(n.length, m_context.system(), QString::fromStdString(n.typed));
            }
    m_length->setDesignFrequency(antenna.shape.designFrequency);
    m_length->setNamedLengths(lengths);
    m_length->clearValueUnlessTyping(m_context.system());
}

void NamedLengths::set(const std::string& name, double length, const QString& typed, bool dragging)
{
    Faults faults;
    const QPointer<NamedLengths> here(this); // a new name makes the rows anew
    m_context.document.editAntenna(tr("change %1").arg(QString::fromStdString(name)),
                                   dragging ? QStringLiteral("named ") + QString::fromStdString(name) : QString(),
                                   [&](Antenna& a) { faults = nameLength(a, name, length, typed.toStdString()); });
    if (!here)
        return;
    if (!faults.empty())
        m_complaint->setText(coreWords(faults.front().message, m_context.system()));
    else
        m_complaint->clear();
}

void NamedLengths::add()
{
    const std::string name = m_name->text().trimmed().toStdString();
    if (!units::isFreeName(name)) {
        m_complaint->setText(tr("Write a name of letters and digits that is no unit and no function, such as side."));
        m_name->setFocus();
        return;
    }
    if (!m_length->confirm())
        return;
    if (!m_length->hasValue()) {
        m_complaint->setText(tr("Write how long %1 is.").arg(QString::fromStdString(name)));
        m_length->setFocus();
        return;
    }
    set(name, m_length->value(), {}, false);
}

} // namespace vetchling::app

#include "app/stages/shape/wire_rows.h"

#include "app/view/words.h"
#include "app/widgets/value_edit.h"

namespace vetchling::app {

WireRows::WireRows(ViewContext& context, Ledger& ledger, QObject* parent) : QObject(parent), m_context(context), m_ledger(ledger)
{
    const std::vector<shapes::Part> parts = family().parts();
    if (parts.size() > 1) {
        QStringList names{tr("all that is not set apart")};
        for (const shapes::Part& p : parts)
            names << coreWords(p.name);
        m_part = m_ledger.choice(tr("Part"), names, QStringLiteral("wirePart"));
        connect(m_part, &QComboBox::activated, this, [this] { refresh(); });
    }
    QStringList names;
    for (const files::Conductor& c : m_context.conductors)
        names << QString::fromStdString(c.name);
    m_conductor = m_ledger.choice(tr("Conductor"), names, QStringLiteral("conductor"));
    connect(m_conductor, &QComboBox::activated, this, [this](int index) {
        const files::Conductor chosen = m_context.conductors[std::size_t(index)];
        editWire(tr("change conductor"), {}, [&](shapes::WireChoice& wire) {
            wire.conductor = chosen.id;
            wire.metal = chosen.metal;
        });
    });
    m_diameter = m_ledger.value(tr("Diameter, gauge or mm²"), units::Quantity::WireSize, QStringLiteral("wireDiameter"));
    m_diameter->setRange(2e-5, 0.5);
    connect(m_diameter, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
        editWire(tr("change wire size"), dragging ? QStringLiteral("wire ") + QString::fromStdString(partShown()) : QString(),
                 [&](shapes::WireChoice& wire) { wire.diameter = value; });
    });
    m_jacket = m_ledger.value(tr("Jacket, thickness"), units::Quantity::WireSize, QStringLiteral("wireJacket"));
    m_jacket->setRange(0.0, 0.05);
    connect(m_jacket, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
        editWire(tr("change jacket"), dragging ? QStringLiteral("jacket ") + QString::fromStdString(partShown()) : QString(),
                 [&](shapes::WireChoice& wire) { wire.jacket = value; });
    });
    m_frequency = m_ledger.value(tr("Design frequency"), units::Quantity::Frequency, QStringLiteral("designFrequency"));
    m_frequency->setRange(lowestFrequency, highestFrequency);
    connect(m_frequency, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
        document().editAntenna(tr("change design frequency"), dragging ? QStringLiteral("frequency") : QString(),
                               [&](Antenna& a) { a.shape.designFrequency = value; });
    });
}

/// Id of the part whose wire is looked at; empty for all that is not set apart.
std::string WireRows::partShown() const
{
    const auto parts = family().parts();
    const int place = m_part ? m_part->currentIndex() - 1 : -1;
    return place >= 0 && place < int(parts.size()) ? parts[std::size_t(place)].id : std::string();
}

void WireRows::editWire(const QString& text, const QString& mergeKey, const std::function<void(shapes::WireChoice&)>& change)
{
    const std::string part = partShown();
    document().editAntenna(text, mergeKey, [&](Antenna& a) {
        if (part.empty())
            change(a.shape.wire);
        else
            change(a.shape.partWires.try_emplace(part, a.shape.wire).first->second);
    });
}

void WireRows::refresh()
{
    const Antenna& a = document().antenna();
    m_frequency->setValue(a.shape.designFrequency, system());
    const shapes::WireChoice& wire = shapes::wireOf(a.shape, partShown());
    m_diameter->setValue(wire.diameter, system());
    m_jacket->setValue(wire.jacket, system());
    for (std::size_t i = 0; i < m_context.conductors.size(); ++i)
        if (m_context.conductors[i].id == wire.conductor)
            m_conductor->setCurrentIndex(int(i));
}

} // namespace vetchling::app

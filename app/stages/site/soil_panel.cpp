#include "app/stages/site/soil_panel.h"

#include "app/view/words.h"
#include "app/widgets/value_edit.h"
#include "core/wire/soil_model.h"

namespace vetchling::app {

SoilPanel::SoilPanel(ViewContext& context, Ledger& ledger, QObject* parent) : QObject(parent), m_context(context)
{
    ledger.heading(tr("Ground"));
    QStringList names{tr("own figures")};
    for (const Soil& s : m_context.soils)
        names << soilWords(s);
    m_kind = ledger.choice(tr("Kind"), names, QStringLiteral("soilKind"));
    connect(m_kind, &QComboBox::activated, this, &SoilPanel::take);
    m_permittivity = ledger.value(tr("Relative permittivity"), units::Quantity::Plain, QStringLiteral("permittivity"));
    m_permittivity->setRange(1.0, 100.0);
    m_conductivity = ledger.value(tr("Conductivity, S/m"), units::Quantity::Plain, QStringLiteral("conductivity"));
    m_conductivity->setRange(0.0, 10.0);
    connect(m_permittivity, &ValueEdit::edited, this, [this](double v, const QString&, bool stepping) {
        makeOwnWith(stepping ? QStringLiteral("permittivity") : QString(), [&](Soil& s) { s.relativePermittivity = v; });
    });
    connect(m_conductivity, &ValueEdit::edited, this, [this](double v, const QString&, bool stepping) {
        makeOwnWith(stepping ? QStringLiteral("conductivity") : QString(), [&](Soil& s) { s.conductivity = v; });
    });
    m_pair = ledger.value(tr("Given for"), units::Quantity::Frequency, QStringLiteral("soilPair"));
    m_pair->setRange(soilModelFrom, soilModelTo);
    m_pair->setHelp(tr("where the two were measured; at other frequencies soil has others. Empty: the same everywhere"));
    m_pair->clearValue(m_context.system());
    connect(m_pair, &ValueEdit::edited, this, [this](double v, const QString&, bool stepping) {
        Soil soil = m_context.document.design().site.soil;
        soil.pairFrequency = v;
        if (const Faults faults = findPairFaults(soil.ground()); !faults.empty())
            m_pair->ask(coreWords(faults.front().message, m_context.system()));
        else
            m_context.document.edit(tr("change the soil"), stepping ? QStringLiteral("soilPair") : QString(),
                                    [&](Design& d) { d.site.soil.pairFrequency = v; });
    });
    connect(m_pair, &QLineEdit::editingFinished, this, [this] {
        if (!m_pair->hasValue() && m_context.document.design().site.soil.pairFrequency > 0.0)
            m_context.document.edit(tr("change the soil"), {}, [](Design& d) { d.site.soil.pairFrequency = 0.0; });
    });
    m_note = ledger.note();
    m_note->setObjectName(QStringLiteral("soilNote"));
}

void SoilPanel::makeOwnWith(const QString& key, const std::function<void(Soil&)>& change)
{
    m_context.document.edit(tr("change the soil"), key, [&](Design& d) {
        change(d.site.soil);
        makeOwn(d.site.soil, tr("own soil").toStdString());
    });
}

void SoilPanel::take(int index)
{
    if (index == 0)
        return;
    const Soil chosen = m_context.soils[std::size_t(index - 1)];
    m_context.document.edit(tr("change the soil"), {}, [&](Design& d) { d.site.soil = chosen; });
}

/// What the pair makes of it low and high in the short waves.
QString SoilPanel::overFrequency(const Soil& soil)
{
    if (!(soil.pairFrequency > 0.0))
        return {};
    QStringList words;
    for (double f : {1.9e6, 7.1e6, 28.5e6}) {
        const Ground there = soil.ground().at(f);
        words
            << tr("%1 MHz: ε %2, %3 mS/m").arg(f / 1e6).arg(there.relativePermittivity, 0, 'f', 1).arg(1e3 * there.conductivity, 0, 'f', 1);
    }
    return tr("By Messier 1980, for soils of 0.1 to 100 MHz: %1. ").arg(words.join(QStringLiteral("; ")));
}

void SoilPanel::refresh()
{
    const Soil& soil = m_context.document.design().site.soil;
    int chosen = 0;
    for (std::size_t i = 0; i < m_context.soils.size(); ++i)
        if (m_context.soils[i].id == soil.id)
            chosen = int(i) + 1;
    m_kind->setItemText(0, soil.id.empty() && !soil.name.empty() ? QString::fromStdString(soil.name) : tr("own figures"));
    m_kind->setCurrentIndex(chosen);
    m_permittivity->setValue(soil.relativePermittivity, m_context.system());
    m_conductivity->setValue(soil.conductivity, m_context.system());
    soil.pairFrequency > 0.0 ? m_pair->setValue(soil.pairFrequency, m_context.system())
                             : m_pair->clearValueUnlessTyping(m_context.system());
    if (soil.pairFrequency == 0.0 && m_pair->hasValue())
        m_pair->clearValue(m_context.system());
    const auto figures = [](const SoilFigures& f) { return tr("ε %1, %2 S/m").arg(f.relativePermittivity).arg(f.conductivity); };
    const QString seasons = soil.dry && soil.wet ? tr("Dry: %1; wet: %2. ").arg(figures(*soil.dry), figures(*soil.wet)) : QString();
    m_note->setText(seasons + overFrequency(soil) +
                    (soil.source.empty() ? tr("Own figures.")
                                         : tr("Source: %1. Rain changes soil; the Sky stage shows what wetter and drier ground would do.")
                                               .arg(QString::fromStdString(soil.source))));
}

} // namespace vetchling::app

#include "app/stages/site/surroundings_panel.h"

#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QCheckBox>

#include <cmath>

namespace vetchling::app {

SurroundingsPanel::SurroundingsPanel(ViewContext& context, SiteDesk& desk, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk)
{
    ledger.heading(tr("Near the antenna, in the model"));
    m_metal = new QCheckBox(tr("supports of metal"));
    m_metal->setObjectName(QStringLiteral("countMetal"));
    m_coax = new QCheckBox(tr("the coax's shield, along its route"));
    m_coax->setObjectName(QStringLiteral("countCoax"));
    ledger.add(m_metal);
    ledger.add(m_coax);
    connect(m_metal, &QCheckBox::clicked, this, [this](bool on) { change([&](Surroundings& s) { s.metal = on; }); });
    connect(m_coax, &QCheckBox::clicked, this, [this](bool on) { change([&](Surroundings& s) { s.coax = on; }); });
    m_other = ledger.choice(tr("Antenna"), {}, QStringLiteral("otherAntenna"));
    m_state =
        ledger.choice(tr("is"), {tr("taken down"), tr("up, its feed open"), tr("up, its feed terminated")}, QStringLiteral("otherState"));
    connect(m_other, &QComboBox::activated, this, &SurroundingsPanel::refresh);
    connect(m_state, &QComboBox::activated, this, [this](int state) {
        const Id other = m_others[std::size_t(m_other->currentIndex())];
        change([&](Surroundings& s) {
            s.antennas.erase(other);
            if (state > 0)
                s.antennas[other] = Surroundings::Feed(state - 1);
        });
    });
    m_ask = ledger.button(tr("What does each of them do?"), QStringLiteral("askNeighbours"));
    connect(m_ask, &QPushButton::clicked, this, [this] {
        m_desk.wantEffects();
        refresh();
    });
    m_words = ledger.note();
    m_words->setObjectName(QStringLiteral("neighbourWords"));
}

void SurroundingsPanel::change(const std::function<void(Surroundings&)>& change)
{
    m_context.document.editAntenna(tr("change what is near"), {}, [&](Antenna& a) { change(a.surroundings); });
}

void SurroundingsPanel::refresh()
{
    const Document& document = m_context.document;
    const bool any = document.hasAntenna();
    for (QWidget* widget : std::initializer_list<QWidget*>{m_metal, m_coax, m_other, m_state, m_ask})
        widget->setEnabled(any);
    if (!any) {
        m_words->setText(tr("There is no antenna yet."));
        return;
    }
    const Surroundings& s = document.antenna().surroundings;
    m_metal->setChecked(s.metal);
    m_coax->setChecked(s.coax);
    std::vector<Id> others;
    QStringList names;
    for (const Antenna& a : document.design().antennas)
        if (a.id != document.current()) {
            others.push_back(a.id);
            names << QString::fromStdString(a.name);
        }
    if (others != m_others) {
        m_others = others;
        m_other->clear();
        m_other->addItems(names);
    }
    const bool choose = !m_others.empty();
    m_other->setEnabled(choose);
    m_state->setEnabled(choose);
    if (choose) {
        const auto said = s.antennas.find(m_others[std::size_t(std::max(0, m_other->currentIndex()))]);
        m_state->setCurrentIndex(said == s.antennas.end() ? 0 : int(said->second) + 1);
    }
    m_ask->setEnabled(!m_desk.busy());
    m_words->setText(effectWords());
}

QString SurroundingsPanel::effectWords() const
{
    if (m_desk.busy())
        return tr("Each is being solved beside the antenna …");
    const auto effects = m_desk.effects();
    if (!effects && !m_desk.faults().empty())
        return coreWords(m_desk.faults().front().message, m_context.system());
    if (!effects)
        return tr("What is counted in is solved with the antenna; the rest is left out of it.");
    if (effects->empty())
        return tr("Nothing of metal and no other antenna is near.");
    QStringList lines;
    for (const study::NeighbourEffect& e : *effects) {
        const QString name = coreWords(e.what.name);
        if (!e.fault.empty())
            lines << tr("%1: %2.").arg(name, coreWords(e.fault, m_context.system()));
        else
            lines << tr("%1: dip %2 kHz, %3%4.")
                         .arg(name, QString::number(e.shift / 1e3, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−")),
                              impedanceText(e.change.real(), e.change.imag()),
                              e.matters() ? tr("; more than a quarter of the width: count it in, or move it away") : QString());
    }
    return lines.join(QLatin1Char('\n'));
}

} // namespace vetchling::app

#include "app/stages/shape/tune_panel.h"

#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"
#include "core/physics.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double usualReach = 33.0; // percent
constexpr double mustWeight = 3.0;

bool canBeVaried(const shapes::ParameterSpec& spec)
{
    using units::Quantity;
    const bool dimension = spec.quantity == Quantity::Length || spec.quantity == Quantity::Inductance || spec.quantity == Quantity::Angle ||
                           spec.quantity == Quantity::Percent;
    return dimension && spec.choices.empty() && spec.group != std::string(shapes::standsGroup);
}

} // namespace

TunePanel::TunePanel(ViewContext& context, TuneDesk& desk, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk), m_ledger(ledger)
{
    m_goal = ledger.choice(
        tr("Until"),
        {tr("X = 0"), tr("the SWR is lowest"), tr("R is, at X = 0"), tr("all wanted bands are lowest"), tr("the gain is highest")},
        QStringLiteral("tuneUntil"));
    m_resistance = ledger.value(tr("R, ohm"), units::Quantity::Plain, QStringLiteral("tuneResistance"));
    m_elevation = ledger.value(tr("at an angle of"), units::Quantity::Angle, QStringLiteral("tuneElevation"));
    m_bearing = ledger.value(tr("towards"), units::Quantity::Angle, QStringLiteral("tuneBearing"));
    m_resistance->setRange(1.0, 10000.0);
    m_elevation->setRange(0.0, 90.0);
    m_bearing->setRange(-360.0, 360.0);
    const units::System system = m_context.system();
    m_resistance->setValue(50.0, system);
    m_elevation->setValue(20.0, system);
    m_bearing->setValue(0.0, system);
    ledger.note(tr("What may change for it:"));
    addPicks(ledger);
    m_reach = ledger.value(tr("Within, either way"), units::Quantity::Percent, QStringLiteral("tuneReach"));
    m_reach->setRange(1.0, 90.0);
    m_reach->setValue(usualReach, system);
    m_start = ledger.button({}, QStringLiteral("tuneSeveral"));
    m_note = ledger.note();
    m_note->setObjectName(QStringLiteral("tuneNote"));
    constexpr int lookMilliseconds = 200;
    m_look.setInterval(lookMilliseconds);
    connect(&m_look, &QTimer::timeout, this, &TunePanel::refresh);
    connect(m_goal, &QComboBox::activated, this, &TunePanel::refresh);
    connect(m_start, &QPushButton::clicked, this, &TunePanel::start);
    connect(&desk, &TuneDesk::ready, this, &TunePanel::finish);
    refresh();
}

void TunePanel::addPicks(Ledger& ledger)
{
    const shapes::AntennaShape& shape = m_context.document.antenna().shape;
    const shapes::Family& family = m_context.document.family();
    const auto tuned = family.tuned(shape);
    for (const shapes::ParameterSpec& spec : family.specs(shape)) {
        if (!canBeVaried(spec))
            continue;
        auto* box = new QCheckBox(coreWords(spec.label), &ledger);
        box->setObjectName(QStringLiteral("vary ") + QString::fromStdString(spec.key));
        box->setChecked(std::any_of(tuned.begin(), tuned.end(), [&](const shapes::TunedLength& t) { return t.parameter == spec.key; }));
        ledger.add(box);
        m_picks.push_back({spec.key, box});
    }
}

void TunePanel::refresh()
{
    const int goal = m_goal->currentIndex();
    m_ledger.setRowVisible(m_resistance, goal == resistance);
    m_ledger.setRowVisible(m_elevation, goal == gainAtAngle);
    m_ledger.setRowVisible(m_bearing, goal == gainAtAngle);
    const bool working = m_desk.busy();
    if (!working)
        m_look.stop();
    else if (!m_look.isActive())
        m_look.start();
    m_start->setText(working ? tr("Stop, %1 % done").arg(std::lround(100.0 * m_desk.progress())) : tr("Tune these"));
}

std::vector<JointLever> TunePanel::levers() const
{
    const shapes::AntennaShape& shape = m_context.document.antenna().shape;
    const double reach = 0.01 * m_reach->value();
    std::vector<JointLever> all;
    for (const Pick& pick : m_picks) {
        if (!pick.box->isChecked())
            continue;
        const double now = m_context.document.family().value(shape, pick.parameter);
        all.push_back({pick.parameter, now - reach * std::abs(now), now + reach * std::abs(now)});
    }
    return all;
}

JointAim TunePanel::aim() const
{
    const shapes::AntennaShape& shape = m_context.document.antenna().shape;
    const std::size_t configuration = m_context.document.configuration();
    JointAim aim;
    aim.at = {{shapes::frequencyOf(shape, configuration), 1.0, configuration}};
    switch (m_goal->currentIndex()) {
    case resonance: aim.kind = JointAim::Kind::Resonance; break;
    case resistance:
        aim.kind = JointAim::Kind::Resistance;
        aim.resistance = m_resistance->value();
        break;
    case gainAtAngle:
        aim.kind = JointAim::Kind::Gain;
        aim.elevation = m_elevation->value() * pi / 180.0;
        aim.azimuth = (90.0 - m_bearing->value()) * pi / 180.0;
        break;
    case overBands:
        aim.at.clear();
        for (const WantedBand& w : m_context.document.design().operation.bands)
            if (w.wish != Wish::No)
                aim.at.push_back({w.band.centre(), w.wish == Wish::Must ? mustWeight : 1.0, configuration});
        break;
    default: break;
    }
    return aim;
}

void TunePanel::start()
{
    if (m_desk.busy()) {
        m_desk.leave();
        m_note->setText(tr("Stopped; nothing was changed."));
        return;
    }
    m_note->setText({});
    m_desk.start(levers(), aim());
    refresh();
}

void TunePanel::finish()
{
    const auto outcome = m_desk.outcome();
    if (!m_desk.faults().empty())
        m_note->setText(tr("It was not tuned: %1.").arg(coreWords(m_desk.faults().front().message, m_context.system())));
    else if (m_desk.overtaken())
        m_note->setText(tr("The antenna was changed while it was tuned, so nothing was taken: tune again."));
    else if (outcome)
        m_note->setText(wordsFor(*outcome, *m_desk.asked()));
    refresh();
}

QString TunePanel::wordsFor(const JointOutcome& outcome, const TuneQuestion& asked) const
{
    const Complex z = outcome.impedance.front();
    QString words;
    switch (asked.aim.kind) {
    case JointAim::Kind::Gain: words = tr("%1 dBi that way").arg(outcome.achieved, 0, 'f', 1); break;
    case JointAim::Kind::LowestSwr:
        if (asked.aim.at.size() == 1) {
            words = tr("%1 at the line").arg(impedanceText(z.real(), z.imag()));
            break;
        }
        words = tr("SWR %1 in the mean of the bands").arg((1.0 + outcome.achieved) / std::max(1e-9, 1.0 - outcome.achieved), 0, 'f', 2);
        break;
    default: words = tr("%1 at the line").arg(impedanceText(z.real(), z.imag())); break;
    }
    const double phase = std::abs(z.imag()) / std::abs(z);
    constexpr double resonant = 0.01;
    if (asked.aim.kind == JointAim::Kind::Resonance && phase > resonant)
        return tr("No resonance within these limits; nearest: %1. Let more change, or change it further.").arg(words);
    return outcome.atLimit ? tr("%1, with a dimension at its limit: further out there may be better.").arg(words) : tr("%1.").arg(words);
}

} // namespace vetchling::app

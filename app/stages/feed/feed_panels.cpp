#include "app/stages/feed/feed_panels.h"

#include "app/view/feed_words.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"
#include "core/line/parts.h"
#include "core/shapes/end_fed_parts.h"

#include <algorithm>

namespace vetchling::app {
namespace {

constexpr Against::Kind always[] = {Against::Kind::Vertical, Against::Kind::Dipole, Against::Kind::Own, Against::Kind::Pinned};
constexpr int alwaysCount = 4;

} // namespace

AgainstPanel::AgainstPanel(ViewContext& context, Ledger& ledger, QObject* parent) : QObject(parent), m_context(context), m_ledger(ledger)
{
    ledger.heading(tr("Held against"));
    QStringList words{tr("a vertical per band"), tr("a dipole at this height"), tr("a gain of your own"), tr("the pinned design")};
    for (const Antenna& a : context.document.design().antennas)
        if (a.id != context.document.current()) {
            words << QString::fromStdString(a.name);
            m_others.push_back(a.id);
        }
    m_kind = ledger.choice(tr("Plain antenna"), words, QStringLiteral("feedAgainst"));
    m_kind->setToolTip(
        tr("The vertical: a quarter wave for each band by itself, its base and 16 radials 2 cm above this soil, behind the same coax with "
           "its own SWR"));
    connect(m_kind, &QComboBox::activated, this, [this](int index) {
        change(tr("hold it against another antenna"), {}, [&](Operation& op) {
            op.against.kind = index < alwaysCount ? always[index] : Against::Kind::Antenna;
            op.against.antenna = index < alwaysCount ? Id() : m_others[std::size_t(index - alwaysCount)];
        });
    });
    m_gain = ledger.value(tr("Its gain, dBi"), units::Quantity::Plain, QStringLiteral("feedOwnGain"));
    m_gain->setRange(-60.0, 60.0);
    connect(m_gain, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
        change(tr("hold it against another gain"), dragging ? QStringLiteral("own gain") : QString(),
               [&](Operation& op) { op.against.gain = value; });
    });
    m_sector = ledger.value(tr("Mean over a sector of"), units::Quantity::Angle, QStringLiteral("feedSector"));
    m_sector->setRange(0.0, 360.0);
    m_sector->setHelp(tr("bearings round the wanted one; 0: towards that alone"));
    connect(m_sector, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
        change(tr("change the sector"), dragging ? QStringLiteral("sector") : QString(), [&](Operation& op) { op.aimSector = value; });
    });
    m_aim = ledger.note();
}

void AgainstPanel::change(const QString& text, const QString& mergeKey, const std::function<void(Operation&)>& to)
{
    m_context.document.edit(text, mergeKey, [&](Design& d) { to(d.operation); });
}

void AgainstPanel::refresh()
{
    const Operation& op = m_context.document.design().operation;
    const auto other = std::find(m_others.begin(), m_others.end(), op.against.antenna);
    int index = int(std::find(std::begin(always), std::end(always), op.against.kind) - std::begin(always));
    if (op.against.kind == Against::Kind::Antenna)
        index = other == m_others.end() ? 0 : alwaysCount + int(other - m_others.begin());
    m_kind->setCurrentIndex(index);
    m_ledger.setRowVisible(m_gain, op.against.kind == Against::Kind::Own);
    m_gain->setValue(op.against.gain, m_context.system());
    m_sector->setValue(op.aimSector, m_context.system());
    QString aim = op.aimBearing
                      ? tr("At %1° above the horizon, bearing %2°; change that on Sky.")
                            .arg(op.aimElevation, 0, 'f', 0)
                            .arg(*op.aimBearing, 0, 'f', 0)
                      : tr("At %1° above the horizon, where each is strongest; change that on Sky.").arg(op.aimElevation, 0, 'f', 0);
    if (op.against.kind == Against::Kind::Pinned && !m_context.solver.pinned())
        aim = tr("Nothing is pinned, so the vertical stands in; P pins what is on show. ") + aim;
    m_aim->setText(aim);
}

ShieldPanel::ShieldPanel(ViewContext& context, FeedDesk& desk, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk)
{
    ledger.heading(tr("The coax's outside"));
    m_earthed = new QCheckBox(tr("Joined to earth at the radio"), &ledger);
    m_earthed->setObjectName(QStringLiteral("shieldEarthed"));
    m_earthed->setToolTip(tr("A station earth or the mains: six wires of 4 m over the soil stand for it"));
    m_earthed->setChecked(desk.earthed());
    connect(m_earthed, &QCheckBox::toggled, &desk, &FeedDesk::setEarthed);
    ledger.add(m_earthed);
    m_place = ledger.value(tr("Choke at"), units::Quantity::Length, QStringLiteral("chokePlace"));
    m_place->setRange(0.0, 10000.0);
    m_place->setHelp(tr("from the feedpoint along the coax"));
    connect(m_place, &ValueEdit::edited, this, [this](double value, const QString&, bool) { m_desk.placeChoke(value); });
    m_best = ledger.button(tr("Put it where all are least"), QStringLiteral("chokeBest"), true);
    connect(m_best, &QPushButton::clicked, this, [this] {
        if (const auto answer = m_desk.shield(); answer && answer->bestPlace())
            m_desk.placeChoke(*answer->bestPlace());
    });
    m_there = ledger.note();
    m_there->setObjectName(QStringLiteral("chokeThere"));
    m_heat = ledger.figure(tr("Heat in the choke, key down"));
    m_elsewhere = ledger.note();
    m_elsewhere->setObjectName(QStringLiteral("shieldElsewhere"));
    ledger.line();
    ledger.heading(tr("Counterpoise"));
    m_counterpoise = ledger.note();
    m_counterpoise->setObjectName(QStringLiteral("counterpoiseTable"));
    ledger.line();
    ledger.heading(tr("Two schools"));
    m_schools = ledger.note();
    m_schools->setObjectName(QStringLiteral("shieldSchools"));
    ledger.caution(tr("Current at the radio means RF on its case: it can burn, and it disturbs what is connected."));
}

void ShieldPanel::refresh()
{
    double at = 0.0;
    for (const ChainPart& p : chainParts(m_context.document.antenna()))
        if (p.kind == part::choke) {
            at = partValue(p, "at_m");
            break;
        }
    m_place->setValue(at, m_context.system());
    const auto answer = m_desk.shield();
    m_best->setEnabled(answer && answer->bestPlace());
    m_there->setText(answer ? feed::bestChokeSentence(*answer, m_context.document.design()) : QString());
    m_elsewhere->setText(answer && m_desk.shieldFresh() ? feed::shieldEffectSentence(*answer, m_context.document.design()) : QString());
    m_heat->setText(heatWords());
    m_counterpoise->setText(counterpoiseWords());
    m_schools->setText(schoolWords());
}

QString ShieldPanel::schoolWords() const
{
    const Document& document = m_context.document;
    if (document.family().spec(document.antenna().shape, "counterpoise_m"))
        return tr("One leaves the counterpoise out: the first metres of the coax do its work, and a choke after them keeps the rest "
                  "quiet. The other puts the choke at the feedpoint and hangs a short wire instead. Click in the chart to try either; the "
                  "table shows what each makes of port, gain and current.");
    const std::vector<ChainPart> chain = wholeChain(document.antenna());
    const bool section = std::any_of(chain.begin(), chain.end(), [](const ChainPart& p) { return p.kind == part::section; });
    QString words = section ? tr("Behind a matching section some put a choke, others say the section is enough.")
                            : tr("Some put a choke at every feedpoint, others none where both sides are alike.");
    const auto answer = m_desk.shield();
    const study::ShieldBand* loudest = nullptr;
    for (std::size_t i = 0; answer && i < answer->bands.size(); ++i)
        if (const study::ShieldBand& b = answer->bands[i];
            b.bare && !b.byPlace.empty() && (!loudest || b.bare->atRadio > loudest->bare->atRadio))
            loudest = &b;
    if (loudest)
        words +=
            QLatin1Char(' ') + tr("Here, on %1: %2 mA at the radio and %3 dBi without one, %4 mA and %5 dBi with one at the feedpoint.")
                                   .arg(QString::fromStdString(loudest->name), QString::number(1e3 * loudest->bare->atRadio, 'f', 0),
                                        decibelWords(loudest->bare->gain), QString::number(1e3 * loudest->byPlace.front(), 'f', 0),
                                        decibelWords(loudest->gainByPlace.front()));
    return words;
}

QString ShieldPanel::heatWords() const
{
    const auto answer = m_desk.shield();
    if (!answer)
        return QStringLiteral("–");
    const study::ShieldBand* hottest = nullptr;
    for (const study::ShieldBand& b : answer->bands)
        if (b.chosen && (!hottest || b.chosen->chokeHeat > hottest->chosen->chokeHeat))
            hottest = &b;
    return hottest ? tr("%1 on %2").arg(feed::wattWords(hottest->chosen->chokeHeat), QString::fromStdString(hottest->name))
                   : QStringLiteral("–");
}

QString ShieldPanel::counterpoiseWords() const
{
    const Document& document = m_context.document;
    if (!document.family().spec(document.antenna().shape, "counterpoise_m"))
        return tr("This antenna has none: its own wires serve one another.");
    if (shapes::returnsByShield(document.antenna().shape))
        return tr("None: the coax up to its choke is the return, as Shape has it.");
    const auto answer = m_desk.shield();
    if (!answer)
        return tr("being computed …");
    const study::ShieldBand* shown = nullptr;
    for (const study::ShieldBand& b : answer->bands)
        if (!b.counterpoises.empty() && (!shown || b.band == document.selectedBand()))
            shown = &b;
    if (!shown)
        return tr("being computed …");
    QStringList lines{tr("On %1, with the chain's choke:").arg(QString::fromStdString(shown->name))};
    for (const auto& [length, state] : shown->counterpoises)
        lines << tr("%1: %2, %3 mA, %4 dBi")
                     .arg(lengthWords(length, m_context.system(), 1), feed::shortImpedance(state.port))
                     .arg(1e3 * state.atRadio, 0, 'f', 0)
                     .arg(QString::number(state.gain, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−")));
    return lines.join(QLatin1Char('\n'));
}

} // namespace vetchling::app

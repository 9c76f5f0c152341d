#include "app/stages/build/safety_board.h"

#include "app/document/document.h"
#include "app/view/board_table.h"
#include "app/view/feed_words.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"
#include "core/workshop/cautions.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

QString keepWords(const KeepAway& keep, units::System system)
{
    if (keep.fromWires <= 0.0)
        return SafetyBoard::tr("none");
    return (keep.bounded ? QString() : SafetyBoard::tr("more than ")) + lengthWords(keep.fromWires, system, 1);
}

} // namespace

std::vector<std::pair<QString, QString>> cautionsOf(const BuildDesk& desk, const Document& document, units::System system)
{
    std::vector<std::pair<QString, QString>> out;
    if (const auto built = desk.built(); built && document.hasAntenna())
        for (const Caution& c : vetchling::cautionsOf(document.design(), document.antenna(), *built, desk.facts()))
            out.emplace_back(coreWords(c.heading), coreWords(c.words, system));
    return out;
}

SafetyBoard::SafetyBoard(ViewContext& context, BuildDesk& desk, QWidget* parent) : Canvas(context, parent), m_desk(desk)
{
    setObjectName(QStringLiteral("safetyBoard"));
    setMinimumHeight(520);
    setAccessibleName(tr("How far to keep away, voltages and cautions"));
}

QString SafetyBoard::sentence() const
{
    if (!m_context.document.hasAntenna())
        return tr("No antenna yet: add one with + at the top.");
    if (!m_desk.safetyFaults().empty())
        return coreWords(m_desk.safetyFaults().front().message, m_context.system());
    const Standing standing = m_desk.safetyStanding();
    const bool left = m_desk.safetyGivenUp();
    if (standing == Standing::Before)
        return left ? tr("These distances are of the antenna before the change, not as it is: go on below the stages.")
                    : tr("These distances are of the antenna before the change; they are being followed anew …");
    if (standing == Standing::None && left)
        return tr("Not worked out: it was left. Go on below the stages.");
    const auto rows = m_desk.keepRows();
    if (rows.empty())
        return standing == Standing::Whole ? tr("No wished band that this limit speaks of.")
                                           : tr("The fields round the wires are being followed …");
    const auto far =
        std::max_element(rows.begin(), rows.end(), [](const auto& a, const auto& b) { return a.keep.fromWires < b.keep.fromWires; });
    const auto high = std::max_element(rows.begin(), rows.end(), [](const auto& a, const auto& b) { return a.volts < b.volts; });
    QString words = far->keep.fromWires > 0.0 ? tr("Keep %1 from the wires on %2, less elsewhere; up to %3 peak at the ends on %4.")
                                                    .arg(keepWords(far->keep, m_context.system()), QString::fromStdString(far->name),
                                                         feed::voltWords(high->volts), QString::fromStdString(high->name))
                                              : tr("The limit is nowhere exceeded; up to %1 peak at the ends on %2.")
                                                    .arg(feed::voltWords(high->volts), QString::fromStdString(high->name));
    if (standing == Standing::Part)
        words +=
            QLatin1Char(' ') + (left ? tr("Not every band was followed: go on below the stages.") : tr("More bands are being followed …"));
    return words;
}

std::vector<QStringList> SafetyBoard::cells() const
{
    std::vector<QStringList> out{
        {tr("Band"), tr("From the wires"), tr("On the ground, from below the wires"), tr("Averaged"), tr("Peak voltage")}};
    for (const study::KeepRow& row : m_desk.keepRows())
        out.push_back({QString::fromStdString(row.name), keepWords(row.keep, m_context.system()),
                       row.keep.onGround > 0.0 ? lengthWords(row.keep.onGround, m_context.system(), 1) : tr("none"),
                       tr("%1 W").arg(row.averaged, 0, 'f', row.averaged < 9.95 ? 1 : 0), feed::voltWords(row.volts)});
    return out;
}

void SafetyBoard::render(Sketch& sketch, const QSizeF& size)
{
    sketch.painter().fillRect(QRectF({0, 0}, size), sketch.colours().paper);
    const double y = paintBands(sketch, 0.0, size.width());
    paintCautions(sketch, y + 16.0, size.width());
}

/// A bar a band from the wire outwards; the pale one is what somebody standing on the ground has to keep.
double SafetyBoard::paintBands(Sketch& sketch, double top, double width) const
{
    const Colours& c = sketch.colours();
    const auto rows = m_desk.keepRows();
    const auto words = cells();
    const double left = 70.0, columns = 330.0, span = std::max(60.0, width - left - columns);
    double most = 1.0;
    for (const auto& row : rows)
        most = std::max({most, row.keep.fromWires, row.keep.onGround});
    sketch.text({0.0, top}, tr("Keep away: from any wire (dark), on the ground from below the wires (pale)"), Qt::AlignLeft | Qt::AlignTop,
                {c.ink, 12, true});
    const double right = left + span + 8.0;
    BoardTable table(sketch, {0.0, top + 20.0}, width,
                     {{{}, 0.0},
                      {tr("from wires"), right},
                      {tr("on the ground"), right + 96.0},
                      {tr("averaged"), right + 192.0},
                      {tr("peak"), right + 252.0}});
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const KeepAway& keep = rows[i].keep;
        const double y = table.begin().top();
        table.cell(0, words[i + 1][0], c.ink, true);
        sketch.painter().fillRect(QRectF(left, y + 3.0, span * keep.fromWires / most, 10.0), c.leaf);
        sketch.painter().fillRect(QRectF(left, y + 15.0, span * keep.onGround / most, 8.0), c.leafMid);
        if (!keep.bounded)
            sketch.arrowHead({left + span, y + 8.0}, {left + span - 12.0, y + 8.0}, c.leaf);
        for (std::size_t k = 1; k < 5; ++k)
            table.cell(k, words[i + 1][int(k)], k == 4 && rows[i].volts > 500.0 ? c.brick : c.ink, false, k < 3 ? 92.0 : 76.0);
    }
    const double y = table.bottom();
    if (rows.empty()) {
        sketch.text({0.0, y + 8.0}, sentence(), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        return y + 30.0;
    }
    for (int i = 0; i <= 4; ++i) {
        const double x = left + span * i / 4.0;
        sketch.line({x, y}, {x, y + 4.0}, c.inkFaint);
        sketch.text({x, y + 5.0}, lengthWords(most * i / 4.0, m_context.system(), 1), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 11});
    }
    return y + 24.0;
}

double SafetyBoard::paintCautions(Sketch& sketch, double top, double width) const
{
    const Colours& c = sketch.colours();
    sketch.line({0.0, top}, {width, top}, c.hairline);
    double y = top + 10.0;
    if (!m_context.document.hasAntenna())
        return y;
    std::vector<std::pair<QString, QString>> all = cautionsOf(m_desk, m_context.document, m_context.system());
    if (const BuildFacts* facts = m_desk.facts())
        for (const Caution& c : facts->bench)
            all.emplace_back(coreWords(c.heading), coreWords(c.words, m_context.system()));
    for (const auto& [heading, words] : all) {
        sketch.text({0.0, y}, heading, Qt::AlignLeft | Qt::AlignTop, {c.brick, 12, true});
        sketch.painter().setFont(sketch.theme().font(12));
        sketch.painter().setPen(c.ink);
        QRectF filled;
        sketch.painter().drawText(QRectF(96.0, y, width - 100.0, 60.0), Qt::TextWordWrap, words, &filled);
        y = filled.bottom() + 7.0;
    }
    return y;
}

SafetyPanel::SafetyPanel(ViewContext& context, BuildDesk& desk, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk)
{
    ledger.heading(tr("Limit"));
    QStringList limits, modes;
    for (const LimitSet& set : desk.limits())
        limits << QString::fromStdString(set.name);
    for (const Mode& mode : desk.data().modes)
        modes << coreWords(mode.name);
    m_limit = ledger.choice(tr("Table"), limits, QStringLiteral("safetyLimit"));
    connect(m_limit, &QComboBox::activated, this, [this](int index) {
        m_desk.edit(tr("choose a limit"), {}, [&](Workshop& w) { w.limit = m_desk.limits()[std::size_t(index)].id; });
    });
    m_source = ledger.note();
    ledger.line();
    ledger.heading(tr("How one sends"));
    m_mode = ledger.choice(tr("Mode"), modes, QStringLiteral("safetyMode"));
    connect(m_mode, &QComboBox::activated, this, [this](int index) {
        m_desk.edit(tr("choose a mode"), {}, [&](Workshop& w) { w.mode = m_desk.data().modes[std::size_t(index)].id; });
    });
    m_sending = ledger.value(tr("Sending, of the time"), units::Quantity::Percent, QStringLiteral("safetySending"));
    m_sending->setRange(0.1, 100.0);
    m_sending->setHelp(tr("of the time that the limit averages over; 100 % is the cautious answer"));
    connect(m_sending, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
        m_desk.edit(tr("change how much is sent"), dragging ? QStringLiteral("sending") : QString(),
                    [&](Workshop& w) { w.sending = 0.01 * value; });
    });
    m_power = ledger.figure(tr("Power at the crest"));
    m_averaged = ledger.figure(tr("Averaged"));
    ledger.line();
    ledger.note(tr("From the electric and magnetic fields near the wires, not from a far-field rule. Houses, bodies and other transmitters "
                   "are not counted in."));
    ledger.caution(tr("No legal advice: check the table against its original, your licence and local rules, and ask a licensed "
                      "practitioner where it matters."));
}

void SafetyPanel::refresh()
{
    if (!m_context.document.hasAntenna())
        return;
    const Workshop& w = m_context.document.antenna().workshop;
    const LimitSet* set = m_desk.limit();
    for (std::size_t i = 0; set && i < m_desk.limits().size(); ++i)
        if (m_desk.limits()[i].id == set->id)
            m_limit->setCurrentIndex(int(i));
    const auto& modes = m_desk.data().modes;
    const Mode* mode = m_desk.data().mode(w.mode);
    m_mode->setCurrentIndex(mode ? int(mode - modes.data()) : -1);
    m_sending->setValue(100.0 * w.sending, m_context.system());
    const double power = m_context.document.design().operation.power;
    m_power->setText(tr("%1 W").arg(power, 0, 'f', 0));
    const double averaged = power * (mode ? mode->duty : 1.0) * w.sending;
    m_averaged->setText(set && set->averagingMinutes > 0.0
                            ? tr("%1 W over %2 min").arg(averaged, 0, 'g', 3).arg(set->averagingMinutes, 0, 'g', 3)
                            : tr("none: holds at every moment"));
    m_source->setText(set ? tr("%1 (%2). Not checked against this year's document: look there before you rely on it.")
                                .arg(QString::fromStdString(set->source))
                                .arg(set->year)
                          : QString());
}

} // namespace vetchling::app

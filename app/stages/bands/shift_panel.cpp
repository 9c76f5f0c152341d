#include "app/stages/bands/shift_panel.h"

#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QCheckBox>
#include <QPointer>
#include <QPushButton>

#include <cmath>

namespace vetchling::app {

bool ShiftPanel::offered(const ViewContext& context)
{
    return context.document.hasAntenna() &&
           (study::canCompensate(context.document.antenna().shape) || !study::lowerBands(context.solver.question()).empty());
}

ShiftPanel::ShiftPanel(ViewContext& context, BandsDesk& desk, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk)
{
    ledger.line();
    ledger.heading(tr("Shift the harmonics"));
    if (study::canCompensate(context.document.antenna().shape)) {
        auto* coil = ledger.button(tr("A coil near the feed …"), QStringLiteral("solveCoil"));
        coil->setToolTip(tr("Its inductance, its place, a capacitor at the transformer and the wire's length are solved for all wanted "
                            "bands"));
        connect(coil, &QPushButton::clicked, this, [this] { solve([this] { m_desk.wantCompensation(); }); });
        m_solves.push_back(coil);
    }
    for (const Id& band : study::lowerBands(context.solver.question())) {
        auto* tail = ledger.button(tr("Coil and tail for %1 …").arg(bandName(band)),
                                   QStringLiteral("solveTail ") + bandName(band).remove(QLatin1Char(' ')));
        tail->setToolTip(tr("A coil at the wire's end and a tail beyond it; with the wire's length solved for all wanted bands"));
        connect(tail, &QPushButton::clicked, this, [this, band] { solve([this, band] { m_desk.wantLowerBand(band); }); });
        m_solves.push_back(tail);
    }
    m_words = ledger.note();
    m_words->setObjectName(QStringLiteral("coilWords"));
    m_table = ledger.note();
    m_table->setObjectName(QStringLiteral("coilTable"));
    m_table->setTextFormat(Qt::RichText);
    m_givenUp = ledger.note();
    m_givenUp->setObjectName(QStringLiteral("coilGivenUp"));
    m_try = new QCheckBox(tr("Show the map with it"));
    m_try->setObjectName(QStringLiteral("tryCoil"));
    m_try->setToolTip(tr("The map as it is now stays as dashed lines"));
    ledger.add(m_try);
    connect(m_try, &QCheckBox::toggled, this, &ShiftPanel::changed);
    m_take = ledger.button(tr("Take it"), QStringLiteral("takeCoil"), true);
    connect(m_take, &QPushButton::clicked, this, &ShiftPanel::take);
    connect(&desk, &BandsDesk::compensationReady, this, &ShiftPanel::refresh);
}

void ShiftPanel::solve(const std::function<void()>& ask)
{
    m_desk.forgetCompensation();
    m_try->setChecked(false);
    ask();
    refresh();
}

std::optional<shapes::AntennaShape> ShiftPanel::tried() const
{
    const auto found = m_desk.compensation();
    return found && m_try->isChecked() ? std::optional(found->shape) : std::nullopt;
}

QString ShiftPanel::bandName(const Id& id) const
{
    const WantedBand* band = findBand(m_context.document.design(), id);
    return band ? QString::fromStdString(band->band.name) : QString();
}

void ShiftPanel::refresh()
{
    const auto found = m_desk.compensation();
    for (QPushButton* button : m_solves)
        button->setEnabled(!m_desk.compensating());
    const bool there = found && !m_desk.compensating();
    m_table->setVisible(there);
    m_givenUp->setVisible(there);
    if (there) {
        m_table->setText(tableOf(*found));
        m_givenUp->setText(givenUp(*found));
    }
    m_take->setVisible(there && found->helps());
    m_try->setVisible(there);
    if (!there && m_try->isChecked())
        m_try->setChecked(false);
    if (m_desk.compensating())
        m_words->setText(tr("Being solved for all wanted bands …"));
    else if (found)
        m_words->setText(told(*found));
    else
        m_words->setText(m_desk.compensationFaults().empty() ? QString()
                                                             : coreWords(m_desk.compensationFaults().front().message, m_context.system()));
}

/// "Coil 1.2 µH, coil from the feed at 2.1 m: the wanted bands are better together, score 5.0 instead of 3.1."
QString ShiftPanel::told(const study::Compensation& found) const
{
    const shapes::Family& family = shapes::familyOf(found.shape);
    QStringList parts;
    for (const auto& [key, value] : found.values)
        if (const shapes::ParameterSpec* spec = family.spec(found.shape, key))
            parts << tr("%1 %2").arg(coreWords(spec->label).toLower(), valueWords(value, spec->quantity, m_context.system()));
    const QString words = found.helps() ? tr("%1: the wanted bands are better together, score %2 instead of %3.")
                                        : tr("%1 is the best there is, and no gain: score %2 instead of %3.");
    QString all = parts.join(QStringLiteral(", "));
    all[0] = all[0].toUpper();
    return words.arg(all).arg(found.scoreAfter, 0, 'f', 1).arg(found.scoreBefore, 0, 'f', 1);
}

/// A line a band: its lowest SWR and its width under the limit, before and after, and what the coil takes.
QString ShiftPanel::tableOf(const study::Compensation& found) const
{
    const auto cell = [](const QString& words, bool bold = false) {
        return QStringLiteral("<td align=\"right\" style=\"padding-right: 9px\">%1</td>")
            .arg(bold ? QStringLiteral("<b>%1</b>").arg(words) : words);
    };
    const auto kilohertz = [](double width) { return width > 0.0 ? QString::number(width / 1e3, 'f', 0) : QStringLiteral("–"); };
    QString rows = QStringLiteral("<tr>%1%2%3%4</tr>").arg(cell({}), cell(tr("SWR")), cell(tr("kHz wide")), cell(tr("coil, dB")));
    for (const study::CompensatedBand& b : found.bands) {
        const double loss = b.lossAfter - b.lossBefore;
        rows += QStringLiteral("<tr>%1%2%3%4</tr>")
                    .arg(cell(bandName(b.band).toHtmlEscaped(), true), cell(tr("%1 → %2").arg(swrText(b.swrBefore), swrText(b.swrAfter))),
                         cell(tr("%1 → %2").arg(kilohertz(b.widthBefore), kilohertz(b.widthAfter))),
                         cell(loss > 0.05 ? QString::number(loss, 'f', 1) : QStringLiteral("–")));
    }
    return QStringLiteral("<table cellspacing=\"0\">%1</table>").arg(rows);
}

/// What gets worse by it.
QString ShiftPanel::givenUp(const study::Compensation& found) const
{
    constexpr double seen = 0.1, narrower = 0.1; // of an SWR; of a width
    QStringList all;
    double loss = 0.0;
    for (const study::CompensatedBand& b : found.bands) {
        if (b.swrAfter > b.swrBefore + seen && b.swrBefore < swrCap)
            all << tr("match on %1").arg(bandName(b.band));
        else if (b.widthAfter < (1.0 - narrower) * b.widthBefore)
            all << tr("%1 kHz of %2").arg((b.widthBefore - b.widthAfter) / 1e3, 0, 'f', 0).arg(bandName(b.band));
        loss = std::max(loss, b.lossAfter - b.lossBefore);
    }
    if (loss > 0.05)
        all << tr("up to %1 dB in the coil").arg(loss, 0, 'f', 1);
    return all.isEmpty() ? tr("Nothing is given up for it.") : tr("Given up for it: %1.").arg(all.join(QStringLiteral(", ")));
}

void ShiftPanel::take()
{
    const auto found = m_desk.compensation();
    if (!found)
        return;
    Document& document = m_context.document;
    BandsDesk& desk = m_desk;
    const QPointer<ShiftPanel> here(this); // another family's ledger is made anew, and this goes with the old one
    if (found->shape.family == document.antenna().shape.family)
        document.setParameters(tr("shift the harmonics"), found->values, Compromise::From::Shift);
    else
        document.setCompromise(tr("shift the harmonics"), found->shape, Compromise::From::Shift);
    desk.forgetCompensation();
    if (here)
        emit changed();
}

} // namespace vetchling::app

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

/// "Coil 1.2 µH, …: score 5.0 instead of 3.1", with what each band gains and loses.
QString ShiftPanel::told(const study::Compensation& found) const
{
    const shapes::Family& family = shapes::familyOf(found.shape);
    QStringList parts, bands, widths;
    for (const auto& [key, value] : found.values)
        if (const shapes::ParameterSpec* spec = family.spec(found.shape, key))
            parts << tr("%1 %2").arg(coreWords(spec->label).toLower(), valueWords(value, spec->quantity, m_context.system()));
    double worst = 0.0;
    for (const study::CompensatedBand& b : found.bands) {
        if (std::abs(b.swrAfter - b.swrBefore) > 0.05 && std::min(b.swrAfter, b.swrBefore) < swrCap)
            bands << tr("%1 %2 → %3").arg(bandName(b.band), swrText(b.swrBefore), swrText(b.swrAfter));
        if (b.widthBefore > 0.0 || b.widthAfter > 0.0)
            widths << tr("%1 %2 → %3 kHz").arg(bandName(b.band)).arg(b.widthBefore / 1e3, 0, 'f', 0).arg(b.widthAfter / 1e3, 0, 'f', 0);
        worst = std::max(worst, b.lossAfter - b.lossBefore);
    }
    const QString words = found.helps() ? tr("%1. Score %2 instead of %3. SWR: %4. It costs up to %5 dB in coils.")
                                        : tr("%1 is the best there is, and no gain: score %2 instead of %3. SWR: %4. It would cost up to "
                                             "%5 dB in coils.");
    return words.arg(parts.join(QStringLiteral(", ")))
               .arg(found.scoreAfter, 0, 'f', 1)
               .arg(found.scoreBefore, 0, 'f', 1)
               .arg(bands.isEmpty() ? tr("as before") : bands.join(QStringLiteral(", ")))
               .arg(worst, 0, 'f', 1) +
           (widths.isEmpty() ? QString() : tr(" Width under the limit: %1.").arg(widths.join(QStringLiteral(", "))));
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
        document.setParameters(tr("shift the harmonics"), found->values);
    else
        document.setShape(tr("shift the harmonics"), {}, document.current(), found->shape);
    desk.forgetCompensation();
    if (here)
        emit changed();
}

} // namespace vetchling::app

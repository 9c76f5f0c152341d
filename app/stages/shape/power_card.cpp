#include "app/stages/shape/power_card.h"

#include "app/view/old_figures.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {

PowerCard::PowerCard(ViewContext& context, Ledger& ledger, QObject* parent) : QObject(parent), m_context(context)
{
    m_powerHeading = new QLabel(&ledger);
    m_powerHeading->setProperty("role", "heading");
    m_powerHeading->setWordWrap(true);
    ledger.add(m_powerHeading);
    m_power = new ShareBar(m_context.theme, &ledger);
    ledger.add(m_power);
    m_certainty = ledger.note();
    m_certainty->setObjectName(QStringLiteral("certaintyNote"));
    for (QWidget* figures : {static_cast<QWidget*>(m_powerHeading), static_cast<QWidget*>(m_power), static_cast<QWidget*>(m_certainty)})
        paleWhileOld(m_context.solver, figures);
}

void PowerCard::refresh()
{
    const double power = document().design().operation.power;
    const DetailPointer detail = solver().detail();
    const study::Spot* spot = detail ? detail->spot() : nullptr;
    m_powerHeading->setText(
        spot ? tr("Where %1 W goes, %2").arg(power).arg(QString::fromStdString(units::formatFrequency(spot->solution.frequency)))
             : tr("Where the power goes"));
    const Colours& c = m_context.theme.colours();
    if (detail && detail->ledger)
        m_power->setShares({{tr("sky"), detail->ledger->sky, c.sky},
                            {tr("soil"), detail->ledger->soil, c.inkFaint},
                            {tr("wire"), detail->ledger->wire, c.brick},
                            {tr("coils"), detail->ledger->loads, c.petal},
                            {tr("transformer"), detail->ledger->transformer, c.leafMid}},
                           power);
    else
        m_power->setShares({}, power);
    if (spot) {
        const Complex z = spot->solution.impedance;
        const bool sure = spot->solution.impedanceErrorPercent <= em::usualErrorPercent;
        const QString said =
            sure ? tr("%1 at the %4, known to about %2 %; each share is computed on its own, together %3 %.")
            : spot->resonanceError > 0.0
                ? tr("%1 at the %4, where the resonance is known to about %5 kHz and the impedance to %2 %; each share is computed on "
                     "its own, together %3 %.")
                : tr("%1 at the %4, but only known to about %2 %; each share is computed on its own, together %3 %.");
        QString words = said.arg(impedanceText(z.real(), z.imag()))
                            .arg(std::max(0.1, spot->solution.impedanceErrorPercent), 0, 'f', 1)
                            .arg(detail->ledger ? 100.0 * detail->ledger->sum() : 100.0, 0, 'f', 1)
                            .arg(spot->behindTransformer ? tr("line, behind the transformer") : tr("feed"));
        if (!sure && spot->resonanceError > 0.0)
            words = words.arg(std::max(0.1, spot->resonanceError / 1e3), 0, 'f', 1);
        m_certainty->setText(words);
    } else
        m_certainty->setText({});
}

QString PowerCard::cautionText() const
{
    const DetailPointer detail = solver().detail();
    if (!detail || !(detail->endVoltsAtOneWatt > 0.0))
        return {};
    const double volts = detail->endVoltsAtOneWatt * std::sqrt(document().design().operation.power);
    QString words = tr("RF burns: about %1 kV at the wire's ends at full power. Keep them out of reach; nobody touches the wire while "
                       "transmitting.")
                        .arg(volts / 1000.0, 0, 'f', 1);
    if (solver().curve() && solver().curve()->built->highVoltageFeed)
        words += tr(" The feedpoint of this antenna carries high voltage too.");
    return words;
}

} // namespace vetchling::app

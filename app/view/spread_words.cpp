#include "app/view/spread_words.h"

#include <QCoreApplication>

#include <cmath>

namespace vetchling::app {
namespace {

QString words(const char* text) { return QCoreApplication::translate("spread", text); }

/// What stands for one tolerance: of the soil all the way from wet to dry, of the rest one end.
QString causeWords(const study::SpreadShift& shift, const Tolerances& t, units::System system, const QString& kilohertz)
{
    switch (shift.what) {
    case study::Unsure::Soil: return words(QT_TRANSLATE_NOOP("spread", "wet to dry soil %1")).arg(kilohertz);
    case study::Unsure::Height: return words(QT_TRANSLATE_NOOP("spread", "%1 of height %2")).arg(smallWords(t.height, system), kilohertz);
    case study::Unsure::Cut: return words(QT_TRANSLATE_NOOP("spread", "a cut off by %1 %2")).arg(smallWords(t.cut, system), kilohertz);
    case study::Unsure::Jacket:
        return words(QT_TRANSLATE_NOOP("spread", "%1 of jacket %2"))
            .arg(valueWords(t.jacket, units::Quantity::WireSize, system), kilohertz);
    case study::Unsure::Unequal:
        return words(QT_TRANSLATE_NOOP("spread", "sides unequal by %1 %2")).arg(smallWords(t.unequal, system), kilohertz);
    }
    return {};
}

} // namespace

QString toleranceWords(const study::BandSpread& band)
{
    if (!band.dip)
        return {};
    return words(QT_TRANSLATE_NOOP("spread", "± %1 kHz")).arg(0.5e-3 * ((*band.dip)[2] - (*band.dip)[0]), 0, 'f', 0);
}

QString causesWords(const study::Spread& spread, const study::BandSpread& band, units::System system)
{
    constexpr double heard = 500.0; // Hz: less is not told
    QStringList causes;
    for (const study::SpreadShift& shift : band.shifts) {
        const double whole = std::abs(shift.shift) * (shift.what == study::Unsure::Soil ? 2.0 : 1.0);
        if (whole < heard)
            continue;
        const QString kilohertz = QString::number(whole / 1e3, 'f', whole < 9.5e3 ? 1 : 0) +
                                  (causes.isEmpty() ? words(QT_TRANSLATE_NOOP("spread", " kHz")) : QString());
        causes << causeWords(shift, spread.asked.tolerances, system, kilohertz);
    }
    if (causes.isEmpty())
        return band.dip ? words(QT_TRANSLATE_NOOP("spread", "Nothing that is not known exactly moves the dip by a kilohertz.")) : QString();
    return words(QT_TRANSLATE_NOOP("spread", "So far it moves the dip: %1.")).arg(causes.join(QStringLiteral(", ")));
}

} // namespace vetchling::app

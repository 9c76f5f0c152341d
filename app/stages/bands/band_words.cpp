#include "app/stages/bands/band_words.h"

#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QCoreApplication>

#include <cmath>

namespace vetchling::app {
namespace {

/// In the context that the collecting tool gives to functions of this namespace.
QString tr(const char* words) { return QCoreApplication::translate("vetchling::app", words); }

QString megahertz(double f) { return QString::number(f / 1e6, 'f', 3); }

QString names(const Design& design, const std::vector<Id>& bands)
{
    QStringList all;
    for (const Id& id : bands)
        if (const WantedBand* band = findBand(design, id))
            all << QString::fromStdString(band->band.name);
    return all.join(QStringLiteral(", "));
}

QString partly(const Coverage& c, double limit)
{
    const bool reachesLow = c.underFrom <= c.band.from + 1.0, reachesHigh = c.underTo >= c.band.to - 1.0;
    const QString where = reachesLow    ? tr("up to %1").arg(megahertz(c.underTo))
                          : reachesHigh ? tr("from %1 up").arg(megahertz(c.underFrom))
                                        : tr("from %1 to %2").arg(megahertz(c.underFrom), megahertz(c.underTo));
    return tr("Under %1 %2, %3 % of the band; the rest needs a tuner.").arg(limit).arg(where).arg(100.0 * c.shareUnderLimit, 0, 'f', 0);
}

} // namespace

QString cureSentence(const study::Cure& cure, const shapes::Lever& lever, const Design& design)
{
    const units::System system = design.operation.system;
    const QString amount = smallWords(std::abs(cure.change), system), where = coreWords(lever.name);
    QString words = (cure.change < 0.0 ? tr("%1 less, %2, would bring it in at %3") : tr("%1 more, %2, would bring it in at %3"))
                        .arg(amount, where, swrText(cure.lowestSwr));
    if (!cure.lost.empty())
        words += tr(", but lose %1").arg(names(design, cure.lost));
    else if (!cure.gained.empty())
        words += tr(", and gain %1").arg(names(design, cure.gained));
    else
        words += tr(" and lose no other band");
    return words;
}

QString bandSentence(const Coverage& c, double limit, const QString& cure)
{
    switch (c.verdict) {
    case Verdict::Covered: {
        const double worst = std::max(c.lowEdgeSwr, c.highEdgeSwr);
        return worst < 1.5 ? tr("Under %1 throughout. Nothing to do.").arg(std::max(1.1, std::ceil(worst * 10.0) / 10.0))
                           : tr("Under %1 throughout; no tuner needed.").arg(limit);
    }
    case Verdict::Partly: return partly(c, limit);
    case Verdict::TooLong:
    case Verdict::TooShort: {
        const double edge = c.verdict == Verdict::TooLong ? c.band.from : c.band.to, off = edge - *c.nearbyDip;
        const QString words =
            tr("Its dip lies %1 kHz %2 the band").arg(std::abs(off) / 1e3, 0, 'f', 0).arg(off > 0.0 ? tr("below") : tr("above"));
        return cure.isEmpty() ? words + QStringLiteral(".") : QStringLiteral("%1; %2.").arg(words, cure);
    }
    case Verdict::Pending: return tr("Far from what this wire is made for; being computed …");
    case Verdict::OnRequest: return tr("Not solved, being far from what this wire is made for. Click it to ask.");
    case Verdict::NotResonant: break;
    }
    const QString z = impedanceText(c.impedance.real(), c.impedance.imag());
    constexpr double builtIn = 3.0, outside = 5.0; // SWR that tuners cope with
    if (c.lowestSwr <= builtIn)
        return tr("%1: past your limit, but most built-in tuners cope with that.").arg(z);
    if (c.lowestSwr <= outside)
        return tr("%1: a mismatch that most built-in tuners cannot take, an outside tuner can.").arg(z);
    return tr("Not resonant here: %1. Not a band for this wire without a tuner at the feedpoint.").arg(z);
}

QString resonanceSentence(const study::Curve& curve, const Id& selectedBand)
{
    const Coverage* selected = curve.band(selectedBand);
    if (!selected || !selected->solved())
        return tr("Pick a band to compare resonance and match.");
    const Coverage& c = *selected;
    const QString name = QString::fromStdString(c.band.name);
    if (!c.resonance)
        return tr("On %1 the reactance is nowhere zero near the band; the lowest SWR is %2 at %3.")
            .arg(name, swrText(c.lowestSwr), megahertz(c.at));
    const double ratio = c.resonance->resistance > 50.0 ? c.resonance->resistance / 50.0 : 50.0 / c.resonance->resistance;
    const QString at =
        tr("On %1 it is resonant at %2 with %3 Ω").arg(name, megahertz(c.resonance->frequency)).arg(c.resonance->resistance, 0, 'f', 0);
    return ratio <= 1.5 ? tr("%1: both resonant and matched.").arg(at)
                        : tr("%1, which alone is an SWR of %2. Resonant is not matched.").arg(at, swrText(ratio));
}

} // namespace vetchling::app

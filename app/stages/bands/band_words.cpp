#include "app/stages/bands/band_words.h"

#include "app/view/sketch.h"

#include <QCoreApplication>

#include <cmath>

namespace vetchling::app {
namespace {

/// In the context that the collecting tool gives to functions of this namespace.
QString tr(const char* words) { return QCoreApplication::translate("vetchling::app", words); }

QString megahertz(double f) { return QString::number(f / 1e6, 'f', 3); }

/// "about 12 cm more wire a side", from the dip's distance and the slope; empty if unknown or absurd.
QString wireCure(double off, const QString& lengthWords, double slope, units::System system)
{
    if (!(slope > 0.0))
        return {};
    const double metres = std::abs(off) / slope;
    if (metres > 2.0)
        return {};
    const QString amount = QString::fromStdString(metres < 1.0 ? units::formatSmall(metres, system) : units::formatLength(metres, system));
    return off > 0.0 ? tr("about %1 less wire %2 would bring it in").arg(amount, lengthWords)
                     : tr("about %1 more wire %2 would bring it in").arg(amount, lengthWords);
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

QString bandSentence(const Coverage& c, double limit, const QString& lengthWords, double trimSlope, units::System system)
{
    const int multiple = int(std::lround(c.harmonic));
    // A cut moves the n-th multiple n times as far as the fundamental.
    const double slope = trimSlope * std::max(1, multiple);
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
        QString words =
            tr("Its dip lies %1 kHz %2 the band").arg(std::abs(off) / 1e3, 0, 'f', 0).arg(off > 0.0 ? tr("below") : tr("above"));
        if (const QString cure = wireCure(c.band.centre() - *c.nearbyDip, lengthWords, slope, system); !cure.isEmpty())
            words += QStringLiteral("; ") + cure;
        return words + QStringLiteral(".");
    }
    case Verdict::Pending: return tr("Far from what this wire is made for; being computed …");
    case Verdict::OnRequest: return tr("Not solved, being far from what this wire is made for. Click it to ask.");
    case Verdict::NotResonant: break;
    }
    const QString z = impedanceText(c.impedance.real(), c.impedance.imag());
    if (c.lowestSwr <= 5.0)
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

#include "app/view/band_words.h"

#include "app/view/sketch.h"
#include "app/view/words.h"
#include "core/study/sky.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

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
    const QString where = reachesLow    ? tr("up to %1").arg(megahertz(c.underTo, 3))
                          : reachesHigh ? tr("from %1 up").arg(megahertz(c.underFrom, 3))
                                        : tr("from %1 to %2").arg(megahertz(c.underFrom, 3), megahertz(c.underTo, 3));
    QString words = tr("Under %1 %2, %3 % of the band.").arg(limit).arg(where).arg(100.0 * c.shareUnderLimit, 0, 'f', 0);
    const double window = c.wholeTo - c.wholeFrom, width = c.band.to - c.band.from;
    if (!(window > 0.0))
        return words;
    if (window >= width)
        return words + tr(" Wide enough for all of it with its dip at %1.").arg(megahertz(c.band.centre(), 3));
    if (2.0 * window >= width)
        return words + tr(" Two settings, dips at %1 and %2, would cover it.")
                           .arg(megahertz(c.band.from + 0.5 * window, 3), megahertz(c.band.to - 0.5 * window, 3));
    return words + tr(" The rest needs a tuner, or a dip put where you work.");
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

QString returnSentence(const study::ReturnEffect& effect, units::System system)
{
    const study::ReturnEffect::Row* row = effect.most();
    if (!row)
        return {};
    const QString band = QString::fromStdString(row->name), coax = lengthWords(effect.coax, system),
                  wire = lengthWords(effect.counterpoise, system);
    if (effect.counterpoise <= 0.0)
        return effect.shield ? tr("With the outside of %1 of coax %2 reads %3; choked at the transformer it would read %4.")
                                   .arg(coax, band, swrText(row->here), swrText(row->other))
                             : tr("Choked at the transformer %1 reads %2; with the outside of %3 of coax it would read %4.")
                                   .arg(band, swrText(row->here), coax, swrText(row->other));
    return effect.shield ? tr("With %1 of coax as the return %2 reads %3; with a counterpoise of %4 it would read %5.")
                               .arg(coax, band, swrText(row->here), wire, swrText(row->other))
                         : tr("With a counterpoise of %1 %2 reads %3; with %4 of coax as the return it would read %5.")
                               .arg(wire, band, swrText(row->here), coax, swrText(row->other));
}

QString reasonSentence(const Coverage& c)
{
    if (c.verdict == Verdict::Pending)
        return tr("Far from what this wire is made for; being computed …");
    if (c.verdict == Verdict::OnRequest)
        return tr("Not solved, being far from what this wire is made for. Click it to ask.");
    const QString z = impedanceText(c.impedance.real(), c.impedance.imag());
    if (!(c.harmonic > 0.0))
        return tr("%1. Not a band for this wire without a tuner at the feedpoint.").arg(z);
    const double below = std::floor(c.harmonic);
    if (below < 1.0)
        return tr("%1: below its lowest resonance; too short for this band.").arg(z);
    return tr("%1: between %2 × f and %3 × f. Not without a tuner at the feedpoint.").arg(z).arg(below).arg(below + 1.0);
}

QString shiftSentence(const study::HarmonicShift& shift)
{
    const double off = shift.dip - shift.plain;
    const auto most =
        std::max_element(shift.causes.begin(), shift.causes.end(),
                         [](const study::ShiftCause& a, const study::ShiftCause& b) { return std::abs(a.shift) < std::abs(b.shift); });
    constexpr double close = 2e-3; // of the frequency
    if (std::abs(off) < close * shift.dip)
        return tr("At %1 × f.").arg(shift.n);
    return (off > 0.0 ? tr("%1 kHz above %2 × f; mostly %3 does that.") : tr("%1 kHz below %2 × f; mostly %3 does that."))
        .arg(std::abs(off) / 1e3, 0, 'f', 0)
        .arg(shift.n)
        .arg(coreWords(most->name));
}

QString audibleWords(double decibels)
{
    constexpr double nobodyHears = 1.0, unit = 6.0; // dB; an S-unit
    const double size = std::abs(decibels);
    return size < nobodyHears   ? tr("which nobody hears")
           : size < 0.5 * unit  ? tr("which a careful ear hears")
           : size < 0.75 * unit ? tr("more than half an S-unit")
           : size < 1.5 * unit  ? tr("about one S-unit")
                                : tr("about %1 S-units").arg(size / unit, 0, 'f', 0);
}

QString useSentence(const study::BandUse& use, const QString& band, double power)
{
    const double ahead = use.gain - use.reference;
    return (ahead >= 0.0 ? tr("%1: %2 dB ahead towards %3°, %4; as if the vertical had %5 W instead of %6.")
                         : tr("%1: %2 dB behind towards %3°, %4; as if the vertical had %5 W instead of %6."))
        .arg(band)
        .arg(std::abs(ahead), 0, 'f', 1)
        .arg(study::bearingOf(use.azimuth), 0, 'f', 0)
        .arg(audibleWords(ahead))
        .arg(power * std::pow(10.0, 0.1 * ahead), 0, 'f', 0)
        .arg(power);
}

QString configurationWords(const std::vector<shapes::Configuration>& all, std::size_t which)
{
    return which + 1 == all.size() ? tr("links closed")
           : which == 0            ? tr("links open")
                                   : tr("%1 of %2 links closed").arg(which).arg(all.size() - 1);
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
        return c.lowestSwr <= curve.question.limit
                   ? tr("On %1 it is matched without being resonant: the lowest SWR is %2 at %3, and it radiates as well.")
                         .arg(name, swrText(c.lowestSwr), megahertz(c.at, 3))
                   : tr("On %1 resonance is missing: the reactance is nowhere zero near the band, and the lowest SWR is %2 at %3. "
                        "Another length cures that; the map shows which.")
                         .arg(name, swrText(c.lowestSwr), megahertz(c.at, 3));
    const double reference = curve.question.reference;
    const double ratio = c.resonance->resistance > reference ? c.resonance->resistance / reference : reference / c.resonance->resistance;
    const QString at =
        tr("On %1 it is resonant at %2 with %3 Ω").arg(name, megahertz(c.resonance->frequency, 3)).arg(c.resonance->resistance, 0, 'f', 0);
    if (ratio <= 1.5)
        return tr("%1: both resonant and matched.").arg(at);
    const QString missing =
        tr("%1, which alone is an SWR of %2. Resonant is not matched, and no length cures that").arg(at, swrText(ratio));
    return tr("%1: a transformer of %2 would, or a quarter-wave section of %3 Ω.")
        .arg(missing, c.resonance->resistance > reference ? tr("%1:1").arg(ratio, 0, 'f', 1) : tr("1:%1").arg(ratio, 0, 'f', 1))
        .arg(std::sqrt(c.resonance->resistance * reference), 0, 'f', 0);
}

QString tallyWords(const Tally& tally)
{
    return tally.partly > 0 ? tr("%1 of %2 served, %3 in part").arg(tally.served).arg(tally.wished).arg(tally.partly)
                            : tr("%1 of %2 served").arg(tally.served).arg(tally.wished);
}

QString serviceSentence(const BandService& service, const Operation& operation)
{
    if (!service.solved)
        return {};
    const auto decibels = [](double value) { return QStringLiteral("%1 dB").arg(std::min(value, 99.0), 0, 'f', 1); };
    const int percent = int(std::lround(100.0 * service.shareWithTuner));
    if (service.service == Service::Served)
        return (service.share < 0.95 ? tr("Served with the tuner, %1 lost.") : tr("Served, %1 lost.")).arg(decibels(service.total()));
    if (service.service == Service::No)
        return tr("Not served.");
    return percent >= 95 ? tr("In part: %1 lost, past %2.").arg(decibels(service.total()), decibels(operation.lossLimit))
                         : tr("In part: %1 % of it.").arg(percent);
}

} // namespace vetchling::app

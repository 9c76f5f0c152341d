#include "core/study/coil_study.h"

#include "core/shapes/loading.h"
#include "core/wire/coil_limits.h"

#include <cmath>

namespace vetchling::study {
namespace {

constexpr double step = 0.01; // relative change that measures a slope

/// The dip with one parameter changed; nothing where there is none.
std::optional<double> dipWith(Library& library, Question question, const std::string& key, double value, const Watch& watch)
{
    question.subject.shape = shapes::familyOf(question.subject.shape).levered(question.subject.shape, key, value);
    const auto curve = curveOf(library, question, watch, Reach::Near);
    if (!curve)
        return std::nullopt;
    return (*curve)->resonance ? (*curve)->resonance->frequency : (*curve)->fundamental;
}

double slopeOf(Library& library, const Question& question, const std::string& key, const Watch& watch)
{
    const double value = shapes::familyOf(question.subject.shape).value(question.subject.shape, key);
    const auto less = dipWith(library, question, key, value * (1.0 - step), watch),
               more = dipWith(library, question, key, value * (1.0 + step), watch);
    return less && more && value > 0.0 ? (*more - *less) / (2.0 * step * value) : 0.0;
}

} // namespace

std::vector<std::string> coilsOf(const shapes::AntennaShape& shape)
{
    const shapes::Family& family = shapes::familyOf(shape);
    std::vector<std::string> keys;
    for (const shapes::ParameterSpec& s : family.specs(shape))
        if (s.group == shapes::coilsGroup && s.quantity == units::Quantity::Inductance && s.lowest >= 0.0 &&
            family.value(shape, s.key) > 0.0) // what may be below zero is a difference
            keys.push_back(s.key);
    return keys;
}

CoilQuestion coilQuestionOf(const Design& design, const Antenna& antenna, const std::string& key, std::size_t configuration)
{
    CoilQuestion out{questionOf(design, antenna, {}, configuration), key, antenna.winding, 0.0};
    out.question.before.reset();
    const Id own = bandFor(design, shapes::frequencyOf(antenna.shape, configuration));
    std::erase_if(out.question.bands, [&](const WantedBand& w) { return w.id != own; });
    return out;
}

CoilSize CoilAnswer::sizeWound() const
{
    const CoilSize size{wound.figures.length, wound.coil.meanDiameter, wound.coil.wireDiameter};
    return hasSize && wound.good() && !tooShort(size) ? size : CoilSize{};
}

Result<CoilAnswer> coilAnswer(Library& library, const CoilQuestion& asked, const Watch& watch)
{
    const Watch quiet = watch.with({});
    const Subject& subject = asked.question.subject;
    const shapes::Family& family = shapes::familyOf(subject.shape);
    CoilAnswer out;
    out.key = asked.key;
    out.inductance = family.value(subject.shape, asked.key);
    out.frequency = shapes::frequencyOf(subject.shape, subject.configuration);
    out.wound = windFor(out.inductance, out.frequency, asked.winding);
    if (asked.turnsAtHand > 0.0)
        if (const auto figures = coilFigures(coilOf(asked.winding, asked.turnsAtHand), out.frequency))
            out.atHand = *figures, out.atHandInductance = figures->atFrequency + leadInductance(coilOf(asked.winding, asked.turnsAtHand));
    if (watch.stopped())
        return stoppedFault();
    out.beside = windingsBeside(out.inductance, out.frequency, asked.winding);
    watch.report(0.2);
    out.perHenry = slopeOf(library, asked.question, asked.key, quiet);
    for (const shapes::Lever& lever : family.levers(subject.shape))
        if (lever.parameter != asked.key) {
            out.lever = lever;
            out.perLever = slopeOf(library, asked.question, lever.parameter, quiet);
            break;
        }
    if (family.spec(subject.shape, "coil_q"))
        out.assumedQ = family.value(subject.shape, "coil_q");
    out.hasSize = family.spec(subject.shape, "coil_length_m") != nullptr;
    if (out.hasSize)
        out.size = shapes::coilSizeOf(family, subject.shape);
    const auto studied = library.study(subject);
    if (!studied)
        return studied.faults();
    watch.report(0.8);
    const auto ledger = studied->study->ledger(out.frequency, quiet);
    if (!ledger)
        return ledger.faults();
    out.lost = (*ledger)->loads;
    return unlessStopped(watch, std::move(out));
}

} // namespace vetchling::study

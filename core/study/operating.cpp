#include "core/study/operating.h"

#include <cmath>

namespace vetchling::study {
namespace {

constexpr std::size_t mostKnown = 64;

} // namespace

Result<Reference> References::at(Library& library, const Ground& ground, double frequency, const Watch& watch)
{
    {
        const std::lock_guard lock(m_mutex);
        if (!(m_ground == ground)) {
            m_known.clear();
            m_ground = ground;
        }
        if (const auto known = m_known.find(frequency); known != m_known.end())
            return known->second;
    }
    Result<Reference> reference = referenceAt(library, ground, frequency, watch);
    if (reference) {
        const std::lock_guard lock(m_mutex);
        if (m_ground == ground) {
            if (m_known.size() >= mostKnown) // bands are dragged: one is asked for at many frequencies
                m_known.erase(m_known.begin());
            m_known[frequency] = *reference;
        }
    }
    return reference;
}

std::size_t References::size() const
{
    const std::lock_guard lock(m_mutex);
    return m_known.size();
}

const BandChoice* Operating::choice(const Id& band) const
{
    const auto& bands = curves.front()->question.bands;
    for (std::size_t i = 0; i < choices.size(); ++i)
        if (bands[i].id == band)
            return &choices[i];
    return nullptr;
}

Result<Operating> operatingOf(Library& library, const Question& question, const Watch& watch)
{
    Result<std::vector<CurvePointer>> curves = curvesOf(library, question, watch);
    if (!curves)
        return curves.faults();
    Operating out;
    out.curves = std::move(curves).value();
    out.choices = bestByBand(out.curves);
    return unlessStopped(watch, std::move(out));
}

Result<Operating> withUses(Library& library, References& references, Operating operating, const Aim& aim, const Watch& watch)
{
    const Question& question = operating.curves.front()->question;
    for (std::size_t i = 0; i < operating.choices.size(); ++i) {
        const BandChoice& choice = operating.choices[i];
        const WantedBand& wanted = question.bands[i];
        if (!choice.coverage.solved() || (wanted.wish == Wish::No && wanted.id != question.requested))
            continue;
        const Curve& curve = *operating.curves[choice.configuration];
        BandUse use;
        use.frequency = wanted.band.centre();
        const auto solution = em::solve(std::make_shared<const WireModel>(curve.built->model), use.frequency, library.tables(), {}, watch);
        const auto reference = references.at(library, question.subject.ground, use.frequency, watch);
        if (!solution || !reference)
            return solution ? reference.faults() : solution.faults();
        const em::FarField field(*solution);
        const double passed = curve.built->transformer ? curve.built->transformer->at(use.frequency).efficiency(solution->impedance) : 1.0;
        const double lost = 10.0 * std::log10(std::max(passed, 1e-30));
        use.azimuth = azimuthTowards(field, aim, watch);
        use.gain = field.gain(aim.elevation, use.azimuth) + lost;
        use.straightUp = field.gain(0.5 * pi, 0.0) + lost;
        use.reference = reference->field->over(question.subject.beyond).gain(aim.elevation, use.azimuth); // over the same shore
        operating.uses[wanted.id] = use;
        constexpr double ofUse = 5.0; // SWR in the band
        constexpr double near = 0.03; // of the frequency: a dip farther off is not the band's
        const std::optional<double> dip =
            choice.coverage.lowestSwr <= ofUse ? std::optional(choice.coverage.at) : choice.coverage.nearbyDip;
        if (!dip || *dip < (1.0 - near) * wanted.band.from || *dip > (1.0 + near) * wanted.band.to)
            continue;
        const auto shift = harmonicShift(library, curve, *dip, watch);
        if (!shift)
            return shift.faults();
        if (*shift)
            operating.shifts[wanted.id] = **shift;
    }
    auto effect = returnEffect(library, operating.curves, watch);
    if (!effect)
        return effect.faults();
    operating.otherReturn = *effect;
    return unlessStopped(watch, std::move(operating));
}

} // namespace vetchling::study

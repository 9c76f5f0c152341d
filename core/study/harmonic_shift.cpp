#include "core/study/harmonic_shift.h"

#include <cmath>

namespace vetchling::study {
namespace {

constexpr double aside = 0.09; // of a frequency, in which its dip is looked for

/// The dip nearest to a frequency, as seen at the line or at the port.
std::optional<double> dipNear(Study& study, const shapes::BuiltAntenna& built, bool behindTransformer, double near, const Watch& watch)
{
    const double from = (1.0 - aside) * near, to = (1.0 + aside) * near;
    const Result<CurvePart> part = study.curve({from, to}, watch);
    if (!part)
        return std::nullopt;
    constexpr double usual = 50.0; // ohm
    const double scale = behindTransformer ? 1.0 : usual / built.portReference;
    return nearestDip([&](double f) { return scale * (behindTransformer ? built.atLine((*part)->at(f), f) : (*part)->at(f)); }, near, from,
                      to);
}

/// Whether a length of its own is tuned for a frequency: a pair of a fan, a link, a trap's outer part.
bool hasItsOwn(const shapes::Family& family, const shapes::AntennaShape& shape, double near)
{
    constexpr double aim = 0.05; // of the frequency
    for (const shapes::TunedLength& t : family.tuned(shape))
        if (std::abs(t.frequency - near) < aim * near)
            return true;
    return false;
}

/// How far the dip lies from n times the lowest one.
std::optional<double> shiftOf(Study& study, const shapes::BuiltAntenna& built, bool behindTransformer, double fundamental, int n,
                              const Watch& watch)
{
    const std::optional<double> first = dipNear(study, built, behindTransformer, fundamental, watch);
    const std::optional<double> higher = first ? dipNear(study, built, behindTransformer, n * *first, watch) : std::nullopt;
    if (!higher)
        return std::nullopt;
    return *higher - n * *first;
}

} // namespace

Result<std::optional<HarmonicShift>> harmonicShift(Library& library, const Curve& curve, double near, const Watch& watch)
{
    const shapes::Family& family = shapes::familyOf(curve.question.subject.shape);
    const Subject& here = curve.question.subject;
    const int n = int(std::lround(near / curve.fundamental));
    const bool works = n >= 2 && (family.multiples() == shapes::Multiples::All || n % 2 == 1);
    if (!works || hasItsOwn(family, here.shape, near))
        return std::optional<HarmonicShift>();
    const shapes::AntennaShape straight = family.straightened(here.shape);
    struct Stage {
        const char* cause;
        Subject subject;
        bool behindTransformer;
    };
    std::vector<Stage> stages{
        {coreText("core", "what its open ends add"), {straight, {GroundKind::FreeSpace, 1.0, 0.0}, here.configuration}, false},
        {coreText("core", "height and soil"), {straight, here.ground, here.configuration}, false}};
    if (!(straight == here.shape))
        stages.push_back({coreText("core", "bends and slopes"), here, false});
    if (curve.built->transformer)
        stages.push_back({coreText("core", "the transformer"), here, true});
    HarmonicShift out;
    out.n = n;
    double before = 0.0;
    bool asItHangs = false;
    for (const Stage& stage : stages) {
        const Result<Studied> studied = library.study(stage.subject);
        if (!studied)
            continue; // a straightened wire may not fit: the next stage takes its part
        const std::optional<double> shift = shiftOf(*studied->study, *studied->built, stage.behindTransformer, curve.fundamental, n, watch);
        if (watch.stopped())
            return stoppedFault();
        asItHangs = shift.has_value();
        if (!shift)
            continue;
        out.causes.push_back({stage.cause, *shift - before});
        before = *shift;
    }
    if (out.causes.empty() || !asItHangs) // its lowest dip is none, or the higher one is nowhere near
        return std::optional<HarmonicShift>();
    out.plain = n * curve.fundamental;
    out.dip = out.plain + before;
    return unlessStopped(watch, std::optional<HarmonicShift>(out));
}

} // namespace vetchling::study

#include "core/study/windows.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr double lowest = 1e4, highest = 3e9;           // Hz, of the solver
constexpr double besideBand = 0.15;                     // of a band's edges: causes of its SWR are looked for there,
constexpr double besideInResonances = 2.0;              // but no farther than so many resonances of the wire
constexpr double belowDesign = 0.7, aboveDesign = 1.35; // of the design frequency: the fundamental is looked for there
constexpr double endsPerOctave = 32.0;
constexpr double closest = 1.2; // windows nearer than this ratio are one
constexpr double widest = 25.0; // ratio that one mesh serves well

double roundedDown(double f) { return std::max(lowest, 1e6 * std::exp2(std::floor(std::log2(f / 1e6) * endsPerOctave) / endsPerOctave)); }
double roundedUp(double f) { return std::min(highest, 1e6 * std::exp2(std::ceil(std::log2(f / 1e6) * endsPerOctave) / endsPerOctave)); }

Window around(double from, double to) { return {roundedDown(std::max(lowest, from)), roundedUp(std::min(highest, to))}; }

/// How far beside a frequency to look, relative: a wire resonates at every half wave, lambda / 2l apart.
double beside(double widestShare, double frequency, const WireExtent& wires)
{
    return std::min(widestShare, besideInResonances * 0.5 * wavelength(frequency) / std::max(wires.longest, 1e-3));
}

Window aroundBand(const Band& band, const WireExtent& wires)
{
    const double aside = beside(besideBand, band.centre(), wires);
    return around((1.0 - aside) * band.from, (1.0 + aside) * band.to);
}

Window aroundDesign(double frequency, const WireExtent& wires)
{
    return around((1.0 - beside(1.0 - belowDesign, frequency, wires)) * frequency,
                  (1.0 + beside(aboveDesign - 1.0, frequency, wires)) * frequency);
}

std::vector<Window> joined(std::vector<Window> windows)
{
    std::sort(windows.begin(), windows.end(), [](const Window& a, const Window& b) { return a.from < b.from; });
    std::vector<Window> out;
    for (const Window& w : windows) {
        const bool touches = !out.empty() && w.from <= out.back().to;
        const bool close = !out.empty() && w.from <= closest * out.back().to && w.to <= widest * out.back().from;
        if (touches || close)
            out.back().to = std::max(out.back().to, w.to);
        else
            out.push_back(w);
    }
    return out;
}

BandPlace placeOf(const WantedBand& w, double designFrequency, const Id& requested, const WireExtent& wires)
{
    const bool tooLong = wires.total > longestInWaves * wavelength(w.band.to);
    const bool far = w.band.to < farBelow * designFrequency || w.band.from > farAbove * designFrequency;
    if (w.id != requested && (tooLong || (far && w.wish == Wish::No)))
        return BandPlace::OnRequest;
    const bool aside = w.band.to < asideBelow * designFrequency || w.band.from > asideAbove * designFrequency;
    const bool unasked = w.wish == Wish::No && w.id != requested;
    return far || tooLong || (aside && unasked) ? BandPlace::Far : BandPlace::Near;
}

} // namespace

WindowPlan planWindows(const std::vector<WantedBand>& bands, double designFrequency, const Id& requested, const WireExtent& wires)
{
    WindowPlan plan;
    plan.windows = {aroundDesign(designFrequency, wires)};
    for (const WantedBand& w : bands) {
        plan.bands.push_back(placeOf(w, designFrequency, requested, wires));
        if (plan.bands.back() != BandPlace::OnRequest)
            (plan.bands.back() == BandPlace::Near ? plan.windows : plan.far).push_back(aroundBand(w.band, wires));
    }
    plan.windows = joined(std::move(plan.windows));
    plan.far = joined(std::move(plan.far));
    return plan;
}

} // namespace vetchling::study

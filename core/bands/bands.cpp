#include "core/bands/bands.h"

#include <boost/math/tools/minima.hpp>
#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double neighbourhood = 0.1; // how far outside a band a cause is looked for, relative

constexpr int searchBits = 40; // of the place of a minimum; more would be below the curve's own noise

double refineMinimum(const ImpedanceAt& impedance, double a, double b)
{
    return boost::math::tools::brent_find_minima([&](double f) { return swr(impedance(f)); }, a, b, searchBits).first;
}

void scanBand(const ImpedanceAt& impedance, double limit, Coverage& out)
{
    const double step = (out.band.to - out.band.from) / coverageSteps;
    double runStart = 0.0;
    int under = 0;
    bool inRun = false;
    out.lowestSwr = HUGE_VAL;
    for (int i = 0; i <= coverageSteps; ++i) {
        const double f = out.band.from + i * step, s = swr(impedance(f));
        if (s < out.lowestSwr)
            out.lowestSwr = s, out.at = f;
        if (s <= limit) {
            ++under;
            if (!inRun)
                runStart = f;
            if (f - runStart >= out.underTo - out.underFrom)
                out.underFrom = runStart, out.underTo = f;
        }
        inRun = s <= limit;
    }
    out.shareUnderLimit = double(under) / (coverageSteps + 1);
    out.lowEdgeSwr = swr(impedance(out.band.from));
    out.highEdgeSwr = swr(impedance(out.band.to));
    if (out.at > out.band.from && out.at < out.band.to)
        out.at = refineMinimum(impedance, out.at - step, out.at + step);
    out.impedance = impedance(out.at);
    out.lowestSwr = swr(out.impedance);
}

/// From a frequency under the limit to where the limit is met, or where nothing is known or looked for.
double limitMet(const ImpedanceAt& impedance, double limit, double from, double end)
{
    constexpr double finest = 2e-4; // of the frequency
    const auto under = [&](double f) { return swr(impedance(f)) <= limit; };
    const double step = std::copysign(finest * from, end - from);
    double last = from;
    for (double f = from + step; (end - f) * step > 0.0; f += step) {
        if (!under(f)) {
            double good = last, bad = f;
            for (int i = 0; i < 20; ++i)
                (under(0.5 * (good + bad)) ? good : bad) = 0.5 * (good + bad);
            return good;
        }
        last = f;
    }
    return last;
}

Verdict judge(const Coverage& c)
{
    if (c.shareUnderLimit >= 1.0)
        return Verdict::Covered;
    if (c.shareUnderLimit > 0.0)
        return Verdict::Partly;
    if (c.nearbyDip)
        return *c.nearbyDip < c.band.from ? Verdict::TooLong : Verdict::TooShort;
    return Verdict::NotResonant;
}

} // namespace

Coverage coverage(const ImpedanceAt& impedance, const Band& band, double limit, double fundamental)
{
    Coverage out;
    out.band = band;
    scanBand(impedance, limit, out);
    const double low = band.from * (1.0 - neighbourhood), high = band.to * (1.0 + neighbourhood);
    for (const Resonance& r : resonances(impedance, low, high))
        if (!out.resonance || std::abs(r.frequency - band.centre()) < std::abs(out.resonance->frequency - band.centre()))
            out.resonance = r;
    if (out.shareUnderLimit == 0.0)
        if (const std::optional<double> dip = nearestDip(impedance, band.centre(), low, high); dip && (*dip < band.from || *dip > band.to))
            if (swr(impedance(*dip)) < std::max(limit, 3.0))
                out.nearbyDip = dip;
    if (out.shareUnderLimit > 0.0) {
        out.wholeFrom = limitMet(impedance, limit, out.at, low);
        out.wholeTo = limitMet(impedance, limit, out.at, high);
    }
    if (fundamental > 0.0)
        out.harmonic = band.centre() / fundamental;
    out.verdict = judge(out);
    return out;
}

Coverage coverage(const ImpedanceAt& impedance, const WantedBand& wanted, double limit, double fundamental)
{
    Coverage out = coverage(impedance, wanted.band, limit, fundamental);
    for (const Segment& segment : wanted.segments) {
        if (segment.wish == Wish::No)
            continue;
        Coverage part;
        part.band = {segment.name, segment.from, segment.to};
        scanBand(impedance, limit, part);
        out.segments.push_back({segment, part.lowestSwr, part.at, part.shareUnderLimit});
    }
    return out;
}

double weightOf(Wish wish) { return wish == Wish::Must ? 3.0 : wish == Wish::Nice ? 1.0 : 0.0; }

double usableShare(const Coverage& coverage)
{
    if (coverage.segments.empty())
        return coverage.solved() ? coverage.shareUnderLimit : 0.0;
    double share = 0.0, weight = 0.0;
    for (const SegmentCoverage& s : coverage.segments) {
        share += weightOf(s.segment.wish) * s.shareUnderLimit;
        weight += weightOf(s.segment.wish);
    }
    return share / weight;
}

Coverage notSolved(const Band& band, Verdict verdict)
{
    Coverage out;
    out.band = band;
    out.at = band.centre();
    out.lowestSwr = out.lowEdgeSwr = out.highEdgeSwr = HUGE_VAL;
    out.verdict = verdict;
    return out;
}

std::optional<double> nearestDip(const ImpedanceAt& impedance, double near, double from, double to)
{
    constexpr int steps = 400;
    const double step = (to - from) / steps;
    std::optional<double> best;
    double before = swr(impedance(from)), here = swr(impedance(from + step));
    for (int i = 2; i <= steps; ++i) {
        const double next = swr(impedance(from + i * step));
        if (here < before && here <= next) {
            const double dip = refineMinimum(impedance, from + (i - 2) * step, from + i * step);
            if (!best || std::abs(dip - near) < std::abs(*best - near))
                best = dip;
        }
        before = here;
        here = next;
    }
    return best;
}

std::vector<Resonance> resonances(const ImpedanceAt& impedance, double from, double to)
{
    constexpr int steps = 300;
    std::vector<Resonance> out;
    Complex before = impedance(from);
    for (int i = 1; i <= steps; ++i) {
        const double a = from + (to - from) * (i - 1) / steps, b = from + (to - from) * i / steps;
        const Complex here = impedance(b);
        if (before.imag() * here.imag() <= 0.0 && before.imag() != here.imag()) {
            std::uintmax_t iterations = 60;
            const auto [low, high] =
                boost::math::tools::toms748_solve([&](double f) { return impedance(f).imag(); }, a, b, before.imag(), here.imag(),
                                                  boost::math::tools::eps_tolerance<double>(searchBits), iterations);
            out.push_back({0.5 * (low + high), impedance(0.5 * (low + high)).real()});
        }
        before = here;
    }
    return out;
}

} // namespace vetchling

#include "core/trim/calibration.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double alike = 0.2;       // between raw reflections of two standards that should differ by 1 or 2
constexpr double unequal = 1.25;    // of the larger to the smaller arm from load to open and to short
constexpr double bent = 0.45;       // rad off opposite
constexpr double reflecting = 0.35; // of a load
constexpr double tooMuch = 1.03;    // of a reflection
constexpr double sureOfPhase = 0.5; // rad, three deviations of the phase at 0 Hz
constexpr double roundOff = 1e-9;   // of the range

double median(std::vector<double> values)
{
    std::nth_element(values.begin(), values.begin() + std::ptrdiff_t(values.size() / 2), values.end());
    return values[values.size() / 2];
}

/// Three equations in e00, e11 and d by Cramer's rule.
std::optional<ErrorTerms> termsAt(const Complex (&g)[3], const Complex (&m)[3])
{
    const auto determinant = [](const Complex(&a)[3], const Complex(&b)[3], const Complex(&c)[3]) {
        return a[0] * (b[1] * c[2] - b[2] * c[1]) - b[0] * (a[1] * c[2] - a[2] * c[1]) + c[0] * (a[1] * b[2] - a[2] * b[1]);
    };
    const Complex ones[3] = {1.0, 1.0, 1.0}, both[3] = {g[0] * m[0], g[1] * m[1], g[2] * m[2]}, less[3] = {-g[0], -g[1], -g[2]};
    const Complex all = determinant(ones, both, less);
    if (!(std::abs(all) > 1e-9))
        return std::nullopt;
    ErrorTerms terms;
    terms.directivity = determinant(m, both, less) / all;
    terms.match = determinant(ones, m, less) / all;
    terms.tracking = terms.directivity * terms.match - determinant(ones, both, m) / all;
    return terms;
}

/// Phase of the tracking at 0 Hz by a straight line through it, where the range is wide enough to tell; nothing else.
std::optional<double> phaseAtNothing(const std::vector<double>& frequency, const std::vector<ErrorTerms>& terms)
{
    const std::size_t n = frequency.size();
    if (n < 5)
        return std::nullopt;
    std::vector<double> phase(n);
    for (std::size_t i = 0; i < n; ++i) {
        phase[i] = std::arg(terms[i].tracking);
        if (i > 0)
            phase[i] -= 2.0 * pi * std::round((phase[i] - phase[i - 1]) / (2.0 * pi));
    }
    double f = 0.0, p = 0.0;
    for (std::size_t i = 0; i < n; ++i)
        f += frequency[i] / double(n), p += phase[i] / double(n);
    double ff = 0.0, fp = 0.0, rest = 0.0;
    for (std::size_t i = 0; i < n; ++i)
        ff += std::pow(frequency[i] - f, 2), fp += (frequency[i] - f) * (phase[i] - p);
    const double slope = fp / ff;
    for (std::size_t i = 0; i < n; ++i)
        rest += std::pow(phase[i] - p - slope * (frequency[i] - f), 2);
    const double sure = f * std::sqrt(rest / double(n - 2) / ff);
    if (3.0 * sure > sureOfPhase)
        return std::nullopt;
    return std::remainder(p - slope * f, 2.0 * pi);
}

CalibrationSign moreComesBack()
{
    return {CalibrationDoubt::MoreComesBack,
            coreText("core",
                     "More comes back than was sent: the calibration is not this cable's or range's, or a standard was the wrong one. "
                     "Calibrate again.")};
}

} // namespace

Complex reflectionOf(Standard which, const Standards& standards, double frequency)
{
    const Complex j{0.0, 1.0};
    const double w = 2.0 * pi * frequency;
    switch (which) {
    case Standard::Open: {
        const Complex y = j * w * standards.openCapacitance * 50.0;
        return (1.0 - y) / (1.0 + y);
    }
    case Standard::Short: {
        const Complex z = j * w * standards.shortInductance / 50.0;
        return (z - 1.0) / (z + 1.0);
    }
    case Standard::Load: break;
    }
    return (standards.load - 50.0) / (standards.load + 50.0);
}

Result<Calibration> Calibration::from(const RawSweep& open, const RawSweep& shorted, const RawSweep& load, const Standards& standards)
{
    if (open.frequency.size() < 2 || open.reflection.size() != open.frequency.size())
        return Fault{"", coreText("core", "measure open, short and load first")};
    for (const RawSweep* other : {&shorted, &load})
        if (other->frequency != open.frequency || other->reflection.size() != open.frequency.size())
            return Fault{"", coreText("core", "open, short and load were not measured over the same range; do all three again")};
    Calibration out;
    out.m_frequency = open.frequency;
    for (std::size_t i = 0; i < open.frequency.size(); ++i) {
        const double f = open.frequency[i];
        const Complex g[3] = {reflectionOf(Standard::Open, standards, f), reflectionOf(Standard::Short, standards, f),
                              reflectionOf(Standard::Load, standards, f)};
        const Complex m[3] = {open.reflection[i], shorted.reflection[i], load.reflection[i]};
        const auto terms = termsAt(g, m);
        if (!terms || !std::isfinite(std::abs(terms->tracking) + std::abs(terms->match)))
            return Fault{"", coreText("core", "two of the standards read the same: was one left on, or measured twice?")};
        out.m_terms.push_back(*terms);
    }
    out.look(open, shorted, load);
    return out;
}

void Calibration::look(const RawSweep& open, const RawSweep& shorted, const RawSweep& load)
{
    std::vector<double> apart[3], arms, bend, reflect;
    for (std::size_t i = 0; i < m_frequency.size(); ++i) {
        const Complex o = open.reflection[i], s = shorted.reflection[i], l = load.reflection[i];
        apart[0].push_back(std::abs(o - s));
        apart[1].push_back(std::abs(o - l));
        apart[2].push_back(std::abs(s - l));
        const double a = std::abs(o - l), b = std::abs(s - l);
        arms.push_back(std::max(a, b) / std::max(1e-9, std::min(a, b)));
        bend.push_back(pi - std::abs(std::arg((o - l) / (s - l + 1e-30))));
        reflect.push_back(std::abs(l) / std::max(1e-9, 0.5 * std::abs(o - s)));
    }
    const auto say = [&](CalibrationDoubt doubt, Text words) { m_signs.push_back({doubt, std::move(words)}); };
    if (std::min({median(apart[0]), median(apart[1]), median(apart[2])}) < alike) {
        say(CalibrationDoubt::SameTwice,
            coreText("core", "Two standards read nearly alike: one was left on, or is not screwed home. Do all three again."));
        return;
    }
    if (median(reflect) > reflecting)
        say(CalibrationDoubt::LoadReflects,
            coreText("core", "The load reflects: it is not 50 ohm, or another standard hung there. Look at it with an ohmmeter."));
    else if (median(arms) > unequal || median(bend) > bent)
        say(CalibrationDoubt::OpenTouched,
            coreText("core", "Open and short are not opposite: a hand on the open, a plug half in, or a piece of cable between. Do both "
                             "again, hands off."));
    if (const auto phase = phaseAtNothing(m_frequency, m_terms); phase && std::abs(*phase) > 0.5 * pi)
        say(CalibrationDoubt::Swapped, coreText("core", "Open and short seem to be exchanged. Do both again, in their order."));
}

Result<MeasuredSweep> Calibration::correct(const RawSweep& raw, double reference) const
{
    MeasuredSweep sweep;
    sweep.reference = reference;
    const double room = roundOff * to();
    for (std::size_t i = 0; i < raw.frequency.size() && i < raw.reflection.size(); ++i) {
        const double f = raw.frequency[i];
        if (f < from() - room || f > to() + room)
            return Fault{"",
                         {coreText("core", "calibrated from %1 to %2 only, and the sweep goes beyond it: calibrate again for this range"),
                          Measure{from(), units::Quantity::Frequency}, Measure{to(), units::Quantity::Frequency}}};
        const std::size_t next =
            std::clamp<std::size_t>(std::size_t(std::lower_bound(m_frequency.begin(), m_frequency.end(), f - room) - m_frequency.begin()),
                                    1, m_frequency.size() - 1);
        const double part = std::clamp((f - m_frequency[next - 1]) / (m_frequency[next] - m_frequency[next - 1]), 0.0, 1.0);
        const ErrorTerms &a = m_terms[next - 1], &b = m_terms[next];
        const ErrorTerms here{a.directivity + part * (b.directivity - a.directivity), a.match + part * (b.match - a.match),
                              a.tracking + part * (b.tracking - a.tracking)};
        const Complex g = here.actual(raw.reflection[i]);
        sweep.points.push_back({f, reference * (1.0 + g) / (1.0 - g + Complex(1e-15)), measuredSwrOf(g)});
    }
    return sweep;
}

std::vector<CalibrationSign> signsOf(const MeasuredSweep& corrected)
{
    for (const MeasuredPoint& p : corrected.points)
        if (p.impedance && std::abs((*p.impedance - corrected.reference) / (*p.impedance + corrected.reference)) > tooMuch)
            return {moreComesBack()};
    return {};
}

} // namespace vetchling

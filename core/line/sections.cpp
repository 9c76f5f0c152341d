#include "core/line/sections.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

double wrapped(double angle)
{
    const double turned = angle - pi * std::floor(angle / pi);
    return pi - turned < 1e-12 ? 0.0 : turned;
}

/// m of a line with so many radians.
double lengthOf(double angle, double frequency, double velocityFactor)
{
    return angle / (2.0 * pi) * velocityFactor * wavelength(frequency);
}

/// Against one.
Complex reflectionOf(Complex z) { return (z - 1.0) / (z + 1.0); }

Fault cannot(Text message) { return {"", std::move(message)}; }

Result<std::vector<SectionSolution>> quarterWave(const SectionQuestion& q)
{
    if (std::abs(q.load.imag()) > 1e-6 * std::abs(q.load))
        return cannot(coreText("core", "a quarter wave matches a resistance only; take away the reactance first, or use a series section"));
    return std::vector{SectionSolution{std::sqrt(q.source * q.load.real()), lengthOf(0.5 * pi, q.frequency, q.velocityFactor), 0.0}};
}

Result<std::vector<SectionSolution>> twoSections(const SectionQuestion& q)
{
    if (std::abs(q.load.imag()) > 1e-6 * std::abs(q.load))
        return cannot(coreText("core", "two sections match a resistance only; take away the reactance first, or use a series section"));
    const double b = q.load.real() / q.source;
    const double angle = std::atan(1.0 / std::sqrt(b + 1.0 + 1.0 / b));
    return std::vector{
        SectionSolution{q.load.real(), lengthOf(angle, q.frequency, q.velocityFactor), lengthOf(angle, q.frequency, q.velocityFactor2)}};
}

/// With the impedances over the source's: r + jx the load, n the section. The load's piece turns its reflection to where the section,
/// whose own circle goes through the middle, can take it.
Result<std::vector<SectionSolution>> seriesSection(const SectionQuestion& q)
{
    const double n = q.section / q.source;
    const Complex gamma = reflectionOf(q.load / q.source);
    const double size = std::abs(gamma);
    if (size < 1e-9)
        return cannot(coreText("core", "the load is matched already"));
    // what the section of n shows of 1: |g| from 0 to |n^2 - 1|/(n^2 + 1); seen from the load's side it must be the load's conjugate
    const double most = std::abs(n * n - 1.0) / (n * n + 1.0);
    if (!(n > 0.0) || size > most)
        return cannot({coreText("core", "a section of %1 cannot reach this load; take one that differs more from the line"),
                       Measure{q.section, units::Quantity::Resistance}});
    // Z(theta) = n (1 + j n t)/(n + j t), t = tan theta; |g|^2 = (n^2-1)^2 t^2 / (4 n^2 + (n^2+1)^2 t^2)
    const double k = n * n - 1.0, s = n * n + 1.0;
    const double t = 2.0 * n * size / std::sqrt(std::max(k * k - size * size * s * s, 1e-300));
    std::vector<SectionSolution> all;
    for (const double theta : {std::atan(t), pi - std::atan(t)}) {
        const Complex tangent{0.0, std::tan(theta)};
        const Complex towardsSource =
            n * (1.0 + n * tangent) / (n + tangent);                   // looking back from the junction into the section, source behind
        const Complex needed = std::conj(reflectionOf(towardsSource)); // of the load through its piece
        const double turn = std::arg(gamma / needed);                  // the piece turns by -2 l2
        all.push_back({q.section, lengthOf(wrapped(theta), q.frequency, q.velocityFactor),
                       lengthOf(wrapped(0.5 * turn), q.frequency, q.velocityFactor2)});
    }
    return all;
}

Result<std::vector<SectionSolution>> stub(const SectionQuestion& q)
{
    const double x = q.load.imag() / q.section;
    if (!(std::abs(q.load.imag()) > 0.0))
        return cannot(coreText("core", "give the reactance that the stub shall show, such as 0,-80"));
    const double angle = q.method == SectionMethod::ShortedStub ? std::atan(x) : std::atan(-1.0 / x);
    return std::vector{SectionSolution{q.section, lengthOf(wrapped(angle), q.frequency, q.velocityFactor), 0.0}};
}

} // namespace

Result<std::vector<SectionSolution>> matchSections(const SectionQuestion& q)
{
    const bool isStub = q.method == SectionMethod::ShortedStub || q.method == SectionMethod::OpenStub;
    if (!(q.frequency > 0.0))
        return Fault{"frequency", coreText("core", "give a frequency above 0")};
    if (!(q.velocityFactor > 0.0 && q.velocityFactor <= 1.0 && q.velocityFactor2 > 0.0 && q.velocityFactor2 <= 1.0))
        return Fault{"velocity_factor", coreText("core", "a velocity factor lies above 0 and not above 1")};
    if (!isStub && !(q.source > 0.0))
        return Fault{"source", coreText("core", "give the line's impedance, above 0 ohm")};
    if (!isStub && !(q.load.real() > 0.0))
        return Fault{"load", coreText("core", "the load needs a resistance above 0 ohm")};
    if ((isStub || q.method == SectionMethod::SeriesSection) && !(q.section > 0.0))
        return Fault{"section", coreText("core", "give the section's impedance, above 0 ohm")};
    switch (q.method) {
    case SectionMethod::QuarterWave: return quarterWave(q);
    case SectionMethod::TwoSections: return twoSections(q);
    case SectionMethod::SeriesSection: return seriesSection(q);
    case SectionMethod::ShortedStub:
    case SectionMethod::OpenStub: break;
    }
    return stub(q);
}

} // namespace vetchling

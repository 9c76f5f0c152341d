#include "core/em/sommerfeld.h"

#include "core/em/sommerfeld_path.h"

#include <algorithm>
#include <array>
#include <initializer_list>

namespace vetchling::em {
namespace {

constexpr double fadedPhase = 34.0;  // exp(-34) is nothing beside rounding
constexpr double hangingFrom = 12.0; // k0 r from which the path hangs on the branch cuts
constexpr double tiltedFrom = 50.0;  // |eps| from which the cuts are tilted; n then lies right of both

struct Spectrum {
    Complex permittivity, image;

    /// The four integrands without Bessel functions and without the exponential.
    HalfSpaceIntegrals at(Complex x, Complex nu0) const { return at(x, nu0, principalRoot(x * x - permittivity)); }

    HalfSpaceIntegrals at(Complex x, Complex nu0, Complex nu1) const
    {
        const Complex sum = nu0 + nu1; // Rv and Rh multiplied out, so that nothing cancels at large x
        const Complex tm = 2.0 * permittivity * image / (sum * (permittivity * nu0 + nu1));
        const Complex te = (permittivity - 1.0) / (sum * sum) + image;
        const Complex a = nu0 * tm, b = te / nu0;
        return {(a + b) * x, (a - b) * x, 2.0 * x * x * tm, 2.0 * x * x * x * tm / nu0};
    }
};

HalfSpaceIntegrals weighted(const HalfSpaceIntegrals& f, const BesselPair& b, Complex argument, Complex weight)
{
    const Complex order2 = std::norm(argument) > 0.0 ? 2.0 * b.order1 / argument - b.order0 : Complex{};
    const Complex w0 = weight * b.order0;
    return {f.s * w0, f.d * (weight * order2), f.x * (weight * b.order1), f.z * w0};
}

/// The integrals by the general path.
template <class Precision, class Run> HalfSpaceIntegrals alongPath(const Spectrum& spectrum, double r, double h, const Run& run)
{
    HalfSpaceIntegrals sum{};
    SommerfeldPath path(
        spectrum.permittivity, r, h, true,
        [&](Complex x, Complex nu0, const BesselPair& bessel, Complex argument, Complex weight) {
            sum += weighted(spectrum.at(x, nu0), bessel, argument, weight * std::exp(-nu0 * h));
        },
        Precision{});
    run(path);
    return sum;
}

/// Far away the path is bent down, where H(2) dies out, and hangs on the cuts below the branch points 1 and n: a few dozen
/// nodes at any distance. Along a cut x = branch + d s^2, and the vertical wavenumber that branches there is s times a
/// smooth root, so that both sides of the cut are one integral over s. The Zenneck pole lies on the sheet that the bent
/// path does not sweep (Banos 1966, ch. 2); below good conductors it is close to a vertical cut, which is then tilted.
class BranchCuts {
public:
    BranchCuts(const Spectrum& spectrum, double r, double h)
        : m_spectrum(spectrum), m_refraction(std::sqrt(spectrum.permittivity)), m_r(r), m_h(h), m_end(std::sqrt(fadedPhase / r)),
          m_down(std::polar(1.0, std::abs(spectrum.permittivity) > tiltedFrom ? -1.22 : -0.5 * pi))
    {
    }

    HalfSpaceIntegrals integrate()
    {
        const double grown = 0.5 * m_h / m_r; // left of the cut exp(-nu0 h) grows and shifts the peak
        alongAir(-m_end - grown, m_end, m_down);
        alongSoil();
        return m_sum;
    }

    HalfSpaceIntegrals integrateEvanescent()
    {
        alongAir(0.0, m_end, m_down);
        alongSoil();
        alongAir(0.0, m_end, imaginaryUnit);
        return m_sum;
    }

private:
    /// x = 1 + direction s^2. Below the axis H(2) falls off, above it H(1).
    void alongAir(double from, double to, Complex direction)
    {
        const Complex eps = m_spectrum.permittivity, pole = std::sqrt(eps / (eps + 1.0));
        panels(from, to, {std::sqrt((pole - 1.0) / direction), std::sqrt((m_refraction - 1.0) / direction)}, [&](double s, double weight) {
            const Complex step = direction * (s * s), x = 1.0 + step, nu0 = s * std::sqrt(direction * (2.0 + step));
            const Complex nu1 = imaginaryUnit * std::sqrt(eps - x * x);
            add(x, nu0, nu1, 2.0 * direction * s * weight);
        });
    }

    void alongSoil()
    {
        if (-m_refraction.imag() * m_r + std::sqrt(m_refraction * m_refraction - 1.0).real() * m_h > fadedPhase)
            return;
        panels(-m_end, m_end, {std::sqrt((1.0 - m_refraction) / m_down)}, [&](double s, double weight) {
            const Complex step = m_down * (s * s), x = m_refraction + step;
            const Complex nu1 = s * std::sqrt(m_down * (2.0 * m_refraction + step));
            const Complex nu0 = Complex{0.0, -1.0} * std::sqrt(1.0 - x * x);
            add(x, nu0, nu1, 2.0 * m_down * s * weight);
        });
    }

    void add(Complex x, Complex nu0, Complex nu1, Complex weight)
    {
        const Complex argument = x * m_r;
        const BesselPair hankel = argument.imag() > 0.0 ? hankelFirst(argument) : hankelSecond(argument);
        m_sum += weighted(m_spectrum.at(x, nu0, nu1), hankel, argument, 0.5 * weight * std::exp(-nu0 * m_h));
    }

    /// Panels short against the Gaussian exp(-r s^2), the phase of height and the distance to either root of each singularity.
    template <class Node> void panels(double from, double to, std::initializer_list<Complex> singular, const Node& node)
    {
        const GaussRule& rule = gaussRule(panelNodes);
        const double longest = std::min(1.5 / std::sqrt(m_r), 0.5 * panelPhase / std::max(m_h, 1e-12));
        for (double s = from; s < to;) {
            double step = longest;
            for (Complex p : singular)
                step = std::min(step, std::max(0.8 * std::min(std::abs(s - p), std::abs(s + p)), 1e-4 * longest));
            step = std::min(step, to - s);
            for (int i = 0; i < panelNodes; ++i)
                node(s + 0.5 * (1.0 + rule.node[i]) * step, 0.5 * rule.weight[i] * step);
            s += step;
        }
    }

    const Spectrum& m_spectrum;
    Complex m_refraction;
    double m_r, m_h, m_end;
    Complex m_down; ///< direction of the cuts
    HalfSpaceIntegrals m_sum{};
};

} // namespace

Complex imageStrength(Complex permittivity) { return (permittivity - 1.0) / (permittivity + 1.0); }

namespace {

template <class Precision> HalfSpaceIntegrals remainderTo(Complex permittivity, double r, double h)
{
    const Spectrum spectrum{permittivity, imageStrength(permittivity)};
    if (r > hangingFrom && h * h < 16.0 * r) // steeper, and the grown exponential would lose digits
        return BranchCuts(spectrum, r, h).integrate();
    return alongPath<Precision>(spectrum, r, h, [](auto& path) { path.integrate(); });
}

} // namespace

HalfSpaceIntegrals remainderIntegrals(Complex permittivity, double r, double h) { return remainderTo<FullPrecision>(permittivity, r, h); }

HalfSpaceIntegrals tabulatedIntegrals(Complex permittivity, double r, double h) { return remainderTo<TablePrecision>(permittivity, r, h); }

HalfSpaceIntegrals evanescentIntegrals(Complex permittivity, double r, double h)
{
    const Spectrum spectrum{permittivity, imageStrength(permittivity)};
    if (r > hangingFrom && h < r)
        return BranchCuts(spectrum, r, h).integrateEvanescent();
    return alongPath<FullPrecision>(spectrum, r, h, [](auto& path) { path.integrateEvanescent(); });
}

} // namespace vetchling::em

#include "core/em/sommerfeld.h"

#include "core/em/bessel.h"
#include "core/em/gauss.h"

#include <algorithm>
#include <array>
#include <initializer_list>

namespace vetchling::em {
namespace {

constexpr int panelNodes = 10;     // Gauss nodes a panel; a singularity one panel length away then costs 1e-9
constexpr double panelPhase = 4.0; // largest phase change over a panel, rad
constexpr double shortestPanel = 1e-6;
constexpr double tailDecay = 27.0;    // the tail ends where exp(-t) is 2e-12
constexpr double fadedPhase = 34.0;   // exp(-34) is nothing beside rounding
constexpr double hangingFrom = 12.0;  // k0 r from which the path hangs on the branch cuts
constexpr double tiltedFrom = 50.0;   // |eps| from which the cuts are tilted; n then lies right of both
constexpr double separationRatio = 2; // above h = 2 r the plain exponential decays fast enough

struct Spectrum {
    Complex permittivity, image;

    /// The four integrands without Bessel functions and without the exponential.
    HalfSpaceIntegrals at(Complex x, Complex nu0) const { return at(x, nu0, std::sqrt(x * x - permittivity)); }

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

class Contour {
public:
    Contour(const Spectrum& spectrum, double r, double h) : m_spectrum(spectrum), m_r(r), m_h(h)
    {
        const double refraction = std::sqrt(spectrum.permittivity).real();
        m_singular = {Complex{1.0, 0.0}, std::sqrt(spectrum.permittivity / (spectrum.permittivity + 1.0)),
                      std::sqrt(spectrum.permittivity)};
        m_height = std::min(1.0, 2.0 / std::max(r, 1e-9));
        m_separated = h < separationRatio * r;
        m_end = m_separated ? separatedEnd(refraction) : std::max(1.25 * refraction + 1.0, 2.0);
        const double faded = 2.0 + 1.2 * tailDecay / std::max(h, 1e-12);
        m_complete = !m_separated && faded < 0.8 * refraction; // all is gone before the branch point of a good conductor
        if (m_complete)
            m_end = faded;
    }

    HalfSpaceIntegrals integrate()
    {
        const double foot = std::min(0.5, m_height);
        const Complex rise{foot, m_height}, fall{m_end - foot, m_height};
        line(0.0, rise);
        line(rise, fall);
        line(fall, m_end);
        tail();
        return m_sum;
    }

    HalfSpaceIntegrals integrateEvanescent()
    {
        evanescentLine(std::sqrt(m_end * m_end - 1.0));
        tail();
        return m_sum;
    }

private:
    /// Where J may be split into H(1) and H(2): past all branch points, or, for soil that conducts well, where the
    /// downward path ends before the cut of nu1, the hyperbola Re x Im x = Im(eps)/2.
    double separatedEnd(double refraction) const
    {
        const double early = std::max(2.0, 2.0 / m_r);
        const bool clearOfCut = early * tailDecay / m_r < 0.4 * std::abs(m_spectrum.permittivity.imag());
        return clearOfCut ? early : std::max(early, 1.25 * refraction + 0.75);
    }

    double panelLength(Complex x) const
    {
        double length = panelPhase / std::max(m_r + m_h, 1e-12);
        for (Complex s : m_singular)
            length = std::min(length, std::max(0.8 * std::abs(x - s), shortestPanel));
        return length;
    }

    void tail()
    {
        if (m_complete)
            return;
        if (m_separated)
            hankelTails();
        else
            line(m_end, m_end + tailDecay / m_h);
    }

    /// From x = 1 along the real axis with t = nu0 as variable, in which the integrand is smooth at the start.
    void evanescentLine(double end)
    {
        const Complex eps = m_spectrum.permittivity;
        const std::array<Complex, 2> singular{std::sqrt(eps - 1.0), Complex{0.0, -1.0} / std::sqrt(eps + 1.0)};
        const GaussRule& rule = gaussRule(panelNodes);
        if (const double faded = 1.2 * tailDecay / std::max(m_h, 1e-12); faded < end) { // nothing is left beyond
            end = faded;
            m_complete = true;
        }
        for (double t = 0.0; t < end;) {
            double step = panelPhase / std::max(m_r + m_h, 1e-12);
            for (Complex s : singular)
                step = std::min(step, std::max(0.8 * std::abs(t - s), 1e-4));
            step = std::min(std::min(step, std::max(0.5, t)), end - t);
            for (int i = 0; i < panelNodes; ++i) {
                const double nu0 = t + 0.5 * (1.0 + rule.node[i]) * step, x = std::sqrt(1.0 + nu0 * nu0);
                const double weight = 0.5 * rule.weight[i] * step * nu0 / x * std::exp(-nu0 * m_h); // dx = t dt/x
                m_sum += weighted(m_spectrum.at(x, nu0), besselJ(x * m_r), x * m_r, weight);
            }
            t += step;
        }
    }

    void line(Complex from, Complex to)
    {
        const double total = std::abs(to - from);
        const Complex direction = (to - from) / total;
        double done = 0.0;
        while (done < total) {
            double step = panelLength(from + done * direction);
            if (done + 1.3 * step > total)
                step = total - done;
            panel(from + done * direction, step * direction);
            done += step;
        }
    }

    void panel(Complex start, Complex span)
    {
        const GaussRule& rule = gaussRule(panelNodes);
        for (int i = 0; i < panelNodes; ++i) {
            const Complex x = start + 0.5 * (1.0 + rule.node[i]) * span;
            const Complex nu0 = std::sqrt(x * x - 1.0);
            const Complex argument = x * m_r;
            const Complex weight = 0.5 * rule.weight[i] * span * std::exp(-nu0 * m_h);
            m_sum += weighted(m_spectrum.at(x, nu0), besselJ(argument), argument, weight);
        }
    }

    void hankelTails()
    {
        static constexpr std::array<double, 7> edges{0.0, 0.8, 2.2, 4.5, 8.5, 15.0, tailDecay};
        const GaussRule& rule = gaussRule(panelNodes);
        for (std::size_t p = 1; p < edges.size(); ++p)
            for (int i = 0; i < panelNodes; ++i) {
                const double half = 0.5 * (edges[p] - edges[p - 1]);
                const double t = edges[p - 1] + half * (1.0 + rule.node[i]);
                tailNode(t, half * rule.weight[i]);
            }
    }

    void tailNode(double t, double weight)
    {
        const Complex up{m_end, t / m_r}, down{m_end, -t / m_r};
        const Complex nuUp = std::sqrt(up * up - 1.0), nuDown = std::sqrt(down * down - 1.0);
        const Complex step = 0.5 * weight / m_r * imaginaryUnit;
        const BesselPair first = hankelFirst(up * m_r);
        const BesselPair second{std::conj(first.order0), std::conj(first.order1)};
        m_sum += weighted(m_spectrum.at(up, nuUp), first, up * m_r, step * std::exp(-nuUp * m_h));
        m_sum += weighted(m_spectrum.at(down, nuDown), second, down * m_r, -step * std::exp(-nuDown * m_h));
    }

    const Spectrum& m_spectrum;
    double m_r, m_h, m_height, m_end;
    bool m_separated, m_complete;
    std::array<Complex, 3> m_singular;
    HalfSpaceIntegrals m_sum{};
};

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

HalfSpaceIntegrals remainderIntegrals(Complex permittivity, double r, double h)
{
    const Spectrum spectrum{permittivity, imageStrength(permittivity)};
    if (r > hangingFrom && h * h < 16.0 * r) // steeper, and the grown exponential would lose digits
        return BranchCuts(spectrum, r, h).integrate();
    return Contour(spectrum, r, h).integrate();
}

HalfSpaceIntegrals evanescentIntegrals(Complex permittivity, double r, double h)
{
    const Spectrum spectrum{permittivity, imageStrength(permittivity)};
    if (r > hangingFrom && h < r)
        return BranchCuts(spectrum, r, h).integrateEvanescent();
    return Contour(spectrum, r, h).integrateEvanescent();
}

} // namespace vetchling::em

#include "core/em/hankel_row.h"

#include "core/em/bessel.h"
#include "core/em/cos_sin.h"

#include <array>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr double seriesBelow = 3.0;
constexpr int chebyshevTerms = 18;
using Coefficients = std::array<double, chebyshevTerms>;

/// H exp(jx) sqrt(x) over u = 2 (3/x) - 1: real and imaginary parts of both orders.
struct Amplitudes {
    Coefficients re0{}, im0{}, re1{}, im1{};
    Amplitudes()
    {
        for (int i = 0; i < chebyshevTerms; ++i) {
            const double angle = pi * (i + 0.5) / chebyshevTerms, u = std::cos(angle), x = seriesBelow / (0.5 * (u + 1.0));
            const BesselPair h = hankelSecond(x);
            const Complex front = std::sqrt(x) * std::exp(Complex{0.0, x});
            for (int k = 0; k < chebyshevTerms; ++k) {
                const double weight = (k == 0 ? 1.0 : 2.0) * std::cos(k * angle) / chebyshevTerms;
                re0[k] += weight * (front * h.order0).real(), im0[k] += weight * (front * h.order0).imag();
                re1[k] += weight * (front * h.order1).real(), im1[k] += weight * (front * h.order1).imag();
            }
        }
    }
};

inline double clenshaw(const Coefficients& c, double u)
{
    double next = 0.0, after = 0.0;
    for (int k = chebyshevTerms - 1; k > 0; --k) {
        const double here = 2.0 * u * next - after + c[k];
        after = next;
        next = here;
    }
    return u * next - after + c[0];
}

VETCHLING_CLONES void far(const Amplitudes& a, const double* __restrict x, int count, const double* __restrict cosine,
                          const double* __restrict sine, double* __restrict re0, double* __restrict im0, double* __restrict re1,
                          double* __restrict im1)
{
    for (int i = 0; i < count; ++i) {
        const double inverse = 1.0 / x[i], u = 2.0 * seriesBelow * inverse - 1.0, root = std::sqrt(inverse);
        const double p0 = clenshaw(a.re0, u) * root, q0 = clenshaw(a.im0, u) * root;
        const double p1 = clenshaw(a.re1, u) * root, q1 = clenshaw(a.im1, u) * root;
        re0[i] = p0 * cosine[i] + q0 * sine[i];
        im0[i] = q0 * cosine[i] - p0 * sine[i];
        re1[i] = p1 * cosine[i] + q1 * sine[i];
        im1[i] = q1 * cosine[i] - p1 * sine[i];
    }
}

/// J and Y by their series, for x up to 3.
struct Near {
    double j0 = 0.0, j1 = 0.0, y0 = 0.0, y1 = 0.0;
    explicit Near(double x)
    {
        constexpr double eulerGamma = 0.57721566490153286;
        const double q = -0.25 * x * x, log = std::log(0.5 * x) + eulerGamma;
        double term0 = 1.0, term1 = 0.5 * x, harmonic = 0.0, sumY0 = 0.0, sumY1 = 0.5 * x;
        j0 = 1.0, j1 = term1;
        for (int k = 1; k < 16; ++k) {
            term0 *= q / (double(k) * k);
            term1 *= q / (double(k) * (k + 1));
            harmonic += 1.0 / k;
            j0 += term0, j1 += term1;
            sumY0 -= harmonic * term0;
            sumY1 += (2.0 * harmonic + 1.0 / (k + 1)) * term1;
        }
        y0 = 2.0 / pi * (log * j0 + sumY0);
        y1 = 2.0 / pi * (log * j1 - 1.0 / x) - sumY1 / pi;
    }
};

} // namespace

void HankelRow::fill(const std::vector<double>& x)
{
    static const Amplitudes amplitudes;
    const std::size_t count = x.size();
    for (std::vector<double>* v : {&re0, &im0, &re1, &im1, &m_cosine, &m_sine})
        v->resize(count);
    cosSin(x.data(), int(count), m_cosine.data(), m_sine.data());
    far(amplitudes, x.data(), int(count), m_cosine.data(), m_sine.data(), re0.data(), im0.data(), re1.data(), im1.data());
    for (std::size_t i = 0; i < count; ++i)
        if (x[i] < seriesBelow) {
            const Near near(x[i]);
            re0[i] = near.j0, im0[i] = -near.y0, re1[i] = near.j1, im1[i] = -near.y1;
        }
}

} // namespace vetchling::em

#include "core/em/hankel_row.h"

#include "core/em/bessel.h"
#include "core/em/cos_sin.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace vetchling::em {
namespace {

constexpr double seriesBelow = 3.0;

/// H exp(jx) sqrt(x) of x above `from` in powers of u = 2 (from/x) - 1: real and imaginary parts of both orders.
template <int Terms> struct Amplitudes {
    double from;
    using Coefficients = std::array<double, Terms>;
    Coefficients re0{}, im0{}, re1{}, im1{};

    explicit Amplitudes(double from) : from(from)
    {
        for (int i = 0; i < Terms; ++i) {
            const double angle = pi * (i + 0.5) / Terms, u = std::cos(angle), x = from / (0.5 * (u + 1.0));
            const BesselPair h = hankelSecond(x);
            const Complex front = std::sqrt(x) * std::exp(Complex{0.0, x});
            for (int k = 0; k < Terms; ++k) { // Chebyshev's
                const double weight = (k == 0 ? 1.0 : 2.0) * std::cos(k * angle) / Terms;
                re0[k] += weight * (front * h.order0).real(), im0[k] += weight * (front * h.order0).imag();
                re1[k] += weight * (front * h.order1).real(), im1[k] += weight * (front * h.order1).imag();
            }
        }
        for (Coefficients* c : {&re0, &im0, &re1, &im1})
            *c = powers(*c);
    }

    /// Of a Chebyshev series; harmless, as its terms fall fast.
    static Coefficients powers(const Coefficients& c)
    {
        Coefficients out{}, before{}, here{};
        before[0] = 1.0, here[1] = 1.0;
        for (int k = 0; k < Terms; ++k) {
            for (int i = 0; i < Terms; ++i)
                out[i] += c[k] * before[i];
            Coefficients next{};
            for (int i = 0; i < Terms; ++i)
                next[i] = (i > 0 ? 2.0 * here[i - 1] : 0.0) - before[i];
            before = here, here = next;
        }
        return out;
    }
};

/// Without a loop, so that the compiler takes several arguments at once.
template <int Terms, std::size_t... K> inline double horner(const std::array<double, Terms>& c, double u, std::index_sequence<K...>)
{
    double sum = c[Terms - 1];
    ((sum = sum * u + c[Terms - 2 - K]), ...);
    return sum;
}

struct RowOut {
    const double *x, *cosine, *sine;
    double *re0, *im0, *re1, *im1;
};

template <int Terms> inline __attribute__((always_inline)) void farOf(const Amplitudes<Terms>& a, int count, const RowOut& row)
{
    constexpr auto all = std::make_index_sequence<Terms - 1>();
    const double* __restrict x = row.x, * __restrict cosine = row.cosine, * __restrict sine = row.sine;
    double* __restrict re0 = row.re0, * __restrict im0 = row.im0, * __restrict re1 = row.re1, * __restrict im1 = row.im1;
    for (int i = 0; i < count; ++i) {
        const double inverse = 1.0 / x[i], u = 2.0 * a.from * inverse - 1.0, root = std::sqrt(inverse);
        const double p0 = horner<Terms>(a.re0, u, all) * root, q0 = horner<Terms>(a.im0, u, all) * root;
        const double p1 = horner<Terms>(a.re1, u, all) * root, q1 = horner<Terms>(a.im1, u, all) * root;
        re0[i] = p0 * cosine[i] + q0 * sine[i];
        im0[i] = q0 * cosine[i] - p0 * sine[i];
        re1[i] = p1 * cosine[i] + q1 * sine[i];
        im1[i] = q1 * cosine[i] - p1 * sine[i];
    }
}

constexpr int someTerms = 18, fewTerms = 8;
constexpr double fewAbove = 20.0;

VETCHLING_CLONES void far(const Amplitudes<someTerms>& a, int count, const RowOut& row) { farOf(a, count, row); }
VETCHLING_CLONES void veryFar(const Amplitudes<fewTerms>& a, int count, const RowOut& row) { farOf(a, count, row); }

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
    static const Amplitudes<someTerms> some(seriesBelow);
    static const Amplitudes<fewTerms> few(fewAbove);
    constexpr std::size_t atOnce = 16; // neighbours are about as far off
    const std::size_t count = x.size();
    for (std::vector<double>* v : {&re0, &im0, &re1, &im1, &m_cosine, &m_sine})
        v->resize(count);
    cosSin(x.data(), int(count), m_cosine.data(), m_sine.data());
    for (std::size_t from = 0, to = 0; from < count; from = to) {
        const auto allFar = [&](std::size_t begin) {
            return *std::min_element(x.begin() + long(begin), x.begin() + long(std::min(count, begin + atOnce))) > fewAbove;
        };
        const bool isAllFar = allFar(from);
        for (to = std::min(count, from + atOnce); to < count && allFar(to) == isAllFar;)
            to = std::min(count, to + atOnce);
        const RowOut row{x.data() + from,   m_cosine.data() + from, m_sine.data() + from, re0.data() + from,
                         im0.data() + from, re1.data() + from,      im1.data() + from};
        if (isAllFar)
            veryFar(few, int(to - from), row);
        else
            far(some, int(to - from), row), fillNear(x, from, to);
    }
}

void HankelRow::fillNear(const std::vector<double>& x, std::size_t from, std::size_t to)
{
    for (std::size_t i = from; i < to; ++i)
        if (x[i] < seriesBelow) {
            const Near near(x[i]);
            re0[i] = near.j0, im0[i] = -near.y0, re1[i] = near.j1, im1[i] = -near.y1;
        }
}

} // namespace vetchling::em

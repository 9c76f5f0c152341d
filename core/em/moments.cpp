#include "core/em/moments.h"

#include "core/em/cos_sin.h"
#include "core/em/gauss.h"
#include "core/em/near_pair.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr int terms = largestDegree + 1;
constexpr int leastPowers = 3, mostPowers = 100; // 1/R and R in closed form come first

/// How many powers of an expansion over distances up to `reach` leave an error of 1e-8 in exp(-jkR).
int powersFor(double waveNumber, double reach)
{
    const double x = waveNumber * reach;
    double term = 1.0;
    int n = 0;
    while (n < leastPowers || (term > 1e-8 && n < mostPowers))
        term *= x / ++n;
    return n;
}

/// What decides how a pair is integrated.
struct Separation {
    double closest;
    double radius2; ///< to be added to the squared distance of the axes
    bool near;

    Separation(const Element& observer, const Element& source)
        : closest(segmentDistance(observer.start, observer.end, source.start, source.end))
    {
        const double thicker = std::max(observer.radius, source.radius);
        const Vec3 away = observer.centre() - source.centre();
        const double along = dot(away, source.tangent), offAxis2 = std::max(0.0, dot(away, away) - along * along);
        radius2 = meanSquare * radiusShare(offAxis2, thicker) * thicker * thicker;
        near = closest <= std::max(nearRatio * std::max(observer.length, source.length), radius2 > 0.0 ? ringReach * thicker : 0.0);
    }
};

int farNodes(const Element& e, double k, double closest, int degree)
{
    const double sharpness = e.length / std::max(closest, 1e-12);
    if (sharpness < shortRatio && k * e.length < shortRatio) // the kernel is a parabola, hardly more
        return degree / 2 + 2;
    return std::min(12, degree + 2 + int(2.0 * sharpness) + int(k * e.length));
}

void farMoments(const Element& m, const Element& n, double k, int degree, double radius2, double closest, Moments& out)
{
    const GaussRule& outer = gaussRule(farNodes(m, k, closest, degree));
    const GaussRule& inner = gaussRule(farNodes(n, k, closest, degree));
    std::array<std::array<double, terms>, 16> polynomial;
    std::array<Vec3, 16> point;
    for (std::size_t b = 0; b < inner.node.size(); ++b) {
        legendre(inner.node[b], degree, polynomial[b].data());
        point[b] = n.at(inner.node[b]);
    }
    std::array<double, 16> distance, phase, cosine, sine;
    for (std::size_t a = 0; a < outer.node.size(); ++a) {
        const Vec3 r = m.at(outer.node[a]);
        std::array<Complex, terms> row{};
        for (std::size_t b = 0; b < inner.node.size(); ++b) {
            const Vec3 away = r - point[b];
            distance[b] = std::sqrt(dot(away, away) + radius2);
            phase[b] = k * distance[b];
        }
        cosSin(phase.data(), int(inner.node.size()), cosine.data(), sine.data());
        for (std::size_t b = 0; b < inner.node.size(); ++b) {
            const double w = inner.weight[b] / distance[b];
            const Complex g{w * cosine[b], -w * sine[b]};
            for (int j = 0; j <= degree; ++j)
                row[j] += polynomial[b][j] * g;
        }
        double p[terms];
        legendre(outer.node[a], degree, p);
        for (int i = 0; i <= degree; ++i)
            for (int j = 0; j <= degree; ++j)
                out.value[i][j] += outer.weight[a] * p[i] * row[j];
    }
}

/// Integrals of P_i P_j (R-from)^n/R for n = 0..powers-1.
void farPowers(const Element& m, const Element& n, double highestK, const Separation& apart, int degree, double from, int powers,
               double* out)
{
    const GaussRule& outer = gaussRule(farNodes(m, highestK, apart.closest, degree));
    const GaussRule& inner = gaussRule(farNodes(n, highestK, apart.closest, degree));
    std::vector<std::array<double, terms>> row(powers);
    for (std::size_t a = 0; a < outer.node.size(); ++a) {
        const Vec3 r = m.at(outer.node[a]);
        for (auto& sums : row)
            sums.fill(0.0);
        for (std::size_t b = 0; b < inner.node.size(); ++b) {
            const Vec3 away = r - n.at(inner.node[b]);
            const double R = std::sqrt(dot(away, away) + apart.radius2);
            double p[terms], power = inner.weight[b] / R;
            legendre(inner.node[b], degree, p);
            for (int i = 0; i < powers; ++i, power *= R - from)
                for (int j = 0; j <= degree; ++j)
                    row[i][j] += p[j] * power;
        }
        double p[terms];
        legendre(outer.node[a], degree, p);
        double* sum = out;
        for (const auto& sums : row)
            for (int i = 0; i <= degree; ++i)
                for (int j = 0; j <= degree; ++j)
                    *sum++ += outer.weight[a] * p[i] * sums[j];
    }
}

Moments transposed(const Moments& in, int degree)
{
    Moments out;
    for (int i = 0; i <= degree; ++i)
        for (int j = 0; j <= degree; ++j)
            out.value[i][j] = in.value[j][i];
    return out;
}

} // namespace

Complex Moments::form(const LegendreSum& left, const LegendreSum& right) const
{
    Complex sum = 0.0;
    for (int a = 0; a < left.terms; ++a)
        for (int b = 0; b < right.terms; ++b)
            sum += left.factor[a] * right.factor[b] * value[left.index[a]][right.index[b]];
    return sum;
}

MomentSeries::MomentSeries(const Element& observer, const Element& source, double highestWaveNumber, int degree) : m_degree(degree)
{
    const int width = degree + 1;
    const Separation apart(observer, source);
    const double middle = distance(observer.centre(), source.centre()), half = 0.5 * (observer.length + source.length);
    m_from = apart.near ? 0.0 : middle;
    m_powers = powersFor(highestWaveNumber, apart.near ? middle + half : half);
    m_values.assign(std::size_t(m_powers) * width * width, 0.0);
    if (!apart.near) {
        farPowers(observer, source, highestWaveNumber, apart, degree, m_from, m_powers, m_values.data());
    } else if (observer.length > source.length) { // the closed form over the longer element, the graded rule over the shorter
        addNearPowers(source, observer, degree, m_powers, m_values.data());
        for (int n = 0; n < m_powers; ++n)
            for (int i = 0; i < width; ++i)
                for (int j = 0; j < i; ++j)
                    std::swap(m_values[(n * width + i) * width + j], m_values[(n * width + j) * width + i]);
    } else
        addNearPowers(observer, source, degree, m_powers, m_values.data());
}

namespace {

/// Sums over even and odd powers of value[n] k^n/n!; (-j)^n turns 1, -j, -1, j.
VETCHLING_CLONES void addPowers(const double* __restrict value, int powers, int count, double waveNumber, double* __restrict even,
                                double* __restrict odd)
{
    double factor = 1.0;
    for (int n = 0; n < powers; ++n) {
        const double turned = n % 4 == 0 || n % 4 == 3 ? factor : -factor;
        double* sum = n % 2 ? odd : even;
        for (int i = 0; i < count; ++i)
            sum[i] += turned * value[i];
        value += count;
        factor *= waveNumber / (n + 1);
    }
}

} // namespace

void MomentSeries::at(double waveNumber, Moments& out) const
{
    const int width = m_degree + 1, count = width * width;
    double sums[2][terms * terms]{};
    addPowers(m_values.data(), m_powers, count, waveNumber, sums[0], sums[1]);
    const Complex phase = m_from > 0.0 ? std::polar(1.0, -waveNumber * m_from) : Complex{1.0};
    for (int i = 0; i < width; ++i)
        for (int j = 0; j < width; ++j)
            out.value[i][j] = phase * Complex{sums[0][i * width + j], sums[1][i * width + j]};
}

void MomentSeries::at(Complex waveNumber, Moments& out) const
{
    const int width = m_degree + 1, count = width * width;
    Complex sums[terms * terms]{};
    Complex factor = 1.0; // (-jk)^n/n!
    const double* value = m_values.data();
    for (int n = 0; n < m_powers; ++n) {
        for (int i = 0; i < count; ++i)
            sums[i] += factor * value[i];
        value += count;
        factor *= -imaginaryUnit * waveNumber / double(n + 1);
    }
    const Complex phase = m_from > 0.0 ? std::exp(-imaginaryUnit * waveNumber * m_from) : Complex{1.0};
    for (int i = 0; i < width; ++i)
        for (int j = 0; j < width; ++j)
            out.value[i][j] = phase * sums[i * width + j];
}

void kernelMoments(const Element& observer, const Element& source, Complex waveNumber, int degree, Moments& out)
{
    MomentSeries(observer, source, std::abs(waveNumber), degree).at(waveNumber, out);
}

bool comesClose(const Element& observer, const Element& source) { return Separation(observer, source).near; }

void kernelMoments(const Element& observer, const Element& source, double waveNumber, int degree, Moments& out)
{
    const Separation apart(observer, source);
    if (apart.near) {
        MomentSeries(observer, source, waveNumber, degree).at(waveNumber, out);
        return;
    }
    if (observer.length > source.length) {
        Moments swapped;
        farMoments(source, observer, waveNumber, degree, apart.radius2, apart.closest, swapped);
        out = transposed(swapped, degree);
    } else {
        out = Moments{};
        farMoments(observer, source, waveNumber, degree, apart.radius2, apart.closest, out);
    }
}

bool jacketMoments(const Element& observer, const Element& source, double outerRadius, int degree, Moments& out)
{
    out = Moments{};
    if (segmentDistance(observer.start, observer.end, source.start, source.end) >= ringReach * outerRadius)
        return false;
    const bool turned = observer.length > source.length;
    double values[terms * terms]{};
    addJacketPotential(turned ? source : observer, turned ? observer : source, degree, outerRadius, values);
    for (int i = 0; i <= degree; ++i)
        for (int j = 0; j <= degree; ++j)
            (turned ? out.value[j][i] : out.value[i][j]) = values[i * (degree + 1) + j];
    return true;
}

} // namespace vetchling::em

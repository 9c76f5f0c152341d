#include "core/em/soil_field.h"

#include "core/em/gauss.h"

#include <cmath>

namespace vetchling::em {
namespace {

constexpr double longestSoilStretch = 0.4; // of the distance to the point, one Gauss rule
constexpr int soilStretchNodes = 8;

/// int G I ds and int K dI/ds ds: 4 pi A / mu0, and 4 pi jw eps0 phi with its sign turned.
struct Potentials {
    std::array<Complex, 3> vector{};
    Complex scalar;
};

class PotentialsAt {
public:
    PotentialsAt(const SoilTable& table, int degree)
        : m_table(table), m_degree(degree), m_k(waveNumber(table.frequency())), m_eps(table.permittivity()),
          m_image((m_eps - 1.0) / (m_eps + 1.0))
    {
    }

    [[nodiscard]] double k() const { return m_k; }

    [[nodiscard]] Potentials of(const std::vector<CurrentPiece>& pieces, Vec3 point) const
    {
        Potentials sum;
        const GaussRule& rule = gaussRule(soilStretchNodes);
        for (const CurrentPiece& piece : pieces) {
            const Element& e = piece.element;
            for (double from = -1.0; from < 1.0;) { // stretches short against their distance
                double span = 1.0 - from;
                while (0.5 * span * e.length > longestSoilStretch * segmentDistance(e.at(from), e.at(from + span), point, point))
                    span *= 0.5;
                for (int i = 0; i < soilStretchNodes; ++i) {
                    const double v = from + 0.5 * span * (1.0 + rule.node[i]), weight = 0.5 * span * rule.weight[i];
                    add(e, e.at(v), point, weight * 0.5 * e.length * currentOn(m_degree, piece.current, v),
                        weight * currentSlopeOn(m_degree, piece.current, v), sum);
                }
                from += span;
            }
        }
        return sum;
    }

private:
    void add(const Element& e, Vec3 source, Vec3 point, Complex moment, Complex slope, Potentials& sum) const
    {
        const Vec3 away = point - source, t = e.tangent;
        const double rho = std::hypot(away.x, away.y), cx = rho > 0.0 ? away.x / rho : 1.0, cy = rho > 0.0 ? away.y / rho : 0.0;
        SoilKernels g;
        if (e.inSoil)
            g = m_table.across(rho, point.z, -source.z);
        else {
            g = m_table.inAir(rho, point.z + source.z);
            const auto wave = [&](double r) { return std::polar(1.0 / r, -m_k * r); };
            const Complex direct = wave(norm(away)), image = wave(std::hypot(rho, point.z + source.z));
            g.scalar += direct - m_image * image;
            g.horizontal += direct;
            g.vertical += direct + 2.0 * m_image * image;
        }
        sum.vector[0] += moment * (t.x * g.horizontal - t.z * cx * g.mixed);
        sum.vector[1] += moment * (t.y * g.horizontal - t.z * cy * g.mixed);
        sum.vector[2] += moment * (t.z * g.vertical + (t.x * cx + t.y * cy) * g.mixed);
        sum.scalar += slope * g.scalar;
    }

    const SoilTable& m_table;
    int m_degree;
    double m_k;
    Complex m_eps, m_image;
};

} // namespace

FieldAt soilField(const std::vector<CurrentPiece>& pieces, int degree, const SoilTable& table, Vec3 point, double step)
{
    const PotentialsAt potentials(table, degree);
    const Potentials here = potentials.of(pieces, point);
    std::array<Potentials, 3> slope; // by axis
    for (int axis = 0; axis < 3; ++axis)
        for (double side : {-1.0, 1.0}) {
            Vec3 p = point;
            (axis == 0 ? p.x : axis == 1 ? p.y : p.z) += side * step;
            const Potentials there = potentials.of(pieces, p);
            for (int c = 0; c < 3; ++c)
                slope[axis].vector[c] += side * there.vector[c] / (2.0 * step);
            slope[axis].scalar += side * there.scalar / (2.0 * step);
        }
    const Complex ofVector = imaginaryUnit * waveImpedance * potentials.k() / (4.0 * pi),
                  ofScalar = imaginaryUnit * waveImpedance / (4.0 * pi * potentials.k());
    FieldAt field;
    for (int c = 0; c < 3; ++c)
        field.e[c] = -ofVector * here.vector[c] - ofScalar * slope[c].scalar;
    for (int c = 0; c < 3; ++c) {
        const int a = (c + 1) % 3, b = (c + 2) % 3;
        field.h[c] = (slope[a].vector[b] - slope[b].vector[a]) / (4.0 * pi);
    }
    return field;
}

} // namespace vetchling::em

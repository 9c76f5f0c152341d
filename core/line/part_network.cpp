/// Two reactances of fixed value: an L network at the feedpoint. Also how such a network is sized.

#include "core/line/part_kinds.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

using units::Quantity;

class NetworkPart final : public PartKind {
public:
    std::string id() const override { return part::network; }
    std::string name() const override { return coreText("core", "L network"); }
    std::string help() const override
    {
        return coreText("core", "A coil and a capacitor of fixed value that match one band at the feedpoint.");
    }
    bool atFeedpoint() const override { return true; }

    const std::vector<PartSpec>& specs() const override
    {
        static const std::vector<PartSpec> all = made();
        return all;
    }

    TwoPort at(const ChainPart& part, double frequency) const override
    {
        const double w = 2.0 * pi * frequency;
        const auto v = [&](const char* key) { return value(part, key); };
        const auto impedance = [&](double henry, double farad) {
            const Complex coil = henry > 0.0 ? Complex{w * henry / v("inductor_q"), w * henry} : Complex{};
            const Complex capacitor = farad > 0.0 ? Complex{1.0 / (w * farad * v("capacitor_q")), -1.0 / (w * farad)} : Complex{};
            return coil + capacitor;
        };
        const Complex across = impedance(v("shunt_H"), v("shunt_F"));
        const TwoPort shunt = std::abs(across) > 0.0 ? TwoPort::shunt(1.0 / across) : TwoPort();
        const TwoPort series = TwoPort::series(impedance(v("series_H"), v("series_F")));
        return v("shunt_side") > 0.5 ? shunt.then(series) : series.then(shunt);
    }

private:
    static std::vector<PartSpec> made()
    {
        const auto henry = [](const char* key, const char* label) {
            return PartSpec{key, label, Quantity::Inductance, 0.0, 0.0, 1e-2, {}, coreText("core", "0: none")};
        };
        const auto farad = [](const char* key, const char* label) {
            return PartSpec{key, label, Quantity::Capacitance, 0.0, 0.0, 1e-6, {}, coreText("core", "0: none")};
        };
        return {{"shunt_side",
                 coreText("core", "Across"),
                 Quantity::Plain,
                 0.0,
                 0.0,
                 1.0,
                 {coreText("core", "the antenna's side"), coreText("core", "the line's side")},
                 coreText("core", "where the element across the line sits")},
                henry("shunt_H", coreText("core", "Coil across")),
                farad("shunt_F", coreText("core", "Capacitor across")),
                henry("series_H", coreText("core", "Coil in the path")),
                farad("series_F", coreText("core", "Capacitor in the path")),
                qSpec("inductor_q", coreText("core", "Q of coils"), 200.0),
                qSpec("capacitor_q", coreText("core", "Q of capacitors"), 2000.0)};
    }
};

/// Element with reactance x, by its sign.
Reactance element(double x, double frequency)
{
    const double w = 2.0 * pi * frequency;
    return x > 0.0 ? Reactance{true, x / w} : Reactance{false, -1.0 / (w * x)};
}

double qOf(double x, double inductorQ, double capacitorQ) { return x > 0.0 ? inductorQ : capacitorQ; }

/// Roots of a t^2 + b t + c, with b^2 >= 4 a c; one where a is nothing.
std::vector<double> roots(double a, double b, double c)
{
    if (std::abs(a) < 1e-14 * std::abs(b))
        return b != 0.0 ? std::vector{-c / b} : std::vector<double>();
    const double inside = b * b - 4.0 * a * c;
    if (!(inside >= 0.0))
        return {};
    const double q = -0.5 * (b + std::copysign(std::sqrt(inside), b));
    return q != 0.0 ? std::vector{q / a, c / q} : std::vector{0.0};
}

/// Elements across the load: y = t (1/Q - ... ) with t the strength of the shunt's admittance magnitude, signed: a coil has t < 0.
/// An element of reactance X and resistance |X|/Q has the admittance (1/|X|) (1/Q - j s)/(1 + 1/Q^2), s = sign X.
class ShuntAtLoad {
public:
    ShuntAtLoad(Complex load, double to, double frequency, double inductorQ, double capacitorQ)
        : m_load(load), m_to(to), m_frequency(frequency), m_inductorQ(inductorQ), m_capacitorQ(capacitorQ)
    {
    }

    void addTo(std::vector<NetworkSolution>& all) const
    {
        for (const int shuntSign : {1, -1})
            for (const int seriesSign : {1, -1})
                solve(shuntSign, seriesSign, all);
    }

private:
    /// With Z = 1/(Y + t u), u the shunt's unit admittance, and the series element taking the imaginary part X = -Im Z at the cost |X|/Q:
    /// Re Z + |Im Z|/Q = to. Multiplied by |Y + t u|^2 that is a quadratic in t.
    void solve(int shuntSign, int seriesSign, std::vector<NetworkSolution>& all) const
    {
        const double shuntQ = qOf(shuntSign, m_inductorQ, m_capacitorQ), seriesQ = qOf(seriesSign, m_inductorQ, m_capacitorQ);
        const Complex y = 1.0 / m_load, u = Complex{1.0 / shuntQ, -double(shuntSign)} / (1.0 + 1.0 / (shuntQ * shuntQ));
        // X = -Im Z = Im(Y + t u)/|..|^2 has the series element's sign
        const double a = m_to * std::norm(u);
        const double b = 2.0 * m_to * (std::conj(y) * u).real() - u.real() - seriesSign * u.imag() / seriesQ;
        const double c = m_to * std::norm(y) - y.real() - seriesSign * y.imag() / seriesQ;
        for (const double t : roots(a, b, c)) {
            const Complex across = y + t * u;
            const double x = across.imag() / std::norm(across);
            if (!(t > 0.0) || x * seriesSign < 0.0)
                continue;
            const double intoLoad = y.real() / across.real(), intoShunt = (1.0 / across).real() / m_to;
            all.push_back({true, element(shuntSign / t, m_frequency), element(x, m_frequency), -10.0 * std::log10(intoLoad * intoShunt)});
        }
    }

    Complex m_load;
    double m_to, m_frequency, m_inductorQ, m_capacitorQ;
};

/// The series element at the load: Z = load + X (1/Q + j s), and the shunt across `to` takes the imaginary part of 1/Z at the cost of its
/// own conductance: Re(1/Z) + |Im(1/Z)|/Q = 1/to, a quadratic in |X|.
void addSeriesAtLoad(Complex load, double to, double frequency, double inductorQ, double capacitorQ, std::vector<NetworkSolution>& all)
{
    for (const int seriesSign : {1, -1})
        for (const int shuntSign : {1, -1}) {
            const double seriesQ = qOf(seriesSign, inductorQ, capacitorQ), shuntQ = qOf(shuntSign, inductorQ, capacitorQ);
            const Complex u{1.0 / seriesQ, double(seriesSign)};
            // the shunt's susceptance is -s G Q: it cancels Im(1/Z) = -Im Z/|Z|^2, so Im Z has the sign opposite to the shunt's
            const double g = 1.0 / to;
            const double a = g * std::norm(u);
            const double b = 2.0 * g * (std::conj(load) * u).real() - u.real() + shuntSign * u.imag() / shuntQ;
            const double c = g * std::norm(load) - load.real() + shuntSign * load.imag() / shuntQ;
            for (const double t : roots(a, b, c)) {
                const Complex z = load + t * u, y = 1.0 / z;
                const double susceptance = -y.imag(); // of the shunt
                if (!(t > 0.0) || susceptance * shuntSign > 0.0)
                    continue;
                // (1/|X|)/(1 + 1/Q^2) is the size of its susceptance
                const double x = 1.0 / (std::abs(susceptance) * (1.0 + 1.0 / (shuntQ * shuntQ)));
                const double intoSeries = y.real() * to, intoLoad = load.real() / z.real();
                all.push_back({false, element(shuntSign * x, frequency), element(seriesSign * t, frequency),
                               -10.0 * std::log10(intoSeries * intoLoad)});
            }
        }
}

} // namespace

std::vector<NetworkSolution> networksFor(Complex load, double to, double frequency, double inductorQ, double capacitorQ)
{
    std::vector<NetworkSolution> all;
    if (!(load.real() > 0.0) || !std::isfinite(load.real()) || !std::isfinite(load.imag()))
        return all;
    addSeriesAtLoad(load, to, frequency, inductorQ, capacitorQ, all);
    ShuntAtLoad(load, to, frequency, inductorQ, capacitorQ).addTo(all);
    // two of one kind lose the same: rounding must not decide which comes first
    const auto nanoDecibels = [](const NetworkSolution& n) { return std::round(1e9 * n.loss); };
    std::stable_sort(all.begin(), all.end(),
                     [&](const NetworkSolution& a, const NetworkSolution& b) { return nanoDecibels(a) < nanoDecibels(b); });
    return all;
}

const PartKind& networkKind()
{
    static const NetworkPart kind;
    return kind;
}

} // namespace vetchling

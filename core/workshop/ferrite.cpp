#include "core/workshop/ferrite.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vetchling {
namespace {

constexpr Complex j{0.0, 1.0};
constexpr double transfer = 10.0; // W/(m2 K), free convection and radiation together

} // namespace

Complex FerriteClass::permeability(double frequency) const
{
    if (table.empty())
        return 1.0 + (initial - 1.0) / (1.0 + j * (frequency * (initial - 1.0) / snoek));
    const auto above = std::find_if(table.begin(), table.end(), [&](const Row& r) { return r.frequency >= frequency; });
    const Row& high = above == table.end() ? table.back() : *above;
    const Row& low = above == table.begin() || above == table.end() ? high : *(above - 1);
    if (high.frequency <= low.frequency)
        return {high.real, -high.imaginary};
    const double t = std::log(frequency / low.frequency) / std::log(high.frequency / low.frequency);
    return {std::lerp(low.real, high.real, t), -std::lerp(low.imaginary, high.imaginary, t)};
}

double FerriteRing::perTurn() const { return 2e-7 * height * std::log(outer / inner); }

double FerriteRing::surface(int rings) const
{
    const double face = 0.25 * std::numbers::pi * (outer * outer - inner * inner);
    return 2.0 * face + std::numbers::pi * (outer + inner) * height * rings;
}

double allowedHeat(const FerriteRing& ring, int rings) { return transfer * allowedWarming * ring.surface(rings); }

double CoreChoke::capacitance() const { return 0.5e-12 + 0.06e-12 * turns * 100.0 * ring.height * std::sqrt(double(rings)); }

Complex CoreChoke::impedance(double frequency) const
{
    const double w = 2.0 * pi * frequency;
    const Complex winding = j * w * ring.perTurn() * double(rings) * double(turns * turns) * ferrite.permeability(frequency);
    return 1.0 / (1.0 / winding + j * w * capacitance());
}

double CoreChoke::allowedCurrent(double frequency) const
{
    return std::sqrt(allowedHeat(ring, rings) / std::max(impedance(frequency).real(), 1e-9));
}

std::vector<ChokePoint> chokeCurve(const CoreChoke& choke, double from, double to, int count)
{
    std::vector<ChokePoint> points;
    for (int i = 0; i < count; ++i) {
        const double f = from * std::pow(to / from, i / double(count - 1));
        points.push_back({f, choke.impedance(f)});
    }
    return points;
}

LeastChoking leastChoking(const CoreChoke& choke, const std::vector<Band>& bands)
{
    LeastChoking least;
    for (std::size_t i = 0; i < bands.size(); ++i)
        for (double f : {bands[i].from, bands[i].to})
            if (const double ohm = std::abs(choke.impedance(f)); least.ohm == 0.0 || ohm < least.ohm)
                least = {ohm, i};
    return least;
}

Complex CoreTransformer::magnetising(double frequency) const
{
    return j * 2.0 * pi * frequency * ring.perTurn() * double(rings) * double(turns * turns) * ferrite.permeability(frequency);
}

double CoreTransformer::coreHeat(double frequency, double power, double line) const
{
    return power * line * (1.0 / magnetising(frequency)).real();
}

double CoreTransformer::flux(double frequency, double power, double line) const
{
    return std::sqrt(2.0 * power * line) / (2.0 * pi * frequency * turns * rings * ring.crossSection());
}

int CoreTransformer::leastTurns(double frequency, double times, double line) const
{
    CoreTransformer one = *this;
    one.turns = 1;
    return std::max(1, int(std::ceil(std::sqrt(times * line / std::abs(one.magnetising(frequency))))));
}

Complex ChokeModel::impedance(double frequency) const
{
    const double w = 2.0 * pi * frequency;
    return 1.0 / (1.0 / resistance + 1.0 / (j * w * inductance) + j * w * capacitance);
}

/// The admittance is linear in 1/R, 1/L and C: weighted least squares of it, relative to its size.
ChokeModel modelOf(const CoreChoke& choke, double from, double to)
{
    constexpr int places = 24;
    double conductance = 0.0, weights = 0.0, aa = 0.0, ab = 0.0, bb = 0.0, ay = 0.0, by = 0.0;
    for (int i = 0; i < places; ++i) {
        const double w = 2.0 * pi * from * std::pow(to / from, i / double(places - 1));
        const Complex y = 1.0 / choke.impedance(w / (2.0 * pi));
        const double weight = 1.0 / std::norm(y), a = -1.0 / w, b = w;
        conductance += weight * y.real();
        weights += weight;
        aa += weight * a * a, ab += weight * a * b, bb += weight * b * b;
        ay += weight * a * y.imag(), by += weight * b * y.imag();
    }
    const double c = std::max(0.0, (aa * by - ab * ay) / (aa * bb - ab * ab));
    const double perHenry = std::max((ay - ab * c) / aa, 1e-3);
    return {weights / conductance, 1.0 / perHenry, c};
}

} // namespace vetchling

#include "tests/validation/coated_wire.h"

#include <boost/math/special_functions/bessel.hpp>
#include <boost/math/tools/roots.hpp>

#include <cmath>
#include <vector>

namespace vetchling::testing {

double surfaceWaveSlowness(const CoatedWire& wire, double frequency)
{
    using namespace boost::math;
    const double k = waveNumber(frequency), a = wire.radius, b = wire.radius + wire.thickness, er = wire.permittivity;
    const auto mismatch = [&](double u) { // u: how fast the wave falls off outside, rad/m
        const double h = std::sqrt(er * k * k - k * k - u * u);
        const auto inside = [&](int order) {
            return cyl_bessel_j(order, h * b) * cyl_neumann(0, h * a) - cyl_neumann(order, h * b) * cyl_bessel_j(0, h * a);
        };
        return er / h * inside(1) / inside(0) * u + cyl_bessel_k(1, u * b) / cyl_bessel_k(0, u * b);
    };
    const auto [low, high] = tools::bisect(mismatch, 1e-4 * k, 0.999 * k * std::sqrt(er - 1.0), tools::eps_tolerance<double>(40));
    return std::hypot(k, 0.5 * (low + high)) / k;
}

double slownessOnALongWire(const CoatedWire& wire, double frequency, double wavelengths)
{
    const double l = wavelength(frequency), step = l / 400.0;
    auto model = std::make_shared<WireModel>();
    model->wires.push_back({"long", {{0, 0, 0}, {wavelengths * l, 0, 0}}, wire.radius});
    model->wires[0].insulation = Insulation{wire.radius + wire.thickness, wire.permittivity, 0.0};
    model->feeds.push_back({0, 0.25 * l, 1.0});
    em::GroundTableCache tables;
    const auto solution = em::solve(model, frequency, tables);
    std::vector<double> nodes; // away from both ends, where other waves have died out
    double at = 0.4 * wavelengths * l, before = HUGE_VAL, here = std::abs(solution->currentAt(0, at));
    for (; at < 0.95 * wavelengths * l; at += step) {
        const double next = std::abs(solution->currentAt(0, at + step));
        if (before > here && here <= next && before < HUGE_VAL)
            nodes.push_back(at + 0.5 * step * (before - next) / (before - 2.0 * here + next));
        before = here;
        here = next;
    }
    return 0.5 * l * double(nodes.size() - 1) / (nodes.back() - nodes.front());
}

} // namespace vetchling::testing

#include "core/workshop/sag.h"

#include <cmath>

namespace vetchling {
namespace {

Faults faultsOf(const Span& span)
{
    Faults faults;
    if (!(span.span > 0.0 && span.span <= 1e5))
        faults.push_back({"span", coreText("core", "give the distance between the supports, above 0")});
    if (!(span.massPerMetre > 0.0 && span.massPerMetre <= 1e3))
        faults.push_back({"mass-per-metre", coreText("core", "give the wire's mass for a metre, above 0 kg")});
    return faults;
}

/// @param t half the span over the catenary's parameter
Hanging hanging(const Span& span, double t)
{
    const double a = 0.5 * span.span / t, weight = span.massPerMetre * gravity;
    Hanging out;
    out.sag = 2.0 * a * std::pow(std::sinh(0.5 * t), 2); // a (cosh t - 1) without taking nearly equal things apart
    out.horizontal = weight * a;
    out.end = out.horizontal + weight * out.sag;
    out.wire = 2.0 * a * std::sinh(t);
    return out;
}

/// Where a rising function of t crosses a value.
template <class Function> double solve(Function f, double value, double low, double high)
{
    for (int i = 0; i < 200 && high - low > 1e-16 * high; ++i) {
        const double middle = 0.5 * (low + high);
        (f(middle) < value ? low : high) = middle;
    }
    return 0.5 * (low + high);
}

} // namespace

Result<Hanging> hangingWithSag(const Span& span, double sag)
{
    if (Faults faults = faultsOf(span); !faults.empty())
        return faults;
    if (!(sag > 0.0 && sag <= 100.0 * span.span))
        return Fault{"sag", coreText("core", "give a sag above 0: no wire hangs straight")};
    const double t = solve([&](double x) { return hanging(span, x).sag; }, sag, 1e-12, 20.0);
    return hanging(span, t);
}

Result<Hanging> hangingWithTension(const Span& span, double endTension)
{
    if (Faults faults = faultsOf(span); !faults.empty())
        return faults;
    // cosh t / t has its least where t tanh t = 1: there the tension is the smallest that carries the wire
    const double slackest = solve([](double x) { return x * std::tanh(x); }, 1.0, 1e-3, 5.0);
    const double least = hanging(span, slackest).end;
    if (!(endTension >= least))
        return Fault{
            "end-tension",
            {coreText("core", "the wire weighs more than that carries; at least %1 N"), Measure{std::ceil(100.0 * least) / 100.0}}};
    const double t = solve([&](double x) { return -hanging(span, x).end; }, -endTension, 1e-12, slackest);
    return hanging(span, t);
}

} // namespace vetchling

#include "core/workshop/sag.h"

#include "core/root.h"

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
    out.low = out.end;
    out.below = out.sag;
    return out;
}

/// One catenary between supports of two heights.
Hanging uneven(double span, double a, double weight, double rise)
{
    Hanging out;
    const double toLower = 0.5 * span - a * std::asinh(0.5 * rise / (a * std::sinh(0.5 * span / a)));      // from there to the lowest point
    const double slope = rise / span, steepest = toLower + a * std::asinh(slope);                          // where it runs as the line does
    const auto lift = [&](double x) { return 2.0 * a * std::pow(std::sinh(0.5 * (x - toLower) / a), 2); }; // above the lowest point
    out.horizontal = weight * a;
    out.low = out.horizontal + weight * lift(0.0);
    out.end = out.horizontal + weight * lift(span);
    out.sag = lift(0.0) + slope * steepest - lift(steepest);
    out.wire = std::hypot(rise, 2.0 * a * std::sinh(0.5 * span / a));
    out.below = toLower > 0.0 ? lift(0.0) : 0.0;
    return out;
}

/// Level supports and a load in the middle: two equal pieces of a catenary that meet at an angle.
Hanging loaded(double span, double a, double weight, double load)
{
    Hanging out;
    const double from = a * std::asinh(0.5 * load / (weight * a)), to = from + 0.5 * span; // from the catenary's own lowest point
    out.horizontal = weight * a;
    out.sag = out.below = 2.0 * a * std::sinh(0.5 * (to + from) / a) * std::sinh(0.5 * (to - from) / a);
    out.end = out.low = weight * a * std::cosh(to / a);
    out.wire = 4.0 * a * std::cosh(0.5 * (to + from) / a) * std::sinh(0.5 * (to - from) / a);
    return out;
}

} // namespace

Result<Hanging> hangingWithSag(const Span& span, double sag)
{
    if (Faults faults = faultsOf(span); !faults.empty())
        return faults;
    if (!(sag > 0.0 && sag <= 100.0 * span.span))
        return Fault{"sag", coreText("core", "give a sag above 0: no wire hangs straight")};
    const double t = whereRising([&](double x) { return hanging(span, x).sag; }, sag, 1e-12, 20.0);
    return hanging(span, t);
}

Result<Hanging> hangingWithPull(const Span& span, double horizontal, double rise, double load)
{
    if (Faults faults = faultsOf(span); !faults.empty())
        return faults;
    if (!(horizontal > 0.0 && horizontal <= 1e7))
        return Fault{"horizontal", coreText("core", "give the pull in the wire, above 0 N")};
    if (!(rise >= 0.0 && rise <= 1e4))
        return Fault{"rise", coreText("core", "give how much higher one support is, 0 or more")};
    if (!(load >= 0.0 && load <= 1e5))
        return Fault{"load", coreText("core", "give the mass that hangs in the middle, 0 kg or more")};
    const double weight = span.massPerMetre * gravity, a = horizontal / weight, hung = load * gravity;
    if (0.5 * span.span / a > 20.0)
        return Fault{"horizontal", coreText("core", "so slack a wire hangs to the ground: pull more")};
    if (rise == 0.0)
        return load == 0.0 ? uneven(span.span, a, weight, 0.0) : loaded(span.span, a, weight, hung);
    Hanging out = uneven(span.span, a, weight, rise);
    if (load > 0.0) {
        out.sag += 0.25 * hung * span.span / horizontal;
        for (double* tension : {&out.end, &out.low})
            *tension = std::hypot(horizontal, std::sqrt(std::max(0.0, *tension * *tension - horizontal * horizontal)) + 0.5 * hung);
    }
    return out;
}

Result<Hanging> hangingWithTension(const Span& span, double endTension)
{
    if (Faults faults = faultsOf(span); !faults.empty())
        return faults;
    // cosh t / t has its least where t tanh t = 1: there the tension is the smallest that carries the wire
    const double slackest = whereRising([](double x) { return x * std::tanh(x); }, 1.0, 1e-3, 5.0);
    const double least = hanging(span, slackest).end;
    if (!(endTension >= least))
        return Fault{
            "end-tension",
            {coreText("core", "the wire weighs more than that carries; at least %1 N"), Measure{std::ceil(100.0 * least) / 100.0}}};
    const double t = whereRising([&](double x) { return -hanging(span, x).end; }, -endTension, 1e-12, slackest);
    return hanging(span, t);
}

} // namespace vetchling

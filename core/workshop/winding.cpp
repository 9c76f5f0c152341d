#include "core/workshop/winding.h"

#include <algorithm>

namespace vetchling {
namespace {

constexpr double enamel = 0.05; // of the wire's thickness, from turn to turn

} // namespace

Coil coilOf(const Winding& w, double turns)
{
    const double outer = w.wire + 2.0 * w.jacket;
    return {w.former + outer, w.wire, std::max(outer + w.gap, (1.0 + enamel) * w.wire), turns, 5.8e7};
}

Wound windFor(double inductance, double frequency, const Winding& winding)
{
    Wound out;
    out.winding = winding;
    const Result<Coil> about = coilFor(coilOf(winding), inductance); // near enough for the leads
    if (about)
        out.leads = leadInductance(*about);
    const Result<Coil> coil = coilFor(coilOf(winding), inductance - out.leads, frequency);
    if (!coil) {
        out.fault = coil.faults().front();
        return out;
    }
    out.coil = *coil;
    out.figures = *coilFigures(out.coil, frequency);
    Coil fewer = out.coil;
    fewer.turns = std::max(0.5, out.coil.turns - 1.0);
    const double turns = out.coil.turns - fewer.turns;
    if (const auto less = coilFigures(fewer, frequency); less && turns > 0.0)
        out.perTurn = (out.figures.atFrequency - less->atFrequency) / turns;
    return out;
}

std::vector<Wound> windingsBeside(double inductance, double frequency, const Winding& winding)
{
    std::vector<Winding> all;
    for (const double scale : {0.75, 1.0, 1.25, 1.6}) {
        Winding w = winding;
        w.former *= scale;
        all.push_back(w);
    }
    Winding bare = winding, spaced = winding;
    bare.jacket = bare.gap = 0.0;
    spaced.gap = std::max(spaced.gap, winding.wire);
    for (const Winding& w : {bare, spaced})
        if (std::find(all.begin(), all.end(), w) == all.end())
            all.push_back(w);
    std::vector<Wound> out;
    for (const Winding& w : all)
        if (Wound wound = windFor(inductance, frequency, w); wound.good())
            out.push_back(std::move(wound));
    return out;
}

} // namespace vetchling

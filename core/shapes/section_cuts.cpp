#include "core/shapes/section_cuts.h"

#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double part = 1e-3;                         // of a length, that it is made longer
const Ground someSoil{GroundKind::Real, 13.0, 0.005}; // wires stand on it; lengths do not hang on which

SectionCut cutBy(const AntennaShape& shape, const BuiltAntenna& built, const Lever& lever)
{
    const Family& family = familyOf(shape);
    const double value = family.value(shape, lever.parameter), step = part * value;
    SectionCut out{lever, {}, 0.0};
    const auto longer =
        value > 0.0 ? buildOver(family.levered(shape, lever.parameter, value + step), someSoil) : Result<BuiltAntenna>(Fault{});
    if (!longer || longer->sections.size() != built.sections.size())
        return out;
    for (std::size_t i = 0; i < built.sections.size(); ++i) {
        const WireSection& s = built.sections[i];
        const double rate = (longer->sections[i].length - s.length) / step;
        out.rates.push_back(s.trimmed && std::abs(rate) > part ? rate : 0.0);
        out.all += s.pieces * out.rates.back();
    }
    return out;
}

} // namespace

std::vector<SectionCut> sectionCuts(const AntennaShape& shape, const BuiltAntenna& built)
{
    std::vector<SectionCut> all;
    std::vector<bool> cut(built.sections.size(), false);
    for (const Lever& lever : familyOf(shape).levers(shape)) {
        if (lever.kind != LeverKind::Cut)
            continue;
        SectionCut one = cutBy(shape, built, lever);
        bool again = false;
        for (std::size_t i = 0; i < one.rates.size(); ++i)
            again |= one.rates[i] != 0.0 && cut[i];
        if (one.all == 0.0 || again)
            continue;
        for (std::size_t i = 0; i < one.rates.size(); ++i)
            cut[i] = cut[i] || one.rates[i] != 0.0;
        all.push_back(std::move(one));
    }
    return all;
}

} // namespace vetchling::shapes

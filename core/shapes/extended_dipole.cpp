/// Dipole of some five eighths of a wave a side: more gain broadside, made resonant by a coil or by a piece of line at the feed.
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/loading.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double usualLeg = 0.62; // of the wavelength

class ExtendedDipole final : public DipoleFamily {
public:
    std::string id() const override { return "extended-dipole"; }
    std::string title() const override { return coreText("core", "Extended dipole"); }
    std::string summary() const override
    {
        return coreText("core", "Five eighths of a wave a side for more gain broadside, matched by a piece of line at its feed.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(12.0, 12.0, usualLeg);
        all.push_back(lengthSpec("section_m", coreText("core", "Matching section"), feedGroup, {3.0, 0.01, 500.0},
                                 coreText("core", "line between the feedpoint and the transformer")));
        all.push_back(numberSpec("section_ohm", coreText("core", "Its impedance, ohm"), feedGroup, {450.0, 10.0, 1000.0}));
        all.push_back(percentSpec("section_velocity_percent", coreText("core", "Its velocity factor"), feedGroup, {91.0, 30.0, 100.0}));
        all.push_back(transformerRatio(1.0));
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"section_m", coreText("core", "of matching section"), shape.designFrequency}};
    }
    /// Arm and section together a multiple of a quarter wave: 7/8 to 1 wave less the arm, the line's velocity factor counted.
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        const double wave = wavelength(length.frequency), left = 0.77 - value(shape, "leg_m") / wave;
        const double part = left - 0.5 * std::floor(left / 0.5 - 0.02); // half a wave of line more or less shows the same
        return {{coreText("core", "rest to three quarters"),
                 coreText("core", "a side and the section make three quarters of a wave, the velocity factor counted"), 0.0, 0.0,
                 std::max(0.01, part * wave * 0.01 * value(shape, "section_velocity_percent"))}};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"section_m", coreText("core", "the matching section"), LeverKind::Cut, LeverSide::Feed, 1},
                {"leg_m", coreText("core", "each side"), LeverKind::Cut, LeverSide::OpenEnd, 2}};
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        BuiltAntenna out = dipoleFrame(*g, shape);
        out.transformer = ownLine({value(shape, "section_ohm"), value(shape, "section_m"), 0.01 * value(shape, "section_velocity_percent")},
                                  value(shape, "transformer_ratio"));
        out.sections = {{coreText("core", "leg"), 2, g->leg, WireEnd::Centre, WireEnd::Insulator}};
        return out;
    }
};

} // namespace

const Family& extendedDipoleFamily()
{
    static const ExtendedDipole family;
    return family;
}

} // namespace vetchling::shapes

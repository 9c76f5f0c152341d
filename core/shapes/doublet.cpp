/// Doublet: any two equal legs on open-wire line down to a tuner.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

class Doublet final : public DipoleFamily {
public:
    std::string id() const override { return "doublet"; }
    bool isForAnyBand() const override { return true; }
    std::string title() const override { return coreText("core", "Open-wire doublet"); }
    std::string summary() const override
    {
        return coreText(
            "core", "Two legs of any length and open-wire line down to a tuner, for many bands; the line's length decides what it sees.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(12.0, 12.0, 0.32);
        all.push_back(lengthSpec("line_m", coreText("core", "Open-wire line"), feedGroup, {12.0, 0.01, 1000.0},
                                 coreText("core", "from the feedpoint down to the tuner")));
        all.push_back(numberSpec("line_ohm", coreText("core", "Its impedance, ohm"), feedGroup, {450.0, 50.0, 1000.0}));
        all.push_back(percentSpec("line_velocity_percent", coreText("core", "Its velocity factor"), feedGroup, {95.0, 30.0, 100.0}));
        all.push_back(numberSpec("line_k1", coreText("core", "Its loss at 1 MHz, dB a 100 m"), feedGroup, {0.06, 0.0, 10.0},
                                 coreText("core", "when matched; grows with the root of the frequency")));
        all.push_back(transformerRatio(1.0));
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"line_m", coreText("core", "of open-wire line"), shape.designFrequency}};
    }

    /// Low resistance at the tuner: leg and line together an odd number of quarter waves, enough line to reach down.
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        const double quarter = 0.25 * wavelength(length.frequency), velocity = 0.01 * value(shape, "line_velocity_percent");
        const double leg = 1.05 * value(shape, "leg_m"), reach = 0.6 * value(shape, "apex_height_m") / velocity;
        double odd = 1.0;
        while (odd * quarter - leg < std::max(reach, 0.2 * quarter))
            odd += 2.0;
        return {{coreText("core", "odd quarter waves"),
                 coreText("core", "a side and the line are an odd number of quarter waves, so that the tuner sees a low resistance"), 0.0,
                 0.0, (odd * quarter - leg) * velocity}};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"line_m", coreText("core", "the open-wire line"), LeverKind::Cut, LeverSide::Feed, 1},
                {"leg_m", coreText("core", "each side"), LeverKind::Cut, LeverSide::OpenEnd, 2}};
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        BuiltAntenna out = dipoleFrame(*g, shape);
        out.transformer = ownLine(
            {value(shape, "line_ohm"), value(shape, "line_m"), 0.01 * value(shape, "line_velocity_percent"), value(shape, "line_k1")},
            value(shape, "transformer_ratio"));
        out.sections = {{coreText("core", "leg"), 2, g->leg, WireEnd::Centre, WireEnd::Insulator}};
        return out;
    }
};

} // namespace

const Family& doubletFamily()
{
    static const Doublet family;
    return family;
}

} // namespace vetchling::shapes

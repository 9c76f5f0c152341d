/// Half-wave vertical standing on its own matching stub, tapped by the line.
#include "core/shapes/stand.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

constexpr double tapInWaves = 0.017;

class StubVertical final : public Family {
public:
    std::string id() const override { return "stub-vertical"; }
    std::string title() const override { return coreText("core", "Half-wave vertical on a stub"); }
    std::string summary() const override
    {
        return coreText("core", "Half a wave upright on a quarter-wave stub of two wires, which the line taps; no radials.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all{
            lengthSpec("base_height_m", coreText("core", "Height of the stub's bridge"), hangsGroup, {2.0, 0.05, 300.0}),
            lengthSpec("radiator_m", coreText("core", "Radiator above the stub"), lengthGroup, {9.9, 0.02, 500.0}, {}, 0.475),
            tunedLengthSpec("stub_m", coreText("core", "Length of the stub")),
            lengthSpec("stub_spacing_m", coreText("core", "Between its wires"), lengthGroup, {0.1, 0.004, 2.0}, {}, 0.006),
            lengthSpec("tap_m", coreText("core", "Tap above the bridge"), feedGroup, {0.4, 0.002, 50.0},
                       coreText("core", "higher up the resistance is higher"), tapInWaves),
        };
        addPlace(all);
        return all;
    }

    void settle(AntennaShape& shape) const override
    {
        constexpr double apart = 6.0; // diameters
        double& spacing = shape.parameters["stub_spacing_m"];
        spacing = std::max(spacing, apart * shape.wire.diameter);
        shape.parameters["tap_m"] = std::max(shape.parameters["tap_m"], apart * shape.wire.diameter);
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"stub_m", coreText("core", "of stub"), shape.designFrequency},
                {"tap_m", coreText("core", "up to the tap"), shape.designFrequency}};
    }
    TuneGoal usualGoal() const override { return TuneGoal::LowestSwr; }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        if (length.parameter == "tap_m")
            return {{coreText("core", "a part of the wave"), coreText("core", "about a fifteenth of the stub for 50 ohm"), 0.0, 0.0,
                     tapInWaves * wavelength(length.frequency)}};
        return {feetRule("238 / f", coreText("core", "a quarter wave of bare two-wire line"), 238.0, 1.0, length.frequency)};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"radiator_m", coreText("core", "the radiator's end"), LeverKind::Cut, LeverSide::OpenEnd, 1},
                {"tap_m", coreText("core", "the tap"), LeverKind::Slide, LeverSide::Feed, 1},
                {"stub_m", coreText("core", "the bridge"), LeverKind::Slide, LeverSide::Feed, 1}};
    }
    std::vector<Part> parts() const override { return {{"radiator", coreText("core", "Radiator")}, {"leads", coreText("core", "Leads")}}; }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return std::nullopt; }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const double stub = value(shape, "stub_m"), tap = value(shape, "tap_m"), spacing = value(shape, "stub_spacing_m");
        if (tap >= 0.9 * stub)
            return Fault{
                "tap_m",
                {coreText("core", "the stub is %1 long; the tap belongs near its bridge"), Measure{stub, units::Quantity::Length}}};
        if (spacing < 1.5 * (shape.wire.diameter + 2.0 * shape.wire.jacket))
            return Fault{"stub_spacing_m", coreText("core", "the two wires would touch; space them wider")};
        const double radiator = value(shape, "radiator_m");
        const Vec3 foot{value(shape, "x_m"), value(shape, "y_m"), value(shape, "base_height_m")}, up{0.0, 0.0, 1.0},
            aside = spacing * towards(value(shape, "bearing_deg"));
        const Vec3 tapHere = foot + tap * up, tapThere = tapHere + aside, top = foot + (stub + radiator) * up,
                   open = foot + stub * up + aside;
        const WireChoice& wire = wireOf(shape, "radiator");
        BuiltAntenna out;
        out.model.wires = {makeWire(wireOf(shape, "leads"), "leads to the tap", {tapHere, tapThere}),
                           makeWire(wire, "bridge", {tapHere, foot, foot + aside, tapThere}), makeWire(wire, "radiator", {tapHere, top}),
                           makeWire(wire, "stub's other side", {tapThere, open})};
        out.model.feeds = {{0, 0.5 * spacing, 1.0}};
        out.feedPoint = 0.5 * (tapHere + tapThere);
        out.handles = {{coreText("core", "top"), top, {"radiator_m"}},
                       {coreText("core", "stub's end"), open, {"stub_m"}},
                       {coreText("core", "bridge"), foot, {"base_height_m"}},
                       {coreText("core", "tap"), tapHere, {"tap_m"}}};
        out.dimensions = {{foot + stub * up, top, "radiator_m"}, {foot + aside, open, "stub_m"}};
        out.insulators = {top};
        out.sections = {
            {coreText("core", "radiator with its side of the stub"), 1, radiator + stub, WireEnd::Joint, WireEnd::Insulator},
            {coreText("core", "stub's other side with the bridge"), 1, stub + spacing, WireEnd::Joint, WireEnd::Insulator, false},
            {coreText("core", "leads to the tap"), 1, spacing, WireEnd::Joint, WireEnd::Joint, false}};
        return out;
    }
};

} // namespace

const Family& stubVerticalFamily()
{
    static const StubVertical family;
    return family;
}

} // namespace vetchling::shapes

/// Verticals for two bands: a coil or a trap parts the upper band's quarter wave from the rest.
#include "core/shapes/loading.h"
#include "core/shapes/stand.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double secondBand = 0.5; // of the design frequency

/// A lower part for the upper band, something in between, and an upper part.
class TwoBandVertical : public Family {
public:
    std::vector<Part> parts() const override { return standParts(); }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return std::nullopt; }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        constexpr double radialInWaves = 0.33; // between a quarter wave of the upper and of the lower band
        std::vector<ParameterSpec> all = standParameters();
        for (ParameterSpec& s : all)
            if (s.key == "radial_m")
                s.scaled = radialInWaves;
        all.insert(all.begin() + 2, tunedLengthSpec("lower_m", coreText("core", "Part below the coil")));
        all.insert(all.begin() + 3,
                   lengthSpec("upper_m", coreText("core", "Part above the coil"), lengthGroup, {3.0, 0.02, 500.0}, {}, upperInWaves()));
        all.insert(all.begin() + 4, frequencySpec("frequency_2_Hz", coreText("core", "Lower band"), lengthGroup, secondBand));
        all.push_back(sizeSpec("upper_diameter_m", coreText("core", "Upper part's diameter"), lengthGroup, {0.0, 0.0, 0.3},
                               coreText("core", "0: as the lower part")));
        addVehicleSpecs(all, shape);
        return all;
    }

    std::string layout(const AntennaShape& shape) const override { return vehicleLayout(shape); }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const double lower = value(shape, "lower_m"), upper = value(shape, "upper_m"), wire = wireOf(shape, "radiator").diameter;
        const double thin = value(shape, "upper_diameter_m") > 0.0 ? value(shape, "upper_diameter_m") : wire;
        const CoilSize size = coilSizeOf(*this, shape);
        if (Faults faults = findSizeFaults(size, lower, upper, std::max(wire, thin)); !faults.empty())
            return faults;
        const Vec3 base = baseOf(*this, shape), top = base + Vec3{0.0, 0.0, lower + upper}, coil = base + Vec3{0.0, 0.0, lower};
        const bool stepped = thin != wire;
        const Vec3 step = coil - Vec3{0.0, 0.0, 0.5 * size.length}; // the coil stands on the lower part
        BuiltAntenna out = standing(makeWire(wireOf(shape, "radiator"), "radiator", {base, stepped ? step : top}), base);
        if (stepped) {
            WireChoice choice = wireOf(shape, "radiator");
            choice.diameter = thin;
            out.model.wires.push_back(makeWire(choice, "upper part", {step, top}));
        }
        addParting(shape, out, stepped ? 1 : 0, stepped ? 0.5 * size.length : lower);
        out.sections = {{coreText("core", "lower part"), 1, lower - 0.5 * size.length, WireEnd::Centre, WireEnd::Coil},
                        {coreText("core", "upper part"), 1, upper - 0.5 * size.length, WireEnd::Coil, WireEnd::Insulator, true, 0.0,
                         stepped ? thin : 0.0}};
        if (Faults faults = addRadials(*this, shape, out); !faults.empty())
            return faults;
        out.handles.push_back({coreText("core", "top"), top, {"upper_m"}});
        out.handles.push_back({coreText("core", "coil"), coil, {"lower_m"}});
        out.handles.push_back({coreText("core", "base"), base, {"base_height_m"}});
        out.dimensions.push_back({base, coil, "lower_m"});
        out.dimensions.push_back({coil, top, "upper_m"});
        return out;
    }

protected:
    virtual double upperInWaves() const = 0;
    virtual void addParting(const AntennaShape& shape, BuiltAntenna& out, std::size_t wire, double at) const = 0;
};

class TwoBandWhip final : public TwoBandVertical {
public:
    std::string id() const override { return "two-band-whip"; }
    std::string title() const override { return coreText("core", "Two-band whip"); }
    std::string summary() const override
    {
        return coreText("core", "A coil ends the upper band's quarter wave and loads all of it on the lower band.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = TwoBandVertical::parameters(shape);
        all.push_back(inductanceSpec("inductance_H", coreText("core", "Coil between the parts"), coilsGroup, {30e-6, 1e-9, 5e-3}));
        addCoilSpecs(all);
        return all;
    }

    /// Low on the upper band, the coil with the part above it; on the lower band all of it, loaded.
    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"lower_m", coreText("core", "of the lower part"), shape.designFrequency},
                {"inductance_H", coreText("core", "in the coil"), value(shape, "frequency_2_Hz")}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        if (length.parameter == "lower_m") {
            std::vector<RuleOfThumb> quarter = quarterWaveRules(length.frequency);
            quarter.front().assumption = coreText("core", "a quarter wave below the coil, as if nothing were above it");
            return quarter;
        }
        const double lower = value(shape, "lower_m");
        return {coilRule({lower + value(shape, "upper_m"), lower, wireOf(shape, "radiator").diameter, value(shape, "upper_diameter_m")},
                         length.frequency)};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"lower_m", coreText("core", "the lower part, at the coil"), LeverKind::Cut, LeverSide::Middle, 1},
                {"upper_m", coreText("core", "the end"), LeverKind::Cut, LeverSide::OpenEnd, 1},
                {"inductance_H", coreText("core", "the coil"), LeverKind::Tap, LeverSide::Middle, 1}};
    }

protected:
    double upperInWaves() const override { return 0.08; }
    void addParting(const AntennaShape& shape, BuiltAntenna& out, std::size_t wire, double at) const override
    {
        addSeriesCoil(out, wire, at, value(shape, "inductance_H"), value(shape, "coil_q"), coilSizeOf(*this, shape));
    }
};

class TrapVertical final : public TwoBandVertical {
public:
    std::string id() const override { return "trap-vertical"; }
    std::string title() const override { return coreText("core", "Trap vertical"); }
    std::string summary() const override
    {
        return coreText("core", "A quarter wave on two bands: a trap ends the radiator on the upper one.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = TwoBandVertical::parameters(shape);
        for (ParameterSpec& s : all) {
            if (s.key == "lower_m")
                s.label = coreText("core", "Part below the trap");
            if (s.key == "upper_m")
                s.label = coreText("core", "Part above the trap");
        }
        all.push_back(frequencySpec("trap_Hz", coreText("core", "Trap resonant at"), coilsGroup, 0.985,
                                    coreText("core", "a little below the upper band it loses less")));
        all.push_back(inductanceSpec("trap_inductance_H", coreText("core", "Coil of the trap"), coilsGroup, {6e-6, 1e-9, 1e-3}));
        addCoilSpecs(all);
        return all;
    }

    void settle(AntennaShape& shape) const override
    {
        constexpr double reactance = 270.0; // ohm
        shape.parameters["trap_inductance_H"] = reactance / (2.0 * pi * shape.designFrequency);
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"lower_m", coreText("core", "below the trap"), shape.designFrequency},
                {"upper_m", coreText("core", "above the trap"), value(shape, "frequency_2_Hz")}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        if (length.parameter == "lower_m")
            return quarterWaveRules(length.frequency);
        return {{coreText("core", "a part of the wave"), coreText("core", "a trap of some 270 ohm; the bands an octave apart"), 0.0, 0.0,
                 upperInWaves() * wavelength(shape.designFrequency)}};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"lower_m", coreText("core", "the lower part, at the trap"), LeverKind::Cut, LeverSide::Middle, 1},
                {"upper_m", coreText("core", "the end"), LeverKind::Cut, LeverSide::OpenEnd, 1}};
    }

protected:
    double upperInWaves() const override { return 0.22; }
    void addParting(const AntennaShape& shape, BuiltAntenna& out, std::size_t wire, double at) const override
    {
        addTrap(out, wire, at, value(shape, "trap_inductance_H"), value(shape, "trap_Hz"), value(shape, "coil_q"),
                coilSizeOf(*this, shape));
    }
};

} // namespace

const Family& twoBandWhipFamily()
{
    static const TwoBandWhip family;
    return family;
}

const Family& trapVerticalFamily()
{
    static const TrapVertical family;
    return family;
}

} // namespace vetchling::shapes

/// End-fed half-wave with a coil and a tail at its far end, which add a lower band.
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/end_fed_parts.h"
#include "core/shapes/loading.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

constexpr double lowerBand = 0.5;     // of the design frequency
constexpr double tailInWaves = 0.055; // of the design frequency's wavelength

class EndFedTail final : public Family {
public:
    std::string id() const override { return "end-fed-tail"; }
    /// Coil and tail add a band about an octave below.
    bool suits(double low, double high) const override { return high > 1.6 * low && high < 2.4 * low; }
    Multiples multiples() const override { return Multiples::All; }
    std::string title() const override { return coreText("core", "End-fed with coil and tail"); }
    std::string summary() const override
    {
        return coreText("core", "An end-fed half-wave whose coil and tail at the far end add a band an octave below.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = endFedHeights();
        all.push_back(tunedLengthSpec("length_m", coreText("core", "Wire up to the coil")));
        all.push_back(frequencySpec("frequency_2_Hz", coreText("core", "Added lower band"), lengthGroup, lowerBand));
        all.push_back(lengthSpec("tail_m", coreText("core", "Tail beyond the coil"), lengthGroup, {2.1, 0.01, 1000.0}, {}, tailInWaves));
        all.push_back(inductanceSpec("inductance_H", coreText("core", "Coil"), coilsGroup, {118e-6, 1e-9, 0.1},
                                     coreText("core", "large enough to end the wire on the upper bands")));
        addCoilSpecs(all);
        addEndFedFeed(all, 49.0);
        return all;
    }

    /// The coil is some 5 kilohm on the upper band, so that the wire ends there.
    void settle(AntennaShape& shape) const override
    {
        constexpr double chokes = 5000.0; // ohm
        shape.parameters["inductance_H"] = chokes / (2.0 * pi * shape.designFrequency);
        lowerToReach(*this, shape, "length_m", {"end_height_m"});
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"length_m", coreText("core", "of wire up to the coil"), shape.designFrequency},
                {"tail_m", coreText("core", "of the tail"), value(shape, "frequency_2_Hz")}};
    }
    TuneGoal usualGoal() const override { return TuneGoal::LowestSwr; }

    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        if (length.parameter == "length_m")
            return {feetRule("468 / f", coreText("core", "as without coil and tail"), 468.0, 1.0, length.frequency)};
        return {{coreText("core", "a part of the wave"), coreText("core", "with a coil of some 5 kilohm on the upper band"), 0.0, 0.0,
                 tailInWaves * wavelength(shape.designFrequency)}};
    }

    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"length_m", coreText("core", "the wire at the coil"), LeverKind::Cut, LeverSide::Middle, 1},
                {"tail_m", coreText("core", "the tail's end"), LeverKind::Cut, LeverSide::OpenEnd, 1},
                {"inductance_H", coreText("core", "the coil"), LeverKind::Tap, LeverSide::Middle, 1}};
    }
    std::vector<Part> parts() const override { return endFedParts(); }
    std::vector<Text> remarks(const AntennaShape& shape) const override { return returnRemarks(shape); }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return 1; }

    std::optional<AntennaShape> flipped(const AntennaShape& shape) const override { return straightFlipped(*this, shape); }
    std::optional<AntennaShape> between(const AntennaShape& shape, const Hook& from, const Hook& to) const override
    {
        return endFedBetween(*this, shape, from, to);
    }
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        return straightHung(*this, shape, std::min<std::size_t>(handle, 1), hook, value(shape, "length_m") + value(shape, "tail_m"));
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const double length = v("length_m"), tail = v("tail_m");
        std::vector<Vec3> points{{v("x_m"), v("y_m"), v("feed_height_m")}};
        if (Faults f = addRun(points, length + tail, v("end_height_m"), v("bearing_deg"), "end_height_m"); !f.empty())
            return f;
        const CoilSize size = coilSizeOf(*this, shape);
        if (Faults faults = findSizeFaults(size, length, tail, wireOf(shape, "wire").diameter); !faults.empty())
            return faults;
        BuiltAntenna out = endFedFrame(*this, shape, points, halfWaveFeedImpedance);
        addSeriesCoil(out, 0, length, v("inductance_H"), v("coil_q"), size);
        const Vec3 coil = out.model.wires[0].pointAt(length);
        out.handles.push_back({coreText("core", "far end"), points[1], {"end_height_m", "tail_m"}});
        out.handles.push_back({coreText("core", "coil"), coil, {"length_m"}});
        out.dimensions = {{points[0], coil, "length_m"}, {coil, points[1], "tail_m"}};
        out.insulators = {points[1]};
        out.sections = {{coreText("core", "wire up to the coil"), 1, length - 0.5 * size.length, WireEnd::Transformer, WireEnd::Coil},
                        {coreText("core", "tail"), 1, tail - 0.5 * size.length, WireEnd::Coil, WireEnd::Insulator}};
        addCounterpoiseSection(*this, shape, out);
        return out;
    }
};

} // namespace

AntennaShape endFedWithTail(const AntennaShape& shape, double lowerFrequency)
{
    const Family& family = endFedTailFamily();
    AntennaShape out = shape;
    out.family = family.id();
    out.parameters.clear();
    for (const ParameterSpec& spec : family.parameters(out))
        if (shape.parameters.contains(spec.key))
            out.parameters[spec.key] = shape.parameters.at(spec.key);
    out.parameters["frequency_2_Hz"] = lowerFrequency;
    out.parameters["tail_m"] = tailInWaves * wavelength(shape.designFrequency);
    family.settle(out);
    return out;
}

const Family& endFedTailFamily()
{
    static const EndFedTail family;
    return family;
}

} // namespace vetchling::shapes

/// Wires of one to many wavelengths: fed at an end, a V of two fed at its point, and one that ends in a resistor.
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/end_fed_parts.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double earthTailInWaves = 0.24; // of the wire behind a resistor, in place of an earth connection

/// N half waves with end effect on the two end ones only: 492 (N - 0.05) / f in feet (Terman 1943, sec. 11).
RuleOfThumb halfWavesRule(double halfWaves, double frequency)
{
    constexpr double halfWave = 492.0, ends = 0.05;
    return feetRule(std::to_string(int(std::lround(halfWaves))) + " x 492 / f",
                    coreText("core", "whole half waves, 5 % of one taken off for the ends"), halfWave * (halfWaves - ends), 1.0, frequency);
}

ParameterSpec halfWaveCount(double standard)
{
    return numberSpec("half_waves", coreText("core", "Half waves of wire"), lengthGroup, {standard, 1.0, 80.0},
                      coreText("core", "what the rule and the tuning aim at"));
}

/// Fed at an end through a transformer, straight to the far end.
class LongEndFed : public Family {
public:
    TuneGoal usualGoal() const override { return TuneGoal::LowestSwr; }
    void settle(AntennaShape& shape) const override { lowerToReach(*this, shape, "length_m", {"end_height_m"}); }
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
        return straightHung(*this, shape, handle, hook, whole(shape));
    }

protected:
    /// Of all that hangs, m.
    [[nodiscard]] virtual double whole(const AntennaShape& shape) const { return value(shape, "length_m"); }
};

class LongWire final : public LongEndFed {
public:
    std::string id() const override { return "long-wire"; }
    Multiples multiples() const override { return Multiples::All; }
    std::string title() const override { return coreText("core", "Long wire"); }
    std::string summary() const override
    {
        return coreText(
            "core",
            "Several half waves of wire fed at an end through a transformer; the longer, the nearer to its own direction it fires.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = endFedHeights();
        all.push_back(tunedLengthSpec("length_m", coreText("core", "Length of wire")));
        all.push_back(halfWaveCount(4.0));
        addEndFedFeed(all, 9.0, 8.0);
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"length_m", coreText("core", "of wire"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        return {halfWavesRule(value(shape, "half_waves"), length.frequency)};
    }
    std::vector<Lever> levers(const AntennaShape& shape) const override
    {
        std::vector<Lever> all{{"length_m", coreText("core", "the end"), LeverKind::Cut, LeverSide::OpenEnd, 1}};
        addCounterpoiseLever(shape, all);
        return all;
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        constexpr double usualImpedance = 450.0; // ohm
        const double length = value(shape, "length_m");
        std::vector<Vec3> points{{value(shape, "x_m"), value(shape, "y_m"), value(shape, "feed_height_m")}};
        if (Faults f = addRun(points, length, value(shape, "end_height_m"), value(shape, "bearing_deg"), "end_height_m"); !f.empty())
            return f;
        BuiltAntenna out = endFedFrame(*this, shape, points, usualImpedance);
        out.handles.push_back({coreText("core", "far end"), points[1], {"end_height_m", "length_m"}});
        out.dimensions = {{points[0], points[1], "length_m"}};
        out.insulators = {points[1]};
        out.sections = {{coreText("core", "wire"), 1, length, WireEnd::Transformer, WireEnd::Insulator}};
        addCounterpoiseSection(*this, shape, out);
        return out;
    }
};

class TerminatedWire final : public LongEndFed {
public:
    std::string id() const override { return "terminated-wire"; }
    bool isForAnyBand() const override { return true; }
    std::string title() const override { return coreText("core", "Terminated wire"); }
    std::string summary() const override
    {
        return coreText("core",
                        "A long wire that ends in a resistor: nearly the same impedance everywhere, one direction, half the power lost.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = endFedHeights();
        all.push_back(lengthSpec("length_m", coreText("core", "Wire up to the resistor"), lengthGroup, {40.0, 0.1, 5000.0}, {}, 1.0));
        all.push_back(numberSpec("termination_ohm", coreText("core", "Resistor, ohm"), lengthGroup, {450.0, 1.0, 5000.0}));
        all.push_back(lengthSpec("tail_m", coreText("core", "Wire beyond it"), lengthGroup, {10.0, 0.02, 5000.0},
                                 coreText("core", "a quarter wave in place of an earth connection"), earthTailInWaves));
        addEndFedFeed(all, 9.0, 8.0);
        for (ParameterSpec& s : all)
            if (s.key == "counterpoise_m")
                s.scaled = earthTailInWaves;
        return all;
    }

    /// What is sought is the resistor that keeps the wire's current from coming back.
    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"tail_m", coreText("core", "beyond the resistor"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return {
            feetRule("234 / f", coreText("core", "a quarter wave, which earths the resistor on its band"), 234.0, 1.0, length.frequency)};
    }
    std::vector<Lever> levers(const AntennaShape& shape) const override
    {
        std::vector<Lever> all{{"tail_m", coreText("core", "the end beyond the resistor"), LeverKind::Cut, LeverSide::OpenEnd, 1}};
        addCounterpoiseLever(shape, all);
        return all;
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        constexpr double usualImpedance = 450.0; // ohm
        const double length = value(shape, "length_m"), tail = value(shape, "tail_m");
        std::vector<Vec3> points{{value(shape, "x_m"), value(shape, "y_m"), value(shape, "feed_height_m")}};
        if (Faults f = addRun(points, length + tail, value(shape, "end_height_m"), value(shape, "bearing_deg"), "end_height_m"); !f.empty())
            return f;
        BuiltAntenna out = endFedFrame(*this, shape, points, usualImpedance);
        Load resistor;
        resistor.at = length;
        resistor.resistance = value(shape, "termination_ohm");
        out.model.loads.push_back(resistor);
        const Vec3 at = out.model.wires[0].pointAt(length);
        out.resistors.push_back({at, unit(points[1] - points[0])});
        out.handles.push_back({coreText("core", "far end"), points[1], {"end_height_m", "tail_m"}});
        out.handles.push_back({coreText("core", "resistor"), at, {"length_m"}});
        out.dimensions = {{points[0], at, "length_m"}, {at, points[1], "tail_m"}};
        out.insulators = {points[1]};
        out.sections = {{coreText("core", "wire up to the resistor"), 1, length, WireEnd::Transformer, WireEnd::Joint, false},
                        {coreText("core", "wire beyond it"), 1, tail, WireEnd::Joint, WireEnd::Insulator}};
        addCounterpoiseSection(*this, shape, out);
        return out;
    }

protected:
    double whole(const AntennaShape& shape) const override { return value(shape, "length_m") + value(shape, "tail_m"); }
};

class LongV final : public Family {
public:
    std::string id() const override { return "long-v"; }
    bool isForAnyBand() const override { return true; }
    std::string title() const override { return coreText("core", "V of two long wires"); }
    std::string summary() const override
    {
        return coreText("core",
                        "Two long legs that open so far that their lobes fall together; with resistors at the ends in one direction only.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(12.0, 12.0);
        std::erase_if(all, [](const ParameterSpec& s) { return s.key == "second_end_m"; });
        for (ParameterSpec& s : all)
            if (s.key == "opening_deg")
                s.standard = 75.0;
        all.push_back(halfWaveCount(3.0));
        all.push_back(numberSpec("termination_ohm", coreText("core", "Resistor at each end, ohm"), lengthGroup, {0.0, 0.0, 5000.0},
                                 coreText("core", "0 for none; a quarter wave beyond it takes the place of an earth connection")));
        all.push_back(
            lengthSpec("tail_m", coreText("core", "Wire beyond a resistor"), lengthGroup, {10.0, 0.02, 5000.0}, {}, earthTailInWaves));
        all.push_back(transformerRatio(2.0));
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"leg_m", coreText("core", "a leg"), shape.designFrequency}};
    }
    /// Each leg an odd number of quarter waves, so that its point carries the current.
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        RuleOfThumb rule = halfWavesRule(std::max(1.0, value(shape, "half_waves")) - 0.5 + 0.025, length.frequency);
        rule.assumption = coreText("core", "so many half waves less a quarter wave, so that the current is strong at the point");
        return {rule};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"leg_m", coreText("core", "each leg"), LeverKind::Cut, LeverSide::OpenEnd, 2},
                {"opening_deg", coreText("core", "the angle between the legs"), LeverKind::Angle, LeverSide::OpenEnd, 1}};
    }

    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        const double leg = value(shape, "leg_m") + (terminated(shape) ? value(shape, "tail_m") : 0.0);
        return dipoleHung(*this, shape, handle, hook, {leg, leg});
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const double leg = value(shape, "leg_m"), tail = terminated(shape) ? value(shape, "tail_m") : 0.0;
        AntennaShape whole = shape;
        whole.parameters["leg_m"] = leg + tail;
        const Result<DipoleGeometry> g = dipoleGeometry(*this, whole);
        if (!g)
            return g.faults();
        BuiltAntenna out = dipoleFrame(*g, shape);
        out.transformer = transformer(value(shape, "transformer_ratio"));
        constexpr double usualImpedance = 120.0; // ohm
        out.portReference = usualImpedance;
        out.sections = {{coreText("core", "leg"), 2, leg, WireEnd::Centre, tail > 0.0 ? WireEnd::Joint : WireEnd::Insulator}};
        if (tail > 0.0)
            terminate(shape, *g, leg, tail, out);
        return out;
    }

private:
    bool terminated(const AntennaShape& shape) const { return value(shape, "termination_ohm") > 0.0; }

    void terminate(const AntennaShape& shape, const DipoleGeometry& g, double leg, double tail, BuiltAntenna& out) const
    {
        for (int side : {0, 1}) {
            Load resistor;
            resistor.at = side == 0 ? tail : tail + 2.0 * leg;
            resistor.resistance = value(shape, "termination_ohm");
            out.model.loads.push_back(resistor);
            out.resistors.push_back({g.alongLeg(side, leg), unit(g.alongLeg(side, leg) - g.centre)});
        }
        out.sections.push_back({coreText("core", "wire beyond a resistor"), 2, tail, WireEnd::Joint, WireEnd::Insulator, false});
    }
};

} // namespace

const Family& longWireFamily()
{
    static const LongWire family;
    return family;
}

const Family& terminatedWireFamily()
{
    static const TerminatedWire family;
    return family;
}

const Family& longVFamily()
{
    static const LongV family;
    return family;
}

} // namespace vetchling::shapes

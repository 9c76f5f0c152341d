/// Two end-fed half-waves on one transformer, each for a band of its own.
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/end_fed_parts.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double secondWireBand = 1.5;  // times the design frequency: an octave would find the first wire resonant too
constexpr double pairImpedance = 800.0; // ohm: on each band the other wire lies beside the half wave

class EndFedPair final : public Family {
public:
    std::string id() const override { return "end-fed-pair"; }
    Multiples multiples() const override { return Multiples::All; }
    std::string title() const override { return coreText("core", "Two end-feds, one feed"); }
    std::string summary() const override
    {
        return coreText("core",
                        "Two half-waves from one transformer, going apart; on each band the other one lies beside it and takes its share.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = endFedHeights();
        all.push_back(lengthSpec("second_end_height_m", coreText("core", "Height of second far end"), hangsGroup, {6.0, 0.05, 500.0}));
        all.push_back(tunedLengthSpec("length_m", coreText("core", "First wire")));
        all.push_back(frequencySpec("frequency_2_Hz", coreText("core", "Second wire for"), lengthGroup, secondWireBand));
        all.push_back(lengthSpec("length_2_m", coreText("core", "Second wire"), lengthGroup, {14.0, 0.02, 5000.0}));
        all.push_back(angleSpec("between_deg", coreText("core", "Angle between the wires in plan"), standsGroup, {90.0, 20.0, 180.0}));
        addEndFedFeed(all, 16.0);
        return all;
    }

    void settle(AntennaShape& shape) const override { lowerToReach(*this, shape, "length_2_m", {"end_height_m", "second_end_height_m"}); }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"length_m", coreText("core", "of the first wire"), shape.designFrequency},
                {"length_2_m", coreText("core", "of the second wire"), value(shape, "frequency_2_Hz")}};
    }
    TuneGoal usualGoal() const override { return TuneGoal::LowestSwr; }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return halfWaveRules(length.frequency, 1.0);
    }
    std::vector<Lever> levers(const AntennaShape& shape) const override
    {
        std::vector<Lever> all;
        for (const TunedLength& t : tuned(shape))
            all.push_back({t.parameter, t.name, LeverKind::Cut, LeverSide::OpenEnd, 1});
        return all;
    }
    std::vector<Part> parts() const override { return endFedParts(); }
    std::vector<Text> remarks(const AntennaShape& shape) const override { return returnRemarks(shape); }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return 1; }

    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        if (handle < 2)
            return straightHung(*this, shape, handle, hook, value(shape, "length_m"));
        AntennaShape turned = shape; // the second wire as if it were the first, then the first where it was
        turned.parameters["end_height_m"] = value(shape, "second_end_height_m");
        turned = straightHung(*this, turned, 1, hook, value(shape, "length_2_m"));
        AntennaShape next = shape;
        next.parameters["second_end_height_m"] = value(turned, "end_height_m");
        const double second = value(turned, "bearing_deg"), first = value(shape, "bearing_deg");
        const double between = std::fmod(second - first + 720.0, 360.0);
        next.parameters["between_deg"] = std::clamp(between, 20.0, 180.0);
        next.parameters["bearing_deg"] = second - value(next, "between_deg");
        return next;
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const Vec3 feed{v("x_m"), v("y_m"), v("feed_height_m")};
        std::vector<Vec3> first{feed}, second{feed};
        if (Faults f = addRun(first, v("length_m"), v("end_height_m"), v("bearing_deg"), "end_height_m"); !f.empty())
            return f;
        if (Faults f =
                addRun(second, v("length_2_m"), v("second_end_height_m"), v("bearing_deg") + v("between_deg"), "second_end_height_m");
            !f.empty())
            return f;
        BuiltAntenna out = endFedFrame(*this, shape, {feed, feed}, pairImpedance);
        // both wires hang on the transformer's one terminal: the feed sits in the counterpoise, at its root
        out.model.wires = {out.model.wires[1], makeWire(wireOf(shape, "wire"), "first wire", first),
                           makeWire(wireOf(shape, "wire"), "second wire", second)};
        if (out.shieldWire)
            out.shieldWire = 0;
        out.handles.push_back({coreText("core", "first far end"), first[1], {"end_height_m", "length_m"}});
        out.handles.push_back({coreText("core", "second far end"), second[1], {"second_end_height_m", "length_2_m"}});
        out.dimensions = {{feed, first[1], "length_m"}, {feed, second[1], "length_2_m"}};
        out.insulators = {first[1], second[1]};
        out.sections = {{coreText("core", "first wire"), 1, v("length_m"), WireEnd::Transformer, WireEnd::Insulator},
                        {coreText("core", "second wire"), 1, v("length_2_m"), WireEnd::Transformer, WireEnd::Insulator}};
        addCounterpoiseSection(*this, shape, out);
        return out;
    }
};

} // namespace

const Family& endFedPairFamily()
{
    static const EndFedPair family;
    return family;
}

} // namespace vetchling::shapes

/// Verticals taller than a quarter wave: half, five eighths and three quarters, and one of no particular length.
#include "core/shapes/loading.h"
#include "core/shapes/stand.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

/// An upright wire over radials; what differs is what makes it match.
class TallVertical : public ArmVertical {
public:
    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"radiator_m", coreText("core", "of radiator"), shape.designFrequency}};
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = standParameters();
        all.insert(all.begin() + 2, tunedLengthSpec("radiator_m", coreText("core", "Length of radiator")));
        addArmSpecs(all, kind(), shape);
        addVehicleSpecs(all, shape);
        return all;
    }

protected:
    const ArmKind& kind() const override
    {
        static const ArmKind kind = uprightArm();
        return kind;
    }
    void addMore(const AntennaShape& shape, BuiltAntenna& out) const override { match(shape, out); }
    virtual void match(const AntennaShape&, BuiltAntenna&) const {}

    static void addTransformer(std::vector<ParameterSpec>& all, double ratio, double lossPercent)
    {
        all.push_back(transformerRatio(ratio, 200.0));
        all.push_back(percentSpec("transformer_loss_percent", coreText("core", "Loss in the transformer"), feedGroup,
                                  {lossPercent, 0.0, 60.0}, coreText("core", "of the power, into a matched load")));
    }
    void takeTransformer(const AntennaShape& shape, BuiltAntenna& out) const
    {
        out.transformer = transformer(value(shape, "transformer_ratio"), value(shape, "transformer_loss_percent"));
    }
};

class HalfWaveVertical final : public TallVertical {
public:
    std::string id() const override { return "half-wave-vertical"; }
    Multiples multiples() const override { return Multiples::All; }
    std::string title() const override { return coreText("core", "Half-wave vertical"); }
    std::string summary() const override
    {
        return coreText("core", "Half a wave upright, fed at its foot through a transformer; short radials are enough.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = TallVertical::parameters(shape);
        for (ParameterSpec& s : all)
            if (s.key == "radial_m")
                s.scaled = 0.06;
        addTransformer(all, 49.0, 10.0);
        return all;
    }
    TuneGoal usualGoal() const override { return TuneGoal::LowestSwr; }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return {feetRule("468 / f", coreText("core", "half a wave, the radials not counted"), 468.0, 1.0, length.frequency)};
    }

protected:
    void match(const AntennaShape& shape, BuiltAntenna& out) const override
    {
        constexpr double usualImpedance = 2000.0; // ohm
        out.portReference = usualImpedance;
        out.highVoltageFeed = true;
        takeTransformer(shape, out);
    }
};

class FiveEighths final : public TallVertical {
public:
    std::string id() const override { return "five-eighths-vertical"; }
    std::string title() const override { return coreText("core", "Five-eighths vertical"); }
    std::string summary() const override
    {
        return coreText("core", "Five eighths of a wave with a coil at its base: the lowest angle of a single upright wire.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = TallVertical::parameters(shape);
        for (ParameterSpec& s : all)
            if (s.key == "radiator_m")
                s.scaled = 0.61;
        return all;
    }
    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"inductance_H", coreText("core", "in the coil"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        return {coilRule(lineOf(*this, kind(), shape), length.frequency)};
    }

protected:
    const ArmKind& kind() const override
    {
        static const ArmKind kind = [] {
            ArmKind k = uprightArm();
            k.coil = Has::Always;
            k.place = 0.0;
            k.henry = 3e-6;
            k.outer = k.whole;
            return k;
        }();
        return kind;
    }
};

class ThreeQuarters final : public TallVertical {
public:
    std::string id() const override { return "three-quarter-vertical"; }
    std::string title() const override { return coreText("core", "Three-quarter vertical"); }
    std::string summary() const override
    {
        return coreText("core", "A quarter wave on three times its frequency: near 50 ohm without a coil, but its lobe rises.");
    }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return {feetRule("720 / f", coreText("core", "three quarters of a wave, its one end 2 to 3 % short"), 720.0, 1.0, length.frequency),
                feetRule("738 / f", coreText("core", "three quarters of a wave in free space"), 738.0, 1.0, length.frequency)};
    }
};

class NonResonantVertical final : public TallVertical {
public:
    std::string id() const override { return "non-resonant-vertical"; }
    bool isForAnyBand() const override { return true; }
    std::string title() const override { return coreText("core", "Non-resonant vertical"); }
    std::string summary() const override
    {
        return coreText(
            "core", "An upright wire that is resonant on none of its bands, with a transformer that brings all within a tuner's range.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = TallVertical::parameters(shape);
        addTransformer(all, 9.0, 8.0);
        return all;
    }
    TuneGoal usualGoal() const override { return TuneGoal::LowestSwr; }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return {feetRule("394 / f", coreText("core", "0.4 of a wave: neither a quarter nor a half on the lowest band"), 394.0, 1.0,
                         length.frequency)};
    }

protected:
    void match(const AntennaShape& shape, BuiltAntenna& out) const override
    {
        constexpr double usualImpedance = 450.0; // ohm
        out.portReference = usualImpedance;
        takeTransformer(shape, out);
    }
};

} // namespace

const Family& halfWaveVerticalFamily()
{
    static const HalfWaveVertical family;
    return family;
}

const Family& fiveEighthsFamily()
{
    static const FiveEighths family;
    return family;
}

const Family& threeQuartersFamily()
{
    static const ThreeQuarters family;
    return family;
}

const Family& nonResonantVerticalFamily()
{
    static const NonResonantVertical family;
    return family;
}

} // namespace vetchling::shapes

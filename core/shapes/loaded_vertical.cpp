/// Vertical shorter than a quarter wave: a coil at its base, its middle or its top, a hat, or both.
#include "core/shapes/hat.h"
#include "core/shapes/loading.h"
#include "core/shapes/stand.h"

namespace vetchling::shapes {
namespace {

class LoadedVertical final : public Family {
public:
    std::string id() const override { return "loaded-vertical"; }
    std::string title() const override { return coreText("core", "Loaded vertical"); }
    std::string summary() const override
    {
        return coreText("core", "Too short for its band, made resonant by a coil at base, middle or top, with a hat if wanted.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = standParameters();
        all.insert(all.begin() + 2,
                   lengthSpec("radiator_m", coreText("core", "Length of radiator"), lengthGroup, {5.0, 0.02, 2000.0}, {}, 0.12));
        all.push_back(inductanceSpec("inductance_H", coreText("core", "Coil"), coilsGroup, {8e-6, 0.0, 5e-3}));
        all.push_back(percentSpec("coil_place_percent", coreText("core", "Coil up the radiator"), coilsGroup, {50.0, 0.0, 95.0},
                                  coreText("core", "0 is at the base, 100 at the top")));
        addCoilSpecs(all);
        addHat(all, 0.0, 0.02);
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"inductance_H", coreText("core", "in the coil"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        const double radiator = value(shape, "radiator_m"), hat = hatReach(value(shape, "hat_m"), value(shape, "hat_count"));
        return {coilRule({radiator + hat, radiator * 0.01 * value(shape, "coil_place_percent"), wireOf(shape, "radiator").diameter},
                         length.frequency)};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        std::vector<Lever> all = standLevers("radiator_m");
        all.push_back({"inductance_H", coreText("core", "the coil"), LeverKind::Tap, LeverSide::Middle, 1});
        return all;
    }
    std::vector<Part> parts() const override
    {
        std::vector<Part> all = standParts();
        all.push_back({"spokes", coreText("core", "Spokes")});
        return all;
    }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return std::nullopt; }

    std::vector<Trade> trades() const override { return {{"radiator_m", "inductance_H"}, {"coil_place_percent", "inductance_H"}}; }
    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const double radiator = value(shape, "radiator_m"), coil = radiator * 0.01 * value(shape, "coil_place_percent");
        const Vec3 base = baseOf(*this, shape), top = base + Vec3{0.0, 0.0, radiator};
        const CoilSize size = coilSizeOf(*this, shape);
        if (Faults faults = findSizeFaults(size, coil, radiator - coil, wireOf(shape, "radiator").diameter); !faults.empty())
            return faults;
        BuiltAntenna out = standing(makeWire(wireOf(shape, "radiator"), "radiator", {base, top}), base);
        addSeriesCoil(out, 0, coil, value(shape, "inductance_H"), value(shape, "coil_q"), size);
        if (coil > 0.0)
            out.sections.push_back(
                {coreText("core", "below the coil"), 1, coil - 0.5 * size.length, WireEnd::Centre, WireEnd::Coil, false});
        const bool hat = value(shape, "hat_count") >= 0.5;
        out.sections.push_back({coreText("core", "above the coil"), 1, radiator - coil - 0.5 * size.length, WireEnd::Coil,
                                hat ? WireEnd::Joint : WireEnd::Insulator});
        if (Faults faults = addRadials(*this, shape, out); !faults.empty())
            return faults;
        addHatAt(*this, shape, out, top, {0.0, 0.0, 1.0}, "");
        if (hat)
            out.sections.push_back(hatSection(*this, shape, 1));
        out.handles.push_back({coreText("core", "top"), top, {"radiator_m"}});
        out.handles.push_back({coreText("core", "base"), base, {"base_height_m"}});
        if (coil > 0.0)
            out.handles.push_back({coreText("core", "coil"), base + Vec3{0.0, 0.0, coil}, {"coil_place_percent"}});
        out.dimensions.push_back({base, top, "radiator_m"});
        return out;
    }
};

} // namespace

const Family& loadedVerticalFamily()
{
    static const LoadedVertical family;
    return family;
}

} // namespace vetchling::shapes

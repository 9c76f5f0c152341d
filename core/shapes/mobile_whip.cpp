/// Loaded whip on a vehicle: the body is a frame of wires above the soil, and counts.
#include "core/shapes/loading.h"
#include "core/shapes/stand.h"

#include <fmt/format.h>

#include <algorithm>

namespace vetchling::shapes {
namespace {

enum Mount { roof = 0, rear = 1 };

constexpr double bodyRadius = 0.02; // m: sheet metal as wires along its edges

class MobileWhip final : public Family {
public:
    std::string id() const override { return "mobile-whip"; }
    std::string title() const override { return coreText("core", "Whip on a vehicle"); }
    std::string summary() const override
    {
        return coreText("core", "A loaded whip against the body of a car, which stands insulated on its tyres above the soil.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all{
            choiceSpec("mount", coreText("core", "Mounted on"), hangsGroup,
                       {coreText("core", "the middle of the roof"), coreText("core", "the rear")}),
            lengthSpec("body_length_m", coreText("core", "Length of the body"), hangsGroup, {4.3, 0.5, 30.0}),
            lengthSpec("body_width_m", coreText("core", "Its width"), hangsGroup, {1.7, 0.3, 5.0}),
            lengthSpec("body_height_m", coreText("core", "Height of the roof"), hangsGroup, {1.5, 0.5, 6.0}),
            lengthSpec("body_clearance_m", coreText("core", "Body above the soil"), hangsGroup, {0.25, 0.1, 2.0}),
            lengthSpec("radiator_m", coreText("core", "Length of the whip"), lengthGroup, {2.4, 0.05, 20.0},
                       coreText("core", "above its mount"), 0.14),
            inductanceSpec("inductance_H", coreText("core", "Coil"), coilsGroup, {30e-6, 0.0, 5e-3}),
            percentSpec("coil_place_percent", coreText("core", "Coil up the whip"), coilsGroup, {30.0, 0.0, 95.0},
                        coreText("core", "0 is at its foot")),
        };
        addCoilSpecs(all);
        addPlace(all);
        return all;
    }

    /// A whip that a car can carry.
    void settle(AntennaShape& shape) const override
    {
        constexpr double tallest = 2.4; // m
        shape.parameters["radiator_m"] = std::min(shape.parameters["radiator_m"], tallest);
        shape.parameters["inductance_H"] = rules(shape, tuned(shape).front()).front().value;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"inductance_H", coreText("core", "in the coil"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        const double whip = value(shape, "radiator_m");
        return {coilRule({whip, whip * 0.01 * value(shape, "coil_place_percent"), wireOf(shape, "whip").diameter}, length.frequency)};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"radiator_m", coreText("core", "the whip's end"), LeverKind::Slide, LeverSide::OpenEnd, 1},
                {"inductance_H", coreText("core", "the coil"), LeverKind::Tap, LeverSide::Middle, 1}};
    }
    std::vector<Part> parts() const override { return {{"whip", coreText("core", "Whip")}, {"body", coreText("core", "Body")}}; }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return std::nullopt; }

    std::vector<Trade> trades() const override { return {{"radiator_m", "inductance_H"}}; }
    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        if (value(shape, "body_height_m") < value(shape, "body_clearance_m") + 0.3)
            return Fault{"body_height_m", coreText("core", "the roof must lie at least 30 cm above the underside")};
        const Vec3 foot = at(shape, value(shape, "mount") < 0.5 ? 0.0 : -0.5, 0.0, true);
        const double whip = value(shape, "radiator_m"), coil = whip * 0.01 * value(shape, "coil_place_percent");
        const Vec3 tip = foot + Vec3{0.0, 0.0, whip};
        const CoilSize size = coilSizeOf(*this, shape);
        if (Faults faults = findSizeFaults(size, coil, whip - coil, wireOf(shape, "whip").diameter); !faults.empty())
            return faults;
        BuiltAntenna out = standing(makeWire(wireOf(shape, "whip"), "whip", {foot, tip}), foot);
        addSeriesCoil(out, 0, coil, value(shape, "inductance_H"), value(shape, "coil_q"), size);
        if (coil > 0.0)
            out.sections.push_back({coreText("core", "below the coil"), 1, coil - 0.5 * size.length, WireEnd::Tube, WireEnd::Coil, false});
        out.sections.push_back({coreText("core", "above the coil"), 1, whip - coil - 0.5 * size.length, WireEnd::Coil, WireEnd::Tube});
        addBody(shape, out);
        out.handles = {{coreText("core", "tip"), tip, {"radiator_m"}},
                       {coreText("core", "roof"), at(shape, 0.5, 0.0, true), {"body_height_m", "body_length_m"}}};
        out.dimensions = {{foot, tip, "radiator_m"}};
        return out;
    }

private:
    /// A point of the body. @param along, across parts of its length (forwards) and width from its middle
    Vec3 at(const AntennaShape& shape, double along, double across, bool top) const
    {
        const Vec3 ahead = towards(value(shape, "bearing_deg")), right = towards(value(shape, "bearing_deg") + 90.0);
        return Vec3{value(shape, "x_m"), value(shape, "y_m"), value(shape, top ? "body_height_m" : "body_clearance_m")} +
               along * value(shape, "body_length_m") * ahead + across * value(shape, "body_width_m") * right;
    }

    /// Edges of roof and underside, cross members where the whip may stand, and pillars.
    void addBody(const AntennaShape& shape, BuiltAntenna& out) const
    {
        WireChoice sheet = wireOf(shape, "body");
        sheet.diameter = 2.0 * bodyRadius;
        sheet.jacket = 0.0;
        const auto add = [&](std::vector<Vec3> points) {
            const std::size_t edge = out.model.wires.size();
            out.model.wires.push_back(makeWire(sheet, fmt::format("body {}", edge), std::move(points)));
            out.notCut += out.model.wires.back().length();
        };
        for (bool top : {true, false})
            for (double across : {-0.5, 0.5})
                add({at(shape, -0.5, across, top), at(shape, 0.0, across, top), at(shape, 0.5, across, top)});
        for (double along : {-0.5, 0.0, 0.5})
            add({at(shape, along, -0.5, true), at(shape, along, 0.0, true), at(shape, along, 0.5, true)});
        for (double along : {-0.5, 0.5})
            add({at(shape, along, -0.5, false), at(shape, along, 0.5, false)});
        add({at(shape, -0.5, 0.0, true), at(shape, 0.0, 0.0, true), at(shape, 0.5, 0.0, true)});
        for (double along : {-0.5, 0.0, 0.5})
            for (double across : {-0.5, 0.5})
                add({at(shape, along, across, true), at(shape, along, across, false)});
    }
};

} // namespace

const Family& mobileWhipFamily()
{
    static const MobileWhip family;
    return family;
}

} // namespace vetchling::shapes

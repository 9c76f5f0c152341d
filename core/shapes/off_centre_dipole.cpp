/// Half a wave fed away from its middle, where the resistance is higher and several bands find it alike.
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/end_fed_parts.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

class OffCentreDipole final : public DipoleFamily {
public:
    std::string id() const override { return "off-centre-dipole"; }
    Multiples multiples() const override { return Multiples::All; }
    std::string title() const override { return coreText("core", "Off-centre-fed dipole"); }
    std::string summary() const override
    {
        return coreText("core", "Half a wave fed a fifth to a third of the way along, through a transformer, for its even multiples too.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all = dipoleParameters(10.0, 10.0);
        std::erase_if(all, [](const ParameterSpec& s) { return s.key == "leg_m"; });
        all.push_back({"length_m", coreText("core", "Length of wire"), lengthGroup, Quantity::Length, 20.1, 0.04, 4000.0, {}, {}});
        all.push_back({"feed_percent",
                       coreText("core", "Feed from the first end at"),
                       feedGroup,
                       Quantity::Percent,
                       20.0,
                       5.0,
                       95.0,
                       {},
                       coreText("core", "of the wire; 50 is the middle, and a third is dead on every third multiple")});
        all.push_back(choiceSpec("return_kind", coreText("core", "The coax is choked"), feedGroup,
                                 {coreText("core", "at the transformer"), coreText("core", "where Feed has its choke")},
                                 coreText("core", "farther down, its outside up to there is part of the antenna")));
        all.back().standard = 1.0;
        addShieldSpecs(all);
        all.push_back(transformerRatio(4.0));
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"length_m", coreText("core", "of wire"), shape.designFrequency}};
    }

    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return halfWaveRules(length.frequency, 1.0); // the place of the feed changes little
    }

    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"length_m", coreText("core", "the wire, both sides in their proportion"), LeverKind::Cut, LeverSide::OpenEnd, 1}};
    }

    /// The longer side where the shorter one was.
    std::optional<AntennaShape> flipped(const AntennaShape& shape) const override
    {
        AntennaShape next = shape;
        next.parameters["feed_percent"] = 100.0 - value(shape, "feed_percent");
        return next;
    }

    std::vector<Text> remarks(const AntennaShape& shape) const override
    {
        if (!followsFeedLine(shape))
            return {};
        if (shape.shield.length <= 0.0)
            return {coreText("core", "Its coax is taken as choked at the transformer: neither line nor choke is drawn under Feed.")};
        if (shape.shield.toChoke)
            return {};
        return {{coreText("core", "No choke is drawn under Feed: the outside of the coax is part of the antenna as far as the radio, %1."),
                 Measure{shape.shield.length, units::Quantity::Length}}};
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const Vec3 feed{v("x_m"), v("y_m"), v("apex_height_m")};
        const std::array<double, 2> leg = sides(shape);
        const Result<Vec3> a = legEnd(feed, leg[0], v("end_height_m"), v("bearing_deg"));
        const Result<Vec3> b = legEnd(feed, leg[1], v("end_height_m") + v("second_end_m"), v("bearing_deg") + v("opening_deg"));
        if (!a || !b)
            return a ? b.faults() : a.faults();
        BuiltAntenna out;
        constexpr double beside = 0.05; // m: a shield is tied to one terminal
        const bool shielded = shieldActs(shape);
        const Vec3 terminal = feed + std::min(beside, 0.02 * leg[1]) * unit(*b - feed);
        out.model.wires.push_back(
            makeWire(shape.wire, "wire", shielded ? std::vector<Vec3>{*a, feed, terminal, *b} : std::vector<Vec3>{*a, feed, *b}));
        if (shielded) {
            out.shieldWire = out.model.wires.size();
            out.model.wires.push_back(shieldFrom(*this, shape, terminal));
            out.notCut += out.model.wires.back().length();
        }
        out.model.feeds.push_back({0, leg[0], 1.0});
        out.feedPoint = feed;
        out.transformer = transformer(v("transformer_ratio"));
        constexpr double usualImpedance = 200.0; // ohm
        out.portReference = usualImpedance;
        out.handles = {{coreText("core", "feed"), feed, {"apex_height_m"}},
                       {coreText("core", "first end"), *a, {"end_height_m", "length_m"}},
                       {coreText("core", "second end"), *b, {"end_height_m", "length_m"}}};
        out.dimensions = {{feed, *a, "length_m"}, {feed, *b, "length_m"}};
        out.insulators = {*a, *b};
        out.sections = {{coreText("core", "first side"), 1, leg[0], WireEnd::Centre, WireEnd::Insulator},
                        {coreText("core", "second side"), 1, leg[1], WireEnd::Centre, WireEnd::Insulator}};
        return out;
    }

protected:
    std::array<double, 2> sides(const AntennaShape& shape) const override
    {
        const double length = value(shape, "length_m"), part = 0.01 * value(shape, "feed_percent");
        return {part * length, (1.0 - part) * length};
    }
};

} // namespace

const Family& offCentreDipoleFamily()
{
    static const OffCentreDipole family;
    return family;
}

} // namespace vetchling::shapes

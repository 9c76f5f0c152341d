/// Fan: two to five pairs of legs on one feedpoint, the longest on top: spread downwards by equal angles, or held below one another by
/// spacers.
#include "core/shapes/bands_of_shape.h"
#include "core/shapes/dipole_geometry.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr int fewestPairs = 2, mostPairs = 5;
constexpr double gapInWaves = 0.0015;  // between the two halves at the centre piece, of the design frequency's wavelength,
constexpr double gapInDiameters = 5.0; // but no less than this
constexpr double outwards = 1.5;       // a pair on spacers reaches its place so many spacings out from the centre
constexpr double nextBand = 1.45;      // a new pair is for so many times the frequency of the one before

class FanDipole final : public Family {
public:
    std::string id() const override { return "fan-dipole"; }
    std::string title() const override { return coreText("core", "Fan dipole"); }
    std::string summary() const override
    {
        return coreText("core", "Two to five pairs of legs on one feedpoint, each for a band of its own.");
    }

    std::string layout(const AntennaShape& shape) const override
    {
        return std::to_string(pairsOf(shape)) + (onSpacers(shape) ? " on spacers" : "");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all = dipoleParameters(10.0, 9.0);
        std::erase_if(all, [](const ParameterSpec& s) { return s.key == "second_end_m"; });
        all.push_back(choiceSpec("fan_by", coreText("core", "Pairs held apart by"), hangsGroup,
                                 {coreText("core", "their slope"), coreText("core", "spacers")},
                                 coreText("core", "spacers: each shorter pair runs along below the one above it")));
        if (onSpacers(shape))
            all.push_back(lengthSpec("spacer_m", coreText("core", "Spacing of the pairs"), hangsGroup, {0.3, 0.001, 5.0},
                                     coreText("core", "close pairs act on one another"), 0.006));
        else
            all.push_back(angleSpec("fan_deg", coreText("core", "Angle between pairs"), hangsGroup, {14.0, 10.0, 30.0},
                                    coreText("core", "each shorter pair hangs steeper by so much; narrow fans act on one another")));
        all.push_back({"pair_count",
                       coreText("core", "Pairs of legs"),
                       lengthGroup,
                       Quantity::Plain,
                       double(fewestPairs),
                       double(fewestPairs),
                       double(mostPairs),
                       {},
                       {}});
        for (int pair = 2; pair <= pairsOf(shape); ++pair) {
            const double ratio = std::pow(nextBand, pair - 1);
            all.push_back(
                {frequencyKey(pair), pairText(pair, frequencyLabels), lengthGroup, Quantity::Frequency, 14.2e6, 1e5, 3e9, {}, {}, ratio});
            all.push_back({legKey(pair),
                           pairText(pair, pairLabels),
                           lengthGroup,
                           Quantity::Length,
                           5.0,
                           0.02,
                           1000.0,
                           {},
                           {},
                           halfWaveRules(speedOfLight).front().value / ratio}); // at a wavelength of one metre
        }
        return all;
    }

    /// High enough for the steeper pairs.
    void settle(AntennaShape& shape) const override
    {
        constexpr double clear = 1.5; // m above ground
        double lowest = 0.0;
        for (int pair = 1; pair <= pairsOf(shape); ++pair) {
            const double down = std::asin(1.0 / std::max(1.0, value(shape, "leg_m"))) +
                                (pair - 1) * (onSpacers(shape) ? 0.0 : radians(value(shape, "fan_deg")));
            lowest = std::max(lowest, value(shape, legKey(pair)) * std::sin(down));
        }
        shape.parameters["apex_height_m"] = std::max(shape.parameters["apex_height_m"], lowest + clear);
        shape.parameters["end_height_m"] = shape.parameters["apex_height_m"] - std::min(1.0, 0.1 * value(shape, "leg_m"));
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        std::vector<TunedLength> all{{"leg_m", coreText("core", "a side"), shape.designFrequency}};
        for (int pair = 2; pair <= pairsOf(shape); ++pair)
            all.push_back({legKey(pair), pairText(pair, legNames), value(shape, frequencyKey(pair))});
        return all;
    }

    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return halfWaveRules(length.frequency);
    }

    std::vector<Lever> levers(const AntennaShape& shape) const override
    {
        std::vector<Lever> all;
        for (const TunedLength& t : tuned(shape))
            all.push_back({t.parameter, t.name, LeverKind::Cut, LeverSide::OpenEnd, 2});
        return all;
    }

    AntennaShape straightened(const AntennaShape& shape) const override { return dipoleStraightened(shape); }
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        const double leg = value(shape, "leg_m");
        return dipoleHung(*this, shape, std::min<std::size_t>(handle, 1), hook, {leg, leg});
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const int pairs = pairsOf(shape);
        const Vec3 centre{value(shape, "x_m"), value(shape, "y_m"), value(shape, "apex_height_m")};
        const double leg = value(shape, "leg_m"), drop = centre.z - value(shape, "end_height_m");
        if (std::abs(drop) >= 0.999 * leg)
            return Fault{"end_height_m",
                         {coreText("core", "the end would hang %1 below the centre, but a side is only %2 long; raise the end"),
                          Measure{drop, units::Quantity::Length}, Measure{leg, units::Quantity::Length}}};
        const bool spacers = onSpacers(shape);
        const double slope = std::asin(drop / leg), step = spacers ? 0.0 : radians(value(shape, "fan_deg"));
        if (slope + (pairs - 1) * step > radians(88.0))
            return Fault{"fan_deg", coreText("core", "the shortest pair would hang straight down; take a smaller angle or raise the ends")};

        BuiltAntenna out;
        const double bearing = value(shape, "bearing_deg"),
                     halfGap = 0.5 * std::max(gapInWaves * wavelength(shape.designFrequency), gapInDiameters * shape.wire.diameter);
        const Vec3 directions[] = {towards(bearing), towards(bearing + value(shape, "opening_deg"))};
        const Vec3 across = halfGap * unit(directions[0] - directions[1]);
        out.model.wires.push_back(makeWire(shape.wire, "gap", {centre + across, centre - across}));
        out.model.feeds.push_back({0, halfGap, 1.0});
        out.feedPoint = centre;
        out.handles.push_back({coreText("core", "centre"), centre, {"apex_height_m"}});
        for (int pair = 1; pair <= pairs; ++pair) {
            const double down = slope + (pair - 1) * step, own = value(shape, legKey(pair));
            for (int side : {0, 1}) {
                std::vector<Vec3> points{side == 0 ? centre + across : centre - across};
                const Vec3 outward = std::cos(down) * directions[side] - Vec3{0.0, 0.0, std::sin(down)};
                double left = own - halfGap;
                if (spacers && pair > 1) {
                    const double below = (pair - 1) * value(shape, "spacer_m"), along = outwards * value(shape, "spacer_m");
                    const Vec3 first = along * outward - Vec3{0.0, 0.0, below};
                    left -= norm(first);
                    if (left <= 0.05 * own)
                        return Fault{"spacer_m",
                                     coreText("core", "the shortest pair would end before it is that far apart; take shorter spacers")};
                    points.push_back(points.back() + first);
                }
                points.push_back(points.back() + left * outward);
                const Vec3 end = points.back();
                out.model.wires.push_back(makeWire(shape.wire, "leg " + std::to_string(pair) + (side == 0 ? " a" : " b"), points));
                out.insulators.push_back(end);
                out.dimensions.push_back({centre, end, legKey(pair)});
                if (side == 0)
                    out.handles.push_back({pairText(pair, endNames), end,
                                           pair == 1 ? std::vector<std::string>{"end_height_m", "leg_m"} : std::vector{legKey(pair)}});
            }
            // the way across the centre piece is all pairs' own; it is counted with the first
            out.sections.push_back({pairText(pair, sectionNames), 2, pair == 1 ? own : own - halfGap, WireEnd::Centre, WireEnd::Insulator});
        }
        return out;
    }

private:
    /// Whole sentences, so that each language can say them its own way.
    using PairTexts = const char* const[mostPairs];
    static constexpr PairTexts frequencyLabels = {coreText("core", "First pair for"), coreText("core", "Second pair for"),
                                                  coreText("core", "Third pair for"), coreText("core", "Fourth pair for"),
                                                  coreText("core", "Fifth pair for")};
    static constexpr PairTexts pairLabels = {coreText("core", "Length a side"), coreText("core", "Second pair, a side"),
                                             coreText("core", "Third pair, a side"), coreText("core", "Fourth pair, a side"),
                                             coreText("core", "Fifth pair, a side")};
    static constexpr PairTexts legNames = {coreText("core", "a side"), coreText("core", "a side of the second pair"),
                                           coreText("core", "a side of the third pair"), coreText("core", "a side of the fourth pair"),
                                           coreText("core", "a side of the fifth pair")};
    static constexpr PairTexts endNames = {coreText("core", "end of the first pair"), coreText("core", "end of the second pair"),
                                           coreText("core", "end of the third pair"), coreText("core", "end of the fourth pair"),
                                           coreText("core", "end of the fifth pair")};
    static constexpr PairTexts sectionNames = {coreText("core", "leg, first pair"), coreText("core", "leg, second pair"),
                                               coreText("core", "leg, third pair"), coreText("core", "leg, fourth pair"),
                                               coreText("core", "leg, fifth pair")};
    static std::string pairText(int pair, PairTexts& texts) { return texts[pair - 1]; }

    /// From the shape alone, as the layout depends on it.
    static bool onSpacers(const AntennaShape& shape)
    {
        const auto found = shape.parameters.find("fan_by");
        return found != shape.parameters.end() && found->second > 0.5;
    }
    static int pairsOf(const AntennaShape& shape) { return countOf(shape, "pair_count", fewestPairs, mostPairs); }
};

} // namespace

const Family& fanDipoleFamily()
{
    static const FanDipole family;
    return family;
}

} // namespace vetchling::shapes

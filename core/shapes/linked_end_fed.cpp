/// End-fed half-wave in sections with links between them, for two to six bands.
#include "core/shapes/bands_of_shape.h"
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/end_fed_parts.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

constexpr double linkInWaves = 0.0015, linkInDiameters = 4.0;
constexpr PathNames wireNames{lengthKey, true};

class LinkedEndFed final : public Family {
public:
    std::string id() const override { return "linked-end-fed"; }
    Multiples multiples() const override { return Multiples::All; }
    std::string title() const override { return coreText("core", "Linked end-fed"); }
    std::string summary() const override
    {
        return coreText("core", "An end-fed wire in sections: with its links open or closed it is half a wave on each of its bands.");
    }

    std::string layout(const AntennaShape& shape) const override { return std::to_string(bandsOf(shape)); }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = endFedHeights();
        all.push_back(tunedLengthSpec("length_m", coreText("core", "Wire, innermost")));
        addBands(all, bandsOf(shape), halfWaveRules(speedOfLight, 1.0).front().value, wireNames);
        all.push_back(lengthSpec("link_gap_m", coreText("core", "Gap of an open link"), lengthGroup, {0.05, 0.003, 1.0},
                                 coreText("core", "between the wire ends at a link's insulator"), linkInWaves));
        addEndFedFeed(all, 49.0);
        return all;
    }

    void settle(AntennaShape& shape) const override
    {
        double& gap = shape.parameters["link_gap_m"];
        gap = std::max(gap, linkInDiameters * shape.wire.diameter);
        lowerToReach(*this, shape, lengthKey(bandsOf(shape)), {"end_height_m"});
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return bandLengths(*this, shape, bandsOf(shape), wireNames);
    }
    TuneGoal usualGoal() const override { return TuneGoal::LowestSwr; }
    std::vector<Configuration> configurations(const AntennaShape& shape) const override
    {
        return bandConfigurations(*this, shape, bandsOf(shape));
    }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return halfWaveRules(length.frequency, 1.0);
    }
    std::vector<Lever> levers(const AntennaShape& shape) const override { return bandLevers(*this, shape, 1); }
    std::vector<Part> parts() const override { return endFedParts(); }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return 1; }

    std::optional<AntennaShape> flipped(const AntennaShape& shape) const override { return straightFlipped(*this, shape); }
    std::optional<AntennaShape> between(const AntennaShape& shape, const Hook& from, const Hook& to) const override
    {
        return endFedBetween(*this, shape, from, to);
    }
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        return straightHung(*this, shape, handle, hook, value(shape, lengthKey(bandsOf(shape))));
    }

    AntennaShape levered(const AntennaShape& shape, const std::string& key, double to) const override
    {
        return bandLevered(*this, shape, bandsOf(shape), key, to, wireNames);
    }

    std::vector<Text> remarks(const AntennaShape& shape) const override
    {
        const double gap = value(shape, "link_gap_m");
        const Result<std::vector<double>> paths = bandPaths(*this, shape, bandsOf(shape), gap, wireNames);
        std::vector<Text> all = returnRemarks(shape);
        const auto sections = paths ? sectionRemarks(*paths, gap) : std::vector<Text>();
        all.insert(all.end(), sections.begin(), sections.end());
        return all;
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t configuration) const override
    {
        const double gap = value(shape, "link_gap_m");
        const Result<std::vector<double>> paths = bandPaths(*this, shape, bandsOf(shape), gap, wireNames);
        if (!paths)
            return paths.faults();
        std::vector<Vec3> ends{{value(shape, "x_m"), value(shape, "y_m"), value(shape, "feed_height_m")}};
        if (Faults f = addRun(ends, paths->back(), value(shape, "end_height_m"), value(shape, "bearing_deg"), "end_height_m"); !f.empty())
            return f;
        const Vec3 along = unit(ends[1] - ends[0]);
        const auto at = [&](double path) { return ends[0] + path * along; };
        BuiltAntenna out = endFedFrame(*this, shape, {ends[0], at((*paths)[configuration])}, halfWaveFeedImpedance);
        for (std::size_t k = configuration + 1; k < paths->size(); ++k)
            out.model.wires.push_back(
                makeWire(wireOf(shape, "wire"), "section " + std::to_string(k + 1), {at((*paths)[k - 1] + gap), at((*paths)[k])}));
        annotate(out, *paths, configuration, at);
        addCounterpoiseSection(*this, shape, out);
        return out;
    }

private:
    static int bandsOf(const AntennaShape& shape) { return countOf(shape, "band_count", 2, mostBands); }

    template <class At> static void annotate(BuiltAntenna& out, const std::vector<double>& paths, std::size_t configuration, const At& at)
    {
        const int bands = int(paths.size());
        out.handles.push_back({coreText("core", "far end"), at(paths.back()), {"end_height_m", lengthKey(bands)}});
        for (int k = 0; k < bands; ++k) {
            const bool last = k + 1 == bands;
            out.dimensions.push_back({at(k == 0 ? 0.0 : paths[k - 1]), at(paths[k]), lengthKey(k + 1)});
            if (last)
                out.insulators.push_back(at(paths[k]));
            else
                out.links.push_back({at(paths[k]), unit(at(paths[k]) - at(0.0)), std::size_t(k) >= configuration});
            if (!last)
                out.handles.push_back({coreText("core", "link"), at(paths[k]), {lengthKey(k + 1)}});
            out.sections.push_back({legSections[k], 1, k == 0 ? paths[0] : paths[k] - paths[k - 1],
                                    k == 0 ? WireEnd::Transformer : WireEnd::Link, last ? WireEnd::Insulator : WireEnd::Link});
        }
    }
};

} // namespace

const Family& linkedEndFedFamily()
{
    static const LinkedEndFed family;
    return family;
}

} // namespace vetchling::shapes

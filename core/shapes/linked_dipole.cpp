/// Dipole in sections with links between them: each link open or closed makes it another band's half-wave.
#include "core/shapes/bands_of_shape.h"
#include "core/shapes/dipole_geometry.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

constexpr double linkGapInWaves = 0.0015, linkGapInDiameters = 4.0;

class LinkedDipole final : public DipoleFamily {
public:
    std::string id() const override { return "linked-dipole"; }
    std::string title() const override { return coreText("core", "Linked dipole"); }
    std::string summary() const override
    {
        return coreText("core",
                        "One pair of legs in sections: with its links open or closed it is half a wave on each of two to six bands.");
    }

    std::string layout(const AntennaShape& shape) const override { return std::to_string(bandsOf(shape)); }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(10.0, 9.0);
        for (ParameterSpec& s : all)
            if (s.key == "leg_m") {
                s.label = legLabels[0];
                s.help = coreText("core", "from the centre to the open end of the innermost band");
            }
        addBands(all, bandsOf(shape), halfWaveRules(speedOfLight).front().value);
        all.push_back(lengthSpec("link_gap_m", coreText("core", "Gap of an open link"), lengthGroup, {0.05, 0.003, 1.0},
                                 coreText("core", "between the wire ends at a link's insulator"), linkGapInWaves));
        return all;
    }

    void settle(AntennaShape& shape) const override
    {
        double& gap = shape.parameters["link_gap_m"];
        gap = std::max(gap, linkGapInDiameters * shape.wire.diameter);
        raiseEnds(shape, value(shape, legKey(bandsOf(shape))));
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override { return bandLengths(*this, shape, bandsOf(shape)); }
    std::vector<Configuration> configurations(const AntennaShape& shape) const override
    {
        return bandConfigurations(*this, shape, bandsOf(shape));
    }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return halfWaveRules(length.frequency);
    }
    std::vector<Lever> levers(const AntennaShape& shape) const override { return bandLevers(*this, shape, 2); }

    AntennaShape levered(const AntennaShape& shape, const std::string& key, double to) const override
    {
        return bandLevered(*this, shape, bandsOf(shape), key, to);
    }

    std::vector<Text> remarks(const AntennaShape& shape) const override
    {
        const double gap = value(shape, "link_gap_m");
        const Result<std::vector<double>> paths = bandPaths(*this, shape, bandsOf(shape), gap);
        return paths ? sectionRemarks(*paths, gap) : std::vector<Text>();
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t configuration) const override
    {
        const int bands = bandsOf(shape);
        const double gap = value(shape, "link_gap_m");
        const Result<std::vector<double>> paths = bandPaths(*this, shape, bands, gap);
        if (!paths)
            return paths.faults();
        AntennaShape whole = shape;
        whole.parameters["leg_m"] = paths->back();
        const Result<DipoleGeometry> g = dipoleGeometry(*this, whole);
        if (!g)
            return g.faults();
        return assemble(shape, *g, *paths, gap, configuration);
    }

protected:
    std::array<double, 2> sides(const AntennaShape& shape) const override
    {
        const double whole = value(shape, legKey(bandsOf(shape)));
        return {whole, whole};
    }

private:
    static int bandsOf(const AntennaShape& shape) { return countOf(shape, "band_count", 2, mostBands); }

    static BuiltAntenna assemble(const AntennaShape& shape, const DipoleGeometry& g, const std::vector<double>& paths, double gap,
                                 std::size_t configuration)
    {
        BuiltAntenna out;
        const auto a = [&](double along) { return g.alongLeg(0, along); };
        const auto b = [&](double along) { return g.alongLeg(1, along); };
        const double fed = paths[configuration];
        out.model.wires.push_back(makeWire(shape.wire, "inner part", {a(fed), g.centre, b(fed)}));
        for (std::size_t k = configuration + 1; k < paths.size(); ++k)
            for (const auto& [side, letter] : {std::pair(0, "a"), std::pair(1, "b")})
                out.model.wires.push_back(makeWire(shape.wire, "section " + std::to_string(k + 1) + letter,
                                                   {g.alongLeg(side, paths[k - 1] + gap), g.alongLeg(side, paths[k])}));
        out.model.feeds.push_back({0, fed, 1.0});
        out.feedPoint = g.centre;
        const std::string outer = legKey(int(paths.size()));
        out.handles = {{coreText("core", "centre"), g.centre, {"apex_height_m"}},
                       {coreText("core", "first end"), g.endA, {"end_height_m", outer}},
                       {coreText("core", "second end"), g.endB, {"end_height_m", outer}}};
        for (std::size_t k = 0; k < paths.size(); ++k) {
            const bool last = k + 1 == paths.size();
            out.dimensions.push_back({b(k == 0 ? 0.0 : paths[k - 1]), b(paths[k]), legKey(int(k) + 1)});
            if (!last)
                out.handles.push_back({coreText("core", "link"), a(paths[k]), {legKey(int(k) + 1)}});
            for (int side : {0, 1}) {
                const Vec3 at = g.alongLeg(side, paths[k]);
                if (last)
                    out.insulators.push_back(at);
                else
                    out.links.push_back({at, unit(at - g.centre), k >= configuration});
            }
            out.sections.push_back({legSections[k], 2, k == 0 ? paths[0] : paths[k] - paths[k - 1],
                                    k == 0 ? WireEnd::Centre : WireEnd::Link, last ? WireEnd::Insulator : WireEnd::Link});
        }
        return out;
    }
};

} // namespace

const Family& linkedDipoleFamily()
{
    static const LinkedDipole family;
    return family;
}

} // namespace vetchling::shapes

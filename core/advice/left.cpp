#include "core/advice/left.h"

#include "core/advice/feed_findings.h"
#include "core/advice/place_cures.h"
#include "core/advice/work_findings.h"

#include <algorithm>

namespace vetchling::advice {
namespace {

class Looker {
public:
    Looker(study::Library& library, study::References& references, const Design& design, const Antenna& antenna, const LeftData& data,
           const Solved& solved, const Watch& watch)
        : m_library(library), m_references(references), m_design(design), m_antenna(antenna), m_data(data), m_solved(solved), m_watch(watch)
    {
    }

    Result<Left> run()
    {
        add(placedFindings(m_design, m_antenna));
        addPlaceCures(m_out.findings, m_design, m_antenna);
        if (!m_watch.stopped() && shapes::buildOver(m_antenna.shape, groundUnder(m_design, m_antenna))) {
            lookAtPlace();
            lookAtFeed();
            lookAtLengths();
            lookAtBench();
            lookAtLog();
        } else
            add(shapeFindings(m_design, m_antenna, nullptr));
        sort(m_out.findings);
        return unlessStopped(m_watch, std::move(m_out));
    }

private:
    void add(std::vector<Finding> more) { std::move(more.begin(), more.end(), std::back_inserter(m_out.findings)); }
    [[nodiscard]] bool has(const std::string& code) const
    {
        return std::any_of(m_out.findings.begin(), m_out.findings.end(), [&](const Finding& f) { return f.open() && f.code == code; });
    }
    void cannotSolve(const Faults& faults)
    {
        if (m_watch.stopped() || has("solve"))
            return;
        add({{.antenna = m_antenna.id,
              .gravity = Gravity::Wrong,
              .code = "solve",
              .brief = coreText("core", "It cannot be solved"),
              .message = faults.front().message,
              .stage = Stage::Shape,
              .view = "side"}});
    }

    void lookAtPlace()
    {
        const bool clear = m_out.findings.empty();
        if (clear)
            add({{.antenna = m_antenna.id,
                  .gravity = Gravity::Done,
                  .code = "place",
                  .brief = coreText("core", "Place judged"),
                  .message = coreText("core", "Held where it may be, clear of houses, lines, water and other antennas."),
                  .stage = Stage::Site,
                  .ofPlace = true}});
    }

    void lookAtFeed()
    {
        const auto basis = study::feedBasisOf(m_library, m_references, study::feedQuestionOf(m_design, m_antenna), m_watch);
        if (!basis)
            return cannotSolve(basis.faults());
        const std::vector<ChainPart> parts = wholeChain(m_antenna);
        const std::size_t own = parts.size() - chainParts(m_antenna).size();
        m_out.report = study::feedReport(*basis, parts, own, m_design.operation.power, servedRule(m_design.operation));
        std::vector<Finding> all = feedFindings(m_design, m_antenna, *m_out.report);
        addFeedCures(all, m_design, m_antenna, *basis, *m_out.report, m_data.lines);
        add(std::move(all));
    }

    study::CurvePointer curveIn(std::size_t configuration)
    {
        if (m_solved.curve && m_solved.curve->complete && m_solved.curve->question.subject.configuration == configuration)
            return m_solved.curve;
        const auto curve = study::curveOf(m_library, study::questionOf(m_design, m_antenna, {}, configuration), m_watch);
        if (curve)
            return *curve;
        cannotSolve(curve.faults());
        return nullptr;
    }

    study::DetailPointer detailIn(std::size_t configuration)
    {
        if (m_solved.detail && m_solved.curve && m_solved.curve->question.subject.configuration == configuration)
            return m_solved.detail;
        const study::CurvePointer curve = curveIn(configuration);
        if (!curve)
            return nullptr;
        const auto detail = study::detailOf(m_library, *curve, m_watch);
        if (detail)
            return *detail;
        cannotSolve(detail.faults());
        return nullptr;
    }

    /// A configuration is looked at closely where a wanted band is not served that is at its best in it.
    void lookAtLengths()
    {
        if (!m_out.report)
            return;
        const std::size_t shown = m_solved.curve ? m_solved.curve->question.subject.configuration : 0;
        std::vector<study::DetailPointer> details(
            std::max<std::size_t>(1, shapes::familyOf(m_antenna.shape).configurations(m_antenna.shape).size()));
        if (shown < details.size())
            details[shown] = detailIn(shown);
        add(shapeFindings(m_design, m_antenna, details[std::min(shown, details.size() - 1)].get()));
        for (const study::FeedRow& row : m_out.report->rows)
            if (const std::size_t c = row.band.configuration;
                c < details.size() && !details[c] && row.service.service != Service::Served && !m_watch.stopped())
                details[c] = detailIn(c);
        std::vector<Finding> bands = bandFindings(m_design, m_antenna, *m_out.report, details);
        if (has("tune")) // first that
            std::erase_if(bands, [](const Finding& f) { return f.code == std::string("band"); });
        add(std::move(bands));
    }

    void lookAtBench()
    {
        if (const auto built = shapes::buildOver(m_antenna.shape, groundUnder(m_design, m_antenna)); built && !m_watch.stopped())
            add(buildFindings(m_antenna, buildFactsOf(m_design, m_antenna, *built, m_data.workshop)));
        if (has("low")) // told of its wires already
            std::erase_if(m_out.findings, [](const Finding& f) { return f.code == std::string("walk"); });
    }

    void lookAtLog()
    {
        const Antenna begun = withLogBegun(m_antenna);
        if (trimTasks(begun).empty() || m_watch.stopped())
            return;
        const auto outcome = trimNext(m_library, trimQuestionOf(m_design, begun), m_watch);
        if (!outcome)
            return cannotSolve(outcome.faults());
        add(trimFindings(m_design, m_antenna, *outcome, m_data.now));
    }

    study::Library& m_library;
    study::References& m_references;
    const Design& m_design;
    const Antenna& m_antenna;
    const LeftData& m_data;
    const Solved& m_solved;
    const Watch& m_watch;
    Left m_out;
};

} // namespace

Result<Left> leftOf(study::Library& library, study::References& references, const Design& design, const Antenna& antenna,
                    const LeftData& data, const Solved& solved, const Watch& watch)
{
    return Looker(library, references, design, antenna, data, solved, watch).run();
}

std::vector<Finding> siteFindings(const Design& design, const std::vector<Left>& antennas)
{
    std::vector<study::FeedReport> reports;
    for (const Left& left : antennas)
        if (left.report)
            reports.push_back(*left.report);
    std::vector<Finding> all = siteBandFindings(design, reports);
    const bool drawn = design.site.boundary.size() >= 3 || !design.site.supports.empty();
    all.push_back({.antenna = {},
                   .gravity = drawn ? Gravity::Done : Gravity::Next,
                   .code = "site",
                   .brief = drawn ? coreText("core", "Site drawn") : coreText("core", "The site is not drawn"),
                   .message = drawn ? coreText("core", "Its boundary or its supports are there.")
                                    : coreText("core", "Draw its boundary, what can hold a wire, houses and power lines first."),
                   .stage = Stage::Site});
    sort(all);
    return all;
}

} // namespace vetchling::advice

/// The bench of every family there is, and its physics held against brute force.
#include "core/files/workshop_file.h"
#include "core/trim/measure_card.h"
#include "core/workshop/build_facts.h"
#include "core/workshop/link_sections.h"
#include "core/workshop/templates.h"
#include "core/workshop/tubes.h"
#include "tests/core/shape_helpers.h"

#include <numbers>
#include <random>
#include <set>

namespace vetchling {
namespace {

using namespace vetchling::shapes;

const WorkshopData& benchData()
{
    static const WorkshopData all = *files::readWorkshopData(VETCHLING_DATA "/workshop.json");
    return all;
}

/// Tubes that carry themselves; the last one on the ground, with a plate for its radials.
const std::set<std::string> selfSupporting{"rod-dipole", "tube-dipole", "whip-pair", "mobile-whip", "stub-vertical"},
    plateless{"tube-dipole", "whip-pair", "mobile-whip", "rod-dipole"};

class BenchOfFamily : public ::testing::TestWithParam<const Family*> {
protected:
    BenchOfFamily()
    {
        m_antenna.shape = GetParam()->standardShape(14.2e6);
        m_built = built(m_antenna.shape);
        m_facts = buildFactsOf(m_design, m_antenna, m_built, benchData());
    }
    Design m_design;
    Antenna m_antenna;
    BuiltAntenna m_built;
    BuildFacts m_facts;
};

TEST_P(BenchOfFamily, HasPartsThatCanBeCounted)
{
    EXPECT_GT(countOf(m_facts.parts), 1);
    std::set<std::string> keys;
    for (const PartRow& row : m_facts.parts) {
        EXPECT_TRUE(keys.insert(row.key).second) << row.key << " twice";
        EXPECT_GT(row.count, 0.0) << row.key;
        EXPECT_FALSE(row.name.empty());
    }
    const std::string csv = partsCsv(m_facts.parts);
    EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'), std::ptrdiff_t(m_facts.parts.size()) + 1);
}

TEST_P(BenchOfFamily, HangsWithoutFaultsAndSagsDown)
{
    EXPECT_TRUE(m_facts.rigging.faults.empty()) << m_facts.rigging.faults.front().text();
    EXPECT_EQ(m_facts.rigging.spans.empty(), selfSupporting.count(GetParam()->id()) > 0);
    for (const SpanReport& s : m_facts.rigging.spans) {
        EXPECT_GE(s.still.sag, 0.0);
        EXPECT_GE(s.still.end, s.still.horizontal);
        EXPECT_GE(s.pullInWeather, 0.99 * s.still.end) << "wind never slackens";
        EXPECT_GT(s.load.breaking, 0.0);
        EXPECT_LE(s.lowest, std::min(s.place.start.z, s.place.end.z) + 1e-9);
    }
    for (const RopeReport& r : m_facts.rigging.ropes) {
        EXPECT_GT(r.length, knots - 1e-9);
        EXPECT_LT(r.length, 200.0);
    }
}

TEST_P(BenchOfFamily, HasPlatesWhoseHolesAreApart)
{
    const std::vector<Plate> plates = platesFor(m_antenna, m_built);
    EXPECT_EQ(plates.empty(), plateless.count(GetParam()->id()) > 0);
    for (const Plate& p : plates) {
        EXPECT_FALSE(p.holes.empty()) << p.name;
        for (std::size_t i = 0; i < p.holes.size(); ++i) {
            EXPECT_GT(p.holes[i].x, 0.0);
            EXPECT_LT(p.holes[i].x, p.width) << p.name;
            for (std::size_t k = i + 1; k < p.holes.size(); ++k)
                EXPECT_GT(std::hypot(p.holes[i].x - p.holes[k].x, p.holes[i].y - p.holes[k].y),
                          0.5 * (p.holes[i].diameter + p.holes[k].diameter))
                    << p.name;
        }
    }
}

TEST_P(BenchOfFamily, HasAWayToBePutUpAndToBeTrimmed)
{
    EXPECT_GE(m_facts.pack.order.size(), 3u);
    (void)joinedForDirectCurrent(m_built); // walks any net of wires
    const auto tasks = trimTasks(m_antenna);
    for (const TrimTask& t : tasks) {
        EXPECT_TRUE(GetParam()->spec(m_antenna.shape, t.lever.parameter)) << t.lever.parameter;
        EXPECT_GT(t.target, 1e6);
    }
    if (!GetParam()->levers(m_antenna.shape).empty()) {
        EXPECT_FALSE(tasks.empty()) << "what can be changed can be trimmed";
    }
}

INSTANTIATE_TEST_SUITE_P(Families, BenchOfFamily, ::testing::ValuesIn(families()), [](const auto& info) {
    std::string name = info.param->id();
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
});

// ---- brute force

/// The pull of a wire that stretches, from exact catenaries: what is there unstretched, pulled by the mean tension, fills the new curve.
double pullByCatenaries(const Span& span, double before, double massAfter, double stiffness)
{
    const double mean = 0.5 * (before + hangingWithPull(span, before)->end);
    const double unstretched = hangingWithPull(span, before)->wire / (1.0 + mean / stiffness);
    double low = 0.2 * before, high = 200.0 * before;
    for (int i = 0; i < 80; ++i) {
        const double pull = 0.5 * (low + high);
        const auto h = hangingWithPull({span.span, massAfter}, pull);
        const bool slack = h && h->wire < unstretched * (1.0 + 0.5 * (pull + h->end) / stiffness);
        (slack ? high : low) = pull;
    }
    return 0.5 * (low + high);
}

TEST(RiggingByBruteForce, TheEquationOfStateIsThatOfStretchedCatenaries)
{
    for (double stiffness : {5e3, 3e4, 3e5})
        for (double times : {1.5, 4.0, 10.0}) {
            const Span span{25.0, 0.03};
            const double exact = pullByCatenaries(span, 60.0, times * span.massPerMetre, stiffness),
                         told = pullUnderLoad(60.0, span.massPerMetre * gravity, times * span.massPerMetre * gravity, stiffness, span.span);
            EXPECT_NEAR(told / exact, 1.0, 0.02) << stiffness << " N, " << times << " times";
        }
}

/// Deflection of a stepped cantilever by two sums of its bending over many short pieces.
double droopByQuadrature(const std::vector<TubeSpan>& spans, const TubeMaterial& m, double tipMass)
{
    double length = 0.0;
    for (const TubeSpan& s : spans)
        length += s.shows;
    const int pieces = 40000;
    const double dx = length / pieces;
    const auto tubeAt = [&](double x) {
        for (const TubeSpan& s : spans) {
            if (x < s.shows)
                return s.tube;
            x -= s.shows;
        }
        return spans.back().tube;
    };
    std::vector<double> moment(pieces + 1, 0.0);
    double force = tipMass * gravity;
    for (int i = pieces; i-- > 0;) {
        const Tube t = tubeAt((i + 0.5) * dx);
        const double inner = t.outer - 2.0 * t.wall,
                     weight = m.density * gravity * 0.25 * std::numbers::pi * (t.outer * t.outer - inner * inner);
        moment[std::size_t(i)] = moment[std::size_t(i) + 1] + force * dx + 0.5 * weight * dx * dx;
        force += weight * dx;
    }
    double slope = 0.0, down = 0.0;
    for (int i = 0; i < pieces; ++i) {
        const Tube t = tubeAt((i + 0.5) * dx);
        const double inner = t.outer - 2.0 * t.wall, inertia = std::numbers::pi / 64.0 * (std::pow(t.outer, 4) - std::pow(inner, 4));
        const double bend = 0.5 * (moment[std::size_t(i)] + moment[std::size_t(i) + 1]) / (m.modulus * inertia);
        down += slope * dx + 0.5 * bend * dx * dx;
        slope += bend * dx;
    }
    return down;
}

TEST(TubesByBruteForce, DroopIsTheSumOfAllBending)
{
    const std::vector<TubeSpan> spans{{{0.0254, 1.47e-3, 1.83}, 1.83}, {{0.0222, 1.47e-3, 1.83}, 1.73}, {{0.0159, 1.47e-3, 1.83}, 0.9}};
    for (double tip : {0.0, 0.2, 1.0}) {
        const double exact = droopByQuadrature(spans, {}, tip);
        EXPECT_NEAR(droopOf(spans, {}, tip).tip / exact, 1.0, 1e-4) << tip;
    }
}

// The deviation that is told is the one there is: nine out of ten draws lie within what a normal one allows.
TEST(EstimateByBruteForce, IsAsSureAsItSays)
{
    std::mt19937 random(42);
    std::normal_distribution<double> normal;
    int within = 0;
    const int draws = 4000;
    for (int i = 0; i < draws; ++i) {
        const double offset = 0.03 * 7.1e6 * normal(random), factor = 1.0 + 0.05 * normal(random);
        std::vector<DipReading> readings;
        for (double modelled : {6.90e6, 6.98e6, 7.05e6})
            readings.push_back({7.05e6 + offset + factor * (modelled - 7.05e6) + 4e3 * normal(random), modelled, 4e3});
        const DipEstimate e = estimateDip(readings);
        const double real = 7.05e6 + offset + factor * 0.12e6;
        within += std::abs(e.at(7.17e6) - real) < 1.645 * e.sure(7.17e6) ? 1 : 0;
    }
    EXPECT_NEAR(within / double(draws), 0.90, 0.015);
}

TEST(LinkSectionsByBruteForce, AddUpToThePathsForAnyHardware)
{
    std::mt19937 random(9);
    std::uniform_real_distribution<double> even(0.0, 1.0);
    for (int i = 0; i < 300; ++i) {
        const LinkHardware hardware{0.12 * even(random), 0.1 * even(random)};
        std::vector<double> paths{1.0 + 5.0 * even(random)};
        while (paths.size() < 2 + random() % 4)
            paths.push_back(paths.back() + 0.5 + 4.0 * even(random));
        const auto half = linkedHalf(paths, hardware);
        ASSERT_TRUE(half.ok());
        double path = 0.0, straight = 0.0;
        for (std::size_t k = 0; k < paths.size(); ++k) {
            path += half->sections[k].path;
            straight += half->sections[k].straight;
            EXPECT_NEAR(path, paths[k], 1e-12) << "all wire up to this band's open end";
        }
        EXPECT_NEAR(half->span, straight + double(paths.size() - 1) * hardware.insulator, 1e-12);
        EXPECT_NEAR(straight, paths.back() - 2.0 * double(paths.size() - 1) * hardware.pigtail, 1e-12);
    }
}

} // namespace
} // namespace vetchling

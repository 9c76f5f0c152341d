/// The bench of whole antennas: cut sums against the models, marks on the tape, spool, ropes and weather, parts, metals, plates.
#include "core/files/workshop_file.h"
#include "core/workshop/build_facts.h"
#include "core/workshop/link_sections.h"
#include "core/workshop/templates.h"
#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"

#include <numeric>

namespace vetchling {
namespace {

using namespace vetchling::shapes;

const WorkshopData& data()
{
    static const WorkshopData all = *files::readWorkshopData(VETCHLING_DATA "/workshop.json");
    return all;
}

BuildFacts factsOf(const Design& design, const Antenna& antenna)
{
    const std::size_t closed = familyOf(antenna.shape).configurations(antenna.shape).size() - 1;
    const auto built = buildOver(antenna.shape, design.site.soil.ground(), closed);
    EXPECT_TRUE(built.ok()) << built.firstFault();
    return buildFactsOf(design, antenna, *built, data());
}

double sumOf(const BuildFacts& facts)
{
    return std::accumulate(facts.pieces.begin(), facts.pieces.end(), 0.0,
                           [](double sum, const BuildPiece& p) { return sum + p.row.pieces * p.row.radiating; });
}

TEST(Bench, CutSumsAreTheModelsLengths)
{
    const testing::Demo demo;
    for (const Antenna& a : demo.design.antennas) {
        const std::size_t closed = familyOf(a.shape).configurations(a.shape).size() - 1;
        const auto built = buildOver(a.shape, demo.design.site.soil.ground(), closed);
        ASSERT_TRUE(built.ok());
        EXPECT_NEAR(sumOf(factsOf(demo.design, a)) + built->notCut, built->model.totalLength(), 1e-6) << a.name;
    }
}

TEST(Bench, ALinkedAntennasPiecesAreItsPathsWithPigtailsAndTheOuterOnesWait)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("linked-dipole", {{"leg_m", 5.0}, {"leg_2_m", 10.2}, {"end_height_m", 9.0}, {"apex_height_m", 10.0}}, 14.1e6);
    const BuildFacts facts = factsOf(design, a);
    const auto half = linkedHalf({5.0, 10.2}, {a.allowances.pigtail, 0.0});
    ASSERT_EQ(facts.pieces.size(), 2u);
    for (std::size_t i = 0; i < 2; ++i) {
        const CutRow& row = facts.pieces[i].row;
        EXPECT_NEAR(row.radiating, half->sections[i].path, 1e-9);
        EXPECT_NEAR(row.radiating - row.pigtail, half->sections[i].straight, 1e-9);
    }
    EXPECT_TRUE(facts.pieces[0].waitsFor.empty());
    EXPECT_EQ(facts.pieces[1].waitsFor, facts.pieces[0].row.name);
    EXPECT_EQ(facts.waiting(), 2);
}

const TapeMark* markOf(const BuildPiece& piece, MarkKind kind)
{
    const auto found = std::find_if(piece.marks.begin(), piece.marks.end(), [&](const TapeMark& m) { return m.kind == kind; });
    return found == piece.marks.end() ? nullptr : &*found;
}

TEST(Tape, MarksOfADipolesLegAddUp)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("dipole", {{"leg_m", 10.0}});
    const BuildPiece leg = factsOf(design, a).pieces.at(0);
    EXPECT_EQ(leg.marks.front(), (TapeMark{MarkKind::Peg, 0.0}));
    EXPECT_NEAR(markOf(leg, MarkKind::Out)->at, a.allowances.centre, 1e-12);
    EXPECT_NEAR(markOf(leg, MarkKind::Fold)->at, a.allowances.centre + 10.0 + leg.row.margin, 1e-9);
    EXPECT_NEAR(leg.marks.back().at, leg.row.cut, 1e-12);
    EXPECT_EQ(leg.marks.size(), 4u) << "no corners in a straight leg";
}

TEST(Tape, AHookMovesEveryMarkAlike)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("linked-dipole", {});
    const BuildFacts before = factsOf(design, a);
    a.workshop.tapeOffset = 0.035;
    const BuildFacts after = factsOf(design, a);
    ASSERT_GE(before.pieces.size(), 2u);
    ASSERT_EQ(after.pieces.size(), before.pieces.size());
    for (std::size_t i = 0; i < before.pieces.size(); ++i) {
        ASSERT_GE(before.pieces[i].marks.size(), 3u);
        ASSERT_EQ(after.pieces[i].marks.size(), before.pieces[i].marks.size());
        for (std::size_t k = 0; k < before.pieces[i].marks.size(); ++k)
            EXPECT_NEAR(after.pieces[i].marks[k].at - before.pieces[i].marks[k].at, 0.035, 1e-12);
    }
}

TEST(Tape, MarksRiseAndEndAtTheCutForEveryFamily)
{
    Design design;
    for (const Family* family : families()) {
        Antenna a;
        a.shape = family->standardShape(14.2e6);
        const BuildFacts facts = factsOf(design, a);
        EXPECT_FALSE(facts.pieces.empty()) << family->id();
        for (const BuildPiece& piece : facts.pieces) {
            ASSERT_GE(piece.marks.size(), 2u) << family->id();
            for (std::size_t i = 1; i < piece.marks.size(); ++i)
                EXPECT_GE(piece.marks[i].at, piece.marks[i - 1].at) << family->id();
            EXPECT_NEAR(piece.marks.back().at, piece.row.cut, 1e-9) << family->id();
            EXPECT_GE(piece.row.cut, piece.row.radiating - 1e-12) << family->id();
        }
    }
}

// The corners of a loop cut it into its sides.
TEST(Tape, ALoopsCornersAreItsSides)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("delta-loop", {}, 14.2e6);
    const auto built = buildOver(a.shape, testing::averageSoil);
    const BuildPiece loop = factsOf(design, a).pieces.at(0);
    std::vector<double> corners;
    for (const TapeMark& m : loop.marks)
        if (m.kind == MarkKind::Corner)
            corners.push_back(m.at);
    ASSERT_GE(corners.size(), 2u);
    ASSERT_LE(corners.size(), 3u);
    std::vector<double> sides;
    for (const Wire& w : built->model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i)
            sides.push_back(distance(w.points[i], w.points[i - 1]));
    for (std::size_t i = 1; i < corners.size(); ++i)
        EXPECT_TRUE(std::any_of(sides.begin(), sides.end(), [&](double s) { return std::abs(s - corners[i] + corners[i - 1]) < 1e-6; }))
            << corners[i] - corners[i - 1];
}

TEST(Spool, SaysWhatIsLeftAndWhatHasNoPlace)
{
    CutRow long_{"long", 2, 10.0, 0.0, 0.0, 10.0}, short_{"short", 1, 3.0, 0.0, 0.0, 3.0};
    EXPECT_NEAR(spoolUse({long_, short_}, 25.0).left, 2.0, 1e-12);
    EXPECT_TRUE(spoolUse({long_, short_}, 25.0).without.empty());
    const SpoolUse less = spoolUse({long_, short_}, 15.0);
    EXPECT_NEAR(less.left, -8.0, 1e-12);
    EXPECT_EQ(less.without, std::vector<std::string>{"long"}) << "the short one still fits behind the first";
}

TEST(Bench, TicksAndMeasuresAreCounted)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("dipole", {{"leg_m", 10.0}});
    a.workshop.pieces["leg/1"] = {true, 10.50};
    a.workshop.pieces["leg/2"] = {true, 10.30};
    a.workshop.pieces["boom/1"] = {true, 1.0}; // of a family it once was
    const BuildFacts facts = factsOf(design, a);
    EXPECT_EQ(facts.count, 2);
    EXPECT_EQ(facts.done, 2);
    EXPECT_NEAR(facts.longestOff, 10.30 - facts.pieces[0].row.cut, 1e-9);
}

TEST(Bench, ARodIsNotFoldedBack)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("vertical", {}, 10.1e6);
    a.shape.wire.diameter = 0.012;
    a.shape.partWires["radials"].diameter = 1.5e-3;
    const BuildFacts facts = factsOf(design, a);
    const auto named = [&](const std::string& name) {
        return std::find_if(facts.pieces.begin(), facts.pieces.end(), [&](const BuildPiece& p) { return p.row.name == name; })->row;
    };
    EXPECT_EQ(named("radiator").fold, 0.0);
    EXPECT_NEAR(named("radial").fold, a.allowances.fold, 1e-12) << "wire is";
    EXPECT_NEAR(facts.wire, named("radial").pieces * named("radial").cut, 1e-9) << "a rod is no wire to buy";
    a.allowances.mount = 0.05;
    const BuildFacts mounted = factsOf(design, a);
    const auto rod =
        std::find_if(mounted.pieces.begin(), mounted.pieces.end(), [](const BuildPiece& p) { return p.row.name == "radiator"; });
    EXPECT_NEAR(rod->row.cut - named("radiator").cut, 0.05, 1e-9) << "its foot stands in the mount";
}

// ---- ropes and weather

TEST(Rigging, LoadsAreThoseOfTheTextbook)
{
    WireChoice wire;
    wire.diameter = 1.784e-3; // 2.5 mm2
    const Rigging calm{40.0, 4.0, 0.0, 0.0};
    const WireLoad bare = loadOf(wire, {}, calm);
    EXPECT_NEAR(bare.mass, 2.5e-6 * 8960.0, 1e-5);
    EXPECT_NEAR(bare.breaking, 2.5e-6 * 220e6, 0.5);
    EXPECT_NEAR(bare.times, 1.0, 1e-12);
    Rigging storm = calm;
    storm.wind = 30.0;
    storm.ice = 5e-3;
    const WireLoad iced = loadOf(wire, {}, storm);
    EXPECT_NEAR(iced.wind, 0.5 * 1.25 * 900.0 * 1.2 * (1.784e-3 + 0.01), 1e-9);
    EXPECT_NEAR(iced.ice, pi / 4.0 * (std::pow(0.011784, 2) - std::pow(0.001784, 2)) * 900.0, 1e-9);
    wire.diameter *= 2.0;
    EXPECT_NEAR(loadOf(wire, {}, calm).breaking / bare.breaking, 4.0, 1e-9) << "strength goes with the area";
}

// The equation of state: a stiff wire takes all of the load into its pull, a soft one sags; more load never means less pull.
TEST(Rigging, PullUnderLoadHasItsLimits)
{
    EXPECT_NEAR(pullUnderLoad(50.0, 0.3, 0.3, 3e5, 20.0), 50.0, 1e-6) << "no more load, no more pull";
    EXPECT_NEAR(pullUnderLoad(50.0, 0.3, 0.9, 1e13, 20.0) / 50.0, 3.0, 1e-3) << "what cannot stretch keeps its sag";
    EXPECT_NEAR(pullUnderLoad(50.0, 0.3, 0.9, 1.0, 20.0), 50.0, 1.0) << "what gives freely keeps its pull";
    double before = 0.0;
    for (double load : {0.3, 0.5, 1.0, 2.0, 4.0}) {
        const double pull = pullUnderLoad(50.0, 0.3, load, 1e5, 20.0);
        EXPECT_GT(pull, before);
        before = pull;
        // length of wire before and after differ by what it stretched: L w^2 L^2 / 24 H^2 is the parabola's slack
        const auto slack = [](double w, double h) { return w * w * 400.0 / (24.0 * h * h); };
        EXPECT_NEAR(slack(load, pull) - slack(0.3, 50.0), (pull - 50.0) / 1e5, 1e-9);
    }
}

TEST(Rigging, SpansOfTheDemoHangBetweenTheirPlaces)
{
    const testing::Demo demo;
    const Antenna& v = demo.antenna("Tower V 60/40");
    const BuildFacts facts = factsOf(demo.design, v);
    ASSERT_EQ(facts.rigging.spans.size(), 2u) << "two sides to two heights";
    for (const SpanReport& s : facts.rigging.spans) {
        EXPECT_FALSE(s.place.loaded) << "the tower holds the middle";
        EXPECT_GT(s.still.sag, 0.0);
        EXPECT_GE(s.pullInWeather, s.still.end);
        EXPECT_LE(s.lowest, std::min(s.place.start.z, s.place.end.z));
    }
    EXPECT_EQ(facts.rigging.ropes.size(), 2u);
    for (const RopeReport& r : facts.rigging.ropes)
        EXPECT_NEAR(r.length, distance(r.start, r.hold) + knots, 1e-9);
}

TEST(Rigging, AFlatDipoleCarriesItsCentreAndAPulleyKeepsThePull)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("dipole", {{"leg_m", 10.0}, {"apex_height_m", 10.0}, {"end_height_m", 10.0}});
    const BuildFacts tied = factsOf(design, a);
    ASSERT_EQ(tied.rigging.spans.size(), 1u);
    EXPECT_TRUE(tied.rigging.spans[0].place.loaded);
    const double w = tied.rigging.load.mass * gravity, l = 20.0, p = a.workshop.rigging.centreMass * gravity;
    EXPECT_NEAR(tied.rigging.spans[0].still.sag, (w * l * l / 8.0 + p * l / 4.0) / 40.0, 0.01);
    a.workshop.rigging.weight = true;
    const BuildFacts hung = factsOf(design, a);
    EXPECT_NEAR(hung.rigging.spans[0].pullInWeather, hung.rigging.spans[0].still.end, 1e-9);
    EXPECT_GT(hung.rigging.spans[0].sagInWeather, hung.rigging.spans[0].still.sag);
    EXPECT_LT(hung.rigging.strongestPull(), tied.rigging.strongestPull());
    EXPECT_NEAR(hung.rigging.ropes.at(0).weight * gravity, 40.0, 1e-9);
}

TEST(Rigging, AStormBreaksAThinWireAndTheMostPullDoesNot)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("dipole", {{"leg_m", 20.0}, {"apex_height_m", 10.0}, {"end_height_m", 10.0}}, 3.6e6);
    a.shape.wire.diameter = 0.8e-3;
    a.workshop.rigging.wind = 40.0;
    a.workshop.rigging.ice = 5e-3;
    EXPECT_FALSE(factsOf(design, a).rigging.wireHolds(a.workshop.rigging));
    a.workshop.rigging.ice = 0.0;
    a.workshop.rigging.wind = 15.0;
    const double most = factsOf(design, a).rigging.spans[0].mostPull;
    ASSERT_GT(most, 0.0);
    a.workshop.rigging.pull = 0.99 * most;
    EXPECT_TRUE(factsOf(design, a).rigging.wireHolds(a.workshop.rigging));
    a.workshop.rigging.pull = 1.02 * most;
    EXPECT_FALSE(factsOf(design, a).rigging.wireHolds(a.workshop.rigging));
}

TEST(Rigging, RopesGoOnInTheWiresLineToASupportTheGroundOrAPoleThatIsMissing)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("dipole",
                      {{"leg_m", 10.0}, {"apex_height_m", 12.0}, {"end_height_m", 5.5}, {"bearing_deg", 90.0}, {"x_m", 0.0}, {"y_m", 0.0}});
    const BuildFacts steep = factsOf(design, a);
    ASSERT_EQ(steep.rigging.ropes.size(), 2u);
    for (const RopeReport& r : steep.rigging.ropes) {
        EXPECT_TRUE(r.toGround) << "a steep V is pulled on to pegs";
        EXPECT_NEAR(r.hold.z, 0.0, 1e-9);
        EXPECT_LT(r.angle, -25.0);
        EXPECT_NEAR(r.length - knots, distance(r.start, r.hold), 1e-9);
    }
    EXPECT_GT(steep.rigging.lowest(), 5.0) << "ropes to pegs are told by themselves";
    a.shape.parameters["end_height_m"] = 11.5;
    const BuildFacts level = factsOf(design, a);
    for (const RopeReport& r : level.rigging.ropes) {
        EXPECT_FALSE(r.toGround);
        EXPECT_TRUE(r.support.empty());
        EXPECT_NEAR(r.hold.z, 11.5, 1e-9) << "something has to hold it up there";
    }
    const BuiltAntenna flat = built(a.shape);
    for (const Vec3& end : flat.insulators) {
        Support pole;
        pole.name = "pole";
        pole.at = {end.x * 1.2, end.y * 1.2};
        pole.height = 12.0;
        design.site.supports.push_back(pole);
    }
    const BuildFacts held = factsOf(design, a);
    for (const RopeReport& r : held.rigging.ropes)
        EXPECT_EQ(r.support, "pole");
}

TEST(Bench, WritesItsTapeAsATable)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("dipole", {{"leg_m", 10.0}});
    const std::string csv = tapeCsv(factsOf(design, a));
    EXPECT_EQ(csv.rfind("piece,pieces,mark,at_m\n", 0), 0u);
    EXPECT_NE(csv.find("leg,2,fold here,10.200"), std::string::npos) << csv;
}

TEST(Bench, ATubeVerticalIsToldAsTubesThatReach)
{
    Design design;
    Antenna a;
    a.shape = shapeOf("vertical", {{"radiator_m", 5.0}}, 14.2e6);
    a.shape.wire.diameter = 0.022;
    a.shape.wire.conductor = "aluminium-6061";
    a.shape.partWires["radials"] = WireChoice();
    const BuildFacts facts = factsOf(design, a);
    const BuildPiece& rod = facts.pieces.front();
    ASSERT_TRUE(rod.tubes);
    ASSERT_TRUE(rod.droop);
    double shows = 0.0;
    for (const TubeSpan& s : rod.tubes->spans)
        shows += s.shows;
    EXPECT_NEAR(shows, 5.0, 1e-9);
    EXPECT_GT(rod.droop->mass, 0.5);
    EXPECT_LT(rod.droop->mass, 3.0) << "aluminium";
    EXPECT_NEAR(facts.pack.longest, 1.83, 1e-9) << "taken apart for the bag";
}

// ---- parts

const PartRow* part(const std::vector<PartRow>& all, const std::string& key)
{
    const auto found = std::find_if(all.begin(), all.end(), [&](const PartRow& r) { return r.key == key; });
    return found == all.end() ? nullptr : &*found;
}

TEST(Parts, FollowFromTheDesign)
{
    const testing::Demo demo;
    const BuildFacts v = factsOf(demo.design, demo.antenna("Tower V 60/40"));
    EXPECT_EQ(part(v.parts, "insulator")->count, 2.0);
    EXPECT_EQ(part(v.parts, "link")->count, 2.0);
    EXPECT_EQ(part(v.parts, "wire")->count, std::ceil(v.wire));
    EXPECT_EQ(part(v.parts, "coil-former"), nullptr);
    const BuildFacts coils = factsOf(demo.design, demo.antenna("Coil dipole 30"));
    EXPECT_EQ(part(coils.parts, "coil-former")->count, 2.0);
    const BuildFacts wall = factsOf(demo.design, demo.antenna("Wall end-fed 40"));
    EXPECT_NE(part(wall.parts, "transformer"), nullptr);
    EXPECT_EQ(part(wall.parts, "centre"), nullptr);
}

TEST(Parts, TakeWhatTheUserSays)
{
    const testing::Demo demo;
    Antenna a = demo.antenna("Tower V 60/40");
    a.workshop.parts["insulator"] = {4.0, 1.5, false, {}};
    a.workshop.parts["tie"] = {{}, 0.1, true, {}};
    a.workshop.parts["own-1"] = {3.0, 2.0, false, "flags"};
    const BuildFacts facts = factsOf(demo.design, a);
    EXPECT_EQ(part(facts.parts, "insulator")->sum(), 6.0);
    EXPECT_EQ(part(facts.parts, "tie")->sum(), 0.0);
    EXPECT_EQ(part(facts.parts, "own-1")->name, "flags");
    EXPECT_NEAR(priceOf(facts.parts), 12.0, 1e-12);
    const std::string csv = partsCsv(facts.parts);
    EXPECT_NE(csv.find("\"flags\",3,pieces,2.00,6.00"), std::string::npos) << csv;
    EXPECT_EQ(csv.find("cable ties"), std::string::npos) << "left out";
}

TEST(Metals, FarOnesCorrodeAndSaltMakesItWorse)
{
    const std::vector<MetalPotential> metals{{"copper", "Copper", -0.20}, {"brass", "Brass", -0.40}, {"zinc", "Zinc", -1.0}};
    const auto dry = metalPairs({"copper"}, metals, false);
    ASSERT_EQ(dry.size(), 2u);
    EXPECT_EQ(dry[0].other, "Zinc") << "the worst first";
    EXPECT_TRUE(dry[0].corrodes);
    EXPECT_EQ(dry[0].eaten, "Zinc") << "the less noble one";
    EXPECT_FALSE(dry[1].corrodes);
    EXPECT_TRUE(metalPairs({"copper"}, metals, true)[1].corrodes);
    EXPECT_TRUE(metalPairs({"unobtainium"}, metals, true).empty());
}

TEST(Pack, NamesTheLongestPieceAndWarnsOfThePowerLineFirst)
{
    const testing::Demo demo;
    const BuildFacts whip = factsOf(demo.design, demo.antenna("Walking whip 17"));
    EXPECT_GT(whip.pack.longest, 0.1);
    EXPECT_FALSE(whip.pack.longestName.empty());
    ASSERT_FALSE(whip.pack.order.empty());
    EXPECT_NE(whip.pack.order[0].english().find("power line"), std::string::npos);
    EXPECT_EQ(factsOf(demo.design, demo.antenna("Tower V 60/40")).pack.longest, 0.0) << "wire rolls up";
}

// ---- plates

TEST(Templates, HolesLieOnTheirPlatesAndTakeTheWire)
{
    const testing::Demo demo;
    for (const Antenna& a : demo.design.antennas) {
        const auto built = buildOver(a.shape, demo.design.site.soil.ground());
        for (const Plate& p : platesFor(a, *built)) {
            double wire = a.shape.wire.diameter + 2.0 * a.shape.wire.jacket;
            for (const auto& [part, other] : a.shape.partWires)
                wire = std::min(wire, other.diameter + 2.0 * other.jacket);
            for (const Hole& h : p.holes) {
                EXPECT_GT(h.x - 0.5 * h.diameter, 0.0) << p.name;
                EXPECT_GT(h.y - 0.5 * h.diameter, 0.0) << p.name;
                EXPECT_LT(h.x + 0.5 * h.diameter, p.width) << p.name;
                EXPECT_LT(h.y + 0.5 * h.diameter, p.height) << p.name;
                if (h.use.find("wire") == 0) {
                    EXPECT_GT(h.diameter, wire) << p.name;
                }
            }
            for (std::size_t i = 0; i < p.holes.size(); ++i)
                for (std::size_t k = i + 1; k < p.holes.size(); ++k)
                    EXPECT_GT(std::hypot(p.holes[i].x - p.holes[k].x, p.holes[i].y - p.holes[k].y),
                              0.5 * (p.holes[i].diameter + p.holes[k].diameter))
                        << p.name << ": two holes run into one another";
        }
    }
}

TEST(Templates, PagesHoldTheirPlatesApart)
{
    const std::vector<Plate> plates(5, Plate{"plate", 1, 0.09, 0.07, {}});
    const auto pages = placePlates(plates, 0.19, 0.277);
    EXPECT_EQ(pages.size(), 3u);
    for (const auto& page : pages)
        for (std::size_t i = 1; i < page.size(); ++i)
            EXPECT_GT(page[i].y, page[i - 1].y + 0.07);
    const std::string svg = platesSvg(plates, "five");
    EXPECT_NE(svg.find("mm\" viewBox"), std::string::npos);
    EXPECT_NE(svg.find("h50.00"), std::string::npos) << "the bar to measure the print by";
}

} // namespace
} // namespace vetchling

/// In the field and in the shop: what stands by itself, cautions and orders of putting up by what carries an antenna, cards, caps.
#include "core/line/parts.h"
#include "core/workshop/cautions.h"
#include "core/workshop/templates.h"
#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"

namespace vetchling {
namespace {

using namespace vetchling::shapes;

Site siteOf(const std::tuple<const char*, double, double, double>& pole)
{
    Support s;
    s.id = s.name = std::get<0>(pole);
    s.kind = SupportKind::Pole;
    s.at = {std::get<1>(pole), std::get<2>(pole)};
    s.height = std::get<3>(pole);
    Site site;
    site.supports = {s};
    return site;
}

TEST(MastStand, WindBallastPegAndGuyKeepItInBalance)
{
    constexpr double height = 6.0, wind = 25.0, g = 9.81;
    const MastStand s = standOf({height, height, 0.0, 0.0}, wind);
    // 0.5 rho v^2 cd d h, in the middle of the pole
    const double force = 0.5 * 1.25 * 625.0 * 1.2 * poleDiameter * height;
    EXPECT_NEAR(s.force, force, 0.1);
    EXPECT_NEAR(s.moment, force * 3.0, 0.5);
    // about the line between two feet: wind and a half more against weight in the middle
    EXPECT_NEAR(1.5 * s.moment, (s.ballast + poleMass * height) * g * 0.5 * s.footprint, 0.5);
    // a peg on the third foot, one and a half radii from that line, in place of the ballast
    EXPECT_NEAR(1.5 * s.moment, s.pegPull * 1.5 * s.footprint + poleMass * height * g * 0.5 * s.footprint, 0.5);
    // a guy's level part at its height
    const double slope = std::hypot(s.guyAt, s.guyOut);
    EXPECT_NEAR(1.5 * s.moment, s.guyPull * s.guyOut / slope * s.guyAt, 0.5);
}

MastStand pole(double height, double wind) { return standOf({height, height, 0.0, 0.0}, wind); }

TEST(MastStand, AWhipOnATripodIsAsThickAsItIs)
{
    const BuiltAntenna whip = built(shapeOf("whip", {{"whip_m", 5.0}, {"base_height_m", 1.4}, {"whip_diameter_m", 0.008}}, 14.1e6));
    const auto s = mastStandOf({}, whip.model, 20.0);
    ASSERT_TRUE(s);
    EXPECT_NEAR(s->height, 6.4, 0.05);
    const double q = 0.5 * 1.25 * 400.0 * 1.2; // a thin tube from 1.4 m up over a pole of 1.4 m
    EXPECT_NEAR(s->force, q * (0.008 * 5.0 + poleDiameter * 1.4), 2.0);
    EXPECT_NEAR(s->moment, q * (0.008 * 5.0 * 3.9 + poleDiameter * 1.4 * 0.7), 5.0);
    EXPECT_EQ(s->guyAt, 0.0) << "nobody guys a telescope";
    EXPECT_FALSE(mastStandOf(siteOf(std::tuple("pole", 0.0, 0.0, 12.0)), built(shapeOf("dipole", {{"apex_height_m", 10.0}})).model, 20.0));
}

TEST(MastStand, TheHeightWithoutStakesIsWhereTheUsualBallastIsJustEnough)
{
    for (double wind : {12.0, 25.0}) {
        const MastStand s = pole(9.0, wind);
        EXPECT_NEAR(pole(s.unstaked, wind).ballast, usualBallast, 0.05) << wind;
        EXPECT_GT(pole(1.2 * s.unstaked, wind).ballast, usualBallast);
    }
    EXPECT_GT(pole(9.0, 12.0).unstaked, pole(9.0, 25.0).unstaked) << "less wind, a higher mast";
    std::string words;
    for (const Text& t : standWords(pole(9.0, 12.0), 12.0))
        words += t.english() + " ";
    EXPECT_NE(words.find("Keep it below"), std::string::npos) << words;
    EXPECT_EQ(words.find("nan"), std::string::npos);
}

/// The words of an antenna of a family, one after the other.
struct Told {
    std::string cautions, order, bench, cards;
};
Told toldOf(const AntennaShape& shape, const Site& site = {})
{
    Design design;
    design.site = site;
    Antenna antenna;
    antenna.id = "a";
    antenna.shape = shape;
    design.antennas = {antenna};
    const BuiltAntenna b = built(shape);
    const RiggingReport rigging = riggingOf(
        b, shape, [](const std::string&) { return WireStrength{}; }, {}, site);
    Told out;
    for (const Caution& c : cautionsOf(design, antenna, b, nullptr))
        out.cautions += c.heading + ": " + c.words.english() + "\n";
    for (const Text& t : puttingUp(antenna, b, rigging, site))
        out.order += t.english() + "\n";
    for (const Caution& c : benchCautions(antenna, b))
        out.bench += c.heading + ": " + c.words.english() + "\n";
    for (const BenchCard& card : benchCards(antenna, b))
        out.cards += card.title + "\n";
    return out;
}

bool says(const std::string& words, const char* what) { return words.find(what) != std::string::npos; }

TEST(Cautions, AWhipOnACarIsToldOfDrivingAndNotOfClimbing)
{
    const Told car = toldOf(shapeOf("mobile-whip", {}, 14.1e6));
    EXPECT_TRUE(says(car.cautions, "Driving"));
    EXPECT_TRUE(says(car.cautions, "Thunder"));
    EXPECT_TRUE(says(car.cautions, "Batteries"));
    EXPECT_FALSE(says(car.cautions, "Climbing"));
    EXPECT_FALSE(says(car.cautions, "Tension"));
    EXPECT_TRUE(says(car.order, "Park level"));
    const Told wire = toldOf(shapeOf("dipole", {{"apex_height_m", 10.0}}, 7.1e6));
    EXPECT_FALSE(says(wire.cautions, "Driving"));
    EXPECT_TRUE(says(wire.cautions, "Climbing"));
    EXPECT_TRUE(says(wire.cautions, "Lightning"));
    EXPECT_FALSE(says(wire.cautions, "Batteries"));
    EXPECT_FALSE(says(toldOf(shapeOf("dipole", {{"apex_height_m", 2.8}, {"end_height_m", 2.8}}, 28.1e6)).cautions, "Climbing"))
        << "within reach from the ground";
}

TEST(Cautions, AtTheBenchEyesAndHandsAndFumes)
{
    for (const Family* family : families()) {
        const AntennaShape shape = family->standardShape(14.1e6);
        if (!buildOver(shape, averageSoil))
            continue;
        const Told told = toldOf(shape);
        EXPECT_TRUE(says(told.bench, "Eye protection and gloves")) << family->id();
        EXPECT_TRUE(says(told.cautions, "Touching")) << family->id();
    }
    EXPECT_TRUE(says(toldOf(shapeOf("loaded-dipole", {})).bench, "not while it rains"));
}

TEST(Cautions, AnOpenTunerAtTheAntennaCarriesKilovolts)
{
    Antenna antenna;
    antenna.shape = shapeOf("doublet", {});
    ChainPart tuner;
    tuner.kind = part::tuner;
    FeedChain chain;
    chain.id = "c";
    chain.parts = {tuner};
    antenna.feed.chains = {chain};
    antenna.feed.used = "c";
    for (double place : {0.0, 2.0}) {
        antenna.feed.chains[0].parts[0].values["place"] = place;
        const auto all = benchCautions(antenna, built(antenna.shape));
        EXPECT_EQ(std::any_of(all.begin(), all.end(), [](const Caution& c) { return c.heading == "Open tuner"; }), place > 0.0);
    }
}

TEST(Cautions, ATowerThatHoldsItIsToldOf)
{
    testing::Demo demo;
    const Antenna& tower = demo.antenna("Tower V 60/40");
    const auto b = buildOver(tower.shape, groundUnder(demo.design, tower));
    ASSERT_TRUE(b.ok());
    for (bool metal : {false, true}) { // a tower of stone is not cranked up
        for (Support& s : demo.design.site.supports)
            s.metal = s.kind == SupportKind::Tower ? metal : s.metal;
        const auto all = cautionsOf(demo.design, tower, *b, nullptr);
        EXPECT_EQ(std::any_of(all.begin(), all.end(), [](const Caution& c) { return c.heading == "Tower"; }), metal);
    }
}

TEST(PuttingUp, NoWhipIsPacedOutLikeAWire)
{
    for (const Family* family : families()) {
        const AntennaShape shape = family->standardShape(14.1e6);
        if (!buildOver(shape, averageSoil))
            continue;
        const std::string order = toldOf(shape).order;
        const Carrier carrier = family->carrier();
        EXPECT_GT(std::count(order.begin(), order.end(), '\n'), 3) << family->id();
        if (carrier != Carrier::Hung) {
            EXPECT_FALSE(says(order, "lay the wire")) << family->id();
            EXPECT_FALSE(says(order, "Throw or rig")) << family->id();
        }
    }
    EXPECT_TRUE(says(toldOf(shapeOf("whip", {}, 18.1e6)).order, "tripod"));
    EXPECT_TRUE(says(toldOf(shapeOf("whip", {}, 18.1e6)).order, "Lay the radials"));
    EXPECT_FALSE(says(toldOf(shapeOf("whip", {}, 18.1e6)).cautions, "Climbing"));
    EXPECT_TRUE(says(toldOf(shapeOf("vertical", {}, 14.1e6)).order, "pole's tip")) << "a wire on a pole of its own";
    EXPECT_TRUE(says(toldOf(shapeOf("rod-dipole", {}, 28.1e6)).order, "turn it once round"));
    const std::string hats = toldOf(shapeOf("hat-dipole", {}, 14.1e6)).order;
    EXPECT_TRUE(says(hats, "lay the wire")) << "rods at its ends do not make it stand:\n" << hats;
    const std::string stub = toldOf(shapeOf("stub-vertical", {}, 14.1e6)).order;
    EXPECT_FALSE(says(stub, "radials")) << "it has none:\n" << stub;
    EXPECT_TRUE(says(toldOf(shapeOf("inverted-l", {}, 7.1e6)).order, "upper wire"));
    EXPECT_FALSE(says(toldOf(shapeOf("vertical", {}, 14.1e6)).order, "upper wire"));
    EXPECT_TRUE(says(toldOf(shapeOf("dipole", {})).order, "lay the wire"));
}

TEST(BenchCards, AreThoseOfWhatIsJoined)
{
    EXPECT_TRUE(says(toldOf(shapeOf("rod-dipole", {}, 28.1e6)).cards, "A rod to a rod"));
    EXPECT_TRUE(says(toldOf(shapeOf("loaded-dipole", {})).cards, "A soldered joint"));
    EXPECT_FALSE(says(toldOf(shapeOf("dipole", {})).cards, "A rod to a rod"));
}

TEST(Parts, AMatchingSectionHasPlugsAndAJoiner)
{
    Antenna antenna;
    antenna.shape = shapeOf("delta-loop", {}, 18.1e6);
    FeedChain chain;
    chain.id = "c";
    const auto part = [](const char* kind) {
        ChainPart p;
        p.kind = kind;
        return p;
    };
    ChainPart line = part(part::line);
    line.values["length_m"] = 12.0;
    chain.parts = {line};
    antenna.feed.chains = {chain};
    antenna.feed.used = "c";
    const auto countIn = [&](const char* key) {
        for (const PartRow& row : partsOf(antenna, built(antenna.shape), {}, {}))
            if (row.key == key)
                return row.count;
        return 0.0;
    };
    EXPECT_EQ(countIn("plug"), 2.0);
    EXPECT_EQ(countIn("joiner"), 0.0);
    antenna.feed.chains[0].parts = {part(part::section), line};
    EXPECT_EQ(countIn("plug"), 4.0);
    EXPECT_EQ(countIn("joiner"), 1.0);
}

TEST(Templates, ABoxForATransformerHasRoundCaps)
{
    Antenna antenna;
    antenna.shape = shapeOf("end-fed", {});
    const auto plates = platesFor(antenna, built(antenna.shape));
    int caps = 0;
    for (const Plate& p : plates) {
        if (!p.round)
            continue;
        ++caps;
        for (const Hole& h : p.holes) // all of each hole within the round edge, with 4 mm to spare
            EXPECT_LT(std::hypot(h.x - 0.5 * p.width, h.y - 0.5 * p.height) + 0.5 * h.diameter, 0.5 * p.width - 0.004) << p.name;
        for (std::size_t i = 0; i < p.holes.size(); ++i)
            for (std::size_t k = 0; k < i; ++k)
                EXPECT_GT(std::hypot(p.holes[i].x - p.holes[k].x, p.holes[i].y - p.holes[k].y),
                          0.5 * (p.holes[i].diameter + p.holes[k].diameter) + 0.003)
                    << p.name;
    }
    EXPECT_EQ(caps, 2);
    const std::string svg = platesSvg(plates, "caps");
    EXPECT_NE(svg.find("r=\"37.50\""), std::string::npos) << "75 mm across";
    antenna.shape = shapeOf("delta-loop", {{"transformer_ratio", 1.0}});
    for (const Plate& p : platesFor(antenna, built(antenna.shape)))
        EXPECT_FALSE(p.round) << p.name;
}

TEST(Wire, StainlessSteelLosesWhatItsSkinSaysAndCopperNothing)
{
    WireChoice wire;
    EXPECT_NEAR(lossOverCopper(wire, 7.1e6), 1.0, 1e-9);
    wire.metal.conductivity = 1.39e6;
    // a layer of the skin's depth under a round surface
    const auto ohms = [&](double conductivity) {
        const double skin = std::sqrt(2.0 / (2.0 * pi * 7.1e6 * vacuumPermeability * conductivity));
        return 1.0 / (conductivity * skin * (1.0 - 0.5 * skin / (0.5 * wire.diameter)));
    };
    EXPECT_NEAR(lossOverCopper(wire, 7.1e6), ohms(1.39e6) / ohms(5.8e7), 0.05);
}

} // namespace
} // namespace vetchling

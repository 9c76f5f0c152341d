/// What to wind for a coil of an antenna.
#include "core/files/design_file.h"
#include "core/study/coil_study.h"
#include "tests/core/demo.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

using testing::Demo;

TEST(Winding, TurnsMakeTheInductanceOnItsFormer)
{
    const Winding w{0.032, 1.2e-3, 5e-4, 1e-3, 1.0};
    const Coil one = coilOf(w);
    EXPECT_NEAR(one.meanDiameter, 0.032 + 1.2e-3 + 1e-3, 1e-12); // the centre of the wire, a jacket outside the former
    EXPECT_NEAR(one.pitch, 1.2e-3 + 2.0 * 5e-4 + 1e-3, 1e-12);
    EXPECT_GT(coilOf({0.03, 1e-3, 0.0, 0.0, 0.0}).pitch, 1e-3); // touching turns keep their enamel apart
    const Wound wound = windFor(8.2e-6, 10.12e6, w);
    ASSERT_TRUE(wound.good());
    EXPECT_NEAR(coilFigures(wound.coil, 10.12e6)->atFrequency + leadInductance(wound.coil), 8.2e-6, 3e-9);
    EXPECT_GT(wound.leads, 5e-9);
    Coil more = wound.coil;
    more.turns += 1.0;
    EXPECT_NEAR(coilFigures(more, 10.12e6)->atFrequency + wound.leads - 8.2e-6, wound.perTurn, 0.1 * wound.perTurn);
    EXPECT_FALSE(windFor(1.0, 10e6, w).good());
    EXPECT_FALSE(windFor(1.0, 10e6, w).fault.message.empty());
}

// Two radial leads of helices that were solved turn by turn by another program.
TEST(Winding, LeadsAreThoseOfSolvedHelices)
{
    EXPECT_NEAR(leadInductance({0.040, 2.0e-3, 0.004, 12.0}), 2.026e-8, 0.03 * 2.026e-8);
    EXPECT_NEAR(leadInductance({0.050, 1.5e-3, 0.003, 25.0}), 3.064e-8, 0.03 * 3.064e-8);
    EXPECT_NEAR(leadInductance({0.080, 2.0e-3, 0.010, 5.0}), 4.840e-8, 0.03 * 4.840e-8);
    EXPECT_GT(leadInductance({0.080, 2.0e-3, 0.010, 5.5}), leadInductance({0.080, 2.0e-3, 0.010, 5.0})) << "on opposite sides";
}

TEST(Winding, OthersBesideMakeTheSameInductance)
{
    const Winding w;
    const auto all = windingsBeside(8.2e-6, 10.12e6, w);
    EXPECT_GE(all.size(), 5u);
    int now = 0;
    for (const Wound& other : all) {
        now += other.winding == w;
        EXPECT_NEAR(other.figures.atFrequency + other.leads, 8.2e-6, 1e-11);
    }
    EXPECT_EQ(now, 1);
    // a thicker former needs fewer turns; touching bare turns lose more
    EXPECT_GT(all[0].coil.turns, all[3].coil.turns);
    EXPECT_LT(all[4].figures.q, all[1].figures.q);
}

TEST(Winding, SurvivesTheFile)
{
    Demo demo;
    demo.design.antennas[4].winding = {0.05, 2e-3, 0.0, 1.5e-3, 2.0};
    const auto again = files::parseDesign(files::writeDesign(demo.design));
    ASSERT_TRUE(again.ok());
    EXPECT_EQ(again->antennas[4].winding, demo.design.antennas[4].winding);
    EXPECT_EQ(again->antennas[0].winding, Winding());
}

TEST(CoilStudy, ATurnMovesTheDipAsTheModelSays)
{
    const Demo demo;
    const Antenna& a = demo.antenna("Coil dipole 30");
    ASSERT_EQ(study::coilsOf(a.shape), std::vector<std::string>{"inductance_H"});
    EXPECT_TRUE(study::coilsOf(demo.antenna("Tower V 60/40").shape).empty());
    study::Library library;
    study::CoilQuestion asked = study::coilQuestionOf(demo.design, a, "inductance_H", 0);
    asked.turnsAtHand = 10.0;
    const auto answer = study::coilAnswer(library, asked);
    ASSERT_TRUE(answer.ok()) << answer.firstFault();
    ASSERT_TRUE(answer->wound.good());
    EXPECT_NEAR(answer->wound.whole(), a.shape.parameters.at("inductance_H"), 1e-11);
    EXPECT_LT(answer->perHenry, 0.0); // more coil, lower dip
    EXPECT_LT(answer->perLever, 0.0);
    // solved with a turn more: the dip goes where the slope says
    study::Question q = study::questionOf(demo.design, a);
    const double before = (*study::curveOf(library, q))->resonance->frequency;
    q.subject.shape.parameters["inductance_H"] += 0.2 * answer->wound.perTurn;
    const double after = (*study::curveOf(library, q))->resonance->frequency;
    const double told = 0.2 * answer->wound.perTurn * answer->perHenry;
    EXPECT_NEAR(after - before, told, 0.05 * std::abs(told));
    EXPECT_NEAR(answer->atHand->atFrequency, coilFigures(coilOf(a.winding, 10.0), answer->frequency)->atFrequency, 1e-15);
    // half the Q, twice the loss
    Wound half = answer->wound;
    half.figures.q = 0.5 * answer->assumedQ;
    EXPECT_NEAR(answer->lostWith(half), 2.0 * answer->lost, 1e-12);
}

} // namespace
} // namespace vetchling

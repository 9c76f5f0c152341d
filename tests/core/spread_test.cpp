#include "core/study/configurations.h"
#include "core/study/spread.h"
#include "tests/core/demo.h"
#include "tests/validation/spread_draws.h"

#include <gtest/gtest.h>

#include <algorithm>

namespace vetchling::study {
namespace {

using testing::Demo;
using testing::fiveSoils;
using testing::pointOf;
using testing::solvedOff;
using testing::vOverSoil;

class OverSoils : public ::testing::TestWithParam<Soil> {};

TEST_P(OverSoils, TheSpreadIsThatOfSolvedDraws)
{
    Library library;
    const SpreadQuestion asked = vOverSoil(GetParam());
    const auto spread = spreadOf(library, asked);
    ASSERT_TRUE(spread.ok()) << spread.firstFault();
    const BandSpread& band = spread->bands.front();
    ASSERT_TRUE(band.dip);
    std::vector<double> dips, lowest;
    for (const testing::DrawnAntenna& drawn : testing::evenDraws(library, asked, 24, 7)) {
        dips.push_back(drawn.dip);
        lowest.push_back(drawn.lowestSwr);
    }
    const double width = (*band.dip)[2] - (*band.dip)[0], allowed = std::max(0.15 * width, 2e3);
    EXPECT_GT(width, 10e3); // there is something to be found
    EXPECT_NEAR((*band.dip)[0], pointOf(dips, 0.05), allowed);
    EXPECT_NEAR((*band.dip)[1], pointOf(dips, 0.5), allowed);
    EXPECT_NEAR((*band.dip)[2], pointOf(dips, 0.95), allowed);
    for (int i = 0; i < 3; ++i)
        EXPECT_NEAR(band.lowestSwr[std::size_t(i)], pointOf(lowest, i == 0 ? 0.05 : i == 1 ? 0.5 : 0.95), 0.04) << i;
}

INSTANTIATE_TEST_SUITE_P(Five, OverSoils, ::testing::ValuesIn(fiveSoils()), [](const auto& info) {
    std::string name = info.param.name;
    name.erase(std::remove(name.begin(), name.end(), ' '), name.end());
    return name;
});

TEST(Spread, OfACutAloneIsTheLeverTimesTheCut)
{
    Library library;
    SpreadQuestion asked = vOverSoil(fiveSoils()[2]);
    asked.tolerances = {0.0, 0.05, 0.0, 0.0, 1.0, 1.0, {}};
    const auto spread = spreadOf(library, asked);
    ASSERT_TRUE(spread.ok());
    const BandSpread& band = spread->bands.front();
    const double off = solvedOff(library, asked, {{Unsure::Cut, 1.0}}).dip - solvedOff(library, asked, {}).dip;
    EXPECT_NEAR(off, -0.05 / 10.0 * 7.1e6, 3e3); // as the length goes, so goes the dip
    ASSERT_FALSE(band.shifts.empty());
    EXPECT_EQ(band.shifts.front().what, Unsure::Cut);
    EXPECT_NEAR(band.shifts.front().shift, off, 0.05 * std::abs(off));
    // two standard deviations either side: 5 and 95 of a hundred lie 1.645 / 2 of it away
    EXPECT_NEAR((*band.dip)[2] - (*band.dip)[1], 0.8224 * std::abs(off), 0.06 * std::abs(off));
    EXPECT_NEAR((*band.dip)[1] - (*band.dip)[0], 0.8224 * std::abs(off), 0.06 * std::abs(off));
}

TEST(Spread, WithoutTolerancesIsAPoint)
{
    Library library;
    SpreadQuestion asked = vOverSoil(fiveSoils()[2]);
    asked.tolerances = {0.0, 0.0, 0.0, 0.0, 1.0, 1.0, {}};
    const auto spread = spreadOf(library, asked);
    ASSERT_TRUE(spread.ok());
    const BandSpread& band = spread->bands.front();
    EXPECT_NEAR((*band.dip)[2] - (*band.dip)[0], 0.0, 1.0);
    const auto curve = curveOf(library, asked.question);
    EXPECT_NEAR(band.lowestSwr[1], (*curve)->bands.front().lowestSwr, 0.005);
    EXPECT_EQ(cutMargin(band), 0.0);
}

TEST(Spread, OfHeightMovesTheGainAsTheHeightDoes)
{
    Library library;
    SpreadQuestion asked = vOverSoil(fiveSoils()[2]);
    asked.tolerances = {0.8, 0.0, 0.0, 0.0, 1.0, 1.0, {}};
    asked.aim.elevation = 0.4;
    const auto spread = spreadOf(library, asked);
    ASSERT_TRUE(spread.ok());
    ASSERT_TRUE(spread->bands.front().gain);
    const auto gainAt = [&](double part) {
        const auto built = antennaOff(asked, 0, {{Unsure::Height, part}});
        const auto solution = em::solve(std::make_shared<const WireModel>(built->model), 7.1e6, library.tables());
        return gainTowards(em::FarField(*solution), asked.aim);
    };
    const double low = gainAt(-1.0), high = gainAt(1.0), points = 0.8224; // 1.645 of two standard deviations
    EXPECT_GT(high, low + 0.1);
    const auto& gain = *spread->bands.front().gain;
    EXPECT_NEAR(gain[2] - gain[0], points * (high - low), 0.08 * (high - low));
}

TEST(Spread, OfSoilAloneRunsFromItsDryToItsWetSeason)
{
    Library library;
    SpreadQuestion asked = vOverSoil(fiveSoils()[2]);
    asked.tolerances = {0.0, 0.0, 0.0, 0.0, 3.0, 1.5, {}};
    const auto byFactor = spreadOf(library, asked);
    asked.soil.dry = SoilFigures{13.0, 0.005}; // no season at all
    asked.soil.wet = asked.soil.dry;
    const auto still = spreadOf(library, asked);
    ASSERT_TRUE(byFactor.ok() && still.ok());
    const auto width = [](const Spread& s) { return (*s.bands.front().dip)[2] - (*s.bands.front().dip)[0]; };
    EXPECT_GT(width(*byFactor), 1e3);
    EXPECT_LT(width(*still), 10.0);
}

TEST(Spread, StopsWhenToldAndSaysSo)
{
    Library library;
    const Watch stop([] { return true; });
    const auto spread = spreadOf(library, vOverSoil(fiveSoils()[2]), stop);
    ASSERT_FALSE(spread.ok());
    EXPECT_TRUE(spread.stopped());
}

TEST(Spread, OfAnAntennaThatCannotBeIsAFault)
{
    Library library;
    SpreadQuestion asked = vOverSoil(fiveSoils()[2]);
    asked.question.subject.shape.parameters["end_height_m"] = 200.0;
    EXPECT_FALSE(spreadOf(library, asked).ok());
}

TEST(Spread, TellsOnlyCausesThatThereAre)
{
    SpreadQuestion asked = vOverSoil(fiveSoils()[2]);
    const auto has = [&](Unsure what) {
        const auto all = causesOf(asked, 0);
        return std::find(all.begin(), all.end(), what) != all.end();
    };
    EXPECT_TRUE(has(Unsure::Jacket));
    EXPECT_TRUE(has(Unsure::Unequal));
    asked.question.subject.shape.wire.jacket = 0.0;
    EXPECT_FALSE(has(Unsure::Jacket));
    asked.question.subject.shape = shapes::findFamily("vertical")->standardShape(7.1e6);
    EXPECT_FALSE(has(Unsure::Unequal));
}

TEST(Spread, OfWhatStandsOnTheGroundKeepsItAboveTheGround)
{
    SpreadQuestion asked = vOverSoil(fiveSoils()[2]);
    asked.question.subject.shape = shapes::findFamily("vertical")->standardShape(7.1e6);
    const auto low = antennaOff(asked, 0, {{Unsure::Height, -1.0}});
    ASSERT_TRUE(low.ok()) << low.firstFault();
    EXPECT_GT(low->model.lowestPoint(), 0.0);
}

TEST(Spread, UnequalSidesKeepTheWholeLength)
{
    const SpreadQuestion asked = vOverSoil(fiveSoils()[2]);
    const auto even = antennaOff(asked, 0, {}), off = antennaOff(asked, 0, {{Unsure::Unequal, 1.0}});
    ASSERT_TRUE(even.ok() && off.ok());
    EXPECT_NEAR(even->model.totalLength(), off->model.totalLength(), 1e-9);
    const Feed& feed = off->model.feeds.front();
    const double first = feed.at, second = off->model.wires[feed.wire].length() - feed.at;
    EXPECT_NEAR(std::abs(first - second), asked.tolerances.unequal, 1e-9);
}

TEST(Spread, OfTheDemosLinkedVTakesEachBandInItsLinks)
{
    const Demo demo;
    Library library;
    const SpreadQuestion asked = spreadQuestionOf(demo.design, demo.antenna("Tower V 60/40"));
    const auto spread = spreadOf(library, asked);
    ASSERT_TRUE(spread.ok()) << spread.firstFault();
    for (const BandSpread& band : spread->bands) {
        const WantedBand& wanted = *findBand(demo.design, band.band);
        if (wanted.band.name == "60 m" || wanted.band.name == "40 m") {
            ASSERT_TRUE(band.dip) << wanted.band.name;
            EXPECT_GT((*band.dip)[0], wanted.band.from - 0.05e6);
            EXPECT_LT((*band.dip)[2], wanted.band.to + 0.05e6);
            ASSERT_TRUE(band.gain);
            EXPECT_LT((*band.gain)[0], (*band.gain)[2]);
            EXPECT_EQ(band.frequency.size(), band.swrTo.size());
            for (std::size_t i = 0; i < band.frequency.size(); ++i)
                EXPECT_LE(band.swrFrom[i], band.swrTo[i]);
        }
    }
    EXPECT_NE(spread->bands[1].configuration, spread->bands[2].configuration); // 60 m and 40 m
}

TEST(Soil, GoesFromDryToWetByItsClassOrByAFactor)
{
    Soil soil{"", "", "", 13.0, 0.005};
    Tolerances t;
    EXPECT_NEAR(soilAt(soil, t, 1.0).conductivity, 0.015, 1e-12);
    EXPECT_NEAR(soilAt(soil, t, -1.0).conductivity, 0.005 / 3.0, 1e-12);
    EXPECT_NEAR(soilAt(soil, t, -0.5).conductivity, 0.005 / std::sqrt(3.0), 1e-12);
    soil.dry = SoilFigures{7.0, 0.001};
    EXPECT_NEAR(soilAt(soil, t, -1.0).relativePermittivity, 7.0, 1e-12);
    EXPECT_EQ(soilAt(soil, t, 0.0), soil.ground());
    soil = {"", "", "", 1.2, 0.0};
    EXPECT_GE(soilAt(soil, t, -1.0).relativePermittivity, 1.0);
}

} // namespace
} // namespace vetchling::study

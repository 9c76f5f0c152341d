/// What measurements say of the site, what a step does elsewhere, and what a log tells after months.
#include "core/files/log_csv.h"
#include "core/study/answers.h"
#include "core/trim/as_built.h"
#include "core/trim/history.h"
#include "core/trim/sense.h"
#include "core/trim/site_fit.h"
#include "core/trim/step_effects.h"
#include "core/tune/tune.h"
#include "tests/validation/held_antenna.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

WantedBand wanted(const char* name, double from, double to, Wish wish = Wish::Must)
{
    WantedBand b;
    b.band = {name, from, to};
    b.wish = wish;
    b.id = name;
    return b;
}

Design tunedDipole(double height)
{
    Design design;
    Antenna antenna;
    antenna.id = "a";
    antenna.name = "dipole";
    antenna.shape = shapes::findFamily("dipole")->standardShape(7.1e6);
    antenna.shape.parameters["apex_height_m"] = antenna.shape.parameters["end_height_m"] = height;
    study::Library library;
    if (const auto tuned = tuneAll(antenna.shape, design.site.soil.ground(), library.tables()))
        for (const TunedValue& v : tuned->lengths)
            antenna.shape.parameters[v.length.parameter] = v.value;
    design.antennas = {antenna};
    design.operation.bands = {wanted("40 m", 7.0e6, 7.2e6)};
    return design;
}

/// What would be read of the antenna that really hangs there, at some cuts and heights above the plan.
void measureReal(study::Library& library, Design& design, const HiddenFaults& faults,
                 const std::vector<std::pair<double, double>>& cutsAndHeights)
{
    Antenna& antenna = design.antennas.front();
    AsBuilt built;
    built.plan.shape = antenna.shape;
    built.plan.ground = design.site.soil.ground();
    built.faults = faults;
    study::Subject drawn = built.plan;
    const double height = heightOf(*library.study(drawn)->built);
    Handling hands;
    for (const auto& [cut, higher] : cutsAndHeights) {
        hands.changes["leg_m"] -= cut;
        hands.higher = higher;
        std::vector<double> f;
        for (double one = 6.6e6; one < 7.6e6; one += 1e4)
            f.push_back(one);
        const auto z = impedancesOf(library, built, hands, f);
        ASSERT_TRUE(z.ok()) << z.firstFault();
        MeasuredSweep sweep;
        for (std::size_t i = 0; i < f.size(); ++i)
            sweep.points.push_back({f[i], (*z)[i], measuredSwr((*z)[i], 50.0)});
        Measurement m;
        takeSweep(sweep, m);
        m.cutSinceLast = cut;
        m.parameter = "leg_m";
        m.height = height + higher;
        antenna.trim.measurements.push_back(m);
    }
}

// Hidden length, height and soil are found within what the fit itself says it is sure of, and the dip of the finished antenna is foretold.
TEST(SiteFit, FindsWhatWasHidden)
{
    study::Library library;
    Design design = tunedDipole(8.0);
    const HiddenFaults hidden{1.3, 1.5, -0.4, 0.012};
    measureReal(library, design, hidden, {{0.0, 0.0}, {0.06, 0.0}, {0.0, -3.0}, {0.0, 2.0}});
    const auto fit = fitSite(library, design, design.antennas.front());
    ASSERT_TRUE(fit.ok()) << fit.firstFault();
    EXPECT_EQ(fit->measurements, 4);
    EXPECT_NEAR(fit->longer.value, hidden.longer, 2.5 * fit->longer.sure);
    EXPECT_NEAR(fit->higher.value, hidden.higher, 2.5 * fit->higher.sure);
    EXPECT_NEAR(std::log(fit->permittivity.value / 13.0), std::log(1.3), 2.5 * fit->permittivity.sure / fit->permittivity.value);
    EXPECT_LT(fit->longer.sure, 0.008) << "it has learned more than it knew";
    EXPECT_LT(fit->after, 0.35 * fit->before);
    ASSERT_EQ(fit->bands.size(), 1u);
    // what hangs there now, at the planned height
    AsBuilt built;
    built.plan.shape = design.antennas.front().shape;
    built.plan.ground = design.site.soil.ground();
    built.faults = hidden;
    Handling now;
    now.changes["leg_m"] = -0.06;
    const auto dip = dipNear(library, subjectOf(built, now), 7.1e6);
    EXPECT_NEAR(fit->bands.front().dip.value, dip->dip, std::max(6e3, 2.5 * fit->bands.front().dip.sure));
    EXPECT_GT(std::abs(fit->bands.front().asPlanned - dip->dip), 2e4) << "the plan alone was wrong";
}

TEST(SiteFit, IsTakenIntoTheDesign)
{
    Design design = tunedDipole(8.0);
    SiteFit fit;
    fit.permittivity = {22.0, 6.0};
    fit.conductivity = {0.02, 0.01};
    fit.higher = {-0.5, 0.1};
    fit.longer = {0.01, 0.002};
    const double leg = design.antennas.front().shape.parameters["leg_m"];
    useFit(design, "a", fit);
    EXPECT_NEAR(design.antennas.front().shape.parameters["leg_m"], 1.01 * leg, 1e-9);
    EXPECT_NEAR(design.antennas.front().shape.parameters["apex_height_m"], 7.5, 1e-9);
    EXPECT_DOUBLE_EQ(design.site.soil.relativePermittivity, 22.0);
    EXPECT_TRUE(design.site.soil.id.empty()) << "own figures now";
    const Design before = design;
    useFit(design, "nobody", fit);
    EXPECT_EQ(design, before);
}

// The margin of the cut list is no fault of the building: a wire that hangs as the list says is not found longer, and the plan's dip is the
// plan's, whatever was cut since.
TEST(SiteFit, KnowsTheMarginAndThePlan)
{
    study::Library library;
    Design design = tunedDipole(10.0);
    design.operation.bands.push_back(wanted("10 m", 28.0e6, 29.7e6));
    Antenna& antenna = design.antennas.front();
    const Ground soil = design.site.soil.ground();
    const double leg = shapes::familyOf(antenna.shape).value(antenna.shape, "leg_m"),
                 margin = 0.01 * antenna.allowances.marginPercent * leg;
    const testing::HeldAntenna plan({*shapes::buildOver(antenna.shape, soil)});
    testing::HeldAntenna held = plan;
    const auto planned = plan.dip(library, soil, 0, 7.1e6);
    held.take(*testing::gripOf("dipole", "leg_m"), -margin);
    for (double cut : {0.0, 0.25}) {
        held.take(*testing::gripOf("dipole", "leg_m"), cut);
        Measurement m;
        m.dip = held.dip(library, soil, 0, 7.1e6)->frequency;
        m.cutSinceLast = cut;
        addMeasurement(antenna, m);
    }
    const auto fit = fitSite(library, design, antenna);
    ASSERT_TRUE(fit.ok()) << fit.firstFault();
    EXPECT_NEAR(fit->longer.value, 0.0, 0.003) << "1.4 % of it were told";
    ASSERT_EQ(fit->bands.size(), 1u) << "no dip of 10 m is told that lies elsewhere";
    EXPECT_NEAR(fit->bands.front().asPlanned, planned->frequency, 5e3);
    EXPECT_NEAR(fit->bands.front().dip.value, antenna.trim.measurements.back().dip, 12e3);
}

TEST(SiteFit, NeedsSomethingMeasured)
{
    study::Library library;
    const Design design = tunedDipole(8.0);
    EXPECT_NE(fitSite(library, design, design.antennas.front()).firstFault().find("nothing measured"), std::string::npos);
}

// A cut for 40 m moves the same dipole's third resonance too, and that is said before it is made.
TEST(StepEffects, TellOfTheOtherBands)
{
    study::Library library;
    Design design = tunedDipole(10.0);
    design.operation.bands.push_back(wanted("15 m", 21.0e6, 21.45e6));
    design.operation.bands.push_back(wanted("20 m", 14.0e6, 14.35e6, Wish::No));
    const auto next = [&] { return trimNext(library, trimQuestionOf(design, design.antennas.front())); };
    const auto nothing = next();
    ASSERT_TRUE(nothing.ok());
    EXPECT_TRUE(stepEffects(library, design, design.antennas.front(), *nothing)->empty()) << "nothing is to be changed yet";
    Measurement m;
    m.dip = 6.9e6;
    design.antennas.front().trim.measurements = {m};
    const auto cut = next();
    ASSERT_TRUE(cut.ok());
    ASSERT_EQ(cut->next.step, TrimStep::Cut);
    const auto effects = stepEffects(library, design, design.antennas.front(), *cut);
    ASSERT_TRUE(effects.ok()) << effects.firstFault();
    ASSERT_EQ(effects->size(), 1u);
    EXPECT_EQ(effects->front().name, "15 m");
    EXPECT_GT(std::abs(effects->front().swrAfter - effects->front().swrBefore), 0.1);
    EXPECT_FALSE(effectWords(*effects).empty());
}

// When to stop: the whole band is under the limit, though the dip is not on its goal.
TEST(StepEffects, SayWhenItIsEnough)
{
    study::Library library;
    Design design = tunedDipole(12.0);
    const auto curve = study::curveOf(library, study::questionOf(design, design.antennas.front()));
    ASSERT_TRUE(curve.ok());
    const study::CurvePointer& known = *curve;
    const auto here = highestAcross(design, 7.1e6, *known, known->fundamental),
               lower = highestAcross(design, 7.1e6, *known, 0.98 * known->fundamental);
    ASSERT_TRUE(here && lower);
    EXPECT_GT(*lower, *here) << "a dip below the band leaves its upper end high";
    EXPECT_NEAR(*here, std::max(known->swrAt(7.0e6), known->swrAt(7.2e6)), 0.05);
    EXPECT_FALSE(highestAcross(design, 10.1e6, *known, 10.1e6)) << "in no band";
}

// ---- history

Measurement at(const char* when, double dip, SoilState soil = SoilState::NotNoted, double cut = 0.0)
{
    Measurement m;
    m.id = when;
    m.when = when;
    m.dip = dip;
    m.soil = soil;
    m.cutSinceLast = cut;
    if (cut != 0.0)
        m.parameter = "leg_m";
    return m;
}

Antenna logged(std::vector<Measurement> log)
{
    Antenna a;
    a.shape = shapes::findFamily("dipole")->standardShape(7.1e6);
    a.shape.parameters["leg_m"] = 10.0;
    a.trim.measurements = std::move(log);
    return a;
}

TEST(Days, AreCounted)
{
    EXPECT_DOUBLE_EQ(*dayOf("1970-01-02T12:00"), 1.5);
    EXPECT_DOUBLE_EQ(*dayOf("2024-03-01") - *dayOf("2024-02-28"), 2.0) << "a leap year";
    for (const char* none : {"", "yesterday", "2024-13-01", "2024-02-30T10:00", "2024-02-03T25:00"})
        EXPECT_FALSE(dayOf(none)) << none;
}

// df/f = -dL/L: a dip that fell by 0.2 % is 2 cm of a leg of 10 m.
TEST(Drift, IsHeldAgainstStretch)
{
    const Antenna a =
        logged({at("2025-04-01T10:00", 7.2e6), at("2025-04-01T11:00", 7.1e6, SoilState::NotNoted, 0.0), at("2025-10-01T10:00", 7.0858e6)});
    const auto series = dipSeriesOf(a);
    ASSERT_EQ(series.size(), 1u);
    ASSERT_EQ(series.front().points.size(), 3u);
    const auto drift = driftOf(a, series.front());
    ASSERT_TRUE(drift);
    EXPECT_NEAR(drift->stretch, 10.0 * (7.2e6 - 7.0858e6) / 7.2e6, 1e-6);
    EXPECT_NE(driftWords(*drift).english().find("stretch"), std::string::npos);
}

TEST(Drift, CountsFromTheLastCut)
{
    const Antenna a = logged({at("2025-04-01T10:00", 6.9e6), at("2025-04-01T11:00", 7.1e6, SoilState::Dry, 0.2),
                              at("2025-11-01T11:00", 7.08e6, SoilState::Wet), at("2026-05-01T11:00", 7.099e6, SoilState::Dry),
                              at("2026-11-01T11:00", 7.079e6, SoilState::Wet)});
    const auto series = dipSeriesOf(a);
    EXPECT_FALSE(series.front().points.front().afterLastCut);
    const auto drift = driftOf(a, series.front());
    EXPECT_NEAR(drift->change, -21e3, 1.0);
    EXPECT_NEAR(*drift->wetLessDry, -20e3, 1e3);
    EXPECT_TRUE(drift->seasonal) << "wet soil explains it, not the wire";
    EXPECT_NE(driftWords(*drift).english().find("wet and dry"), std::string::npos);
    EXPECT_FALSE(driftOf(a, {0, 7.1e6, {series.front().points.back()}})) << "one alone drifts nowhere";
}

// Links: each band has a line of its own, and what is cut inside ends the outer one's settled time too.
TEST(Drift, OfALinkedAntennaIsToldByBand)
{
    Antenna a;
    a.shape = shapes::findFamily("linked-dipole")->standardShape(14.1e6);
    const auto tasks = trimTasks(a);
    ASSERT_GE(tasks.size(), 2u);
    const auto entry = [&](const char* when, std::size_t task, double part, double cut) {
        Measurement m = at(when, part * tasks[task].target, SoilState::NotNoted, cut);
        m.configuration = tasks[task].configuration;
        m.parameter = cut != 0.0 ? tasks[task].lever.parameter : std::string();
        return m;
    };
    a.trim.measurements = {entry("2025-04-01T10:00", 0, 0.99, 0.0), entry("2025-04-01T11:00", 1, 0.98, 0.0),
                           entry("2025-04-01T12:00", 0, 1.0, 0.05), entry("2025-09-01T12:00", 0, 0.998, 0.0),
                           entry("2025-09-01T13:00", 1, 0.99, 0.0)};
    const auto all = dipSeriesOf(a);
    ASSERT_EQ(all.size(), 2u);
    EXPECT_EQ(all[0].points.size(), 3u);
    EXPECT_EQ(all[1].points.size(), 2u);
    EXPECT_FALSE(all[1].points[0].afterLastCut) << "the inner cut moved it";
    EXPECT_TRUE(driftOf(a, all[0]));
    EXPECT_FALSE(driftOf(a, all[1])) << "only one dip is left after that cut";
    EXPECT_NE(comparedWords(a, a.trim.measurements[0], a.trim.measurements[1]).front().english().find("two different bands"),
              std::string::npos);
}

TEST(Drift, IsSaidEitherWay)
{
    const auto words = [](double change, double stretch) {
        Drift d;
        d.change = change;
        d.days = 200.0;
        d.stretch = stretch;
        d.within = 1e4;
        return driftWords(d).english();
    };
    EXPECT_NE(words(100.0, -1e-4).find("stayed where it was"), std::string::npos);
    EXPECT_NE(words(-2e4, 0.028).find("2.8 cm of stretch"), std::string::npos);
    EXPECT_NE(words(2e4, -0.028).find("Wire does not shrink"), std::string::npos);
}

TEST(Compared, SaysWhetherTheyMayBe)
{
    Antenna a = logged({at("2025-04-01T10:00", 7.0e6), at("2025-04-01T11:00", 7.08e6, SoilState::Wet, 0.1)});
    auto& log = a.trim.measurements;
    log[0].soil = SoilState::Dry;
    log[0].height = 6.0;
    log[1].height = 12.0;
    std::string all;
    for (const Text& t : comparedWords(a, log[0], log[1]))
        all += t.english() + "\n";
    for (const char* part :
         {"Not at the same height", "dry, and then wet", "went up", "10.0 cm were taken off", "8 kHz for each centimetre"})
        EXPECT_NE(all.find(part), std::string::npos) << part << " in\n" << all;
    log[1].height.reset();
    EXPECT_NE(comparedWords(a, log[0], log[1]).front().english().find("not noted"), std::string::npos);
}

TEST(Places, RememberWhatWorkedThere)
{
    Antenna a = logged({at("2025-04-01T10:00", 7.0e6), at("2025-05-01T10:00", 7.1e6, SoilState::Dry, 0.3),
                        at("2025-06-01T10:00", 7.12e6, SoilState::Dry, 0.1)});
    auto& log = a.trim.measurements;
    log[0].place = log[2].place = "north beach";
    log[1].place = "summit";
    const auto places = placesOf(a);
    ASSERT_EQ(places.size(), 2u);
    EXPECT_EQ(places[0].place, "north beach");
    EXPECT_NEAR(places[0].settings.front().second, 9.6, 1e-9) << "as it was set then";
    EXPECT_NEAR(places[1].settings.front().second, 9.7, 1e-9);
}

TEST(LogTable, QuotesAndLeavesOutWhatIsNotKnown)
{
    Antenna a = logged({at("2025-04-01T10:00", 7.0e6, SoilState::Wet)});
    a.trim.measurements[0].remark = "rain, \"heavy\"";
    a.trim.reports.push_back({"r", "2025-04-02T09:00", 7.09e6, 90e3, 41.0, 100.0, "59", "", {}});
    const std::string csv = files::logCsv(a);
    EXPECT_NE(csv.find("\"rain, \"\"heavy\"\"\""), std::string::npos);
    EXPECT_NE(csv.find("report,2025-04-02T09:00"), std::string::npos);
    std::vector<std::size_t> commas;
    for (std::size_t from = 0, to; (to = csv.find('\n', from)) != std::string::npos; from = to + 1) {
        std::string line = csv.substr(from, to - from);
        bool quoted = false;
        commas.push_back(std::size_t(
            std::count_if(line.begin(), line.end(), [&](char c) { return c == '"' ? (quoted = !quoted, false) : c == ',' && !quoted; })));
    }
    EXPECT_EQ(commas, std::vector<std::size_t>(3, commas.front())) << csv;
}

// ---- signs between two measurements

TEST(SenseBetween, TellsJointsAndShields)
{
    Measurement a = at("a", 7.0e6), b = at("b", 7.04e6);
    a.dipSwr = 1.3, b.dipSwr = 1.35;
    EXPECT_EQ(senseBetween(a, b).front().sign, SenseSign::Jumped);
    b.coax = 12.0;
    EXPECT_EQ(senseBetween(a, b).front().sign, SenseSign::MovedWithCoax);
    b.dip = 7.005e6;
    EXPECT_TRUE(senseBetween(a, b).empty()) << "the same dip with other coax is as it should be";
    b.coax = 0.0;
    EXPECT_TRUE(senseBetween(a, b).empty());
    b.dipSwr = 2.0;
    EXPECT_EQ(senseBetween(a, b).front().sign, SenseSign::Jumped);
    b.cutSinceLast = 0.05;
    EXPECT_TRUE(senseBetween(a, b).empty()) << "something was done";
    b.cutSinceLast = 0.0;
    b.soil = SoilState::Wet;
    EXPECT_TRUE(senseBetween(a, b).empty()) << "it has rained since";
}

} // namespace
} // namespace vetchling

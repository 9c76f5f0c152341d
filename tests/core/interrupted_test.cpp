/// Every long computation, told to stop at one of its looks and at no other: it answers nothing then, and what it left behind in what is
/// shared spoils no later answer.
#include "core/advice/gallery.h"
#include "core/advice/left.h"
#include "core/study/coil_study.h"
#include "core/study/comparison.h"
#include "core/study/compensation.h"
#include "core/study/feed.h"
#include "core/study/length_map.h"
#include "core/study/neighbours.h"
#include "core/study/operating.h"
#include "core/study/radials.h"
#include "core/study/recipe.h"
#include "core/study/safety.h"
#include "core/study/settings.h"
#include "core/study/shield.h"
#include "core/study/skies.h"
#include "core/study/trade.h"
#include "core/trim/as_built.h"
#include "core/trim/fold.h"
#include "core/trim/site_fit.h"
#include "core/trim/step_effects.h"
#include "core/trim/yard.h"
#include "core/tune/joint.h"
#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"
#include "tests/long_form.h"

#include <cmath>

namespace vetchling {
namespace {

using namespace vetchling::testing;
using shapes::shapeOf;
using study::Library;
using Figures = std::vector<double>;

void add(Figures& out, Complex z) { out.insert(out.end(), {z.real(), z.imag()}); }

void add(Figures& out, const study::Curve& curve)
{
    out.push_back(curve.fundamental);
    for (const Coverage& c : curve.bands)
        out.push_back(c.lowestSwr);
}

/// The answer of a study in figures.
template <class Answer, class Read> Result<Figures> figures(const Result<Answer>& answer, Read read)
{
    if (!answer)
        return answer.faults();
    Figures out;
    read(out, *answer);
    return out;
}

struct LongWork {
    const char* name;
    std::function<Result<Figures>(Library&, const Watch&)> run;
    int times = 4; ///< that it is stopped, in the short form
};

void PrintTo(const LongWork& work, std::ostream* out) { *out << work.name; }

/// The demo, with two bands wanted.
const Design& smallDemo()
{
    static const Design small = [] {
        Design design = Demo().design;
        std::erase_if(design.operation.bands, [](const WantedBand& w) { return w.band.from > 11e6 || w.wish == Wish::No; });
        return design;
    }();
    return small;
}

const Antenna& antennaOf(const char* name)
{
    const auto& all = smallDemo().antennas;
    return *std::find_if(all.begin(), all.end(), [&](const Antenna& a) { return a.name.find(name) != std::string::npos; });
}

study::Question questionFor(const char* name)
{
    study::Question q = study::questionOf(smallDemo(), antennaOf(name));
    q.before.reset();
    return q;
}

study::Subject loadedDipole() { return {shapeOf("loaded-dipole", {}, 7.1e6), averageSoil, 0}; }

void addDetail(Figures& out, const study::DetailPointer& detail)
{
    for (const study::Spot& spot : detail->spots)
        out.insert(out.end(), {spot.strongest, spot.straightUp});
    if (detail->ledger)
        out.push_back(detail->ledger->sky);
    for (const study::Length& length : detail->lengths)
        out.push_back(length.solved.value_or(0.0));
    for (const study::LengthCause& cause : detail->causes)
        out.push_back(cause.share);
    for (const study::LeverSlope& lever : detail->levers)
        out.push_back(lever.perUnit);
    for (const study::DipMove& move : detail->moves)
        out.push_back(move.to);
    for (const study::Cure& cure : detail->cures)
        out.push_back(cure.change);
}

const std::vector<LongWork>& allLongWork()
{
    static const std::vector<LongWork> all{
        {"curve",
         [](Library& library, const Watch& watch) {
             return figures(study::curveOf(library, questionFor("Tower V"), watch), [](Figures& out, const auto& c) { add(out, *c); });
         }},
        {"detail",
         [](Library& library, const Watch& watch) {
             const auto curve = study::curveOf(library, study::questionOf(smallDemo(), antennaOf("Tower V")), watch);
             return curve ? figures(study::detailOf(library, **curve, watch), addDetail) : Result<Figures>(curve.faults());
         }},
        {"sweep",
         [](Library& library, const Watch& watch) {
             return figures(study::sweepOf(library, questionFor("Tower V"), 6.9e6, 7.3e6, watch), [](Figures& out, const study::Swept& s) {
                 for (Complex z : s.impedance)
                     add(out, z);
             });
         }},
        {"coil",
         [](Library& library, const Watch& watch) {
             const Antenna& a = antennaOf("Coil dipole");
             const auto coils = study::coilsOf(a.shape);
             return figures(study::coilAnswer(library, study::coilQuestionOf(smallDemo(), a, coils.at(0), 0), watch),
                            [](Figures& out, const study::CoilAnswer& c) {
                                out.insert(out.end(), {c.perHenry, c.perLever, c.lost});
                            });
         },
         1},
        {"comparison",
         [](Library& library, const Watch& watch) {
             Antenna a = antennaOf("Tower V");
             a.variants.clear();
             const auto asked = study::comparisonOf(smallDemo(), a, "as drawn");
             return figures(study::allCompared(library, asked, watch), [](Figures& out, const std::vector<study::Compared>& rows) {
                 for (const auto& [band, f] : rows.front().bands)
                     out.insert(out.end(), {f.lowestSwr, f.gain, f.lost});
                 for (const study::BandSpread& b : rows.front().spread->bands)
                     out.push_back(b.lowestSwr[1]);
             });
         }},
        {"compensation",
         [](Library& library, const Watch& watch) {
             study::Question q = questionFor("Tower V");
             q.subject.shape = shapeOf("end-fed", {}, 7.1e6);
             return figures(study::compensate(library, q, watch), [](Figures& out, const study::Compensation& c) {
                 for (const auto& [key, value] : c.values)
                     out.push_back(value);
                 out.insert(out.end(), {c.scoreBefore, c.scoreAfter});
             });
         },
         1},
        {"operating",
         [](Library& library, const Watch& watch) {
             const auto match = study::operatingOf(library, questionFor("Tower V"), watch);
             if (!match)
                 return Result<Figures>(match.faults());
             study::References references;
             return figures(study::withUses(library, references, *match, study::aimOf(smallDemo().operation), watch),
                            [](Figures& out, const study::Operating& o) {
                                for (const auto& [band, use] : o.uses)
                                    out.push_back(use.gain);
                                for (const auto& [band, shift] : o.shifts)
                                    out.push_back(shift.dip);
                            });
         }},
        {"feed",
         [](Library& library, const Watch& watch) {
             study::References references;
             return figures(study::feedBasisOf(library, references, study::feedQuestionOf(smallDemo(), antennaOf("Tower V")), watch),
                            [](Figures& out, const study::FeedBasis& basis) {
                                for (const study::FeedBand& b : basis.bands)
                                    add(out, b.port), out.insert(out.end(), {b.gain, b.against.gain});
                            });
         }},
        {"gallery",
         [](Library& library, const Watch& watch) {
             const auto all = advice::proposals(smallDemo(), 7.1e6);
             const auto first = std::find_if(all.begin(), all.end(), [](const advice::Proposal& p) { return p.fault().empty(); });
             return figures(advice::propose(library, smallDemo(), *first, watch), [](Figures& out, const advice::Proposed& p) {
                 out.insert(out.end(), {p.value, double(p.served())});
             });
         }},
        {"neighbours",
         [](Library& library, const Watch& watch) {
             const Id band = bandFor(smallDemo(), 7.1e6);
             return figures(study::neighbourEffects(library, smallDemo(), antennaOf("Tower V"), band, 0, watch),
                            [](Figures& out, const std::vector<study::NeighbourEffect>& all) {
                                for (const study::NeighbourEffect& e : all)
                                    out.insert(out.end(), {e.shift, e.change.real(), e.change.imag()});
                            });
         }},
        {"radials",
         [](Library& library, const Watch& watch) {
             return figures(
                 study::radialCurve(library, {shapeOf("vertical", {{"radial_count", 4}}, 7.1e6), averageSoil, 0}, 7.1e6, 0.0, watch),
                 [](Figures& out, const study::RadialCurve& c) {
                     for (const auto& p : c.points)
                         out.insert(out.end(), {p.resistance, p.efficiency});
                 });
         }},
        {"trade",
         [](Library& library, const Watch& watch) {
             return figures(study::tradeCurve(library, loadedDipole(), 7.1e6, {}, watch), [](Figures& out, const study::TradeCurve& c) {
                 for (const auto& p : c.points)
                     out.insert(out.end(), {p.width, p.efficiency});
             });
         }},
        {"recipe",
         [](Library& library, const Watch& watch) {
             const study::Recipe recipe = study::recipeOf(smallDemo(), antennaOf("Tower V"), antennaOf("Tower V").shape, {}, "2026-11-30");
             return figures(study::copyOf(recipe, recipe.shape.wire, averageSoil, library.tables(), watch),
                            [](Figures& out, const study::RecipeCopy& c) {
                                for (const auto& l : c.lengths)
                                    out.push_back(l.copied);
                            });
         }},
        {"safety",
         [](Library& library, const Watch& watch) {
             return figures(study::safetyBasisOf(library, questionFor("Tower V"), watch), [](Figures& out, const study::SafetyBasis& b) {
                 for (const study::SafetyBand& band : b.bands)
                     out.push_back(band.voltsAtOneWatt);
             });
         },
         1},
        {"settings",
         [](Library& library, const Watch& watch) {
             return figures(study::settingsOf(library, questionFor("Tower V"), watch), [](Figures& out, const study::SettingChart& c) {
                 for (const study::SettingRow& row : c.rows)
                     add(out, row.impedance);
             });
         }},
        {"shield",
         [](Library& library, const Watch& watch) {
             study::ShieldQuestion q;
             q.feed = study::feedQuestionOf(smallDemo(), antennaOf("Wall end-fed"));
             q.site = smallDemo().site;
             q.choke = newPart(part::choke);
             for (const WantedBand& band : q.feed.question.bands)
                 q.configurations[band.id] = 0;
             return figures(study::shieldAnswer(library, q, watch), [](Figures& out, const study::ShieldAnswer& a) {
                 for (const study::ShieldBand& b : a.bands)
                     out.insert(out.end(), b.byPlace.begin(), b.byPlace.end());
             });
         }},
        {"skies",
         [](Library& library, const Watch& watch) {
             const Id band = bandFor(smallDemo(), 7.1e6);
             return figures(study::allSkies(library, smallDemo(), {antennaOf("Tower V")}, band, watch),
                            [](Figures& out, const std::vector<study::Skies>& all) {
                                for (const study::Skies& s : all)
                                    for (const auto& [id, sky] : s.bands)
                                        out.push_back(sky.field->gain(0.5, 0.3));
                            });
         }},
        {"spread",
         [](Library& library, const Watch& watch) {
             return figures(study::spreadOf(library, study::spreadQuestionOf(smallDemo(), antennaOf("Tower V")), watch),
                            [](Figures& out, const study::Spread& s) {
                                for (const study::BandSpread& b : s.bands)
                                    for (const study::SpreadShift& shift : b.shifts)
                                        out.push_back(shift.shift);
                            });
         }},
        {"map",
         [](Library& library, const Watch& watch) {
             const auto map = study::mapQuestionOf(smallDemo(), antennaOf("Tower V"));
             return figures(study::mapColumn(library, *map, map->values.at(3), study::Care::Usual, watch),
                            [](Figures& out, const study::MapColumn& c) {
                                out.push_back(c.score);
                                for (const study::MapCell& cell : c.cells)
                                    out.push_back(cell.gain);
                            });
         }},
        {"trim",
         [](Library& library, const Watch& watch) {
             return figures(trimNext(library, trimQuestionOf(smallDemo(), antennaOf("Tower V")), watch),
                            [](Figures& out, const TrimOutcome& t) {
                                out.insert(out.end(), {double(t.next.step), t.next.change, t.next.predicted, t.next.sure, t.next.fold,
                                                       t.next.slope, t.next.other ? t.next.other->change : 0.0});
                            });
         }},
        {"trim effects",
         [](Library& library, const Watch& watch) {
             const auto outcome = trimNext(library, trimQuestionOf(smallDemo(), antennaOf("Tower V")), watch);
             if (!outcome)
                 return Result<Figures>(outcome.faults());
             return figures(stepEffects(library, smallDemo(), antennaOf("Tower V"), *outcome, watch),
                            [](Figures& out, const std::vector<BandEffect>& all) {
                                for (const BandEffect& e : all)
                                    out.push_back(e.swrAfter);
                            });
         }},
        {"fit",
         [](Library& library, const Watch& watch) {
             return figures(fitSite(library, smallDemo(), antennaOf("Tower V"), watch), [](Figures& out, const SiteFit& f) {
                 out.insert(out.end(), {f.permittivity.value, f.conductivity.value, f.higher.value, f.longer.value});
                 for (const FitPrediction& p : f.bands)
                     out.push_back(p.dip.value);
             });
         }},
        {"left to do",
         [](Library& library, const Watch& watch) {
             study::References references;
             return figures(advice::leftOf(library, references, smallDemo(), antennaOf("Tower V"), {}, {}, watch),
                            [](Figures& out, const advice::Left& left) {
                                out.push_back(double(left.findings.size()));
                                for (const study::FeedRow& row : left.report->rows)
                                    out.push_back(row.net);
                            });
         }},
        {"as built",
         [](Library& library, const Watch& watch) {
             AsBuilt built{questionFor("Tower V").subject, {}};
             return figures(agreeingWithLog(library, built, antennaOf("Tower V"), watch),
                            [](Figures& out, const AsBuilt& b) { out.push_back(b.faults.longer); });
         }},
        {"fold",
         [](Library& library, const Watch& watch) {
             const study::Subject uncut{shapeOf("dipole", {}, 7.1e6), averageSoil, 0};
             study::Subject cut = uncut;
             cut.shape.parameters["leg_m"] = shapes::familyOf(uncut.shape).value(uncut.shape, "leg_m") - 0.2;
             return figures(foldOverCut(library, uncut, cut, 0.2, 7.1e6, 1.4e5, watch),
                            [](Figures& out, const std::optional<double>& ratio) { out.push_back(ratio.value_or(0.0)); });
         }},
        {"yard",
         [](Library& library, const Watch& watch) {
             Result<Yard> yard = Yard::open(library, yardLevels().front(), 3, watch);
             if (!yard)
                 return Result<Figures>(yard.faults());
             Yard y = *yard;
             if (Faults faults = y.measure(library, 0, watch); !faults.empty())
                 return Result<Figures>(faults);
             if (Faults faults = y.hint(library, watch); !faults.empty())
                 return Result<Figures>(faults);
             if (Faults faults = y.finish(library, YardFault(), watch); !faults.empty())
                 return Result<Figures>(faults);
             return Result<Figures>(Figures{double(y.verdict()->hoists), double(y.verdict()->passed)});
         }},
        {"tune",
         [](Library& library, const Watch& watch) {
             return figures(tune(shapeOf("dipole", {}, 7.1e6), averageSoil, "leg_m", 7.1e6, library.tables(), {}, watch),
                            [](Figures& out, const TuneOutcome& t) { out.push_back(t.value); });
         }},
        {"tune all",
         [](Library& library, const Watch& watch) {
             TuneOptions options;
             options.goal = shapes::TuneGoal::LowestSwr;
             return figures(tuneAll(shapeOf("fan-dipole", {}, 7.1e6), averageSoil, library.tables(), options, watch),
                            [](Figures& out, const TuneAllOutcome& t) {
                                for (const TunedValue& v : t.lengths)
                                    out.push_back(v.value);
                            });
         }},
        {"tune jointly",
         [](Library& library, const Watch& watch) {
             JointAim aim;
             aim.at = {{7.1e6}};
             JointOptions options;
             options.mostTries = 12;
             return figures(tuneJointly(shapeOf("dipole", {}, 7.1e6), averageSoil, {{"leg_m"}}, aim, library.tables(), options, watch),
                            [](Figures& out, const JointOutcome& t) { out.push_back(t.values.front()); });
         }},
        {"exposure",
         [](Library& library, const Watch& watch) {
             const auto studied = library.study(study::Subject{shapeOf("dipole", {}, 7.1e6), averageSoil, 0});
             const auto spot = studied->study->spot(7.1e6, watch);
             if (!spot)
                 return Result<Figures>(spot.faults());
             LimitRange range{1e6, 30e6, LimitCurve{30.0, 0.0}, {}, {}};
             return figures(keepAway((*spot)->solution, library.tables(), range, 100.0, watch),
                            [](Figures& out, const KeepAway& k) { out.push_back(k.fromWires); });
         },
         2},
        {"ledger", [](Library& library, const Watch& watch) {
             const auto studied = library.study(study::Subject{shapeOf("dipole", {}, 7.1e6), averageSoil, 0});
             return figures(studied->study->ledger(7.1e6, watch), [](Figures& out, const study::LedgerPointer& l) {
                 out.insert(out.end(), {l->sky, l->soil});
             });
         }}};
    return all;
}

class Interrupted : public ::testing::TestWithParam<LongWork> {};

TEST_P(Interrupted, AnswersNothingAndSpoilsNothing)
{
    const LongWork& work = GetParam();
    std::atomic<long> looks{0};
    Library fresh;
    const Result<Figures> whole = work.run(fresh, Watch([&] { return ++looks, false; }));
    ASSERT_TRUE(whole) << whole.firstFault();
    ASSERT_FALSE(whole->empty());
    const long all = looks;
    ASSERT_GT(all, 1) << "it cannot be left";
    const int times = many(work.times, 60);
    auto library = std::make_unique<Library>();
    for (int i = 0; i < times; ++i) {
        const long at = long(std::floor((std::fmod(0.618034 * (i + 1), 1.0)) * double(all)));
        std::atomic<long> count{0};
        std::atomic<bool> asked{false};
        const Result<Figures> answer = work.run(*library, Watch([&] {
            const bool now = count++ == at;
            if (now)
                asked = true;
            return now;
        }));
        if (asked)
            EXPECT_TRUE(answer.stopped()) << "stopped at look " << at << " of " << all << (answer ? ": an answer" : answer.firstFault());
        else
            EXPECT_TRUE(answer) << answer.firstFault(); // what was kept made it shorter
        if (longForm() && i % 8 == 7)
            library = std::make_unique<Library>();
    }
    const Result<Figures> then = work.run(*library, {});
    ASSERT_TRUE(then) << then.firstFault();
    ASSERT_EQ(then->size(), whole->size());
    for (std::size_t i = 0; i < whole->size(); ++i)
        EXPECT_NEAR((*then)[i], (*whole)[i], 1e-6 * std::max(1e-3, std::abs((*whole)[i]))) << i;
}

/// Those of several seconds are left to the long form.
std::vector<LongWork> triedWork()
{
    std::vector<LongWork> all = allLongWork();
    std::erase_if(all, [](const LongWork& work) { return work.times == 1 && !longForm(); });
    return all;
}

INSTANTIATE_TEST_SUITE_P(All, Interrupted, ::testing::ValuesIn(triedWork()), [](const auto& work) {
    std::string name = work.param.name;
    std::replace(name.begin(), name.end(), ' ', '_');
    return name;
});

} // namespace
} // namespace vetchling

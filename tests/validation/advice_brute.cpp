#include "tests/validation/advice_brute.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <memory>
#include <set>

namespace vetchling::testing {
namespace {

using advice::Tried;
using shapes::Family;

/// A family for a set of bands on some of the supports.
struct Case {
    const Family* family;
    std::vector<Id> bands, supports;
};

std::vector<std::vector<Id>> subsetsOf(const std::vector<Id>& all)
{
    std::vector<std::vector<Id>> sets;
    for (unsigned bits = 1; bits < (1u << all.size()); ++bits) {
        std::vector<Id> set;
        for (std::size_t i = 0; i < all.size(); ++i)
            if (bits & (1u << i))
                set.push_back(all[i]);
        sets.push_back(std::move(set));
    }
    return sets;
}

/// All supports, each alone, every two.
std::vector<std::vector<Id>> tiesOf(const Site& site)
{
    std::vector<std::vector<Id>> ties{{}};
    for (std::size_t i = 0; i < site.supports.size(); ++i) {
        ties.push_back({site.supports[i].id});
        for (std::size_t k = i + 1; k < site.supports.size(); ++k)
            ties.push_back({site.supports[i].id, site.supports[k].id});
    }
    return ties;
}

class Brute {
public:
    Brute(const Design& design, const std::vector<LineType>& lines)
        : m_design(design),
          m_library(std::make_shared<em::GroundTableCache>(), 64), m_bench{m_library, m_references, m_design, m_wish, m_rules, lines}
    {
        for (const WantedBand& w : design.operation.bands)
            if (w.wish != Wish::No) {
                m_bands.push_back(w.id);
                m_weights.push_back((w.wish == Wish::Must ? 3.0 : 1.0) * (w.id == design.operation.favourite ? 2.0 : 1.0));
            }
    }

    Best run()
    {
        tryAll();
        pairUp();
        Best out;
        out.tried = m_tried.size();
        constexpr std::size_t looked = 24; // of the best, by their coarse scores
        std::stable_sort(m_answers.begin(), m_answers.end(), [](const auto& a, const auto& b) { return a.score > b.score; });
        for (std::size_t i = 0; i < std::min(looked, m_answers.size()); ++i)
            if (const double score = exactScore(m_answers[i]); score > out.score) {
                out.score = score;
                out.antennas.clear();
                for (std::size_t t : m_answers[i].members)
                    out.antennas.push_back(m_tried[t].antenna.name);
            }
        return out;
    }

private:
    struct Answer {
        std::vector<std::size_t> members;
        double score = 0.0;
    };

    void tryAll()
    {
        std::vector<Case> cases;
        for (const Family* family : shapes::families())
            if (family->isForSites())
                for (const auto& bands : subsetsOf(m_bands))
                    for (const auto& supports : tiesOf(m_design.site))
                        cases.push_back({family, bands, supports});
        std::vector<std::vector<Tried>> found(cases.size());
        tbb::parallel_for(std::size_t(0), cases.size(), [&](std::size_t i) { found[i] = triedOf(cases[i], m_design, m_bench); });
        std::set<std::string> seen; // the same place comes up for several sets of supports
        for (std::vector<Tried>& some : found)
            for (Tried& t : some) {
                std::string place = t.antenna.shape.family;
                for (const auto& [key, value] : t.antenna.shape.parameters)
                    place += " " + key + std::to_string(std::lround(1e4 * value));
                if (seen.insert(place).second)
                    m_tried.push_back(std::move(t));
            }
        for (std::size_t i = 0; i < m_tried.size(); ++i)
            m_answers.push_back({{i}, scoreOf({&m_tried[i]})});
    }

    static std::vector<Tried> triedOf(const Case& c, const Design& design, const advice::Bench& bench)
    {
        const double low = findBand(design, c.bands.front())->band.centre(), high = findBand(design, c.bands.back())->band.centre();
        const shapes::AntennaShape usual = c.family->standardShape(high);
        const auto tuned = c.family->tuned(usual);
        const bool several = std::any_of(tuned.begin(), tuned.end(), [&](const auto& t) { return t.frequency != tuned.front().frequency; });
        const bool down = std::any_of(tuned.begin(), tuned.end(), [&](const auto& t) { return t.frequency < high; });
        if (several != (c.bands.size() > 1))
            return {};
        Design some = design;
        if (several)
            std::erase_if(some.operation.bands,
                          [&](const WantedBand& w) { return std::find(c.bands.begin(), c.bands.end(), w.id) == c.bands.end(); });
        const advice::Judge judge(design, {.supports = c.supports, .mostPole = 0.0, .mostPoles = 0});
        std::vector<Tried> out;
        for (advice::Proposal& p :
             advice::proposalsOf(judge, some, *c.family, several && down ? high : low, several ? int(c.bands.size()) : 0)) {
            if (!p.place.allowed())
                continue;
            Tried candidate;
            candidate.bandsFor = c.bands;
            candidate.proposal = std::move(p);
            auto tried = advice::tryOut(bench, std::move(candidate));
            if (tried && tried->usable())
                out.push_back(std::move(tried).value());
        }
        return out;
    }

    void pairUp()
    {
        struct Pair {
            std::size_t a, b;
            double bound;
        };
        std::vector<Pair> pairs;
        const double single =
            std::max_element(m_answers.begin(), m_answers.end(), [](const auto& x, const auto& y) { return x.score < y.score; })->score;
        for (std::size_t a = 0; a < m_tried.size(); ++a)
            for (std::size_t b = a + 1; b < m_tried.size(); ++b)
                if (const double bound = scoreOf({&m_tried[a], &m_tried[b]}); bound > 0.9 * single)
                    pairs.push_back({a, b, bound});
        std::stable_sort(pairs.begin(), pairs.end(), [](const Pair& x, const Pair& y) { return x.bound > y.bound; });
        constexpr std::size_t enough = 60, most = 20000, movedMost = 300;
        std::size_t found = 0, moved = 0;
        for (std::size_t i = 0; i < std::min(most, pairs.size()) && found < enough; ++i) {
            const auto [a, b, bound] = pairs[i];
            if (hangTogether(m_tried[a], m_tried[b])) {
                m_answers.push_back({{a, b}, bound});
                ++found;
            } else if (moved++ < movedMost)
                found += hangBeside(a, b) || hangBeside(b, a);
        }
    }

    /// The second one where else it may be while the first hangs.
    bool hangBeside(std::size_t first, std::size_t second)
    {
        Design hung = m_design;
        hangUp(hung, m_tried[first]);
        const advice::Bench bench{m_library, m_references, hung, m_wish, m_rules, m_bench.lines};
        const Tried& alone = m_tried[second];
        for (Tried& t : triedOf({&shapes::familyOf(alone.antenna.shape), alone.bandsFor, {}}, hung, bench)) {
            m_tried.push_back(std::move(t));
            m_answers.push_back({{first, m_tried.size() - 1}, scoreOf({&m_tried[first], &m_tried.back()})});
            return true;
        }
        return false;
    }

    bool hangTogether(const Tried& a, const Tried& b) const { return !crossingOf(a.built->model, b.built->model); }

    /// By the words of the judgement.
    double scoreOf(const std::vector<const Tried*>& members, int season = -1) const
    {
        double sum = 0.0, all = 0.0, metres = 0.0, things = double(members.size()) - 1.0, parts = 0.0;
        for (std::size_t i = 0; i < m_bands.size(); ++i) {
            double best = 0.0;
            for (const Tried* t : members)
                best = std::max(best, season < 0 ? worth(t->bands[i]) : t->seasonWorths[std::size_t(season)][i]);
            sum += m_weights[i] * best;
            all += m_weights[i];
        }
        for (const Tried* t : members) {
            metres += t->takes.wire;
            things += t->takes.newPoles + t->takes.tunersAtFeed;
            parts += t->takes.coils + t->takes.traps + t->takes.links + t->takes.cautions;
        }
        const double effort = 0.10 * std::min(1.0, metres / 60.0) + 0.05 * things + 0.02 * parts;
        return season < 0 ? sum / all - effort : sum / all;
    }
    static double worth(const advice::BandFigure& f)
    {
        if (!f.solved)
            return 0.0;
        const double u = f.share + 0.8 * std::max(0.0, f.shareWithTuner - f.share), q = std::clamp(0.5 + f.against / 12.0, 0.0, 1.0);
        return u * (2.0 + q) / 3.0;
    }

    double exactScore(const Answer& answer)
    {
        std::vector<const Tried*> members;
        for (std::size_t i : answer.members) {
            auto& known = m_exact[i];
            if (!known) {
                auto exact = advice::exactly(m_bench, m_design, m_tried[i]);
                if (exact)
                    exact = advice::inSeasons(m_bench, std::move(exact).value());
                if (!exact)
                    return 0.0;
                known = std::make_unique<Tried>(std::move(exact).value());
            }
            members.push_back(known.get());
        }
        double plain = scoreOf(members), worst = 1.0;
        for (int season = 0; season < int(advice::seasons); ++season)
            worst = std::min(worst, scoreOf(members, season));
        double wish = 0.0, all = 0.0;
        for (std::size_t i = 0; i < m_bands.size(); ++i) {
            double best = 0.0;
            for (const Tried* t : members)
                best = std::max(best, worth(t->bands[i]));
            wish += m_weights[i] * best;
            all += m_weights[i];
        }
        wish /= all;
        return 0.75 * wish + 0.25 * worst - (wish - plain);
    }

    Design m_design;
    advice::AdviceWish m_wish;
    advice::ScoreRules m_rules;
    study::Library m_library;
    advice::SeasonReferences m_references;
    advice::Bench m_bench;
    std::vector<Id> m_bands;
    std::vector<double> m_weights;
    std::vector<Tried> m_tried;
    std::vector<Answer> m_answers;
    std::map<std::size_t, std::unique_ptr<Tried>> m_exact;
};

} // namespace

Best bestByBruteForce(const Design& design, const std::vector<LineType>& lines) { return Brute(design, lines).run(); }

} // namespace vetchling::testing

#include "core/study/reflection.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr int sweepPoints = 120;
constexpr double worthwhile = 0.93; // of the SWR there is: what comes hardly lower is no cure
constexpr double sectionOhms[] = {75.0, 93.0, 25.0, 300.0, 450.0};

class Looker {
public:
    Looker(const Curve& curve, const ReflectionQuestion& asked) : m_curve(curve), m_asked(asked)
    {
        m_feedpoint = asked.own + feedpointParts({asked.parts.begin() + long(asked.own), asked.parts.end()});
    }

    std::optional<Reflection> look()
    {
        const double f = m_asked.frequency;
        if (!m_curve.covers(f))
            return std::nullopt;
        m_out.reference = m_curve.question.reference;
        m_out.frequency = f;
        sweep();
        m_out.port = m_curve.atPort(f);
        walk();
        m_now = arrival(m_asked.parts, m_out.port);
        m_out.watts = m_asked.power * m_now.here;
        m_out.allBands = m_now.all;
        m_out.hidden = returnLoss(m_out.atRadio()) - returnLoss(m_out.atFeedpoint());
        sign();
        constexpr double fine = 1.2; // SWR that nobody cures
        if (swr(m_out.radio, m_out.reference) > fine || swr(m_out.feedpoint, m_out.reference) > fine)
            cures();
        return std::move(m_out);
    }

private:
    static double returnLoss(Complex gamma) { return -20.0 * std::log10(std::max(std::abs(gamma), 1e-9)); }

    /// What reaches the wire behind a chain, over the radio's power: of the looked-at frequency, and of all wished bands together.
    struct Arrival {
        double loss = 0.0, here = 0.0, all = 0.0;
        std::vector<double> bands; ///< of the basis, as they are counted
    };
    [[nodiscard]] Arrival arrival(const std::vector<ChainPart>& parts, Complex portHere) const
    {
        const auto lossOf = [&](Complex port, double f) {
            const Through chain = throughChain(parts, port, f);
            return chain.loss + mismatchLoss(chain.impedance, m_asked.rule);
        };
        Arrival out;
        out.loss = lossOf(portHere, m_asked.frequency);
        out.here = std::pow(10.0, -0.1 * out.loss);
        double weights = 0.0, sum = 0.0;
        bool counted = false;
        for (const FeedBand& band : m_asked.basis ? m_asked.basis->bands : std::vector<FeedBand>()) {
            const bool looked = band.band == m_asked.wanted;
            out.bands.push_back(looked ? out.here : std::pow(10.0, -0.1 * lossOf(band.port, band.frequency)));
            counted = counted || looked;
            sum += weightOf(band.wish) * out.bands.back();
            weights += weightOf(band.wish);
        }
        if (!counted) // a band that nobody wishes for, but looks at
            sum += out.here, weights += 1.0;
        out.all = sum / weights;
        return out;
    }

    void weigh(ReflectionCure& cure, const Arrival& then) const
    {
        constexpr double clearly = 0.005; // of the radio's power
        cure.loss = then.loss;
        cure.watts = m_asked.power * then.here;
        cure.allBands = then.all;
        double most = 0.02; // of the radio's power
        for (std::size_t i = 0; i < then.bands.size(); ++i) {
            const FeedBand& band = m_asked.basis->bands[i];
            if (const double less = m_now.bands[i] - then.bands[i]; band.band != m_asked.wanted && less > most) {
                most = less;
                cure.victim = {band.band, m_asked.power * m_now.bands[i], m_asked.power * then.bands[i]};
            }
        }
        cure.better = then.all > m_now.all + clearly && !cure.victim;
    }

    [[nodiscard]] std::vector<ChainPart> behind() const { return {m_asked.parts.begin() + long(m_feedpoint), m_asked.parts.end()}; }

    void sweep()
    {
        const std::vector<ChainPart> line = behind();
        for (int i = 0; i <= sweepPoints; ++i) {
            const double f = m_asked.band.from + (m_asked.band.to - m_asked.band.from) * i / sweepPoints;
            if (!m_curve.covers(f))
                continue;
            const Complex z = m_curve.atLine(f);
            m_out.sweep.push_back({f, reflection(z, m_out.reference), reflection(atSocket(line, z, f), m_out.reference)});
        }
    }

    void walk()
    {
        Complex z = m_out.port;
        m_out.feedpoint = m_out.radio = z;
        for (std::size_t i = 0; i < m_asked.parts.size(); ++i) {
            const ChainPart& part = m_asked.parts[i];
            const bool socket = part.kind == part::tuner && std::lround(partValue(part, "place")) == part::inRadio;
            if (i >= m_feedpoint && !socket) {
                const auto piece = wayThrough(part, z, m_asked.frequency, m_out.reference);
                m_out.way.insert(m_out.way.end(), piece.begin(), piece.end());
            }
            z = kindOf(part).pass(part, z, m_asked.frequency).impedance;
            m_out.impedances.push_back(z);
            if (i + 1 == m_feedpoint)
                m_out.feedpoint = z;
            if (!socket)
                m_out.radio = z;
        }
    }

    /// A higher frequency does what a longer wire does.
    void sign()
    {
        constexpr double aside = 0.1, step = 0.002;
        const ImpedanceAt at = [&](double f) { return m_curve.atLine(f) * (50.0 / m_out.reference); };
        m_out.dip = nearestDip(at, m_asked.frequency, (1.0 - aside) * m_asked.band.from, (1.0 + aside) * m_asked.band.to);
        constexpr double hopeless = 5.0; // SWR of a dip that is no resonance one would trim for
        if (m_out.dip && swr(m_curve.atLine(*m_out.dip), m_out.reference) > hopeless)
            m_out.dip.reset();
        if (!m_out.dip)
            return;
        const double f = *m_out.dip;
        if (!m_curve.covers(f * (1.0 - step)) || !m_curve.covers(f * (1.0 + step)))
            return;
        const double rise = reflection(m_curve.atLine(f * (1.0 + step)), m_out.reference).imag() -
                            reflection(m_curve.atLine(f * (1.0 - step)), m_out.reference).imag();
        m_out.upIsLong = rise > 0.0 ? 1 : rise < 0.0 ? -1 : 0;
    }

    void cures()
    {
        length();
        ratio();
        section();
        network();
        tuner();
        std::stable_sort(m_out.cures.begin(), m_out.cures.end(),
                         [](const ReflectionCure& a, const ReflectionCure& b) { return a.allBands > b.allBands; });
    }

    /// Fills in what a chain makes of the frequency and the band's edges, and keeps the cure where it is one.
    void keep(ReflectionCure cure, std::vector<ChainPart> parts)
    {
        const auto seen = [&](double f) {
            return m_curve.covers(f) ? swr(atSocket(parts, m_curve.atPort(f), f), m_out.reference) : std::nan("");
        };
        cure.swr = seen(m_asked.frequency);
        cure.swrAtEdges = std::max(seen(m_asked.band.from), seen(m_asked.band.to));
        weigh(cure, arrival(parts, m_out.port));
        cure.parts = std::move(parts);
        if (cure.swr < worthwhile * swr(m_out.radio, m_out.reference))
            m_out.cures.push_back(std::move(cure));
    }

    void length()
    {
        constexpr double largest = 0.25, least = 1e-3; // of the lever's value; of the frequency
        if (!m_asked.lever || !(std::abs(m_asked.lever->perUnit) > 0.0) || !m_out.dip)
            return;
        const LeverSlope& lever = *m_asked.lever;
        // a dip on a multiple moves as many times as fast
        const double times = std::max(1.0, std::round(*m_out.dip / m_curve.fundamental));
        const double change = (m_asked.frequency - *m_out.dip) / (times * lever.perUnit);
        const auto& shape = m_curve.question.subject.shape;
        const double value = shapes::familyOf(shape).value(shape, lever.lever.parameter);
        if (std::abs(change) > largest * value || std::abs(m_asked.frequency - *m_out.dip) < least * m_asked.frequency)
            return;
        ReflectionCure cure{ReflectionCure::Kind::Length};
        cure.parameter = lever.lever.parameter;
        cure.name = lever.lever.name;
        cure.change = change;
        // the dip comes along with the impedance it has
        cure.swr = swr(atSocket(behind(), m_curve.atLine(*m_out.dip), m_asked.frequency), m_out.reference);
        cure.swrAtEdges = std::nan("");
        weigh(cure, arrival(m_asked.parts, m_curve.atPort(*m_out.dip)));
        cure.othersKnown = !m_asked.basis || m_asked.basis->bands.size() < 2;
        if (cure.swr < worthwhile * swr(m_out.radio, m_out.reference))
            m_out.cures.push_back(std::move(cure));
    }

    void ratio()
    {
        const std::size_t place = transformerPlace(m_asked.parts, m_asked.own);
        const bool there = place < m_asked.parts.size() && m_asked.parts[place].kind == part::transformer;
        double best = HUGE_VAL;
        std::vector<ChainPart> parts;
        ReflectionCure cure{ReflectionCure::Kind::Ratio};
        for (double r : customaryRatios()) {
            std::vector<ChainPart> tried = m_asked.parts;
            if (there)
                tried[place].values["ratio"] = r;
            else {
                ChainPart added = newPart(part::transformer);
                added.values["ratio"] = r;
                tried.insert(tried.begin() + long(place), added);
            }
            const double seen = swr(atSocket(tried, m_out.port, m_asked.frequency), m_out.reference);
            if (seen < best) {
                best = seen;
                parts = std::move(tried);
                cure.ratio = r;
            }
        }
        keep(std::move(cure), std::move(parts));
    }

    /// A series section just before the line, of the first impedance that reaches, in the line's own velocity factor.
    void section()
    {
        const auto line = std::find_if(m_asked.parts.begin() + long(m_asked.own), m_asked.parts.end(),
                                       [](const ChainPart& p) { return p.kind == part::line; });
        const double source = line == m_asked.parts.end() ? m_out.reference : partValue(*line, "impedance_ohm");
        const double velocity = line == m_asked.parts.end() ? 0.66 : partValue(*line, "velocity_factor");
        for (double ohm : sectionOhms) {
            const double own = ohm < 200.0 ? 0.66 : 0.91;
            const auto all = matchSections({SectionMethod::SeriesSection, m_asked.frequency, source, m_out.feedpoint, ohm, own, velocity});
            if (!all || all->empty())
                continue;
            const auto shortest = std::min_element(all->begin(), all->end(), [](const SectionSolution& a, const SectionSolution& b) {
                return a.length1 + a.length2 < b.length1 + b.length2;
            });
            ChainPart added = newPart(part::section);
            added.basis = Basis::Computed;
            added.values = {{"method", 2.0},
                            {"section_ohm", ohm},
                            {"length_1_m", shortest->length1},
                            {"velocity_factor", own},
                            {"length_2_m", shortest->length2},
                            {"section_2_ohm", source},
                            {"velocity_factor_2", velocity}};
            ReflectionCure cure{ReflectionCure::Kind::Section};
            cure.section = *shortest;
            cure.sectionVelocity = own;
            std::vector<ChainPart> parts = m_asked.parts;
            parts.insert(parts.begin() + long(m_feedpoint), added);
            keep(std::move(cure), std::move(parts));
            return;
        }
    }

    void network()
    {
        const ChainPart added = newPart(part::network);
        const auto sized = sizedPart(added, m_out.feedpoint, m_asked.frequency, m_out.reference);
        if (!sized)
            return;
        ReflectionCure cure{ReflectionCure::Kind::Network};
        std::vector<ChainPart> parts = m_asked.parts;
        parts.insert(parts.begin() + long(m_feedpoint), *sized);
        keep(std::move(cure), std::move(parts));
    }

    /// Where there is none: in the shack, behind all lines.
    void tuner()
    {
        if (std::any_of(m_asked.parts.begin(), m_asked.parts.end(), [](const ChainPart& p) { return p.kind == part::tuner; }))
            return;
        std::vector<ChainPart> parts = m_asked.parts;
        parts.push_back(newPart(part::tuner));
        putTuner(parts.back(), part::indoors);
        keep(ReflectionCure{ReflectionCure::Kind::Tuner}, std::move(parts));
    }

    const Curve& m_curve;
    const ReflectionQuestion& m_asked;
    std::size_t m_feedpoint = 0;
    Arrival m_now; ///< with the chain as it is
    Reflection m_out;
};

} // namespace

std::optional<Reflection> reflectionOf(const Curve& curve, const ReflectionQuestion& asked) { return Looker(curve, asked).look(); }

} // namespace vetchling::study

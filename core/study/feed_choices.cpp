#include "core/study/feed_choices.h"

#include "core/line/sections.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

/// Part of the radio's power that reaches the wire.
double arrivingOf(const BandService& service) { return std::pow(10.0, -0.1 * service.total()); }

class Chooser {
public:
    Chooser(const FeedBasis& basis, std::size_t own, const ServedRule& rule) : m_basis(basis), m_own(own), m_rule(rule) {}

    /// @param seenAt how many of its parts lie before the place whose SWR is told
    void fill(ChoiceRow& row, std::size_t seenAt) const
    {
        std::vector<BandService> services;
        std::vector<WantedBand> bands;
        for (const FeedBand& band : m_basis.bands) {
            const std::vector<ChainPart> before(row.parts.begin(), row.parts.begin() + long(seenAt));
            ChoiceCell cell;
            cell.band = band.band;
            cell.swr = swr(throughChain(before, band.port, band.frequency).impedance, m_rule.reference);
            cell.service = study::serviceOf(band, row.parts, m_rule);
            cell.net = band.gain - cell.total();
            services.push_back(cell.service);
            bands.push_back({{}, band.wish, band.band, {}});
            row.cells.push_back(cell);
        }
        row.tally = tallyOf(services, bands);
        row.arriving = arrivingOn(m_basis, services);
    }

    /// What brings most to the wire; what is there, unless another brings clearly more.
    static void markBest(std::vector<ChoiceRow>& rows)
    {
        constexpr double clearly = 0.005; // of the radio's power
        const auto weighed = [](const ChoiceRow& row) { return row.arriving + (row.now ? clearly : 0.0); };
        const auto best =
            std::max_element(rows.begin(), rows.end(), [&](const ChoiceRow& a, const ChoiceRow& b) { return weighed(a) < weighed(b); });
        if (best != rows.end())
            best->best = true;
    }

    [[nodiscard]] std::size_t own() const { return m_own; }

private:
    const FeedBasis& m_basis;
    std::size_t m_own;
    ServedRule m_rule;
};

bool isTuner(const ChainPart& p) { return p.kind == part::tuner; }

/// The chain without tuners, then one where it is asked for.
std::vector<ChainPart> withTuner(const std::vector<ChainPart>& parts, std::size_t own, ChoiceRow::Tuner where)
{
    std::vector<ChainPart> out;
    ChainPart tuner = newPart(part::tuner);
    for (const ChainPart& p : parts)
        if (isTuner(p))
            tuner = p;
        else
            out.push_back(p);
    if (where == ChoiceRow::Tuner::None)
        return out;
    putTuner(tuner, where == ChoiceRow::Tuner::InRadio   ? part::inRadio
                    : where == ChoiceRow::Tuner::Indoors ? part::indoors
                                                         : part::atAntenna);
    const auto line = std::find_if(out.begin() + long(own), out.end(), [](const ChainPart& p) { return p.kind == part::line; });
    out.insert(where == ChoiceRow::Tuner::AtAntenna ? line : out.end(), tuner);
    return out;
}

ChoiceRow::Tuner tunerOf(const std::vector<ChainPart>& parts)
{
    const auto tuner = std::find_if(parts.begin(), parts.end(), isTuner);
    if (tuner == parts.end())
        return ChoiceRow::Tuner::None;
    const long place = std::lround(partValue(*tuner, "place"));
    return place == part::inRadio   ? ChoiceRow::Tuner::InRadio
           : place == part::indoors ? ChoiceRow::Tuner::Indoors
                                    : ChoiceRow::Tuner::AtAntenna;
}

double lineLength(const std::vector<ChainPart>& parts, std::size_t own)
{
    double sum = 0.0;
    for (std::size_t i = own; i < parts.size(); ++i)
        if (parts[i].kind == part::line)
            sum += partValue(parts[i], "length_m");
    return sum;
}

} // namespace

double arrivingOn(const FeedBasis& basis, const std::vector<BandService>& services)
{
    double sum = 0.0, weights = 0.0;
    for (std::size_t i = 0; i < basis.bands.size(); ++i) {
        sum += weightOf(basis.bands[i].wish) * arrivingOf(services[i]);
        weights += weightOf(basis.bands[i].wish);
    }
    return weights > 0.0 ? sum / weights : 0.0;
}

const std::vector<double>& customaryRatios()
{
    static const std::vector<double> all{1.0, 2.0, 4.0, 6.0, 9.0, 16.0, 25.0, 36.0, 49.0, 56.0, 64.0};
    return all;
}

std::size_t transformerPlace(const std::vector<ChainPart>& parts, std::size_t own)
{
    const auto is = [](const ChainPart& p) { return p.kind == part::transformer; };
    const auto found = std::find_if(parts.begin(), parts.end(), is);
    return found == parts.end() ? own : std::size_t(found - parts.begin());
}

std::vector<ChoiceRow> transformersCompared(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own,
                                            const ServedRule& rule, const std::vector<double>& ratios)
{
    const std::size_t place = transformerPlace(parts, own);
    const bool there = place < parts.size() && parts[place].kind == part::transformer;
    const double now = there ? partValue(parts[place], "ratio") : 1.0;
    const Chooser chooser(basis, own, rule);
    std::vector<double> all = ratios;
    if (std::none_of(all.begin(), all.end(), [&](double r) { return r == now; }))
        all.insert(std::upper_bound(all.begin(), all.end(), now), now);
    std::vector<ChoiceRow> rows;
    for (double ratio : all) {
        ChoiceRow row;
        row.ratio = ratio;
        row.now = ratio == now;
        row.parts = parts;
        if (there)
            row.parts[place].values["ratio"] = ratio;
        else if (ratio != 1.0) {
            ChainPart added = newPart(part::transformer);
            added.values["ratio"] = ratio;
            row.parts.insert(row.parts.begin() + long(place), added);
        }
        chooser.fill(row, there || ratio != 1.0 ? place + 1 : place);
        rows.push_back(std::move(row));
    }
    Chooser::markBest(rows);
    return rows;
}

namespace {

/// The chain's transformer with other windings, and what stands behind it on every band.
class Windings {
public:
    Windings(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own)
        : m_basis(basis), m_parts(parts), m_place(transformerPlace(parts, own))
    {
    }

    [[nodiscard]] bool there() const { return m_place < m_parts.size() && m_parts[m_place].kind == part::transformer; }
    [[nodiscard]] std::size_t place() const { return m_place; }
    [[nodiscard]] double value(const char* key) const { return partValue(m_parts[m_place], key); }
    [[nodiscard]] std::vector<ChainPart> with(const char* key, double value) const
    {
        std::vector<ChainPart> parts = m_parts;
        parts[m_place].values[key] = value;
        return parts;
    }
    [[nodiscard]] std::vector<double> behind(const std::vector<ChainPart>& parts) const
    {
        const std::vector<ChainPart> upToIt(parts.begin(), parts.begin() + long(m_place) + 1);
        std::vector<double> out;
        for (const FeedBand& band : m_basis.bands)
            out.push_back(swr(throughChain(upToIt, band.port, band.frequency).impedance));
        return out;
    }
    /// What all wished bands together suffer from; SWR beyond use counts no more.
    [[nodiscard]] double badness(const std::vector<ChainPart>& parts) const
    {
        constexpr double ofUse = 10.0;
        const std::vector<double> all = behind(parts);
        double sum = 0.0;
        for (std::size_t i = 0; i < all.size(); ++i)
            sum += weightOf(m_basis.bands[i].wish) * std::log(std::min(all[i], ofUse));
        return sum;
    }

private:
    const FeedBasis& m_basis;
    const std::vector<ChainPart>& m_parts;
    std::size_t m_place;
};

constexpr const char *capacitance = "capacitance_F", *leakage = "leakage_H";

/// Along all that is customary first, then between the neighbours of the best.
double bestCapacitor(const Windings& windings)
{
    constexpr double most = 600e-12; // F
    constexpr int steps = 24;
    double low = 0.0, high = most, best = 0.0;
    for (int round = 0; round < 3; ++round) {
        const double step = (high - low) / steps;
        double least = HUGE_VAL;
        for (int i = 0; i <= steps; ++i)
            if (const double bad = windings.badness(windings.with(capacitance, low + i * step)); bad < least)
                least = bad, best = low + i * step;
        low = std::max(0.0, best - step);
        high = best + step;
    }
    return 1e-12 * std::round(best / 1e-12);
}

} // namespace

std::vector<ChoiceRow> capacitorsCompared(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own,
                                          const ServedRule& rule)
{
    const Windings windings(basis, parts, own);
    if (!windings.there() || basis.bands.empty())
        return {};
    const double now = windings.value(capacitance);
    std::vector<double> all{0.0, 33e-12, 47e-12, 68e-12, 100e-12, 150e-12, 220e-12, 330e-12};
    for (double extra : {now, bestCapacitor(windings)})
        if (std::none_of(all.begin(), all.end(), [&](double c) { return std::abs(c - extra) < 5e-13; }))
            all.insert(std::upper_bound(all.begin(), all.end(), extra), extra);
    const Chooser chooser(basis, own, rule);
    std::vector<ChoiceRow> rows;
    std::size_t best = 0;
    double least = HUGE_VAL;
    for (double c : all) {
        ChoiceRow row;
        row.ratio = windings.value("ratio");
        row.capacitor = c;
        row.now = std::abs(c - now) < 5e-13;
        row.parts = windings.with(capacitance, c);
        chooser.fill(row, windings.place() + 1);
        constexpr double worthIt = 0.05; // of a logarithm of SWR: less is no reason to change what is there
        if (const double bad = windings.badness(row.parts) - (row.now ? worthIt : 0.0); bad < least)
            least = bad, best = rows.size();
        rows.push_back(std::move(row));
    }
    rows[best].best = true;
    return rows;
}

std::optional<LeakageEffect> leakageEffect(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own,
                                           const ServedRule& rule)
{
    const Windings windings(basis, parts, own);
    if (!windings.there() || basis.bands.empty())
        return std::nullopt;
    LeakageEffect out;
    out.leakage = windings.value(leakage);
    const std::vector<double> without = windings.behind(windings.with(leakage, 0.0)), with = windings.behind(parts);
    constexpr double worthTelling = 1.02, beyondUse = 10.0;
    double most = worthTelling;
    for (std::size_t i = 0; i < with.size(); ++i)
        if (const double ratio = std::max(with[i] / without[i], without[i] / with[i]);
            ratio > most && std::min(with[i], without[i]) < beyondUse)
            most = ratio, out.band = basis.bands[i].band, out.without = without[i], out.with = with[i];
    const auto stays = [&](double henry) {
        const std::vector<double> then = windings.behind(windings.with(leakage, henry));
        for (std::size_t i = 0; i < then.size(); ++i)
            if (without[i] <= rule.swrLimit && then[i] > rule.swrLimit)
                return false;
        return true;
    };
    constexpr double farthest = 5e-6; // H: such a winding is no transformer
    if (std::any_of(without.begin(), without.end(), [&](double s) { return s <= rule.swrLimit; }) && !stays(farthest)) {
        double good = 0.0, bad = farthest;
        for (int i = 0; i < 40; ++i)
            (stays(0.5 * (good + bad)) ? good : bad) = 0.5 * (good + bad);
        out.most = good;
    }
    return out;
}

std::vector<ChoiceRow> tunersCompared(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own, const ServedRule& rule)
{
    const Chooser chooser(basis, own, rule);
    const ChoiceRow::Tuner now = tunerOf(parts);
    std::vector<ChoiceRow> rows;
    for (const auto where : {ChoiceRow::Tuner::None, ChoiceRow::Tuner::InRadio, ChoiceRow::Tuner::Indoors, ChoiceRow::Tuner::AtAntenna}) {
        ChoiceRow row;
        row.tuner = where;
        row.now = where == now;
        row.parts = row.now ? parts : withTuner(parts, own, where);
        const auto tuner = std::find_if(row.parts.begin(), row.parts.end(), isTuner);
        chooser.fill(row, std::size_t(tuner - row.parts.begin())); // what the tuner has to deal with, or the radio
        rows.push_back(std::move(row));
    }
    Chooser::markBest(rows);
    return rows;
}

namespace {

/// A type in the place of a shape's own line, which knows one loss alone: as high in the middle of the bands.
void takeAsOwn(ChainPart& line, const LineType& type, const FeedBasis& basis)
{
    double logs = 0.0;
    for (const FeedBand& band : basis.bands)
        logs += std::log(band.frequency / 1e6);
    const double middle = basis.bands.empty() ? 1.0 : std::exp(logs / double(basis.bands.size())); // MHz
    takeType(line, type);
    line.values["k1_dB_per_100m"] = partValue(line, "k1_dB_per_100m") + partValue(line, "k2_dB_per_100m") * std::sqrt(middle);
    line.values["k2_dB_per_100m"] = 0.0;
}

} // namespace

std::vector<ChoiceRow> linesCompared(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own, const ServedRule& rule,
                                     const std::vector<LineType>& types, double length, bool ownLine)
{
    const auto isLine = [](const ChainPart& p) { return p.kind == part::line; };
    const bool ofShape = ownLine && std::any_of(parts.begin(), parts.begin() + long(own), isLine);
    const std::size_t from = ofShape ? 0 : own, to = ofShape ? own : parts.size();
    const std::vector<ChainPart> compared(parts.begin(), parts.begin() + long(to));
    const Chooser chooser(basis, own, rule);
    const double has = lineLength(compared, from);
    if (!(has > 0.0))
        return {};
    std::vector<ChoiceRow> rows;
    const auto add = [&](const LineType* type) {
        ChoiceRow row;
        row.parts = parts;
        row.now = !type;
        std::size_t lastLine = 0;
        for (std::size_t i = from; i < to; ++i)
            if (isLine(parts[i])) {
                if (type && ofShape)
                    takeAsOwn(row.parts[i], *type, basis);
                else if (type)
                    takeType(row.parts[i], *type);
                if (type && length > 0.0)
                    row.parts[i].values["length_m"] = partValue(parts[i], "length_m") * length / has;
                lastLine = i + 1;
            }
        row.length = lineLength({row.parts.begin(), row.parts.begin() + long(to)}, from);
        if (type) {
            row.type = type->id;
            row.name = type->name;
            row.price = type->pricePerMetre * row.length;
        }
        chooser.fill(row, lastLine);
        rows.push_back(std::move(row));
    };
    add(nullptr);
    for (const LineType& type : types)
        add(&type);
    Chooser::markBest(rows);
    return rows;
}

std::vector<ChoiceRow> chainsCompared(const FeedBasis& basis, const Antenna& antenna, const ServedRule& rule)
{
    std::vector<ChoiceRow> rows;
    const FeedChain* used = usedChain(antenna);
    for (const FeedChain& chain : antenna.feed.chains) {
        Antenna as = antenna;
        useChain(as, chain.id);
        ChoiceRow row;
        row.chain = chain.id;
        row.name = chain.name;
        row.now = &chain == used;
        row.parts = wholeChain(as);
        const std::size_t own = row.parts.size() - chain.parts.size();
        row.length = lineLength(row.parts, own);
        const auto tuner = std::find_if(row.parts.begin(), row.parts.end(), isTuner);
        Chooser(basis, own, rule).fill(row, std::size_t(tuner - row.parts.begin()));
        rows.push_back(std::move(row));
    }
    Chooser::markBest(rows);
    return rows;
}

namespace {

/// The shortest of a method's solutions, written into a section.
Result<ChainPart> sizedSection(ChainPart part, Complex load, double frequency, double to)
{
    const auto v = [&](const char* key) { return partValue(part, key); };
    const auto method = SectionMethod(std::lround(v("method")));
    SectionQuestion q{method, frequency, to, load, v("section_ohm"), v("velocity_factor"), v("velocity_factor_2")};
    if (method != SectionMethod::SeriesSection && std::abs(load.imag()) < 0.1 * load.real())
        q.load = load.real(); // what little reactance there is stays
    const auto all = matchSections(q);
    if (!all)
        return all.faults();
    const auto best = std::min_element(all->begin(), all->end(), [](const SectionSolution& a, const SectionSolution& b) {
        return a.length1 + a.length2 < b.length1 + b.length2;
    });
    part.values["section_ohm"] = best->section;
    part.values["length_1_m"] = best->length1;
    part.values["length_2_m"] = best->length2;
    part.values["section_2_ohm"] = to;
    return part;
}

/// Takes away the susceptance of the load.
Result<ChainPart> sizedStub(ChainPart part, Complex load, double frequency)
{
    const double susceptance = (1.0 / load).imag();
    const bool shorted = partValue(part, "shorted") > 0.5;
    const auto all = matchSections({shorted ? SectionMethod::ShortedStub : SectionMethod::OpenStub,
                                    frequency,
                                    0.0,
                                    {0.0, 1.0 / susceptance},
                                    partValue(part, "section_ohm"),
                                    partValue(part, "velocity_factor"),
                                    1.0});
    if (!all)
        return all.faults();
    part.values["length_m"] = all->front().length1;
    return part;
}

Result<ChainPart> sizedNetwork(ChainPart part, Complex load, double frequency, double to)
{
    const auto all = networksFor(load, to, frequency, partValue(part, "inductor_q"), partValue(part, "capacitor_q"));
    if (all.empty())
        return Fault{"", coreText("core", "two elements do not match this load")};
    const NetworkSolution& s = all.front();
    for (const char* key : {"shunt_H", "shunt_F", "series_H", "series_F"})
        part.values.erase(key);
    part.values["shunt_side"] = s.shuntAtLoad ? 0.0 : 1.0;
    part.values[s.shunt.inductor ? "shunt_H" : "shunt_F"] = s.shunt.value;
    part.values[s.series.inductor ? "series_H" : "series_F"] = s.series.value;
    return part;
}

} // namespace

Result<ChainPart> sizedPart(ChainPart part, Complex load, double frequency, double to)
{
    part.basis = Basis::Computed;
    if (part.kind == part::section)
        return sizedSection(std::move(part), load, frequency, to);
    if (part.kind == part::stub)
        return sizedStub(std::move(part), load, frequency);
    if (part.kind == part::network)
        return sizedNetwork(std::move(part), load, frequency, to);
    return Fault{"", coreText("core", "this part has no size to be found")};
}

} // namespace vetchling::study

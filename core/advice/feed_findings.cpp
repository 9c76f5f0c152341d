#include "core/advice/feed_findings.h"

#include "core/advice/usual_chain.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace vetchling::advice {
namespace {

using study::ChoiceRow;
using study::FeedCaution;
using Caution = FeedCaution::Kind;
using units::Quantity;

constexpr const char* losses = "losses";

const char* cautionCode(Caution kind)
{
    switch (kind) {
    case Caution::TunerRefuses: return "tuner";
    case Caution::LineSwr: return "line-swr";
    case Caution::LowImpedance:
    case Caution::HighRatio: return "ratio";
    case Caution::Heat: return "heat";
    case Caution::Volts: return "voltage";
    case Caution::NoChoke: return "choke";
    case Caution::BalanceBroken: return "balance";
    }
    return "";
}

Text voltWords(double volts)
{
    constexpr double kilo = 995.0; // what reads as a thousand
    return volts < kilo ? Text(fmt::format("{:.0f} V", 10.0 * std::round(volts / 10.0))) : Text(fmt::format("{:.2g} kV", volts / 1e3));
}

/// Words of the cautions of one report.
class Words {
public:
    Words(const Design& design, const study::FeedReport& report) : m_design(design), m_report(report) {}

    Text brief(const FeedCaution& c) const
    {
        const std::string bands = bandNames(m_design, c.bands);
        switch (c.kind) {
        case Caution::TunerRefuses: return {coreText("core", "The tuner does not tune %1"), bands};
        case Caution::LineSwr: return {coreText("core", "SWR %1 on the coax on %2"), number(c.value), bands};
        case Caution::LowImpedance: return {coreText("core", "%1 : 1 is too high a ratio on %2"), ratio(c), bands};
        case Caution::HighRatio: return {coreText("core", "%1 : 1 is too low a ratio on %2"), ratio(c), bands};
        case Caution::Heat: return {coreText("core", "The %1 gets hot on %2"), which(c), bands};
        case Caution::Volts: return {coreText("core", "Up to %1 in the chain"), voltWords(c.value).english()};
        case Caution::NoChoke: return coreText("core", "No choke keeps current off the coax");
        case Caution::BalanceBroken: return coreText("core", "Open-wire line ends on something unbalanced");
        }
        return {};
    }

    Text message(const FeedCaution& c) const
    {
        const std::string bands = bandNames(m_design, c.bands);
        switch (c.kind) {
        case Caution::TunerRefuses: return refusal(c, bands);
        case Caution::LineSwr:
            return {coreText("core", "SWR %1 on the coax on %2: it burns power and its insulation stands high voltage. Open-wire line, or "
                                     "a tuner at the antenna, would not lose it."),
                    number(c.value), bands};
        case Caution::LowImpedance:
            return {coreText("core", "%1 : 1 leaves only %2 on %3: too high a ratio there, and its own loss is more than it is near its "
                                     "ratio."),
                    ratio(c), Measure{rounded(c.value), Quantity::Resistance}, bands};
        case Caution::HighRatio:
            return {coreText("core", "%1 : 1 is too low a ratio on %2: SWR %3 behind it."), ratio(c), bands, number(c.value)};
        case Caution::Heat:
            return {coreText("core", "The %1 would have to get rid of %2 on %3; it stands %4."), which(c),
                    Measure{rounded(c.value), Quantity::Power}, bands,
                    Measure{partValue(m_report.parts[c.part], "rating_W"), Quantity::Power}};
        case Caution::Volts:
            return {coreText("core", "Up to %1 peak in the chain on %2: parts must stand it, and nobody may reach the feedpoint while "
                                     "transmitting."),
                    voltWords(c.value).english(), bands};
        case Caution::NoChoke: return coreText("core", "Nothing keeps current off the coax: see Shield, or add a choke.");
        case Caution::BalanceBroken:
            return coreText("core", "Open-wire line ends on something unbalanced: a balun or a balanced tuner belongs between.");
        }
        return {};
    }

private:
    /// Two figures: nobody knows more of it.
    static double rounded(double value)
    {
        const double unit = value > 0.0 ? std::pow(10.0, std::floor(std::log10(value)) - 1.0) : 1.0;
        return unit * std::round(value / unit);
    }
    static std::string number(double value) { return fmt::format("{:.0f}", value); }
    std::string which(const FeedCaution& c) const { return c.part < m_report.parts.size() ? partName(m_report.parts[c.part]) : ""; }
    std::string ratio(const FeedCaution& c) const
    {
        return fmt::format("{:.3g}", c.part < m_report.parts.size() ? partValue(m_report.parts[c.part], "ratio") : 1.0);
    }
    /// A reason may hold figures of its own.
    static Text refusal(const FeedCaution& c, const std::string& bands)
    {
        Text out = c.why;
        out.values.push_back(bands);
        out.pattern = fmt::format("The tuner does not tune %{}: {}.", out.values.size(), c.why.pattern);
        return out;
    }

    const Design& m_design;
    const study::FeedReport& m_report;
};

Finding findingOf(const FeedCaution& c, const Words& words, const Antenna& antenna)
{
    return {.antenna = antenna.id,
            .gravity = c.kind == Caution::Volts ? Gravity::Next : Gravity::Wrong, // that is to be minded, not mended
            .code = cautionCode(c.kind),
            .brief = words.brief(c),
            .message = words.message(c),
            .stage = Stage::Feed,
            .view = losses};
}

bool hasLine(const std::vector<ChainPart>& parts)
{
    return std::any_of(parts.begin(), parts.end(), [](const ChainPart& p) { return p.kind == part::line; });
}

/// Bands that it is for: those it is cut for and those it serves; all where nothing is cut, or a tuner with a range worth the name makes
/// all its matter.
bool isFor(const Design& design, const Antenna& antenna, const study::FeedReport& report, const study::FeedRow& row)
{
    constexpr double narrow = 3.5; // SWR that a tuner in a radio copes with
    const auto tuned = shapes::familyOf(antenna.shape).tuned(antenna.shape);
    const WantedBand* band = findBand(design, row.band.band);
    const bool wide = std::any_of(report.parts.begin(), report.parts.end(), [](const ChainPart& p) {
        const double range = partValue(p, "range_swr");
        return p.kind == part::tuner && (range == 0.0 || range > narrow);
    });
    return tuned.empty() || wide || row.service.service != Service::No || !band ||
           std::any_of(tuned.begin(), tuned.end(),
                       [&](const shapes::TunedLength& t) { return t.frequency >= band->band.from && t.frequency <= band->band.to; });
}

/// The same report without the bands that it is not for, if any is left then.
study::FeedReport concerning(const Design& design, const Antenna& antenna, study::FeedReport report)
{
    std::vector<study::FeedRow> rows;
    std::copy_if(report.rows.begin(), report.rows.end(), std::back_inserter(rows),
                 [&](const study::FeedRow& row) { return isFor(design, antenna, report, row); });
    if (rows.empty() || rows.size() == report.rows.size())
        return report;
    report.rows = std::move(rows);
    report.cautions = study::cautionsOf(report);
    return report;
}

/// Chains with one thing changed, as Which? compares them.
class Choices {
public:
    Choices(const Design& design, const Antenna& antenna, const study::FeedBasis& basis, study::FeedReport report,
            const std::vector<LineType>& types)
        : m_design(design), m_antenna(antenna), m_basis(basis), m_report(std::move(report)), m_rule(servedRule(design.operation))
    {
        const auto& parts = m_report.parts;
        const std::size_t own = m_report.own;
        add(study::transformersCompared(basis, parts, own, m_rule), &Choices::transformerLabel);
        add(study::tunersCompared(basis, parts, own, m_rule), &Choices::tunerLabel);
        if (hasLine(parts))
            add(study::linesCompared(basis, parts, own, m_rule, types), &Choices::lineLabel);
    }

    /// The one that brings most of those that take it away; what is only hot or hard on the coax may bring as much as now.
    std::optional<Cure> without(const std::string& code) const
    {
        constexpr double less = 0.005; // of the power that reaches the wire: the same
        const double least = m_now.arriving + (code == "heat" || code == "line-swr" ? -less : less);
        const Choice* best = nullptr;
        for (const Choice& c : m_choices)
            if (c.row.arriving >= least && c.row.tally.served >= m_now.tally.served &&
                (!best || c.row.arriving > best->row.arriving + less) && !says(c.row.parts, code))
                best = &c;
        if (!best)
            return std::nullopt;
        return Cure{best->label, [id = m_antenna.id, parts = best->row.parts, own = m_report.own](Design& design) {
                        if (Antenna* a = findAntenna(design, id))
                            takeChain(*a, parts, own);
                    }};
    }

private:
    struct Choice {
        ChoiceRow row;
        Text label;
    };

    void add(const std::vector<ChoiceRow>& rows, Text (*label)(const ChoiceRow&))
    {
        for (const ChoiceRow& row : rows)
            if (row.now)
                m_now = row;
            else
                m_choices.push_back({row, label(row)});
    }

    bool says(const std::vector<ChainPart>& parts, const std::string& code) const
    {
        const auto then = concerning(m_design, m_antenna, study::feedReport(m_basis, parts, m_report.own, m_report.power, m_rule));
        const auto is = [&](const FeedCaution& c) { return cautionCode(c.kind) == code; };
        const auto count = [&](const study::FeedReport& r) { return std::count_if(r.cautions.begin(), r.cautions.end(), is); };
        return count(then) >= count(m_report) || then.cautions.size() > m_report.cautions.size();
    }

    static Text transformerLabel(const ChoiceRow& row)
    {
        return row.ratio == 1.0 ? Text(coreText("core", "No transformer"))
                                : Text(coreText("core", "Take %1 : 1"), fmt::format("{:.3g}", row.ratio));
    }
    static Text tunerLabel(const ChoiceRow& row)
    {
        switch (row.tuner) {
        case ChoiceRow::Tuner::None: return coreText("core", "No tuner");
        case ChoiceRow::Tuner::InRadio: return coreText("core", "Tuner in the radio");
        case ChoiceRow::Tuner::Indoors: return coreText("core", "Tuner indoors");
        case ChoiceRow::Tuner::AtAntenna: return coreText("core", "Tuner at the antenna");
        }
        return {};
    }
    static Text lineLabel(const ChoiceRow& row) { return {coreText("core", "Take %1"), row.name}; }

    const Design& m_design;
    const Antenna& m_antenna;
    const study::FeedBasis& m_basis;
    study::FeedReport m_report; ///< on the bands that the antenna is for
    ServedRule m_rule;
    ChoiceRow m_now;
    std::vector<Choice> m_choices;
};

/// A choke before the coax, or behind the open-wire line.
Cure choke(const Antenna& antenna, const study::FeedReport& report, bool beforeCoax)
{
    std::size_t place = report.own;
    for (std::size_t i = 0; i < report.parts.size(); ++i) {
        const bool line = report.parts[i].kind == part::line, open = line && partValue(report.parts[i], "balanced") > 0.5;
        if (beforeCoax ? line && !open : open) {
            place = std::max(report.own, beforeCoax ? i : i + 1);
            break;
        }
    }
    return {coreText("core", "Add a choke"), [id = antenna.id, at = place - report.own](Design& design) {
                if (Antenna* a = findAntenna(design, id)) {
                    auto& parts = ownChain(*a).parts;
                    parts.insert(parts.begin() + long(std::min(at, parts.size())), newPart(part::choke));
                }
            }};
}

Cure coax(const Antenna& antenna, const ChainPart& line)
{
    const std::vector<ChainPart> whole = wholeChain(antenna);
    const bool parted = std::any_of(whole.begin(), whole.end(), [](const ChainPart& p) {
        return p.kind == part::choke || (p.kind == part::transformer && partValue(p, "current_kind") > 0.5);
    });
    std::vector<ChainPart> added{line};
    if (!parted)
        added.insert(added.begin(), newPart(part::choke));
    return {parted ? coreText("core", "Add the coax") : coreText("core", "Add choke and coax"), [id = antenna.id, added](Design& design) {
                if (Antenna* a = findAntenna(design, id)) {
                    auto& parts = ownChain(*a).parts;
                    const auto tuner = std::find_if(parts.begin(), parts.end(), [](const ChainPart& p) { return p.kind == part::tuner; });
                    parts.insert(tuner, added.begin(), added.end());
                    settleTuners(parts);
                }
            }};
}

} // namespace

std::string partName(const ChainPart& part)
{
    if (part.kind == part::line)
        return partValue(part, "balanced") > 0.5 ? coreText("core", "open-wire line") : coreText("core", "coax");
    return kindOf(part).name();
}

std::vector<Finding> feedFindings(const Design& design, const Antenna& antenna, const study::FeedReport& report)
{
    std::vector<Finding> all;
    const study::FeedReport concerned = concerning(design, antenna, report);
    const Words words(design, concerned);
    for (const FeedCaution& c : concerned.cautions)
        all.push_back(findingOf(c, words, antenna));
    const bool line = hasLine(report.parts);
    all.push_back({.antenna = antenna.id,
                   .gravity = line ? Gravity::Done : Gravity::Wrong,
                   .code = "line",
                   .brief = line ? coreText("core", "Line chosen") : coreText("core", "No line to the radio yet"),
                   .message = line
                                  ? coreText("core", "A line goes from the antenna to the radio.")
                                  : coreText("core", "Its chain has no coax and no open-wire line: what the radio sees and what is lost on "
                                                     "the way is not told."),
                   .stage = Stage::Feed,
                   .view = losses});
    return all;
}

std::vector<Finding> shieldFindings(const Design& design, const Antenna& antenna, const study::FeedReport& report,
                                    const study::ShieldAnswer& shield)
{
    constexpr double hot = 10.0; // W that a choke of usual size stands
    double stands = hot;
    for (const ChainPart& p : report.parts)
        if (p.kind == part::choke && partValue(p, "rating_W") > 0.0)
            stands = partValue(p, "rating_W");
    const study::ShieldBand* hottest = nullptr;
    const study::FeedReport concerned = concerning(design, antenna, report);
    for (const study::ShieldBand& b : shield.bands)
        if (b.chosen && b.chosen->chokeHeat > stands && concerned.row(b.band) &&
            (!hottest || b.chosen->chokeHeat > hottest->chosen->chokeHeat))
            hottest = &b;
    if (!shield.complete || !hottest)
        return {};
    const Measure heat{std::round(hottest->chosen->chokeHeat), Quantity::Power};
    return {
        {.antenna = antenna.id,
         .gravity = Gravity::Wrong,
         .code = "choke-heat",
         .brief = {coreText("core", "The choke gets hot on %1"), hottest->name},
         .message = {coreText("core", "On %1 the choke would have to get rid of %2: hardly one stands that. More turns, a second one, or "
                                      "another place on the coax."),
                     hottest->name, heat},
         .stage = Stage::Feed,
         .view = "shield"}};
}

void addFeedCures(std::vector<Finding>& findings, const Design& design, const Antenna& antenna, const study::FeedBasis& basis,
                  const study::FeedReport& report, const std::vector<LineType>& types)
{
    std::optional<Choices> choices;
    for (Finding& f : findings) {
        const std::string code = f.code;
        if (f.stage != Stage::Feed || !f.open() || code == "voltage")
            continue;
        if (code == "choke" || code == "balance")
            f.cure = choke(antenna, report, code == "choke");
        else if (code == "line") {
            if (const auto built = shapes::buildOver(antenna.shape, groundUnder(design, antenna)); built)
                if (const auto line = usualLine(design, antenna, built->feedPoint, types))
                    f.cure = coax(antenna, *line);
        } else {
            if (!choices)
                choices.emplace(design, antenna, basis, concerning(design, antenna, report), types);
            f.cure = choices->without(f.code);
        }
    }
}

} // namespace vetchling::advice

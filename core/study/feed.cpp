#include "core/study/feed.h"

#include "core/study/configurations.h"
#include "core/study/fed_fields.h"
#include "core/study/neighbours.h"
#include "core/study/sky.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vetchling::study {
namespace {

constexpr double sectorStep = 0.09; // rad

double decibels(double share) { return 10.0 * std::log10(std::max(share, 1e-30)); }

/// Towards the aim, or the mean power over the sector round it.
double gainOver(const em::FarField& field, const FeedQuestion& asked, double azimuth)
{
    if (!(asked.sector > 0.0))
        return field.gain(asked.aim.elevation, azimuth);
    const int steps = std::max(2, int(std::ceil(asked.sector / sectorStep)));
    double sum = 0.0;
    for (int i = 0; i < steps; ++i)
        sum += std::pow(10.0, 0.1 * field.gain(asked.aim.elevation, azimuth + asked.sector * ((i + 0.5) / steps - 0.5)));
    return decibels(sum / steps);
}

double highestOf(const std::vector<WantedBand>& bands)
{
    double highest = 0.0;
    for (const WantedBand& w : bands)
        highest = std::max(highest, w.band.centre());
    return highest;
}

class BasisMaker {
public:
    BasisMaker(Library& library, References& references, const FeedQuestion& asked, const std::vector<CurvePointer>& curves,
               const Watch& watch, Care care)
        : m_library(library), m_references(references), m_asked(asked), m_curves(curves), m_watch(watch), m_quiet(watch.with({})),
          m_care(care)
    {
    }

    Result<FeedBasis> run()
    {
        FeedBasis out;
        out.against = m_asked.against;
        const bool needsOther = out.against.kind == Against::Kind::Antenna || out.against.kind == Against::Kind::Pinned;
        if (needsOther && !m_asked.other)
            out.against = {};
        FedFields quick(m_library, m_curves, highestOf(m_asked.question.bands), m_care, m_quiet);
        std::optional<std::vector<CurvePointer>> others;
        if (needsOther && m_asked.other) {
            const auto other = curvesOf(m_library, *m_asked.other, m_quiet);
            if (!other)
                return other.faults();
            others = *other;
        }
        m_height = 0.0;
        for (const Wire& w : m_curves.front()->built->model.wires)
            for (Vec3 p : w.points)
                m_height = std::max(m_height, p.z);
        const auto& bands = m_asked.question.bands;
        for (std::size_t i = 0; i < bands.size(); ++i) {
            const std::optional<std::size_t> best = bestFor(m_curves, bands[i].id);
            if (!best)
                continue;
            m_watch.report(double(i) / double(bands.size()));
            Result<FeedBand> band = bandOf(bands[i], *m_curves[*best], *best, out.against, others ? &*others : nullptr, i, quick);
            if (!band)
                return band.faults();
            out.bands.push_back(std::move(band).value());
        }
        return out;
    }

private:
    /// An antenna's port and field at a frequency, in the configuration of a curve.
    Result<PortSpotPointer> spotOf(const Curve& curve, double frequency)
    {
        return m_library.study(curve.built->model, curve.built->portReference)->spot(frequency, m_quiet);
    }

    Result<FeedBand> bandOf(const WantedBand& wanted, const Curve& curve, std::size_t configuration, const Against& against,
                            const std::vector<CurvePointer>* others, std::size_t place, FedFields& quick)
    {
        FeedBand out{wanted.id, wanted.band.name, wanted.wish, wanted.band.centre(), configuration, {}, {}, 0.0, 0.0, {}};
        out.across = portOver([&](double f) { return curve.atPort(f); }, wanted);
        if (m_care == Care::Coarse) {
            const auto fed = quick.at(configuration, out.frequency);
            if (!fed)
                return m_watch.stopped() ? stoppedFault() : Fault{"", coreText("core", "it cannot be solved there")};
            out.port = fed->port;
            look(fed->field, out);
        } else {
            const auto spot = spotOf(curve, out.frequency);
            if (!spot)
                return spot.faults();
            out.port = (*spot)->solution.impedance;
            look(*(*spot)->field, out);
        }
        Result<HeldAgainst> held = heldAgainst(out, against, others, place);
        if (!held)
            return held.faults();
        out.against = std::move(held).value();
        return out;
    }

    void look(const em::FarField& field, FeedBand& out) const
    {
        out.azimuth = azimuthTowards(field, m_asked.aim, m_quiet);
        out.gain = gainOver(field, m_asked, out.azimuth);
    }

    Result<HeldAgainst> heldAgainst(const FeedBand& band, const Against& against, const std::vector<CurvePointer>* others,
                                    std::size_t place)
    {
        switch (against.kind) {
        case Against::Kind::Own: return HeldAgainst{against.gain, {50.0, 0.0}, {}, false};
        case Against::Kind::Antenna:
        case Against::Kind::Pinned: return otherAntenna(band, *others, place);
        case Against::Kind::Dipole: return dipole(band);
        case Against::Kind::Vertical: break;
        }
        const auto vertical = m_references.at(m_library, m_asked.question.subject.ground, band.frequency, m_quiet);
        if (!vertical)
            return vertical.faults();
        return HeldAgainst{
            gainOver(vertical->field->over(m_asked.question.subject.beyond), m_asked, band.azimuth), vertical->impedance, {}, true};
    }

    Result<HeldAgainst> otherAntenna(const FeedBand& band, const std::vector<CurvePointer>& others, std::size_t place)
    {
        const std::vector<BandChoice> best = bestByBand(others);
        const auto spot = spotOf(*others[best[place].configuration], band.frequency);
        if (!spot)
            return spot.faults();
        const double azimuth = azimuthTowards(*(*spot)->field, m_asked.aim, m_quiet);
        return HeldAgainst{gainOver(*(*spot)->field, m_asked, azimuth), (*spot)->solution.impedance, m_asked.otherParts, false, true};
    }

    /// Level, as high as the antenna's highest point, broadside to where it is looked at, and cut to resonance.
    Result<HeldAgainst> dipole(const FeedBand& band)
    {
        shapes::AntennaShape shape = shapes::dipoleFamily().standardShape(band.frequency);
        shape.parameters["apex_height_m"] = std::max(1.0, m_height);
        shape.parameters["end_height_m"] = shape.parameters["apex_height_m"];
        shape.parameters["bearing_deg"] =
            bearingOf(band.azimuth) + 90.0 > 360.0 ? bearingOf(band.azimuth) - 90.0 : bearingOf(band.azimuth) + 90.0;
        const std::string length = shapes::dipoleFamily().tuned(shape).front().parameter;
        Subject subject{shape, m_asked.question.subject.ground, 0, {}, m_asked.question.subject.beyond};
        if (const auto tuned = tune(shape, subject.ground, length, band.frequency, m_library.tables(), {}, m_quiet))
            subject.shape.parameters[length] = tuned->value;
        const auto studied = m_library.study(subject);
        if (!studied)
            return studied.faults();
        const auto spot = studied->study->spot(band.frequency, m_quiet);
        if (!spot)
            return spot.faults();
        return HeldAgainst{gainOver(*(*spot)->field, m_asked, band.azimuth), (*spot)->solution.impedance, {}, true};
    }

    Library& m_library;
    References& m_references;
    const FeedQuestion& m_asked;
    const std::vector<CurvePointer>& m_curves;
    const Watch& m_watch;
    const Watch m_quiet; ///< for what is only a part of the whole
    Care m_care;
    double m_height = 0.0;
};

Question wishedOf(const Design& design, const Antenna& antenna)
{
    Question question = questionOf(design, antenna);
    question.before.reset();
    std::erase_if(question.bands, [](const WantedBand& w) { return w.wish == Wish::No; });
    return question;
}

std::vector<ChainPart> linesOf(const std::vector<ChainPart>& parts, std::size_t own)
{
    std::vector<ChainPart> lines;
    std::copy_if(parts.begin() + long(own), parts.end(), std::back_inserter(lines),
                 [](const ChainPart& p) { return p.kind == part::line; });
    return lines;
}

/// Finds what needs a word, over all bands.
class CautionFinder {
public:
    explicit CautionFinder(const FeedReport& report) : m_report(report) {}

    std::vector<FeedCaution> all()
    {
        for (const FeedRow& row : m_report.rows)
            for (std::size_t i = 0; i < m_report.parts.size(); ++i)
                look(row, i);
        for (const FeedRow& row : m_report.rows) {
            double most = row.state.portVolts;
            for (const Joint& j : row.state.joints)
                most = std::max(most, j.mostVolts);
            most *= std::sqrt(row.power);
            if (most > burning)
                add(FeedCaution::Kind::Volts, 0, row, most, {});
        }
        structure();
        return std::move(m_all);
    }

private:
    using Kind = FeedCaution::Kind;
    static constexpr double burning = 250.0; // V peak, above what a matched 100 W makes by more than twice
    static constexpr double muchOnCoax = 10.0, lowOhms = 12.0, wrongRatio = 10.0; // SWR; ohm; SWR

    void look(const FeedRow& row, std::size_t i)
    {
        const ChainPart& part = m_report.parts[i];
        const Joint& joint = row.state.joints[i];
        const Complex load = i == 0 ? row.state.load : row.state.joints[i - 1].impedance;
        if (joint.refused)
            add(Kind::TunerRefuses, i, row, 0.0, *joint.refused);
        if (part.kind == part::line && partValue(part, "balanced") < 0.5) {
            const double onLine = swr(load, partValue(part, "impedance_ohm"));
            if (onLine > muchOnCoax)
                add(Kind::LineSwr, i, row, onLine, {});
        }
        if (part.kind == part::transformer && partValue(part, "ratio") > 2.5) {
            if (std::abs(joint.impedance) < lowOhms)
                add(Kind::LowImpedance, i, row, std::abs(joint.impedance), {});
            else if (std::abs(joint.impedance) > 50.0 && swr(joint.impedance) > wrongRatio)
                add(Kind::HighRatio, i, row, swr(joint.impedance), {});
        }
        const double rating = partValue(part, "rating_W"), heat = joint.lost() * row.power;
        if (rating > 0.0 && heat > rating)
            add(Kind::Heat, i, row, heat, {});
    }

    void structure()
    {
        const auto& parts = m_report.parts;
        bool parted = false;
        for (std::size_t i = 0; i < parts.size(); ++i) {
            const bool open = parts[i].kind == part::line && partValue(parts[i], "balanced") > 0.5;
            const bool coax = parts[i].kind == part::line && !open;
            parted =
                parted || parts[i].kind == part::choke || (parts[i].kind == part::transformer && partValue(parts[i], "current_kind") > 0.5);
            if (coax && !parted) {
                m_all.push_back({Kind::NoChoke, i, {}, 0.0, {}});
                parted = true;
            }
            const std::string next = i + 1 < parts.size() ? parts[i + 1].kind : std::string();
            const bool mends = next == part::transformer || next == part::tuner || next == part::choke || next == part::section;
            const bool onOpen = next == part::line && i + 1 < parts.size() && partValue(parts[i + 1], "balanced") > 0.5;
            if (open && !mends && !onOpen)
                m_all.push_back({Kind::BalanceBroken, i, {}, 0.0, {}});
        }
    }

    void add(Kind kind, std::size_t part, const FeedRow& row, double value, const Text& why)
    {
        const auto known = std::find_if(m_all.begin(), m_all.end(), [&](const FeedCaution& c) { return c.kind == kind && c.part == part; });
        if (known == m_all.end()) {
            m_all.push_back({kind, part, {row.band.band}, value, why});
            return;
        }
        const bool worse = kind == Kind::LowImpedance ? value < known->value : value > known->value;
        known->bands.insert(worse ? known->bands.begin() : known->bands.end(), row.band.band);
        if (worse) {
            known->value = value;
            known->why = why;
        }
    }

    const FeedReport& m_report;
    std::vector<FeedCaution> m_all;
};

} // namespace

FeedQuestion feedQuestionOf(const Design& design, const Antenna& antenna, const Antenna* pinned)
{
    FeedQuestion out{
        wishedOf(design, antenna), aimOf(design.operation), radians(design.operation.aimSector), design.operation.against, {}, {}};
    const Antenna* other = out.against.kind == Against::Kind::Pinned    ? pinned
                           : out.against.kind == Against::Kind::Antenna ? findAntenna(design, out.against.antenna)
                                                                        : nullptr;
    if (other) {
        out.other = wishedOf(design, *other);
        out.otherParts = wholeChain(*other);
    }
    return out;
}

std::optional<std::size_t> bestFor(const std::vector<CurvePointer>& curves, const Id& band)
{
    std::optional<std::size_t> best;
    double lowest = 0.0;
    for (std::size_t i = 0; i < curves.size(); ++i)
        if (const Coverage* c = curves[i]->band(band); c && c->solved() && (!best || c->lowestSwr < lowest)) {
            best = i;
            lowest = c->lowestSwr;
        }
    return best;
}

Result<FeedBasis> feedBasisOf(Library& library, References& references, const FeedQuestion& asked, const Watch& watch)
{
    const auto curves = curvesOf(library, asked.question, watch.with({}));
    if (!curves)
        return curves.faults();
    return feedBasisOn(library, references, asked, *curves, watch);
}

Result<FeedBasis> feedBasisOn(Library& library, References& references, const FeedQuestion& asked, const std::vector<CurvePointer>& curves,
                              const Watch& watch, Care care)
{
    return unlessStopped(watch, BasisMaker(library, references, asked, curves, watch, care).run());
}

const FeedRow* FeedReport::row(const Id& band) const
{
    const auto found = std::find_if(rows.begin(), rows.end(), [&](const FeedRow& r) { return r.band.band == band; });
    return found == rows.end() ? nullptr : &*found;
}

const FeedRow* FeedReport::worst() const
{
    const auto weighed = [](const FeedRow& row) { return std::pair{row.service.service != Service::No, row.service.total()}; };
    const auto most =
        std::max_element(rows.begin(), rows.end(), [&](const FeedRow& a, const FeedRow& b) { return weighed(a) < weighed(b); });
    return most == rows.end() ? nullptr : &*most;
}

Tally FeedReport::tally() const
{
    std::vector<BandService> services;
    std::vector<WantedBand> bands;
    for (const FeedRow& row : rows) {
        services.push_back(row.service);
        bands.push_back({{}, row.band.wish, row.band.band, {}});
    }
    return tallyOf(services, bands);
}

BandService serviceOf(const FeedBand& band, const std::vector<ChainPart>& parts, const ServedRule& rule)
{
    if (!band.across.stretches.empty())
        return vetchling::serviceOf(band.across, parts, rule);
    return vetchling::serviceOf({{{1.0, {{band.frequency, band.port}}}}, band.frequency, band.port}, parts, rule);
}

FeedReport feedReport(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own, double power, const ServedRule& rule)
{
    FeedReport out{parts, own, power, {}, {}};
    const std::vector<ChainPart> lines = linesOf(parts, own), least = guessed(parts, Guess::Least), most = guessed(parts, Guess::Most);
    const bool guess = isGuess(parts);
    for (const FeedBand& band : basis.bands) {
        FeedRow row;
        row.band = band;
        row.state = chainAt(parts, band.port, band.frequency);
        row.service = serviceOf(band, parts, rule);
        row.power = power * std::pow(10.0, -0.1 * row.service.mismatch);
        row.socketSwr = swr(atSocket(parts, band.port, band.frequency), rule.reference);
        row.net = row.netAtLeast = row.netAtMost = band.gain - row.state.totalLoss();
        if (guess) {
            row.netAtMost = band.gain - throughChain(least, band.port, band.frequency).loss;
            row.netAtLeast = band.gain - throughChain(most, band.port, band.frequency).loss;
        }
        const HeldAgainst& held = band.against;
        const Through other = throughChain(held.sameLine ? lines : held.parts, held.port, band.frequency);
        row.reference = held.gain - other.loss;
        if (held.isAntenna)
            row.referenceMismatch = mismatchLoss(other.impedance, rule);
        for (std::size_t i = 0; i < parts.size(); ++i)
            if (parts[i].kind == part::line)
                row.lineLoss += row.state.joints[i].loss;
        out.rows.push_back(std::move(row));
    }
    out.cautions = cautionsOf(out);
    return out;
}

std::vector<FeedCaution> cautionsOf(const FeedReport& report) { return CautionFinder(report).all(); }

} // namespace vetchling::study

#include "core/trim/sense.h"

#include "core/trim/history.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vetchling {
namespace {

constexpr double off = 6.0;        // SWR of the model from which a frequency is far off resonance
constexpr double leastLoss = 0.7;  // dB one way that is worth a word
constexpr double secondDip = 0.75; // of the ridge between two dips

double returnLoss(double swr) { return swr > 1.0 ? -20.0 * std::log10((swr - 1.0) / (swr + 1.0)) : 60.0; }

/// The model's dip that is nearest to the measured one, over that: what is a little too long or too short has its whole curve moved so. 1
/// where none is near.
double modelOverMeasured(const MeasuredSweep& sweep, double dip, const std::function<double(double)>& model)
{
    constexpr double reach = 0.12; // of the frequency, as far as a model may be off
    double nearest = 0.0;
    for (std::size_t i = 1; i + 1 < sweep.points.size(); ++i) {
        const double f = sweep.points[i].frequency, here = model(f);
        if (here <= model(sweep.points[i - 1].frequency) && here <= model(sweep.points[i + 1].frequency) &&
            std::abs(f / dip - 1.0) < std::min(reach, nearest > 0.0 ? std::abs(nearest / dip - 1.0) : reach))
            nearest = f;
    }
    return nearest > 0.0 ? nearest / dip : 1.0;
}

/// Half of what comes back less than from the model, where that reflects nearly all.
double cableLoss(const MeasuredSweep& sweep, const std::function<double(double)>& model)
{
    std::vector<double> losses;
    for (const MeasuredPoint& p : sweep.points)
        if (const double swr = model(p.frequency); swr > off)
            losses.push_back(0.5 * (returnLoss(p.swr) - returnLoss(swr)));
    if (losses.size() < 3)
        return 0.0;
    std::nth_element(losses.begin(), losses.begin() + std::ptrdiff_t(losses.size() / 2), losses.end());
    return losses[losses.size() / 2];
}

/// Another lowest SWR with a ridge between; its frequency, or 0.
double otherDip(const MeasuredSweep& sweep, double first)
{
    const auto& p = sweep.points;
    double found = 0.0, best = HUGE_VAL;
    for (std::size_t i = 1; i + 1 < p.size(); ++i) {
        if (p[i].swr > p[i - 1].swr || p[i].swr > p[i + 1].swr || p[i].swr > 4.0 || std::abs(p[i].frequency - first) < 1e-9 * first)
            continue;
        double ridge = 0.0;
        for (const MeasuredPoint& q : p)
            if ((q.frequency - first) * (q.frequency - p[i].frequency) < 0.0)
                ridge = std::max(ridge, q.swr);
        if (p[i].swr < secondDip * ridge && p[i].swr < best)
            best = p[i].swr, found = p[i].frequency;
    }
    return found;
}

/// Dips under 2 with ridges between them that lie where the model has no match at all.
int unlikelyDips(const MeasuredSweep& sweep, const std::function<double(double)>& model)
{
    constexpr double good = 2.0;
    int count = 0;
    bool within = false;
    for (const MeasuredPoint& p : sweep.points) {
        const bool here = p.swr < good && model(p.frequency) > off;
        count += here && !within ? 1 : 0;
        within = p.swr < good && (here || within);
    }
    return count;
}

/// Whether nothing was done to the antenna between two entries, nor to where it hangs.
bool sameState(const Measurement& before, const Measurement& last)
{
    constexpr double sameHeight = 0.05; // m
    return last.cutSinceLast == 0.0 && last.configuration == before.configuration && last.soil == before.soil &&
           last.place == before.place && std::abs(last.height.value_or(0.0) - before.height.value_or(0.0)) < sameHeight &&
           last.height.has_value() == before.height.has_value() && before.dip > 0.0 && last.dip > 0.0 &&
           std::abs(last.dip / before.dip - 1.0) <= 0.1;
}

/// Read so soon after one another that no weather went over it: what differs later is a drift, which the log tells of.
bool withinADay(const Measurement& before, const Measurement& last)
{
    const auto then = dayOf(before.when), now = dayOf(last.when);
    return !then || !now || std::abs(*now - *then) <= 1.0;
}

bool otherInstrument(const Measurement& a, const Measurement& b)
{
    return !a.instrument.empty() && !b.instrument.empty() && a.instrument != b.instrument;
}

} // namespace

bool SenseRow::stops() const { return !ofDips && !checkFirst(sign).empty(); }

Text checkFirst(SenseSign sign)
{
    switch (sign) {
    case SenseSign::BelowOne: return coreText("core", "Look before you cut: first the trace, then calibrate anew.");
    case SenseSign::FalseCalibration: return coreText("core", "Look before you cut: first calibrate anew, hands off the plugs.");
    case SenseSign::LossyCable: return coreText("core", "Look before you cut: first sweep the coax alone, open at its end.");
    case SenseSign::HighEverywhere: return coreText("core", "Look before you cut: first the ohmmeter, then joints and links.");
    case SenseSign::FlatLow: return coreText("core", "Look before you cut: first sweep the bare plug, it must read high.");
    case SenseSign::GoodEverywhere: return coreText("core", "Look before you cut: first the cable, how long and how old?");
    case SenseSign::Jumped: return coreText("core", "Look before you cut: first move each joint and watch the sweep.");
    default: return {};
    }
}

void takeSweep(const MeasuredSweep& sweep, Measurement& m)
{
    std::vector<std::pair<double, double>> points;
    std::vector<Complex> impedance;
    for (const MeasuredPoint& p : sweep.points) {
        points.emplace_back(p.frequency, p.swr);
        if (p.impedance)
            impedance.push_back(*p.impedance);
    }
    if (impedance.size() != points.size())
        impedance.clear();
    m.sweep = std::move(points);
    m.impedance = std::move(impedance);
    if (const auto dip = sweep.dip()) {
        m.dip = dip->frequency;
        m.dipSwr = dip->swr;
    }
}

MeasuredSweep sweepOf(const Measurement& m)
{
    MeasuredSweep sweep;
    for (std::size_t i = 0; i < m.sweep.size(); ++i)
        sweep.points.push_back({m.sweep[i].first, m.impedance.empty() ? std::nullopt : std::optional(m.impedance[i]), m.sweep[i].second});
    return sweep;
}

std::vector<SenseRow> senseOf(const MeasuredSweep& sweep, const std::function<double(double)>& model, double cable)
{
    std::vector<SenseRow> rows;
    const auto dip = sweep.dip();
    if (!dip)
        return rows;
    const auto say = [&](SenseSign sign, double value, Text words) { rows.push_back({sign, value, std::move(words)}); };
    const double over = modelOverMeasured(sweep, dip->frequency, model);
    const auto moved = [&](double f) { return model(over * f); };
    double least = HUGE_VAL, most = 0.0;
    for (const MeasuredPoint& p : sweep.points)
        least = std::min(least, p.swr), most = std::max(most, p.swr);
    if (least < 0.999) {
        say(SenseSign::BelowOne, least, coreText("core", "An SWR below 1 cannot be: the wrong trace, or a file in another format."));
        return rows;
    }
    double lowest = 0.0;
    for (const MeasuredPoint& p : sweep.points)
        lowest = std::min(lowest, p.impedance ? p.impedance->real() : 0.0);
    constexpr double belowNothing = -1.0; // ohm, more than noise
    if (lowest < belowNothing) {
        say(SenseSign::FalseCalibration, lowest,
            coreText("core",
                     "A resistance below zero cannot be: the calibration does not belong to this sweep. Open, short and load anew, at the "
                     "end of the cable, for this range."));
        return rows;
    }
    const double lost = cableLoss(sweep, moved) - cable;
    if (lost > leastLoss)
        say(SenseSign::LossyCable, lost,
            {coreText("core",
                      "Far off resonance too much is lost: %1 one way in the cable. Measure at the feedpoint, or calibrate at its end."),
             Measure{lost, units::Quantity::Decibel}});
    if (const int dips = unlikelyDips(sweep, moved); dips >= 2)
        say(SenseSign::GoodEverywhere, dips,
            {coreText("core", "A good match on %1 frequencies on which this antenna has none: which cable is it, how long, how old? Water "
                              "or length in it makes any wire look good. Sweep it alone, open at its far end."),
             Measure{double(dips)}});
    if (least > 5.0)
        say(SenseSign::HighEverywhere, least,
            coreText("core",
                     "High everywhere: look for a short, an open joint or link, a missing counterpoise, the wrong tap; ohmmeter first."));
    else if (most < 2.0 && sweep.points.size() > 4 && sweep.points.back().frequency > 1.05 * sweep.points.front().frequency)
        say(SenseSign::FlatLow, most,
            coreText(
                "core",
                "Low everywhere: a dummy load, a very lossy cable, or a calibration that is off. Take the antenna off and look again."));
    if (least <= 5.0) {
        if (dip->atEdge)
            say(SenseSign::DipAtEdge, dip->frequency, coreText("core", "The lowest SWR lies at the end of the sweep: sweep wider."));
        if (const double second = otherDip(sweep, dip->frequency); second > 0.0)
            say(SenseSign::TwoDips, second,
                {coreText(
                     "core",
                     "A second dip at %1: the shield, metal nearby or another pair. Move the coax, add a choke, and look whether it stays. "
                     "Unequal sides do not do that."),
                 Measure{second, units::Quantity::Frequency}});
        double modelled = HUGE_VAL, at = 0.0;
        for (const MeasuredPoint& p : sweep.points)
            if (const double swr = model(p.frequency); swr < modelled)
                modelled = swr, at = p.frequency;
        if (at > 0.0 && !dip->atEdge && std::abs(dip->frequency / at - 1.0) > 0.08)
            say(SenseSign::FarFromModel, dip->frequency / at - 1.0,
                {coreText("core", "The dip is far from the model's %1: links, joints, the tape, another antenna?"),
                 Measure{at, units::Quantity::Frequency}});
        if (modelled < 1.6 && dip->swr > 1.5 * modelled && dip->swr > 1.8)
            say(SenseSign::RaisedDip, dip->swr / modelled,
                coreText(
                    "core",
                    "A raised dip: soil or height other than planned, a coil or joint that loses; see where the watts go under Shape."));
    }
    if (rows.empty())
        say(SenseSign::Fits, 0.0, coreText("core", "Dip and width are as the model says."));
    return rows;
}

std::vector<SenseRow> senseBetween(const Measurement& before, const Measurement& last)
{
    constexpr double moved = 0.003, otherReading = 0.0005, otherSwr = 1.2, otherCoax = 0.5; // of the dip; of the SWR; m
    if (!sameState(before, last))
        return {};
    const double shift = last.dip - before.dip;
    const bool went = std::abs(shift) > moved * before.dip;
    if (otherInstrument(before, last) && withinADay(before, last))
        return std::abs(shift) < otherReading * before.dip
                   ? std::vector<SenseRow>{}
                   : std::vector<SenseRow>{{SenseSign::OtherInstrument,
                                            shift,
                                            {shift > 0.0 ? coreText("core", "Nothing was done: the %1 reads %3 kHz higher than the %2. "
                                                                            "What the %2 read is counted as the %1 would have.")
                                                         : coreText("core", "Nothing was done: the %1 reads %3 kHz lower than the %2. "
                                                                            "What the %2 read is counted as the %1 would have."),
                                             last.instrument, before.instrument, Measure{std::round(std::abs(shift) / 1e3)}}}};
    if (std::abs(last.coax - before.coax) > otherCoax)
        return went ? std::vector<SenseRow>{{SenseSign::MovedWithCoax,
                                             shift,
                                             {coreText("core", "With another length of coax the dip moved by %1 kHz: its shield is part of "
                                                               "the antenna. Put a choke "
                                                               "at the feedpoint and look again."),
                                              Measure{std::round(std::abs(shift) / 1e3)}}}}
                    : std::vector<SenseRow>{};
    const double ratio =
        before.dipSwr > 0.0 && last.dipSwr > 0.0 ? std::max(last.dipSwr / before.dipSwr, before.dipSwr / last.dipSwr) : 1.0;
    if ((!went && ratio < otherSwr) || !withinADay(before, last))
        return {};
    return {{SenseSign::Jumped, shift,
             coreText("core",
                      "Nothing was done, and two sweeps differ: a joint, a plug or a link makes contact only at times. Move each one while "
                      "somebody watches the sweep."),
             before.sweep.empty() || last.sweep.empty()}};
}

std::vector<Measurement> asReadByOne(const std::vector<Measurement>& log)
{
    std::vector<Measurement> out = log;
    if (log.empty() || log.back().instrument.empty())
        return out;
    std::map<std::string, std::pair<double, int>> ratios; // by instrument: the logarithms of what the last one's would read, and how many
    for (std::size_t i = 0; i + 1 < log.size(); ++i) {
        const Measurement &a = log[i], &b = log[i + 1];
        if (!otherInstrument(a, b) || !sameState(a, b) || !withinADay(a, b))
            continue;
        const std::string& own = log.back().instrument;
        if (b.instrument == own)
            ratios[a.instrument].first += std::log(b.dip / a.dip), ++ratios[a.instrument].second;
        else if (a.instrument == own)
            ratios[b.instrument].first += std::log(a.dip / b.dip), ++ratios[b.instrument].second;
    }
    for (Measurement& m : out) {
        const auto known = ratios.find(m.instrument);
        if (known == ratios.end())
            continue;
        const double by = std::exp(known->second.first / known->second.second);
        m.dip *= by;
        std::vector<std::pair<double, double>> sweep(m.sweep.begin(), m.sweep.end());
        for (auto& point : sweep)
            point.first *= by;
        m.sweep = std::move(sweep);
    }
    return out;
}

std::vector<SenseRow> senseOfLast(const std::vector<Measurement>& log, const std::vector<std::size_t>& entries,
                                  const std::function<double(double)>& model)
{
    std::vector<SenseRow> all;
    if (entries.empty() || entries.back() >= log.size())
        return all;
    const Measurement& now = log[entries.back()];
    if (!now.sweep.empty())
        all = senseOf(sweepOf(now), model);
    if (entries.size() > 1)
        for (const SenseRow& row : senseBetween(log[entries[entries.size() - 2]], now))
            all.push_back(row);
    if (!now.sweep.empty() && now.coax > 0.0 && now.impedance.empty())
        all.push_back({SenseSign::SwrOnly, now.coax,
                       coreText("core", "Taken through coax without R and X: only the SWR is used, less the cable's loss.")});
    return all;
}

} // namespace vetchling

#include "core/bands/served.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double nearlyAll = 0.95, hardlyAny = 0.05; // of a band

double reflected(double swr) { return std::pow((swr - 1.0) / (swr + 1.0), 2); }

bool isTuner(const ChainPart& part) { return part.kind == part::tuner; }

/// Part of the points that are so. Between two looked-at ones that agree the rest is taken to be like them.
template <class Is> double partOf(const std::vector<std::pair<double, Complex>>& points, Is is)
{
    constexpr std::size_t stride = 5; // 2.5 % of the band: what is narrower serves nobody
    std::size_t count = 0, last = 0;
    bool before = is(points.front());
    count += before;
    for (std::size_t i = std::min(stride, points.size() - 1); last + 1 < points.size(); i = std::min(i + stride, points.size() - 1)) {
        const bool now = is(points[i]);
        if (now == before)
            count += now ? i - last : 0;
        else
            count += std::size_t(std::count_if(points.begin() + long(last) + 1, points.begin() + long(i), is)) + now;
        before = now;
        last = i;
    }
    return double(count) / double(points.size());
}

/// Of the stretches, by weight, what lies under the limit behind the parts.
double shareOf(const PortOverBand& port, const Socket& socket, const ServedRule& rule)
{
    double sum = 0.0, weights = 0.0;
    for (const PortOverBand::Stretch& stretch : port.stretches) {
        sum += stretch.weight * partOf(stretch.points, [&](const std::pair<double, Complex>& point) {
                   return swr(socket.seen(point.second, point.first), rule.reference) <= rule.swrLimit;
               });
        weights += stretch.weight;
    }
    return weights > 0.0 ? sum / weights : 0.0;
}

PortOverBand::Stretch stretchOf(const ImpedanceAt& port, double from, double to, double weight)
{
    PortOverBand::Stretch out;
    out.weight = weight;
    for (int i = 0; i <= coverageSteps; ++i) {
        const double f = from + i * ((to - from) / coverageSteps);
        out.points.emplace_back(f, port(f));
    }
    return out;
}

} // namespace

double takenUp(Complex impedance, const ServedRule& rule)
{
    const double back = reflected(swr(impedance, rule.reference));
    if (!(back < 1.0))
        return 0.0;
    const double most = rule.foldbackSwr > 1.0 ? reflected(rule.foldbackSwr) : 1.0;
    return (1.0 - back) * (back > most ? most / back : 1.0);
}

double mismatchLoss(Complex impedance, const ServedRule& rule) { return -10.0 * std::log10(std::max(takenUp(impedance, rule), 1e-30)); }

PortOverBand portOver(const ImpedanceAt& port, const WantedBand& wanted)
{
    PortOverBand out;
    out.centre = wanted.band.centre();
    out.atCentre = port(out.centre);
    for (const Segment& s : wanted.segments)
        if (s.wish != Wish::No)
            out.stretches.push_back(stretchOf(port, s.from, s.to, weightOf(s.wish)));
    if (out.stretches.empty())
        out.stretches.push_back(stretchOf(port, wanted.band.from, wanted.band.to, 1.0));
    return out;
}

BandService serviceOf(const PortOverBand& port, const std::vector<ChainPart>& parts, const ServedRule& rule)
{
    BandService out;
    out.solved = true;
    const bool tuned = std::any_of(parts.begin(), parts.end(), isTuner);
    std::vector<ChainPart> untuned = parts;
    std::erase_if(untuned, isTuner);
    out.share = shareOf(port, Socket(untuned), rule);
    out.shareWithTuner =
        tuned && out.share < 1.0 ? std::max(out.share, shareOf(port, Socket(parts, Socket::End::BehindTuner), rule)) : out.share;
    const Through chain = throughChain(parts, port.atCentre, port.centre);
    out.loss = chain.loss;
    out.mismatch = mismatchLoss(chain.impedance, rule);
    out.service = out.shareWithTuner >= nearlyAll && out.total() <= rule.lossLimit ? Service::Served
                  : out.shareWithTuner >= hardlyAny                                ? Service::Partly
                                                                                   : Service::No;
    return out;
}

Tally tallyOf(const std::vector<BandService>& services, const std::vector<WantedBand>& bands)
{
    Tally out;
    for (std::size_t i = 0; i < bands.size(); ++i) {
        if (bands[i].wish == Wish::No)
            continue;
        ++out.wished;
        if (i < services.size()) {
            out.served += services[i].service == Service::Served;
            out.partly += services[i].service == Service::Partly;
        }
    }
    return out;
}

} // namespace vetchling

#include "core/advice/usual_chain.h"

#include "core/physics.h"
#include "core/shapes/end_fed_parts.h"
#include "core/workshop/feed_line.h"

#include <algorithm>
#include <cmath>

namespace vetchling::advice {
namespace {

double lossOf(const LineType& type, double length, double frequency)
{
    const double megahertz = frequency / 1e6;
    return 0.01 * length * (type.k1 * std::sqrt(megahertz) + type.k2 * megahertz);
}

double highestWanted(const Design& design, const Antenna& antenna)
{
    double highest = antenna.shape.designFrequency;
    for (const WantedBand& w : design.operation.bands)
        if (w.wish != Wish::No)
            highest = std::max(highest, w.band.to);
    return highest;
}

ChainPart tunerAt(part::TunerPlace place)
{
    ChainPart tuner = newPart(part::tuner);
    putTuner(tuner, place);
    return tuner;
}

} // namespace

const LineType* usualCoax(const std::vector<LineType>& types, double length, double frequency)
{
    constexpr double little = 1.0; // dB
    const LineType* best = nullptr;
    for (const LineType& t : types) {
        if (t.balanced || t.impedance != 50.0)
            continue;
        const double loss = lossOf(t, length, frequency);
        if (loss < little)
            return &t;
        if (!best || loss < lossOf(*best, length, frequency))
            best = &t;
    }
    return best;
}

std::optional<ChainPart> usualLine(const Design& design, const Antenna& antenna, Vec3 feedPoint, const std::vector<LineType>& types)
{
    constexpr double shortest = 0.5; // m
    double own = 0.0;
    const std::vector<ChainPart> whole = wholeChain(antenna);
    const std::size_t brought = whole.size() - chainParts(antenna).size();
    for (std::size_t i = 0; i < brought; ++i)
        if (whole[i].kind == part::line)
            own += partValue(whole[i], "length_m");
    const double left = feedLineOf(antenna, feedPoint, design.site).way - own;
    if (left < shortest && own > 0.0)
        return std::nullopt;
    ChainPart line = newPart(part::line);
    const double length = std::max(shortest, std::ceil(2.0 * left) / 2.0);
    if (const LineType* type = usualCoax(types, length, highestWanted(design, antenna)))
        takeType(line, *type);
    line.values["length_m"] = length;
    return line;
}

std::vector<ChainPart> usualChain(const Design& design, const Antenna& antenna, Vec3 feedPoint, const std::vector<LineType>& types,
                                  TunerWish tuner)
{
    constexpr double shieldInWaves = 0.05;
    std::vector<ChainPart> parts;
    if (tuner == TunerWish::AtFeed)
        parts.push_back(tunerAt(part::atAntenna));
    const std::optional<ChainPart> line = usualLine(design, antenna, feedPoint, types);
    ChainPart choke = newPart(part::choke);
    if (line && shapes::followsFeedLine(antenna.shape))
        choke.values["at_m"] = std::min(partValue(*line, "length_m"), shieldInWaves * wavelength(antenna.shape.designFrequency));
    parts.push_back(choke);
    if (line)
        parts.push_back(*line);
    if (tuner == TunerWish::InRadio)
        parts.push_back(tunerAt(part::inRadio));
    return parts;
}

} // namespace vetchling::advice

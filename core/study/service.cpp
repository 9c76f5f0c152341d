#include "core/study/service.h"

namespace vetchling::study {

ServiceTerms termsOf(const Operation& operation, const Antenna& antenna) { return {chainParts(antenna), servedRule(operation)}; }

BandService serviceOf(const Curve& curve, std::size_t band, const ServiceTerms& terms)
{
    if (!curve.bands[band].solved())
        return {};
    std::vector<ChainPart> parts = ownParts(curve.built->transformer);
    parts.insert(parts.end(), terms.chain.begin(), terms.chain.end());
    return vetchling::serviceOf(portOver([&](double f) { return curve.atPort(f); }, curve.question.bands[band]), parts, terms.rule);
}

std::vector<BandService> servicesOf(const std::vector<CurvePointer>& curves, const std::vector<BandChoice>& choices,
                                    const ServiceTerms& terms)
{
    std::vector<BandService> out;
    for (std::size_t band = 0; band < choices.size(); ++band)
        out.push_back(serviceOf(*curves[choices[band].configuration], band, terms));
    return out;
}

} // namespace vetchling::study

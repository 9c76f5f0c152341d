#pragma once
/// Which bands an antenna serves behind its chain in use, from curves that are solved.

#include "core/bands/served.h"
#include "core/study/configurations.h"

namespace vetchling::study {

/// What the judgement depends on beside the antenna's curve.
struct ServiceTerms {
    std::vector<ChainPart> chain; ///< what comes behind the shape's own parts, towards the radio
    ServedRule rule;
    friend bool operator==(const ServiceTerms&, const ServiceTerms&) = default;
};
ServiceTerms termsOf(const Operation& operation, const Antenna& antenna);

/// One band of a curve; not solved where the curve does not have it. @param band its place among the question's
BandService serviceOf(const Curve& curve, std::size_t band, const ServiceTerms& terms);

/// In the bands' order, each in its configuration of `choices`.
std::vector<BandService> servicesOf(const std::vector<CurvePointer>& curves, const std::vector<BandChoice>& choices,
                                    const ServiceTerms& terms);

} // namespace vetchling::study

#include "core/study/configurations.h"

namespace vetchling::study {

Result<std::vector<CurvePointer>> curvesOf(Library& library, const Question& question, const Watch& watch, Reach reach, Care care)
{
    const std::size_t count = shapes::familyOf(question.subject.shape).configurations(question.subject.shape).size();
    std::vector<CurvePointer> all;
    Question asked = question;
    for (std::size_t i = 0; i < count; ++i) {
        asked.subject.configuration = i;
        const Result<CurvePointer> curve = curveOf(library, asked, watch, reach, care);
        if (!curve)
            return curve.faults();
        all.push_back(*curve);
    }
    return unlessStopped(watch, std::move(all));
}

std::vector<BandChoice> bestByBand(const std::vector<CurvePointer>& curves)
{
    std::vector<BandChoice> best;
    for (std::size_t i = 0; i < curves.size(); ++i)
        for (std::size_t band = 0; band < curves[i]->bands.size(); ++band) {
            const Coverage& here = curves[i]->bands[band];
            if (band >= best.size())
                best.push_back({here, i});
            else if (here.solved() && (!best[band].coverage.solved() || here.lowestSwr < best[band].coverage.lowestSwr))
                best[band] = {here, i};
        }
    return best;
}

} // namespace vetchling::study

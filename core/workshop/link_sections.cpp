#include "core/workshop/link_sections.h"

namespace vetchling {

Result<LinkedHalf> linkedHalf(const std::vector<double>& paths, const LinkHardware& hardware)
{
    if (paths.empty())
        return Fault{"paths", coreText("core", "a linked half has a path for each band")};
    if (!(hardware.pigtail >= 0.0 && hardware.insulator >= 0.0))
        return Fault{"hardware", coreText("core", "pigtails and insulators are not below 0")};
    LinkedHalf half;
    double before = 0.0;
    for (std::size_t k = 0; k < paths.size(); ++k) {
        LinkSection s;
        s.fromFeed = before;
        s.path = paths[k] - before;
        s.linkEnds = (k > 0 ? 1 : 0) + (k + 1 < paths.size() ? 1 : 0);
        s.straight = s.path - s.linkEnds * hardware.pigtail;
        if (!(s.straight > 0.0))
            return Fault{"paths", coreText("core", "a section is not longer than its pigtails: paths rise from the feed outwards")};
        half.span += s.straight + (k > 0 ? hardware.insulator : 0.0);
        half.sections.push_back(s);
        before = paths[k];
    }
    return half;
}

} // namespace vetchling

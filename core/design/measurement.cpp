#include "core/design/measurement.h"

#include <cmath>

namespace vetchling {

Faults findMeasurementFaults(const Measurement& m)
{
    Faults faults;
    if (!(m.dip >= 1e5 && m.dip <= 3e9))
        faults.push_back({"dip", coreText("core", "give the frequency of the dip, such as 7.030")});
    if (m.dipSwr != 0.0 && !(m.dipSwr >= 1.0 && m.dipSwr < 1000.0))
        faults.push_back({"dipSwr", coreText("core", "an SWR is 1 or more")});
    if (!(std::abs(m.cutSinceLast) < 100.0))
        faults.push_back({"cutSinceLast", coreText("core", "give the length cut from each end, such as 5 cm")});
    if (m.height && !(*m.height > 0.0 && *m.height < 1000.0))
        faults.push_back({"height", coreText("core", "give the height of the highest wire, above 0")});
    return faults;
}

} // namespace vetchling

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
    if (!(m.coax >= 0.0 && m.coax < 1e4))
        faults.push_back({"coax", coreText("core", "give the length of the coax between instrument and feedpoint, or 0")});
    for (const auto& [frequency, swr] : m.sweep)
        if (!(frequency > 0.0 && frequency <= 1e11 && swr >= 0.0 && std::isfinite(swr))) {
            faults.push_back({"sweep", coreText("core", "a point of the sweep is no frequency with an SWR")});
            break;
        }
    for (const Complex& z : m.impedance)
        if (!std::isfinite(z.real()) || !std::isfinite(z.imag())) {
            faults.push_back({"impedance", coreText("core", "an impedance of the sweep is no number")});
            break;
        }
    return faults;
}

Faults findReportFaults(const AirReport& r)
{
    Faults faults;
    if (!(r.frequency >= 1e5 && r.frequency <= 3e9))
        faults.push_back({"frequency", coreText("core", "give the frequency, such as 7.090")});
    if (!(r.distance >= 0.0 && r.distance <= 2.01e7))
        faults.push_back({"distance", coreText("core", "give the distance; no place is farther than half round the Earth")});
    if (r.bearing && !(*r.bearing >= 0.0 && *r.bearing <= 360.0))
        faults.push_back({"bearing", coreText("core", "a bearing runs from 0 (north) to 360 degrees")});
    if (!(r.power >= 0.0 && r.power < 1e6))
        faults.push_back({"power", coreText("core", "give the power at the radio in watts")});
    if (r.solarFlux && !(*r.solarFlux >= 50.0 && *r.solarFlux <= 500.0))
        faults.push_back({"solarFlux", coreText("core", "the solar flux of a day lies between 60 and 400 units")});
    if (r.kIndex && !(*r.kIndex >= 0.0 && *r.kIndex <= 9.0))
        faults.push_back({"kIndex", coreText("core", "the geomagnetic K index runs from 0 to 9")});
    return faults;
}

} // namespace vetchling

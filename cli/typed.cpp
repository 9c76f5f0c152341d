#include "cli/typed.h"

namespace vetchling::cli {

double number(const std::string& text, const char* option, units::Quantity quantity, Faults& faults)
{
    if (text.empty())
        return 0.0;
    const Result<double> value = units::parse(text, quantity, {0.0, units::System::Metric, true});
    if (value)
        return *value;
    faults.push_back({option, value.faults().front().message});
    return 0.0;
}

Faults findAimFaults(double elevation, double bearing)
{
    Faults faults;
    if (elevation < 0.0 || elevation > 90.0)
        faults.push_back({"--elevation", "an angle above the horizon lies above 0 and up to 90 degrees"});
    if (bearing > 360.0)
        faults.push_back({"--bearing", "a bearing lies between 0 and 360 degrees"});
    return faults;
}

} // namespace vetchling::cli

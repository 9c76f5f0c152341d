#include "cli/typed.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <optional>

namespace vetchling::cli {
namespace {

/// "7.05" is 7.05 Hz, which nobody means; nothing where it may be meant.
std::optional<std::string> slipOf(const std::string& text, double value, units::Quantity quantity)
{
    constexpr double least = 1e4; // Hz
    const bool bare = std::none_of(text.begin(), text.end(), [](unsigned char c) { return std::isalpha(c) && c != 'e' && c != 'E'; });
    if (quantity != units::Quantity::Frequency || !bare || !(value > 0.0 && value < least))
        return std::nullopt;
    return fmt::format("{} without a unit is {} Hz; did you mean '{} {}'?", text, text, text, value < 1e3 ? "MHz" : "kHz");
}

} // namespace

double number(const std::string& text, const char* option, units::Quantity quantity, Faults& faults)
{
    if (text.empty())
        return 0.0;
    const Result<double> value = units::parse(text, quantity, {0.0, units::System::Metric, true});
    if (!value)
        faults.push_back({option, value.faults().front().message});
    else if (const auto slip = slipOf(text, *value, quantity))
        faults.push_back({option, *slip});
    else
        return *value;
    return 0.0;
}

CLI::Option* quantityOption(CLI::App* command, const std::string& name, double& target, units::Quantity quantity, const std::string& help)
{
    return command->add_option_function<std::string>(
        name,
        [name, quantity, &target](const std::string& text) {
            Faults faults;
            const double value = number(text, name.c_str(), quantity, faults);
            if (!faults.empty())
                throw CLI::ValidationError(name, faults.front().message.english());
            target = value;
        },
        help);
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

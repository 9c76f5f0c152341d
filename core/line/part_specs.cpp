#include "core/line/part_kinds.h"

namespace vetchling {

using units::Quantity;

void addLossSpecs(std::vector<PartSpec>& specs, double standard)
{
    specs.push_back({"loss_dB", coreText("core", "Loss"), Quantity::Decibel, standard, 0.0, 60.0, {}, {}});
    specs.push_back({"loss_from_dB",
                     coreText("core", "at least"),
                     Quantity::Decibel,
                     0.0,
                     0.0,
                     60.0,
                     {},
                     coreText("core", "where it is only a guess: the least it may be. 0 with no most: not a range")});
    specs.push_back({"loss_to_dB",
                     coreText("core", "at most"),
                     Quantity::Decibel,
                     0.0,
                     0.0,
                     60.0,
                     {},
                     coreText("core", "the most it may be; the verdict is tried at both ends")});
}

PartSpec qSpec(std::string key, std::string label, double standard)
{
    return {std::move(key), std::move(label), Quantity::Plain, standard, 5.0, 1e5, {}, coreText("core", "reactance over loss resistance")};
}

PartSpec ohmSpec(std::string key, std::string label, double standard, double lowest, double highest, std::string help)
{
    return {std::move(key), std::move(label), Quantity::Resistance, standard, lowest, highest, {}, std::move(help)};
}

PartSpec metreSpec(std::string key, std::string label, double standard, std::string help)
{
    return {std::move(key), std::move(label), Quantity::Length, standard, 0.0, 10000.0, {}, std::move(help)};
}

PartSpec velocitySpec(std::string key, std::string label, double standard)
{
    return {std::move(key),
            std::move(label),
            Quantity::Plain,
            standard,
            0.1,
            1.0,
            {},
            coreText("core", "speed on the line over that of light")};
}

PartSpec conductorLossSpec()
{
    return {"k1_dB_per_100m", coreText("core", "Conductor loss, dB/100 m"), units::Quantity::Plain, 0.6, 0.0, 1000.0, {},
            coreText("core", "at 1 MHz; grows with the root of the frequency")};
}

PartSpec insulationLossSpec()
{
    return {"k2_dB_per_100m", coreText("core", "Insulation loss, dB/100 m"), units::Quantity::Plain, 0.003, 0.0, 100.0, {},
            coreText("core", "at 1 MHz; grows with the frequency")};
}

} // namespace vetchling

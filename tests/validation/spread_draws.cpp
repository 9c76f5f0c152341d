#include "tests/validation/spread_draws.h"

#include <algorithm>
#include <numeric>
#include <random>

namespace vetchling::testing {

using study::Unsure;

const std::vector<Soil>& fiveSoils()
{
    static const std::vector<Soil> soils{{"", "sea", "", 70.0, 5.0},
                                         {"", "wet", "", 30.0, 0.02},
                                         {"", "middling", "", 13.0, 0.005},
                                         {"", "dry", "", 7.0, 0.0005},
                                         {"", "very dry", "", 4.0, 0.0002}};
    return soils;
}

study::SpreadQuestion vOverSoil(const Soil& soil)
{
    Design design;
    design.site.soil = soil;
    design.operation.bands = {{{"40 m", 7e6, 7.2e6}, Wish::Must, "forty", {}, {}}};
    Antenna antenna = newAntenna(*shapes::findFamily("dipole"), 7.1e6);
    antenna.shape.parameters["apex_height_m"] = 9.0;
    antenna.shape.parameters["end_height_m"] = 5.0;
    antenna.shape.parameters["leg_m"] = 10.0;
    antenna.shape.wire.jacket = 5e-4;
    study::SpreadQuestion asked = study::spreadQuestionOf(design, antenna, "forty");
    asked.tolerances.height = 0.3;
    asked.tolerances.cut = 0.04;
    asked.tolerances.unequal = 0.1;
    return asked;
}

DrawnAntenna solvedOff(study::Library& library, const study::SpreadQuestion& asked, const study::Parts& parts)
{
    const auto built = study::antennaOff(asked, 0, parts);
    const auto curve = built ? library.study(built->model)->curve({6.4e6, 7.8e6}) : Result<study::CurvePart>(built.faults());
    if (!curve)
        return {};
    const ImpedanceAt at = [&](double f) { return built->atLine((*curve)->at(f), f); };
    return {nearestDip(at, 7.1e6, 6.5e6, 7.7e6).value_or(0.0), coverage(at, asked.question.bands.front(), 2.0, 0.0).lowestSwr};
}

std::vector<DrawnAntenna> evenDraws(study::Library& library, const study::SpreadQuestion& asked, std::size_t count, unsigned seed)
{
    constexpr std::size_t fine = 20001;
    std::mt19937 random(seed);
    std::normal_distribution<double> bell(0.0, 0.5); // a tolerance is two standard deviations
    std::vector<double> normal(fine);
    for (double& z : normal)
        z = bell(random);
    std::sort(normal.begin(), normal.end());
    std::vector<study::Parts> draws(count);
    for (Unsure what : {Unsure::Height, Unsure::Soil, Unsure::Cut, Unsure::Jacket, Unsure::Unequal}) {
        std::vector<std::size_t> order(count);
        std::iota(order.begin(), order.end(), std::size_t(0));
        std::shuffle(order.begin(), order.end(), random);
        for (std::size_t i = 0; i < count; ++i)
            draws[i][what] = normal[std::size_t((double(order[i]) + 0.5) / double(count) * double(fine - 1))];
    }
    std::vector<DrawnAntenna> out;
    for (const study::Parts& parts : draws)
        out.push_back(solvedOff(library, asked, parts));
    return out;
}

double pointOf(std::vector<double> values, double part)
{
    std::sort(values.begin(), values.end());
    const double place = part * double(values.size()) - 0.5;
    const std::size_t low = std::size_t(std::clamp(place, 0.0, double(values.size() - 2)));
    return values[low] + (place - double(low)) * (values[low + 1] - values[low]);
}

} // namespace vetchling::testing

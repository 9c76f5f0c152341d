#include "tests/validation/terrain_page.h"

#include "core/em/terrain.h"
#include "core/files/terrain_file.h"
#include "core/physics.h"
#include "tests/validation/direct_terrain.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <random>
#include <utility>

namespace vetchling::testing {
namespace {

/// One of tests/data/terrain: largest difference, root mean square and uncertainty, dB.
std::array<double, 3> terrainDifference(const std::string& name)
{
    constexpr double range = 15.0; // dB below the maximum
    const std::string path = fmt::format("{}/terrain/{}.json", VETCHLING_TEST_DATA, name);
    const auto one = files::readTerrainCase(path);
    std::ifstream file(path);
    const nlohmann::json expected = nlohmann::json::parse(file);
    const std::vector<double> level = expected["free_space_dB"], truth = expected["F_dB"], unsure = expected["total_uncertainty_dB"];
    const auto field = em::TerrainField::solve(one->profile, one->frequency, {one->height});
    std::array<double, 3> out{};
    int count = 0;
    for (std::size_t i = 0; i < truth.size(); ++i) {
        if (level[i] < *std::max_element(level.begin(), level.end()) - range)
            continue;
        const double e = radians(one->elevations[i]);
        const em::TerrainResponse there = field->responses(em::Side::Along, e).front(),
                                  flat = em::flatResponse(one->profile.soilAt(0.0), one->frequency, one->height, e);
        const Complex ratio = one->vertical ? there.vertical / flat.vertical : there.across / flat.across;
        const double off = 20.0 * std::log10(std::abs(ratio)) - truth[i];
        out = {std::max(out[0], std::abs(off)), out[1] + off * off, std::max(out[2], unsure[i])};
        ++count;
    }
    out[1] = std::sqrt(out[1] / count);
    return out;
}

/// Hills between one and ten wavelengths away, each length and soil drawn.
class MadeUpHills {
public:
    explicit MadeUpHills(unsigned seed)
        : m_frequency(std::array{3.6e6, 7.1e6, 14.1e6, 28.5e6}[seed % 4]),
          m_height(std::array{0.1, 0.4, 0.9}[seed % 3] * wavelength(m_frequency))
    {
        std::mt19937 random(seed);
        const auto draw = [&](double least, double most) {
            return least + (most - least) * double(random()) / double(std::mt19937::max());
        };
        const double wave = wavelength(m_frequency), steep = std::array{0.15, 0.3, 0.55}[seed % 3];
        std::vector<ProfilePoint> before;
        m_profile.corners.push_back({0.0, 0.0});
        for (const double way : {1.0, -1.0}) {
            ProfilePoint at{0.0, 0.0};
            for (int i = 0; i < 4; ++i) {
                const double step = wave * draw(0.5 + 2.0 * i, 2.5 + 2.0 * i);
                at = {at.x + way * step, at.z + draw(-steep, steep) * step};
                (way > 0.0 ? m_profile.corners : before).push_back(at);
            }
        }
        m_profile.corners.insert(m_profile.corners.begin(), before.rbegin(), before.rend());
        for (std::size_t i = 0; i <= m_profile.corners.size(); ++i) {
            const double kind = draw(0.0, 1.0);
            m_profile.soils.push_back(kind < 0.3   ? Ground{GroundKind::Real, 4.0, 0.001}
                                      : kind > 0.8 ? Ground{GroundKind::Real, 81.0, 5.0}
                                                   : Ground{GroundKind::Real, 13.0, 0.005});
        }
    }
    [[nodiscard]] double frequency() const { return m_frequency; }
    [[nodiscard]] double steepest() const
    {
        double most = 0.0;
        for (std::size_t i = 1; i < m_profile.corners.size(); ++i) {
            const ProfilePoint a = m_profile.corners[i - 1], b = m_profile.corners[i];
            most = std::max(most, std::abs(degrees(std::atan2(b.z - a.z, b.x - a.x))));
        }
        return most;
    }
    /// Largest and root mean square, dB.
    [[nodiscard]] std::array<double, 2> difference() const
    {
        constexpr double range = 15.0; // dB below the maximum
        std::vector<double> elevations;
        for (double deg : {2.0, 5.0, 10.0, 20.0, 35.0, 50.0, 65.0, 80.0})
            elevations.push_back(radians(deg));
        const auto direct = direct::terrainWaves(m_profile, m_frequency, m_height, elevations);
        const auto field = em::TerrainField::solve(m_profile, m_frequency, {m_height});
        const auto decibels = [](Complex a) { return 20.0 * std::log10(std::abs(a)); };
        double largest = 0.0, sum = 0.0;
        int count = 0;
        for (const auto& [own, other] : {std::pair(&em::TerrainResponse::across, &direct::TerrainWaves::across),
                                         std::pair(&em::TerrainResponse::vertical, &direct::TerrainWaves::vertical)}) {
            double highest = -HUGE_VAL;
            for (const auto& d : direct)
                highest = std::max(highest, decibels(d.*other));
            for (std::size_t i = 0; i < direct.size(); ++i) {
                if (decibels(direct[i].*other) < highest - range)
                    continue;
                const double off = decibels(field->responses(em::Side::Along, elevations[i]).front().*own) - decibels(direct[i].*other);
                largest = std::max(largest, std::abs(off));
                sum += off * off;
                ++count;
            }
        }
        return {largest, std::sqrt(sum / count)};
    }

private:
    double m_frequency, m_height;
    TerrainProfile m_profile;
};

} // namespace

void terrain(Page& page)
{
    page.heading("Uneven ground");
    page.say("Response of a current over a profile against that over flat ground of the soil at its foot: against independent boundary "
             "integral solutions, wherever these lie within 15 dB of their maximum. dB; the uncertainty is that of the reference, mostly "
             "for soils taken by their surface impedance.\n");
    page.say("| case | largest difference | root mean square | uncertainty |\n|---|---|---|---|");
    for (const char* name : {"cliff20_sea40_h10_14", "fall15_dry_v2_3", "fall5_h10_14", "flat_h10_14", "hilltop_h10_21",
                             "mixed_sea100_v2_14", "ridge30_500m_v2_7"}) {
        const auto [largest, mean, unsure] = terrainDifference(name);
        page.say(fmt::format("| `{}` | {:.3f} | {:.3f} | {:.2f} |", name, largest, mean, unsure));
    }
    page.say(
        "\nMade-up hills with soils of three kinds, against a direct solution by other code: a plane wave from each angle, panels of 0.6 "
        "wavelengths alike everywhere, every one with every other. Eight angles from 2 to 80 degrees, both polarisations, down to 15 dB "
        "under the "
        "maximum.\n");
    page.say("| steepest slopes, degrees | MHz | largest difference | root mean square |\n|---|---|---|---|");
    for (unsigned seed = 1; seed <= 9; ++seed) {
        const MadeUpHills hills(seed);
        const auto [largest, mean] = hills.difference();
        page.say(fmt::format("| {:.0f} | {:.1f} | {:.3f} | {:.3f} |", hills.steepest(), hills.frequency() / 1e6, largest, mean));
    }
}

} // namespace vetchling::testing

#include "core/em/ground_table.h"

#include "tests/core/helpers.h"

#include <atomic>
#include <chrono>
#include <fstream>
#include <future>
#include <random>
#include <sstream>

#include <thread>

namespace vetchling::em {
namespace {

using testing::averageSoil;

struct FieldRow {
    Ground ground;
    double frequency;
    bool vertical;
    double sourceHeight;
    Vec3 observer;
    Complex reflected[3];
    Complex total[3];
};

std::vector<FieldRow> readFields()
{
    std::ifstream file(VETCHLING_TEST_DATA "/halfspace_fields.csv");
    std::vector<FieldRow> rows;
    std::string line;
    while (std::getline(file, line)) {
        if (line.empty() || line[0] == '#' || line.rfind("ground,", 0) == 0)
            continue;
        std::stringstream cells(line);
        std::string cell;
        std::vector<std::string> all;
        while (std::getline(cells, cell, ','))
            all.push_back(cell);
        const auto number = [&](int i) { return std::stod(all[std::size_t(i)]); };
        FieldRow row;
        row.ground = {GroundKind::Real, number(1), number(2)};
        row.frequency = number(3);
        row.vertical = all[4] == "vertical";
        row.sourceHeight = number(5);
        row.observer = {number(6), number(7), number(8)};
        for (int c = 0; c < 3; ++c) {
            row.total[c] = {number(9 + 2 * c), number(10 + 2 * c)};
            row.reflected[c] = {number(15 + 2 * c), number(16 + 2 * c)};
        }
        rows.push_back(row);
    }
    return rows;
}

/// Field of a unit dipole in air, exactly: E = eta/(4 pi) exp(-jkR) ... (Balanis, Antenna Theory, eq. 4-8 to 4-10).
void dipoleField(Vec3 from, Vec3 moment, Vec3 to, double k, Complex out[3])
{
    const Vec3 d = to - from;
    const double R = norm(d);
    const Vec3 u = (1.0 / R) * d;
    const double along = dot(u, moment);
    const Complex jkr{0.0, k * R}, phase = std::exp(-jkr);
    const Complex front = waveImpedance / (4.0 * pi) * phase / R;
    const Complex transverse = front * (-Complex{0.0, k} - 1.0 / R - 1.0 / (Complex{0.0, k} * R * R)),
                  radial = front * (2.0 / R + 2.0 / (Complex{0.0, k} * R * R));
    const Vec3 across = moment - along * u;
    out[0] = transverse * across.x + radial * along * u.x;
    out[1] = transverse * across.y + radial * along * u.y;
    out[2] = transverse * across.z + radial * along * u.z;
}

/// Reflected field from the pieces the solver uses: Kq times the mirror dipole, and the remainder of the table.
void reflectedField(const FieldRow& row, const GroundTable& table, Complex out[3])
{
    const double k = waveNumber(row.frequency);
    const Vec3 moment = row.vertical ? Vec3{0, 0, 1} : Vec3{-1, 0, 0};
    dipoleField({0, 0, -row.sourceHeight}, moment, row.observer, k, out);
    for (int c = 0; c < 3; ++c)
        out[c] *= table.image();
    const double rho = std::hypot(row.observer.x, row.observer.y);
    const HalfSpaceIntegrals g = table.at(rho, row.observer.z + row.sourceHeight);
    const double cosine = row.observer.x / rho, sine = row.observer.y / rho;
    if (row.vertical) {
        out[0] += g.x * cosine;
        out[1] += g.x * sine;
        out[2] += g.z;
    } else {
        out[0] += g.s - (cosine * cosine - sine * sine) * g.d;
        out[1] += -2.0 * cosine * sine * g.d;
        out[2] += -g.x * cosine;
    }
}

double length(const Complex v[3]) { return std::sqrt(std::norm(v[0]) + std::norm(v[1]) + std::norm(v[2])); }

// 240 reflected fields by two independent contours, agreeing among themselves to 3e-13 (head of the file).
TEST(GroundTable, ReflectedFieldsMatchIndependentFigures)
{
    const std::vector<FieldRow> rows = readFields();
    ASSERT_EQ(rows.size(), 240u);
    GroundTableCache cache;
    double worst = 0.0, worstOfTotal = 0.0;
    for (const FieldRow& row : rows) {
        const auto table = cache.table(row.ground, row.frequency);
        const double distance = norm({row.observer.x, row.observer.y, row.observer.z + row.sourceHeight});
        ASSERT_TRUE(table->cover(0.9 * distance, 1.1 * distance));
        Complex field[3];
        reflectedField(row, *table, field);
        const Complex off[3] = {field[0] - row.reflected[0], field[1] - row.reflected[1], field[2] - row.reflected[2]};
        worst = std::max(worst, length(off) / length(row.reflected));
        worstOfTotal = std::max(worstOfTotal, length(off) / std::max(length(row.total), 0.03 * length(row.reflected)));
    }
    EXPECT_LT(worst, 1.5e-3);        // far out at grazing, where the parts cancel
    EXPECT_LT(worstOfTotal, 1.5e-2); // the total is as small as 3 % of its parts there
}

// Random places between the nodes against the integrals themselves, for five kinds of ground.
TEST(GroundTable, InterpolationIsAccurateBetweenNodes)
{
    std::mt19937 random(7);
    std::uniform_real_distribution<double> unit(0.0, 1.0);
    const std::pair<Ground, double> cases[] = {{averageSoil, 7.1e6},
                                               {{GroundKind::Real, 5.0, 0.001}, 14e6},
                                               {{GroundKind::Real, 81.0, 5.0}, 3.6e6},
                                               {{GroundKind::Real, 30.0, 0.02}, 28e6},
                                               {{GroundKind::Real, 3.0, 0.0001}, 21e6}};
    for (const auto& [ground, frequency] : cases) {
        GroundTable table(ground, frequency);
        const double lambda = wavelength(frequency), k = waveNumber(frequency);
        ASSERT_TRUE(table.cover(1e-4 * lambda, 4.0 * lambda));
        const Complex eps = ground.complexPermittivity(frequency);
        const Complex factor = Complex{0.0, -1.0} * waveImpedance * k * k / (8.0 * pi);
        for (int n = 0; n < 60; ++n) {
            const double R = 1e-4 * lambda * std::pow(4e4 * 0.99, unit(random)), elevation = 0.5 * pi * unit(random) * unit(random);
            const double rho = R * std::cos(elevation), h = R * std::sin(elevation);
            const auto exact = factor * remainderIntegrals(eps, k * rho, k * h), looked = table.at(rho, h);
            // Scale: the mirror dipole's own field at that distance, which the remainder is added to.
            const double q = k * R,
                         mirror = std::abs(factor) * 2.0 * std::abs(table.image()) * (1.0 / q + 1.0 / (q * q) + 1.0 / (q * q * q));
            for (Complex off : {looked.s - exact.s, looked.d - exact.d, looked.x - exact.x, looked.z - exact.z})
                EXPECT_LT(std::abs(off) / mirror, 2.5e-3)
                    << ground.relativePermittivity << " R " << R / lambda << " elevation " << elevation;
        }
    }
}

TEST(GroundTable, IsContinuousAcrossRows)
{
    GroundTable table(averageSoil, 7.1e6);
    ASSERT_TRUE(table.cover(0.01, 80.0));
    Complex before = table.at(0.02, 0.02).s;
    for (double R = 0.02; R < 50.0; R *= 1.003) {
        const Complex here = table.at(R, R).s;
        EXPECT_LT(std::abs(here - before), 0.04 * std::abs(before)) << R;
        before = here;
    }
}

TEST(GroundTable, ComputesOnlyRowsThatAreAskedFor)
{
    GroundTable table(averageSoil, 7.1e6);
    EXPECT_EQ(table.rowCount(), 0);
    ASSERT_TRUE(table.cover(10.0, 30.0));
    const int first = table.rowCount();
    EXPECT_GT(first, 3);
    ASSERT_TRUE(table.cover(12.0, 25.0));
    EXPECT_EQ(table.rowCount(), first);
    ASSERT_TRUE(table.cover(0.02, 30.0));
    EXPECT_GT(table.rowCount(), first);
}

TEST(GroundTable, RefusesDistancesBeyondItsEnd)
{
    GroundTable table(averageSoil, 30e6);
    EXPECT_FALSE(table.cover(1.0, 1e5));
}

// Told yes at its first question, it computes no row more.
TEST(GroundTable, StopsWhenAsked)
{
    GroundTable table(averageSoil, 7.1e6);
    const Watch watch([] { return true; });
    EXPECT_FALSE(table.cover(0.1, 50.0, watch));
    EXPECT_EQ(table.rowCount(), 0);
}

// 2026-11: a table that was read from a slow disk held up every other one.
TEST(GroundTableCache, OneThatIsBroughtBackSlowlyHoldsUpNoOther)
{
    GroundTableCache cache;
    std::promise<void> begun, mayEnd;
    std::shared_future<void> end = mayEnd.get_future().share();
    std::atomic<int> asked{0};
    cache.setSource([&](GroundTable& table) {
        ++asked;
        if (table.frequency() == 1e7) {
            begun.set_value();
            end.wait();
        }
    });
    auto slow = std::async(std::launch::async, [&] { return cache.table(averageSoil, 1e7); });
    begun.get_future().wait();
    auto quick = std::async(std::launch::async, [&] { return cache.table(averageSoil, 2e7); });
    const bool came = quick.wait_for(std::chrono::seconds(20)) == std::future_status::ready;
    EXPECT_TRUE(came);
    mayEnd.set_value();
    EXPECT_TRUE(slow.get());
    EXPECT_EQ(cache.table(averageSoil, 1e7), cache.table(averageSoil, 1e7));
    EXPECT_EQ(asked, 2) << "each once";
}

TEST(GroundTableCache, KeepsTheMostRecentAndSharesThem)
{
    GroundTableCache cache(2);
    const auto a = cache.table(averageSoil, 1e7), b = cache.table(averageSoil, 2e7);
    EXPECT_EQ(cache.table(averageSoil, 1e7), a);
    cache.table(averageSoil, 3e7); // pushes out 2e7, the least recently used
    EXPECT_EQ(cache.size(), 2u);
    EXPECT_EQ(cache.table(averageSoil, 1e7), a);
    EXPECT_NE(cache.table(averageSoil, 2e7), b);
    EXPECT_NE(cache.table(averageSoil, 1e7, TableContent::EvanescentLoss), a);
    cache.clear();
    EXPECT_EQ(cache.size(), 0u);
}

// Rows a hundred wavelengths out are where they say they are.
TEST(GroundTable, FarRowsAgreeWithTheIntegralsThemselves)
{
    const double f = 14.1e6, k = waveNumber(f);
    for (const Ground& ground : {averageSoil, Ground{GroundKind::Real, 4.0, 1e-4}, Ground{GroundKind::Real, 81.0, 5.0}}) {
        GroundTable table(ground, f);
        const double rho = 100.0 * wavelength(f), height = 6.0;
        ASSERT_TRUE(table.cover(rho - 1.0, rho + 20.0, {}, height));
        for (double off : {0.0, 3.3, 17.0}) {
            const HalfSpaceIntegrals stored = table.at(rho + off, height);
            const HalfSpaceIntegrals exact = Complex{0.0, -waveImpedance * k * k / (8.0 * pi)} *
                                             remainderIntegrals(ground.complexPermittivity(f), k * (rho + off), k * height);
            const double scale = std::abs(exact.s) + std::abs(exact.z) + std::abs(exact.x) + std::abs(exact.d);
            EXPECT_LT(std::abs(stored.s - exact.s) + std::abs(stored.z - exact.z) + std::abs(stored.x - exact.x), 3e-3 * scale);
        }
    }
}

// Flat and steep paths asked for one after the other, and between them: all of one piece, as if the whole had been computed.
TEST(GroundTable, GrowsTowardsWhateverPathsAreAskedFor)
{
    GroundTable whole(averageSoil, 14e6), grown(averageSoil, 14e6);
    ASSERT_TRUE(whole.cover(0.5, 60.0));
    for (const auto& [lowest, highest] : {std::pair(18.0, 22.0), std::pair(0.5, 1.0), std::pair(8.0, 9.0)})
        ASSERT_TRUE(grown.cover(lowest, 60.0, {}, highest, lowest));
    for (double height : {0.6, 8.5, 20.0})
        for (double rho : {0.5, 6.0, 50.0}) {
            const HalfSpaceIntegrals a = whole.at(rho, height), b = grown.at(rho, height);
            EXPECT_EQ(a.s, b.s) << rho << ' ' << height;
            EXPECT_EQ(a.z, b.z) << rho << ' ' << height;
        }
}

// Threads that ask for different paths of one table at once leave no hole between them.
TEST(GroundTable, IsFilledWithoutHolesByManyThreads)
{
    GroundTable whole(averageSoil, 14e6), shared(averageSoil, 14e6);
    ASSERT_TRUE(whole.cover(1.0, 60.0));
    std::vector<std::thread> threads;
    for (const auto& [lowest, highest] : {std::pair(18.0, 22.0), std::pair(0.5, 1.0), std::pair(30.0, 40.0), std::pair(5.0, 6.0)})
        threads.emplace_back([&shared, low = lowest, high = highest] { EXPECT_TRUE(shared.cover(low, 60.0, {}, high, low)); });
    for (std::thread& t : threads)
        t.join();
    ASSERT_TRUE(shared.cover(1.0, 60.0, {}, 40.0, 0.5));
    for (double height : {0.7, 3.0, 12.0, 35.0})
        EXPECT_EQ(whole.at(9.0, height).s, shared.at(9.0, height).s) << height;
}

} // namespace
} // namespace vetchling::em

#include "core/files/terrain_store.h"

#include "tests/temp_folder.h"

#include <gtest/gtest.h>

#include <array>
#include <atomic>
#include <filesystem>
#include <fstream>
#include <thread>

namespace vetchling::files {
namespace {

namespace fs = std::filesystem;

const Ground field{GroundKind::Real, 13.0, 0.005}, water{GroundKind::Real, 81.0, 5.0};

/// Keeps as the store does, and counts what is asked of it.
class CountingKeeper : public em::TerrainKeeper {
public:
    explicit CountingKeeper(const std::string& folder) : m_store(folder) {}
    bool restore(const em::TerrainLine& line, em::TerrainSurface& surface) override
    {
        const bool found = m_store.restore(line, surface);
        ++(found ? restored : missed);
        return found;
    }
    void keep(const em::TerrainLine& line, const em::TerrainSurface& surface) override
    {
        ++kept;
        m_store.keep(line, surface);
    }
    std::atomic<int> restored = 0, missed = 0, kept = 0;

private:
    TerrainStore m_store;
};

class TerrainStoreTest : public ::testing::Test {
protected:
    ~TerrainStoreTest() override { em::TerrainHeights::keepWith(nullptr); }

    static em::TerrainLine bank(double height)
    {
        return {
            {{{-200.0, -height}, {-150.0, 0.0}, {40.0, 0.0}, {70.0, -height}}, {water, field, field, field, water}}, 14.1e6, {3.0, 9.0}};
    }
    static em::TerrainSurface solved(const em::TerrainLine& line)
    {
        return em::TerrainField::solve(line.profile, line.frequency, line.heights)->surface();
    }
    static em::TerrainSurface empty(const em::TerrainLine& line) { return em::surfaceOf(line.profile, line.frequency, line.heights); }
    std::vector<fs::path> files() const
    {
        std::vector<fs::path> all;
        for (const auto& entry : fs::directory_iterator(temporary.path()))
            all.push_back(entry.path());
        return all;
    }
    TempFolder temporary;
    std::string folder = temporary.path().string();
};

TEST_F(TerrainStoreTest, BringsBackExactlyWhatWasSolved)
{
    const em::TerrainLine line = bank(20.0);
    const em::TerrainSurface was = solved(line);
    TerrainStore(folder).keep(line, was);
    em::TerrainSurface surface = empty(line);
    ASSERT_TRUE(TerrainStore(folder).restore(line, surface));
    for (double e : {0.05, 0.4, 1.3}) {
        const auto before = em::TerrainField(was).responses(em::Side::Along, e),
                   after = em::TerrainField(surface).responses(em::Side::Along, e);
        for (std::size_t h = 0; h < before.size(); ++h) {
            EXPECT_EQ(before[h].across, after[h].across);
            EXPECT_EQ(before[h].along, after[h].along);
            EXPECT_EQ(before[h].vertical, after[h].vertical);
        }
    }
}

TEST_F(TerrainStoreTest, KnowsEveryLineFromAnother)
{
    const em::TerrainLine line = bank(20.0);
    TerrainStore store(folder);
    store.keep(line, solved(line));
    std::vector<em::TerrainLine> others(6, line);
    others[0].frequency += 1.0;
    others[1].heights[1] += 0.01;
    others[2].profile.corners[3].z += 0.01;
    others[3].profile.soils[4].conductivity = 4.9;
    others[4].heights.push_back(12.0);
    others[5].profile.soils[0].pairFrequency = 1e6;
    for (const em::TerrainLine& other : others) {
        em::TerrainSurface surface = empty(other);
        EXPECT_FALSE(store.restore(other, surface)) << &other - others.data();
        EXPECT_TRUE(surface.grazing.across.empty());
    }
}

TEST_F(TerrainStoreTest, PassesOverWhatIsDamaged)
{
    const em::TerrainLine line = bank(20.0);
    TerrainStore store(folder);
    const em::TerrainSurface was = solved(line);
    const auto isThere = [&] {
        em::TerrainSurface surface = empty(line);
        return store.restore(line, surface);
    };
    store.keep(line, was);
    ASSERT_EQ(files().size(), 1u);
    const fs::path path = files().front();
    const auto size = fs::file_size(path);
    fs::resize_file(path, size / 2);
    EXPECT_FALSE(isThere());
    store.keep(line, was);
    EXPECT_TRUE(isThere());
    std::fstream(path, std::ios::in | std::ios::out | std::ios::binary).seekp(long(size / 2)).put('x');
    EXPECT_FALSE(isThere());
    std::ofstream(path, std::ios::trunc).close();
    EXPECT_FALSE(isThere());
}

TEST_F(TerrainStoreTest, LosesWhatWasNotUsedForLongest)
{
    const em::TerrainSurface was = solved(bank(20.0));
    TerrainStore(folder).keep(bank(20.0), was);
    const auto size = fs::file_size(files().front());
    const fs::path oldest = files().front();
    fs::last_write_time(oldest, fs::file_time_type::clock::now() - std::chrono::hours(5));
    TerrainStore small(folder, size * 5 / 2);
    for (double height : {21.0, 22.0, 23.0, 24.0, 25.0})
        small.keep(bank(height), solved(bank(height)));
    EXPECT_FALSE(fs::exists(oldest));
    EXPECT_LE(files().size(), 4u);                            // looked through each time that so much was written
    TerrainStore("/proc/none/such", 1).keep(bank(20.0), was); // nowhere: nothing, and no fault
}

TEST_F(TerrainStoreTest, ServesTheNextRun)
{
    const em::TerrainLine line = bank(17.31); // no other test's
    const auto keeper = std::make_shared<CountingKeeper>(folder);
    em::TerrainHeights::keepWith(keeper);
    const auto here = em::TerrainHeights::over(line.profile, 14.1e6, 9.0);
    ASSERT_TRUE(here);
    EXPECT_EQ(keeper->kept, 1);
    (void)em::TerrainHeights::over(line.profile, 14.1e6, 9.0);
    (void)em::TerrainHeights::over(line.profile, 14.1e6, 6.0); // lower ones are among them
    EXPECT_EQ(keeper->missed, 1);
    EXPECT_EQ(files().size(), 1u);
}

// A line that was stopped half-way is no line: whoever asks next solves it.
TEST_F(TerrainStoreTest, KeepsNothingThatWasStopped)
{
    const em::TerrainLine line = bank(18.77);
    const auto keeper = std::make_shared<CountingKeeper>(folder);
    em::TerrainHeights::keepWith(keeper);
    for (int after : {1, 3, 10, 40}) {
        std::atomic<int> asked = 0;
        EXPECT_FALSE(em::TerrainHeights::over(line.profile, 14.1e6, 9.0, Watch([&] { return ++asked > after; })));
    }
    EXPECT_EQ(keeper->kept, 0);
    const auto whole = em::TerrainHeights::over(line.profile, 14.1e6, 9.0);
    ASSERT_TRUE(whole);
    EXPECT_EQ(keeper->kept, 1);
    const auto direct = em::TerrainField::solve(line.profile, 14.1e6, {9.0});
    EXPECT_LT(std::abs(whole->at({9.0}, 0.2).front().across - direct->responses(em::Side::Along, 0.2).front().across), 0.01);
}

// Many ask for the same lines at once, and every other one is stopped: whoever is not gets the same answer.
TEST(ThreadsOverHills, ShareLinesThoughSomeAreStopped)
{
    const auto line = [](int number) {
        return TerrainProfile{{{-150.0, 0.0}, {40.0, 0.0}, {70.0, -30.0 - number}}, {field, field, field, water}};
    };
    std::array<std::array<Complex, 3>, 6> seen{};
    std::vector<std::thread> threads;
    for (std::size_t t = 0; t < seen.size(); ++t)
        threads.emplace_back([&, t] {
            for (int number = 0; number < 3; ++number) {
                std::atomic<int> asked = 0;
                const Watch stopping([&] { return ++asked > 5 + int(t); });
                const auto view = em::TerrainHeights::over(line(number), 7.1e6, 9.0, t % 2 == 1 ? stopping : Watch());
                if (view)
                    seen[t][std::size_t(number)] = view->at({7.0}, 0.2).front().across;
            }
        });
    for (std::thread& t : threads)
        t.join();
    for (std::size_t t = 0; t < seen.size(); ++t)
        for (std::size_t number = 0; number < 3; ++number) {
            if (t % 2 == 0 || seen[t][number] != Complex()) {
                EXPECT_EQ(seen[t][number], seen[0][number]) << t << " " << number;
            }
        }
    EXPECT_NE(seen[0][0], seen[0][1]);
}

} // namespace
} // namespace vetchling::files

#include "core/files/table_store.h"

#include "tests/core/helpers.h"
#include "tests/temp_folder.h"

#include <filesystem>
#include <fstream>
#include <unistd.h>

namespace vetchling::files {
namespace {

using namespace vetchling::testing;
namespace fs = std::filesystem;

class TableStoreTest : public ::testing::Test {
protected:
    std::vector<fs::path> written() const
    {
        std::vector<fs::path> all;
        for (const auto& entry : fs::directory_iterator(folder))
            all.push_back(entry.path());
        return all;
    }
    /// A cache as a run leaves it: one table covered and saved.
    void leaveOne()
    {
        em::GroundTableCache cache;
        ASSERT_TRUE(cache.table(averageSoil, 7e6)->cover(4.0, 40.0, {}, 20.0, 4.0));
        TableStore(folder.string()).save(cache);
    }
    /// Rows that a fresh cache finds.
    int rowsFound(const Ground& ground, double frequency)
    {
        TableStore store(folder.string());
        em::GroundTableCache cache;
        cache.setSource([&](em::GroundTable& table) { store.restore(table); });
        return cache.table(ground, frequency)->rowCount();
    }

    TempFolder temporary;
    fs::path folder = temporary.path();
};

TEST_F(TableStoreTest, BringsBackExactlyWhatWasComputed)
{
    leaveOne();
    TableStore store(folder.string());
    em::GroundTable fresh(averageSoil, 7e6), computed(averageSoil, 7e6);
    store.restore(fresh);
    ASSERT_TRUE(computed.cover(4.0, 40.0, {}, 20.0, 4.0));
    EXPECT_EQ(fresh.rowCount(), computed.rowCount());
    for (double height : {5.0, 12.0, 19.0}) {
        EXPECT_EQ(fresh.at(8.0, height).s, computed.at(8.0, height).s);
        EXPECT_EQ(fresh.at(8.0, height).x, computed.at(8.0, height).x);
    }
    // and it can be extended as if it had been computed here
    ASSERT_TRUE(fresh.cover(1.0, 60.0));
    ASSERT_TRUE(computed.cover(1.0, 60.0));
    EXPECT_EQ(fresh.at(50.0, 2.0).z, computed.at(50.0, 2.0).z);
}

TEST_F(TableStoreTest, KeepsSoilsAndFrequenciesApart)
{
    leaveOne();
    EXPECT_GT(rowsFound(averageSoil, 7e6), 0);
    EXPECT_EQ(rowsFound(averageSoil, 7.0001e6), 0);
    EXPECT_EQ(rowsFound({GroundKind::Real, 13.0, 0.006}, 7e6), 0);
}

TEST_F(TableStoreTest, PassesOverWhatIsDamaged)
{
    leaveOne();
    ASSERT_EQ(written().size(), 1u);
    const fs::path file = written().front();
    const auto whole = fs::file_size(file);
    std::fstream(file, std::ios::in | std::ios::out | std::ios::binary).seekp(std::streamoff(whole / 2)).put('?');
    EXPECT_EQ(rowsFound(averageSoil, 7e6), 0);
    leaveOne(); // is written anew
    EXPECT_GT(rowsFound(averageSoil, 7e6), 0);
    fs::resize_file(file, whole - 9);
    EXPECT_EQ(rowsFound(averageSoil, 7e6), 0);
    std::ofstream(file) << "nonsense";
    EXPECT_EQ(rowsFound(averageSoil, 7e6), 0);
}

TEST_F(TableStoreTest, StaysBelowItsSizeAndLosesTheOldest)
{
    leaveOne();
    const fs::path precious = written().front();
    for (int i = 0; i < 6; ++i) {
        const fs::path file = folder / ("old" + std::to_string(i) + ".table");
        std::ofstream(file) << "x";
        fs::resize_file(file, 10u << 20);
        fs::last_write_time(file, fs::file_time_type::clock::now() - std::chrono::hours(10 - i));
    }
    em::GroundTableCache cache;
    ASSERT_TRUE(cache.table(averageSoil, 14e6)->cover(4.0, 40.0));
    TableStore(folder.string()).save(cache);
    std::size_t all = 0;
    for (const fs::path& file : written())
        all += fs::file_size(file);
    EXPECT_LE(all, TableStore::largest);
    EXPECT_TRUE(fs::exists(precious));
    EXPECT_FALSE(fs::exists(folder / "old0.table"));
    EXPECT_TRUE(fs::exists(folder / "old5.table"));
}

TEST_F(TableStoreTest, AFolderThatCannotBeIsNoTrouble)
{
    TableStore store("/proc/nowhere/tables");
    em::GroundTable table(averageSoil, 7e6);
    store.restore(table);
    em::GroundTableCache cache;
    cache.table(averageSoil, 7e6)->cover(4.0, 8.0);
    store.save(cache);
    EXPECT_EQ(table.rowCount(), 0);
}

} // namespace
} // namespace vetchling::files

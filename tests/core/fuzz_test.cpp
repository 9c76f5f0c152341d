/// A short run of the long random tests; `./dev fuzz` makes the long one.

#include "core/files/json_reader.h"
#include "tests/long_form.h"
#include "tests/validation/fuzz.h"

#include <gtest/gtest.h>

namespace vetchling::testing {
namespace {

TEST(Fuzz, WireModelsGiveAFiniteResultOrAnErrorInWords)
{
    const int models = many(800, 3000);
    const FuzzCount count = fuzzModels(1, unsigned(models));
    EXPECT_EQ(count.broken, "");
    EXPECT_EQ(int(count.tried), models);
    EXPECT_GT(int(count.answered), models / 8); // enough of either
    EXPECT_GT(int(count.refused), models / 10);
}

TEST(Fuzz, WireFiles)
{
    const auto text = files::readTextFile(VETCHLING_TEST_DATA "/reference/cases/s12_coil_dipole_average.json");
    ASSERT_TRUE(text);
    const FuzzCount count = fuzzWireFiles(*text, 1, 4000);
    EXPECT_EQ(count.broken, "");
    EXPECT_GT(count.refused, 400);
}

TEST(Fuzz, Designs)
{
    const auto text = files::readTextFile(VETCHLING_DATA "/demo/gannet-skerry.vetchling");
    ASSERT_TRUE(text);
    const int designs = many(300, 3000);
    const FuzzCount count = fuzzDesigns(*text, 1, unsigned(designs));
    EXPECT_EQ(count.broken, "");
    EXPECT_GT(int(count.answered), designs / 2) << "a byte is no reason to refuse all";
}

TEST(Fuzz, Measurements)
{
    const FuzzCount count = fuzzMeasured(1, 20000);
    EXPECT_EQ(count.broken, "");
    EXPECT_GT(count.answered, 2000);
    EXPECT_GT(count.refused, 2000);
}

} // namespace
} // namespace vetchling::testing

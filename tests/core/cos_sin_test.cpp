#include "core/em/cos_sin.h"

#include <cmath>
#include <gtest/gtest.h>
#include <vector>

namespace vetchling::em {
namespace {

// Four units in the last place of 1, over all counts that leave a remainder in wide registers.
TEST(CosSin, AgreesWithTheLibraryForAnyCount)
{
    for (int count : {0, 1, 2, 3, 4, 5, 7, 8, 13, 64, 129}) {
        std::vector<double> angle, cosine(count), sine(count);
        for (int i = 0; i < count; ++i)
            angle.push_back(std::ldexp(1.0 + 0.37 * i, i % 18) * (i % 2 ? -1.0 : 1.0));
        cosSin(angle.data(), count, cosine.data(), sine.data());
        for (int i = 0; i < count; ++i) {
            EXPECT_NEAR(cosine[i], std::cos(angle[i]), 1e-15) << angle[i];
            EXPECT_NEAR(sine[i], std::sin(angle[i]), 1e-15) << angle[i];
        }
    }
}

TEST(CosSin, OfZeroIsExact)
{
    const double zero = 0.0;
    double c = 0.0, s = 1.0;
    cosSin(&zero, 1, &c, &s);
    EXPECT_EQ(c, 1.0);
    EXPECT_EQ(s, 0.0);
}

} // namespace
} // namespace vetchling::em

/// A hanging wire: exact figures of an independent program, the parabola's limit, and what does not hold.
#include "core/workshop/sag.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

TEST(Sag, IsTheExactCatenarys)
{
    const auto given = hangingWithSag({20.0, 0.0095}, 0.05);
    ASSERT_TRUE(given.ok());
    EXPECT_NEAR(given->horizontal, 93.16395135, 1e-7);
    EXPECT_NEAR(given->end, 93.16860951, 1e-7);
    EXPECT_NEAR(given->wire, 20.00033333, 1e-7);
    const auto taut = hangingWithTension({40.0, 0.02}, 50.0);
    EXPECT_NEAR(taut->horizontal, 49.84557099, 1e-7);
    EXPECT_NEAR(taut->sag, 0.7873688259, 1e-9);
    EXPECT_NEAR(taut->wire, 40.04130013, 1e-7);
    const auto deep = hangingWithTension({50.0, 0.05}, 20.0);
    EXPECT_NEAR(deep->sag, 11.20855897, 1e-7);
    EXPECT_NEAR(deep->wire, 56.16875111, 1e-7);
}

// A taut wire is a parabola: H = w L^2 / 8 s, and its length L + 8 s^2 / 3 L.
TEST(Sag, ATautWireIsAParabola)
{
    const double span = 30.0, sag = 0.1, weight = 0.02 * gravity;
    const auto h = hangingWithSag({span, 0.02}, sag);
    EXPECT_NEAR(h->horizontal / (weight * span * span / (8.0 * sag)), 1.0, 1e-4);
    EXPECT_NEAR(h->wire - span, 8.0 * sag * sag / (3.0 * span), 1e-7);
}

TEST(Sag, BothWaysAgreeAndTheTautOneIsTold)
{
    for (double sag : {0.01, 0.4, 3.0, 7.0}) {
        const auto one = hangingWithSag({25.0, 0.03}, sag);
        const auto other = hangingWithTension({25.0, 0.03}, one->end);
        ASSERT_TRUE(other.ok());
        EXPECT_NEAR(other->sag, sag, 1e-6) << sag;
    }
    // a slack wire pulls harder again: under the same tension the taut one is meant
    const auto slack = hangingWithSag({25.0, 0.03}, 30.0);
    EXPECT_LT(hangingWithTension({25.0, 0.03}, slack->end)->sag, 9.0);
}

TEST(Sag, WhatDoesNotHoldIsRefused)
{
    EXPECT_FALSE(hangingWithTension({50.0, 0.05}, 10.0).ok());
    EXPECT_FALSE(hangingWithSag({50.0, 0.05}, 0.0).ok());
    EXPECT_FALSE(hangingWithSag({0.0, 0.05}, 1.0).ok());
    EXPECT_FALSE(hangingWithSag({10.0, -1.0}, 1.0).ok());
    EXPECT_FALSE(hangingWithTension({10.0, 0.1}, std::nan("")).ok());
}

} // namespace
} // namespace vetchling

#pragma once
/// Random numbers that are the same on every machine.

#include <cmath>
#include <cstdint>

namespace vetchling::testing {

/// SplitMix64 (Steele, Lea & Flood 2014): the standard library's distributions differ between machines.
class Dice {
public:
    explicit Dice(std::uint64_t seed) : m_state(seed * 0x9e3779b97f4a7c15ull + 1) {}

    double unit()
    {
        std::uint64_t z = (m_state += 0x9e3779b97f4a7c15ull);
        z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ull;
        z = (z ^ (z >> 27)) * 0x94d049bb133111ebull;
        return double((z ^ (z >> 31)) >> 11) * 0x1p-53;
    }
    double between(double low, double high) { return low + (high - low) * unit(); }
    double logBetween(double low, double high) { return low * std::pow(high / low, unit()); }
    int whole(int low, int high) { return low + int(unit() * (high - low + 1)); }
    bool chance(double p) { return unit() < p; }

private:
    std::uint64_t m_state;
};

} // namespace vetchling::testing

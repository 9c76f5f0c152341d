#pragma once
/// Solved terrain, kept while the program runs: many antennas, bands' patterns and pages ask for the same profile.

#include "core/em/terrain.h"

#include <map>
#include <memory>
#include <mutex>
#include <optional>

namespace vetchling::em {

class TerrainHeights;

/// A line of ground as it is solved.
struct TerrainLine {
    TerrainProfile profile;
    double frequency = 0.0;      ///< Hz
    std::vector<double> heights; ///< m above the foot
};

/// Keeps solved lines beyond the program's run. Called by several threads.
class TerrainKeeper {
public:
    virtual ~TerrainKeeper() = default;
    /// @param surface of that line; gets its fields @return false: they are not there
    virtual bool restore(const TerrainLine& line, TerrainSurface& surface) = 0;
    virtual void keep(const TerrainLine& line, const TerrainSurface& surface) = 0;
};

/// A solved line of ground, and the side of it that was asked for: two opposite bearings share one.
struct TerrainView {
    std::shared_ptr<const TerrainHeights> line;
    Side side = Side::Along;
    /// Of currents at any heights up to the highest. @param elevation rad
    [[nodiscard]] std::vector<TerrainResponse> at(const std::vector<double>& heights, double elevation) const;
};

/// A field solved at heights so near to one another that what lies between is interpolated.
class TerrainHeights {
public:
    /// Solved, or as it was kept, for this frequency or one a quarter of a per cent beside it. Nothing where the profile cannot be solved.
    /// Where it has more corners than are solved in some tenths of a second, the farthest are left out. Thread-safe.
    static std::optional<TerrainView> over(const TerrainProfile& profile, double frequency, double highest, const Watch& watch = {});

    /// The same for many at once, each line by one thread. What was stopped is solved by whoever asks next.
    static void prepare(const std::vector<TerrainProfile>& profiles, double frequency, double highest, const Watch& watch = {});

    /// From now on, for the whole program. @param keeper null: nothing is kept
    static void keepWith(std::shared_ptr<TerrainKeeper> keeper);

    TerrainHeights(TerrainField field, Ground own, double frequency) : m_field(std::move(field)), m_own(own), m_frequency(frequency) {}

    /// Of currents at any heights up to the highest. @param elevation rad
    [[nodiscard]] std::vector<TerrainResponse> at(const std::vector<double>& heights, Side side, double elevation) const;
    [[nodiscard]] double frequency() const { return m_frequency; }

private:
    /// At the solved heights, less what flat ground gives. Kept: one angle is asked for again and again.
    [[nodiscard]] std::vector<TerrainResponse> restOf(Side side, double elevation) const;

    TerrainField m_field;
    Ground m_own; ///< under the foot
    double m_frequency;
    mutable std::mutex m_mutex;
    mutable std::map<std::pair<Side, double>, std::vector<TerrainResponse>> m_rests;
};

} // namespace vetchling::em

#pragma once
/// What the pairs of a mesh's elements share at all frequencies: which are alike, and their moments as series in the wave
/// number. Made once for a mesh, it serves all solves of a sweep, on any thread.

#include "core/em/coil_blocks.h"
#include "core/em/moments.h"
#include "core/em/pair_classes.h"
#include "core/em/remainder_paths.h"
#include "core/em/symmetry.h"
#include "core/work/watch.h"

#include <optional>

namespace vetchling::em {

struct PairPlan {
    /// @param highestFrequency Hz; the mesh may be used at any lower one too @param watch a stop leaves the plan incomplete, and nothing
    /// may be solved with it
    PairPlan(const Mesh& mesh, const WireModel& model, double highestFrequency, const Watch& watch = {});

    struct Interaction {
        std::size_t m = 0, n = 0; ///< elements
        MomentSeries direct;
        std::optional<MomentSeries> image;       ///< of m with the mirrored n; none in free space
        std::optional<RemainderPaths> remainder; ///< over real soil, while they are not too many
    };
    bool complete = false;
    std::vector<Interaction> interactions;
    std::vector<MeshPair> pairs;
    std::vector<std::size_t> classOf; ///< into interactions, by pair

    struct Jacketed {
        std::size_t m = 0, n = 0;
        Moments moments;
    };
    std::vector<Jacketed> jackets; ///< pairs of one insulated wire that feel each other's jacket
    std::vector<CoiledPair> coils;
};

/// The pairs that a jacket couples, m <= n.
std::vector<PairPlan::Jacketed> jacketedPairs(const Mesh& mesh, const WireModel& model);

} // namespace vetchling::em

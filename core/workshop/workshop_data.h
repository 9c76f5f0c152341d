#pragma once
/// What the bench knows of materials, cores and modes: data/workshop.json, which users may edit.

#include "core/workshop/ferrite.h"
#include "core/workshop/parts_list.h"
#include "core/workshop/tubes.h"

#include <string>
#include <vector>

namespace vetchling {

/// A conductor, or a metal that clamps and screws are of (no density then).
struct MetalFacts {
    MetalPotential potential;
    std::optional<WireStrength> strength;
    std::string source;
};

/// How much of the time a transmission is at its crest.
struct Mode {
    std::string id, name, source;
    double duty = 1.0;
};

struct WorkshopData {
    std::vector<MetalFacts> metals;
    std::vector<FerriteClass> ferrites;
    std::vector<FerriteRing> rings;
    std::vector<Mode> modes;
    std::vector<Tube> tubes; ///< at hand

    /// Of a conductor; plain soft copper where the data say nothing.
    [[nodiscard]] WireStrength strengthOf(const std::string& conductor) const;
    [[nodiscard]] TubeMaterial tubeOf(const std::string& conductor) const;
    [[nodiscard]] std::vector<MetalPotential> potentials() const;
    /// The first one where there is none of that id; null without any.
    [[nodiscard]] const FerriteClass* ferrite(const std::string& id) const;
    /// Likewise, as the next.
    [[nodiscard]] const FerriteRing* ring(const std::string& id) const;
    [[nodiscard]] const Mode* mode(const std::string& id) const;
};

} // namespace vetchling

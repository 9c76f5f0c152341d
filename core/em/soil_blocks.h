#pragma once
/// Interactions of elements in the air and in the soil, in the mixed potentials of soil_kernels.h: images in closed form (moments.h), the
/// rest from the soil's table. A model with any wire in the soil is solved by these alone, its wires in the air as well: so the potentials
/// of the charges on both sides of a node in the surface are the same there, and none is left at it.

#include "core/em/blocks.h"
#include "core/em/pair_plan.h"
#include "core/em/soil_table.h"

namespace vetchling::em {

class SoilBlockMaker {
public:
    SoilBlockMaker(const Mesh& mesh, const SoilTable& table);

    /// @param known its moments, or null
    [[nodiscard]] Block block(const Element& m, const Element& n, const PairPlan::Interaction* known) const;

private:
    void addImages(const Element& m, const Element& n, const PairPlan::Interaction* known, Block& sum) const;
    void addTable(const Element& m, const Element& n, Block& sum) const;
    void addPlain(const Element& m, const Element& n, const Sampled& outer, const Sampled& inner, Block& sum) const;
    void addGraded(const Element& m, const Element& n, const Element& seen, Block& sum) const;
    /// Both potentials of two points, times the fronts and the lengths that belong to du dv.
    struct Potentials {
        Complex vector, scalar;
    };
    /// @param lessImage of pairs across whose image has been integrated in closed form
    [[nodiscard]] Potentials potentials(const Element& m, double u, const Element& n, double v, bool lessImage) const;

    const SoilTable& m_table;
    int m_degree;
    double m_k;
    Complex m_soilK, m_permittivity, m_image;
    LocalFunctions m_local;
    Sampled m_few, m_many;
};

/// Where the mesh's wires lie.
SoilReach soilReach(const Mesh& mesh);

} // namespace vetchling::em

#pragma once
/// What the unknowns of panels make at nodes: integrals of G and dG/dn'.

#include "core/em/hankel_row.h"
#include "core/em/terrain_mesh.h"

#include <utility>
#include <vector>

namespace vetchling::em {

/// From first up to last, which is not one of them.
struct PanelRange {
    std::size_t first = 0, last = 0;
    [[nodiscard]] std::size_t firstNode() const { return first * nodesPerPanel; }
    [[nodiscard]] std::size_t nodes() const { return (last - first) * nodesPerPanel; }
    [[nodiscard]] bool isEmpty() const { return first >= last; }
};

class PanelKernels {
public:
    PanelKernels(const TerrainMesh& mesh, double waveNumber) : m_mesh(mesh), m_k(waveNumber) {}

    /// At the nodes of some panels, by column; of a source node a column.
    struct Block {
        std::vector<Complex> single, twin; ///< of G, of dG/dn'
    };
    void fill(PanelRange targets, PanelRange sources, Block& out) const;

private:
    /// Points of a surface as a node sees them.
    struct Seen {
        std::vector<double> x, along; ///< k times distance; cosine to the normal
        HankelRow hankel;
        void clear() { x.clear(), along.clear(); }
        void add(ProfilePoint target, ProfilePoint source, const TerrainPanel& panel, double k);
        /// G and dG/dn' times a weight.
        [[nodiscard]] std::pair<Complex, Complex> kernel(std::size_t i, double weight, double k) const;
    };
    /// How a panel's integrals are taken.
    enum class Way { Nodes, Strips };
    struct Row {
        Seen far, near;
        std::vector<Way> ways;
        std::vector<char> isNear; ///< by strip
    };
    [[nodiscard]] Way wayTo(const TerrainPanel& panel, ProfilePoint target, double away) const;
    void seeAll(ProfilePoint target, PanelRange sources, Row& row) const;
    /// Of a short panel at one of its own nodes.
    void addOwn(std::size_t target, Seen& seen, NodeShares& single) const;
    void addNear(ProfilePoint target, std::size_t panel, const TerrainStrip& strip, Seen& seen, NodeShares& single, NodeShares& twin) const;
    /// @param out by node of the sources, `stride` apart
    void fillRow(std::size_t target, PanelRange sources, Row& row, Complex* single, Complex* twin, std::size_t stride) const;

    const TerrainMesh& m_mesh;
    double m_k;
};

} // namespace vetchling::em

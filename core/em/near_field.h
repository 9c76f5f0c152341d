#pragma once
/// Electric and magnetic field of a solution at any point above its ground.
///
/// Direct wave and the mirror elements (Kq, or 1 on perfect ground) by the exact field of a current element
/// (Balanis 2016, Antenna Theory, eq. 4-8 to 4-10 and 4-5), the soil's remainder from its table (ground_table.h); the
/// remainder's magnetic field is the curl of its electric field by central differences. With wires in the soil as in soil_field.h.
/// Accuracy: 1 % farther than three radii from any wire, 0.1 % farther than a tenth of a wavelength; measured by the power
/// through closed boxes in tests/core/near_field_test.cpp. For the voltages of the model's feeds, peak values.

#include "core/em/solver.h"

#include <array>

namespace vetchling::em {

struct FieldAt {
    std::array<Complex, 3> e{}; ///< V/m, x y z
    std::array<Complex, 3> h{}; ///< A/m

    [[nodiscard]] double electric() const;                 ///< rms magnitude, V/m
    [[nodiscard]] double magnetic() const;                 ///< rms magnitude, A/m
    [[nodiscard]] std::array<double, 3> powerFlow() const; ///< mean Poynting vector, W/m2
};

class NearField {
public:
    NearField(const Solution& solution, GroundTableCache& tables);

    /// Fails below ground, within three radii of a wire, and 170 wavelengths away.
    [[nodiscard]] Result<FieldAt> at(Vec3 point) const;

private:
    struct Piece {
        Element element;
        std::vector<Complex> current; ///< local coefficients
    };
    [[nodiscard]] Result<FieldAt> besideSoil(Vec3 point, double clear) const;
    void addElement(const Piece& piece, const Element& seen, Complex strength, Vec3 point, FieldAt& sum) const;
    void addRemainder(Vec3 point, std::array<Complex, 3>& e) const;
    [[nodiscard]] Complex currentAt(const Piece& piece, double v) const;

    std::vector<Piece> m_pieces;
    std::shared_ptr<GroundTable> m_table;
    std::shared_ptr<SoilTable> m_soil; ///< of a model with wires in the soil
    SoilReach m_reach;
    int m_degree;
    double m_k;
    Complex m_image = 0.0;
    GroundKind m_kind;
};

} // namespace vetchling::em

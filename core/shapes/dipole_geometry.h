#pragma once
/// What all dipoles share: a centre, two legs, and the heights they hang between.

#include "core/shapes/arm.h"

#include <array>

namespace vetchling::shapes {

struct DipoleGeometry {
    Vec3 centre, endA, endB;
    double leg = 0.0; ///< m, of the first one

    /// The point so far out along the first (0) or second (1) leg. @param along m from the centre
    [[nodiscard]] Vec3 alongLeg(int side, double along) const { return centre + along * unit((side == 0 ? endA : endB) - centre); }
};

/// What hangs by its middle and its two ends: handles 0 the centre, 1 and 2 the ends, anything else goes with the first end.
class DipoleFamily : public Family {
public:
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override;
    std::optional<AntennaShape> between(const AntennaShape& shape, const Hook& from, const Hook& to) const override;
    AntennaShape straightened(const AntennaShape& shape) const override;

protected:
    /// Lengths of the first and the second side as they hang, m.
    [[nodiscard]] virtual std::array<double, 2> sides(const AntennaShape& shape) const;
};

/// A dipole of two arms.
class ArmDipole : public DipoleFamily {
public:
    std::string layout(const AntennaShape& shape) const override { return armLayout(kind(), shape); }
    AntennaShape levered(const AntennaShape& shape, const std::string& key, double value) const override
    {
        return armLevered(*this, kind(), shape, key, value);
    }
    std::vector<Lever> levers(const AntennaShape& shape) const override;
    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override;

protected:
    [[nodiscard]] virtual const ArmKind& kind() const = 0;
    [[nodiscard]] virtual bool stiff() const { return false; }
    [[nodiscard]] std::array<double, 2> sides(const AntennaShape& shape) const override { return armLengths(*this, kind(), shape); }
};

/// What is stiff: it moves and turns as a whole, on a mast of its own.
class StiffDipoleFamily : public DipoleFamily {
public:
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override;
    std::optional<AntennaShape> between(const AntennaShape&, const Hook&, const Hook&) const override { return std::nullopt; }
    Carrier carrier() const override { return Carrier::Mast; }
};

/// @param legInWaves of a new antenna whose leg is not tuned, else 0
std::vector<ParameterSpec> dipoleParameters(double apex, double ends, double legInWaves = 0.0);
/// The end of a leg that hangs from a centre on a bearing; a fault if it would hang lower than it is long.
Result<Vec3> legEnd(Vec3 centre, double leg, double endHeight, double bearing);
/// Centre and ends from the parameters; a fault if the ends would hang lower than the wire is long.
Result<DipoleGeometry> dipoleGeometry(const Family& family, const AntennaShape& shape);
/// @param legs m, of the first and the second side, instead of "leg_m"
Result<DipoleGeometry> dipoleGeometry(const Family& family, const AntennaShape& shape, std::array<double, 2> legs);
/// One wire from end to end, fed in the middle, with handles, dimensions and insulators; sections are the family's.
BuiltAntenna dipoleFrame(const DipoleGeometry& geometry, const AntennaShape& shape);
/// Handles: 0 the centre, 1 the first end, 2 the second; see Family::hung. The other leg of a straight dipole turns along.
/// @param legs m, of the first and the second side
AntennaShape dipoleHung(const Family& family, const AntennaShape& shape, std::size_t handle, const Hook& hook, std::array<double, 2> legs);
/// The same for what is stiff: it moves and turns as a whole and keeps its slope.
AntennaShape stiffHung(const Family& family, const AntennaShape& shape, std::size_t handle, const Hook& hook);
/// Level between two supports, a little below their tops; see Family::between.
AntennaShape dipoleBetween(const Family& family, const AntennaShape& shape, const Hook& from, const Hook& to);
/// Level and in one line, as high as its centre.
AntennaShape dipoleStraightened(const AntennaShape& shape);
/// A new antenna's ends no lower than a short leg can hang.
void raiseEnds(AntennaShape& shape, double leg);
/// The customary rules of a half-wave, as the length of a side.
/// @param part of the half wave that the tuned length is: 0.5 for a side, 1 for the whole wire
std::vector<RuleOfThumb> halfWaveRules(double frequency, double part = 0.5);

} // namespace vetchling::shapes

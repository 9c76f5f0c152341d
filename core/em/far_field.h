#pragma once
/// The far field of a solution over its ground, and where its power goes.
///
/// Directions: elevation from the horizon and mathematical azimuth from +x towards +y, radians.
/// The wave in a direction is the direct one plus the one reflected with Fresnel's coefficients, which is the exact far
/// field of currents over a plane soil (the ground wave dies out faster than 1/r). Currents in the soil send up what reciprocity asks for,
/// the field that a plane wave from there has at their place: (1 - Rv) sin e along, (1 + Rv) cos e/eps down, (1 + Rh) across, each times
/// exp(-g1 depth).
///
/// Where the ground changes farther off, in height or soil, each current's direct and reflected wave give way to its response over that
/// profile (em/terrain.h).

#include "core/em/solver.h"

#include <optional>

namespace vetchling::em {

/// Radiation vectors N = int I t exp(jk r.r') ds in a direction (A m): direct, and of the mirror image on perfect ground.
struct RadiationVectors {
    Complex theta, phi;           ///< direct; theta points down, phi towards growing azimuth
    Complex imageTheta, imagePhi; ///< of the image, not yet multiplied by a reflection coefficient
    Complex soilTheta, soilPhi;   ///< of the currents in the soil, as they come out of it
};

/// Reflection coefficients of plane waves: TM for the vertical part, TE for the horizontal part of the field.
struct Reflection {
    Complex tm, te;
};

class FarField {
public:
    explicit FarField(const Solution& solution);

    /// The same currents, their gain counted from another power. @param inputPower W
    [[nodiscard]] FarField fedWith(double inputPower) const
    {
        FarField other = *this;
        other.m_inputPower = inputPower;
        return other;
    }

    /// The same currents with other grounds far off.
    [[nodiscard]] FarField over(std::vector<FarSector> beyond) const
    {
        FarField other = *this;
        other.m_beyond = std::move(beyond);
        return other;
    }

    /// The same currents and power, their waves reflected by another ground.
    [[nodiscard]] FarField reflectedBy(const Ground& ground, std::vector<FarSector> beyond = {}) const;

    [[nodiscard]] RadiationVectors vectors(double elevation, double azimuth) const;
    /// Of one elevation and many azimuths, which share most of the work.
    [[nodiscard]] std::vector<RadiationVectors> vectorRow(double elevation, const std::vector<double>& azimuths) const;
    /// Of the ground under the wires.
    [[nodiscard]] Reflection reflection(double elevation) const;

    struct Intensity {
        double vertical, horizontal; ///< W/sr in the two polarisations
        [[nodiscard]] double total() const { return vertical + horizontal; }
    };
    [[nodiscard]] Intensity intensity(double elevation, double azimuth) const;
    /// Power gain in dBi: 4 pi U / input power, both polarisations together. -300 where nothing is radiated.
    [[nodiscard]] double gain(double elevation, double azimuth) const;
    /// Gains of a grid [elevation][azimuth], computed on all cores; the vertical phases are shared along each row.
    [[nodiscard]] std::vector<std::vector<double>> gainGrid(const std::vector<double>& elevations,
                                                            const std::vector<double>& azimuths) const;
    /// Solves the uneven ground that those directions see, several lines at once: over hills it is what takes time. What was not prepared
    /// is solved when it is asked for. @return false: stopped, and some of it is not solved
    [[nodiscard]] bool prepare(const std::vector<double>& azimuths, const Watch& watch = {}) const;

private:
    [[nodiscard]] std::vector<double> gainRow(double elevation, const std::vector<double>& azimuths) const;
    /// A straight run of elements. Its current's transform int I(s) exp(jqs) ds over the wavenumber q along it, |q| <= k, is as
    /// smooth as the run is short: a few samples serve every direction.
    struct Run {
        Vec3 centre, tangent;
        double halfLength = 0.0, step = 0.0; ///< of q
        std::vector<Complex> samples;        ///< from q = -k - 2 steps
        bool inSoil = false;                 ///< and level, at the centre's depth
    };
    /// A point of a current in the soil that is not level.
    struct SoilMoment {
        Vec3 point, tangent;
        Complex moment; ///< A m
    };
    void addRuns(const Solution& solution);
    void addSoilRow(double elevation, const std::vector<double>& cosine, const std::vector<double>& sine,
                    std::vector<RadiationVectors>& row) const;
    /// @param way how a wave goes up: its parts along the surface (x) and up (z)
    static void addRow(const Run& run, Vec3 tangent, Vec3 centre, double k, Vec3 way, const std::vector<double>& cosine,
                       const std::vector<double>& sine, std::vector<Complex>& theta, std::vector<Complex>& phi);
    /// A point of a current in the air.
    struct AirMoment {
        Vec3 point, tangent;
        Complex moment; ///< A m
    };
    /// Radiation vectors with all that comes from the ground.
    struct Wave {
        Complex theta, phi;
    };
    /// Sums of their squares: of the vertical and of the horizontal part.
    struct Squares {
        double theta = 0.0, phi = 0.0;
    };
    /// Between two grounds, power is mixed.
    [[nodiscard]] std::vector<Squares> squares(double elevation, const std::vector<double>& azimuths) const;
    [[nodiscard]] std::vector<Wave> flatWaves(double elevation, const std::vector<double>& azimuths) const;
    /// Nothing where that ground cannot be solved.
    [[nodiscard]] std::optional<std::vector<Wave>> wavesOver(const FarSector& sector, double elevation,
                                                             const std::vector<double>& azimuths) const;

    std::vector<Run> m_runs;
    std::vector<SoilMoment> m_steep;
    std::vector<AirMoment> m_air;
    std::vector<FarSector> m_beyond;
    double m_frequency, m_highest = 0.0; ///< m, of the currents
    Ground m_ground;
    GroundKind m_kind;
    Complex m_permittivity;
    double m_waveNumber, m_inputPower;
};

/// Where on the ground a wave is reflected that leaves at an elevation: the first Fresnel zone, from and to, m in plan from under the
/// source; behind it where negative. @param height m, of the source
struct ReflectionZone {
    double from = 0.0, to = 0.0;
};
ReflectionZone reflectionZone(double height, double elevation, double wavelength);

/// Shares of the input power, each computed on its own; they add to 1 as far as the solution is right.
struct PowerLedger {
    double sky = 0.0;   ///< integral of the far field; the efficiency
    double soil = 0.0;  ///< plane wave spectrum at z = 0: propagating waves not reflected plus evanescent waves absorbed
    double wire = 0.0;  ///< conductor and insulation
    double loads = 0.0; ///< coils, resistors and traps
    double lines = 0.0; ///< line sections and stubs
    double transformer = 0.0;
    [[nodiscard]] double sum() const { return sky + soil + wire + loads + lines + transformer; }
};

/// Fails only when stopped.
Result<PowerLedger> powerLedger(const Solution& solution, GroundTableCache& tables, const Watch& watch = {});

} // namespace vetchling::em

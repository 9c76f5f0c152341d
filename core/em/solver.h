#pragma once
/// One wire model at one frequency: currents, feed impedance and an estimate of its error.

#include "core/em/mesh.h"
#include "core/em/system.h"

#include <memory>

namespace vetchling::em {

struct SolveOptions {
    MeshOptions mesh;
    /// The mesh is refined until the estimated error of the impedance is below this, or the next mesh would not pay. 0: as it is.
    double wantedErrorPercent = 0.0;
};

inline constexpr double usualErrorPercent = 0.5; ///< what an answer to one question should keep

struct Solution {
    double frequency = 0.0; ///< Hz
    std::shared_ptr<const WireModel> model;
    std::shared_ptr<const Mesh> mesh;
    std::vector<Complex> unknowns;     ///< A, peak
    std::vector<Complex> feedCurrents; ///< A, peak, by feed
    Complex impedance;                 ///< ohm, at the first feed with a voltage; at the line side of its transformer
    double gapErrorPercent = 0.0; ///< part of it that no finer mesh makes smaller: what the length of the gaps of feed and loads matters
    double impedanceErrorPercent = 0.0; ///< estimate of |dZ|/|Z|; in 9 of 10 antennas the true error is smaller
    double inputPower = 0.0;            ///< W, all feeds, into their transformers where there are any
    double transformerPower = 0.0;      ///< W, lost in those

    /// Current along a wire's direction at a distance from its first point, A peak.
    [[nodiscard]] Complex currentAt(std::size_t wire, double along) const;
    /// Local coefficients of an element, function 0..degree (mesh.h).
    [[nodiscard]] std::vector<Complex> elementCurrents(std::size_t element) const;
};

/// Magnitudes of the current at pieces + 1 even places of each element, 1 at the strongest of all.
std::vector<std::vector<double>> currentRibbon(const Solution& solution, int pieces);
/// Magnitudes of the scalar potential on the wires at the same places, V peak, of the charges and their images; over soil the images are
/// the quasi-static ones, (er - 1) / (er + 1), which is right to some percent.
std::vector<std::vector<double>> voltageRibbon(const Solution& solution, int pieces);
/// The strongest current on a wire, A peak.
double strongestCurrent(const Solution& solution, std::size_t wire);

/// Peak voltage between the open end of a resonant wire and earth, V, estimated from the current along it.
/// The end voltage of a standing wave of peak current I on a wire of mean impedance 60 (ln(2 l/a) - 1).
double endVoltage(double peakCurrent, double wireLength, double radius);

/// A model with one mesh for many frequencies.
class PreparedModel {
public:
    /// @param model without faults @param highestFrequency Hz, the highest it will be solved at
    /// @param watch once it says stop the model is of no use
    PreparedModel(std::shared_ptr<const WireModel> model, const MeshOptions& mesh, double highestFrequency, const Watch& watch = {});

    /// As solve below, on this mesh as it is.
    [[nodiscard]] Result<Solution> solve(double frequency, GroundTableCache& tables, const Watch& watch = {}) const;

private:
    std::shared_ptr<const WireModel> m_model;
    Mesh m_mesh;
    PairPlan m_plan;
};

/// Solves for the currents. Bad input, a stop, or a model too large to hold come back as faults.
/// @param tables the half-space tables to use and extend; one cache may serve many threads
Result<Solution> solve(std::shared_ptr<const WireModel> model, double frequency, GroundTableCache& tables, const SolveOptions& options = {},
                       const Watch& watch = {});

} // namespace vetchling::em

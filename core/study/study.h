#pragma once
/// Everything solved of one set of wires over one ground, at the antenna's own port: computed on demand, kept and shared.
/// What lies behind the port is no matter of a study, so a transformer can be turned without solving anything anew.

#include "core/em/far_field.h"
#include "core/em/sweep.h"
#include "core/shapes/family.h"
#include "core/study/recent.h"
#include "core/study/windows.h"

#include <memory>

namespace vetchling::study {

/// One frequency looked at closely.
struct PortSpot {
    em::Solution solution; ///< at the port
    std::shared_ptr<const em::FarField> field;
    double strongest = 0.0, strongestElevation = 0.0, strongestAzimuth = 0.0; ///< dBi, rad (mathematical azimuth)
    double straightUp = 0.0;                                                  ///< dBi
    double lobeWidth = 0.0;                                                   ///< rad in elevation, to half power, of the strongest lobe
};

using CurvePart = std::shared_ptr<const em::ImpedanceCurve>;
using PortSpotPointer = std::shared_ptr<const PortSpot>;
using LedgerPointer = std::shared_ptr<const em::PowerLedger>;

/// Coarse: half the unknowns, for what changes while a mouse moves; the SWR stays within 4 % where it is below 10.
enum class Care { Usual, Coarse };

class Study {
public:
    /// @param model without transformers at its feeds @param portReference ohm that the port is near where it is used
    Study(WireModel model, double portReference, std::shared_ptr<em::GroundTableCache> tables);

    [[nodiscard]] const std::shared_ptr<const WireModel>& model() const { return m_model; }

    /// The impedance over a window. Faults: the solver's; stopped.
    Result<CurvePart> curve(const Window& window, const Watch& watch = {}, Care care = Care::Usual);
    /// Currents and field at a frequency, refined to the usual accuracy.
    Result<PortSpotPointer> spot(double frequency, const Watch& watch = {});
    /// Where the power into the port goes.
    Result<LedgerPointer> ledger(double frequency, const Watch& watch = {});

private:
    std::shared_ptr<const WireModel> m_model;
    double m_portReference;
    std::shared_ptr<em::GroundTableCache> m_tables;
    Recent<const em::ImpedanceCurve> m_curves{16};
    Recent<const PortSpot> m_spots{32};
    Recent<const em::PowerLedger> m_ledgers{8};
};

/// A conductor that stands near an antenna: a mast, another antenna, the shield of the feed line.
struct Neighbour {
    std::string id;
    std::vector<Vec3> points;
    double radius = 0.0;                ///< m
    std::optional<double> conductivity; ///< S/m; none: perfect
    std::vector<Load> loads;            ///< on it, and what its own feed ends in; their wire is no matter
    bool earthed = false;               ///< at its first point, which stands on the soil
    friend bool operator==(const Neighbour&, const Neighbour&) = default;
};

/// What the physics of one antenna depends on.
struct Subject {
    shapes::AntennaShape shape;
    Ground ground;
    std::size_t configuration = 0;
    std::vector<Neighbour> neighbours = {}; ///< that are counted in
    std::vector<FarSector> beyond = {};
    friend bool operator==(const Subject&, const Subject&) = default;
};

/// Puts what stands round a subject into its antenna's model: neighbours, and grounds far off.
void finish(const Subject& subject, WireModel& model);

/// A subject's wires with what stands behind their port, and the study they share with every subject of the same wires.
struct Studied {
    std::shared_ptr<const shapes::BuiltAntenna> built;
    std::shared_ptr<Study> study;
};

/// The studies used last, and the soil's tables that all of them share. One serves the whole program; thread-safe.
class Library {
public:
    explicit Library(std::size_t studies = 64);
    /// One that shares the tables of another, for studies that nobody asks for twice.
    Library(std::shared_ptr<em::GroundTableCache> tables, std::size_t studies);

    /// Builds the antenna. Faults: what cannot be built.
    Result<Studied> study(const Subject& subject);
    /// The study of any wires; their feeds' transformers are left out.
    std::shared_ptr<Study> study(const WireModel& model, double portReference = 50.0);

    [[nodiscard]] em::GroundTableCache& tables() { return *m_tables; }
    [[nodiscard]] const std::shared_ptr<em::GroundTableCache>& sharedTables() const { return m_tables; }
    [[nodiscard]] std::size_t size() const { return m_studies.size(); }

private:
    std::shared_ptr<em::GroundTableCache> m_tables = std::make_shared<em::GroundTableCache>();
    Recent<Study> m_studies;
};

} // namespace vetchling::study

#pragma once
/// What the stage Sky asks beyond the antenna on show: the whole sky as a grid, and other antennas to be held against it.

#include "app/document/asked.h"
#include "core/study/skies.h"

#include <QObject>

#include <set>

namespace vetchling::app {

class SkyDesk : public QObject {
    Q_OBJECT
public:
    SkyDesk(Document& document, SolveService& solver, QObject* parent = nullptr);

    /// What one looks at in a direction.
    struct Lobes {
        DetailPointer detail; ///< that it is of; its spot is the selected band's
        double elevation = 0.0, bearing = 0.0;
        study::Lobe shown;
        std::optional<study::Lobe> pinned;
        /// Where the ground farther off counts: the same over flat ground, and what the ground makes of it, dB.
        struct Ground {
            study::Lobe flat;
            std::optional<FarSector> line; ///< along the bearing and behind
            vetchling::Ground own;         ///< under the antenna
            double there = 0.0, behind = 0.0, least = 0.0, most = 0.0;
        };
        std::optional<Ground> ground;
    };
    /// @param elevation, bearing degrees
    void look(double elevation, double bearing);
    /// Null while nothing is solved.
    [[nodiscard]] std::shared_ptr<const Lobes> lobes() const { return m_lobes; }
    /// Of the field that the solver has for the selected band.
    void wantGrid();
    /// Null before the first.
    [[nodiscard]] std::shared_ptr<const study::SkyGrid> grid() const { return m_grid.answer(); }

    /// Antennas that are compared, the one on show always among them.
    [[nodiscard]] bool compares(const Id& antenna) const;
    void setCompared(const Id& antenna, bool on);
    [[nodiscard]] bool comparesVerticals() const { return m_verticals; }
    void setComparesVerticals(bool on);
    /// The other variants of the antenna on show, where it has any.
    [[nodiscard]] bool comparesVariants() const { return m_variants; }
    void setComparesVariants(bool on);
    void wantComparison();
    /// In the order of the shelf, the verticals last; null before the first.
    [[nodiscard]] std::shared_ptr<const std::vector<study::Skies>> comparison() const { return m_comparison.answer(); }
    [[nodiscard]] bool comparing() const { return m_comparison.busy(); }

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void gridReady();
    void comparisonReady();

private:
    [[nodiscard]] std::vector<Antenna> variantsBeside() const;

    Document& m_document;
    SolveService& m_solver;
    std::shared_ptr<const Lobes> m_lobes;
    DetailPointer m_pinned; ///< they were held against
    void addGround(Lobes& lobes) const;
    using Field = std::shared_ptr<const em::FarField>;
    Asked<Field, study::SkyGrid> m_grid;
    std::set<Id> m_left; ///< antennas that are not compared
    bool m_verticals = false, m_variants = true;
    struct Comparison {
        struct One {
            Id id;
            shapes::AntennaShape shape;
            Ground ground;
            std::vector<FarSector> beyond;
            friend bool operator==(const One&, const One&) = default;
        };
        DesignPointer design;
        std::vector<Antenna> antennas;
        std::vector<One> wires;
        Operation operation; ///< without where one looks, which is no matter of the fields
        Id vertical;         ///< band they are made for; empty: without
        friend bool operator==(const Comparison& a, const Comparison& b)
        {
            return a.wires == b.wires && a.operation == b.operation && a.design->site.soil.ground() == b.design->site.soil.ground() &&
                   a.vertical == b.vertical;
        }
    };
    Asked<Comparison, std::vector<study::Skies>> m_comparison;
};

} // namespace vetchling::app

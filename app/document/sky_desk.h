#pragma once
/// What the stage Sky asks beyond the antenna on show: the whole sky as a grid, and other antennas to be held against it.

#include "app/document/backgrounded.h"
#include "core/study/skies.h"

#include <QObject>

#include <set>

namespace vetchling::app {

class Document;

class SkyDesk : public QObject {
    Q_OBJECT
public:
    SkyDesk(Document& document, SolveService& solver, QObject* parent = nullptr);

    /// Of the field that the solver has for the selected band.
    void wantGrid();
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

signals:
    void gridReady();
    void comparisonReady();

private:
    [[nodiscard]] std::vector<Antenna> variantsBeside() const;

    Document& m_document;
    SolveService& m_solver;
    Backgrounded<study::SkyGrid> m_grid;
    Backgrounded<std::vector<study::Skies>> m_comparison;
    std::shared_ptr<const em::FarField> m_gridOf;
    std::set<Id> m_left; ///< antennas that are not compared
    bool m_verticals = false, m_variants = true;
    struct Asked {
        struct One {
            Id id;
            shapes::AntennaShape shape;
            std::vector<FarSector> beyond;
            friend bool operator==(const One&, const One&) = default;
        };
        std::vector<One> antennas;
        Operation operation;
        Ground ground;
        Id vertical; ///< band they are made for
        friend bool operator==(const Asked&, const Asked&) = default;
    };
    std::optional<Asked> m_asked;
};

} // namespace vetchling::app

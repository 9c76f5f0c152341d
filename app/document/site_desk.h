#pragma once
/// What the stage Site asks of the antenna on show: what each thing near it does to it.

#include "app/document/asked.h"
#include "core/study/far_ground.h"
#include "core/study/neighbours.h"

#include <QObject>

namespace vetchling::app {

class SiteDesk : public QObject {
    Q_OBJECT
public:
    SiteDesk(Document& document, SolveService& solver, QObject* parent = nullptr);

    /// What could be counted in beside the antenna on show.
    [[nodiscard]] std::vector<study::Neighbourhood> neighbourhood() const;
    void wantEffects();
    /// The last answer, while it is of the antenna and site as they are; null else.
    [[nodiscard]] std::shared_ptr<const std::vector<study::NeighbourEffect>> effects() const;
    [[nodiscard]] const Faults& faults() const { return m_effects.faults(); }
    [[nodiscard]] bool busy() const { return m_effects.busy(); }

    /// Ground along a bearing and behind, under the antenna on show; none where it is flat.
    [[nodiscard]] std::optional<TerrainProfile> lineTowards(double bearing) const;
    /// What the antenna on show would gain elsewhere along it at the wanted angle, on the selected band. @param reach m
    void wantPlaces(double bearing, double reach);
    /// Of the line that was asked for last, while antenna and ground are as they were; null before the first.
    [[nodiscard]] std::shared_ptr<const std::vector<study::PlaceGain>> places() const;
    /// Of all places along the line, not of some so far.
    [[nodiscard]] bool placesWhole() const;
    /// Between those that are known.
    [[nodiscard]] std::optional<study::PlaceGain> gainAtPlace(double away) const;
    [[nodiscard]] bool placesBusy() const { return m_places.busy() || m_solver.busy(); }
    [[nodiscard]] QString placesBand() const;

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void effectsReady();
    void placesReady();

private:
    Document& m_document;
    struct EffectsQuestion {
        DesignPointer design;
        Id antenna, band;
        std::size_t configuration = 0;
        friend bool operator==(const EffectsQuestion& a, const EffectsQuestion& b)
        {
            return a.antenna == b.antenna && a.band == b.band && a.configuration == b.configuration && a.design->site == b.design->site &&
                   a.design->antennas == b.design->antennas;
        }
    };
    [[nodiscard]] EffectsQuestion question() const;
    Asked<EffectsQuestion, std::vector<study::NeighbourEffect>> m_effects;
    struct PlacesQuestion {
        DetailPointer detail;
        Id band;
        std::vector<FarSector> beyond;
        double bearing = 0.0, elevation = 0.0, reach = 0.0;
        std::shared_ptr<const Site> site = {}; ///< of those sectors
        friend bool operator==(const PlacesQuestion& a, const PlacesQuestion& b)
        {
            return a.detail == b.detail && a.band == b.band && a.beyond == b.beyond && a.bearing == b.bearing &&
                   a.elevation == b.elevation && a.reach == b.reach;
        }
    };
    [[nodiscard]] std::optional<PlacesQuestion> placesQuestion(double bearing, double reach) const;
    SolveService& m_solver;
    double m_bearing = 0.0, m_reach = 0.0; ///< asked for last
    Asked<PlacesQuestion, std::vector<study::PlaceGain>> m_places;
};

} // namespace vetchling::app

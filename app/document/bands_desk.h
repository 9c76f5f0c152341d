#pragma once
/// What the stage Bands asks of the antenna on show beyond its present curve: all configurations together, what each band is of use for,
/// the map of lengths, the chart of settings.

#include "app/document/asked.h"
#include "core/study/compensation.h"
#include "core/study/finder.h"
#include "core/study/map_run.h"
#include "core/study/operating.h"
#include "core/study/settings.h"

#include <QObject>

#include <atomic>

namespace vetchling::app {

class BandsDesk : public QObject {
    Q_OBJECT
public:
    BandsDesk(Document& document, SolveService& solver, QObject* parent = nullptr);
    ~BandsDesk() override;

    /// Match of all configurations at once, then uses and shifts; nothing happens where they are known, under way, or a drag goes on.
    void wantOperating();
    /// The last answer for the antenna on show; null before the first.
    [[nodiscard]] std::shared_ptr<const study::Operating> operating() const { return m_operating.answer(); }
    /// Whether that answer is of the antenna as it is now.
    [[nodiscard]] bool operatingIsFresh() const;
    /// What the bands get behind the chain in use, all configurations together as far as they are known; null before anything is.
    [[nodiscard]] const BandService* service(const Id& band) const;
    [[nodiscard]] const Tally& tally() const { return m_tally; }

    /// A dimension over a range; see study::mapQuestionOf. @param from, to SI; 0: as usual @param tried computed in the antenna's place;
    /// the map before it is kept beside
    void wantMap(const std::string& vary, double from, double to, const std::optional<shapes::AntennaShape>& tried = {});
    /// The finished map of the antenna as it is, while another shape is tried; null else.
    [[nodiscard]] std::shared_ptr<const study::LengthMap> mapBefore() const { return m_mapBefore; }
    /// What is known of it; null where there is none.
    [[nodiscard]] std::shared_ptr<const study::LengthMap> map() const { return m_map; }
    [[nodiscard]] const Faults& mapFaults() const { return m_mapFaults; }
    /// Heights that the map can vary of the antenna on show, with its words and present value.
    [[nodiscard]] std::vector<std::string> heights() const;
    /// Whether it is turned by its mast.
    [[nodiscard]] bool turns() const { return m_document.hasAntenna() && study::turns(m_document.antenna()); }
    [[nodiscard]] std::optional<study::Varied> varied(const std::string& vary) const;
    [[nodiscard]] std::pair<double, double> usualRange(const std::string& vary) const;
    /// The antenna on show gets that value of a dimension of the map.
    void takeFromMap(const std::string& vary, double value, bool dragging);
    [[nodiscard]] bool mapping() const { return m_run && !m_run->finished() && (!m_map || m_map->progress() < 1.0); }
    void cancelMap();
    [[nodiscard]] Waiting mapWaiting();

    /// Lengths for a wire that goes to a tuner: by rule at once, by the map of its length as far as that is solved.
    void wantFinder(const std::string& lengthKey, const FreeLengthOptions& options);
    /// The last one, for the antenna on show; null before it is wanted.
    [[nodiscard]] std::shared_ptr<const study::FinderFacts> finder() const { return m_finder; }

    void wantSettings();
    /// Null before the first, as every answer of this desk.
    [[nodiscard]] std::shared_ptr<const study::SettingChart> settings() const { return m_settings.answer(); }
    [[nodiscard]] const Faults& settingFaults() const { return m_settings.faults(); }
    [[nodiscard]] bool setting() const { return m_settings.busy(); }
    /// By the person, so that the chart is of the antenna before the change.
    [[nodiscard]] bool settingsLeft() const { return m_settings.givenUp(); }

    /// A coil near the feed, solved for the wished bands.
    void wantCompensation() { wantCompensation(Id()); }
    /// A coil and a tail at the far end, for a band below.
    void wantLowerBand(const Id& band) { wantCompensation(band); }
    /// The last answer, for the antenna as it was then; null before the first.
    [[nodiscard]] std::shared_ptr<const study::Compensation> compensation() const { return m_compensation.answer(); }
    [[nodiscard]] const Faults& compensationFaults() const { return m_compensation.faults(); }
    [[nodiscard]] bool compensating() const { return m_compensation.busy(); }
    void forgetCompensation() { m_compensation.forget(); }

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void compensationReady();
    void operatingReady();
    void mapChanged();
    void settingsReady();

private:
    void judge();
    void judgeUnlessMoving();
    void beginMap();
    void takeMap();
    void leave();

    Document& m_document;
    SolveService& m_solver;
    struct OperatingQuestion {
        study::Question antenna;
        study::Aim aim;
        friend bool operator==(const OperatingQuestion&, const OperatingQuestion&) = default;
    };
    struct CompensationQuestion {
        study::Question antenna;
        Id lowerBand; ///< empty: for the wished bands
        friend bool operator==(const CompensationQuestion&, const CompensationQuestion&) = default;
    };
    [[nodiscard]] OperatingQuestion operatingQuestion() const;
    void wantCompensation(const Id& lowerBand);

    std::shared_ptr<study::References> m_references = std::make_shared<study::References>();
    std::map<Id, BandService> m_services; ///< worked out of what is solved whenever something changes: some milliseconds
    Tally m_tally;
    Asked<OperatingQuestion, study::Operating> m_operating;
    Asked<study::Question, study::SettingChart> m_settings;
    Asked<CompensationQuestion, study::Compensation> m_compensation;
    std::unique_ptr<study::MapRun> m_run;
    std::shared_ptr<std::atomic<bool>> m_mapPosted; ///< a change is on its way to this thread
    std::shared_ptr<const study::LengthMap> m_map, m_mapBefore;
    std::optional<study::MapQuestion> m_mapAsked;
    /// What it was put from, so that a page which shows it again asks nothing.
    struct MapPut {
        DesignPointer design;
        Id antenna;
        std::string vary;
        double from = 0.0, to = 0.0;
        friend bool operator==(const MapPut&, const MapPut&) = default;
    };
    MapPut m_mapPut;
    Faults m_mapFaults;
    std::shared_ptr<const study::FinderFacts> m_finder;
};

} // namespace vetchling::app

#pragma once
/// The ledger's part for the ground farther off: along bearings, typed, as a plain slope, or from a file of heights.

#include "app/view/context.h"
#include "app/widgets/ledger.h"
#include "core/site/height_grid.h"

#include <QFutureWatcher>

#include <optional>

class QCheckBox;

namespace vetchling::app {

class GroundPanel : public QObject {
    Q_OBJECT
public:
    GroundPanel(ViewContext& context, Ledger& ledger, QObject* parent);
    void refresh();
    /// That is looked along: of the chosen profile, else where one looks on Sky.
    [[nodiscard]] double bearing() const;
    /// Its first row.
    [[nodiscard]] QWidget* top() const { return m_note; }
    /// Takes profiles from a file of heights in the background; what came of it is said below.
    void takeHeights(const QString& path);
    [[nodiscard]] bool reading() const { return m_reading.isRunning(); }

signals:
    void chosen();

private:
    using Point = GroundProfile::Point;
    struct Taken {
        std::optional<GroundLines> lines;
        std::optional<GeoPlace> place;
        bool atMiddle = false;
        Faults faults;
    };
    void addProfiles(Ledger& ledger);
    void addSlope(Ledger& ledger);
    void addHeights(Ledger& ledger);
    [[nodiscard]] const GroundProfile* profile() const; ///< null without one
    [[nodiscard]] const Point* point() const;
    void addBearing();
    [[nodiscard]] double bearingOfLast() const;
    void addPoint();
    void removePoint();
    void laySlope();
    void takeLines();
    /// @param key of steps that are one change; empty: a change of its own
    void change(const QString& key, const std::function<void(GroundProfile&)>& change);
    void changePoint(const QString& key, const std::function<void(Point&)>& change);
    void replaceAll(const QString& what, std::vector<GroundProfile> profiles, const std::optional<GeoPlace>& place);
    void refreshPoint();
    [[nodiscard]] QString placeText() const;

    ViewContext& m_context;
    Ledger& m_ledger;
    Id m_profile;
    std::size_t m_point = 0;
    QString m_said;
    QCheckBox* m_flat;
    QComboBox *m_profiles, *m_points, *m_soil;
    ValueEdit *m_bearing, *m_distance, *m_height, *m_fall, *m_towards, *m_length;
    NameEdit* m_place;
    std::vector<QPushButton*> m_pointButtons;
    QPushButton *m_removeBearing, *m_removeAll, *m_open;
    QLabel *m_note, *m_fileNote;
    QFutureWatcher<Taken> m_reading;
};

} // namespace vetchling::app

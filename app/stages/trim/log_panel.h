#pragma once
/// The ledger of the log: what is known of the chosen entry, reports from the air, what worked where it was before, and the ways out.

#include "app/stages/trim/log_board.h"
#include "app/widgets/ledger.h"

#include <QLineEdit>

#include <array>

namespace vetchling::app {

class ValueEdit;

class LogPanel : public QObject {
    Q_OBJECT
public:
    LogPanel(ViewContext& context, LogDesk& desk, LogBoard& board, Ledger& ledger, QObject* parent);
    void refresh();
    void say(const QString& words);

signals:
    void csvAsked();
    void pageAsked();
    void picturesAsked();
    /// A picture to be looked at.
    void pictureAsked(const QString& path);

private:
    void addChosen(Ledger& ledger);
    void addReport(Ledger& ledger);
    void addWays(Ledger& ledger);
    void writeReport();
    void mendDate();
    [[nodiscard]] const Measurement* one() const;
    void set(const QString& text, const std::function<void(Measurement&)>& change);

    ViewContext& m_context;
    LogDesk& m_desk;
    LogBoard& m_board;
    QLabel *m_distanceLabel = nullptr, *m_which = nullptr, *m_places = nullptr, *m_said = nullptr, *m_reportSaid = nullptr;
    QString m_questionedDate; ///< that was asked about last
    QComboBox* m_soil = nullptr;
    QLineEdit *m_when = nullptr, *m_weather = nullptr, *m_place = nullptr, *m_report = nullptr, *m_reportRemark = nullptr;
    QPushButton *m_addPicture = nullptr, *m_showPicture = nullptr, *m_dropPictures = nullptr;
    ValueEdit *m_frequency = nullptr, *m_distance = nullptr, *m_bearing = nullptr, *m_power = nullptr, *m_solarFlux = nullptr,
              *m_kIndex = nullptr;
    QComboBox* m_fading = nullptr;
    /// Numbers of a report, which are empty until they are typed.
    [[nodiscard]] std::array<ValueEdit*, 6> reportFields() const
    {
        return {m_frequency, m_distance, m_bearing, m_power, m_solarFlux, m_kIndex};
    }
};

} // namespace vetchling::app

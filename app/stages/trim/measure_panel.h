#pragma once
/// The ledger of the trim page: read the antenna, say how it was taken and what was done since, write it down; and what was learned.

#include "app/document/analyser_desk.h"
#include "app/document/trim_desk.h"
#include "app/stages/trim/meter_box.h"
#include "app/view/context.h"
#include "app/widgets/ledger.h"
#include "core/trim/readings.h"

#include <QCheckBox>
#include <QLineEdit>
#include <QPlainTextEdit>

#include <map>

namespace vetchling::app {

class ValueEdit;

class MeasurePanel : public QObject {
    Q_OBJECT
public:
    MeasurePanel(ViewContext& context, TrimDesk& desk, AnalyserDesk& analyser, MeterDesk& meter, Ledger& ledger, QObject* parent);

    void refresh(double target, const QString& lever, bool oneChosen);
    /// A measurement is what was read, not what the program would like: all fields empty.
    void startEmpty();
    /// For another antenna: how it was taken is said anew; what was read waits for the antenna it was read of.
    void leaveAntenna();
    /// For another design.
    void forgetAll();
    /// Its dip goes into the fields; it is written down with what was cut and how high it hung. @param corrected R and X are to be believed
    /// @param when it was read, ISO 8601; empty: now
    void takeSweep(MeasuredSweep sweep, const QString& instrument, bool corrected, const QString& when = {});
    void say(const QString& words);
    /// What is in the fields; nothing, with the field in question having the focus, where they cannot be taken.
    std::optional<Measurement> measurement();
    /// Asks about a dip that is far from the model; the same one a second time is let through.
    bool question(double dip, double expected);
    /// Asks about a date that cannot be; the same one a second time is let through.
    bool questionDate(const Measurement& m);
    /// How the stand-in's antenna hangs by the log and the fields.
    [[nodiscard]] Handling handling() const;
    [[nodiscard]] double coax() const;
    /// What is to be swept: as it was typed, else as the card for the mast says.
    [[nodiscard]] std::optional<AnalyserDesk::Range> range() const;
    /// Shows the columns button, for the CSV that was opened last.
    void offerColumns(bool offered);

signals:
    void targetTyped(double hertz);
    void asCutTyped(double longer);
    void pieceChosen(std::size_t task);
    /// A sweep was read and is not written down yet; without points: there is none.
    void pendingChanged(const MeasuredSweep& sweep);
    void sweepAsked();
    void calibrateAsked();
    void meterAsked();
    void openAsked();
    void columnsAsked();
    void watchAsked();
    void portAsked();
    void writeAsked();
    void removeAsked();
    void fitAsked();
    void fitUsed();

private:
    /// What was read for a piece and is not written down, while another is looked at.
    struct Draft {
        MeasuredSweep sweep;
        QString instrument, when;
        bool corrected = false, byHand = false;
        std::optional<double> dip, swr, cut;
    };
    void addGoal(Ledger& ledger);
    void addRead(Ledger& ledger);
    void addTyped(Ledger& ledger);
    void addTaken(Ledger& ledger);
    void addDone(Ledger& ledger);
    void addLearned(Ledger& ledger);
    void refreshPieces();
    void refreshTasks();
    void refreshAsCut();
    void turnTo(const QString& task);
    [[nodiscard]] Draft taken() const;
    void bring(const Draft& draft);
    [[nodiscard]] std::string cutKey() const;
    void refreshAnalyser();
    void refreshLearned();
    [[nodiscard]] std::vector<double> channels() const;
    void workOutDip();
    void answerHand(bool fell);
    void sayOfReadings(const QString& words);
    [[nodiscard]] units::System system() const { return m_context.system(); }
    [[nodiscard]] std::vector<ValueEdit*> measuredFields() const;

    ViewContext& m_context;
    TrimDesk& m_desk;
    AnalyserDesk& m_analyser;
    MeterDesk& m_meter;
    Ledger& m_ledger;
    MeterBox* m_meterBox = nullptr;
    MeasuredSweep m_sweep; ///< read, and not yet written down; at the instrument's end of the coax
    QString m_instrument, m_when;
    bool m_corrected = false, m_byHand = false; ///< by hand: a few readings of a meter, whose lowest is no dip
    BothReadings m_both;
    double m_questioned = 0.0; ///< Hz: the dip that was asked about last
    std::string m_questionedDate;
    QString m_task; ///< that the fields are of
    std::map<QString, Draft> m_drafts;
    QComboBox* m_tasks = nullptr;
    ValueEdit *m_from = nullptr, *m_to = nullptr, *m_asCut = nullptr;
    ValueEdit *m_target = nullptr, *m_cut = nullptr, *m_dip = nullptr, *m_swr = nullptr, *m_height = nullptr, *m_coax = nullptr;
    QComboBox *m_line = nullptr, *m_soil = nullptr;
    QLineEdit *m_remark = nullptr, *m_weather = nullptr, *m_place = nullptr, *m_with = nullptr;
    QPlainTextEdit* m_readings = nullptr;
    QCheckBox* m_folded = nullptr;
    QPushButton *m_sweepNow = nullptr, *m_calibrate = nullptr, *m_remove = nullptr, *m_columns = nullptr, *m_fell = nullptr,
                *m_rose = nullptr, *m_fit = nullptr, *m_use = nullptr;
    QComboBox* m_piece = nullptr;
    QLabel *m_rangeNote = nullptr, *m_cutLabel = nullptr, *m_state = nullptr, *m_sweepNote = nullptr, *m_readingsNote = nullptr,
           *m_slope = nullptr, *m_offset = nullptr, *m_modelSlope = nullptr, *m_fitted = nullptr;
};

} // namespace vetchling::app

#pragma once
/// Measuring: what was read or typed, what the next step is, and the card for the mast.

#include "app/document/analyser_desk.h"
#include "app/document/meter_desk.h"
#include "app/document/trim_desk.h"
#include "app/document/watched_folder.h"
#include "app/stages/trim/trim_part.h"

namespace vetchling::app {

class MeasurePanel;
class MastCardBoard;
class TrimBoard;

class MeasurePart : public TrimPart {
    Q_OBJECT
public:
    MeasurePart(ViewContext& context, StagePage& page, Ledger& ledger, QObject* parent);

    [[nodiscard]] QWidget* next() const;
    [[nodiscard]] QWidget* card() const;
    [[nodiscard]] bool has(const QWidget* view) const override { return view == next() || view == card(); }
    void show(const QWidget* view) override;
    [[nodiscard]] QString tableText(const QWidget* view) const override;
    /// A few words on what is to be done: "cut 8 cm next".
    [[nodiscard]] QString summary() const;
    /// Opens the chosen cell of the log to be mended; false if none is.
    bool mendChosen();

    /// Its dip goes into the fields; it is written down with what was cut and how high it hung.
    void openSweep(const QString& path);
    /// What an analyser's program saves there from now on is opened.
    void watchFolder(const QString& folder);

signals:
    /// Something of this has come or was chosen.
    void changed();
    void summaryChanged();

private:
    void connectDesks();
    void connectBoard();
    void connectPanel();
    void startAnew();
    [[nodiscard]] QString sentence() const;
    /// The chosen line, else the last.
    void removeMeasurement();
    void mend(const Measurement& measurement);
    void takeRead(const MeasuredSweep& sweep, const QString& instrument, bool corrected, const QString& when = {});
    void takeSwept(const MeasuredSweep& sweep, bool corrected);
    void askForSweep();
    void askForFolder();
    void chooseColumns(const QString& path);
    void choosePort();
    /// The stand-in hangs on the antenna as it was built, with all that the log took off it.
    bool readyToRead();
    void sweepNow();
    void calibrate();
    void startMeter();
    void useFitted();
    void addMeasurement();

    TrimDesk m_desk;
    AnalyserDesk m_analyser;
    MeterDesk m_meter;
    TrimBoard* m_board;
    MastCardBoard* m_card;
    MeasurePanel* m_panel;
    WatchedFolder m_watched{{QStringLiteral("*.s1p"), QStringLiteral("*.s2p"), QStringLiteral("*.csv")}};
    double m_questioned = 0.0; ///< Hz: a mended dip that was asked about last
    QString m_opened;          ///< the file that was opened last
};

} // namespace vetchling::app

#pragma once
/// The trim page's graphic: curves measured so far, the goal, one big sentence, the log.

#include "app/document/trim_desk.h"
#include "app/plots/swr_chart.h"
#include "app/stages/trim/log_model.h"
#include "app/view/canvas.h"
#include "app/widgets/table.h"

class QPushButton;

namespace vetchling::app {

class TrimBoard : public Canvas {
    Q_OBJECT
public:
    TrimBoard(ViewContext& context, TrimDesk& desk);
    void render(Sketch& sketch, const QSizeF& size) override;

    [[nodiscard]] double target() const;
    [[nodiscard]] QString headline() const; ///< "Cut 5 cm from each side, hoist and measure again."
    [[nodiscard]] QString explanation() const;
    /// Another lever that would do, and what the step does to other bands.
    [[nodiscard]] QString beside() const;
    /// What trimming changes, in a sentence: "each side".
    [[nodiscard]] QString leverWords() const;
    /// "9.1 kHz a cm", or an inch.
    [[nodiscard]] QString slopeWords(double hertzAMetre) const;
    /// A sweep that was read and is not written down yet.
    void setPending(MeasuredSweep sweep);
    /// The measurement chosen in the log; empty if none is.
    [[nodiscard]] Id chosen() const;
    /// Opens the chosen cell of the log to be mended; false if none is.
    bool mendChosen();

signals:
    void mended(const Measurement& measurement);
    void removeWanted();
    void chosenChanged();
    void refused(const QString& why);

protected:
    void resizeEvent(QResizeEvent*) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void refreshLog();
    void placeButton();
    void paintCurves(Sketch& sketch, double width) const;
    void paintExpected(Sketch& sketch, const SwrChart& chart, const study::Curve& curve) const;
    void paintMeasured(Sketch& sketch, const SwrChart& chart) const;
    [[nodiscard]] SwrChart chartFor(double width) const;
    [[nodiscard]] double heightOfWords(const QString& words, double width) const;
    [[nodiscard]] double cardHeight(double width) const;
    [[nodiscard]] double rowsHeight() const;
    [[nodiscard]] double chartHeight() const;
    [[nodiscard]] double cardTop() const;
    void paintAdvice(Sketch& sketch, double top, double width) const;
    double paintSense(Sketch& sketch, double top, double width) const;
    double paintOrder(Sketch& sketch, double top, double width) const;
    /// Where the log begins: below the order of the work, where there is one.
    [[nodiscard]] double logTop() const;
    void paintLog(Sketch& sketch, double top, const QSizeF& size) const;
    [[nodiscard]] units::System system() const { return m_context.system(); }

    TrimDesk& m_desk;
    MeasuredSweep m_pending;
    LogModel* m_log;
    Table* m_table;
    QPushButton* m_believe; ///< shows the length that a doubt keeps back
};

} // namespace vetchling::app

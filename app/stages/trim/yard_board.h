#pragma once
/// The practice yard: the antenna between its masts, what can be done to it, and what was seen.

#include "app/document/yard_desk.h"
#include "app/plots/swr_chart.h"
#include "app/view/canvas.h"

#include <QPushButton>

namespace vetchling::app {

class YardBoard : public Canvas {
    Q_OBJECT
public:
    YardBoard(ViewContext& context, YardDesk& desk);
    void render(Sketch& sketch, const QSizeF& size) override;
    /// Which piece the hands are at; set by the ledger.
    void setTask(std::size_t task) { m_task = task; }
    [[nodiscard]] std::size_t task() const { return m_task; }
    /// "10:02 sweep: dip 6.910, SWR 2.3", oldest first.
    [[nodiscard]] QStringList notes() const;
    void refresh();

signals:
    void foldAsked();
    void cutAsked();
    void heightAsked();
    void verdictAsked();

protected:
    void resizeEvent(QResizeEvent*) override;

private:
    QPushButton* addAct(const QString& words, const QString& time, const QString& objectName);
    void paintPicture(Sketch& sketch, const QRectF& area, const Yard& yard) const;
    void paintReading(Sketch& sketch, const QRectF& area, const Yard& yard) const;
    void paintPlan(Sketch& sketch, const QRectF& area, const Yard& yard) const;
    static void paintSweep(Sketch& sketch, const SwrChart& chart, const MeasuredSweep& sweep, const QPen& pen);
    double paintVerdict(Sketch& sketch, double top, double width, const Yard& yard) const;
    void paintNotes(Sketch& sketch, double top, const QSizeF& size) const;

    YardDesk& m_desk;
    std::vector<QPushButton*> m_acts;
    std::size_t m_task = 0;
};

} // namespace vetchling::app

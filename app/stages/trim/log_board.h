#pragma once
/// The log: how each dip wandered over the months, any two entries held against one another, and all that was written down.

#include "app/document/log_desk.h"
#include "app/stages/trim/log_book_model.h"
#include "app/view/canvas.h"
#include "app/widgets/table.h"

namespace vetchling::app {

class LogBoard : public Canvas {
    Q_OBJECT
public:
    LogBoard(ViewContext& context, LogDesk& desk);
    void render(Sketch& sketch, const QSizeF& size) override;
    void refresh();
    [[nodiscard]] QString sentence() const;
    /// Entries that are chosen, oldest first; two at most.
    [[nodiscard]] std::vector<Id> chosen() const;
    /// A page with the time lines and every entry. Empty, or why not.
    Faults writePage(const QString& path);

signals:
    void chosenChanged();
    void removeWanted();

protected:
    void resizeEvent(QResizeEvent*) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    int paintPage(QPainter& painter, const QSizeF& size) const;
    int paintRest(QPainter& painter, const QSizeF& size, int row) const;
    void paintTimes(Sketch& sketch, const QRectF& area) const;
    void paintSeries(Sketch& sketch, const QRectF& area, const LogLine& line, double from, double to, bool dates) const;
    bool paintCompared(Sketch& sketch, const QRectF& area) const;
    void paintReports(Sketch& sketch, const QRectF& area, double from, double to) const;

    LogDesk& m_desk;
    LogBookModel* m_model;
    Table* m_table;
};

} // namespace vetchling::app

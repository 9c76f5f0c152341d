#pragma once
/// The log: how each dip wandered over the months, any two entries held against one another, and all that was written down.

#include "app/document/log_desk.h"
#include "app/stages/trim/log_book_model.h"
#include "app/stages/trim/log_drawing.h"
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
    /// What a page is made from.
    [[nodiscard]] LogFacts facts() const;

signals:
    void chosenChanged();
    void removeWanted();

protected:
    void resizeEvent(QResizeEvent*) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    bool paintCompared(Sketch& sketch, const QRectF& area) const;

    LogDesk& m_desk;
    LogBookModel* m_model;
    Table* m_table;
};

} // namespace vetchling::app

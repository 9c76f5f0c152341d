#pragma once
/// The trim page's graphic: curves measured so far, the goal, one big sentence, the log.

#include "app/stages/trim/log_model.h"
#include "app/view/canvas.h"
#include "app/widgets/table.h"
#include "core/trim/trim.h"

namespace vetchling::app {

class TrimBoard : public Canvas {
    Q_OBJECT
public:
    explicit TrimBoard(ViewContext& context);
    void render(Sketch& sketch, const QSizeF& size) override;

    [[nodiscard]] double target() const;
    [[nodiscard]] TrimAdvice advice() const;
    [[nodiscard]] QString headline() const; ///< "Cut 5 cm from each side, then hoist and measure again."
    [[nodiscard]] QString explanation() const;

protected:
    void resizeEvent(QResizeEvent*) override;

private:
    void refreshLog();
    void paintCurves(Sketch& sketch, double width) const;
    void paintAdvice(Sketch& sketch, double top, double width) const;
    void paintLog(Sketch& sketch, double top, const QSizeF& size) const;
    [[nodiscard]] units::System system() const { return m_context.system(); }

    LogModel* m_log;
    Table* m_table;
};

} // namespace vetchling::app

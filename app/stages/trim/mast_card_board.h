#pragma once
/// The card for the mast: what to do before measuring, step by step.

#include "app/document/trim_desk.h"
#include "app/view/canvas.h"

namespace vetchling::app {

class MastCardBoard : public Canvas {
    Q_OBJECT
public:
    MastCardBoard(ViewContext& context, TrimDesk& desk);
    void render(Sketch& sketch, const QSizeF& size) override;
    [[nodiscard]] QStringList steps() const;

private:
    TrimDesk& m_desk;
};

} // namespace vetchling::app

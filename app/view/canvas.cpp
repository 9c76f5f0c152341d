#include "app/view/canvas.h"

#include "app/view/sketch.h"

namespace vetchling::app {

Canvas::Canvas(ViewContext& context, QWidget* parent) : QWidget(parent), m_context(context)
{
    setMinimumSize(320, 240);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    connect(&context.theme, &Theme::changed, this, qOverload<>(&QWidget::update));
}

void Canvas::paintEvent(QPaintEvent*)
{
    QPainter painter(this);
    Sketch sketch(painter, m_context.theme);
    m_onScreen = true;
    render(sketch, size());
    m_onScreen = false;
}

} // namespace vetchling::app

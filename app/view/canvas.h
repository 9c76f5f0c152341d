#pragma once
/// A graphic that can paint itself at any size: on screen, and into an exported picture.

#include "app/view/context.h"

#include <QWidget>

namespace vetchling::app {

class Sketch;

class Canvas : public QWidget {
    Q_OBJECT
public:
    Canvas(ViewContext& context, QWidget* parent = nullptr);
    virtual void render(Sketch& sketch, const QSizeF& size) = 0;

protected:
    void paintEvent(QPaintEvent*) override;
    /// Whether `render` paints the widget, whose children stand on it, and not an exported picture.
    [[nodiscard]] bool onScreen() const { return m_onScreen; }
    ViewContext& m_context;

private:
    bool m_onScreen = false;
};

} // namespace vetchling::app

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
    ViewContext& m_context;
};

} // namespace vetchling::app

#include "app/view/aimed_canvas.h"

#include "core/physics.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {

AimedCanvas::AimedCanvas(ViewContext& context, QWidget* parent) : Canvas(context, parent) { setFocusPolicy(Qt::StrongFocus); }

void AimedCanvas::setAim(double elevation, double bearing)
{
    m_elevation = elevation;
    m_bearing = bearing;
    update();
}

void AimedCanvas::aimOnDial(QPointF fromCentre)
{
    const double angle = degrees(std::atan2(-fromCentre.y(), fromCentre.x()));
    if (angle > 90.0) // the other side of the dial: turn the plane about
        emit aimed(std::clamp(std::round(180.0 - angle), 1.0, 90.0), std::fmod(m_bearing + 180.0, 360.0));
    else
        emit aimed(std::clamp(std::round(angle), 1.0, 90.0), m_bearing);
}

void AimedCanvas::mousePressEvent(QMouseEvent* event) { aimAt(event->position()); }

void AimedCanvas::mouseMoveEvent(QMouseEvent* event)
{
    if (event->buttons() & Qt::LeftButton)
        aimAt(event->position());
}

void AimedCanvas::keyPressEvent(QKeyEvent* event)
{
    constexpr double turn = 5.0; // degrees
    switch (event->key()) {
    case Qt::Key_Up: emit aimed(std::min(90.0, m_elevation + 1.0), m_bearing); break;
    case Qt::Key_Down: emit aimed(std::max(1.0, m_elevation - 1.0), m_bearing); break;
    case Qt::Key_Left: emit aimed(m_elevation, std::fmod(m_bearing + 360.0 - turn, 360.0)); break;
    case Qt::Key_Right: emit aimed(m_elevation, std::fmod(m_bearing + turn, 360.0)); break;
    default: Canvas::keyPressEvent(event);
    }
}

} // namespace vetchling::app

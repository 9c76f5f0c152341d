#include "app/window/message.h"

#include "app/widgets/ledger.h"

#include <QEvent>

#include <algorithm>

namespace vetchling::app {
namespace {

constexpr int leastTime = 5000, timeACharacter = 70;  // ms
constexpr int inset = 10, widest = 760, padding = 11; // px

} // namespace

Message::Message(QWidget* over) : QLabel(over)
{
    setObjectName(QStringLiteral("message"));
    setWordWrap(true);
    setMargin(padding);
    setToolTip(tr("Click to put it away"));
    m_time.setSingleShot(true);
    connect(&m_time, &QTimer::timeout, this, &QWidget::hide);
    over->installEventFilter(this);
    hide();
}

void Message::setColours(const QColor& ground, const QColor& edge)
{
    setStyleSheet(
        QStringLiteral("QLabel#message { background: %1; border: 1px solid %2; border-radius: 6px; }").arg(ground.name(), edge.name()));
}

void Message::say(const QString& words)
{
    setText(words);
    setVisible(!words.isEmpty());
    m_time.start(leastTime + timeACharacter * int(words.size()));
    place();
    raise();
}

void Message::place()
{
    const int room = parentWidget()->width() - Ledger::paneWidth; // fields are not covered; the page's title is at the top
    const int width = std::min(widest, room - 2 * inset);
    ensurePolished();
    const QRect words = fontMetrics().boundingRect(QRect(0, 0, width - 2 * padding, 1000), Qt::TextWordWrap, text());
    const int height = words.height() + 2 * padding;
    setGeometry((room - width) / 2, parentWidget()->height() - inset - height, width, height);
}

bool Message::eventFilter(QObject* watched, QEvent* event)
{
    if (event->type() == QEvent::Resize && isVisible())
        place();
    return QLabel::eventFilter(watched, event);
}

} // namespace vetchling::app

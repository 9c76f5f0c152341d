#include "app/window/waiting_box.h"

#include "app/window/trail.h"

#include <QLabel>
#include <QPainter>
#include <QProgressBar>
#include <QToolButton>
#include <QVBoxLayout>

#include <cmath>

namespace vetchling::app {
namespace {

constexpr int lookMilliseconds = 250, looksBefore = 3; // shown from three quarters of a second on

} // namespace

WaitingBox::WaitingBox(ViewContext& context, QWidget* parent) : QWidget(parent), m_context(context)
{
    setObjectName(QStringLiteral("waitingBox"));
    setAccessibleName(tr("What is being computed"));
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(10, 6, 8, 8);
    layout->setSpacing(6);
    m_look.setInterval(lookMilliseconds);
    connect(&m_look, &QTimer::timeout, this, &WaitingBox::refresh);
    m_look.start();
    setNarrow(false);
    hide();
}

void WaitingBox::paintEvent(QPaintEvent*)
{
    QPainter painter(this);
    painter.fillRect(rect(), m_context.theme.colours().panel);
    painter.fillRect(QRect(width() - 1, 0, 1, height()), m_context.theme.colours().hairline);
}

void WaitingBox::addRow(std::size_t place)
{
    auto* all = new QWidget;
    auto* layout = new QVBoxLayout(all);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(2);
    auto* line = new QHBoxLayout;
    line->setSpacing(2);
    auto* words = new QLabel;
    words->setProperty("role", "note");
    words->setWordWrap(true);
    words->setVisible(!m_narrow);
    auto* button = new QToolButton;
    button->setObjectName(QStringLiteral("leave %1").arg(place));
    line->addWidget(words, 1);
    line->addWidget(button);
    auto* bar = new QProgressBar;
    bar->setTextVisible(false);
    bar->setRange(0, 1000);
    bar->setFixedHeight(4);
    layout->addLayout(line);
    layout->addWidget(bar);
    this->layout()->addWidget(all);
    connect(button, &QToolButton::clicked, this, [this, place] {
        const Waiting& waiting = m_context.waitings[place].waiting;
        waiting.givenUp() ? waiting.goOn() : waiting.giveUp();
        refresh();
    });
    all->hide();
    m_rows.push_back({all, words, bar, button});
}

void WaitingBox::setNarrow(bool narrow)
{
    m_narrow = narrow;
    setFixedWidth(narrow ? Trail::narrowWidth : Trail::usualWidth);
    for (Row& row : m_rows)
        row.words->setVisible(!narrow);
}

void WaitingBox::show(Row& row, const NamedWaiting& named)
{
    const bool left = named.waiting.givenUp();
    const double progress = named.waiting.progress();
    const QString words = left             ? tr("%1: left").arg(named.name)
                          : progress > 0.0 ? tr("%1, %2 %").arg(named.name).arg(std::floor(100.0 * progress), 0, 'f', 0)
                                           : tr("%1 …").arg(named.name);
    row.words->setText(words);
    row.bar->setVisible(!left);
    row.bar->setValue(int(1000.0 * progress));
    row.bar->setAccessibleName(words);
    row.button->setText(left ? QStringLiteral("↻") : QStringLiteral("×"));
    row.button->setToolTip(left ? tr("%1. Press to go on").arg(words) : tr("%1. Press to leave it").arg(words));
    row.button->setAccessibleName(row.button->toolTip());
}

void WaitingBox::refresh()
{
    while (m_rows.size() < m_context.waitings.size())
        addRow(m_rows.size());
    bool any = false;
    for (std::size_t i = 0; i < m_rows.size(); ++i) {
        const NamedWaiting& named = m_context.waitings[i];
        Row& row = m_rows[i];
        const bool left = named.waiting.givenUp();
        row.seen = named.waiting.busy() ? row.seen + 1 : 0;
        const bool shown = left || row.seen > looksBefore;
        if (shown)
            show(row, named);
        row.all->setVisible(shown);
        any = any || shown;
    }
    setVisible(any);
}

} // namespace vetchling::app

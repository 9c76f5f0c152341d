#include "app/stages/view_buttons.h"

#include <QToolButton>

namespace vetchling::app {

ViewButtons::ViewButtons(StagePage& page, const QString& stackName, QObject* parent)
    : QObject(parent), m_page(page), m_views(new QStackedWidget)
{
    m_views->setObjectName(stackName);
    page.body()->addWidget(m_views, 1);
}

QToolButton* ViewButtons::add(const QString& words, const QString& objectName, QWidget* view, const QString& help)
{
    auto* button = new QToolButton;
    button->setText(words);
    button->setProperty("segment", true);
    button->setCheckable(true);
    button->setChecked(m_entries.empty());
    button->setObjectName(objectName);
    button->setAccessibleName(tr("%1 view").arg(words));
    button->setToolTip(help);
    const int place = int(m_entries.size());
    m_entries.push_back({button, view});
    m_page.addView(button);
    if (m_views->indexOf(view) < 0)
        m_views->addWidget(view);
    connect(button, &QToolButton::clicked, this, [this, place] { showPlace(place); });
    return button;
}

void ViewButtons::turnTo(int place)
{
    m_place = place;
    for (std::size_t i = 0; i < m_entries.size(); ++i)
        m_entries[i].button->setChecked(int(i) == place);
    m_views->setCurrentWidget(m_entries[std::size_t(place)].view);
}

void ViewButtons::showPlace(int place)
{
    turnTo(place);
    emit chosen();
}

void ViewButtons::show(QWidget* view)
{
    for (std::size_t i = 0; i < m_entries.size(); ++i)
        if (m_entries[i].view == view)
            return showPlace(int(i));
}

void ViewButtons::showNamed(const QString& objectName)
{
    for (std::size_t i = 0; i < m_entries.size(); ++i)
        if (m_entries[i].button->objectName().compare(objectName, Qt::CaseInsensitive) == 0)
            return showPlace(int(i));
}

void ViewButtons::setOffered(int place, bool offered)
{
    m_entries[std::size_t(place)].button->setVisible(offered);
    if (!offered && place == m_place)
        turnTo(0);
}

} // namespace vetchling::app

#include "app/stages/view_buttons.h"

#include <QToolButton>

namespace vetchling::app {

ViewButtons::ViewButtons(StagePage& page, const QString& stackName, QObject* parent)
    : QObject(parent), m_views(new QStackedWidget), m_row(new QHBoxLayout), m_group(new QButtonGroup(this))
{
    m_views->setObjectName(stackName);
    page.body()->addWidget(m_views, 1);
    m_row->setSpacing(0);
    page.header()->addLayout(m_row);
    page.header()->setAlignment(m_row, Qt::AlignTop);
}

void ViewButtons::add(const QString& words, const QString& objectName, QWidget* view)
{
    auto* button = new QToolButton;
    button->setText(words);
    button->setProperty("segment", true);
    button->setCheckable(true);
    button->setChecked(m_views->count() == 0);
    button->setObjectName(objectName);
    button->setAccessibleName(tr("%1 view").arg(words));
    m_group->addButton(button, m_views->count());
    m_row->addWidget(button);
    m_views->addWidget(view);
    connect(button, &QToolButton::clicked, this, [this, view] { show(view); });
}

void ViewButtons::show(QWidget* view)
{
    m_views->setCurrentWidget(view);
    if (auto* button = m_group->button(m_views->indexOf(view)))
        button->setChecked(true);
    emit chosen();
}

} // namespace vetchling::app

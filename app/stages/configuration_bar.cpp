#include "app/stages/configuration_bar.h"

#include "app/view/words.h"

#include <QHBoxLayout>
#include <QToolButton>

namespace vetchling::app {

ConfigurationBar::ConfigurationBar(ViewContext& context, QWidget* parent)
    : QWidget(parent), m_context(context), m_row(new QHBoxLayout(this))
{
    setObjectName(QStringLiteral("configurationBar"));
    setAccessibleName(tr("Links"));
    m_row->setContentsMargins(0, 0, 0, 0);
    m_row->setSpacing(0);
    setVisible(false);
}

/// After its band where it has one.
QString ConfigurationBar::nameOf(const shapes::Configuration& configuration) const
{
    for (const WantedBand& w : m_context.document.design().operation.bands)
        if (configuration.frequency >= w.band.from && configuration.frequency <= w.band.to)
            return QString::fromStdString(w.band.name);
    return frequencyWords(configuration.frequency);
}

void ConfigurationBar::refresh()
{
    std::vector<shapes::Configuration> all;
    if (m_context.document.hasAntenna())
        all = m_context.document.family().configurations(m_context.document.antenna().shape);
    setVisible(all.size() > 1);
    if (!isVisibleTo(parentWidget()))
        return;
    while (m_buttons.size() > all.size()) {
        delete m_buttons.back();
        m_buttons.pop_back();
    }
    while (m_buttons.size() < all.size()) {
        const std::size_t place = m_buttons.size();
        auto* button = new QToolButton(this);
        button->setProperty("segment", true);
        button->setCheckable(true);
        button->setObjectName(QStringLiteral("configuration%1").arg(place + 1));
        connect(button, &QToolButton::clicked, this, [this, place] {
            m_context.document.setConfiguration(place);
            refresh(); // pressed again it stays down
        });
        m_row->addWidget(button);
        m_buttons.push_back(button);
    }
    for (std::size_t i = 0; i < all.size(); ++i) {
        m_buttons[i]->setText(nameOf(all[i]));
        m_buttons[i]->setChecked(i == m_context.document.configuration());
        const QString words =
            i + 1 == all.size() ? tr("All links closed") : tr("%n link(s) closed, counted from the feed", nullptr, int(i));
        m_buttons[i]->setToolTip(words);
        m_buttons[i]->setAccessibleName(tr("%1: %2").arg(nameOf(all[i]), words));
    }
}

} // namespace vetchling::app

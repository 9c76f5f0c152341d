#include "app/stages/stage.h"

#include "app/view/old_figures.h"
#include "app/view/words.h"
#include "core/bands/wanted.h"

#include <QEvent>

#include <algorithm>

namespace vetchling::app {

namespace {

QWidget* rowOf(QWidget* parent, int spacing)
{
    auto* row = new QWidget(parent);
    row->setFixedHeight(StagePage::rowHeight);
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(spacing);
    return row;
}

} // namespace

StagePage::StagePage(QWidget* parent)
    : QWidget(parent), m_title(new QLabel(this)), m_sentence(new QLabel(this)), m_alarm(new QLabel(this)), m_options(rowOf(this, 10)),
      m_views(rowOf(this, 0))
{
    setObjectName(QStringLiteral("stageArea"));
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(18, 12, 18, 10);
    layout->setSpacing(8);
    m_title->setProperty("role", "title");
    m_title->setObjectName(QStringLiteral("stageTitle"));
    m_title->setFixedHeight(rowHeight);
    m_title->setMinimumWidth(1); // it is elided
    m_sentence->setProperty("role", "sentence");
    m_sentence->setObjectName(QStringLiteral("stageSentence"));
    m_sentence->setWordWrap(true);
    m_header = new QHBoxLayout;
    m_header->setSpacing(10);
    m_header->addWidget(m_title, 1);
    m_header->addWidget(m_options, 0, Qt::AlignTop);
    m_header->addWidget(m_views, 0, Qt::AlignTop);
    auto* head = new QVBoxLayout;
    head->setSpacing(4);
    head->addLayout(m_header);
    m_viewsRow = new QHBoxLayout; // empty unless there is no room beside the title
    head->addLayout(m_viewsRow);
    m_below = new QHBoxLayout;
    m_below->setSpacing(10);
    m_below->addWidget(m_sentence, 1);
    head->addLayout(m_below);
    m_alarm->setProperty("role", "caution");
    m_alarm->setObjectName(QStringLiteral("stageAlarm"));
    m_alarm->setWordWrap(true);
    m_alarm->hide();
    head->addWidget(m_alarm);
    layout->addLayout(head);
    m_body = new QVBoxLayout;
    m_body->setSpacing(8);
    layout->addLayout(m_body, 1);
}

void StagePage::addOption(QWidget* option) { m_options->layout()->addWidget(option); }
void StagePage::addView(QWidget* button) { m_views->layout()->addWidget(button); }

void StagePage::setTitle(const QString& words)
{
    m_name = words;
    m_title->setToolTip(words);
    arrange();
}

void StagePage::setSentence(const QString& words) { m_sentence->setText(words); }

void StagePage::setAlarm(const QString& words)
{
    m_alarm->setText(words);
    m_alarm->setVisible(!words.isEmpty());
}

void StagePage::resizeEvent(QResizeEvent* event)
{
    QWidget::resizeEvent(event);
    arrange();
}

bool StagePage::event(QEvent* event)
{
    if (event->type() == QEvent::LayoutRequest) // an option or a view has come or gone
        arrange();
    return QWidget::event(event);
}

void StagePage::arrange()
{
    constexpr int leastTitle = 150;
    const QFontMetrics metrics(m_title->font());
    const int room = contentsRect().width() - layout()->contentsMargins().left() - layout()->contentsMargins().right();
    const int spacing = m_header->spacing(), title = std::min(leastTitle, metrics.horizontalAdvance(m_name) + 4);
    const int options = m_options->sizeHint().width() + spacing, views = m_views->sizeHint().width() + spacing;
    const bool viewsBeside = title + views <= room, optionsBeside = title + options + (viewsBeside ? views : 0) <= room;
    const auto place = [](QWidget* part, QHBoxLayout* from, QHBoxLayout* to, int at) {
        if (to->indexOf(part) >= 0)
            return;
        from->removeWidget(part);
        to->insertWidget(at, part, 0, Qt::AlignTop);
    };
    place(m_options, optionsBeside ? m_below : m_header, optionsBeside ? m_header : m_below, 1);
    place(m_views, viewsBeside ? m_viewsRow : m_header, viewsBeside ? m_header : m_viewsRow, viewsBeside ? -1 : 0);
    const QString shown =
        metrics.elidedText(m_name, Qt::ElideRight, std::max(0, room - (viewsBeside ? views : 0) - (optionsBeside ? options : 0)));
    if (shown != m_title->text())
        m_title->setText(shown);
}

Stage::Stage(ViewContext& context, QObject* parent) : QObject(parent), m_context(context), m_page(new StagePage), m_ledger(new Ledger)
{
    m_ledger->setBandCentre([this](const std::string& name) { return centreOf(document().design().operation.bands, name); });
}

void Stage::addConfigurations()
{
    m_variant = new VariantBar(m_context, m_page);
    m_page->addOption(m_variant);
    m_configurations = new ConfigurationBar(m_context, m_page);
    m_page->addOption(m_configurations);
}

void Stage::tellsFigures(std::initializer_list<QWidget*> graphics)
{
    paleWhileOld(solver(), m_page->sentenceLabel());
    for (QWidget* graphic : graphics)
        paleWhileOld(solver(), graphic);
}

void Stage::refreshAlarm()
{
    const AntennaModel* model = m_context.models.current();
    QStringList words;
    int more = 0;
    bool danger = false;
    for (const advice::Finding& f : model ? model->findings : std::vector<advice::Finding>()) {
        if (!f.everywhere)
            continue;
        danger = danger || f.gravity == advice::Gravity::Danger;
        if (words.isEmpty())
            words << (f.ofSupport ? coreWords(f.message, system()) : tr("it %1").arg(coreWords(f.message, system())));
        else
            ++more;
    }
    if (more > 0)
        words << tr("%n more on Site", nullptr, more);
    m_page->setAlarm(
        words.isEmpty() ? QString() : (danger ? tr("Danger: %1.") : tr("Not safe as it hangs: %1.")).arg(words.join(QStringLiteral("; "))));
}

void Stage::refreshConfigurations(bool shown)
{
    if (!m_configurations)
        return;
    if (!shown) {
        m_variant->hide();
        m_configurations->hide();
        return;
    }
    m_variant->refresh();
    m_configurations->refresh();
}

QString Stage::faultSentence() const
{
    const Faults& faults = solver().faults();
    return faults.empty() ? QString() : coreWords(faults.front().message, system());
}

} // namespace vetchling::app

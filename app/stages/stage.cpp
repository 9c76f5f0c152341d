#include "app/stages/stage.h"

#include "app/view/words.h"
#include "core/bands/wanted.h"

namespace vetchling::app {

StagePage::StagePage(QWidget* parent) : QWidget(parent), m_title(new QLabel(this)), m_sentence(new QLabel(this))
{
    setObjectName(QStringLiteral("stageArea"));
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(18, 12, 18, 10);
    layout->setSpacing(8);
    m_title->setProperty("role", "title");
    m_title->setObjectName(QStringLiteral("stageTitle"));
    m_sentence->setProperty("role", "sentence");
    m_sentence->setObjectName(QStringLiteral("stageSentence"));
    m_sentence->setWordWrap(true);
    m_header = new QHBoxLayout;
    m_header->setSpacing(10);
    m_header->addWidget(m_title, 1, Qt::AlignTop);
    auto* head = new QVBoxLayout;
    head->setSpacing(2);
    head->addLayout(m_header);
    m_below = new QHBoxLayout;
    m_below->setSpacing(10);
    m_below->addWidget(m_sentence, 1);
    head->addLayout(m_below);
    layout->addLayout(head);
    m_body = new QVBoxLayout;
    m_body->setSpacing(8);
    layout->addLayout(m_body, 1);
}

void StagePage::setTitle(const QString& words) { m_title->setText(words); }
void StagePage::setSentence(const QString& words) { m_sentence->setText(words); }

Stage::Stage(ViewContext& context, QObject* parent) : QObject(parent), m_context(context), m_page(new StagePage), m_ledger(new Ledger)
{
    m_ledger->setBandCentre([this](const std::string& name) { return centreOf(document().design().operation.bands, name); });
}

void Stage::addConfigurations(QHBoxLayout* row)
{
    if (!row)
        row = m_page->header();
    m_variant = new VariantBar(m_context, m_page);
    row->addWidget(m_variant, 0, Qt::AlignTop);
    m_configurations = new ConfigurationBar(m_context, m_page);
    row->addWidget(m_configurations, 0, Qt::AlignTop);
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

/// Trim: measured dips in, the next cut out, everything written down.
#include "app/stages/stage.h"
#include "app/stages/trim/log_part.h"
#include "app/stages/trim/measure_part.h"
#include "app/stages/trim/yard_part.h"
#include "app/stages/view_buttons.h"

#include <algorithm>
#include <array>

namespace vetchling::app {
namespace {

class TrimStage final : public Stage {
    Q_OBJECT
public:
    TrimStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_measuring(context, *m_page, *m_ledger, this), m_logging(context, *m_page, *m_ledger, this),
          m_practising(context, *m_page, *m_ledger, this), m_views(*m_page, QStringLiteral("trimViews"), this)
    {
        m_ledger->finish();
        addConfigurations();
        m_views.add(tr("Next"), QStringLiteral("trimNext"), m_measuring.next());
        m_views.add(tr("Mast card"), QStringLiteral("trimCard"), m_measuring.card());
        m_views.add(tr("Log"), QStringLiteral("trimLog"), m_logging.log());
        m_views.add(tr("Practice yard"), QStringLiteral("trimYard"), m_practising.yard());
        connect(&m_views, &ViewButtons::chosen, this, &TrimStage::refresh);
        connect(&m_measuring, &MeasurePart::changed, this, &TrimStage::refresh);
        connect(&m_measuring, &MeasurePart::summaryChanged, this, &TrimStage::summaryChanged);
        connect(&m_logging, &LogPart::changed, this, &TrimStage::refresh);
        showLedger();
    }

    QString id() const override { return QStringLiteral("trim"); }
    QString name() const override { return tr("Trim"); }
    Canvas* canvas() override { return static_cast<Canvas*>(m_views.current()); }

    void showView(const QString& view) override { m_views.showNamed(QStringLiteral("trim") + view); }

    QString summary() const override
    {
        if (!document().hasAntenna())
            return tr("nothing to trim");
        if (!solver().faults().empty())
            return tr("not possible");
        return m_measuring.summary();
    }

    bool rename() override { return m_measuring.mendChosen(); }
    QString tableText() const override { return shown().tableText(m_views.current()); }

    void refresh() override
    {
        refreshConfigurations(&shown() != &m_practising);
        showLedger();
        if (!document().hasAntenna()) {
            m_page->setTitle(tr("Trim"));
            m_page->setSentence(tr("Add an antenna with + at the top; its measurements are kept here. The practice yard needs none."));
        }
        shown().show(m_views.current());
    }

public slots:
    void takeSweepFile(const QString& path) { m_measuring.openSweep(path); }
    void watch(const QString& folder) { m_measuring.watchFolder(folder); }

private:
    [[nodiscard]] TrimPart& shown() const
    {
        return **std::find_if(m_parts.begin(), m_parts.end(), [&](const TrimPart* part) { return part->has(m_views.current()); });
    }

    void showLedger()
    {
        for (TrimPart* part : m_parts)
            part->showLedger(part == &shown());
    }

    MeasurePart m_measuring;
    LogPart m_logging;
    YardPart m_practising;
    std::array<TrimPart*, 3> m_parts{&m_measuring, &m_logging, &m_practising};
    ViewButtons m_views;
};

} // namespace

std::unique_ptr<Stage> makeTrimStage(ViewContext& context, QObject* parent) { return std::make_unique<TrimStage>(context, parent); }

} // namespace vetchling::app

#include "trim_stage.moc"

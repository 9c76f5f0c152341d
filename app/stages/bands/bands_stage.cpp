/// Bands: where the antenna can be operated, and which length or setting would serve best.
#include "app/stages/bands/coverage_view.h"
#include "app/stages/bands/finder_view.h"
#include "app/stages/bands/length_map_view.h"
#include "app/stages/bands/settings_view.h"
#include "app/stages/view_buttons.h"
#include "app/view/band_words.h"

#include <QCheckBox>

namespace vetchling::app {
namespace {

class BandsStage final : public Stage {
    Q_OBJECT
public:
    BandsStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_desk(context.document, context.solver), m_buttons(*m_page, QStringLiteral("bandsViews"), this)
    {
        context.add(m_desk.waitings());
        addConfigurations();
        auto* coverage = new CoverageView(context, m_desk, this);
        m_reactances = new QCheckBox(tr("R and X"));
        m_reactances->setObjectName(QStringLiteral("showReactances"));
        connect(m_reactances, &QCheckBox::toggled, coverage->rows(), &CoverageRows::setReactances);
        m_page->addOption(m_reactances);
        tellsFigures({coverage->rows()});
        auto* finder = new FinderView(context, m_desk, this);
        connect(finder, &FinderView::wireWanted, this, &Stage::tunerWireWanted);
        m_views = {coverage, new LengthMapView(context, m_desk, this), new SettingsView(context, m_desk, this), finder};
        addViews();
        connect(&m_desk, &BandsDesk::operatingReady, this, &Stage::summaryChanged);
        connect(&context.solver, &SolveService::detailReady, this, [this] {
            if (document().hasAntenna() && document().family().configurations(document().antenna().shape).size() > 1)
                m_desk.wantOperating(); // the trail tells of all configurations together
        });
    }

    QString id() const override { return QStringLiteral("bands"); }
    QString name() const override { return tr("Bands"); }
    Canvas* canvas() override { return view().canvas(); }
    QString tableText() const override { return view().tableText(); }

    void showView(const QString& id) override
    {
        for (BandsView* v : m_views)
            if (v->id() == id)
                m_buttons.show(v->widget());
    }

    QString summary() const override
    {
        const CurvePointer curve = solver().curve();
        if (!curve)
            return !document().hasAntenna() ? tr("no antenna yet") : solver().faults().empty() ? tr("being computed") : tr("not possible");
        if (curve->bandsWished() == 0)
            return tr("no band wanted yet");
        return tallyWords(m_desk.tally());
    }

    void refresh() override
    {
        refreshConfigurations();
        for (std::size_t i = 0; i < m_views.size(); ++i)
            m_buttons.setOffered(int(i), m_views[i]->offered());
        m_reactances->setVisible(m_buttons.place() == 0);
        const QString layout = view().id() + QLatin1Char('/') + view().layout();
        if (layout != m_layout) {
            for (BandsView* v : m_views)
                v->forgetLedger();
            m_ledger->clear();
            view().buildLedger(*m_ledger);
            m_ledger->finish();
            m_layout = view().id() + QLatin1Char('/') + view().layout(); // what was built may have chosen a dimension
        }
        view().refresh();
        m_page->setTitle(view().title());
        const bool radio = solver().plane() == SolveService::Plane::Radio;
        m_page->setSentence(radio ? tr("At the radio: %1").arg(view().sentence()) : view().sentence());
    }

private:
    [[nodiscard]] BandsView& view() const { return *m_views[std::size_t(m_buttons.place())]; }

    void addViews()
    {
        for (BandsView* v : m_views) {
            m_buttons.add(v->name(), QStringLiteral("bands ") + v->id(), v->widget());
            connect(v, &BandsView::changed, this, [this, v] {
                if (v == &view())
                    refresh();
            });
        }
        connect(&m_buttons, &ViewButtons::chosen, this, &BandsStage::refresh);
    }

    BandsDesk m_desk;
    std::vector<BandsView*> m_views;
    ViewButtons m_buttons;
    QString m_layout = QStringLiteral("none");
    QCheckBox* m_reactances;
};

} // namespace

std::unique_ptr<Stage> makeBandsStage(ViewContext& context, QObject* parent) { return std::make_unique<BandsStage>(context, parent); }

} // namespace vetchling::app

#include "bands_stage.moc"

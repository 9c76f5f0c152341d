/// Site: soil, boundary, supports and dangers on a plan to scale, and whether each antenna fits.
#include "app/plots/site_plan.h"
#include "app/stages/stage.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"

#include <QCheckBox>
#include <QLineEdit>

#include <cmath>

namespace vetchling::app {
namespace {

class SiteStage final : public Stage {
    Q_OBJECT
public:
    SiteStage(ViewContext& context, QObject* parent) : Stage(context, parent), m_plan(new SitePlan(context))
    {
        m_page->body()->addWidget(m_plan, 1);
        buildLedger();
        connect(m_plan, &SitePlan::supportSelected, this, &SiteStage::refresh);
    }

    QString id() const override { return QStringLiteral("site"); }
    QString name() const override { return tr("Site"); }
    Canvas* canvas() override { return m_plan; }

    QString summary() const override
    {
        const Site& site = document().design().site;
        const PlanPoint extent = extentOf(site.boundary);
        const QString soil = QString::fromStdString(site.soil.name);
        if (site.boundary.empty())
            return soil;
        const bool metric = system() == units::System::Metric;
        const double unit = metric ? 1.0 : 0.3048;
        return tr("%1 × %2 %3, ε %4")
            .arg(extent.x / unit, 0, 'f', 0)
            .arg(extent.y / unit, 0, 'f', 0)
            .arg(metric ? tr("m") : tr("ft"))
            .arg(site.soil.relativePermittivity);
    }

    void refresh() override
    {
        const Site& site = document().design().site;
        m_page->setTitle(tr("%1: the site").arg(QString::fromStdString(site.name)));
        int chosen = 0;
        for (std::size_t i = 0; i < m_context.soils.size(); ++i)
            if (m_context.soils[i].id == site.soil.id)
                chosen = int(i) + 1;
        m_soil->setItemText(0,
                            site.soil.id.empty() && !site.soil.name.empty() ? QString::fromStdString(site.soil.name) : tr("own figures"));
        m_soil->setCurrentIndex(chosen);
        m_permittivity->setValue(site.soil.relativePermittivity, system());
        m_conductivity->setValue(site.soil.conductivity, system());
        m_soilNote->setText(site.soil.source.empty()
                                ? tr("Own figures.")
                                : tr("Source: %1. Rain changes soil; the Sky stage shows what wetter and drier ground would do.")
                                      .arg(QString::fromStdString(site.soil.source)));
        const PlanPoint extent = extentOf(site.boundary);
        m_width->setValue(extent.x, system());
        m_depth->setValue(extent.y, system());
        refreshSupport(site);
        m_hasLine->setChecked(site.powerLine.has_value());
        m_lineHeight->setEnabled(site.powerLine.has_value());
        m_linePlace->setEnabled(site.powerLine.has_value());
        m_lineHeight->setValue(site.powerLine ? site.powerLine->height : 8.0, system());
        m_linePlace->setValue(site.powerLine ? site.powerLine->from.y : -10.0, system());
        refreshFit();
    }

private:
    void buildLedger()
    {
        m_ledger->heading(tr("Ground"));
        QStringList names{tr("own figures")};
        for (const Soil& s : m_context.soils)
            names << QString::fromStdString(s.name);
        m_soil = m_ledger->choice(tr("Kind"), names, QStringLiteral("soilKind"));
        connect(m_soil, &QComboBox::activated, this, &SiteStage::takeSoil);
        m_permittivity = m_ledger->value(tr("Relative permittivity"), units::Quantity::Plain, QStringLiteral("permittivity"));
        m_permittivity->setRange(1.0, 100.0);
        m_conductivity = m_ledger->value(tr("Conductivity, S/m"), units::Quantity::Plain, QStringLiteral("conductivity"));
        m_conductivity->setRange(0.0, 10.0);
        connect(m_permittivity, &ValueEdit::edited, this, [this](double v) { ownSoil([&](Soil& s) { s.relativePermittivity = v; }); });
        connect(m_conductivity, &ValueEdit::edited, this, [this](double v) { ownSoil([&](Soil& s) { s.conductivity = v; }); });
        m_soilNote = m_ledger->note();
        m_ledger->line();
        addBoundary();
        m_ledger->line();
        addSupports();
        m_ledger->line();
        addPowerLine();
        m_ledger->line();
        m_ledger->heading(tr("Fits?"));
        m_fit = m_ledger->note();
        m_fit->setObjectName(QStringLiteral("fitNote"));
        m_ledger->line();
        m_danger = m_ledger->caution({});
        m_ledger->caution(tr("Before you climb or throw a line: look up. A mast or wire that can touch a power line can kill; keep more "
                             "than its full length away. Use fall "
                             "protection or a licensed climber. Disconnect and earth the feed line before lightning. Follow local codes; "
                             "ask a licensed electrician about earthing."));
        m_ledger->finish();
    }

    void addBoundary()
    {
        m_ledger->heading(tr("Boundary"));
        m_width = m_ledger->value(tr("East to west"), units::Quantity::Length, QStringLiteral("siteWidth"));
        m_depth = m_ledger->value(tr("North to south"), units::Quantity::Length, QStringLiteral("siteDepth"));
        for (ValueEdit* edit : {m_width, m_depth}) {
            edit->setRange(1.0, 5000.0);
            connect(edit, &ValueEdit::edited, this, [this, edit](double v) {
                const double w = edit == m_width ? v : m_width->value(), d = edit == m_depth ? v : m_depth->value();
                document().edit(tr("change the boundary"), {}, [&](Design& design) {
                    design.site.boundary = {{0, 0}, {w, 0}, {w, d}, {0, d}};
                });
            });
        }
    }

    void addSupports()
    {
        m_ledger->heading(tr("Supports"));
        m_support = m_ledger->choice(tr("Change"), {}, QStringLiteral("supportChoice"));
        connect(m_support, &QComboBox::activated, this,
                [this](int index) { m_plan->selectSupport(m_support->itemData(index).toString().toStdString()); });
        m_height = m_ledger->value(tr("Height"), units::Quantity::Length, QStringLiteral("supportHeight"));
        m_height->setRange(0.1, 300.0);
        m_east = m_ledger->value(tr("East"), units::Quantity::Length, QStringLiteral("supportEast"));
        m_north = m_ledger->value(tr("North"), units::Quantity::Length, QStringLiteral("supportNorth"));
        connect(m_height, &ValueEdit::edited, this, [this](double v) { editSupport([&](Support& s) { s.height = v; }); });
        connect(m_east, &ValueEdit::edited, this, [this](double v) { editSupport([&](Support& s) { s.at.x = v; }); });
        connect(m_north, &ValueEdit::edited, this, [this](double v) { editSupport([&](Support& s) { s.at.y = v; }); });
        m_metal = new QCheckBox(tr("of metal"), m_ledger);
        m_metal->setObjectName(QStringLiteral("supportMetal"));
        m_ledger->add(m_metal);
        connect(m_metal, &QCheckBox::clicked, this, [this](bool on) { editSupport([&](Support& s) { s.metal = on; }); });
        auto* add = m_ledger->button(tr("Add a pole"), QStringLiteral("addSupport"));
        connect(add, &QPushButton::clicked, this, [this] {
            const PlanPoint extent = extentOf(document().design().site.boundary);
            const Id id = newId();
            document().edit(tr("add a support"), {}, [&](Design& d) {
                d.site.supports.push_back({tr("pole %1").arg(d.site.supports.size() + 1).toStdString(),
                                           SupportKind::Pole,
                                           {0.5 * extent.x, 0.5 * extent.y},
                                           8.0,
                                           false,
                                           id,
                                           {}});
            });
            m_plan->selectSupport(id);
        });
        m_remove = m_ledger->button(tr("Remove this support"), QStringLiteral("removeSupport"));
        connect(m_remove, &QPushButton::clicked, this, [this] {
            const Id id = m_plan->selectedSupport();
            m_plan->selectSupport({});
            document().edit(tr("remove a support"), {},
                            [&](Design& d) { std::erase_if(d.site.supports, [&](const Support& s) { return s.id == id; }); });
        });
    }

    void addPowerLine()
    {
        m_ledger->heading(tr("Overhead power line"));
        m_hasLine = new QCheckBox(tr("there is one nearby"), m_ledger);
        m_hasLine->setObjectName(QStringLiteral("hasPowerLine"));
        m_ledger->add(m_hasLine);
        m_lineHeight = m_ledger->value(tr("Height"), units::Quantity::Length, QStringLiteral("lineHeight"));
        m_lineHeight->setRange(1.0, 100.0);
        m_linePlace = m_ledger->value(tr("North of the origin"), units::Quantity::Length, QStringLiteral("linePlace"));
        connect(m_hasLine, &QCheckBox::clicked, this, [this](bool on) {
            document().edit(tr("change the power line"), {}, [&](Design& d) {
                d.site.powerLine.reset();
                if (on)
                    d.site.powerLine = PowerLine{{-5.0, -10.0}, {extentOf(d.site.boundary).x + 12.0, -10.0}, 8.0};
            });
        });
        connect(m_lineHeight, &ValueEdit::edited, this, [this](double v) { editLine([&](PowerLine& l) { l.height = v; }); });
        connect(m_linePlace, &ValueEdit::edited, this, [this](double v) { editLine([&](PowerLine& l) { l.from.y = l.to.y = v; }); });
    }

    template <class Change> void editLine(Change change)
    {
        document().edit(tr("change the power line"), {}, [&](Design& d) {
            if (d.site.powerLine)
                change(*d.site.powerLine);
        });
    }

    template <class Change> void editSupport(Change change)
    {
        document().edit(tr("change a support"), {}, [&](Design& d) {
            if (Support* support = findSupport(d, m_plan->selectedSupport()))
                change(*support);
        });
    }

    template <class Change> void ownSoil(Change change)
    {
        document().edit(tr("change the soil"), QStringLiteral("soil"), [&](Design& d) {
            change(d.site.soil);
            d.site.soil.id.clear();
            d.site.soil.source.clear();
            d.site.soil.name = tr("own soil").toStdString();
        });
    }

    void takeSoil(int index)
    {
        if (index == 0)
            return;
        const Soil chosen = m_context.soils[std::size_t(index - 1)];
        document().edit(tr("change the soil"), {}, [&](Design& d) { d.site.soil = chosen; });
    }

    void refreshSupport(const Site& site)
    {
        m_support->clear();
        m_support->addItem(tr("click one, or choose"));
        const Support* one = nullptr;
        for (const Support& s : site.supports) {
            m_support->addItem(QString::fromStdString(s.name), QString::fromStdString(s.id));
            if (s.id == m_plan->selectedSupport()) {
                one = &s;
                m_support->setCurrentIndex(m_support->count() - 1);
            }
        }
        for (QWidget* w : std::initializer_list<QWidget*>{m_height, m_east, m_north, m_metal, m_remove})
            w->setEnabled(one);
        if (!one)
            return;
        const Support& s = *one;
        m_height->setValue(s.height, system());
        m_east->setValue(s.at.x, system());
        m_north->setValue(s.at.y, system());
        m_metal->setChecked(s.metal);
    }

    void refreshFit()
    {
        QStringList words;
        int inside = 0;
        QString danger;
        const auto length = [&](double v) { return lengthWords(v, system(), 1); };
        for (const Antenna& a : document().design().antennas) {
            const AntennaModel* model = m_context.models.find(a.id);
            const QString name = QString::fromStdString(a.name);
            if (!model || !model->fit) {
                words << tr("%1: %2.").arg(name, model && model->fault ? coreWords(model->fault->message, system()) : QString());
                continue;
            }
            const FitReport& fit = *model->fit;
            QString line = fit.insideBoundary ? tr("%1: inside, %2 from the boundary").arg(name, length(fit.clearOfBoundary))
                                              : tr("%1: reaches %2 beyond the boundary").arg(name, length(fit.beyondBoundary));
            if (fit.clearOfMetal < 1.0)
                line += tr("; an end is only %1 from the %2, keep about a metre from metal")
                            .arg(length(fit.clearOfMetal), QString::fromStdString(fit.nearestMetal));
            words << line + QStringLiteral(".");
            inside += fit.insideBoundary;
            if (fit.nearPowerLine && danger.isEmpty())
                danger = tr("Danger: %1 (%2) could reach the power line, %3 away at the nearest. Move it.")
                             .arg(coreWords(fit.endangering), name, length(fit.toPowerLine));
        }
        m_fit->setText(words.join(QStringLiteral("\n")));
        m_danger->setText(danger);
        m_danger->setVisible(!danger.isEmpty());
        const int all = int(document().design().antennas.size());
        const QString hang = tr("%1 of %2 antennas hang inside the boundary").arg(inside).arg(all);
        m_page->setSentence(!danger.isEmpty() ? danger
                            : document().design().site.powerLine
                                ? tr("%1; nothing can fall on the power line. Drag antennas and supports to move them.").arg(hang)
                                : tr("%1; no power line is drawn here: look whether there is one. Drag antennas and supports to move them.").arg(hang));
    }

    SitePlan* m_plan;
    QComboBox *m_soil = nullptr, *m_support = nullptr;
    ValueEdit *m_permittivity = nullptr, *m_conductivity = nullptr, *m_width = nullptr, *m_depth = nullptr, *m_height = nullptr,
              *m_east = nullptr, *m_north = nullptr, *m_lineHeight = nullptr, *m_linePlace = nullptr;
    QCheckBox *m_metal = nullptr, *m_hasLine = nullptr;
    QPushButton* m_remove = nullptr;
    QLabel *m_soilNote = nullptr, *m_fit = nullptr, *m_danger = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeSiteStage(ViewContext& context, QObject* parent) { return std::make_unique<SiteStage>(context, parent); }

} // namespace vetchling::app

#include "site_stage.moc"

/// Site: soil, boundary, what stands there and dangers on a plan to scale, and whether each antenna fits.
#include "app/plots/site_plan.h"
#include "app/stages/site/far_ground_panel.h"
#include "app/stages/site/ground_panel.h"
#include "app/stages/site/ground_view.h"
#include "app/stages/site/notes_panel.h"
#include "app/stages/site/power_line_panel.h"
#include "app/stages/site/shed_view.h"
#include "app/stages/site/soil_panel.h"
#include "app/stages/site/surroundings_panel.h"
#include "app/stages/stage.h"
#include "app/stages/view_buttons.h"
#include "app/view/words.h"
#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"

#include <QCheckBox>
#include <QToolButton>

#include <algorithm>
#include <cmath>
#include <set>

namespace vetchling::app {
namespace {

using Kind = SiteThing::Kind;

class SiteStage final : public Stage {
    Q_OBJECT
public:
    SiteStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_desk(context.document, context.solver), m_plan(new SitePlan(context)),
          m_groundView(new GroundView(context, m_desk)), m_shed(new ShedView(context))
    {
        context.add(m_desk.waitings());
        m_views = new ViewButtons(*m_page, QStringLiteral("siteViews"), this);
        m_views->add(tr("Plan"), QStringLiteral("sitePlanView"), m_plan);
        m_views->add(tr("Ground"), QStringLiteral("siteGroundView"), m_groundView,
                     tr("The ground along a bearing in section, and the best place on it"));
        m_views->add(tr("Shed"), QStringLiteral("siteShedView"), m_shed);
        connect(m_views, &ViewButtons::chosen, this, [this] {
            refresh();
            m_ledger->bringUp(groundShown() ? m_ground->top() : m_name);
        });
        connect(&context.shed, &ShedDesk::changed, this, &SiteStage::refresh);
        buildLedger();
        connect(m_plan, &SitePlan::selectionChanged, this, &SiteStage::refresh);
        connect(m_plan, &SitePlan::renameWanted, this, [this] { rename(); });
        connect(m_plan, &SitePlan::removeWanted, this, &SiteStage::removeThing);
        connect(m_plan, &SitePlan::drawn, this, &SiteStage::takeDrawn);
        connect(m_plan, &SitePlan::drawingChanged, this, &SiteStage::refresh);
        connect(&m_desk, &SiteDesk::effectsReady, this, &SiteStage::refresh);
        connect(&m_desk, &SiteDesk::placesReady, this, &SiteStage::refresh);
        connect(&solver(), &SolveService::detailReady, this, [this] {
            if (groundShown())
                refresh();
        });
    }

    QString id() const override { return QStringLiteral("site"); }
    QString name() const override { return tr("Site"); }
    Canvas* canvas() override { return groundShown() ? static_cast<Canvas*>(m_groundView) : m_plan; }

    QString summary() const override
    {
        const Site& site = document().design().site;
        const PlanPoint extent = extentOf(site.boundary);
        if (site.boundary.empty())
            return tr("ε %1, %2 S/m").arg(site.soil.relativePermittivity).arg(site.soil.conductivity);
        const bool metric = system() == units::System::Metric;
        const double unit = metric ? 1.0 : 0.3048;
        return tr("%1 × %2 %3, ε %4")
            .arg(extent.x / unit, 0, 'f', 0)
            .arg(extent.y / unit, 0, 'f', 0)
            .arg(metric ? tr("m") : tr("ft"))
            .arg(site.soil.relativePermittivity);
    }

    bool rename() override
    {
        if (!isNamed(m_plan->selected()))
            return false;
        m_thingName->setFocus();
        m_thingName->selectAll();
        return true;
    }

    void refresh() override
    {
        const Site& site = document().design().site;
        m_page->setTitle(tr("%1: the site").arg(QString::fromStdString(site.name)));
        m_name->setName(QString::fromStdString(site.name));
        m_soil->refresh();
        const PlanPoint extent = extentOf(site.boundary);
        m_width->setValue(extent.x, system());
        m_depth->setValue(extent.y, system());
        refreshThing();
        m_line->refresh();
        m_surroundings->refresh();
        m_farGrounds->refresh();
        m_ground->refresh();
        m_notes->refresh();
        refreshFit();
        if (groundShown())
            refreshGroundView();
        if (!shedShown())
            return;
        m_shed->refresh();
        m_page->setTitle(tr("Have and need"));
        m_page->setSentence(m_shed->sentence());
    }
    QString tableText() const override { return shedShown() ? m_shed->tableText() : groundShown() ? m_groundView->tableText() : QString(); }

private:
    [[nodiscard]] bool shedShown() const { return m_views->current() == m_shed; }
    [[nodiscard]] bool groundShown() const { return m_views->current() == m_groundView; }

    void refreshGroundView()
    {
        m_groundView->show(m_ground->bearing());
        m_page->setTitle(tr("The ground towards %1°").arg(m_ground->bearing(), 3, 'f', 0, QLatin1Char('0')));
        m_page->setSentence(m_groundView->sentence());
    }

    void buildLedger()
    {
        m_ledger->heading(tr("Site"));
        m_name = m_ledger->name(tr("Name"), QStringLiteral("siteNameEdit"));
        connect(m_name, &NameEdit::named, this, [this](const QString& name) {
            document().edit(tr("rename the site"), {}, [&](Design& d) { d.site.name = name.toStdString(); });
        });
        m_ledger->line();
        addThings();
        m_ledger->line();
        m_ledger->heading(tr("Fits?"));
        m_fit = m_ledger->note();
        m_fit->setObjectName(QStringLiteral("fitNote"));
        m_fit->setTextFormat(Qt::RichText);
        m_fit->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
        connect(m_fit, &QLabel::linkActivated, this, [this](const QString& antenna) { document().setCurrent(antenna.toStdString()); });
        m_ledger->line();
        m_soil = new SoilPanel(m_context, *m_ledger, this);
        m_ledger->line();
        addBoundary();
        m_ledger->line();
        m_line = std::make_unique<PowerLinePanel>(m_context, *m_ledger, nullptr);
        m_ledger->line();
        m_surroundings = std::make_unique<SurroundingsPanel>(m_context, m_desk, *m_ledger, nullptr);
        m_ledger->line();
        m_ground = new GroundPanel(m_context, *m_ledger, this);
        connect(m_ground, &GroundPanel::chosen, this, &SiteStage::refresh);
        m_ledger->line();
        m_farGrounds = std::make_unique<FarGroundPanel>(m_context, *m_ledger, nullptr);
        m_ledger->line();
        m_notes = new NotesPanel(m_context, *m_ledger, this);
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
            connect(edit, &ValueEdit::edited, this, [this, edit](double v, const QString&, bool stepping) {
                document().edit(tr("change the boundary"), stepping ? QStringLiteral("boundary") : QString(), [&](Design& design) {
                    PlanPoint extent = extentOf(design.site.boundary);
                    (edit == m_width ? extent.x : extent.y) = v;
                    extent = {std::max(extent.x, 1.0), std::max(extent.y, 1.0)};
                    design.site.boundary = stretched(design.site.boundary, extent);
                });
            });
        }
    }

    void addThings()
    {
        m_ledger->heading(tr("What stands there"));
        const auto add = m_ledger->buttons({{tr("+ Pole"), QStringLiteral("addSupport")},
                                            {tr("+ Tree"), QStringLiteral("addTree")},
                                            {tr("+ House"), QStringLiteral("addBuilding")},
                                            {tr("+ Water"), QStringLiteral("addWater")}});
        connect(add[0], &QPushButton::clicked, this, [this] { addSupport(SupportKind::Pole, 8.0); });
        connect(add[1], &QPushButton::clicked, this, [this] { addSupport(SupportKind::Tree, 7.0); });
        connect(add[2], &QPushButton::clicked, this, &SiteStage::addBuilding);
        connect(add[3], &QPushButton::clicked, this, &SiteStage::addWater);
        const auto draw = m_ledger->buttons({{tr("Draw a house"), QStringLiteral("drawBuilding")},
                                             {tr("water"), QStringLiteral("drawWater")},
                                             {tr("boundary"), QStringLiteral("drawBoundary")},
                                             {tr("coax"), QStringLiteral("drawCoax")}});
        const Kind drawnKinds[] = {Kind::Building, Kind::Water, Kind::Boundary, Kind::Coax};
        for (std::size_t i = 0; i < draw.size(); ++i) {
            draw[i]->setToolTip(tr("Click its corners on the plan, Enter when it is done"));
            connect(draw[i], &QPushButton::clicked, this, [this, kind = drawnKinds[i]] { m_plan->startDrawing(kind); });
        }
        m_thing = m_ledger->choice(tr("Change"), {}, QStringLiteral("supportChoice"));
        connect(m_thing, &QComboBox::activated, this,
                [this](int index) { m_plan->select(index > 0 ? m_things[std::size_t(index - 1)] : SiteThing{}); });
        m_thingName = m_ledger->name(tr("Name"), QStringLiteral("thingName"));
        connect(m_thingName, &NameEdit::named, this, [this](const QString& name) {
            const SiteThing thing = m_plan->selected();
            document().edit(tr("rename"), {}, [&](Design& d) { renameThing(d, thing, name); });
        });
        QStringList kinds;
        for (SupportKind kind : {SupportKind::Tower, SupportKind::Pole, SupportKind::Tree, SupportKind::Wall, SupportKind::Roof})
            kinds << supportWords(kind);
        m_kind = m_ledger->choice(tr("Kind"), kinds, QStringLiteral("supportKind"));
        connect(m_kind, &QComboBox::activated, this,
                [this](int index) { editSupport({}, [&](Support& s) { s.kind = SupportKind(index); }); });
        m_height = length(tr("Height"), QStringLiteral("supportHeight"), 0.1, 300.0, [](Design& d, const SiteThing& thing, double v) {
            if (Building* b = findBuilding(d, thing.id))
                b->ridge = v, b->eaves = std::min(b->eaves, v);
            else
                changeSupport(d, thing.id, [&](Support& s) { s.height = v; });
        });
        m_east = length(tr("East"), QStringLiteral("supportEast"), -10000.0, 10000.0, [](Design& d, const SiteThing& thing, double v) {
            moveTo(d, thing, {v, placeOf(d, thing).y});
        });
        m_north = length(tr("North"), QStringLiteral("supportNorth"), -10000.0, 10000.0, [](Design& d, const SiteThing& thing, double v) {
            moveTo(d, thing, {placeOf(d, thing).x, v});
        });
        m_wide = length(tr("East to west"), QStringLiteral("thingWidth"), 0.5, 10000.0, [](Design& d, const SiteThing& thing, double v) {
            if (Outline* outline = outlineOf(d, thing))
                *outline = stretched(*outline, {v, extentOf(*outline).y});
        });
        m_deep = length(tr("North to south"), QStringLiteral("thingDepth"), 0.5, 10000.0, [](Design& d, const SiteThing& thing, double v) {
            if (Outline* outline = outlineOf(d, thing))
                *outline = stretched(*outline, {extentOf(*outline).x, v});
        });
        m_corner = m_ledger->choice(tr("Corner"), {}, QStringLiteral("cornerChoice"));
        connect(m_corner, &QComboBox::activated, this, [this](int index) {
            const SiteThing thing = m_plan->selected();
            m_plan->select({thing.kind, thing.id, index - 1});
        });
        m_corners = m_ledger->buttons({{tr("+ Corner"), QStringLiteral("addCorner")}, {tr("− Corner"), QStringLiteral("removeCorner")}});
        connect(m_corners[0], &QPushButton::clicked, this, [this] { m_plan->addCornerByKey(); });
        connect(m_corners[1], &QPushButton::clicked, this, [this] { m_plan->removeSelected(); });
        m_metal = new QCheckBox(tr("of metal"), m_ledger);
        m_metal->setObjectName(QStringLiteral("supportMetal"));
        m_ledger->add(m_metal);
        connect(m_metal, &QCheckBox::clicked, this, [this](bool on) { editSupport({}, [&](Support& s) { s.metal = on; }); });
        m_remove = m_ledger->button(tr("Remove it"), QStringLiteral("removeSupport"));
        connect(m_remove, &QPushButton::clicked, this, &SiteStage::removeThing);
    }

    template <class Change> ValueEdit* length(const QString& label, const QString& objectName, double lowest, double highest, Change change)
    {
        ValueEdit* edit = m_ledger->value(label, units::Quantity::Length, objectName);
        edit->setRange(lowest, highest);
        connect(edit, &ValueEdit::edited, this, [this, change, objectName](double v, const QString&, bool stepping) {
            const SiteThing thing = m_plan->selected();
            document().edit(tr("change %1").arg(nameOf(document().design(), thing)),
                            stepping ? objectName + QString::fromStdString(thing.id) : QString(), [&](Design& d) { change(d, thing, v); });
        });
        return edit;
    }

    template <class Change> void editSupport(const QString& key, Change change)
    {
        const SiteThing thing = m_plan->selected();
        if (thing.kind == Kind::Support)
            document().edit(tr("change %1").arg(nameOf(document().design(), thing)), key,
                            [&](Design& d) { changeSupport(d, thing.id, change); });
    }

    /// A free place near the middle for something new.
    PlanPoint freePlace() const
    {
        const Site& site = document().design().site;
        const PlanPoint corner = cornerOf(site.boundary), extent = extentOf(site.boundary);
        PlanPoint at{corner.x + 0.5 * extent.x, corner.y + 0.5 * extent.y};
        constexpr double apart = 3.0; // m
        const auto taken = [&](const Support& s) { return std::hypot(s.at.x - at.x, s.at.y - at.y) < apart; };
        while (std::any_of(site.supports.begin(), site.supports.end(), taken))
            at.x += apart;
        return {std::round(at.x), std::round(at.y)};
    }

    void addSupport(SupportKind kind, double height)
    {
        const Id id = newId();
        const PlanPoint at = freePlace();
        document().edit(tr("add a support"), {}, [&](Design& d) {
            d.site.supports.push_back({freeName(supportWords(kind).toStdString(), siteNames(d.site)), kind, at, height, false, id, {}});
        });
        m_plan->select({Kind::Support, id});
    }

    void addBuilding()
    {
        const Id id = newId();
        const PlanPoint at = freePlace();
        document().edit(tr("add a house"), {}, [&](Design& d) {
            Building b;
            b.name = freeName(tr("house").toStdString(), siteNames(d.site));
            b.outline = rectangle(at, {8.0, 6.0});
            b.eaves = 3.0;
            b.ridge = 6.0;
            b.id = id;
            d.site.buildings.push_back(b);
        });
        m_plan->select({Kind::Building, id});
    }

    void addWater()
    {
        const Id id = newId();
        const PlanPoint at = freePlace();
        document().edit(tr("add water"), {}, [&](Design& d) {
            Water w;
            w.name = freeName(tr("pond").toStdString(), siteNames(d.site));
            w.outline = rectangle(at, {6.0, 4.0});
            w.id = id;
            d.site.waters.push_back(w);
        });
        m_plan->select({Kind::Water, id});
    }

    void removeThing()
    {
        const SiteThing thing = m_plan->selected();
        if (isNamed(thing))
            document().edit(tr("remove %1").arg(nameOf(document().design(), thing)), {},
                            [&](Design& d) { vetchling::app::removeThing(d, thing); });
        else if (thing.kind == Kind::LineFrom || thing.kind == Kind::LineTo)
            m_line->switchTo(false);
        else if (thing.kind == Kind::Boundary || thing.kind == Kind::Coax)
            document().edit(tr("remove the %1").arg(nameOf(document().design(), thing)), {},
                            [&](Design& d) { vetchling::app::removeThing(d, thing); });
    }

    void takeDrawn(Kind kind, const Outline& outline)
    {
        const Id id = newId();
        document().edit(tr("draw an outline"), {}, [&](Design& d) {
            Site& site = d.site;
            switch (kind) {
            case Kind::Building:
                site.buildings.push_back({freeName(tr("house").toStdString(), siteNames(site)), outline, 3.0, 6.0, id, {}});
                break;
            case Kind::Water: site.waters.push_back({freeName(tr("pond").toStdString(), siteNames(site)), outline, id, {}}); break;
            case Kind::Boundary: site.boundary = outline; break;
            case Kind::Coax: site.coaxRoute = outline; break;
            default: break;
            }
        });
        const bool own = kind == Kind::Building || kind == Kind::Water;
        m_plan->select({kind, own ? id : Id()});
    }

    void refreshThing()
    {
        const Design& design = document().design();
        const SiteThing chosen = m_plan->selected();
        m_things = thingsOf(design);
        m_thing->clear();
        m_thing->addItem(tr("click one, or choose"));
        for (const SiteThing& thing : m_things) {
            m_thing->addItem(nameOf(design, thing));
            if (thing == chosen.whole())
                m_thing->setCurrentIndex(m_thing->count() - 1);
        }
        const bool there = isThere(design, chosen);
        const Support* support = there && chosen.kind == Kind::Support ? findSupport(design, chosen.id) : nullptr;
        const Building* building = there && chosen.kind == Kind::Building ? findBuilding(design, chosen.id) : nullptr;
        const Water* water = there && chosen.kind == Kind::Water ? findWater(design, chosen.id) : nullptr;
        m_ledger->setRowVisible(m_thingName, there && isNamed(chosen));
        m_ledger->setRowVisible(m_kind, support);
        m_ledger->setRowVisible(m_height, support || building);
        m_ledger->setRowVisible(m_east, there);
        m_ledger->setRowVisible(m_north, there);
        const Outline* outline = there ? outlineOf(design, chosen) : nullptr;
        refreshCorners(outline, chosen);
        m_ledger->setRowVisible(m_wide, (building || water) && chosen.corner < 0);
        m_ledger->setRowVisible(m_deep, (building || water) && chosen.corner < 0);
        m_metal->setVisible(support);
        m_remove->setVisible(there && chosen.kind != Kind::FeedEntry);
        if (!there)
            return;
        m_thingName->setName(nameOf(design, chosen));
        const PlanPoint at = placeOf(design, chosen);
        m_east->setValue(at.x, system());
        m_north->setValue(at.y, system());
        if (support) {
            m_kind->setCurrentIndex(int(support->kind));
            m_height->setValue(support->height, system());
            m_metal->setChecked(support->metal);
        }
        if (building || water) {
            const PlanPoint extent = extentOf(building ? building->outline : water->outline);
            m_wide->setValue(extent.x, system());
            m_deep->setValue(extent.y, system());
        }
        if (building)
            m_height->setValue(building->ridge, system());
    }

    void refreshCorners(const Outline* outline, const SiteThing& chosen)
    {
        m_ledger->setRowVisible(m_corner, outline);
        for (QPushButton* button : m_corners)
            button->setVisible(outline);
        if (!outline)
            return;
        m_corner->clear();
        m_corner->addItem(tr("all of it"));
        for (std::size_t i = 0; i < outline->size(); ++i)
            m_corner->addItem(tr("%1 of %2").arg(i + 1).arg(outline->size()));
        m_corner->setCurrentIndex(chosen.corner + 1);
        m_corners[1]->setEnabled(chosen.corner >= 0 && (outline->size() > 3 || chosen.kind == Kind::Coax));
    }

    /// One line of *Fits?*: pressed it shows the antenna. Dangers are red, and say so.
    QString fitLine(const Antenna& antenna, const QString& words, bool danger) const
    {
        const QString line =
            (danger ? tr("Danger, %1: %2.") : tr("%1: %2.")).arg(QString::fromStdString(antenna.name), words).toHtmlEscaped();
        const Colours& c = m_context.theme.colours();
        return QStringLiteral("<p style='margin:2px 0'><a style='color:%1;text-decoration:none' href='%2'>%3</a></p>")
            .arg((danger ? c.brick : c.inkSoft).name(), QString::fromStdString(antenna.id), line);
    }

    /// What is said of one antenna. @param told antennas whose pairs were told with them
    QString fitLines(const Antenna& antenna, const std::set<Id>& told) const
    {
        const AntennaModel* model = m_context.models.find(antenna.id);
        if (!model || !model->fit)
            return fitLine(antenna, model && model->fault ? coreWords(model->fault->message, system()) : QString(), false);
        QString lines;
        for (const advice::Finding& f : model->findings)
            lines += fitLine(antenna, coreWords(f.message, system()), f.gravity == advice::Gravity::Danger);
        for (std::size_t i = 0; i < model->crossed.size(); ++i)
            if (!told.contains(model->crossings[i].first))
                lines += fitLine(antenna, coreWords(model->crossed[i].message, system()), false);
        if (lines.isEmpty())
            lines = fitLine(antenna,
                            document().design().site.boundary.size() >= 3
                                ? tr("held, clear of houses and lines, %1 from the boundary").arg(length(model->fit->clearOfBoundary))
                                : tr("held, clear of houses and lines"),
                            false);
        return lines;
    }

    QString length(double metres) const { return lengthWords(metres, system(), 1); }

    void refreshFit()
    {
        QString words;
        std::set<Id> told;
        int inside = 0;
        const Site& site = document().design().site;
        QString danger = site.powerLineUnread && !site.powerLine
                             ? tr("Danger: the power line of this file could not be read, so nobody knows how near it is. Draw it again.")
                             : QString();
        std::vector<Antenna> all = document().design().antennas; // the one on show first, then what endangers somebody
        const auto rank = [&](const Antenna& a) {
            const AntennaModel* model = m_context.models.find(a.id);
            const bool danger = model && !model->findings.empty() && model->findings.front().gravity == advice::Gravity::Danger;
            return (a.id == document().current() ? 0 : danger ? 1 : 2);
        };
        std::stable_sort(all.begin(), all.end(), [&](const Antenna& a, const Antenna& b) { return rank(a) < rank(b); });
        for (const Antenna& a : all) {
            words += fitLines(a, told);
            told.insert(a.id);
            const AntennaModel* model = m_context.models.find(a.id);
            if (!model || !model->fit)
                continue;
            inside += model->fit->insideBoundary;
            if (model->fit->nearPowerLine && danger.isEmpty())
                danger = tr("Danger: %1 (%2) could reach the power line, %3 away at the nearest. Move it.")
                             .arg(coreWords(model->fit->endangering), QString::fromStdString(a.name), length(model->fit->toPowerLine));
        }
        m_fit->setText(words.isEmpty() ? tr("There is no antenna yet.") : words);
        m_danger->setText(danger);
        m_danger->setVisible(!danger.isEmpty());
        m_page->setSentence(danger.isEmpty() ? sentence(inside) : danger);
    }

    QString sentence(int inside) const
    {
        const Site& site = document().design().site;
        if (m_plan->drawing())
            return tr("Click the corners one after the other; Enter, a double click or the first corner again ends it, Escape leaves it.");
        const int all = int(document().design().antennas.size());
        const QString line =
            site.powerLine ? tr("nothing can fall on the power line") : tr("no power line is drawn here: look whether there is one");
        if (all == 0)
            return tr("No antenna yet: add one with + at the top; %1.").arg(line);
        const QString hang =
            site.boundary.size() < 3 ? tr("No boundary is drawn") : tr("%1 of %2 antennas hang inside the boundary").arg(inside).arg(all);
        return tr("%1; %2. Drag antennas and supports to move them, the end of a wire to a support to tie it.").arg(hang, line);
    }

    SiteDesk m_desk;
    ViewButtons* m_views = nullptr;
    SitePlan* m_plan;
    GroundView* m_groundView;
    ShedView* m_shed;
    std::unique_ptr<SurroundingsPanel> m_surroundings;
    std::unique_ptr<FarGroundPanel> m_farGrounds;
    GroundPanel* m_ground = nullptr;
    NotesPanel* m_notes = nullptr;
    std::vector<SiteThing> m_things; ///< in the choice, behind its first item
    std::unique_ptr<PowerLinePanel> m_line;
    NameEdit *m_name = nullptr, *m_thingName = nullptr;
    QComboBox *m_thing = nullptr, *m_kind = nullptr;
    SoilPanel* m_soil = nullptr;
    ValueEdit *m_width = nullptr, *m_depth = nullptr, *m_height = nullptr, *m_east = nullptr, *m_north = nullptr, *m_wide = nullptr,
              *m_deep = nullptr;
    QCheckBox* m_metal = nullptr;
    QPushButton* m_remove = nullptr;
    QComboBox* m_corner = nullptr;
    std::vector<QPushButton*> m_corners; ///< add and remove
    QLabel *m_fit = nullptr, *m_danger = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeSiteStage(ViewContext& context, QObject* parent) { return std::make_unique<SiteStage>(context, parent); }

} // namespace vetchling::app

#include "site_stage.moc"

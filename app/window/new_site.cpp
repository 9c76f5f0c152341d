#include "app/window/new_site.h"

#include "app/view/words.h"
#include "app/widgets/choice.h"
#include "app/widgets/typed.h"
#include "app/widgets/value_edit.h"
#include "app/window/dialogs.h"
#include "core/bands/wanted.h"

#include <QDialogButtonBox>
#include <QFormLayout>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <map>

namespace vetchling::app {
namespace {

constexpr int bandsARow = 8;
constexpr std::size_t mostSupports = 8; // more come on the plan
constexpr double usualPermittivity = 13.0, usualConductivity = 0.005;
constexpr SupportKind kinds[] = {SupportKind::Pole, SupportKind::Tree, SupportKind::Tower, SupportKind::Roof, SupportKind::Wall};

/// The soil that is nearest to average ground.
int usualSoil(const std::vector<Soil>& soils)
{
    int best = 0;
    double least = HUGE_VAL;
    for (std::size_t i = 0; i < soils.size(); ++i) {
        const double off = std::hypot(std::log(soils[i].relativePermittivity / usualPermittivity),
                                      std::log(std::max(1e-6, soils[i].conductivity) / usualConductivity));
        if (off < least)
            least = off, best = int(i);
    }
    return best;
}

QLabel* quiet(const QString& words, QWidget* parent)
{
    auto* label = new QLabel(words, parent);
    label->setProperty("role", "heading");
    return label;
}

} // namespace

NewSiteDialog::NewSiteDialog(const ViewContext& context, const Design& blank, QWidget* parent)
    : QDialog(parent), m_context(context), m_blank(blank)
{
    setObjectName(QStringLiteral("newSiteDialog"));
    setWindowTitle(tr("A new site"));
    m_layout = new QVBoxLayout(this);
    m_layout->setContentsMargins(20, 16, 20, 16);
    m_layout->setSpacing(8);
    auto* title = new QLabel(tr("A new site"), this);
    title->setProperty("role", "title");
    m_layout->addWidget(title);
    addSite();
    addBands();
    addSupports();
    m_complaint = new QLabel(this);
    m_complaint->setObjectName(QStringLiteral("siteComplaint"));
    m_complaint->setProperty("role", "caution");
    m_complaint->setWordWrap(true);
    m_complaint->hide();
    m_layout->addWidget(m_complaint);
    auto* look = new QLabel(
        tr("Look up first: is there a power line? Add it here or on the plan, where everything can be moved and added to."), this);
    look->setProperty("role", "note");
    look->setWordWrap(true);
    m_layout->addWidget(look);
    m_layout->addWidget(okAndCancel(this, tr("Make the site"), QStringLiteral("makeSite")));
    m_name->setFocus();
    m_name->selectAll();
}

ValueEdit* NewSiteDialog::length(QWidget* parent, const QString& name, const QString& objectName, double metres, double lowest,
                                 double highest)
{
    auto* edit = new ValueEdit(units::Quantity::Length, parent);
    edit->setAccessibleName(name);
    edit->setObjectName(objectName);
    edit->setRange(lowest, highest);
    edit->setValue(metres, system());
    connect(edit, &ValueEdit::complained, this, [this](const QString& words) {
        m_complaint->setText(words);
        m_complaint->setVisible(!words.isEmpty());
    });
    return edit;
}

void NewSiteDialog::addSite()
{
    auto* form = new QFormLayout;
    m_name = new QLineEdit(tr("My garden"), this);
    m_name->setProperty("wide", true);
    m_name->setObjectName(QStringLiteral("siteName"));
    m_name->setAccessibleName(tr("Name"));
    m_soil = new Choice(this);
    m_soil->setObjectName(QStringLiteral("siteSoil"));
    m_soil->setAccessibleName(tr("Soil"));
    for (const Soil& soil : m_context.soils)
        m_soil->addItem(soilWords(soil));
    m_soil->setCurrentIndex(usualSoil(m_context.soils));
    const bool metric = system() == units::System::Metric;
    auto* size = new QHBoxLayout;
    m_width = length(this, tr("East to west"), QStringLiteral("siteEastWest"), metric ? 30.0 : 30.48, 1.0, 5000.0);
    m_depth = length(this, tr("North to south"), QStringLiteral("siteNorthSouth"), metric ? 20.0 : 18.288, 1.0, 5000.0);
    for (ValueEdit* edit : {m_width, m_depth})
        connect(edit, &ValueEdit::edited, this, &NewSiteDialog::placeSupports);
    size->addWidget(m_width);
    size->addWidget(new QLabel(tr("east to west,"), this));
    size->addWidget(m_depth);
    size->addWidget(new QLabel(tr("north to south"), this));
    size->addStretch(1);
    form->addRow(tr("Name"), m_name);
    form->addRow(tr("Soil"), m_soil);
    form->addRow(tr("Garden"), size);
    m_layout->addLayout(form);
}

void NewSiteDialog::addBands()
{
    auto* row = new QHBoxLayout;
    row->addWidget(quiet(tr("Bands wanted"), this), 1);
    m_plan = new Choice(this);
    m_plan->setObjectName(QStringLiteral("sitePlanOfBands"));
    m_plan->setAccessibleName(tr("Allocations"));
    for (const BandPlan& plan : m_context.bandPlans) {
        m_plan->addItem(QString::fromStdString(plan.name));
        if (plan.id == m_blank.operation.bandPlan)
            m_plan->setCurrentIndex(m_plan->count() - 1);
    }
    row->addWidget(m_plan);
    m_layout->addLayout(row);
    m_bandGrid = new QGridLayout;
    m_bandGrid->setSpacing(4);
    m_layout->addLayout(m_bandGrid);
    connect(m_plan, &QComboBox::currentIndexChanged, this, &NewSiteDialog::showBands);
    showBands();
}

/// What is wanted is said on its button, not by colour alone.
void NewSiteDialog::turn(BandButton& band, Wish wish)
{
    band.wish = wish;
    const QString name = QString::fromStdString(band.band);
    band.button->setText(wish == Wish::Must ? tr("%1 must").arg(name) : wish == Wish::Nice ? tr("%1 nice").arg(name) : name);
    band.button->setChecked(wish != Wish::No);
    band.button->setAccessibleName(wish == Wish::Must   ? tr("%1, must").arg(name)
                                   : wish == Wish::Nice ? tr("%1, nice").arg(name)
                                                        : tr("%1, not wanted").arg(name));
}

/// One button a band, a first click a must, a second nice; those of the plan before that were wanted stay so.
void NewSiteDialog::showBands()
{
    std::map<std::string, Wish> wanted;
    for (const BandButton& b : m_bands) {
        wanted[b.band] = b.wish;
        delete b.button;
    }
    m_bands.clear();
    const int plan = m_plan->currentIndex();
    if (plan < 0)
        return;
    for (const Band& band : m_context.bandPlans[std::size_t(plan)].bands) {
        auto* button = new QToolButton(this);
        button->setProperty("segment", true);
        button->setCheckable(true);
        button->setFocusPolicy(Qt::StrongFocus);
        button->setObjectName(QStringLiteral("siteBand ") + QString::fromStdString(band.name));
        button->setToolTip(tr("once: must; twice: nice; a third time: not wanted"));
        button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        const int place = int(m_bands.size());
        m_bandGrid->addWidget(button, place / bandsARow, place % bandsARow);
        QWidget* before = m_bands.empty() ? static_cast<QWidget*>(m_plan) : m_bands.back().button;
        setTabOrder(before, button);
        m_bands.push_back({button, band.name});
        turn(m_bands.back(), wanted[band.name]);
        connect(button, &QToolButton::clicked, this, [this, place] {
            BandButton& clicked = m_bands[std::size_t(place)];
            turn(clicked, clicked.wish == Wish::No ? Wish::Must : clicked.wish == Wish::Must ? Wish::Nice : Wish::No);
        });
    }
}

void NewSiteDialog::addSupports()
{
    auto* row = new QHBoxLayout;
    row->addWidget(quiet(tr("What can carry a wire: height, and where it stands east and north of the south-west corner"), this), 1);
    m_layout->addLayout(row);
    m_supportRows = new QVBoxLayout;
    m_supportRows->setSpacing(4);
    m_layout->addLayout(m_supportRows);
    m_addSupport = new QPushButton(tr("Add a support"), this);
    m_addSupport->setObjectName(QStringLiteral("siteAddSupport"));
    m_addSupport->setAutoDefault(false);
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(m_addSupport);
    const auto extra = [&](const QString& words, const char* objectName, void (NewSiteDialog::*add)()) {
        auto* button = new QPushButton(words, this);
        button->setObjectName(QLatin1String(objectName));
        button->setAutoDefault(false);
        connect(button, &QPushButton::clicked, this, add);
        buttons->addWidget(button);
        return button;
    };
    m_addHouse = extra(tr("Add a house"), "siteAddHouse", &NewSiteDialog::addHouse);
    m_addLine = extra(tr("Add the power line"), "siteAddLine", &NewSiteDialog::addLine);
    buttons->addStretch(1);
    m_layout->addLayout(buttons);
    connect(m_addSupport, &QPushButton::clicked, this, [this] {
        addSupport();
        m_addSupport->setEnabled(m_supports.size() < mostSupports);
        m_supports.back().height->setFocus();
        m_supports.back().height->selectAll();
    });
    addSupport();
}

/// The first one is a pole in the middle, the others are trees beside it until they are changed.
void NewSiteDialog::addSupport()
{
    const std::size_t place = m_supports.size();
    const QString number = QString::number(place + 1);
    const bool metric = system() == units::System::Metric;
    auto* row = new QWidget(this);
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    SupportRow support;
    support.row = row;
    support.kind = new Choice(row);
    support.kind->setObjectName(QStringLiteral("siteKind") + number);
    support.kind->setAccessibleName(tr("Kind of support %1").arg(number));
    for (SupportKind kind : kinds)
        support.kind->addItem(supportWords(kind));
    support.kind->setCurrentIndex(place == 0 ? 0 : 1);
    support.height = length(row, tr("Height of support %1").arg(number), QStringLiteral("siteHeight") + number,
                            place == 0 ? (metric ? 10.0 : 9.144) : (metric ? 8.0 : 7.62), 0.1, 300.0);
    support.east = length(row, tr("East of support %1").arg(number), QStringLiteral("siteEast") + number, 0.0, -5000.0, 5000.0);
    support.north = length(row, tr("North of support %1").arg(number), QStringLiteral("siteNorth") + number, 0.0, -5000.0, 5000.0);
    auto* remove = new QToolButton(row);
    remove->setText(QStringLiteral("×"));
    remove->setAccessibleName(tr("Leave out support %1").arg(number));
    remove->setToolTip(tr("Leave it out"));
    remove->setFocusPolicy(Qt::StrongFocus);
    line->addWidget(support.kind);
    for (const auto& [edit, words] :
         {std::pair(support.height, tr("high,")), std::pair(support.east, tr("east,")), std::pair(support.north, tr("north"))}) {
        line->addWidget(edit);
        line->addWidget(new QLabel(words, row));
    }
    line->addWidget(remove);
    line->addStretch(1);
    m_supportRows->addWidget(row);
    m_supports.push_back(support);
    QWidget* before = place > 0 ? m_supports[place - 1].row->findChild<QToolButton*>()
                                : static_cast<QWidget*>(m_bands.empty() ? nullptr : m_bands.back().button);
    for (QWidget* next : std::initializer_list<QWidget*>{support.kind, support.height, support.east, support.north, remove, m_addSupport}) {
        if (before)
            setTabOrder(before, next);
        before = next;
    }
    for (ValueEdit* edit : {support.east, support.north})
        connect(edit, &ValueEdit::edited, this, [this, row] {
            for (SupportRow& s : m_supports)
                s.placed = s.placed || s.row == row;
        });
    placeSupports();
    connect(remove, &QToolButton::clicked, this, [this, row] {
        std::erase_if(m_supports, [&](const SupportRow& s) { return s.row == row; });
        row->hide();
        row->deleteLater();
        m_addSupport->setEnabled(true);
    });
}

/// Below the supports; there is one of a kind, more are drawn on the plan.
void NewSiteDialog::addRow(QPushButton* button, const QString& first, const std::vector<Field>& fields, std::vector<ValueEdit*>& edits)
{
    button->setEnabled(false);
    auto* row = new QWidget(this);
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    line->addWidget(new QLabel(first, row));
    for (const Field& f : fields) {
        edits.push_back(length(row, f.name, QLatin1String(f.objectName), f.metres, f.lowest, 5000.0));
        line->addWidget(edits.back());
        line->addWidget(new QLabel(f.after, row));
    }
    line->addStretch(1);
    m_supportRows->addWidget(row);
    edits.front()->setFocus();
}

void NewSiteDialog::addHouse()
{
    const bool metric = system() == units::System::Metric;
    constexpr double anywhere = -5000.0, least = 0.5; // m
    addRow(m_addHouse, tr("House"),
           {{tr("East of the house's corner"), "siteHouseEast", 0.1 * m_width->value(), anywhere, tr("east,")},
            {tr("North of the house's corner"), "siteHouseNorth", 0.1 * m_depth->value(), anywhere, tr("north,")},
            {tr("House, east to west"), "siteHouseWidth", metric ? 10.0 : 9.144, least, tr("by")},
            {tr("House, north to south"), "siteHouseDepth", metric ? 8.0 : 7.62, least, tr(", ridge")},
            {tr("Ridge of the house"), "siteHouseRidge", metric ? 7.0 : 7.62, least, tr("high")}},
           m_house);
}

void NewSiteDialog::addLine()
{
    constexpr double anywhere = -5000.0, least = 0.5, usual = 8.0; // m
    addRow(m_addLine, tr("Line from"),
           {{tr("East of the line's beginning"), "siteLineFromEast", 0.0, anywhere, tr("east,")},
            {tr("North of the line's beginning"), "siteLineFromNorth", m_depth->value(), anywhere, tr("north to")},
            {tr("East of the line's end"), "siteLineToEast", m_width->value(), anywhere, tr("east,")},
            {tr("North of the line's end"), "siteLineToNorth", m_depth->value(), anywhere, tr("north,")},
            {tr("Height of the line"), "siteLineHeight", usual, least, tr("high")}},
           m_line);
}

/// The first in the middle, the others to its sides, where the user has not said otherwise.
void NewSiteDialog::placeSupports()
{
    const double w = m_width->value(), d = m_depth->value(), aside = 0.4 * w;
    for (std::size_t i = 0; i < m_supports.size(); ++i) {
        if (m_supports[i].placed)
            continue;
        const std::size_t row = (i + 1) / 2 - (i > 0); // whole rows
        m_supports[i].east->setValue(0.5 * w + (i == 0 ? 0.0 : i % 2 ? aside : -aside), system());
        m_supports[i].north->setValue(0.5 * d + 0.2 * d * double(row), system());
    }
}

/// In a field it takes the field: only the button makes the site.
void NewSiteDialog::keyPressEvent(QKeyEvent* event)
{
    const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
    if (enter && qobject_cast<QLineEdit*>(focusWidget()))
        return event->accept(); // the field has taken it already
    QDialog::keyPressEvent(event);
}

void NewSiteDialog::accept()
{
    if (takeTyped(this).isEmpty())
        QDialog::accept();
}

Design NewSiteDialog::design() const
{
    Design d = m_blank;
    if (const QString name = m_name->text().trimmed(); !name.isEmpty())
        d.site.name = name.toStdString();
    if (m_soil->currentIndex() >= 0)
        d.site.soil = m_context.soils[std::size_t(m_soil->currentIndex())];
    const double w = m_width->value(), h = m_depth->value();
    d.site.boundary = {{0, 0}, {w, 0}, {w, h}, {0, h}};
    d.site.feedEntry = {0.5 * w, 0.0};
    for (const SupportRow& s : m_supports) {
        const SupportKind kind = kinds[s.kind->currentIndex()];
        d.site.supports.push_back({freeName(supportWords(kind).toStdString(), siteNames(d.site)),
                                   kind,
                                   {s.east->value(), s.north->value()},
                                   s.height->value(),
                                   false,
                                   {},
                                   {}});
    }
    const auto metres = [](const std::vector<ValueEdit*>& fields, std::size_t i) { return fields[i]->value(); };
    if (!m_house.empty()) {
        Building house;
        house.id = newId();
        house.name = tr("house").toStdString();
        house.outline = rectangle({metres(m_house, 0), metres(m_house, 1)}, {metres(m_house, 2), metres(m_house, 3)});
        house.ridge = metres(m_house, 4);
        house.eaves = std::min(house.eaves, house.ridge);
        d.site.buildings.push_back(house);
    }
    if (!m_line.empty())
        d.site.powerLine = PowerLine{{metres(m_line, 0), metres(m_line, 1)}, {metres(m_line, 2), metres(m_line, 3)}, metres(m_line, 4), {}};
    d.operation.bands.clear();
    if (const int plan = m_plan->currentIndex(); plan >= 0) {
        d.operation.bandPlan = m_context.bandPlans[std::size_t(plan)].id;
        putIn(m_context.bandPlans[std::size_t(plan)], d.operation.bands);
    }
    for (const BandButton& b : m_bands)
        for (WantedBand& w : d.operation.bands)
            if (w.band.name == b.band)
                w.wish = b.wish;
    return d;
}

} // namespace vetchling::app

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
#include <QLineEdit>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

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
    auto* look =
        new QLabel(tr("Look up first: is there a power line? It is drawn on the plan, where everything can be moved and added to."), this);
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

/// One button a band; those of the plan before that were wanted stay so.
void NewSiteDialog::showBands()
{
    QStringList wanted;
    for (QToolButton* button : m_bands) {
        if (button->isChecked())
            wanted << button->text();
        delete button;
    }
    m_bands.clear();
    const int plan = m_plan->currentIndex();
    if (plan < 0)
        return;
    for (const Band& band : m_context.bandPlans[std::size_t(plan)].bands) {
        auto* button = new QToolButton(this);
        button->setText(QString::fromStdString(band.name));
        button->setProperty("segment", true);
        button->setCheckable(true);
        button->setChecked(wanted.contains(button->text()));
        button->setFocusPolicy(Qt::StrongFocus);
        button->setObjectName(QStringLiteral("siteBand ") + button->text());
        button->setAccessibleName(tr("%1 wanted").arg(button->text()));
        button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        const int place = int(m_bands.size());
        m_bandGrid->addWidget(button, place / bandsARow, place % bandsARow);
        QWidget* before = m_bands.empty() ? static_cast<QWidget*>(m_plan) : m_bands.back();
        setTabOrder(before, button);
        m_bands.push_back(button);
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
    m_layout->addWidget(m_addSupport, 0, Qt::AlignLeft);
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
                                : static_cast<QWidget*>(m_bands.empty() ? nullptr : m_bands.back());
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
    d.operation.bands.clear();
    if (const int plan = m_plan->currentIndex(); plan >= 0) {
        d.operation.bandPlan = m_context.bandPlans[std::size_t(plan)].id;
        putIn(m_context.bandPlans[std::size_t(plan)], d.operation.bands);
    }
    for (const QToolButton* button : m_bands)
        for (WantedBand& w : d.operation.bands)
            if (button->isChecked() && w.band.name == button->text().toStdString())
                w.wish = Wish::Must;
    return d;
}

} // namespace vetchling::app

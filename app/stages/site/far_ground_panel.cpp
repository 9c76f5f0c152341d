#include "app/stages/site/far_ground_panel.h"

#include "app/view/words.h"
#include "app/widgets/value_edit.h"
#include "core/em/far_field.h"

#include <QPushButton>

#include <algorithm>
#include <cmath>

namespace vetchling::app {

FarGroundPanel::FarGroundPanel(ViewContext& context, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_ledger(ledger)
{
    ledger.heading(tr("Sea or water beyond a shore"));
    m_choice = ledger.choice(tr("Sector"), {}, QStringLiteral("farGround"));
    connect(m_choice, &QComboBox::activated, this, [this](int row) {
        const auto& all = m_context.document.design().site.farGrounds;
        m_chosen = row < int(all.size()) ? all[std::size_t(row)].id : Id();
        refresh();
    });
    QStringList kinds;
    for (const Soil& s : context.soils)
        kinds << soilWords(s);
    m_kind = ledger.choice(tr("Ground"), kinds, QStringLiteral("farGroundKind"));
    connect(m_kind, &QComboBox::activated, this, [this](int row) {
        const Soil& soil = m_context.soils[std::size_t(row)];
        change({}, [&](FarGround& g) {
            g.name = soil.name;
            g.relativePermittivity = soil.relativePermittivity;
            g.conductivity = soil.conductivity;
        });
    });
    const auto field = [&](const QString& label, units::Quantity quantity, const char* name, double lowest, double highest,
                           double FarGround::*value) {
        ValueEdit* edit = ledger.value(label, quantity, QLatin1String(name));
        edit->setRange(lowest, highest);
        connect(edit, &ValueEdit::edited, this, [this, value, name](double to, const QString&, bool stepping) {
            change(stepping ? QLatin1String(name) : QString(), [&](FarGround& g) { g.*value = to; });
        });
        return edit;
    };
    m_from = field(tr("From bearing"), units::Quantity::Angle, "farFrom", -360.0, 360.0, &FarGround::fromBearing);
    m_to = field(tr("clockwise to"), units::Quantity::Angle, "farTo", -360.0, 720.0, &FarGround::toBearing);
    m_distance = field(tr("Shore is away"), units::Quantity::Length, "farDistance", 0.0, 1e5, &FarGround::distance);
    auto* add = ledger.button(tr("+ Sector of sea"), QStringLiteral("addFarGround"));
    connect(add, &QPushButton::clicked, this, &FarGroundPanel::add);
    m_remove = ledger.button(tr("Remove this sector"), QStringLiteral("removeFarGround"));
    connect(m_remove, &QPushButton::clicked, this, &FarGroundPanel::remove);
    m_note = ledger.note();
    m_note->setObjectName(QStringLiteral("farGroundNote"));
}

const FarGround* FarGroundPanel::chosen() const
{
    const auto& all = m_context.document.design().site.farGrounds;
    const auto found = std::find_if(all.begin(), all.end(), [&](const FarGround& g) { return g.id == m_chosen; });
    return found != all.end() ? &*found : all.empty() ? nullptr : &all.front();
}

void FarGroundPanel::add()
{
    FarGround sea;
    sea.name = tr("Sea water").toStdString();
    for (const Soil& soil : m_context.soils)
        if (soil.conductivity > 1.0) {
            sea.name = soil.name;
            sea.relativePermittivity = soil.relativePermittivity;
            sea.conductivity = soil.conductivity;
            break;
        }
    sea.id = m_chosen = newId();
    m_context.document.edit(tr("add a sector"), {}, [&](Design& d) { d.site.farGrounds.push_back(sea); });
}

void FarGroundPanel::remove()
{
    if (const FarGround* ground = chosen())
        m_context.document.edit(tr("remove a sector"), {}, [id = ground->id](Design& d) {
            std::erase_if(d.site.farGrounds, [&](const FarGround& g) { return g.id == id; });
        });
}

void FarGroundPanel::change(const QString& key, const std::function<void(FarGround&)>& change)
{
    const FarGround* ground = chosen();
    if (!ground)
        return;
    m_context.document.edit(tr("change a sector"), key, [&, id = ground->id](Design& d) {
        for (FarGround& g : d.site.farGrounds)
            if (g.id == id)
                change(g);
    });
}

void FarGroundPanel::refresh()
{
    const auto& all = m_context.document.design().site.farGrounds;
    const FarGround* ground = chosen();
    QStringList names;
    for (const FarGround& g : all)
        names << tr("%1, %2° to %3°").arg(QString::fromStdString(g.name)).arg(g.fromBearing, 0, 'f', 0).arg(g.toBearing, 0, 'f', 0);
    m_choice->clear();
    m_choice->addItems(names);
    for (QWidget* row : std::initializer_list<QWidget*>{m_choice, m_kind, m_from, m_to, m_distance})
        m_ledger.setRowVisible(row, ground);
    m_remove->setVisible(ground);
    const std::size_t profiles = m_context.document.design().site.profiles.size();
    const QString none = profiles ? QString() : tr("None: the soil reaches as far as waves are reflected.");
    const QString first = profiles ? tr("Where the ground along a bearing is told above, that counts and not this.") : QString();
    m_note->setText((ground ? words() + QLatin1Char(' ') + first : none + first).trimmed());
    if (!ground)
        return;
    m_choice->setCurrentIndex(int(ground - all.data()));
    m_kind->setCurrentIndex(-1);
    for (std::size_t i = 0; i < m_context.soils.size(); ++i)
        if (m_context.soils[i].relativePermittivity == ground->relativePermittivity &&
            m_context.soils[i].conductivity == ground->conductivity)
            m_kind->setCurrentIndex(int(i));
    m_from->setValue(ground->fromBearing, m_context.system());
    m_to->setValue(ground->toBearing, m_context.system());
    m_distance->setValue(ground->distance, m_context.system());
}

/// How far off the wave is reflected that leaves at the wanted angle on the selected band.
QString FarGroundPanel::words() const
{
    const Document& d = m_context.document;
    const WantedBand* band = findBand(d.design(), d.selectedBand());
    const AntennaModel* model = m_context.models.current();
    QString out = tr("Far waves are solved over both grounds, straight along their bearing; the currents stay those over the soil here. "
                     "Gains by the sea that were told before this version were up to 6 dB too high.");
    if (!band || !model || !model->built)
        return out;
    const double elevation = radians(d.design().operation.aimElevation), wave = wavelength(band->band.centre());
    const em::ReflectionZone zone = em::reflectionZone(model->built->feedPoint.z, elevation, wave);
    return tr("On %1 at %2° the ground out to %3 reflects most. ")
               .arg(QString::fromStdString(band->band.name))
               .arg(d.design().operation.aimElevation, 0, 'f', 0)
               .arg(farWords(zone.to, m_context.system())) +
           out;
}

} // namespace vetchling::app

#include "app/stages/shape/variants_panel.h"

#include "app/view/band_words.h"
#include "app/view/spread_words.h"
#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"

#include <QComboBox>

#include <QPushButton>
#include <QTimer>

#include <algorithm>
#include <cmath>

namespace vetchling::app {

std::string VariantsPanel::layout(const Document& document)
{
    std::string key = "variants|" + document.current();
    for (const Variant& v : document.antenna().variants)
        key += "|" + v.id;
    return key + "|" + document.variant();
}

VariantsPanel::VariantsPanel(ViewContext& context, Ledger& ledger, QObject* parent) : QObject(parent), m_context(context), m_ledger(ledger)
{
    addVariants();
    ledger.line();
    addSoil();
    ledger.line();
    addTolerances();
    ledger.line();
    ledger.heading(tr("Compare also"));
    m_pinned = ledger.note();
}

void VariantsPanel::addVariants()
{
    Document& document = m_context.document;
    m_ledger.heading(tr("Variants"));
    const auto add = [&](const Id& id, const QString& name, const QString& object) {
        QPushButton* button = m_ledger.button(name, object, document.variant() == id);
        button->setAccessibleDescription(tr("Look at this one"));
        connect(button, &QPushButton::clicked, this, [&document, id] { document.setVariant(id); });
        m_names.emplace_back(id, button);
    };
    add({}, tr("as drawn"), QStringLiteral("variant as drawn"));
    for (const Variant& v : document.antenna().variants)
        add(v.id, QString::fromStdString(v.name), QStringLiteral("variant ") + QString::fromStdString(v.id));
    if (!document.variant().empty()) {
        m_name = m_ledger.name(tr("Name"), QStringLiteral("variantName"));
        connect(m_name, &NameEdit::named, this, [&document](const QString& name) { document.renameVariant(document.variant(), name); });
        m_note = new QLineEdit;
        m_note->setObjectName(QStringLiteral("variantNote"));
        m_note->setAlignment(Qt::AlignLeft);
        m_note->setProperty("wide", true);
        m_note->setPlaceholderText(tr("a note"));
        m_note->setAccessibleName(tr("Note on this variant"));
        m_ledger.add(m_note);
        connect(m_note, &QLineEdit::editingFinished, this, [this, &document] { document.noteVariant(document.variant(), m_note->text()); });
    }
    auto* fresh = m_ledger.button(tr("New variant from this"), QStringLiteral("newVariant"));
    fresh->setToolTip(tr("Keeps what you see under a name of its own, to be changed further (V)"));
    connect(fresh, &QPushButton::clicked, this, [&document, &ledger = m_ledger] {
        document.addVariant(tr("variant"));
        QTimer::singleShot(0, &ledger, [&ledger] { // when its rows are there
            if (auto* name = ledger.findChild<QLineEdit*>(QStringLiteral("variantName"))) {
                name->setFocus();
                name->selectAll();
            }
        });
    });
    if (document.variant().empty())
        return;
    m_take = m_ledger.button(tr("Make it the antenna"), QStringLiteral("takeVariant"));
    m_take->setToolTip(tr("It takes the place of the one as drawn, which stays as a variant"));
    connect(m_take, &QPushButton::clicked, this, [&document] { document.makeVariantTheAntenna(tr("as drawn before")); });
    m_remove = m_ledger.button(tr("Remove this variant"), QStringLiteral("removeVariant"));
    connect(m_remove, &QPushButton::clicked, this, [&document] { document.removeVariant(document.variant()); });
}

void VariantsPanel::addSoil()
{
    m_ledger.heading(tr("Soil under it"));
    QStringList names{tr("the site's"), tr("own figures")};
    for (const Soil& s : m_context.soils)
        names << soilWords(s);
    m_soil = m_ledger.choice(tr("Kind"), names, QStringLiteral("variantSoil"));
    m_soil->setToolTip(tr("Part of a variant like its lengths; other antennas keep theirs"));
    connect(m_soil, &QComboBox::activated, this, &VariantsPanel::takeSoil);
    const auto figure = [this](const QString& label, double Soil::*value, double lowest, double highest, const QString& object) {
        ValueEdit* edit = m_ledger.value(label, units::Quantity::Plain, object);
        edit->setRange(lowest, highest);
        connect(edit, &ValueEdit::edited, this, [this, value, object](double to, const QString&, bool stepping) {
            m_context.document.editAntenna(tr("change the soil under it"), stepping ? object : QString(), [&](Antenna& antenna) {
                Soil soil = soilUnder(m_context.document.design(), antenna);
                makeOwn(soil, tr("own soil").toStdString());
                soil.*value = to;
                antenna.soil = soil;
            });
        });
        return edit;
    };
    m_permittivity = figure(tr("Relative permittivity"), &Soil::relativePermittivity, 1.0, 100.0, QStringLiteral("variantPermittivity"));
    m_conductivity = figure(tr("Conductivity, S/m"), &Soil::conductivity, 0.0, 10.0, QStringLiteral("variantConductivity"));
    m_soilNote = m_ledger.note();
    m_soilNote->setObjectName(QStringLiteral("variantSoilNote"));
}

void VariantsPanel::takeSoil(int row)
{
    constexpr int sites = 0, own = 1, kinds = 2;
    m_context.document.editAntenna(tr("change the soil under it"), {}, [&](Antenna& antenna) {
        Soil soil = soilUnder(m_context.document.design(), antenna);
        if (row == own)
            makeOwn(soil, tr("own soil").toStdString());
        antenna.soil = row == sites ? std::optional<Soil>() : row == own ? soil : m_context.soils[std::size_t(row - kinds)];
    });
}

void VariantsPanel::refreshSoil()
{
    const Design& design = m_context.document.design();
    const Antenna& antenna = m_context.document.antenna();
    const Soil& soil = soilUnder(design, antenna);
    int row = antenna.soil ? 1 : 0;
    for (std::size_t i = 0; antenna.soil && i < m_context.soils.size(); ++i)
        if (m_context.soils[i].id == soil.id)
            row = int(i) + 2;
    m_soil->setItemText(0, tr("the site's: %1").arg(coreWords(design.site.soil.name)));
    m_soil->setCurrentIndex(row);
    m_permittivity->setValue(soil.relativePermittivity, m_context.system());
    m_conductivity->setValue(soil.conductivity, m_context.system());
    m_soilNote->setText(antenna.soil ? tr("This one alone stands on it; the site's stays %1.").arg(coreWords(design.site.soil.name))
                                     : tr("Choose one, or type figures, and this one stands on soil of its own."));
}

void VariantsPanel::addTolerances()
{
    m_ledger.heading(tr("Not sure of, either side"));
    struct Row {
        QString label;
        units::Quantity quantity;
        double Tolerances::*value;
        double lowest, highest;
        const char* object;
        QString help;
    };
    const Row rows[] = {
        {tr("Height"), units::Quantity::Length, &Tolerances::height, 0.0, 10.0, "tolerance height", tr("of all that hangs")},
        {tr("Cut"), units::Quantity::SmallLength, &Tolerances::cut, 0.0, 2.0, "tolerance cut", tr("every tuned length alike: one tape")},
        {tr("Unequal sides"), units::Quantity::SmallLength, &Tolerances::unequal, 0.0, 5.0, "tolerance unequal",
         tr("one side longer than the other by this")},
        {tr("Jacket"), units::Quantity::WireSize, &Tolerances::jacket, 0.0, 5e-3, "tolerance jacket", tr("thickness of the insulation")},
        {tr("Soil, conductivity ×"), units::Quantity::Plain, &Tolerances::soilConductivity, 1.0, 100.0, "tolerance conductivity",
         tr("wetter or drier by this factor, where the soil's class has no seasons of its own")},
        {tr("Soil, permittivity ×"), units::Quantity::Plain, &Tolerances::soilPermittivity, 1.0, 20.0, "tolerance permittivity",
         tr("wetter or drier by this factor, where the soil's class has no seasons of its own")}};
    for (const Row& row : rows) {
        ValueEdit* edit = m_ledger.value(row.label, row.quantity, QLatin1String(row.object));
        edit->setRange(row.lowest, row.highest);
        edit->setHelp(row.help);
        connect(edit, &ValueEdit::edited, this, [this, value = row.value](double to, const QString&, bool dragging) {
            m_context.document.edit(tr("change a tolerance"), dragging ? QStringLiteral("tolerance") : QString(),
                                    [&](Design& d) { d.operation.tolerances.*value = to; });
        });
        m_tolerances.emplace_back(row.value, edit);
    }
    m_causes = m_ledger.note();
    m_causes->setObjectName(QStringLiteral("spreadCauses"));
}

void VariantsPanel::refresh()
{
    const Document& document = m_context.document;
    for (const auto& [id, button] : m_names)
        if (const Variant* v = findVariant(document.antenna(), id))
            button->setText(QString::fromStdString(v->name));
    if (const Variant* v = findVariant(document.antenna(), document.variant()); v && m_name) {
        m_name->setName(QString::fromStdString(v->name));
        if (!m_note->hasFocus())
            m_note->setText(QString::fromStdString(v->note));
    }
    for (const auto& [value, edit] : m_tolerances)
        edit->setValue(document.design().operation.tolerances.*value, m_context.system());
    refreshSoil();
    const Soil& soil = soilUnder(document.design(), document.antenna());
    const auto spread = m_context.variants.freshSpread();
    const study::BandSpread* band = spread ? spread->band(document.selectedBand()) : nullptr;
    QString words = soil.dry || soil.wet ? tr("Dry and wet are those of %1. ").arg(QString::fromStdString(soil.name)) : QString();
    if (band && band->dip)
        words += causesWords(*spread, *band, m_context.system());
    m_causes->setText(words);
    m_pinned->setText(m_context.solver.pinned() ? tr("%1, pinned.").arg(m_context.solver.pinnedName())
                                                : tr("Pin an antenna (P) to have it in the table too."));
}

QString VariantsPanel::sentence(const ViewContext& context)
{
    const Document& document = context.document;
    if (document.antenna().variants.empty())
        return tr("Press V to keep what you see as a variant, then change it: both are compared here and in every graphic.");
    const auto rows = context.variants.comparison();
    const auto row = [&](const Id& variant) -> const study::Compared* {
        if (rows)
            for (const study::Compared& r : *rows)
                if (r.variant == variant && r.antenna == document.current())
                    return &r;
        return nullptr;
    };
    const Id other = document.variant().empty() ? document.antenna().variants.front().id : document.variant();
    const study::Compared *drawn = row({}), *varied = row(other);
    const Id& band = document.selectedBand();
    if (!drawn || !varied)
        return tr("Being computed …");
    if (!varied->fault.empty())
        return tr("%1 cannot be: %2.").arg(QString::fromStdString(varied->name), coreWords(varied->fault, context.system()));
    if (!drawn->bands.contains(band) || !varied->bands.contains(band))
        return tr("%1: %2 of the wanted bands; as drawn %3.")
            .arg(QString::fromStdString(varied->name), tallyWords(varied->tally), tallyWords(drawn->tally));
    const double wire = varied->wire - drawn->wire, gain = varied->bands.at(band).gain - drawn->bands.at(band).gain;
    const QString much = smallWords(std::abs(wire), context.system());
    const QString cost = std::abs(wire) < 0.005 ? tr("takes the same wire")
                         : wire > 0.0           ? tr("takes %1 more wire").arg(much)
                                                : tr("saves %1 of wire").arg(much);
    constexpr double unheard = 0.05; // dB
    const QString gained = std::abs(gain) < unheard ? tr("is as strong")
                                                    : (gain > 0.0 ? tr("brings %1 dB") : tr("costs %1 dB")).arg(std::abs(gain), 0, 'f', 1);
    return tr("%1 %2 and %3 at %4° on %5; of the wanted bands %6, as drawn %7.")
        .arg(QString::fromStdString(varied->name), cost, gained)
        .arg(document.design().operation.aimElevation, 0, 'f', 0)
        .arg(QString::fromStdString(findBand(document.design(), band)->band.name))
        .arg(tallyWords(varied->tally), tallyWords(drawn->tally));
}

} // namespace vetchling::app

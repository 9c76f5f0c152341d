#include "app/stages/site/power_line_panel.h"

#include "app/widgets/value_edit.h"

#include <QCheckBox>

namespace vetchling::app {

PowerLinePanel::PowerLinePanel(ViewContext& context, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_ledger(ledger)
{
    ledger.heading(tr("Overhead power line"));
    m_has = new QCheckBox(tr("there is one nearby"), &ledger);
    m_has->setObjectName(QStringLiteral("hasPowerLine"));
    ledger.add(m_has);
    connect(m_has, &QCheckBox::clicked, this, &PowerLinePanel::switchTo);
    const auto field = [&](const QString& label, const char* name, double lowest, double highest, auto part) {
        ValueEdit* edit = ledger.value(label, units::Quantity::Length, QLatin1String(name));
        edit->setRange(lowest, highest);
        connect(edit, &ValueEdit::edited, this, [this, part, name](double v, const QString&, bool stepping) {
            m_context.document.edit(tr("change the power line"), stepping ? QLatin1String(name) : QString(), [&](Design& d) {
                if (d.site.powerLine)
                    part(*d.site.powerLine) = v;
            });
        });
        m_fields.push_back({edit, [part](const PowerLine& line) { return part(line); }});
    };
    constexpr double far = 10000.0;
    field(
        tr("Height"), "lineHeight", 1.0, 100.0, [](auto& l) -> auto& { return l.height; });
    field(
        tr("From: east"), "lineFromEast", -far, far, [](auto& l) -> auto& { return l.from.x; });
    field(
        tr("north"), "linePlace", -far, far, [](auto& l) -> auto& { return l.from.y; });
    field(
        tr("To: east"), "lineToEast", -far, far, [](auto& l) -> auto& { return l.to.x; });
    field(
        tr("north"), "lineToNorth", -far, far, [](auto& l) -> auto& { return l.to.y; });
}

void PowerLinePanel::switchTo(bool on)
{
    const Site& site = m_context.document.design().site;
    if (site.powerLine)
        m_before = site.powerLine;
    const PlanPoint corner = cornerOf(site.boundary), extent = extentOf(site.boundary);
    constexpr double beyond = 10.0; // m
    const PowerLine usual{{corner.x - beyond, corner.y - beyond}, {corner.x + extent.x + beyond, corner.y - beyond}, 8.0, {}};
    m_context.document.edit(tr("change the power line"), {}, [&](Design& d) {
        if (on)
            d.site.powerLine = m_before.value_or(usual);
        else
            d.site.powerLine.reset();
        d.site.powerLineUnread = false; // said anew
    });
}

void PowerLinePanel::refresh()
{
    const Site& site = m_context.document.design().site;
    m_has->setChecked(site.powerLine.has_value());
    for (const auto& [edit, part] : m_fields) {
        m_ledger.setRowVisible(edit, site.powerLine.has_value());
        if (site.powerLine)
            edit->setValue(part(*site.powerLine), m_context.system());
    }
}

} // namespace vetchling::app

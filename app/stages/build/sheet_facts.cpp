#include "app/stages/build/sheet_facts.h"

#include "app/document/build_desk.h"
#include "app/document/coil_desk.h"
#include "app/stages/build/safety_board.h"
#include "app/view/context.h"
#include "app/view/feed_words.h"
#include "app/view/finding_words.h"
#include "app/view/words.h"

#include <algorithm>

namespace vetchling::app {
namespace {

QString conductorName(const ViewContext& context, const std::string& id)
{
    const auto& all = context.conductors;
    const auto known = std::find_if(all.begin(), all.end(), [&](const files::Conductor& c) { return c.id == id; });
    return known == all.end() ? QString::fromStdString(id) : coreWords(known->name);
}

void takeCoil(SheetFacts& sheet, const CoilDesk& coils)
{
    if (coils.coils().empty())
        return;
    const auto known = coils.answer();
    if (coils.standing() != Standing::Whole)
        sheet.coilMissing = coils.faults().empty() ? SheetFacts::tr("Not worked out for this sheet: see Build, Coil.")
                                                   : coreWords(coils.faults().front().message, sheet.system);
    else if (!known->wound.good())
        sheet.coilMissing = coreWords(known->wound.fault.message, sheet.system);
    else
        sheet.coil = known;
}

QString distanceWords(const ViewContext& context, const BuildDesk& build)
{
    if (build.safetyStanding() != Standing::Whole)
        return build.safetyFaults().empty()
                   ? SheetFacts::tr("The distances to keep are not worked out for this sheet: see Build, Safety, before power goes on.")
                   : coreWords(build.safetyFaults().front().message, context.system());
    const auto rows = build.keepRows();
    const LimitSet* limit = build.limit();
    if (rows.empty() || !limit)
        return SheetFacts::tr("No wished band that the limit speaks of: no distances.");
    const Mode* mode = build.data().mode(context.document.antenna().workshop.mode);
    QStringList words;
    for (const study::KeepRow& row : rows)
        words << SheetFacts::tr("%1: %2 from wires, %3 peak")
                     .arg(QString::fromStdString(row.name),
                          row.keep.fromWires > 0.0 ? (row.keep.bounded ? QStringLiteral("%1") : SheetFacts::tr("more than %1"))
                                                         .arg(lengthWords(row.keep.fromWires, context.system(), 1))
                                                   : SheetFacts::tr("nothing"),
                          feed::voltWords(row.volts));
    return SheetFacts::tr("%1, %2, %3 W: %4.")
        .arg(QString::fromStdString(limit->name), mode ? coreWords(mode->name) : QString())
        .arg(context.document.design().operation.power, 0, 'f', 0)
        .arg(words.join(QStringLiteral("; ")));
}

} // namespace

SheetFacts sheetFactsOf(const ViewContext& context, const BuildDesk& build, const CoilDesk& coils)
{
    SheetFacts sheet;
    sheet.system = context.system();
    if (!context.document.hasAntenna() || !build.facts())
        return sheet;
    const Site& site = context.document.design().site;
    sheet.antenna = context.document.antenna();
    sheet.name = context.document.shownName();
    sheet.site = QString::fromStdString(site.name);
    sheet.soil = soilUnder(context.document.design(), sheet.antenna).name;
    sheet.conductor = conductorName(context, sheet.antenna.shape.wire.conductor);
    sheet.currency = QString::fromStdString(context.shed.shed().currency);
    sheet.built = build.built();
    sheet.facts = *build.facts();
    takeCoil(sheet, coils);
    if (build.hasChoke())
        sheet.choke = build.choke();
    sheet.distances = distanceWords(context, build);
    sheet.cautions = cautionsOf(build, context.document, sheet.system);
    for (const advice::Finding& f : context.left.findings())
        if (f.gravity <= advice::Gravity::Wrong)
            sheet.notRight.emplace_back(findingTitle(f, sheet.system), findingSentence(f, sheet.system));
    sheet.allFound = context.left.standing() == Standing::Whole;
    return sheet;
}

} // namespace vetchling::app

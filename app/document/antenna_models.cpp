#include "app/document/antenna_models.h"

#include "app/document/document.h"
#include "app/document/shed_desk.h"

namespace vetchling::app {

AntennaModels::AntennaModels(Document& document, ShedDesk& shed, QObject* parent) : QObject(parent), m_document(document), m_shed(shed)
{
    connect(&document, &Document::designReplaced, this, [this] { m_models.clear(); });
    connect(&document, &Document::designChanged, this, &AntennaModels::refresh);
    connect(&document, &Document::configurationChanged, this, &AntennaModels::refresh);
    refresh();
}

const AntennaModel* AntennaModels::find(const Id& antenna) const
{
    const auto found = m_models.find(antenna);
    return found == m_models.end() ? nullptr : &found->second;
}

const AntennaModel* AntennaModels::current() const { return find(m_document.current()); }

void AntennaModels::refresh()
{
    const Design& design = m_document.design();
    const bool siteChanged = !(m_site == design.site);
    m_site = design.site;
    std::erase_if(m_models, [&](const auto& entry) { return !findAntenna(design, entry.first); });
    bool any = false;
    for (const Antenna& antenna : design.antennas) {
        const auto [place, fresh] = m_models.try_emplace(antenna.id);
        if (fresh || siteChanged || place->second.shape != antenna.shape || place->second.soil != soilUnder(design, antenna) ||
            place->second.configuration != m_document.configuration(antenna.id) || !(m_allowances[antenna.id] == antenna.allowances))
            rebuild(place->second, antenna, design), any = true;
        m_allowances[antenna.id] = antenna.allowances;
    }
    if (any)
        findCrossings();
}

void AntennaModels::findCrossings()
{
    for (auto& [id, model] : m_models) {
        model.crossings.clear();
        for (const auto& [other, second] : m_models)
            if (id != other && model.built && second.built && !model.fault && !second.fault)
                if (const auto crossing = crossingOf(model.built->model, second.built->model))
                    model.crossings.emplace_back(other, *crossing);
        model.crossed.clear();
        if (const Antenna* antenna = findAntenna(m_document.design(), id))
            model.crossed = advice::crossingFindings(m_document.design(), *antenna, model.crossings);
    }
}

std::vector<advice::Finding> AntennaModel::told() const
{
    std::vector<advice::Finding> all = findings;
    all.insert(all.end(), crossed.begin(), crossed.end());
    return all;
}

void AntennaModels::lookIntoShed()
{
    const Design& design = m_document.design();
    for (const Antenna& antenna : design.antennas) {
        AntennaModel& model = m_models[antenna.id];
        model.inventory.reset();
        model.reach.clear();
        if (!model.built || model.fault)
            continue;
        model.inventory = inventoryOf(needsOf(antenna, *model.built, design.site), m_shed.shed());
        model.reach = bandsFromShed(design, antenna, m_shed.shed());
    }
}

void AntennaModels::rebuild(AntennaModel& model, const Antenna& antenna, const Design& design) const
{
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    model.shape = antenna.shape;
    model.soil = soilUnder(design, antenna);
    model.configuration = m_document.configuration(antenna.id);
    model.remarks = family.remarks(antenna.shape);
    model.lengths.clear();
    for (const shapes::TunedLength& t : family.tuned(antenna.shape))
        model.lengths.push_back({t, family.rules(antenna.shape, t)});
    Result<shapes::BuiltAntenna> built = shapes::buildOver(antenna.shape, model.soil.ground(), model.configuration);
    if (!built) {
        model.fault = built.faults().front();
        model.fit.reset();
        model.findings.clear();
        model.notes.clear();
        model.cut.clear();
        return;
    }
    model.fault.reset();
    model.built = std::make_shared<const shapes::BuiltAntenna>(std::move(built).value());
    model.fit = fitOnSite(design.site, model.built->model);
    model.findings = advice::placeFindings(antenna, *model.fit);
    model.notes = rangeNotes(model.built->model, antenna.shape.designFrequency);
    model.cut = cutList(model.built->sections, antenna.allowances);
}

} // namespace vetchling::app

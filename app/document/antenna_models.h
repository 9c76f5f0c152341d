#pragma once
/// Wires and lengths of every antenna of the open design as drawn, before anything is solved: made once after a change, read by all views.

#include "core/advice/findings.h"
#include "core/design/design.h"
#include "core/wire/range.h"
#include "core/workshop/cut_list.h"
#include "core/workshop/shed.h"

#include <QObject>

#include <map>
#include <memory>
#include <optional>

namespace vetchling::app {

class Document;
class ShedDesk;

struct AntennaModel {
    shapes::AntennaShape shape;
    Soil soil;                                         ///< under it
    std::shared_ptr<const shapes::BuiltAntenna> built; ///< of the last shape that was possible; null before the first
    std::optional<Fault> fault;                        ///< why the present shape is not
    std::optional<FitReport> fit;                      ///< on the site
    std::vector<advice::Finding> findings;             ///< of its place, gravest first
    std::vector<std::pair<Id, Crossing>> crossings;    ///< other antennas whose wires it comes too near to
    std::vector<advice::Finding> crossed;              ///< the same in words, in their order
    std::vector<RangeNote> notes;
    std::vector<CutRow> cut;
    std::optional<Inventory> inventory; ///< what of its needs lies in the shed; see lookIntoShed
    std::vector<BandReach> reach;       ///< the wished bands that the shed reaches with it
    std::size_t configuration = 0;      ///< it is drawn in
    struct Ruled {
        shapes::TunedLength what;
        std::vector<shapes::RuleOfThumb> rules;
    };
    /// All that is wrong with its place.
    [[nodiscard]] std::vector<advice::Finding> told() const;
    std::vector<Text> remarks;  ///< the shape in words, where there are any
    std::vector<Ruled> lengths; ///< the tuned ones, with their rules of thumb
};

class AntennaModels : public QObject {
    Q_OBJECT
public:
    /// Follows the document; make it before anything that reads it.
    AntennaModels(Document& document, ShedDesk& shed, QObject* parent = nullptr);

    /// Brings `inventory` and `reach` of all up to date; nobody else does.
    void lookIntoShed();
    /// Null if there is none of that id.
    [[nodiscard]] const AntennaModel* find(const Id& antenna) const;
    /// Of the antenna on show; null if there is none.
    [[nodiscard]] const AntennaModel* current() const;

private:
    void refresh();
    void findCrossings();
    void rebuild(AntennaModel& model, const Antenna& antenna, const Design& design) const;

    Document& m_document;
    ShedDesk& m_shed;
    std::map<Id, AntennaModel> m_models;
    Site m_site;                           ///< the models were made for
    std::map<Id, Allowances> m_allowances; ///< the cut lists were made with
};

} // namespace vetchling::app

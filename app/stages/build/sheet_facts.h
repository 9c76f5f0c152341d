#pragma once
/// What stands on a build sheet, as values: made where the desks are, painted and written elsewhere. What is not worked out of the antenna
/// as it is, is said to be missing.

#include "core/study/coil_study.h"
#include "core/workshop/build_facts.h"
#include "core/workshop/ferrite.h"

#include <QCoreApplication>
#include <QStringList>

namespace vetchling::app {

class BuildDesk;
class CoilDesk;
struct ViewContext;

struct SheetFacts {
    QString name, site, conductor, currency;
    Antenna antenna;
    std::string soil;
    std::shared_ptr<const shapes::BuiltAntenna> built; ///< null: there is nothing to build
    BuildFacts facts;
    std::shared_ptr<const study::CoilAnswer> coil; ///< null: none, or not worked out
    QString coilMissing;                           ///< why it is not there; empty without coils
    std::optional<CoreChoke> choke;                ///< of the chain
    QString distances;                             ///< in words, or why there are none
    std::vector<std::pair<QString, QString>> cautions;
    std::vector<std::pair<QString, QString>> notRight; ///< findings that are dangers or not right, as the list of what is left has them
    bool allFound = false;                             ///< they are those of the antenna as it is, and all
    units::System system = units::System::Metric;

    Q_DECLARE_TR_FUNCTIONS(SheetFacts)
};

/// Of the antenna on show.
SheetFacts sheetFactsOf(const ViewContext& context, const BuildDesk& build, const CoilDesk& coils);

} // namespace vetchling::app

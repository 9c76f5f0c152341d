#pragma once
/// What every view reads: the document, what was solved of it, the look, and the data files.

#include "app/document/antenna_models.h"
#include "app/document/document.h"
#include "app/document/left_desk.h"
#include "app/document/shed_desk.h"
#include "app/document/solve_service.h"
#include "app/document/variants_desk.h"
#include "app/document/waiting.h"
#include "app/view/theme.h"
#include "core/files/chain_file.h"
#include "core/files/data.h"

namespace vetchling::app {

struct ViewContext {
    Document& document;
    AntennaModels& models;
    SolveService& solver;
    VariantsDesk& variants;
    ShedDesk& shed;
    LeftDesk& left;
    Theme& theme;
    std::vector<Soil> soils;
    std::vector<files::Conductor> conductors;
    std::vector<BandPlan> bandPlans;
    std::vector<LineType> lineTypes = {};
    QString dataFolder = {};                 ///< where the tables and examples that ship with the program are
    std::vector<NamedWaiting> waitings = {}; ///< what may take long; each desk's stage adds its own

    void add(std::vector<NamedWaiting> more)
    {
        for (NamedWaiting& one : more)
            waitings.push_back(std::move(one));
    }
    [[nodiscard]] units::System system() const { return document.design().operation.system; }
};

} // namespace vetchling::app

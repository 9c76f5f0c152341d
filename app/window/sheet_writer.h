#pragma once
/// The build sheet of a design without a window: for the command line.

#include "app/stages/build/sheet_pages.h"

namespace vetchling::app {

struct SheetRequest {
    QString design, antenna; ///< name or id; empty: the first
    QString sheet;           ///< PDF to be written; may be empty
    QString templates;       ///< PDF or SVG to be written; may be empty
    SheetPaper paper = SheetPaper::A4;
    bool quick = false; ///< without what has to be solved: coil and distances
};

/// Solves what the sheet tells and writes it. Empty, or what is wrong.
Faults writeSheet(const QString& dataFolder, const SheetRequest& request);
/// "a4", "letter", "phone"; nothing for another word.
std::optional<SheetPaper> paperOf(const QString& word);

} // namespace vetchling::app

#pragma once
/// The build sheet on paper: two pages of A4 or Letter for the garden, or a strip of pages as wide as a phone. Black and white safe: what
/// colour tells is told by words as well.

#include "app/stages/build/sheet_facts.h"

#include <QPagedPaintDevice>

namespace vetchling::app {

enum class SheetPaper { A4, Letter, Phone };

/// Touches nothing but its values: it may be used on any thread.
class SheetPages {
    Q_DECLARE_TR_FUNCTIONS(SheetPages)
public:
    explicit SheetPages(SheetFacts sheet) : m_sheet(std::move(sheet)) {}

    /// Onto a device with pages, its size and margins as they are. Returns the pages that were filled; 0 where it cannot be painted on.
    int paint(QPagedPaintDevice& device, bool narrow) const;
    /// Writes a PDF. Empty, or why not.
    Faults write(const QString& path, SheetPaper paper) const;
    /// Plates to be drilled at 1:1, as PDF or SVG by the name's ending.
    Faults writeTemplates(const QString& path) const;

private:
    class Flow;
    void head(Flow& flow) const;
    void pieces(Flow& flow) const;
    void tapes(Flow& flow) const;
    void details(Flow& flow) const;
    void parts(Flow& flow) const;
    void mechanics(Flow& flow) const;
    void bench(Flow& flow) const;
    void winding(Flow& flow) const;
    void feed(Flow& flow) const;
    void safety(Flow& flow) const;
    void notRight(Flow& flow) const;
    void packing(Flow& flow) const;
    [[nodiscard]] QStringList facts() const;
    [[nodiscard]] QString title() const;

    SheetFacts m_sheet;
};

} // namespace vetchling::app

#pragma once
/// The build sheet on paper: two pages of A4 or Letter for the garden, or a strip of pages as wide as a phone. Black and white safe: what
/// colour tells is told by words as well.

#include "app/document/build_desk.h"
#include "app/document/coil_desk.h"
#include "app/document/feed_desk.h"
#include "app/view/context.h"

#include <QCoreApplication>
#include <QPagedPaintDevice>

namespace vetchling::app {

enum class SheetPaper { A4, Letter, Phone };

/// What a sheet is made from; what is not there yet is left out.
struct SheetSources {
    ViewContext& context;
    BuildDesk& build;
    std::shared_ptr<const study::CoilAnswer> coil;
};

class SheetPages {
    Q_DECLARE_TR_FUNCTIONS(SheetPages)
public:
    explicit SheetPages(const SheetSources& sources);

    /// Onto a device with pages, its size and margins as they are. Returns the pages that were filled; 0 where it cannot be painted on.
    int paint(QPagedPaintDevice& device, bool narrow);
    /// Writes a PDF. Empty, or why not.
    Faults write(const QString& path, SheetPaper paper);
    /// Plates to be drilled at 1:1, as PDF or SVG by the name's ending.
    Faults writeTemplates(const QString& path);

private:
    class Flow;
    void head(Flow& flow) const;
    void pieces(Flow& flow) const;
    void tapes(Flow& flow) const;
    void details(Flow& flow) const;
    void parts(Flow& flow) const;
    void mechanics(Flow& flow) const;
    void winding(Flow& flow) const;
    void feed(Flow& flow) const;
    void safety(Flow& flow) const;
    void packing(Flow& flow) const;
    [[nodiscard]] QStringList facts() const;
    [[nodiscard]] QString title() const;

    SheetSources m_sources;
    const Antenna& m_antenna;
    const BuildFacts* m_facts;
    std::shared_ptr<const shapes::BuiltAntenna> m_built;
    units::System m_system;
};

} // namespace vetchling::app

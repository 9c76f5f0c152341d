#pragma once
/// The cut list as a graphic: bars to scale, the table, small drawings of the ends, cautions. Also the printed sheet.

#include "app/stages/build/cut_list_model.h"
#include "app/view/canvas.h"
#include "app/widgets/table.h"
#include "core/workshop/cut_list.h"

namespace vetchling::app {

class BuildSheet : public Canvas {
    Q_OBJECT
public:
    explicit BuildSheet(ViewContext& context);
    void render(Sketch& sketch, const QSizeF& size) override;
    /// Cut rows of the current antenna; empty if it cannot be built.
    [[nodiscard]] std::vector<CutRow> rows() const;
    [[nodiscard]] std::vector<shapes::WireSection> sections() const;

protected:
    void resizeEvent(QResizeEvent*) override;

private:
    void refreshTable();
    /// One place for the table, on screen and in pictures.
    [[nodiscard]] double tableTop() const;
    double paintBars(Sketch& sketch, double top, double width) const;
    double paintEnds(Sketch& sketch, double top, double width) const;
    double paintParts(Sketch& sketch, double top, double width) const;
    void paintCautions(Sketch& sketch, double top, double width) const;
    void centrePiece(Sketch& sketch, QPointF at) const;
    void endPiece(Sketch& sketch, QPointF at) const;
    void coilPiece(Sketch& sketch, QPointF at) const;

    CutListModel* m_list;
    Table* m_table;
};

/// What stands over a printed sheet.
struct SheetHead {
    QString title, sentence;
    QStringList facts; ///< site, date, frequency, wire, heights, coils
};

/// Paints the sheet onto a page of any size, white, its width used.
void paintSheet(QPainter& painter, BuildSheet& sheet, const SheetHead& head);
/// Writes it as a PDF on A4. False if the file cannot be written.
bool writeBuildPdf(BuildSheet& sheet, const SheetHead& head, const QString& path);

} // namespace vetchling::app

#pragma once
/// What to cut: each piece on one tape with its marks, the table with ticks, details of the ends, and what the whole has to stand.

#include "app/document/build_desk.h"
#include "app/view/canvas.h"

namespace vetchling::app {

class CutBoard : public Canvas {
    Q_OBJECT
public:
    CutBoard(ViewContext& context, BuildDesk& desk, QWidget* parent = nullptr);

    void render(Sketch& sketch, const QSizeF& size) override;
    [[nodiscard]] QString sentence() const;
    [[nodiscard]] std::vector<QStringList> cells() const;
    /// Key of the piece that is looked at; empty without any.
    [[nodiscard]] std::string chosen() const;
    void choose(const std::string& key);
    void tickChosen();
    /// Where a piece's box was painted last; null if it was not.
    [[nodiscard]] QRectF boxOf(const std::string& key) const;
    /// As high as all of it is.
    void fit();

signals:
    void pieceChosen();

protected:
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    double paintTapes(Sketch& sketch, double top, double width);
    void paintTape(Sketch& sketch, const BuildPiece& piece, double top, double width) const;
    double paintTable(Sketch& sketch, double top, double width);
    double paintDetails(Sketch& sketch, double top, double width) const;
    void paintFigures(Sketch& sketch, double top, double width) const;
    [[nodiscard]] std::vector<std::string> keys() const;
    [[nodiscard]] QString statusOf(const BuildPiece& piece) const;

    BuildDesk& m_desk;
    std::string m_chosen;
    std::vector<std::pair<std::string, QRectF>> m_boxes;
    std::vector<std::pair<std::string, QRectF>> m_rows; ///< of a row's first piece
};

/// "leg 1 of 2"; "loop" where there is only one.
QString pieceWords(const CutRow& row, int piece);
/// How a rod is set or put together: sections out and the rest, or tubes with what shows of each.
QString rodWords(const BuildPiece& piece, const shapes::AntennaShape& shape, units::System system);

} // namespace vetchling::app

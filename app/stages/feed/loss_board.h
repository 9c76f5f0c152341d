#pragma once
/// Losses: the chain in its symbols, the watts of each band on their way to the wire, and the net gain against a plain antenna.

#include "app/document/feed_desk.h"
#include "app/stages/feed/chain_drawing.h"
#include "app/view/canvas.h"

namespace vetchling::app {

class LossBoard : public Canvas {
    Q_OBJECT
public:
    LossBoard(ViewContext& context, FeedDesk& desk, QWidget* parent = nullptr);
    void render(Sketch& sketch, const QSizeF& size) override;

    /// The part that is looked at; empty for none.
    [[nodiscard]] const Id& chosen() const { return m_chosen; }
    void choose(const Id& part);
    /// What stands below the bars, and against what the net gain is told.
    void setWords(const QString& headline, const QString& more, const QString& against);
    [[nodiscard]] const ChainDrawing& drawing() const { return m_drawing; }
    void refresh();

signals:
    void partChosen();
    void addWanted(); ///< Insert was pressed

protected:
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    bool event(QEvent*) override;

private:
    struct Rows {
        double top = 0.0, step = 0.0, left = 0.0, width = 0.0, zero = 0.0, perDecibel = 0.0;
    };
    [[nodiscard]] Rows rowsOf(const study::FeedReport& report, const QSizeF& size) const;
    void paintRow(Sketch& sketch, const study::FeedReport& report, const study::FeedRow& row, const Rows& rows, double y, bool last) const;
    void paintNet(Sketch& sketch, const study::FeedRow& row, const Rows& rows, double y) const;
    void paintCard(Sketch& sketch, const QRectF& card) const;
    void paintHover(Sketch& sketch, const study::FeedReport& report, const Rows& rows, const QSizeF& size) const;
    [[nodiscard]] QColor colourOf(const ChainPart& part, const Colours& colours) const;
    [[nodiscard]] int rowAt(QPointF p) const;
    void step(int places);

    FeedDesk& m_desk;
    ChainDrawing m_drawing;
    Id m_chosen, m_hovered, m_pressed;
    std::optional<std::pair<Id, QPointF>> m_dragged;
    QPointF m_pressedAt;
    int m_row = -1; ///< under the pointer
    QPointF m_pointer;
    QString m_headline, m_more, m_against;
};

} // namespace vetchling::app

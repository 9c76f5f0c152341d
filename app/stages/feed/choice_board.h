#pragma once
/// One thing of the chain changed at a time, side by side: ratios, places of the tuner, lines, whole chains; by band.

#include "app/document/feed_desk.h"
#include "app/view/canvas.h"

#include <optional>

namespace vetchling::app {

class ChoiceBoard : public Canvas {
    Q_OBJECT
public:
    ChoiceBoard(ViewContext& context, FeedDesk& desk, QWidget* parent = nullptr);
    void render(Sketch& sketch, const QSizeF& size) override;

    [[nodiscard]] FeedDesk::Choice choice() const { return m_choice; }
    void setChoice(FeedDesk::Choice choice);
    /// The choice that is looked at; null for none.
    [[nodiscard]] const study::ChoiceRow* chosen() const;
    void refresh();
    /// All cells as text, the head first.
    [[nodiscard]] std::vector<QStringList> cells() const;

signals:
    void rowChosen();

protected:
    void mousePressEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    struct Layout {
        double top = 0.0, step = 0.0, name = 0.0, cell = 0.0;
    };
    [[nodiscard]] Layout layoutOf(const QSizeF& size) const;
    void paintHead(Sketch& sketch, const Layout& layout, const QSizeF& size) const;
    void paintRow(Sketch& sketch, const study::ChoiceRow& row, int place, const Layout& layout, const QSizeF& size) const;
    [[nodiscard]] int rowAt(QPointF p) const;
    [[nodiscard]] int row() const; ///< of what is chosen; -1 for none
    void choose(int row);

    FeedDesk& m_desk;
    FeedDesk::Choice m_choice = FeedDesk::Choice::Transformer;
    std::optional<study::ChoiceRow> m_chosen;
    bool m_picked = false; ///< by the person; else what is best
};

} // namespace vetchling::app

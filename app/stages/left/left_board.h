#pragma once
/// The list of what is left to do, one line each with its cure, dangers first; below it what is done.

#include "app/view/canvas.h"

class QPushButton;

namespace vetchling::app {

class LeftBoard : public Canvas {
    Q_OBJECT
public:
    explicit LeftBoard(ViewContext& context, QWidget* parent = nullptr);
    /// @param whole of the whole site, antenna by antenna; else of the antenna on show
    void setWhole(bool whole);
    [[nodiscard]] bool whole() const { return m_whole; }
    void render(Sketch& sketch, const QSizeF& size) override;
    /// Takes what the desk has.
    void refresh();
    /// In the order they are shown; those that are done are not among them.
    [[nodiscard]] const std::vector<advice::Finding>& findings() const { return m_open; }
    /// Null where there is none.
    [[nodiscard]] const advice::Finding* chosen() const;
    /// What is not done is far enough worked out to be acted on.
    [[nodiscard]] bool fresh() const;
    /// Does its cure; goes where it is shown, where there is none.
    void act(const advice::Finding& finding);
    void goTo(const advice::Finding& finding);
    /// Where the chosen line is.
    [[nodiscard]] QRect chosenArea() const;
    [[nodiscard]] QStringList doneWords() const;
    [[nodiscard]] QString tableText() const;

signals:
    void rowChosen();
    void pageWanted(const QString& stage, const QString& view);

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    struct Place {
        double top = 0.0, head = 0.0, height = 0.0; ///< px; head: of the antenna's name above it, where there is one
    };
    void layOut(const QSizeF& size);
    void paintRow(Sketch& sketch, std::size_t row, const QSizeF& size) const;
    void paintSign(Sketch& sketch, QPointF at, const advice::Finding& finding) const;
    QRectF words(Sketch& sketch, const QRectF& area, const QString& text, const QColor& colour) const;
    [[nodiscard]] int rowAt(double y) const;
    void choose(int row);
    void makeButtons();
    [[nodiscard]] double textWidth(double width) const;

    std::vector<advice::Finding> m_open, m_done;
    std::vector<Place> m_places;
    std::vector<QPushButton*> m_buttons;
    double m_bottom = 0.0;
    int m_chosen = 0;
    bool m_whole = false;
};

} // namespace vetchling::app

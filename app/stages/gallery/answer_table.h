#pragma once
/// The answers, best first: what each serves, how it is heard, what it takes and gives up. One is chosen.

#include "app/view/canvas.h"
#include "core/advice/advice.h"

namespace vetchling::app {

class AnswerTable : public Canvas {
    Q_OBJECT
public:
    static constexpr double rowHeight = 40.0; ///< px
    explicit AnswerTable(ViewContext& context, QWidget* parent = nullptr);
    /// @param design that the advice is for; null with none
    void show(advice::AdvicePointer advice, DesignPointer design);
    /// By its key; what is none chooses the first.
    void choose(const std::string& key);
    /// Null where there is none.
    [[nodiscard]] const advice::Answer* chosen() const;
    void render(Sketch& sketch, const QSizeF& size) override;
    [[nodiscard]] QString tableText() const;
    [[nodiscard]] QRect chosenArea() const;
    /// In words, of an answer.
    [[nodiscard]] QString nameOf(const advice::Answer& answer) const;
    [[nodiscard]] QString placeOf(const advice::Answer& answer) const;
    [[nodiscard]] QString givesUp(const advice::Answer& answer) const;

signals:
    void rowChosen();
    void hangWanted();

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    bool event(QEvent* event) override;

private:
    struct Columns {
        double name = 66.0, squares = 0.0, each = 26.0, heard = 0.0, wire = 0.0, wish = 0.0, worst = 0.0;
    };
    [[nodiscard]] Columns columns(double width) const;
    void paintHead(Sketch& sketch, const Columns& columns, double width) const;
    void paintRow(Sketch& sketch, std::size_t row, const Columns& columns, double width) const;
    void paintSquares(Sketch& sketch, QPointF at, double each, const advice::Answer& answer) const;
    void pick(int row);
    /// Of the favourite, else the first must: which band the heard column is of.
    [[nodiscard]] std::size_t mainBand() const;

    advice::AdvicePointer m_advice;
    DesignPointer m_design;
    std::vector<WantedBand> m_bands; ///< wanted ones
    std::string m_chosen;
    int m_row = 0;
};

} // namespace vetchling::app

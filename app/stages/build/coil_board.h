#pragma once
/// The coil workshop: what to wind first, the winding to look at, its figures with how sure they are, and other windings beside it.

#include "app/document/coil_desk.h"
#include "app/view/canvas.h"
#include "app/widgets/ledger.h"

namespace vetchling::app {

class ValueEdit;

class CoilBoard : public Canvas {
    Q_OBJECT
public:
    CoilBoard(ViewContext& context, CoilDesk& desk, QWidget* parent = nullptr);
    void render(Sketch& sketch, const QSizeF& size) override;
    /// One sentence for the page.
    [[nodiscard]] QString sentence() const;
    [[nodiscard]] QString headline() const;
    /// The windings as text, the head first.
    [[nodiscard]] std::vector<QStringList> cells() const;

protected:
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    void paintCard(Sketch& sketch, const study::CoilAnswer& known, double width) const;
    void paintCoil(Sketch& sketch, const study::CoilAnswer& known, const QRectF& area) const;
    void paintFigures(Sketch& sketch, const study::CoilAnswer& known, double top, double width) const;
    void paintTable(Sketch& sketch, double top, double width, double bottom);
    [[nodiscard]] int rowAt(QPointF p) const;
    void take(int row);

    CoilDesk& m_desk;
    std::vector<QRectF> m_rows; ///< of the table as painted last
    int m_row = -1;             ///< reached by keys
};

/// The ledger's rows for it.
class CoilPanel : public QObject {
    Q_OBJECT
public:
    CoilPanel(ViewContext& context, CoilDesk& desk, Ledger& ledger, QObject* parent);
    void refresh();

private:
    ViewContext& m_context;
    CoilDesk& m_desk;
    QComboBox* m_which;
    std::vector<std::pair<double Winding::*, ValueEdit*>> m_fields;
    ValueEdit* m_turns;
    QLabel *m_atHand, *m_model, *m_size, *m_note;
    QPushButton *m_take, *m_point;
};

} // namespace vetchling::app

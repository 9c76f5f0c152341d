#pragma once
/// The choke and the transformer of the antenna on ferrite rings: what they do over frequency, how warm they grow, and other ferrites.

#include "app/document/build_desk.h"
#include "app/view/canvas.h"
#include "app/widgets/ledger.h"

namespace vetchling::app {

class ValueEdit;

class ChokeBoard : public Canvas {
    Q_OBJECT
public:
    ChokeBoard(ViewContext& context, BuildDesk& desk, QWidget* parent = nullptr);

    void render(Sketch& sketch, const QSizeF& size) override;
    [[nodiscard]] QString sentence() const;
    [[nodiscard]] QString headline() const;
    [[nodiscard]] std::vector<QStringList> cells() const;

protected:
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    void paintChart(Sketch& sketch, const ChokeFacts& facts, const QRectF& area) const;
    void paintFerrites(Sketch& sketch, const ChokeFacts& facts, double top, double width);
    void paintTransformer(Sketch& sketch, const TransformerFacts& facts, double top, double width) const;
    void take(int row);

    BuildDesk& m_desk;
    std::vector<QRectF> m_rows;
    int m_row = 0;
};

class ChokePanel : public QObject {
    Q_OBJECT
public:
    ChokePanel(ViewContext& context, BuildDesk& desk, Ledger& ledger, QObject* parent);
    void refresh();

private:
    struct Fields {
        QComboBox *ferrite = nullptr, *ring = nullptr;
        ValueEdit *rings = nullptr, *turns = nullptr;
    };
    Fields addFields(Ledger& ledger, CoreWinding Workshop::*member, const QString& prefix, const QString& turns);
    void show(const Fields& fields, const CoreWinding& winding);

    ViewContext& m_context;
    BuildDesk& m_desk;
    Fields m_choke, m_transformer;
    QPushButton *m_giveChoke = nullptr, *m_giveTransformer = nullptr;
    QLabel *m_source = nullptr, *m_least = nullptr;
};

} // namespace vetchling::app

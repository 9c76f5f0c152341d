#pragma once
/// What has to lie on the table, what it costs, what the wire and ropes have to stand, which metals eat each other, and how it is packed.

#include "app/document/build_desk.h"
#include "app/view/canvas.h"
#include "app/widgets/ledger.h"

namespace vetchling::app {

class NameEdit;
class ValueEdit;

class PartsBoard : public Canvas {
    Q_OBJECT
public:
    PartsBoard(ViewContext& context, BuildDesk& desk, QWidget* parent = nullptr);

    void render(Sketch& sketch, const QSizeF& size) override;
    [[nodiscard]] QString sentence() const;
    [[nodiscard]] std::vector<QStringList> cells() const;
    [[nodiscard]] std::string chosen() const;
    void choose(const std::string& key);
    void fit();

signals:
    void partChosen();

protected:
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    double paintParts(Sketch& sketch, double top, double width);
    double paintMetals(Sketch& sketch, double top, double width) const;
    double paintSpan(Sketch& sketch, const QRectF& area) const;
    double paintPack(Sketch& sketch, double left, double top, double width) const;

    BuildDesk& m_desk;
    std::string m_chosen;
    std::vector<std::pair<std::string, QRectF>> m_rows;
};

/// The sentences about an antenna's mechanics: what breaks, what hangs low, what pulls as much. For view and sheet.
QStringList mechanicsWords(const BuildFacts& facts, const Rigging& rigging, units::System system);
/// A card for the bench in one paragraph.
QString cardWords(const BenchCard& card, units::System system);
/// Metals that should not touch; one sentence.
QString metalWords(const BuildFacts& facts);

/// The ledger: the chosen part, an own one, and how it hangs.
class PartsPanel : public QObject {
    Q_OBJECT
public:
    PartsPanel(ViewContext& context, BuildDesk& desk, PartsBoard& board, Ledger& ledger, QObject* parent);
    void refresh();

private:
    void rig(Ledger& ledger, const QString& label, const char* object, units::Quantity quantity, double Rigging::*member, double lowest,
             double highest);
    void change(const std::function<void(PartChange&)>& change);
    void showBrace();

    ViewContext& m_context;
    BuildDesk& m_desk;
    PartsBoard& m_board;
    QLabel *m_name = nullptr, *m_total = nullptr, *m_brace = nullptr, *m_cards = nullptr;
    ValueEdit *m_count = nullptr, *m_price = nullptr, *m_carries = nullptr, *m_rise = nullptr, *m_reach = nullptr;
    QPushButton* m_remove = nullptr;
    NameEdit* m_own = nullptr;
    QComboBox* m_hangs = nullptr;
    std::vector<std::pair<double Rigging::*, ValueEdit*>> m_fields;
};

} // namespace vetchling::app

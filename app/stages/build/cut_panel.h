#pragma once
/// The ledger of the cut list: allowances, the chosen piece with its tick and what was measured, the spool, and the ways to paper.

#include "app/stages/build/cut_board.h"
#include "app/widgets/ledger.h"

namespace vetchling::app {

class ValueEdit;

class CutPanel : public QObject {
    Q_OBJECT
public:
    CutPanel(ViewContext& context, BuildDesk& desk, CutBoard& board, Ledger& ledger, QObject* parent);
    void refresh();
    /// What was written, or why not.
    void say(const QString& words);

signals:
    void printAsked();
    void pdfAsked();
    void phoneAsked();
    void templatesAsked();
    void csvAsked();
    void recipeAsked();
    void recipeTaken();

private:
    void allowance(Ledger& ledger, const QString& label, const char* object, units::Quantity quantity, double Allowances::*member,
                   double highest, shapes::WireEnd end);
    void addPiece(Ledger& ledger);
    void addSpool(Ledger& ledger);
    void addPaper(Ledger& ledger);
    void refreshPiece();
    [[nodiscard]] double marginFromSpread() const;

    struct Field {
        double Allowances::*member;
        ValueEdit* edit;
    };
    ViewContext& m_context;
    BuildDesk& m_desk;
    CutBoard& m_board;
    std::vector<Field> m_fields;
    QPushButton *m_sure = nullptr, *m_tick = nullptr;
    QLabel *m_piece = nullptr, *m_off = nullptr, *m_left = nullptr, *m_total = nullptr, *m_said = nullptr;
    QLabel* m_cautions = nullptr;
    ValueEdit *m_measured = nullptr, *m_spool = nullptr, *m_offset = nullptr;
};

} // namespace vetchling::app

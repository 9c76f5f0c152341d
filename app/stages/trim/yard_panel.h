#pragma once
/// The ledger of the practice yard: levels, the score, what the hands are at, and what one thinks it is.

#include "app/stages/trim/yard_board.h"
#include "app/widgets/ledger.h"

namespace vetchling::app {

class ValueEdit;

class YardPanel : public QObject {
    Q_OBJECT
public:
    YardPanel(ViewContext& context, YardDesk& desk, YardBoard& board, Ledger& ledger, QObject* parent);
    void refresh();

private:
    void addLevels(Ledger& ledger);
    void addHands(Ledger& ledger);
    /// Hands over what is typed, or asks for it.
    void change(bool fold);
    void hoist();

    ViewContext& m_context;
    YardDesk& m_desk;
    YardBoard& m_board;
    Ledger& m_ledger;
    std::vector<QPushButton*> m_levels;
    QLabel *m_wasted, *m_hoists, *m_bands;
    QComboBox *m_piece = nullptr, *m_guess = nullptr;
    ValueEdit *m_amount = nullptr, *m_height = nullptr;
    QPushButton *m_hint = nullptr, *m_again = nullptr;
};

} // namespace vetchling::app

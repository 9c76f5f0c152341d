#pragma once
/// Tuning by hand-picked dimensions: any of them, several at once, to what is wanted, in the background.

#include "app/document/tune_desk.h"
#include "app/view/context.h"
#include "app/widgets/ledger.h"

#include <QCheckBox>
#include <QTimer>

#include <vector>

namespace vetchling::app {

class ValueEdit;

/// Rows of the ledger, made anew with it.
class TunePanel : public QObject {
    Q_OBJECT
public:
    TunePanel(ViewContext& context, TuneDesk& desk, Ledger& ledger, QObject* parent);
    /// Follows the document and the work.
    void refresh();

private:
    enum Goal { resonance, lowestSwr, resistance, overBands, gainAtAngle };
    struct Pick {
        std::string parameter;
        QCheckBox* box;
    };
    void addPicks(Ledger& ledger);
    void start();
    void finish();
    [[nodiscard]] JointAim aim() const;
    [[nodiscard]] std::vector<JointLever> levers() const;
    [[nodiscard]] QString wordsFor(const JointOutcome& outcome, const TuneQuestion& asked) const;

    ViewContext& m_context;
    TuneDesk& m_desk;
    Ledger& m_ledger;
    QComboBox* m_goal;
    ValueEdit *m_resistance, *m_elevation, *m_bearing, *m_reach;
    std::vector<Pick> m_picks;
    QPushButton* m_start;
    QLabel* m_note;
    QTimer m_look; ///< how far it is
};

} // namespace vetchling::app

#pragma once
/// Tuning by hand-picked dimensions: any of them, several at once, to what is wanted, in the background.

#include "app/view/context.h"
#include "app/widgets/ledger.h"
#include "core/tune/joint.h"

#include <QCheckBox>
#include <QPointer>
#include <QTimer>

#include <vector>

namespace vetchling::app {

class ValueEdit;

/// Rows of the ledger, made anew with it.
class TunePanel : public QObject {
    Q_OBJECT
public:
    TunePanel(ViewContext& context, Ledger& ledger, QObject* parent);
    ~TunePanel() override;
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
    void finish(const Result<JointOutcome>& outcome);
    [[nodiscard]] JointAim aim() const;
    [[nodiscard]] std::vector<JointLever> levers() const;
    [[nodiscard]] QString wordsFor(const JointOutcome& outcome) const;

    ViewContext& m_context;
    Ledger& m_ledger;
    QComboBox* m_goal;
    ValueEdit *m_resistance, *m_elevation, *m_bearing, *m_reach;
    std::vector<Pick> m_picks;
    QPushButton* m_start;
    QLabel* m_note;
    study::Queue::Ticket m_job;
    QTimer m_look;                     ///< how far it is
    Id m_antenna;                      ///< that is being tuned
    std::vector<std::string> m_varied; ///< its parameters
    Goal m_aimedAt = resonance;
};

} // namespace vetchling::app

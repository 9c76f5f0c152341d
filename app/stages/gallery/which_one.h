#pragma once
/// Which one? What is wanted and may be taken on the right; the answers as points, on the plan and as a table.

#include "app/document/advisor_desk.h"
#include "app/stages/gallery/answer_chart.h"
#include "app/stages/gallery/answer_table.h"
#include "app/stages/gallery/trial_plan.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;
class QScrollArea;
class QStackedWidget;
class QTableView;

namespace vetchling::app {

class Ledger;
class TriedModel;
class ValueEdit;

class WhichOne : public QWidget {
    Q_OBJECT
public:
    WhichOne(ViewContext& context, AdvisorDesk& desk, QWidget* parent = nullptr);
    /// Looks, and takes the focus.
    void open();
    void refresh();
    [[nodiscard]] QString sentence() const;
    [[nodiscard]] AnswerTable& table() { return *m_table; }
    [[nodiscard]] QString tableText() const { return m_table->tableText(); }

signals:
    void sentenceChanged();
    /// Of the chosen answer, by band, for the strip; empty: none is looked at.
    void trialChanged(const std::vector<std::pair<Id, CurvePointer>>& curves);
    /// The antennas of an answer hang.
    void hung();

private:
    void buildLeft();
    void buildWish();
    void refreshWish();
    void refreshSupports();
    void refreshAnswer();
    [[nodiscard]] std::vector<std::pair<Id, CurvePointer>> trial() const;
    void refreshHelp();
    void askWhyNot(const std::string& family);
    void hang();
    void takeWish();
    [[nodiscard]] bool ready() const;
    [[nodiscard]] QString ruleWords() const;

    ViewContext& m_context;
    AdvisorDesk& m_desk;
    AnswerChart* m_chart;
    TrialPlan* m_plan;
    AnswerTable* m_table;
    TriedModel* m_tried;
    QTableView* m_all;
    QStackedWidget* m_lists;
    QScrollArea* m_scroll;
    QLabel *m_help, *m_why, *m_progress, *m_must, *m_nice, *m_angle, *m_rule, *m_noSupports;
    QPushButton *m_hang, *m_renew, *m_allButton;
    QComboBox *m_whyNot, *m_antennas, *m_tuner, *m_coils, *m_radials, *m_portable, *m_walkable, *m_hanging;
    ValueEdit *m_wire, *m_pole;
    Ledger* m_ledger;
    QWidget* m_supportBox;
    std::vector<std::pair<Id, QCheckBox*>> m_supports;
    bool m_filling = false; ///< fields are being set, not by the person
};

} // namespace vetchling::app

#pragma once
/// Rows of the ledger that compare the rule of thumb, the solved, the drawn and the cut length, say why they differ, and tune.

#include "app/view/context.h"
#include "app/widgets/bars.h"
#include "app/widgets/ledger.h"
#include "core/study/thickness.h"

namespace vetchling::app {

/// Made anew with the ledger.
class LengthCard : public QObject {
    Q_OBJECT
public:
    LengthCard(ViewContext& context, Ledger& ledger, QObject* parent);
    void refresh();
    /// The constants handed down, for a note elsewhere in the ledger.
    [[nodiscard]] QString rulesText() const;

    /// The tuned length that is looked at, with its rules; null before anything is built.
    [[nodiscard]] static const AntennaModel::Ruled* ruledLength(const ViewContext& context);

private:
    [[nodiscard]] Document& document() const { return m_context.document; }
    [[nodiscard]] SolveService& solver() const { return m_context.solver; }
    [[nodiscard]] units::System system() const { return m_context.system(); }
    [[nodiscard]] const shapes::Family& family() const { return m_context.document.family(); }
    void addKept();
    void refreshKept();
    void takeTuned();
    [[nodiscard]] shapes::Parameters tunedValues() const;
    [[nodiscard]] const study::Length* solvedLength() const;
    [[nodiscard]] bool tunable() const;
    [[nodiscard]] QString tuneWords() const;
    [[nodiscard]] static QString causeWords(study::LengthCause::What what);
    [[nodiscard]] QString causesText(const std::vector<study::LengthCause>& causes) const;
    [[nodiscard]] QString lengthNote(double rule) const;
    [[nodiscard]] QString undoneWords() const;

    void learn();

    ViewContext& m_context;
    study::CoilMemory m_coils;
    Ledger& m_ledger;
    QLabel *m_lengthHeading, *m_lengthNote, *m_undone, *m_keptNote = nullptr;
    CompareBars* m_bars;
    QComboBox* m_goal;
    QPushButton *m_tune, *m_goBack = nullptr;
};

} // namespace vetchling::app

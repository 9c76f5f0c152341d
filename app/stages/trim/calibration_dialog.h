#pragma once
/// Open, short, load: one after the other, with what speaks against the result.

#include "app/document/analyser_desk.h"

#include <QDialog>
#include <QLabel>
#include <QPushButton>

namespace vetchling::app {

class CalibrationDialog : public QDialog {
    Q_OBJECT
public:
    CalibrationDialog(AnalyserDesk& analyser, const AnalyserDesk::Range& range, QWidget* parent);

private:
    void refresh();
    AnalyserDesk& m_analyser;
    AnalyserDesk::Range m_range;
    std::vector<std::pair<QPushButton*, QLabel*>> m_rows; ///< open, short, load
    QLabel* m_outcome;
    QPushButton *m_again, *m_close;
};

} // namespace vetchling::app

#include "app/stages/trim/calibration_dialog.h"

#include "app/view/words.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

namespace vetchling::app {
namespace {

constexpr Standard standardOrder[] = {Standard::Open, Standard::Short, Standard::Load};
const char* const standardNames[] = {"readOpen", "readShort", "readLoad"};

} // namespace

CalibrationDialog::CalibrationDialog(AnalyserDesk& analyser, const AnalyserDesk::Range& range, QWidget* parent)
    : QDialog(parent), m_analyser(analyser), m_range(range), m_outcome(new QLabel(this)), m_again(new QPushButton(tr("Once more"), this)),
      m_close(new QPushButton(tr("Close"), this))
{
    setObjectName(QStringLiteral("calibrationDialog"));
    setWindowTitle(tr("Calibrate the analyser"));
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(20, 16, 20, 14);
    layout->setSpacing(10);
    auto* head = new QLabel(tr("For %1 to %2. Hang each standard at the end of the cable that goes to the antenna, hands off, and read it.")
                                .arg(frequencyWords(range.from), frequencyWords(range.to)),
                            this);
    head->setWordWrap(true);
    layout->addWidget(head);
    const QString words[] = {tr("1  Open: nothing on the plug"), tr("2  Short: its pin joined to its shell"), tr("3  Load: 50 ohm")};
    for (int i = 0; i < 3; ++i) {
        auto* row = new QHBoxLayout;
        auto* label = new QLabel(words[i], this);
        auto* state = new QLabel(this);
        state->setMinimumWidth(70);
        auto* button = new QPushButton(tr("Read"), this);
        button->setObjectName(QLatin1String(standardNames[i]));
        button->setAccessibleName(tr("Read: %1").arg(words[i]));
        row->addWidget(label, 1);
        row->addWidget(state);
        row->addWidget(button);
        layout->addLayout(row);
        m_rows.emplace_back(button, state);
        connect(button, &QPushButton::clicked, this, [this, i] { m_analyser.readStandard(standardOrder[i], m_range); });
    }
    m_outcome->setObjectName(QStringLiteral("calibrationOutcome"));
    m_outcome->setWordWrap(true);
    m_outcome->setMinimumSize(420, 54);
    m_outcome->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    layout->addWidget(m_outcome);
    auto* foot = new QHBoxLayout;
    m_again->setObjectName(QStringLiteral("calibrateAgain"));
    m_close->setObjectName(QStringLiteral("calibrationClose"));
    foot->addWidget(m_again);
    foot->addStretch(1);
    foot->addWidget(m_close);
    layout->addLayout(foot);
    connect(m_again, &QPushButton::clicked, &m_analyser, &AnalyserDesk::forgetCalibration);
    connect(m_close, &QPushButton::clicked, this, &QDialog::accept);
    connect(&m_analyser, &AnalyserDesk::changed, this, &CalibrationDialog::refresh);
    if (!m_analyser.calibratedFor(m_range))
        m_analyser.forgetCalibration(); // of another range: nothing of it holds here
    refresh();
}

void CalibrationDialog::refresh()
{
    const bool free = m_analyser.state() == AnalyserDesk::State::Ready || m_analyser.state() == AnalyserDesk::State::Starting;
    QPushButton* next = nullptr;
    for (std::size_t i = 0; i < m_rows.size(); ++i) {
        const bool read = m_analyser.hasRead(standardOrder[i]);
        m_rows[i].second->setText(read ? tr("✓ read") : QString());
        m_rows[i].first->setEnabled(free);
        if (!read && !next)
            next = m_rows[i].first;
    }
    m_again->setEnabled(free);
    QPushButton* then = next ? next : m_close;
    if (free && (!then->isDefault() || !focusWidget() || focusWidget() == m_close)) { // a button that is off while it reads loses the focus
        then->setDefault(true);
        then->setFocus();
    }
    const Calibration* calibration = m_analyser.calibration();
    if (!m_analyser.trouble().isEmpty())
        m_outcome->setText(m_analyser.trouble());
    else if (m_analyser.state() == AnalyserDesk::State::Reading)
        m_outcome->setText(tr("Reading …"));
    else if (!calibration)
        m_outcome->setText(tr("All three are needed. Calibrate again whenever range or cable change."));
    else if (calibration->signs().empty())
        m_outcome->setText(tr("Calibrated: the three fit together. Read something you know before you believe it."));
    else
        m_outcome->setText(coreWords(calibration->signs().front().words, units::System::Metric));
}

} // namespace vetchling::app

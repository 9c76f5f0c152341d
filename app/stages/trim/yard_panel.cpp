#include "app/stages/trim/yard_panel.h"

#include "app/view/words.h"
#include "app/widgets/choice.h"
#include "app/widgets/value_edit.h"

#include <QSignalBlocker>

namespace vetchling::app {
namespace {

constexpr double usualAmount = 0.05; // m

/// Rows that are the same stay as they are, with what is chosen.
void setWords(QComboBox* box, const QStringList& words)
{
    QStringList now;
    for (int i = 0; i < box->count(); ++i)
        now << box->itemText(i);
    if (now == words)
        return;
    const QSignalBlocker quiet(box);
    box->clear();
    box->addItems(words);
}

} // namespace

YardPanel::YardPanel(ViewContext& context, YardDesk& desk, YardBoard& board, Ledger& ledger, QObject* parent)
    : QObject(parent), m_context(context), m_desk(desk), m_board(board), m_ledger(ledger)
{
    addLevels(ledger);
    ledger.line();
    ledger.heading(tr("Score"));
    m_wasted = ledger.figure(tr("Wire wasted"));
    m_hoists = ledger.figure(tr("Hoists"));
    m_hoists->setObjectName(QStringLiteral("yardHoists"));
    m_bands = ledger.figure(tr("Bands under 2"));
    ledger.line();
    addHands(ledger);
    ledger.line();
    ledger.heading(tr("A hint costs one hoist"));
    m_hint = ledger.button(tr("Ask the old hand"), QStringLiteral("yardHint"));
    connect(m_hint, &QPushButton::clicked, &m_desk, &YardDesk::hint);
    connect(&board, &YardBoard::foldAsked, this, [this] { change(true); });
    connect(&board, &YardBoard::cutAsked, this, [this] { change(false); });
    connect(&board, &YardBoard::heightAsked, this, &YardPanel::hoist);
    connect(&board, &YardBoard::verdictAsked, this, [this] {
        if (const auto yard = m_desk.yard(); yard && m_guess->currentIndex() >= 0)
            m_desk.finish(yard->level().suspects[std::size_t(m_guess->currentIndex())]);
    });
    connect(&desk, &YardDesk::changed, this, &YardPanel::refresh);
    refresh();
}

void YardPanel::addLevels(Ledger& ledger)
{
    ledger.heading(tr("Levels"));
    for (const YardLevel& level : yardLevels()) {
        auto* button = ledger.button(QString(), QStringLiteral("yardLevel-%1").arg(QString::fromStdString(level.id)));
        m_levels.push_back(button);
        connect(button, &QPushButton::clicked, this, [this, id = level.id] { m_desk.open(id); });
    }
}

void YardPanel::addHands(Ledger& ledger)
{
    ledger.heading(tr("Your hands"));
    m_piece = new Choice(&ledger);
    m_piece->setObjectName(QStringLiteral("yardPiece"));
    m_piece->setAccessibleName(tr("Piece that the hands are at"));
    ledger.add(m_piece);
    connect(m_piece, &QComboBox::activated, this, [this](int index) {
        m_board.setTask(std::size_t(std::max(0, index)));
        m_board.update();
    });
    m_amount = ledger.value(tr("Fold or cut"), units::Quantity::SmallLength, QStringLiteral("yardAmount"));
    m_amount->setRange(-5.0, 5.0);
    m_amount->setHelp(tr("each piece; a negative length lets out a fold or joins wire on"));
    m_amount->setValue(usualAmount, m_context.system());
    m_height = ledger.value(tr("Hang it higher by"), units::Quantity::Length, QStringLiteral("yardHigher"));
    m_height->setRange(-6.0, 6.0);
    m_height->setHelp(tr("than the plan; negative: lower; 0: as planned"));
    m_height->setValue(0.0, m_context.system());
    ledger.line();
    ledger.heading(tr("I think it is"));
    m_guess = new Choice(&ledger);
    m_guess->setObjectName(QStringLiteral("yardGuess"));
    m_guess->setAccessibleName(tr("What I think it is"));
    ledger.add(m_guess);
}

void YardPanel::change(bool fold)
{
    if (m_amount->confirm())
        m_desk.change(m_board.task(), m_amount->value(), fold);
    else
        m_amount->setFocus();
}

void YardPanel::hoist()
{
    if (m_height->confirm())
        m_desk.hoistTo(m_height->value());
    else
        m_height->setFocus();
}

void YardPanel::refresh()
{
    const auto yard = m_desk.yard();
    const auto& levels = yardLevels();
    for (std::size_t i = 0; i < levels.size(); ++i) {
        const QString record = m_desk.record(levels[i].id),
                      name = tr("%1  %2").arg(i + 1).arg(coreWords(levels[i].title, m_context.system()));
        const bool now = yard && yard->level().id == levels[i].id;
        m_levels[i]->setText(now ? tr("%1, now").arg(name) : record.isEmpty() ? name : tr("%1: %2").arg(name, record));
        m_levels[i]->setProperty("strong", now);
        m_levels[i]->style()->unpolish(m_levels[i]);
        m_levels[i]->style()->polish(m_levels[i]);
        m_levels[i]->setEnabled(!m_desk.busy());
    }
    for (ValueEdit* edit : {m_amount, m_height})
        edit->setValue(edit->value(), m_context.system());
    const bool may = yard && !m_desk.busy() && !yard->verdict();
    m_hint->setEnabled(may);
    QStringList pieces, guesses;
    if (yard) {
        for (const TrimTask& t : yard->tasks())
            pieces << tr("%1, %2").arg(frequencyWords(t.target), coreWords(t.lever.name));
        for (YardFault f : yard->level().suspects)
            guesses << coreWords(yardFaultName(f), m_context.system());
    }
    setWords(m_piece, pieces);
    setWords(m_guess, guesses);
    m_guess->setToolTip(guesses.join(QLatin1Char('\n')));
    const std::optional<YardVerdict> verdict = yard ? yard->verdict() : std::nullopt;
    m_wasted->setText(
        verdict ? tr("%1 of %2").arg(smallWords(verdict->wasted, m_context.system()), smallWords(yard->level().spare, m_context.system()))
        : yard  ? tr("may be %1").arg(smallWords(yard->level().spare, m_context.system()))
                : tr("–"));
    m_hoists->setText(yard ? tr("%1 of %2").arg(yard->hoistsUsed()).arg(yard->level().hoists) : tr("–"));
    m_bands->setText(verdict ? tr("%1 of %2").arg(verdict->bandsUnder).arg(verdict->bands) : tr("–"));
}

} // namespace vetchling::app

/// What is left to do: everything that is found of the antenna on show, or of the whole site, in the order of the work.
#include "app/stages/left/left_board.h"
#include "app/stages/stage.h"
#include "app/stages/view_buttons.h"
#include "app/view/finding_words.h"
#include "app/view/old_figures.h"
#include "app/view/words.h"

#include <QPushButton>
#include <QScrollArea>

#include <algorithm>

namespace vetchling::app {
namespace {

class LeftStage final : public Stage {
    Q_OBJECT
public:
    LeftStage(ViewContext& context, QObject* parent) : Stage(context, parent), m_board(new LeftBoard(context)), m_scroll(new QScrollArea)
    {
        m_scroll->setWidgetResizable(true);
        m_scroll->setWidget(m_board);
        m_scroll->setFrameShape(QFrame::NoFrame);
        m_scroll->setFocusPolicy(Qt::NoFocus);
        m_views = new ViewButtons(*m_page, QStringLiteral("leftViews"), this);
        m_views->add(tr("This antenna"), QStringLiteral("leftAntenna"), m_scroll);
        m_views->add(tr("Whole site"), QStringLiteral("leftSite"), m_scroll);
        paleWhileOld(context.left.waitings(), m_board);
        buildLedger();
        connect(m_views, &ViewButtons::chosen, this, &LeftStage::refresh);
        connect(m_board, &LeftBoard::rowChosen, this, [this] {
            const QRect area = m_board->chosenArea();
            m_scroll->ensureVisible(area.left(), area.center().y(), 0, area.height() / 2 + 4);
            refreshChosen();
        });
        connect(m_board, &LeftBoard::pageWanted, this, &Stage::pageWanted);
        connect(&context.left, &LeftDesk::changed, this, &Stage::summaryChanged);
    }

    QString id() const override { return QStringLiteral("left"); }
    QString name() const override { return tr("Left to do"); }
    Canvas* canvas() override { return m_board; }
    QString tableText() const override { return m_board->tableText(); }
    void showView(const QString& view) override { m_views->showNamed(QStringLiteral("left") + view); }

    QString summary() const override
    {
        if (!document().hasAntenna())
            return tr("nothing yet");
        const int open = left().open();
        if (left().standing() == Standing::None)
            return open > 0 ? tr("%n so far", nullptr, open) : tr("being looked into");
        return open > 0 ? tr("%n to do", nullptr, open) : tr("nothing left");
    }
    QString alarm() const override
    {
        const int dangers = left().dangers();
        return dangers > 0 ? tr("%n can hurt somebody", nullptr, dangers) : QString();
    }
    int number() const override { return left().open(); }

    void refresh() override
    {
        const bool whole = m_views->place() == 1;
        left().want();
        if (whole)
            left().wantSite();
        m_board->setWhole(whole);
        m_board->refresh();
        m_page->setTitle(whole                     ? tr("Whole site: what is left to do")
                         : document().hasAntenna() ? tr("%1: what is left to do").arg(document().shownName())
                                                   : tr("What is left to do"));
        m_page->setSentence(sentence(whole));
        refreshChosen();
    }

private:
    [[nodiscard]] LeftDesk& left() const { return m_context.left; }

    [[nodiscard]] QString sentence(bool whole) const
    {
        if (!document().hasAntenna())
            return tr("Add an antenna first: the + in the shelf.");
        const Standing standing = whole ? left().siteStanding() : left().standing();
        const auto& all = m_board->findings();
        const auto count = [&](advice::Gravity g) {
            return int(std::count_if(all.begin(), all.end(), [g](const advice::Finding& f) { return f.gravity == g; }));
        };
        const int dangers = count(advice::Gravity::Danger), wrong = count(advice::Gravity::Wrong), next = count(advice::Gravity::Next);
        QStringList words;
        if (dangers > 0)
            words << tr("%n can hurt somebody", nullptr, dangers);
        if (wrong > 0)
            words << tr("%n not right", nullptr, wrong);
        if (next > 0)
            words << tr("%n to be done next", nullptr, next);
        const QString told = words.isEmpty() ? QString() : tr("%1.").arg(words.join(QStringLiteral(", ")));
        if (standing != Standing::Whole)
            return tr("%1 Being looked into …").arg(told).trimmed();
        return told.isEmpty() ? tr("Nothing is left to do. What was checked stands below.") : told;
    }

    void buildLedger()
    {
        m_title = m_ledger->note();
        m_words = m_ledger->note();
        m_cure = m_ledger->button({}, QStringLiteral("doCure"), true);
        m_go = m_ledger->button(tr("Show it"), QStringLiteral("goThere"));
        m_title->setObjectName(QStringLiteral("leftTitle"));
        m_title->setProperty("role", "heading");
        m_words->setObjectName(QStringLiteral("leftWords"));
        connect(m_cure, &QPushButton::clicked, this, [this] {
            if (const advice::Finding* f = m_board->chosen())
                m_board->act(advice::Finding(*f));
        });
        connect(m_go, &QPushButton::clicked, this, [this] {
            if (const advice::Finding* f = m_board->chosen())
                m_board->goTo(advice::Finding(*f));
        });
        m_ledger->line();
        m_ledger->note(tr(
            "Up and Down choose a line; Enter does what its button says, and Ctrl+Z takes it back. A double click shows it on its page."));
        m_ledger->line();
        m_ledger->note(
            tr("Triangle: it can hurt somebody. Square: it does not hold, or does not work so. Disc: what comes next; ring: what "
               "waits for that."));
        m_ledger->caution(tr("This list knows what was drawn and typed, no more: look round on the spot, keep to local codes, and ask "
                             "licensed people where somebody can be hurt."));
        m_ledger->finish();
    }

    void refreshChosen()
    {
        const advice::Finding* f = m_board->chosen();
        m_title->setVisible(f != nullptr);
        m_go->setVisible(f != nullptr);
        m_cure->setVisible(f && f->cure);
        m_words->setText(f ? findingSentence(*f, system()) : tr("Nothing is left to do."));
        if (!f)
            return;
        m_title->setText(findingTitle(*f, system()));
        m_go->setText(goWords(*f));
        if (f->cure)
            m_cure->setText(coreWords(f->cure->label, system()));
        m_cure->setEnabled(m_board->fresh());
    }

    LeftBoard* m_board;
    QScrollArea* m_scroll;
    ViewButtons* m_views;
    QLabel *m_title = nullptr, *m_words = nullptr;
    QPushButton *m_cure = nullptr, *m_go = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeLeftStage(ViewContext& context, QObject* parent) { return std::make_unique<LeftStage>(context, parent); }

} // namespace vetchling::app

#include "left_stage.moc"

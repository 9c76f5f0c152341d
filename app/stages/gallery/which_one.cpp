#include "app/stages/gallery/which_one.h"

#include "app/stages/gallery/tried_model.h"
#include "app/view/words.h"
#include "app/widgets/choice.h"
#include "app/widgets/ledger.h"
#include "app/widgets/table.h"
#include "app/widgets/value_edit.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QScrollArea>
#include <QStackedWidget>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr int planWidth = 270, upperHeight = 220; // px

QLabel* words(QWidget* parent, const char* role)
{
    auto* label = new QLabel(parent);
    label->setProperty("role", role);
    label->setWordWrap(true);
    return label;
}

QString bandsOf(const Design& design, Wish wish)
{
    QStringList names;
    for (const WantedBand& w : design.operation.bands)
        if (w.wish == wish)
            names << QString::fromStdString(w.band.name);
    return names.join(QStringLiteral(", "));
}

} // namespace

WhichOne::WhichOne(ViewContext& context, AdvisorDesk& desk, QWidget* parent)
    : QWidget(parent), m_context(context), m_desk(desk), m_chart(new AnswerChart(context)), m_plan(new TrialPlan(context)),
      m_table(new AnswerTable(context)), m_tried(new TriedModel(context, this)),
      m_all(new Table(m_tried, {0.05, 0.22, 0.19, 0.07, 0.07, 0.08, 0.32}, this)), m_lists(new QStackedWidget), m_scroll(new QScrollArea),
      m_help(words(this, "sentence")), m_why(words(this, "note")), m_hang(new QPushButton(tr("Hang it"), this)),
      m_renew(new QPushButton(tr("Look again"), this)), m_allButton(new QPushButton(this)), m_whyNot(new Choice(this)), m_ledger(new Ledger)
{
    setObjectName(QStringLiteral("whichOne"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    buildLeft();
    row->addWidget(findChild<QWidget*>(QStringLiteral("whichLeft")), 1);
    buildWish();
    auto* pane = new QScrollArea(this);
    pane->setObjectName(QStringLiteral("wishPane"));
    pane->setWidget(m_ledger);
    pane->setWidgetResizable(true);
    pane->setFrameShape(QFrame::NoFrame);
    pane->setFocusPolicy(Qt::NoFocus);
    pane->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    pane->setFixedWidth(Ledger::paneWidth);
    row->addWidget(pane);
    connect(&desk, &AdvisorDesk::changed, this, [this] {
        if (isVisible())
            refresh();
    });
    connect(m_table, &AnswerTable::rowChosen, this, &WhichOne::refreshAnswer);
    connect(m_table, &AnswerTable::hangWanted, this, &WhichOne::hang);
    connect(m_chart, &AnswerChart::chosen, this, [this](const std::string& key) {
        m_lists->setCurrentIndex(0);
        m_allButton->setChecked(false);
        m_table->choose(key);
        m_table->setFocus();
        refreshAnswer();
    });
    connect(m_chart, &AnswerChart::asked, this, &WhichOne::askWhyNot);
}

void WhichOne::buildLeft()
{
    auto* left = new QWidget(this);
    left->setObjectName(QStringLiteral("whichLeft"));
    auto* column = new QVBoxLayout(left);
    column->setContentsMargins(0, 0, 12, 0);
    column->setSpacing(8);
    auto* upper = new QHBoxLayout;
    upper->addWidget(m_chart, 1);
    m_plan->setFixedWidth(planWidth);
    upper->addWidget(m_plan);
    m_chart->setFixedHeight(upperHeight);
    m_plan->setFixedHeight(upperHeight);
    column->addLayout(upper);
    m_scroll->setWidget(m_table);
    m_scroll->setWidgetResizable(true);
    m_scroll->setFrameShape(QFrame::NoFrame);
    m_scroll->setFocusPolicy(Qt::NoFocus);
    m_scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_all->setObjectName(QStringLiteral("allTried"));
    m_all->setAccessibleName(tr("Every place that was tried"));
    m_all->setSortingEnabled(true);
    m_all->horizontalHeader()->setSortIndicatorShown(true);
    m_lists->addWidget(m_scroll);
    m_lists->addWidget(m_all);
    column->addWidget(m_lists, 1);
    auto* buttons = new QHBoxLayout;
    m_hang->setObjectName(QStringLiteral("hangIt"));
    m_hang->setProperty("strong", true);
    m_hang->setToolTip(tr("Makes the antennas of the chosen answer, with their chains, poles and feed lines (Enter)"));
    m_renew->setObjectName(QStringLiteral("lookAgain"));
    m_allButton->setObjectName(QStringLiteral("allTriedButton"));
    m_allButton->setCheckable(true);
    m_whyNot->setObjectName(QStringLiteral("whyNot"));
    m_whyNot->setAccessibleName(tr("Why not this family?"));
    m_whyNot->setEditable(true);
    m_whyNot->setInsertPolicy(QComboBox::NoInsert);
    m_whyNot->addItem(tr("Why not …?"));
    for (const shapes::Family* f : shapes::families())
        m_whyNot->addItem(coreWords(f->title()), QString::fromStdString(f->id()));
    m_whyNot->setMaximumWidth(210);
    buttons->addWidget(m_hang);
    buttons->addWidget(m_renew);
    buttons->addWidget(m_allButton);
    buttons->addStretch(1);
    buttons->addWidget(m_whyNot);
    column->addLayout(buttons);
    m_why->setObjectName(QStringLiteral("whyNotWords"));
    m_why->hide();
    column->addWidget(m_why);
    m_help->setObjectName(QStringLiteral("wouldHelp"));
    m_help->setProperty("card", true);
    column->addWidget(m_help);
    connect(m_hang, &QPushButton::clicked, this, &WhichOne::hang);
    connect(m_renew, &QPushButton::clicked, &m_desk, &AdvisorDesk::renew);
    connect(m_allButton, &QPushButton::toggled, this, [this](bool all) {
        m_lists->setCurrentIndex(all ? 1 : 0);
        (all ? static_cast<QWidget*>(m_all) : m_table)->setFocus();
    });
    connect(m_whyNot, &QComboBox::activated, this, [this](int place) { askWhyNot(m_whyNot->itemData(place).toString().toStdString()); });
}

void WhichOne::buildWish()
{
    m_ledger->heading(tr("What you want"));
    m_must = m_ledger->figure(tr("Must"));
    m_nice = m_ledger->figure(tr("Nice"));
    m_angle = m_ledger->figure(tr("How well it is heard"));
    m_ledger->fold(tr("How it is judged"), QStringLiteral("judgedFold"), false);
    m_rule = m_ledger->note();
    m_rule->setWordWrap(true);
    m_ledger->endFold();
    m_ledger->line();
    m_ledger->heading(tr("What it may take"));
    m_antennas = m_ledger->choice(tr("Antennas"), {tr("one"), tr("up to two"), tr("up to three")}, QStringLiteral("wishAntennas"));
    m_tuner = m_ledger->choice(tr("Tuner"), {tr("none"), tr("in the radio"), tr("at the feed")}, QStringLiteral("wishTuner"));
    m_wire = m_ledger->value(tr("Wire at hand, 0: any"), units::Quantity::Length, QStringLiteral("wishWire"));
    m_wire->setRange(0.0, 2000.0);
    m_coils = m_ledger->choice(tr("Coils and traps"), {tr("any"), tr("none"), tr("up to two")}, QStringLiteral("wishCoils"));
    m_radials = m_ledger->choice(tr("Radials"), {tr("yes"), tr("no")}, QStringLiteral("wishRadials"));
    m_pole = m_ledger->value(tr("One new pole of up to, 0: none"), units::Quantity::Length, QStringLiteral("wishPole"));
    m_pole->setRange(0.0, 30.0);
    m_portable = m_ledger->choice(tr("Goes into a bag"), {tr("need not"), tr("must")}, QStringLiteral("wishPortable"));
    m_walkable = m_ledger->choice(tr("Ground free to walk"), {tr("need not"), tr("must")}, QStringLiteral("wishWalkable"));
    m_hanging = m_ledger->choice(tr("What hangs already"), {tr("is in the way"), tr("counts too")}, QStringLiteral("wishHanging"));
    m_ledger->line();
    m_ledger->heading(tr("Supports"));
    m_supportBox = new QWidget;
    new QVBoxLayout(m_supportBox);
    m_supportBox->layout()->setContentsMargins(0, 0, 0, 0);
    m_supportBox->layout()->setSpacing(3);
    m_ledger->add(m_supportBox);
    m_noSupports = m_ledger->note();
    m_noSupports->setObjectName(QStringLiteral("noSupports"));
    m_noSupports->setText(tr("None on the plan: allow a new pole above, or draw on Site what stands there."));
    m_ledger->line();
    m_progress = m_ledger->note();
    m_progress->setObjectName(QStringLiteral("triedWords"));
    m_progress->setWordWrap(true);
    m_ledger->finish();
    for (QComboBox* box : {m_antennas, m_tuner, m_coils, m_radials, m_portable, m_walkable, m_hanging})
        connect(box, &QComboBox::activated, this, &WhichOne::takeWish);
    for (ValueEdit* edit : {m_wire, m_pole})
        connect(edit, &ValueEdit::edited, this, [this](double, const QString&, bool dragging) {
            if (!dragging)
                takeWish();
        });
}

void WhichOne::refreshSupports()
{
    const auto& supports = m_context.document.design().site.supports;
    const bool same = std::equal(supports.begin(), supports.end(), m_supports.begin(), m_supports.end(),
                                 [](const Support& s, const auto& box) { return s.id == box.first; });
    if (!same) {
        for (auto& [id, box] : m_supports)
            delete box;
        m_supports.clear();
        for (const Support& s : supports) {
            auto* box = new QCheckBox(m_supportBox);
            box->setObjectName(QStringLiteral("support ") + QString::fromStdString(s.id));
            m_supportBox->layout()->addWidget(box);
            connect(box, &QCheckBox::toggled, this, &WhichOne::takeWish);
            m_supports.emplace_back(s.id, box);
        }
    }
    m_noSupports->setVisible(supports.empty());
    const auto& used = m_desk.wish().supports;
    for (auto& [id, box] : m_supports) {
        const Support* s = findSupport(m_context.document.design(), id);
        box->setText(tr("%1 %2").arg(QString::fromStdString(s->name), heightWords(s->height, m_context.system())));
        box->setChecked(used.empty() || std::find(used.begin(), used.end(), id) != used.end());
    }
}

void WhichOne::refreshWish()
{
    m_filling = true;
    const Design& design = m_context.document.design();
    const advice::AdviceWish& wish = m_desk.wish();
    const units::System system = m_context.system();
    const auto orNone = [](const QString& names) { return names.isEmpty() ? tr("none") : names; };
    m_must->setText(orNone(bandsOf(design, Wish::Must)));
    m_nice->setText(orNone(bandsOf(design, Wish::Nice)));
    m_angle->setText(design.operation.aimBearing
                         ? tr("at %1°, towards %2°").arg(design.operation.aimElevation).arg(*design.operation.aimBearing)
                         : tr("at %1°").arg(design.operation.aimElevation));
    m_rule->setText(ruleWords());
    m_antennas->setCurrentIndex(wish.antennas - 1);
    m_tuner->setCurrentIndex(int(wish.tuner));
    m_wire->setValue(wish.wire, system);
    m_coils->setCurrentIndex(wish.coilsMost < 0 ? 0 : wish.coilsMost == 0 ? 1 : 2);
    m_radials->setCurrentIndex(wish.radials ? 0 : 1);
    m_pole->setValue(wish.pole, system);
    m_portable->setCurrentIndex(wish.portable ? 1 : 0);
    m_walkable->setCurrentIndex(wish.walkable ? 1 : 0);
    m_hanging->setCurrentIndex(wish.kept.empty() ? 0 : 1);
    m_ledger->setRowVisible(m_hanging, !design.antennas.empty());
    refreshSupports();
    m_filling = false;
}

/// The score as it stands in its file.
QString WhichOne::ruleWords() const
{
    const advice::ScoreRules& r = m_desk.rules();
    const auto hundredths = [](double part) { return numberWords(100.0 * part, 0); };
    return tr("Each band counts by your wish (must %1, nice %2): %3 % for the part under your limit (%4 % of it if a tuner must help), the "
              "rest "
              "for how well it is heard (a plain vertical half, %5 dB better all, %5 dB worse none); %6 % rests on the worst season.")
               .arg(numberWords(r.must, 0), numberWords(r.nice, 0), hundredths(r.matchPart), hundredths(r.withTuner),
                    numberWords(0.5 * r.heardRange, 0), hundredths(r.worstPart)) +
           QLatin1Char(' ') +
           tr("It takes: %1 hundredths for each further antenna, new pole and tuner outdoors, %2 for each coil, trap, link and caution, %3 "
              "for "
              "%4 of wire.")
               .arg(hundredths(r.thingCosts), hundredths(r.partCosts), hundredths(r.wireCosts), lengthWords(r.wire, m_context.system(), 0));
}

void WhichOne::takeWish()
{
    if (m_filling)
        return;
    advice::AdviceWish wish = m_desk.wish();
    constexpr int coils[] = {-1, 0, 2};
    wish.antennas = m_antennas->currentIndex() + 1;
    wish.tuner = advice::TunerWish(m_tuner->currentIndex());
    wish.wire = m_wire->value();
    wish.coilsMost = coils[m_coils->currentIndex()];
    wish.radials = m_radials->currentIndex() == 0;
    wish.pole = m_pole->value();
    wish.portable = m_portable->currentIndex() == 1;
    wish.walkable = m_walkable->currentIndex() == 1;
    wish.kept.clear();
    if (m_hanging->currentIndex() == 1)
        for (const Antenna& a : m_context.document.design().antennas)
            wish.kept.push_back(a.id);
    wish.supports.clear();
    for (const auto& [id, box] : m_supports)
        if (box->isChecked())
            wish.supports.push_back(id);
    if (wish.supports.size() == m_supports.size())
        wish.supports.clear(); // all, and those to come
    else if (wish.supports.empty())
        return refreshWish(); // none at all would mean all: the last one stays
    m_desk.setWish(std::move(wish));
}

void WhichOne::open()
{
    m_why->hide();
    m_whyNot->setCurrentIndex(0);
    m_desk.want();
    refresh();
    m_table->setFocus();
}

bool WhichOne::ready() const { return m_table->chosen() && !m_desk.old(); }

void WhichOne::refresh()
{
    refreshWish();
    const advice::AdvicePointer advice = m_desk.advice();
    m_table->show(advice, m_desk.design());
    if (advice)
        m_tried->show(*advice);
    m_allButton->setText(advice ? tr("All %n tried", nullptr, int(advice->tried.size())) : tr("All tried"));
    m_allButton->setEnabled(advice != nullptr);
    m_renew->setVisible(m_desk.old() || m_desk.givenUp());
    refreshAnswer();
    refreshHelp();
    emit sentenceChanged();
}

void WhichOne::refreshAnswer()
{
    const advice::Answer* answer = m_table->chosen();
    m_chart->show(m_desk.advice(), answer ? answer->key() : std::string());
    m_plan->show(answer ? answer->antennas : std::vector<advice::TriedPointer>());
    m_hang->setEnabled(ready());
    m_hang->setText(answer && answer->antennas.size() > 1 ? tr("Hang both") : tr("Hang it"));
    if (answer && answer->antennas.size() > 2)
        m_hang->setText(tr("Hang all three"));
    emit trialChanged(trial());
    if (const QRect area = m_table->chosenArea(); answer)
        m_scroll->ensureVisible(area.left(), area.center().y(), 0, area.height() / 2 + 4);
}

std::vector<std::pair<Id, CurvePointer>> WhichOne::trial() const
{
    std::vector<std::pair<Id, CurvePointer>> curves;
    const advice::Answer* answer = m_table->chosen();
    for (const advice::AnswerBand& b : answer ? answer->bands : std::vector<advice::AnswerBand>())
        if (b.antenna && *b.antenna < answer->antennas.size())
            for (const auto& of : answer->antennas[*b.antenna]->curves)
                if (of.first == b.figure.band)
                    curves.push_back(of);
    return curves;
}

void WhichOne::refreshHelp()
{
    const advice::AdvicePointer advice = m_desk.advice();
    QStringList lines;
    if (advice)
        for (const advice::Help& h : advice->help)
            lines << tr("%1 %2 (%3 hundredths more)")
                         .arg(coreWords(h.what, m_context.system()), coreWords(h.brings, m_context.system()))
                         .arg(numberWords(100.0 * h.more, 1));
    for (QString& line : lines)
        line[0] = line[0].toUpper();
    m_help->setText(tr("What would help: %1. Each was solved; nothing is taken before.").arg(lines.join(QStringLiteral("; "))));
    m_help->setVisible(!lines.isEmpty());
    QStringList parts;
    if (advice)
        parts << tr("%n places tried.", nullptr, int(advice->tried.size()));
    if (m_desk.busy())
        parts << tr("%1 % done.").arg(std::lround(100.0 * m_desk.progress()));
    if (advice && advice->complete && !advice->notPossible.empty()) {
        QStringList not_;
        for (const advice::NotPossible& n : advice->notPossible)
            not_ << tr("%1 (%2)").arg(inSentence(coreWords(n.title)), coreWords(n.reason, m_context.system()));
        parts << tr("Not possible here: %1.").arg(not_.join(QStringLiteral(", ")));
    }
    m_progress->setText(parts.join(QLatin1Char(' ')));
}

void WhichOne::askWhyNot(const std::string& family)
{
    const advice::AdvicePointer advice = m_desk.advice();
    m_whyNot->setCurrentIndex(std::max(0, m_whyNot->findData(QString::fromStdString(family))));
    if (family.empty() || !advice) {
        m_why->hide();
        return;
    }
    QStringList sentences;
    for (const Text& t : advice::whyNot(*advice, family))
        sentences << coreWords(t, m_context.system());
    m_why->setText(sentences.join(QLatin1Char(' ')));
    m_why->show();
}

void WhichOne::hang()
{
    const advice::Answer* answer = m_table->chosen();
    if (answer && m_desk.hang(*answer))
        emit hung();
}

QString WhichOne::sentence() const
{
    if (!m_desk.faults().empty())
        return coreWords(m_desk.faults().front().message, m_context.system());
    const advice::AdvicePointer advice = m_desk.advice();
    if (!advice || advice->answers.empty())
        return m_desk.busy()      ? tr("Every family is being hung, tuned and solved here; the first answers come in a moment.")
               : m_desk.givenUp() ? tr("The search was left.")
               : advice           ? tr("Nothing can be hung here yet: what would help stands below.")
                                  : QString();
    QStringList parts;
    const int wanted = int(advice->answers.front().bands.size());
    const QString starts[] = {tr("One antenna: %1, %2 of %3 wanted bands."), tr("Two: %1, %2 of %3."), tr("Three: %1, %2 of %3.")};
    for (std::size_t n = 1; n <= 3; ++n)
        if (const advice::Answer* a = advice::bestOf(*advice, n))
            parts << starts[n - 1].arg(m_table->nameOf(*a)).arg(advice::servedBy(*a)).arg(wanted);
    if (m_desk.old())
        parts.prepend(tr("Of how things were before: look again."));
    else if (m_desk.busy())
        parts.prepend(tr("So far:"));
    return parts.join(QLatin1Char(' '));
}

} // namespace vetchling::app

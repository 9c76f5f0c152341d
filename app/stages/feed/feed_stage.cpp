/// Feed: the chain from the wire to the radio, what it loses, what comes back, and what would be better.
#include "app/document/antenna_models.h"
#include "app/document/feed_desk.h"
#include "app/stages/feed/choice_board.h"
#include "app/stages/feed/feed_panels.h"
#include "app/stages/feed/loss_board.h"
#include "app/stages/feed/part_panel.h"
#include "app/stages/feed/reflection_disk.h"
#include "app/stages/feed/shield_chart.h"
#include "app/stages/stage.h"
#include "app/stages/view_buttons.h"
#include "app/view/band_words.h"
#include "app/view/feed_words.h"
#include "app/view/finding_words.h"
#include "app/view/old_figures.h"
#include "app/view/words.h"
#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"
#include "core/advice/feed_findings.h"

#include <QMenu>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

class FeedStage final : public Stage {
    Q_OBJECT
public:
    FeedStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_desk(context.document, context.models, context.solver, context.lineTypes),
          m_losses(new LossBoard(context, m_desk)), m_disk(new ReflectionDisk(context, m_desk)), m_board(new ChoiceBoard(context, m_desk)),
          m_shield(new ShieldChart(context, m_desk))
    {
        context.add(m_desk.waitings());
        addConfigurations();
        tellsFigures({m_losses, m_disk, m_board});
        paleWhileOld(m_desk.waitings(), m_shield);
        m_views = new ViewButtons(*m_page, QStringLiteral("feedViews"), this);
        m_views->add(tr("Losses"), QStringLiteral("feedLosses"), m_losses);
        m_views->add(tr("Reflection"), QStringLiteral("feedReflection"), m_disk);
        m_views->add(tr("Which?"), QStringLiteral("feedWhich"), m_board);
        m_views->add(tr("Shield"), QStringLiteral("feedShield"), m_shield);
        connect(m_views, &ViewButtons::chosen, this, &FeedStage::refresh);
        connect(&m_desk, &FeedDesk::changed, this, [this] {
            if (m_page->isVisible())
                refresh();
            if (!document().dragging()) // the trail follows when the mouse rests
                emit summaryChanged();
        });
        connect(&m_desk, &FeedDesk::shieldReady, this, [this] {
            if (const auto shield = m_desk.shield(); shield && shield->complete && m_desk.shieldFresh() && m_desk.report())
                m_context.left.hear(shieldFound(*shield));
            refresh();
        });
        connect(m_losses, &LossBoard::partChosen, this, &FeedStage::refresh);
        connect(m_losses, &LossBoard::addWanted, this, [this] { showKinds(m_losses->mapToGlobal(QPoint(60, 60))); });
        connect(m_board, &ChoiceBoard::rowChosen, this, &FeedStage::refresh);
    }

    QString id() const override { return QStringLiteral("feed"); }
    QString name() const override { return tr("Feed"); }
    Canvas* canvas() override { return static_cast<Canvas*>(m_views->current()); }

    void showView(const QString& view) override { m_views->showNamed(QStringLiteral("feed") + view); }

    QString summary() const override
    {
        const auto report = m_desk.report();
        const study::FeedRow* worst = report ? report->worst() : nullptr;
        if (!document().hasAntenna())
            return tr("nothing to feed yet");
        if (!worst)
            return m_desk.busy() || solver().busy() ? tr("being computed") : tr("nothing to show yet");
        return report->parts.empty()
                   ? tr("straight to the radio")
                   : tr("%1 lost, %2 band").arg(feed::decibelWords(worst->service.total(), 1), QString::fromStdString(worst->band.name));
    }

    QString tableText() const override
    {
        const QWidget* view = m_views->current();
        if (view == m_board || view == m_shield) {
            QString table;
            for (const QStringList& line : view == m_board ? m_board->cells() : m_shield->cells())
                table += line.join(QLatin1Char('\t')) + QLatin1Char('\n');
            return table;
        }
        return lossTable();
    }

    void refresh() override
    {
        refreshConfigurations();
        m_desk.wantBasis();
        if (on(m_losses) || on(m_board))
            m_desk.wantChoices(on(m_losses) ? FeedDesk::Choice::Line : m_board->choice());
        if (on(m_shield))
            m_desk.wantShield();
        rebuildLedgerWhenOther();
        refreshPage();
        refreshLedger();
    }

private:
    [[nodiscard]] bool on(const QWidget* view) const { return m_views->current() == view; }

    QString lossTable() const
    {
        const auto report = m_desk.report();
        if (!report)
            return {};
        QString out = tr("band\tMHz\tport R\tport X");
        for (const ChainPart& p : report->parts)
            out += tr("\t%1 dB").arg(feed::partName(p));
        out += tr("\tchain dB\tmismatch dB\tinto the wire W\tgain dBi\tnet dBi\theld against dBi\n");
        for (const study::FeedRow& row : report->rows) {
            out += QStringLiteral("%1\t%2\t%3\t%4")
                       .arg(QString::fromStdString(row.band.name))
                       .arg(row.band.frequency / 1e6, 0, 'f', 3)
                       .arg(row.band.port.real(), 0, 'f', 1)
                       .arg(row.band.port.imag(), 0, 'f', 1);
            for (const Joint& j : row.state.joints)
                out += QStringLiteral("\t%1").arg(j.loss, 0, 'f', 2);
            out += QStringLiteral("\t%1\t%2\t%3\t%4\t%5\t%6\n")
                       .arg(row.state.totalLoss(), 0, 'f', 2)
                       .arg(row.service.mismatch, 0, 'f', 2)
                       .arg(row.intoAntenna(), 0, 'f', 1)
                       .arg(row.band.gain, 0, 'f', 2)
                       .arg(row.net, 0, 'f', 2)
                       .arg(row.reference, 0, 'f', 2);
        }
        return out;
    }

    // ---- the page

    void refreshPage()
    {
        const auto report = m_desk.report();
        const QString name = document().hasAntenna() ? document().shownName() : QString();
        const QString against = feed::againstWords(m_desk.against(), document(), solver());
        m_page->setTitle(name.isEmpty() ? tr("Feed")
                         : on(m_disk)   ? tr("Feed: what comes back")
                         : on(m_board)  ? tr("Feed: which one?")
                         : on(m_shield) ? tr("Feed: the coax's outside")
                                        : tr("Feed: %1").arg(name));
        m_page->setSentence(sentence(report, against));
        m_losses->setWords({}, {}, against);
        if (report && !report->rows.empty()) {
            QStringList more;
            if (const QString unfit = feed::unfitSentence(*report, document().design()); !unfit.isEmpty())
                more << unfit;
            if (const QString guess = feed::guessSentence(*report, document().design()); !guess.isEmpty())
                more << guess;
            if (more.isEmpty())
                if (const study::FeedRow* row = report->row(document().selectedBand()))
                    more << feed::rowSentence(*row, *report);
            const QString advice =
                on(m_losses) ? feed::adviceSentence(*report, m_desk.choices(FeedDesk::Choice::Line), system()) : QString();
            m_losses->setWords(advice, more.join(QLatin1Char(' ')), against);
        }
        m_losses->refresh();
        m_board->refresh();
        m_disk->update();
        m_shield->update();
    }

    QString sentence(const std::shared_ptr<const study::FeedReport>& report, const QString& against) const
    {
        if (const QString fault = faultSentence(); !fault.isEmpty())
            return fault;
        if (!document().hasAntenna())
            return tr("Add an antenna first: the + in the shelf.");
        if (!m_desk.faults().empty())
            return coreWords(m_desk.faults().front().message, system());
        if (on(m_disk))
            return tr("The nearer to the middle, the less comes back. Green: at the feedpoint. Blue: at the radio. Dots: the way through "
                      "the line.");
        if (on(m_shield))
            return shieldSentence();
        if (!report)
            return tr("What the radio sees, and what of its power arrives.");
        return on(m_board) ? whichSentence() : feed::lossSentence(*report, against);
    }

    QString whichSentence() const
    {
        const auto& rows = m_desk.choices(m_board->choice());
        const auto best = std::find_if(rows.begin(), rows.end(), [](const study::ChoiceRow& r) { return r.best; });
        if (best == rows.end())
            return tr("One thing changed at a time, and what each band makes of it.");
        const auto watts = [&](const study::ChoiceRow& row) { return feed::wattWords(document().design().operation.power * row.arriving); };
        const auto named = [&](const study::ChoiceRow& row) {
            QString name = feed::choiceName(row, int(m_board->choice()), system());
            if (!name.isEmpty())
                name[0] = name[0].toUpper();
            return name;
        };
        const auto now = std::find_if(rows.begin(), rows.end(), [](const study::ChoiceRow& r) { return r.now; });
        QString words = best->now ? tr("What you have brings most to the wire, %1: %2.").arg(watts(*best), tallyWords(best->tally))
                                  : tr("%1 would bring most to the wire, %2: %3.").arg(named(*best), watts(*best), tallyWords(best->tally));
        if (!best->now && now != rows.end())
            words += QLatin1Char(' ') + tr("Now %1: %2.").arg(watts(*now), tallyWords(now->tally));
        if (const study::ChoiceRow* chosen = m_board->chosen(); chosen && !chosen->best && !chosen->now)
            words += QLatin1Char(' ') + tr("%1: %2, %3.").arg(named(*chosen), watts(*chosen), tallyWords(chosen->tally));
        return words;
    }

    [[nodiscard]] std::vector<advice::Finding> shieldFound(const study::ShieldAnswer& shield) const
    {
        return advice::shieldFindings(document().design(), document().antenna(), *m_desk.report(), shield);
    }

    QString shieldSentence() const
    {
        const auto answer = m_desk.shield();
        if (!m_desk.shieldFaults().empty())
            return coreWords(m_desk.shieldFaults().front().message, system());
        if (!answer || !answer->complete)
            return tr("The coax's outside as a wire from the feedpoint along its route to the radio; being computed, band by band.");
        const study::ShieldBand* worst = nullptr;
        for (const study::ShieldBand& b : answer->bands)
            if (b.chosen && (!worst || b.chosen->atRadio > worst->chosen->atRadio))
                worst = &b;
        const auto place = answer->bestPlace();
        if (!worst || !place)
            return {};
        QString words = tr("At the radio flow %1 mA on %2 at the most; one choke at %3 quiets the wanted bands best.")
                            .arg(1e3 * worst->chosen->atRadio, 0, 'f', 0)
                            .arg(QString::fromStdString(worst->name), lengthWords(*place, system(), 1));
        for (const advice::Finding& f : m_desk.report() ? shieldFound(*answer) : std::vector<advice::Finding>())
            words += QLatin1Char(' ') + findingSentence(f, system());
        return words;
    }

    // ---- the ledger

    std::string layout() const
    {
        std::string key = std::to_string(m_views->current() == m_losses ? 0 : on(m_disk) ? 1 : on(m_board) ? 2 : 3);
        if (!document().hasAntenna())
            return key;
        key += "|" + document().current();
        if (on(m_losses))
            key += PartPanel::layout(document(), m_desk, m_losses->chosen());
        for (const FeedChain& c : document().antenna().feed.chains)
            key += "|" + c.id;
        for (const Antenna& a : document().design().antennas)
            key += "|" + a.id + a.name;
        if (const auto report = m_desk.report(); report && on(m_disk))
            for (const ChainPart& p : report->parts)
                key += "|" + p.id + p.kind;
        return key + (solver().pinned() ? "|pinned" : "");
    }

    void rebuildLedgerWhenOther()
    {
        const std::string key = layout();
        if (key == m_layout)
            return;
        m_layout = key;
        m_ledger->clear();
        delete m_part;
        delete m_against;
        delete m_shieldPanel;
        m_part = nullptr;
        m_against = nullptr;
        m_shieldPanel = nullptr;
        m_chain = m_band = m_choice = nullptr;
        m_power = m_foldback = m_frequency = m_length = nullptr;
        m_name = nullptr;
        m_way.clear();
        m_cautions = m_volts = m_heat = m_row = nullptr;
        m_take = nullptr;
        if (!document().hasAntenna())
            m_ledger->note(tr("There is no antenna yet."));
        else if (on(m_losses))
            buildLosses();
        else if (on(m_disk))
            buildReflection();
        else if (on(m_board))
            buildWhich();
        else
            m_shieldPanel = new ShieldPanel(m_context, m_desk, *m_ledger, this);
        m_ledger->finish();
    }

    void buildLosses()
    {
        m_part = new PartPanel(m_context, m_desk, *m_ledger, m_losses->chosen(), this);
        auto* add = m_ledger->button(tr("Add a part …"), QStringLiteral("addPart"), true);
        add->setToolTip(tr("Before the chosen part, else next to the radio (Insert)"));
        connect(add, &QPushButton::clicked, this, [this, add] { showKinds(add->mapToGlobal(QPoint(0, add->height()))); });
        m_ledger->line();
        buildChains();
        m_ledger->line();
        m_against = new AgainstPanel(m_context, *m_ledger, this);
        m_ledger->line();
        m_ledger->heading(tr("Power"));
        m_power = m_ledger->value(tr("The radio's power"), units::Quantity::Power, QStringLiteral("feedPower"));
        m_power->setRange(0.01, 1e5);
        connect(m_power, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
            document().edit(tr("change the power"), dragging ? QStringLiteral("power") : QString(),
                            [&](Design& d) { d.operation.power = value; });
        });
        m_foldback = m_ledger->value(tr("Folds back above SWR"), units::Quantity::Plain, QStringLiteral("feedFoldback"));
        m_foldback->setRange(0.0, 20.0);
        m_foldback->setHelp(tr("beyond it the radio lowers its power, so that no more comes back than there; 0: it never does"));
        connect(m_foldback, &ValueEdit::edited, this, [this](double value, const QString&, bool dragging) {
            if (value > 0.0 && value <= 1.0) {
                m_foldback->setValue(document().design().operation.foldbackSwr, system());
                m_foldback->ask(tr("an SWR lies above 1; 0: the radio never folds back"));
                return;
            }
            document().edit(tr("change where the radio folds back"), dragging ? QStringLiteral("foldback") : QString(),
                            [&](Design& d) { d.operation.foldbackSwr = value; });
        });
        m_volts = m_ledger->figure(tr("At the antenna's port, peak"));
        m_heat = m_ledger->figure(tr("Hottest part, key down"));
        m_row = m_ledger->note();
        m_cautions = m_ledger->caution({});
        m_cautions->setObjectName(QStringLiteral("feedCautions"));
    }

    void buildChains()
    {
        m_ledger->heading(tr("Chain"));
        QStringList names;
        for (const FeedChain& c : document().antenna().feed.chains)
            names << QString::fromStdString(c.name);
        if (names.size() > 1) {
            m_chain = m_ledger->choice(tr("In use"), names, QStringLiteral("feedChain"));
            connect(m_chain, &QComboBox::activated, this,
                    [this](int index) { m_desk.useChain(document().antenna().feed.chains[std::size_t(index)].id); });
        }
        if (!names.isEmpty()) {
            m_name = m_ledger->name(tr("Name"), QStringLiteral("chainName"));
            connect(m_name, &NameEdit::named, this, [this](const QString& name) {
                if (const FeedChain* used = usedChain(document().antenna()))
                    m_desk.renameChain(used->id, name);
            });
        }
        auto* another = m_ledger->button(tr("Another chain like this"), QStringLiteral("addChain"));
        another->setToolTip(tr("To be changed and compared under Which?"));
        connect(another, &QPushButton::clicked, this, [this] { m_desk.addChain(); });
        if (names.size() > 1) {
            auto* remove = m_ledger->button(tr("Remove this chain"), QStringLiteral("removeChain"));
            connect(remove, &QPushButton::clicked, this, [this] { m_desk.removeChain(usedChain(document().antenna())->id); });
        }
    }

    void buildReflection()
    {
        m_ledger->heading(tr("Look at"));
        QStringList names;
        m_bands.clear();
        for (const WantedBand& w : document().design().operation.bands) {
            names << QString::fromStdString(w.band.name);
            m_bands.push_back(w.id);
        }
        m_band = m_ledger->choice(tr("Band"), names, QStringLiteral("reflectionBand"));
        connect(m_band, &QComboBox::activated, this, [this](int index) { document().selectBand(m_bands[std::size_t(index)]); });
        m_frequency = m_ledger->value(tr("Frequency"), units::Quantity::Frequency, QStringLiteral("reflectionFrequency"));
        connect(m_frequency, &ValueEdit::edited, this, [this](double value, const QString&, bool) {
            if (const WantedBand* band = findBand(document().design(), document().selectedBand()))
                m_desk.lookAt(std::clamp(value, band->band.from, band->band.to));
        });
        m_ledger->note(tr("Left and Right step through the band; Up, Down and Enter take a cure."));
        m_ledger->line();
        m_ledger->heading(tr("The way"));
        m_way.push_back(m_ledger->figure(tr("antenna")));
        if (const auto report = m_desk.report())
            for (const ChainPart& p : report->parts)
                m_way.push_back(m_ledger->figure(tr("%1, %2").arg(feed::partName(p), feed::partFigure(p, system()))));
        m_ledger->note(tr("Each as seen from the part's radio side. Too long and too short hold at the feedpoint only: behind a line the "
                          "sign says nothing."));
    }

    void buildWhich()
    {
        m_ledger->heading(tr("What is the question?"));
        m_choice =
            m_ledger->choice(tr("Which"), {tr("transformer"), tr("place of the tuner"), tr("line"), tr("chain of mine"), tr("capacitor")},
                             QStringLiteral("whichChoice"));
        connect(m_choice, &QComboBox::activated, this, [this](int index) {
            m_board->setChoice(FeedDesk::Choice(index));
            refresh();
        });
        m_length = m_ledger->value(tr("Lines of"), units::Quantity::Length, QStringLiteral("whichLength"));
        m_length->setRange(0.0, 10000.0);
        m_length->setHelp(tr("0: as long as the chain's"));
        connect(m_length, &ValueEdit::edited, this, [this](double value, const QString&, bool) { m_desk.setComparedLength(value); });
        m_take = m_ledger->button(tr("Take it"), QStringLiteral("takeChoice"), true);
        connect(m_take, &QPushButton::clicked, this, [this] {
            if (const study::ChoiceRow* chosen = m_board->chosen())
                m_desk.take(m_board->choice(), study::ChoiceRow(*chosen));
        });
        m_ledger->note(tr("Green: served. Half green: in part. Hatched: not served. Beside it what reaches the wire, mean over the wanted "
                          "bands. Up, Down and Enter "
                          "choose and take."));
        m_row = m_ledger->note();
    }

    void refreshLedger()
    {
        if (!document().hasAntenna())
            return;
        if (m_part)
            m_part->refresh();
        const auto report = m_desk.report();
        const Operation& op = document().design().operation;
        const auto& chains = document().antenna().feed.chains;
        const FeedChain* used = usedChain(document().antenna());
        if (m_chain && used)
            m_chain->setCurrentIndex(int(used - chains.data()));
        if (m_name && used)
            m_name->setName(QString::fromStdString(used->name));
        if (m_against)
            m_against->refresh();
        if (m_power)
            refreshPower(op, report);
        if (m_band)
            refreshReflection();
        if (m_choice)
            refreshWhich();
        if (m_shieldPanel)
            m_shieldPanel->refresh();
    }

    void refreshPower(const Operation& op, const std::shared_ptr<const study::FeedReport>& report)
    {
        m_power->setValue(op.power, system());
        m_foldback->setValue(op.foldbackSwr, system());
        const study::FeedRow* row = report ? report->row(document().selectedBand()) : nullptr;
        if (report && !row && !report->rows.empty())
            row = &report->rows.front();
        m_volts->setText(
            row ? tr("%1 on %2").arg(feed::voltWords(std::sqrt(row->power) * row->state.portVolts), QString::fromStdString(row->band.name))
                : QStringLiteral("–"));
        m_heat->setText(row ? hottest(*report) : QStringLiteral("–"));
        m_row->setText(row ? feed::rowSentence(*row, *report) : QString());
        QStringList cautions;
        if (report)
            for (const advice::Finding& f : advice::feedFindings(document().design(), document().antenna(), *report))
                if (f.open())
                    cautions << findingSentence(f, system());
        if (const auto shield = m_desk.shield(); shield && m_desk.shieldFresh())
            if (const QString effect = feed::shieldEffectSentence(*shield, document().design()); !effect.isEmpty())
                cautions.prepend(effect);
        m_cautions->setText(cautions.join(QLatin1Char('\n')));
        m_cautions->setVisible(!cautions.isEmpty());
    }

    QString hottest(const study::FeedReport& report) const
    {
        double most = 0.0;
        QString words = QStringLiteral("–");
        for (const study::FeedRow& row : report.rows)
            for (std::size_t i = 0; i < report.parts.size(); ++i)
                if (const double watts = row.power * row.state.joints[i].lost(); watts > most && report.parts[i].kind != part::line) {
                    most = watts;
                    words = tr("%1, %2").arg(feed::wattWords(watts), feed::partName(report.parts[i]));
                }
        return words;
    }

    void refreshReflection()
    {
        const auto place = std::find(m_bands.begin(), m_bands.end(), document().selectedBand());
        m_band->setCurrentIndex(int(place - m_bands.begin()));
        m_frequency->setValue(m_desk.lookedAt(), system());
        const auto seen = m_desk.reflection();
        for (std::size_t i = 0; i < m_way.size(); ++i)
            m_way[i]->setText(!seen                             ? QStringLiteral("–")
                              : i == 0                          ? feed::shortImpedance(seen->port)
                              : i - 1 < seen->impedances.size() ? feed::shortImpedance(seen->impedances[i - 1])
                                                                : QString());
    }

    void refreshWhich()
    {
        m_choice->setCurrentIndex(int(m_board->choice()));
        m_ledger->setRowVisible(m_length, m_board->choice() == FeedDesk::Choice::Line);
        const auto& rows = m_desk.choices(m_board->choice());
        m_length->setValue(m_desk.comparedLength() > 0.0 || rows.empty() ? m_desk.comparedLength() : rows.front().length, system());
        const study::ChoiceRow* chosen = m_board->chosen();
        m_take->setEnabled(chosen && !chosen->now);
        m_take->setText(chosen && chosen->now ? tr("In use")
                        : chosen              ? tr("Take %1").arg(feed::choiceName(*chosen, int(m_board->choice()), system()))
                                              : tr("Take it"));
        m_row->setText(m_board->choice() == FeedDesk::Choice::Tuner
                           ? tr("A tuner in the radio is taken to cope with SWR 3, one by itself with 10, unless yours says otherwise. At "
                                "the antenna the line behind it runs matched.")
                       : m_board->choice() == FeedDesk::Choice::Line
                           ? tr("Types and rough prices stand in data/lines.json, to be changed to what your shop has.")
                       : m_board->choice() == FeedDesk::Choice::Transformer
                           ? tr("Each with the losses of the one you have; the wires stay as they are.")
                       : m_board->choice() == FeedDesk::Choice::Capacitor ? feed::leakageSentence(m_desk.leakage(), document().design())
                                                                          : tr("Another chain is made on the page Losses."));
    }

    void showKinds(const QPoint& at)
    {
        auto* menu = new QMenu(m_page);
        menu->setAttribute(Qt::WA_DeleteOnClose);
        menu->setObjectName(QStringLiteral("partKinds"));
        menu->setToolTipsVisible(true);
        for (const PartKind* kind : partKinds()) {
            ChainPart probe;
            probe.kind = kind->id();
            const QString name = kind->id() == part::line ? tr("coax or open-wire line") : feed::partName(probe);
            QAction* action = menu->addAction(name);
            action->setObjectName(QStringLiteral("add ") + QString::fromStdString(kind->id()));
            action->setToolTip(coreWords(kind->help()));
            connect(action, &QAction::triggered, this, [this, id = kind->id()] {
                m_losses->choose(m_desk.addPart(id, m_losses->chosen()));
                m_losses->setFocus();
            });
        }
        menu->popup(at);
    }

    FeedDesk m_desk;
    LossBoard* m_losses;
    ReflectionDisk* m_disk;
    ChoiceBoard* m_board;
    ShieldChart* m_shield;
    ViewButtons* m_views = nullptr;
    std::string m_layout;
    PartPanel* m_part = nullptr;
    AgainstPanel* m_against = nullptr;
    ShieldPanel* m_shieldPanel = nullptr;
    QComboBox *m_chain = nullptr, *m_band = nullptr, *m_choice = nullptr;
    ValueEdit *m_power = nullptr, *m_foldback = nullptr, *m_frequency = nullptr, *m_length = nullptr;
    NameEdit* m_name = nullptr;
    std::vector<QLabel*> m_way;
    std::vector<Id> m_bands;
    QLabel *m_cautions = nullptr, *m_volts = nullptr, *m_heat = nullptr, *m_row = nullptr;
    QPushButton* m_take = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeFeedStage(ViewContext& context, QObject* parent) { return std::make_unique<FeedStage>(context, parent); }

} // namespace vetchling::app

#include "feed_stage.moc"

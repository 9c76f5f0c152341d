/// Trim: measured dips in, the next cut out, everything written down.
#include "app/stages/stage.h"
#include "app/stages/trim/recipe_board.h"
#include "app/stages/trim/trim_board.h"
#include "app/stages/view_buttons.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"
#include "core/trim/trim.h"

#include <QCheckBox>
#include <QDateTime>
#include <QFileDialog>
#include <QFileInfo>
#include <QLineEdit>

#include <cmath>

namespace vetchling::app {
namespace {

class TrimStage final : public Stage {
    Q_OBJECT
public:
    TrimStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_desk(context.document, context.models, context.solver), m_board(new TrimBoard(context, m_desk)),
          m_recipe(new RecipeBoard(context, m_desk))
    {
        addConfigurations();
        m_views = new ViewButtons(*m_page, QStringLiteral("trimViews"), this);
        m_views->add(tr("Next"), QStringLiteral("trimNext"), m_board);
        m_views->add(tr("Recipe"), QStringLiteral("trimRecipe"), m_recipe);
        connect(m_views, &ViewButtons::chosen, this, &TrimStage::refresh);
        buildLedger();
        connect(&document(), &Document::currentChanged, this, &TrimStage::startEmpty);
        connect(&m_desk, &TrimDesk::ready, this, [this] {
            refresh();
            emit summaryChanged();
        });
        connect(m_board, &TrimBoard::chosenChanged, this, &TrimStage::refresh);
        connect(m_board, &TrimBoard::removeWanted, this, &TrimStage::removeMeasurement);
        connect(m_board, &TrimBoard::refused, this, [this](const QString& why) { m_page->setSentence(why); });
        connect(m_board, &TrimBoard::mended, this, [this](const Measurement& m) {
            document().editAntenna(tr("mend a measurement"), {}, [&](Antenna& a) {
                for (Measurement& one : a.trim.measurements)
                    if (one.id == m.id)
                        one = m;
            });
        });
    }

    QString id() const override { return QStringLiteral("trim"); }
    QString name() const override { return tr("Trim"); }
    Canvas* canvas() override { return m_views->current() == m_recipe ? static_cast<Canvas*>(m_recipe) : m_board; }

    QString summary() const override
    {
        if (!document().hasAntenna())
            return tr("nothing to trim");
        if (!solver().faults().empty())
            return tr("not possible");
        const study::TrimNext* next = m_desk.next();
        if (!next)
            return tr("not measured yet");
        const QString amount = smallWords(std::abs(next->change), system());
        switch (next->step) {
        case study::TrimStep::Cut: return tr("cut %1 next").arg(amount);
        case study::TrimStep::Fold: return tr("fold %1 next").arg(amount);
        case study::TrimStep::Slide: return tr("set by %1 next").arg(amount);
        case study::TrimStep::Lengthen: return tr("%1 too short").arg(amount);
        case study::TrimStep::Done: return tr("done");
        case study::TrimStep::Check: return tr("look before cutting");
        case study::TrimStep::Measure: break;
        }
        if (next->predicted > 0.0)
            return tr("measure again");
        return tr("not measured yet");
    }

    bool rename() override { return m_board->mendChosen(); }

    QString tableText() const override
    {
        if (m_views->current() == m_recipe)
            return m_recipe->steps().join(QLatin1Char('\n'));
        QString out = tr("when\tcut m\tdip MHz\tSWR\tremark\n");
        if (document().hasAntenna())
            for (const Measurement& m : document().antenna().trim.measurements)
                out += QStringLiteral("%1\t%2\t%3\t%4\t%5\n")
                           .arg(QString::fromStdString(m.when))
                           .arg(m.cutSinceLast, 0, 'f', 3)
                           .arg(m.dip / 1e6, 0, 'f', 4)
                           .arg(m.dipSwr, 0, 'f', 2)
                           .arg(QString::fromStdString(m.remark));
        return out;
    }

    void refresh() override
    {
        refreshConfigurations();
        if (!document().hasAntenna()) {
            m_page->setTitle(tr("Trim"));
            m_page->setSentence(tr("Add an antenna with + at the top; its measurements are kept here."));
            m_remove->setEnabled(false);
            return;
        }
        const Antenna& a = document().antenna();
        const std::size_t count = a.trim.measurements.size();
        m_page->setTitle(count == 0 ? tr("Trim: %1").arg(QString::fromStdString(a.name))
                                    : tr("Trim: %1, measurement %2").arg(QString::fromStdString(a.name)).arg(count));
        m_recipe->update();
        if (m_views->current() == m_recipe) {
            m_page->setTitle(tr("Trim: before you measure %1").arg(QString::fromStdString(a.name)));
            m_page->setSentence(tr("A card for the mast; copy it, or export the picture."));
            return;
        }
        const bool radio = solver().plane() == SolveService::Plane::Radio;
        m_page->setSentence(radio ? tr("At the radio: %1").arg(sentence()) : sentence());
        m_target->setValue(m_board->target(), system());
        m_remove->setEnabled(count > 0);
        m_remove->setText(m_board->chosen().empty() ? tr("Take back the last") : tr("Remove the chosen line"));
        m_cutLabel->setText(tr("Cut since last, %1").arg(m_board->leverWords()));
        for (ValueEdit* edit : {m_dip, m_swr, m_cut, m_height, m_low, m_high, m_lowSwr, m_highSwr})
            edit->hasValue() ? edit->setValue(edit->value(), system()) : edit->clearValueUnlessTyping(system());
        const study::TrimNext* next = m_desk.next();
        m_slope->setText(next && next->slope != 0.0 ? m_board->slopeWords(std::abs(next->slope)) : tr("unknown"));
        m_modelSlope->setText(next && next->modelSlope != 0.0 ? m_board->slopeWords(std::abs(next->modelSlope)) : tr("unknown"));
        m_offset->setText(next && next->predicted > 0.0 ? tr("%1 kHz").arg(next->learned.offset / 1e3, 0, 'f', 0) : tr("unknown"));
        m_board->update();
    }

public slots:
    void takeSweepFile(const QString& path) { openSweep(path); }

private:
    QString sentence() const
    {
        const auto& log = document().antenna().trim.measurements;
        const CurvePointer curve = solver().curve();
        if (log.empty())
            return tr("Cut long, hoist, measure; a dip below the goal means too long, above it too short.");
        const double off = 1e-3 * (m_board->target() - log.back().dip);
        QString words = off > 0.0   ? tr("The dip is %1 kHz below the goal: too long.").arg(off, 0, 'f', 0)
                        : off < 0.0 ? tr("The dip is %1 kHz above the goal: too short.").arg(-off, 0, 'f', 0)
                                    : tr("The dip is on the goal.");
        if (curve && curve->fundamental > 0.0)
            words += tr(" As drawn, the model's dip is at %1.").arg(QString::fromStdString(units::formatFrequency(curve->fundamental)));
        return words;
    }

    /// A measurement is what was read, not what the program would like.
    void startEmpty()
    {
        for (ValueEdit* edit : {m_dip, m_swr, m_cut, m_height, m_low, m_high, m_lowSwr, m_highSwr})
            edit->clearValue(system());
        sayOfPair({});
        m_remark->clear();
        m_sweep.clear();
        m_instrument.clear();
        saySweep({});
        m_folded->setChecked(false);
        m_questioned = 0.0;
    }

    void buildLedger()
    {
        m_ledger->heading(tr("Goal"));
        m_target = m_ledger->value(tr("Dip wanted at"), units::Quantity::Frequency, QStringLiteral("trimTarget"));
        m_target->setRange(lowestFrequency, highestFrequency);
        connect(m_target, &ValueEdit::edited, this,
                [this](double value) { document().editAntenna(tr("change the goal"), {}, [&](Antenna& a) { a.trim.target = value; }); });
        m_ledger->line();
        m_ledger->heading(tr("Measured"));
        connect(m_ledger->button(tr("Open a sweep …"), QStringLiteral("openSweep")), &QPushButton::clicked, this, [this] {
            const QString path =
                QFileDialog::getOpenFileName(m_page, tr("Open a sweep"), {}, tr("Sweeps (*.s1p *.csv *.txt);;All files (*)"));
            if (!path.isEmpty())
                openSweep(path);
        });
        m_sweepNote = m_ledger->note();
        m_sweepNote->setObjectName(QStringLiteral("sweepNote"));
        m_sweepNote->hide();
        m_cut = m_ledger->value(tr("Cut since last"), units::Quantity::SmallLength, QStringLiteral("trimCut"));
        m_cutLabel = m_ledger->labelOf(m_cut);
        m_folded = new QCheckBox(tr("folded back, not cut"), m_ledger);
        m_folded->setObjectName(QStringLiteral("trimFolded"));
        m_ledger->add(m_folded);
        m_dip = m_ledger->value(tr("Dip at"), units::Quantity::Frequency, QStringLiteral("trimDip"));
        m_dip->setRange(lowestFrequency, highestFrequency);
        m_swr = m_ledger->value(tr("SWR there"), units::Quantity::Plain, QStringLiteral("trimSwr"));
        m_swr->setRange(1.0, 100.0);
        m_height = m_ledger->value(tr("Highest wire then"), units::Quantity::Length, QStringLiteral("trimHeight"));
        m_height->setRange(0.1, 500.0);
        m_height->setHelp(tr("where it was measured lower than it will hang; empty: where it is drawn"));
        m_remark = new QLineEdit(m_ledger);
        m_remark->setProperty("wide", true);
        m_remark->setPlaceholderText(tr("weather, height, soil"));
        m_remark->setAccessibleName(tr("Remark"));
        m_remark->setObjectName(QStringLiteral("trimRemark"));
        m_ledger->add(m_remark);
        connect(m_ledger->button(tr("Write it in the log"), QStringLiteral("addMeasurement"), true), &QPushButton::clicked, this,
                &TrimStage::addMeasurement);
        m_remove = m_ledger->button(tr("Take back the last"), QStringLiteral("removeMeasurement"));
        connect(m_remove, &QPushButton::clicked, this, &TrimStage::removeMeasurement);
        m_ledger->line();
        addPair();
        m_ledger->line();
        m_ledger->heading(tr("What the cuts taught"));
        m_modelSlope = m_ledger->figure(tr("Dip rises, by the model"));
        m_slope = m_ledger->figure(tr("With your cuts"));
        m_offset = m_ledger->figure(tr("Real less model"));
        m_ledger->finish();
    }

    void addPair()
    {
        m_ledger->heading(tr("Only an SWR meter? Two channels"));
        m_low = m_ledger->value(tr("Lower"), units::Quantity::Frequency, QStringLiteral("pairLow"));
        m_lowSwr = m_ledger->value(tr("SWR there"), units::Quantity::Plain, QStringLiteral("pairLowSwr"));
        m_high = m_ledger->value(tr("Upper"), units::Quantity::Frequency, QStringLiteral("pairHigh"));
        m_highSwr = m_ledger->value(tr("SWR there"), units::Quantity::Plain, QStringLiteral("pairHighSwr"));
        for (ValueEdit* edit : {m_lowSwr, m_highSwr})
            edit->setRange(1.0, 100.0);
        for (ValueEdit* edit : {m_low, m_high})
            edit->setRange(lowestFrequency, highestFrequency);
        connect(m_ledger->button(tr("Work out the dip"), QStringLiteral("pairToDip")), &QPushButton::clicked, this, &TrimStage::workOutDip);
        m_pairNote = m_ledger->note();
        m_pairNote->setObjectName(QStringLiteral("pairNote"));
        startEmpty();
    }

    /// The chosen line, else the last.
    void removeMeasurement()
    {
        const Id chosen = m_board->chosen();
        document().editAntenna(tr("remove a measurement"), {}, [&](Antenna& a) {
            auto& all = a.trim.measurements;
            if (chosen.empty() && !all.empty())
                all.pop_back();
            else
                std::erase_if(all, [&](const Measurement& m) { return m.id == chosen; });
        });
    }

    /// Takes what is typed in these fields; false where one cannot be taken or is missing.
    static bool take(std::initializer_list<ValueEdit*> needed, std::initializer_list<ValueEdit*> others = {})
    {
        for (ValueEdit* edit : others)
            if (!edit->confirm()) {
                edit->setFocus();
                return false;
            }
        for (ValueEdit* edit : needed)
            if (!edit->confirm() || !edit->hasValue()) {
                edit->setFocus();
                return false;
            }
        return true;
    }

    void saySweep(const QString& words)
    {
        m_sweepNote->setText(words);
        m_sweepNote->setVisible(!words.isEmpty());
    }

    /// Its dip goes into the fields; it is written down with what was cut and how high it hung.
    void openSweep(const QString& path)
    {
        const auto sweep = files::readMeasured(path.toStdString());
        if (!sweep) {
            saySweep(tr("Not taken: %1").arg(QString::fromStdString(sweep.firstFault())));
            return;
        }
        Measurement read;
        takeSweep(*sweep, read);
        m_sweep = read.sweep;
        m_instrument = QFileInfo(path).fileName();
        m_dip->setValue(read.dip, system());
        m_swr->setValue(read.dipSwr, system());
        saySweep(tr("%1: %2 points, lowest at %3. Add what was cut, and write it in the log.")
                     .arg(m_instrument)
                     .arg(read.sweep.size())
                     .arg(frequencyWords(read.dip)));
    }

    void addMeasurement()
    {
        if (!document().hasAntenna() || !take({m_dip}, {m_cut, m_swr, m_height})) {
            if (!m_dip->hasValue() && m_dip->complaint().isEmpty())
                m_dip->ask(tr("Type where the dip was measured."));
            return;
        }
        Measurement m;
        m.when = QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm")).toStdString();
        m.remark = m_remark->text().toStdString();
        m.cutSinceLast = m_cut->hasValue() ? m_cut->value() : 0.0;
        m.folded = m_folded->isChecked();
        m.dip = m_dip->value();
        m.dipSwr = m_swr->hasValue() ? m_swr->value() : 0.0;
        if (m_height->hasValue())
            m.height = m_height->value();
        m.sweep = m_sweep;
        m.instrument = m_instrument.toStdString();
        if (document().family().configurations(document().antenna().shape).size() > 1)
            m.configuration = document().configuration();
        if (const study::TrimTask* task = m_desk.shownTask(); task && m.cutSinceLast != 0.0)
            m.parameter = task->lever.parameter;
        if (const Faults faults = findMeasurementFaults(m); !faults.empty()) {
            m_page->setSentence(coreWords(faults.front().message, system()));
            return;
        }
        if (questioned(m))
            return;
        document().editAntenna(tr("log a measurement"), {}, [&](Antenna& a) { a.trim.measurements.push_back(m); });
        startEmpty();
    }

    /// A dip far from the model is asked about once before it counts.
    bool questioned(const Measurement& m)
    {
        const CurvePointer curve = solver().curve();
        const std::optional<double> expected =
            unlikelyDip(document().antenna().trim, m, curve ? curve->fundamental : 0.0, m_desk.next() ? -m_desk.next()->modelSlope : 0.0);
        if (!expected || m_questioned == m.dip)
            return false;
        m_questioned = m.dip;
        m_dip->ask(tr("%1? The model expects %2. If it was read so, press again.").arg(frequencyWords(m.dip), frequencyWords(*expected)));
        return true;
    }

    void sayOfPair(const QString& words)
    {
        m_pairNote->setText(words);
        m_pairNote->setVisible(!words.isEmpty());
    }

    void workOutDip()
    {
        const CurvePointer curve = solver().curve();
        if (!take({m_low, m_lowSwr, m_high, m_highSwr}) || !curve) {
            sayOfPair(curve ? tr("Give both channels with their SWR.") : tr("The model is not there yet."));
            return;
        }
        const SwrPair pair{m_low->value(), m_lowSwr->value(), m_high->value(), m_highSwr->value()};
        const auto model = [&](double f) { return curve->atLine(f); };
        const Result<double> dip = dipFromPair(pair, model, curve->fundamental);
        if (!dip) {
            sayOfPair(coreWords(dip.faults().front().message, system()));
            return;
        }
        m_dip->setValue(*dip, system());
        sayOfPair(
            tr("The dip is near %1: %2. It is filled in above; write it in the log.")
                .arg(QString::fromStdString(units::formatFrequency(*dip)), *dip < m_board->target() ? tr("too long") : tr("too short")));
    }

    TrimDesk m_desk;
    TrimBoard* m_board;
    RecipeBoard* m_recipe;
    ViewButtons* m_views = nullptr;
    std::vector<std::pair<double, double>> m_sweep; ///< opened, and not yet written down
    QString m_instrument;
    double m_questioned = 0.0; ///< Hz: the dip that was asked about last
    ValueEdit *m_target = nullptr, *m_cut = nullptr, *m_dip = nullptr, *m_height = nullptr, *m_swr = nullptr, *m_low = nullptr,
              *m_lowSwr = nullptr, *m_high = nullptr, *m_highSwr = nullptr;
    QCheckBox* m_folded = nullptr;
    QLineEdit* m_remark = nullptr;
    QPushButton* m_remove = nullptr;
    QLabel *m_cutLabel = nullptr, *m_slope = nullptr, *m_offset = nullptr, *m_modelSlope = nullptr, *m_pairNote = nullptr,
           *m_sweepNote = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeTrimStage(ViewContext& context, QObject* parent) { return std::make_unique<TrimStage>(context, parent); }

} // namespace vetchling::app

#include "trim_stage.moc"

/// Trim: measured dips in, the next cut out, everything written down.
#include "app/stages/stage.h"
#include "app/stages/trim/trim_board.h"
#include "app/view/words.h"
#include "app/widgets/value_edit.h"

#include <QCheckBox>
#include <QDateTime>
#include <QLineEdit>

#include <cmath>

namespace vetchling::app {
namespace {

class TrimStage final : public Stage {
    Q_OBJECT
public:
    TrimStage(ViewContext& context, QObject* parent) : Stage(context, parent), m_board(new TrimBoard(context))
    {
        m_page->body()->addWidget(m_board, 1);
        buildLedger();
        connect(&document(), &Document::currentChanged, this, [this] { proposeDip(); });
    }

    QString id() const override { return QStringLiteral("trim"); }
    QString name() const override { return tr("Trim"); }
    Canvas* canvas() override { return m_board; }

    QString summary() const override
    {
        if (!document().hasAntenna())
            return tr("nothing to trim");
        const TrimAdvice a = m_board->advice();
        const QString amount = QString::fromStdString(units::formatSmall(a.amount, system()));
        switch (a.action) {
        case TrimAction::Cut: return tr("cut %1 next").arg(amount);
        case TrimAction::Lengthen: return tr("%1 too short").arg(amount);
        case TrimAction::Done: return tr("done");
        case TrimAction::Measure: break;
        }
        return tr("not measured yet");
    }

    QString tableText() const override
    {
        QString out = tr("when\tcut each end m\tdip MHz\tSWR\tremark\n");
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
        if (!document().hasAntenna()) {
            m_page->setTitle(tr("Trim"));
            m_page->setSentence(tr("Add an antenna first."));
            return;
        }
        const Antenna& a = document().antenna();
        const std::size_t count = a.trim.measurements.size();
        m_page->setTitle(count == 0 ? tr("Trim: %1").arg(QString::fromStdString(a.name))
                                    : tr("Trim: %1, measurement %2").arg(QString::fromStdString(a.name)).arg(count));
        m_page->setSentence(sentence());
        m_target->setValue(m_board->target(), system());
        m_remove->setEnabled(count > 0);
        if (!m_proposed)
            proposeDip();
        const TrimAdvice advice = m_board->advice();
        m_slope->setText(advice.slope > 0.0 ? tr("%1 kHz a cm").arg(advice.slope / 1e5, 0, 'f', 1) : tr("unknown"));
        m_modelSlope->setText(advice.modelSlope > 0.0 ? tr("%1 kHz a cm").arg(advice.modelSlope / 1e5, 0, 'f', 1) : tr("unknown"));
        m_board->update();
    }

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

    void proposeDip()
    {
        if (!document().hasAntenna())
            return;
        m_proposed = true;
        const auto& log = document().antenna().trim.measurements;
        const double f = log.empty() ? m_board->target() : log.back().dip;
        m_dip->setValue(f, system());
        m_low->setValue(f * 0.99, system());
        m_high->setValue(f * 1.01, system());
        m_cut->setValue(0.0, system());
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
        m_cut = m_ledger->value(tr("Cut since last, each end"), units::Quantity::SmallLength, QStringLiteral("trimCut"));
        m_folded = new QCheckBox(tr("folded back, not cut"), m_ledger);
        m_folded->setObjectName(QStringLiteral("trimFolded"));
        m_ledger->add(m_folded);
        m_dip = m_ledger->value(tr("Dip at"), units::Quantity::Frequency, QStringLiteral("trimDip"));
        m_dip->setRange(lowestFrequency, highestFrequency);
        m_swr = m_ledger->value(tr("SWR there"), units::Quantity::Plain, QStringLiteral("trimSwr"));
        m_swr->setRange(1.0, 100.0);
        m_swr->setValue(1.5, system());
        m_remark = new QLineEdit(m_ledger);
        m_remark->setProperty("wide", true);
        m_remark->setPlaceholderText(tr("weather, height, soil"));
        m_remark->setAccessibleName(tr("Remark"));
        m_remark->setObjectName(QStringLiteral("trimRemark"));
        m_ledger->add(m_remark);
        connect(m_ledger->button(tr("Write it in the log"), QStringLiteral("addMeasurement"), true), &QPushButton::clicked, this,
                &TrimStage::addMeasurement);
        m_remove = m_ledger->button(tr("Take back the last"), QStringLiteral("removeMeasurement"));
        connect(m_remove, &QPushButton::clicked, this, [this] {
            document().editAntenna(tr("take back a measurement"), {}, [](Antenna& a) {
                if (!a.trim.measurements.empty())
                    a.trim.measurements.pop_back();
            });
        });
        m_ledger->line();
        addPair();
        m_ledger->line();
        m_ledger->heading(tr("What the cuts taught"));
        m_modelSlope = m_ledger->figure(tr("Dip rises, by the model"));
        m_slope = m_ledger->figure(tr("With your cuts"));
        m_ledger->finish();
    }

    void addPair()
    {
        m_ledger->heading(tr("Only an SWR meter? Two channels"));
        m_low = m_ledger->value(tr("Lower"), units::Quantity::Frequency, QStringLiteral("pairLow"));
        m_lowSwr = m_ledger->value(tr("SWR there"), units::Quantity::Plain, QStringLiteral("pairLowSwr"));
        m_high = m_ledger->value(tr("Upper"), units::Quantity::Frequency, QStringLiteral("pairHigh"));
        m_highSwr = m_ledger->value(tr("SWR there"), units::Quantity::Plain, QStringLiteral("pairHighSwr"));
        for (ValueEdit* edit : {m_lowSwr, m_highSwr}) {
            edit->setRange(1.0, 100.0);
            edit->setValue(2.0, system());
        }
        for (ValueEdit* edit : {m_low, m_high})
            edit->setRange(lowestFrequency, highestFrequency);
        connect(m_ledger->button(tr("Work out the dip"), QStringLiteral("pairToDip")), &QPushButton::clicked, this, &TrimStage::workOutDip);
        m_pairNote = m_ledger->note();
        m_pairNote->setObjectName(QStringLiteral("pairNote"));
    }

    void addMeasurement()
    {
        Measurement m;
        m.when = QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm")).toStdString();
        m.remark = m_remark->text().toStdString();
        m.cutSinceLast = m_cut->value();
        m.folded = m_folded->isChecked();
        m.dip = m_dip->value();
        m.dipSwr = m_swr->value();
        if (const Faults faults = findMeasurementFaults(m); !faults.empty()) {
            m_page->setSentence(coreWords(faults.front().message, system()));
            return;
        }
        document().editAntenna(tr("log a measurement"), {}, [&](Antenna& a) { a.trim.measurements.push_back(m); });
        m_remark->clear();
        m_folded->setChecked(false);
        m_cut->setValue(0.0, system());
    }

    void workOutDip()
    {
        const CurvePointer curve = solver().curve();
        if (!curve)
            return;
        const SwrPair pair{m_low->value(), m_lowSwr->value(), m_high->value(), m_highSwr->value()};
        const auto model = [&](double f) { return curve->atLine(f); };
        const Result<double> dip = dipFromPair(pair, model, curve->fundamental);
        if (!dip) {
            m_pairNote->setText(coreWords(dip.faults().front().message, system()));
            return;
        }
        m_dip->setValue(*dip, system());
        m_pairNote->setText(
            tr("The dip is near %1: %2. It is filled in above; write it in the log.")
                .arg(QString::fromStdString(units::formatFrequency(*dip)), *dip < m_board->target() ? tr("too long") : tr("too short")));
    }

    TrimBoard* m_board;
    bool m_proposed = false;
    ValueEdit *m_target = nullptr, *m_cut = nullptr, *m_dip = nullptr, *m_swr = nullptr, *m_low = nullptr, *m_lowSwr = nullptr,
              *m_high = nullptr, *m_highSwr = nullptr;
    QCheckBox* m_folded = nullptr;
    QLineEdit* m_remark = nullptr;
    QPushButton* m_remove = nullptr;
    QLabel *m_slope = nullptr, *m_modelSlope = nullptr, *m_pairNote = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeTrimStage(ViewContext& context, QObject* parent) { return std::make_unique<TrimStage>(context, parent); }

} // namespace vetchling::app

#include "trim_stage.moc"

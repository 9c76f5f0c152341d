/// Build: what to cut, with allowances, as a sheet to print and a list to take along.
#include "app/stages/build/build_sheet.h"
#include "app/stages/build/coil_board.h"
#include "app/stages/stage.h"
#include "app/stages/view_buttons.h"
#include "app/view/ask_for_file.h"
#include "app/view/sketch.h"
#include "app/view/words.h"
#include "app/widgets/typed.h"
#include "app/widgets/value_edit.h"
#include "core/files/writer.h"

#include <QDate>
#include <QPrintDialog>
#include <QPrinter>
#include <QScrollArea>

#include <cmath>

namespace vetchling::app {
namespace {

class BuildStage final : public Stage {
    Q_OBJECT
public:
    BuildStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_coils(context.document, context.solver), m_sheet(new BuildSheet(context)),
          m_board(new CoilBoard(context, m_coils))
    {
        m_sheet->setMinimumHeight(500);
        auto* scroll = new QScrollArea;
        scroll->setWidgetResizable(true);
        scroll->setWidget(m_sheet);
        m_views = new ViewButtons(*m_page, QStringLiteral("buildViews"), this);
        m_views->add(tr("Cut"), QStringLiteral("buildCut"), scroll);
        m_views->add(tr("Coil"), QStringLiteral("buildCoil"), m_board);
        connect(m_views, &ViewButtons::chosen, this, &BuildStage::refresh);
        connect(&m_coils, &CoilDesk::ready, this, &BuildStage::refresh);
        connect(&m_context.variants, &VariantsDesk::spreadReady, this, [this] { refreshSure(); });
        rebuildLedgerWhenOther();
    }

    QString id() const override { return QStringLiteral("build"); }
    QString name() const override { return tr("Build"); }
    Canvas* canvas() override { return coilShown() ? static_cast<Canvas*>(m_board) : m_sheet; }

    QString summary() const override
    {
        return document().hasAntenna()
                   ? tr("%1 of wire").arg(QString::fromStdString(units::formatLength(totalWire(m_sheet->rows()), system(), 1)))
                   : tr("nothing to cut");
    }

    QString tableText() const override
    {
        if (coilShown()) {
            QString table;
            for (const QStringList& line : m_board->cells())
                table += line.join(QLatin1Char('\t')) + QLatin1Char('\n');
            return table;
        }
        return QString::fromStdString(cutListCsv(m_sheet->rows())).replace(QLatin1Char(','), QLatin1Char('\t'));
    }

    void refresh() override
    {
        rebuildLedgerWhenOther();
        if (coilShown()) {
            refreshCoil();
            return;
        }
        if (!document().hasAntenna()) {
            m_sure->setVisible(false);
            m_page->setTitle(tr("Build"));
            m_page->setSentence(tr("Add an antenna with + at the top; then this says what to cut."));
            m_total->setText({});
            return;
        }
        const Antenna& a = document().antenna();
        m_page->setTitle(tr("Build: %1").arg(QString::fromStdString(a.name)));
        m_page->setSentence(sentence());
        m_centre->setValue(a.allowances.centre, system());
        m_fold->setValue(a.allowances.fold, system());
        m_coil->setValue(a.allowances.coilTail, system());
        m_joint->setValue(a.allowances.jointTail, system());
        m_margin->setValue(a.allowances.marginPercent, system());
        refreshSure();
        m_total->setText(QString::fromStdString(units::formatLength(totalWire(m_sheet->rows()), system())));
    }

private:
    [[nodiscard]] bool coilShown() const { return m_views->current() == m_board; }

    /// The cut list's ledger stays; that of the coil follows the antenna.
    void rebuildLedgerWhenOther()
    {
        QString key = coilShown() && document().hasAntenna() ? QStringLiteral("coil") : QStringLiteral("cut");
        if (key == QLatin1String("coil"))
            for (const std::string& coil : m_coils.coils())
                key += QString::fromStdString("|" + document().current() + coil);
        if (key == m_layout)
            return;
        m_layout = key;
        m_ledger->clear();
        delete m_panel;
        m_panel = nullptr;
        if (!key.startsWith(QLatin1String("coil"))) {
            buildLedger();
        } else if (m_coils.coils().empty()) {
            m_ledger->note(tr("This antenna has no coil to be wound."));
            m_ledger->finish();
        } else {
            m_panel = new CoilPanel(m_context, m_coils, *m_ledger, this);
            m_ledger->finish();
        }
    }

    void refreshCoil()
    {
        m_coils.want();
        m_page->setTitle(document().hasAntenna() ? tr("Build: the coils of %1").arg(document().shownName()) : tr("Build"));
        m_page->setSentence(document().hasAntenna() ? m_board->sentence()
                                                    : tr("Add an antenna with + at the top; then this says what to wind."));
        if (m_panel)
            m_panel->refresh();
        m_board->update();
    }

    /// What nobody knows exactly, as percent of the length that 95 of 100 antennas then have to be shortened by; 0: unknown.
    [[nodiscard]] double marginFromSpread() const
    {
        const auto spread = m_context.variants.freshSpread();
        const study::BandSpread* band =
            spread ? spread->band(bandFor(document().design(), document().antenna().shape.designFrequency)) : nullptr;
        return band ? std::ceil(10.0 * study::cutMargin(*band)) / 10.0 : 0.0;
    }

    void refreshSure()
    {
        if (!document().hasAntenna() || coilShown())
            return;
        const double margin = marginFromSpread();
        m_sure->setVisible(margin > 0.0);
        m_sure->setText(tr("What is unsure wants %1 %").arg(margin, 0, 'f', 1));
        m_sure->setToolTip(tr("So much longer, 95 of 100 antennas have to be shortened and not lengthened: take this margin"));
    }

    QString sentence() const
    {
        const auto rows = m_sheet->rows();
        int pieces = 0;
        for (const CutRow& r : rows)
            pieces += r.pieces;
        return tr("%1 of wire in %2 pieces; what is trimmed is cut %3 % long. Equal pieces equal within %4.")
            .arg(QString::fromStdString(units::formatLength(totalWire(rows), system(), 1)))
            .arg(pieces)
            .arg(document().antenna().allowances.marginPercent)
            .arg(system() == units::System::Metric ? tr("1 cm") : tr("1/2 in"));
    }

    ValueEdit* allowance(const QString& label, const char* object, units::Quantity quantity, double Allowances::*member, double highest)
    {
        ValueEdit* edit = m_ledger->value(label, quantity, QLatin1String(object));
        edit->setRange(0.0, highest);
        connect(edit, &ValueEdit::edited, this, [this, member, object](double value, const QString&, bool dragging) {
            document().editAntenna(tr("change an allowance"), dragging ? QLatin1String(object) : QString(),
                                   [&](Antenna& a) { a.allowances.*member = value; });
        });
        return edit;
    }

    void buildLedger()
    {
        m_ledger->heading(tr("Allowances"));
        m_centre = allowance(tr("Round the centre piece"), "allowCentre", units::Quantity::SmallLength, &Allowances::centre, 2.0);
        m_fold = allowance(tr("Fold-back at an end"), "allowFold", units::Quantity::SmallLength, &Allowances::fold, 5.0);
        m_coil = allowance(tr("Into a coil"), "allowCoil", units::Quantity::SmallLength, &Allowances::coilTail, 2.0);
        m_joint = allowance(tr("Soldered joint"), "allowJoint", units::Quantity::SmallLength, &Allowances::jointTail, 2.0);
        m_margin = allowance(tr("Cut long by"), "allowMargin", units::Quantity::Percent, &Allowances::marginPercent, 30.0);
        m_sure = m_ledger->button({}, QStringLiteral("marginFromSpread"));
        connect(m_sure, &QPushButton::clicked, this, [this] {
            if (const double margin = marginFromSpread(); margin > 0.0)
                document().editAntenna(tr("change an allowance"), {}, [&](Antenna& a) { a.allowances.marginPercent = margin; });
        });
        m_ledger->note(tr("Wire is easily removed and badly added: the margin is what trimming takes off."));
        m_ledger->line();
        m_total = m_ledger->figure(tr("Wire to buy"));
        m_ledger->line();
        connect(m_ledger->button(tr("Print build sheet"), QStringLiteral("printSheet"), true), &QPushButton::clicked, this,
                &BuildStage::print);
        connect(m_ledger->button(tr("Save as PDF"), QStringLiteral("savePdf")), &QPushButton::clicked, this, [this] {
            if (const QString path = ask(tr("Save the build sheet"), tr("PDF (*.pdf)")); !path.isEmpty())
                report(writeBuildPdf(*m_sheet, head(), path), path);
        });
        connect(m_ledger->button(tr("Save as CSV"), QStringLiteral("saveCsv")), &QPushButton::clicked, this, [this] {
            if (const QString path = ask(tr("Save the cut list"), tr("CSV (*.csv)")); !path.isEmpty()) {
                const bool good = files::writeWhole(path.toStdString(), cutListCsv(m_sheet->rows())).empty();
                report(good, path);
            }
        });
        m_said = m_ledger->note();
        m_ledger->finish();
    }

    /// Takes what is typed first; empty if something cannot be taken, or the user would rather not.
    QString ask(const QString& title, const QString& filter)
    {
        if (!ready())
            return {};
        return askForFile(m_page, title, fileName(QString::fromStdString(document().antenna().name)), filter);
    }

    bool ready()
    {
        const QString complaint = takeTyped(m_page->window());
        m_said->setText(!complaint.isEmpty() ? complaint : m_sheet->rows().empty() ? tr("There is nothing to cut yet.") : QString());
        return m_said->text().isEmpty();
    }

    /// What someone in the garden has to know beside the cut list.
    SheetHead head() const
    {
        const Antenna& a = document().antenna();
        const AntennaModel* model = m_context.models.current();
        QStringList facts;
        facts << tr("Site: %1. Date: %2. Design frequency: %3.")
                     .arg(QString::fromStdString(document().design().site.name), QDate::currentDate().toString(Qt::ISODate),
                          frequencyWords(a.shape.designFrequency));
        const auto known = std::find_if(m_context.conductors.begin(), m_context.conductors.end(),
                                        [&](const files::Conductor& c) { return c.id == a.shape.wire.conductor; });
        QString wire = tr("Wire: %1, %2 thick")
                           .arg(known == m_context.conductors.end() ? QString::fromStdString(a.shape.wire.conductor)
                                                                    : QString::fromStdString(known->name),
                                valueWords(a.shape.wire.diameter, units::Quantity::WireSize, system()));
        wire += a.shape.wire.jacket > 0.0 ? tr(", jacket of %1.").arg(valueWords(a.shape.wire.jacket, units::Quantity::WireSize, system()))
                                          : tr(", bare.");
        facts << wire;
        QStringList heights, coils;
        if (model && model->built)
            for (const shapes::Handle& h : model->built->handles)
                heights << tr("%1 %2").arg(coreWords(h.name), lengthWords(h.at.z, system()));
        for (const shapes::ParameterSpec& spec : document().family().specs(a.shape))
            if (spec.quantity == units::Quantity::Inductance && spec.group == shapes::coilsGroup)
                coils << tr("%1 %2").arg(coreWords(spec.label),
                                         valueWords(document().family().value(a.shape, spec.key), spec.quantity, system()));
        facts << tr("Heights above ground: %1.").arg(heights.join(QStringLiteral(", ")));
        if (!coils.isEmpty())
            facts << tr("Coils: %1.").arg(coils.join(QStringLiteral(", ")));
        if (!a.notes.empty())
            facts << QString::fromStdString(a.notes);
        return {tr("Build: %1").arg(QString::fromStdString(a.name)), sentence(), facts};
    }

    void report(bool good, const QString& path)
    {
        m_said->setText(good ? tr("Written to %1.").arg(path)
                             : tr("%1 could not be written; check the folder and its permissions.").arg(path));
    }

    void print()
    {
        if (!ready())
            return;
        QPrinter printer;
        QPrintDialog dialog(&printer, m_page);
        if (dialog.exec() != QDialog::Accepted)
            return;
        QPainter painter(&printer);
        paintSheet(painter, *m_sheet, head());
    }

    CoilDesk m_coils;
    BuildSheet* m_sheet;
    CoilBoard* m_board;
    ViewButtons* m_views = nullptr;
    CoilPanel* m_panel = nullptr;
    QString m_layout;
    ValueEdit *m_centre = nullptr, *m_fold = nullptr, *m_coil = nullptr, *m_joint = nullptr, *m_margin = nullptr;
    QLabel *m_total = nullptr, *m_said = nullptr;
    QPushButton* m_sure = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeBuildStage(ViewContext& context, QObject* parent) { return std::make_unique<BuildStage>(context, parent); }

} // namespace vetchling::app

#include "build_stage.moc"

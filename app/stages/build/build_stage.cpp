/// Build: what to cut, with allowances, as a sheet to print and a list to take along.
#include "app/stages/build/build_sheet.h"
#include "app/stages/stage.h"
#include "app/view/sketch.h"
#include "app/widgets/value_edit.h"
#include "core/files/writer.h"

#include <QFileDialog>
#include <QPrintDialog>
#include <QPrinter>
#include <QScrollArea>

namespace vetchling::app {
namespace {

class BuildStage final : public Stage {
    Q_OBJECT
public:
    BuildStage(ViewContext& context, QObject* parent) : Stage(context, parent), m_sheet(new BuildSheet(context))
    {
        m_sheet->setMinimumHeight(500);
        auto* scroll = new QScrollArea;
        scroll->setWidgetResizable(true);
        scroll->setWidget(m_sheet);
        m_page->body()->addWidget(scroll, 1);
        buildLedger();
    }

    QString id() const override { return QStringLiteral("build"); }
    QString name() const override { return tr("Build"); }
    Canvas* canvas() override { return m_sheet; }

    QString summary() const override
    {
        return document().hasAntenna()
                   ? tr("%1 of wire").arg(QString::fromStdString(units::formatLength(totalWire(m_sheet->rows()), system(), 1)))
                   : tr("nothing to cut");
    }

    QString tableText() const override
    {
        return QString::fromStdString(cutListCsv(m_sheet->rows())).replace(QLatin1Char(','), QLatin1Char('\t'));
    }

    void refresh() override
    {
        if (!document().hasAntenna()) {
            m_page->setTitle(tr("Build"));
            m_page->setSentence(tr("Add an antenna first."));
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
        m_total->setText(QString::fromStdString(units::formatLength(totalWire(m_sheet->rows()), system())));
    }

private:
    QString sentence() const
    {
        const auto rows = m_sheet->rows();
        int pieces = 0;
        for (const CutRow& r : rows)
            pieces += r.pieces;
        return tr("%1 of wire in %2 pieces, cut %3 % long for trimming. Equal pieces equal within 1 cm.")
            .arg(QString::fromStdString(units::formatLength(totalWire(rows), system(), 1)))
            .arg(pieces)
            .arg(document().antenna().allowances.marginPercent);
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
        m_ledger->note(tr("Wire is easily removed and badly added: the margin is what trimming takes off."));
        m_ledger->line();
        m_total = m_ledger->figure(tr("Wire to buy"));
        m_ledger->line();
        connect(m_ledger->button(tr("Print build sheet"), QStringLiteral("printSheet"), true), &QPushButton::clicked, this,
                &BuildStage::print);
        connect(m_ledger->button(tr("Save as PDF"), QStringLiteral("savePdf")), &QPushButton::clicked, this, [this] {
            if (const QString path = ask(tr("PDF (*.pdf)"), QStringLiteral("pdf")); !path.isEmpty())
                report(writeBuildPdf(*m_sheet, tr("Build: %1").arg(QString::fromStdString(document().antenna().name)), sentence(), path),
                       path);
        });
        connect(m_ledger->button(tr("Save as CSV"), QStringLiteral("saveCsv")), &QPushButton::clicked, this, [this] {
            if (const QString path = ask(tr("CSV (*.csv)"), QStringLiteral("csv")); !path.isEmpty()) {
                const bool good = files::writeWhole(path.toStdString(), cutListCsv(m_sheet->rows())).empty();
                report(good, path);
            }
        });
        m_said = m_ledger->note();
        m_ledger->finish();
    }

    QString ask(const QString& filter, const QString& suffix)
    {
        if (!document().hasAntenna())
            return {};
        const QString name = QString::fromStdString(document().antenna().name).toLower().replace(QLatin1Char(' '), QLatin1Char('-'));
        return QFileDialog::getSaveFileName(m_page, tr("Save the cut list"), name + QLatin1Char('.') + suffix, filter);
    }

    void report(bool good, const QString& path)
    {
        m_said->setText(good ? tr("Written to %1.").arg(path)
                             : tr("%1 could not be written; check the folder and its permissions.").arg(path));
    }

    void print()
    {
        QPrinter printer;
        QPrintDialog dialog(&printer, m_page);
        if (!document().hasAntenna() || dialog.exec() != QDialog::Accepted)
            return;
        QPainter painter(&printer);
        Theme paperTheme;
        const double scale = painter.viewport().width() / 720.0;
        painter.scale(scale, scale);
        Sketch sketch(painter, paperTheme);
        m_sheet->render(sketch, {720.0, painter.viewport().height() / scale});
    }

    BuildSheet* m_sheet;
    ValueEdit *m_centre = nullptr, *m_fold = nullptr, *m_coil = nullptr, *m_joint = nullptr, *m_margin = nullptr;
    QLabel *m_total = nullptr, *m_said = nullptr;
};

} // namespace

std::unique_ptr<Stage> makeBuildStage(ViewContext& context, QObject* parent) { return std::make_unique<BuildStage>(context, parent); }

} // namespace vetchling::app

#include "build_stage.moc"

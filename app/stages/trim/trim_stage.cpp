/// Trim: measured dips in, the next cut out, everything written down.
#include "app/document/aside.h"
#include "app/document/pictures.h"
#include "app/document/watched_folder.h"
#include "app/stages/stage.h"
#include "app/stages/trim/calibration_dialog.h"
#include "app/stages/trim/columns_dialog.h"
#include "app/stages/trim/log_panel.h"
#include "app/stages/trim/measure_panel.h"
#include "app/stages/trim/recipe_board.h"
#include "app/stages/trim/trim_board.h"
#include "app/stages/trim/yard_panel.h"
#include "app/stages/view_buttons.h"
#include "app/view/ask_for_file.h"
#include "app/view/words.h"
#include "core/bands/wanted.h"
#include "core/files/json_reader.h"
#include "core/files/writer.h"
#include "core/trim/trim.h"

#include <QDesktopServices>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QInputDialog>
#include <QUrl>

#include <cmath>

namespace vetchling::app {
namespace {

class TrimStage final : public Stage {
    Q_OBJECT
public:
    TrimStage(ViewContext& context, QObject* parent)
        : Stage(context, parent), m_desk(context.document, context.models, context.solver), m_analyser(this),
          m_board(new TrimBoard(context, m_desk)), m_recipe(new RecipeBoard(context, m_desk)), m_logDesk(context.document),
          m_log(new LogBoard(context, m_logDesk)), m_yardDesk(context.solver), m_yard(new YardBoard(context, m_yardDesk))
    {
        context.add(m_desk.waitings());
        addConfigurations(m_page->below());
        m_views = new ViewButtons(*m_page, QStringLiteral("trimViews"), this);
        m_views->add(tr("Next"), QStringLiteral("trimNext"), m_board);
        m_views->add(tr("Recipe"), QStringLiteral("trimRecipe"), m_recipe);
        m_views->add(tr("Log"), QStringLiteral("trimLog"), m_log);
        m_views->add(tr("Practice yard"), QStringLiteral("trimYard"), m_yard);
        connect(m_views, &ViewButtons::chosen, this, &TrimStage::refresh);
        buildLedgers();
        connectPanel();
        m_panel->startEmpty();
        connect(&document(), &Document::currentChanged, this, [this] {
            m_panel->startEmpty();
            if (m_analyser.standIn()) // a real one stays on its port, with its calibration
                m_analyser.stop();
            m_meter.stop();
            m_board->setPending({});
        });
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
    Canvas* canvas() override { return static_cast<Canvas*>(m_views->current()); }

    QString summary() const override
    {
        if (!document().hasAntenna())
            return tr("nothing to trim");
        if (!solver().faults().empty())
            return tr("not possible");
        const TrimNext* next = m_desk.next();
        if (!next)
            return tr("not measured yet");
        const QString amount = smallWords(std::abs(next->change), system());
        switch (next->step) {
        case TrimStep::Cut: return tr("cut %1 next").arg(amount);
        case TrimStep::Fold: return tr("fold %1 next").arg(amount);
        case TrimStep::Slide: return tr("set by %1 next").arg(amount);
        case TrimStep::Lengthen: return tr("%1 too short").arg(amount);
        case TrimStep::Done: return tr("done");
        case TrimStep::Check: return tr("look before cutting");
        case TrimStep::Measure: break;
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
        if (m_views->current() == m_yard)
            return m_yard->notes().join(QLatin1Char('\n'));
        if (m_views->current() == m_log)
            return QString::fromStdString(m_logDesk.csv()).replace(QLatin1Char(','), QLatin1Char('\t'));
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
        refreshConfigurations(m_views->current() != m_yard);
        showLedger();
        if (m_views->current() == m_yard) {
            m_page->setTitle(tr("Practice yard"));
            m_page->setSentence(tr("A made-up antenna with hidden faults. Find them before the wire runs out."));
            if (!m_yardDesk.yard() && !m_yardDesk.busy() && m_yardDesk.faults().empty())
                m_yardDesk.open(m_yardDesk.nextLevel());
            m_yard->refresh();
            m_yardPanel->refresh();
            return;
        }
        m_logPanel->refresh();
        if (!document().hasAntenna()) {
            m_page->setTitle(tr("Trim"));
            m_page->setSentence(tr("Add an antenna with + at the top; its measurements are kept here. The practice yard needs none."));
            m_log->refresh();
            m_panel->refresh(0.0, {}, false, false);
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
        if (m_views->current() == m_log) {
            m_page->setTitle(tr("Trim: the log of %1").arg(QString::fromStdString(a.name)));
            m_log->refresh();
            m_page->setSentence(m_log->sentence());
            return;
        }
        const bool radio = solver().plane() == SolveService::Plane::Radio;
        m_page->setSentence(radio ? tr("At the radio: %1").arg(sentence()) : sentence());
        m_panel->refresh(m_board->target(), m_board->leverWords(), count > 0, !m_board->chosen().empty());
        m_board->update();
    }

public slots:
    void takeSweepFile(const QString& path) { openSweep(path); }
    void watch(const QString& folder) { watchFolder(folder); }

private:
    QString sentence() const
    {
        const auto& log = document().antenna().trim.measurements;
        if (log.empty())
            return tr("Cut long, hoist, measure; a dip below the goal means too long, above it too short.");
        const Measurement& last = log.back();
        const double off = 1e-3 * (m_board->target() - last.dip);
        QString words = off > 0.0   ? tr("%1 kHz below the goal: too long.").arg(off, 0, 'f', 0)
                        : off < 0.0 ? tr("%1 kHz above the goal: too short.").arg(-off, 0, 'f', 0)
                                    : tr("On the goal.");
        const QString height = last.height ? heightWords(*last.height, system()) : QString(),
                      soil = coreWords(soilStateWords[std::size_t(last.soil)]);
        if (!height.isEmpty())
            words += soil.isEmpty() ? tr(" Measured at %1.").arg(height) : tr(" Measured at %1, %2.").arg(height, soil);
        else if (!soil.isEmpty())
            words += tr(" Measured on %1 soil.").arg(soil);
        return words;
    }

    /// One for each view; recipe and next share theirs, and what is typed in one stays while another is looked at.
    Ledger* newLedger()
    {
        auto* ledger = new Ledger(m_ledger);
        ledger->layout()->setContentsMargins(0, 0, 0, 0);
        ledger->setBandCentre([this](const std::string& name) { return centreOf(document().design().operation.bands, name); });
        m_ledger->add(ledger);
        return ledger;
    }

    void buildLedgers()
    {
        m_measuring = newLedger();
        m_logging = newLedger();
        m_practising = newLedger();
        m_panel = new MeasurePanel(m_context, m_desk, m_analyser, m_meter, *m_measuring, this);
        m_logPanel = new LogPanel(m_context, m_logDesk, *m_log, *m_logging, this);
        m_yardPanel = new YardPanel(m_context, m_yardDesk, *m_yard, *m_practising, this);
        m_ledger->finish();
        showLedger();
    }

    void showLedger()
    {
        QWidget* view = m_views->current();
        m_measuring->setVisible(view == m_board || view == m_recipe);
        m_logging->setVisible(view == m_log);
        m_practising->setVisible(view == m_yard);
    }

    void connectPanel()
    {
        connect(m_panel, &MeasurePanel::targetTyped, this,
                [this](double value) { document().editAntenna(tr("change the goal"), {}, [&](Antenna& a) { a.trim.target = value; }); });
        connect(m_panel, &MeasurePanel::openAsked, this, [this] {
            const QString path =
                QFileDialog::getOpenFileName(m_page, tr("Open a sweep"), {}, tr("Sweeps (*.s1p *.csv *.txt);;All files (*)"));
            if (!path.isEmpty())
                openSweep(path);
        });
        connect(m_panel, &MeasurePanel::watchAsked, this, [this] {
            const QString folder = QFileDialog::getExistingDirectory(m_page, tr("Watch a folder for sweeps"));
            if (!folder.isEmpty())
                watchFolder(folder);
        });
        connect(m_panel, &MeasurePanel::columnsAsked, this, [this] { chooseColumns(m_opened); });
        connect(m_panel, &MeasurePanel::portAsked, this, &TrimStage::choosePort);
        connect(m_panel, &MeasurePanel::writeAsked, this, &TrimStage::addMeasurement);
        connect(m_panel, &MeasurePanel::removeAsked, this, &TrimStage::removeMeasurement);
        connect(m_panel, &MeasurePanel::sweepAsked, this, &TrimStage::sweepNow);
        connect(m_panel, &MeasurePanel::calibrateAsked, this, &TrimStage::calibrate);
        connect(m_panel, &MeasurePanel::meterAsked, this, [this] {
            if (!document().hasAntenna())
                return;
            m_meter.start(document().stored(), document().current());
            m_meter.setHandling(handlingLines(m_panel->handling(), m_panel->coax(), document().configuration()));
        });
        connect(m_panel, &MeasurePanel::fitAsked, &m_desk, &TrimDesk::fit);
        connect(m_panel, &MeasurePanel::fitUsed, this, &TrimStage::useFitted);
        connect(&m_analyser, &AnalyserDesk::swept, this, [this](const MeasuredSweep& sweep, bool corrected) {
            takeRead(sweep, m_analyser.standIn() ? tr("stand-in analyser") : tr("analyser"), corrected);
            if (!corrected)
                m_panel->say(tr("Not calibrated for this range: only roughly right. Calibrate, and sweep again."));
            else if (const auto signs = signsOf(sweep); !signs.empty())
                m_panel->say(coreWords(signs.front().words, system()));
        });
        connect(&m_watched, &WatchedFolder::saved, this, &TrimStage::openSweep);
        connect(&m_watched, &WatchedFolder::lost, this,
                [this](const QString& folder) { m_panel->say(tr("%1 can no longer be read; it is not watched any more.").arg(folder)); });
        connect(m_log, &LogBoard::chosenChanged, this, &TrimStage::refresh);
        connect(m_log, &LogBoard::removeWanted, this, [this] {
            for (const Id& id : m_log->chosen())
                m_logDesk.remove(id);
        });
        connect(m_logPanel, &LogPanel::csvAsked, this, [this] {
            save(tr("Save the log"), tr("CSV (*.csv)"),
                 [this](const QString& path) { return files::writeWhole(path.toStdString(), m_logDesk.csv()); });
        });
        connect(m_logPanel, &LogPanel::pageAsked, this, [this] {
            save(tr("Save the log as a page"), tr("PDF (*.pdf)"), [this](const QString& path) { return m_log->writePage(path); });
        });
        connect(m_logPanel, &LogPanel::picturesAsked, this, [this] {
            const QString path = QFileDialog::getOpenFileName(m_page, tr("Add a picture"), {}, tr("Pictures (*.png *.jpg *.jpeg *.webp)"));
            const auto chosen = m_log->chosen();
            if (path.isEmpty() || chosen.size() != 1)
                return;
            const KeptPicture picture = keepPicture(document().path(), path);
            m_logPanel->say(picture.trouble);
            if (picture.trouble.isEmpty())
                m_logDesk.changeMeasurement(chosen.front(), tr("add a picture"),
                                            [&](Measurement& m) { m.pictures.push_back(picture.kept); });
        });
        connect(m_logPanel, &LogPanel::pictureAsked, this, [this](const QString& kept) {
            const Picture picture = findPicture(document().path(), kept.toStdString());
            if (!picture.trouble.isEmpty())
                m_logPanel->say(picture.trouble);
            else if (!QDesktopServices::openUrl(QUrl::fromLocalFile(picture.path)))
                m_logPanel->say(tr("The picture cannot be shown: %1").arg(picture.path));
        });
    }

    void save(const QString& title, const QString& filter, const std::function<Faults(const QString&)>& write)
    {
        if (!document().hasAntenna())
            return m_logPanel->say(tr("There is no antenna whose log could be saved."));
        const QString path = askForFile(m_page->window(), title, fileName(tr("log %1").arg(document().shownName())), filter);
        if (path.isEmpty())
            return;
        const Faults faults = write(path);
        m_logPanel->say(faults.empty() ? tr("Saved as %1.").arg(QFileInfo(path).fileName()) : coreWords(faults.front().message, system()));
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

    void takeRead(const MeasuredSweep& sweep, const QString& instrument, bool corrected, const QString& when = {})
    {
        if (sweep.points.empty())
            return;
        m_panel->takeSweep(sweep, instrument, corrected, when);
        m_board->setPending(sweep);
    }

    /// When a file's sweep was read: it was written then.
    [[nodiscard]] static QString writtenAt(const QString& path)
    {
        return QFileInfo(path).lastModified().toString(QStringLiteral("yyyy-MM-ddTHH:mm"));
    }

    /// Its dip goes into the fields; it is written down with what was cut and how high it hung.
    void openSweep(const QString& path)
    {
        m_opened = path;
        const auto sweep = aside([name = path.toStdString()] { return files::readMeasured(name); });
        const bool table = !path.endsWith(QLatin1String(".s1p"), Qt::CaseInsensitive);
        if (!sweep) {
            m_panel->say(tr("Not taken: %1").arg(QString::fromStdString(sweep.firstFault())));
            m_panel->offerColumns(table && QFileInfo::exists(path));
            return;
        }
        takeRead(*sweep, QFileInfo(path).fileName(), true, writtenAt(path));
        m_panel->offerColumns(table);
    }

    void chooseColumns(const QString& path)
    {
        const auto text = aside([name = path.toStdString()] { return files::readTextFile(name); });
        if (!text) {
            m_panel->say(tr("Not taken: %1").arg(QString::fromStdString(text.firstFault())));
            return;
        }
        ColumnsDialog dialog(QFileInfo(path).fileName(), *text, m_page->window());
        if (dialog.exec() == QDialog::Accepted && dialog.sweep())
            takeRead(*dialog.sweep(), QFileInfo(path).fileName(), true, writtenAt(path));
    }

    /// What an analyser's program saves there from now on is opened.
    void watchFolder(const QString& folder)
    {
        m_panel->say(m_watched.watch(folder) ? tr("Watching %1: a sweep that is saved there is opened here.").arg(QDir(folder).dirName())
                                             : tr("%1 cannot be watched.").arg(folder));
    }

    void choosePort()
    {
        const QStringList ports = serialPorts();
        bool good = false;
        const QString port = QInputDialog::getItem(
            m_page->window(), tr("Analyser on a serial port"),
            ports.isEmpty() ? tr("No port was found; type its name, or leave it empty for the stand-in. The analyser has to speak "
                                 "the text protocol of the manual.")
                            : tr("Port, or nothing for the stand-in. The analyser has to speak the text protocol of the manual."),
            ports, 0, true, &good);
        if (good && port.trimmed().isEmpty())
            m_analyser.stop();
        else if (good)
            m_analyser.openPort(port.trimmed());
    }

    /// The stand-in hangs on the antenna as it was built, with all that the log took off it.
    bool readyToRead()
    {
        if (!document().hasAntenna() || !m_panel->range())
            return false;
        if (m_analyser.hasPort()) // never the stand-in in place of a real one that was pulled out
            return true;
        if (m_analyser.state() == AnalyserDesk::State::Off)
            m_analyser.startStandIn(document().stored(), document().current());
        return m_analyser.state() != AnalyserDesk::State::Off;
    }

    void sweepNow()
    {
        if (!readyToRead())
            return;
        m_analyser.setHandling(m_panel->handling(), m_panel->coax(), document().configuration());
        m_analyser.sweep(*m_panel->range());
    }

    void calibrate()
    {
        if (!readyToRead())
            return;
        CalibrationDialog dialog(m_analyser, *m_panel->range(), m_page->window());
        dialog.exec();
        refresh();
    }

    void useFitted()
    {
        const auto fit = m_desk.fitted();
        if (!fit)
            return;
        document().edit(tr("use what was measured"), {}, [&, id = document().current()](Design& d) { useFit(d, id, *fit); });
        m_panel->say(tr("Soil, height and length are the design's now; undo takes it back."));
    }

    void addMeasurement()
    {
        if (!document().hasAntenna())
            return m_panel->say(tr("There is no antenna whose measurement this could be: add one with + at the top."));
        const std::optional<Measurement> m = m_panel->measurement();
        if (!m)
            return;
        if (const Faults faults = findMeasurementFaults(*m); !faults.empty()) {
            m_page->setSentence(coreWords(faults.front().message, system()));
            return;
        }
        const CurvePointer curve = solver().curve();
        const std::optional<double> expected =
            unlikelyDip(document().antenna().trim, *m, curve ? curve->fundamental : 0.0, m_desk.next() ? -m_desk.next()->modelSlope : 0.0);
        if (expected && m_panel->question(m->dip, *expected))
            return;
        document().editAntenna(tr("log a measurement"), {}, [&](Antenna& a) { a.trim.measurements.push_back(*m); });
        m_panel->startEmpty();
        m_board->setPending({});
    }

    TrimDesk m_desk;
    AnalyserDesk m_analyser;
    MeterDesk m_meter;
    TrimBoard* m_board;
    RecipeBoard* m_recipe;
    LogDesk m_logDesk;
    LogBoard* m_log;
    YardDesk m_yardDesk;
    YardBoard* m_yard;
    ViewButtons* m_views = nullptr;
    Ledger *m_measuring = nullptr, *m_logging = nullptr, *m_practising = nullptr;
    MeasurePanel* m_panel = nullptr;
    LogPanel* m_logPanel = nullptr;
    YardPanel* m_yardPanel = nullptr;
    WatchedFolder m_watched{{QStringLiteral("*.s1p"), QStringLiteral("*.csv")}};
    QString m_opened;
};

} // namespace

std::unique_ptr<Stage> makeTrimStage(ViewContext& context, QObject* parent) { return std::make_unique<TrimStage>(context, parent); }

} // namespace vetchling::app

#include "trim_stage.moc"

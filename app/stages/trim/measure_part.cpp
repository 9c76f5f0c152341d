#include "app/stages/trim/measure_part.h"

#include "app/document/aside.h"
#include "app/stages/trim/calibration_dialog.h"
#include "app/stages/trim/columns_dialog.h"
#include "app/stages/trim/mast_card_board.h"
#include "app/stages/trim/measure_panel.h"
#include "app/stages/trim/trim_board.h"
#include "app/stages/trim/trim_words.h"
#include "app/view/old_figures.h"
#include "app/view/words.h"
#include "core/files/json_reader.h"
#include "core/trim/trim.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QInputDialog>

#include <cmath>

namespace vetchling::app {
namespace {

/// When a file's sweep was read: it was written then.
QString writtenAt(const QString& path) { return QFileInfo(path).lastModified().toString(QStringLiteral("yyyy-MM-ddTHH:mm")); }

} // namespace

MeasurePart::MeasurePart(ViewContext& context, StagePage& page, Ledger& ledger, QObject* parent)
    : TrimPart(context, page, ledger, parent), m_desk(context.document, context.models, context.solver), m_analyser(this),
      m_board(new TrimBoard(context, m_desk)), m_card(new MastCardBoard(context, m_desk)),
      m_panel(new MeasurePanel(context, m_desk, m_analyser, m_meter, *m_ledger, this))
{
    context.add(m_desk.waitings());
    for (QWidget* board : {static_cast<QWidget*>(m_board), static_cast<QWidget*>(m_card)})
        paleWhileOld({m_desk.waitings().front()}, board); // what comes next
    connectDesks();
    connectBoard();
    connectPanel();
    m_panel->startEmpty();
    connect(&document(), &Document::currentChanged, this, &MeasurePart::startAnew);
    connect(&document(), &Document::designReplaced, m_panel, &MeasurePanel::forgetAll);
}

void MeasurePart::connectDesks()
{
    connect(&m_desk, &TrimDesk::ready, this, &MeasurePart::changed);
    connect(&m_desk, &TrimDesk::ready, this, &MeasurePart::summaryChanged);
    connect(&m_analyser, &AnalyserDesk::swept, this, &MeasurePart::takeSwept);
    connect(&m_watched, &WatchedFolder::saved, this, &MeasurePart::openSweep);
    connect(&m_watched, &WatchedFolder::lost, this,
            [this](const QString& folder) { m_panel->say(tr("%1 can no longer be read; it is not watched any more.").arg(folder)); });
}

void MeasurePart::connectBoard()
{
    connect(m_board, &TrimBoard::chosenChanged, this, &MeasurePart::changed);
    connect(m_board, &TrimBoard::removeWanted, this, &MeasurePart::removeMeasurement);
    connect(m_board, &TrimBoard::refused, this, [this](const QString& why) { m_page.setSentence(why); });
    connect(m_board, &TrimBoard::mended, this, &MeasurePart::mend);
}

void MeasurePart::connectPanel()
{
    connect(m_panel, &MeasurePanel::targetTyped, &m_desk, &TrimDesk::setTarget);
    connect(m_panel, &MeasurePanel::asCutTyped, &m_desk, &TrimDesk::setAsCut);
    connect(m_panel, &MeasurePanel::pieceChosen, &m_desk, &TrimDesk::choose);
    connect(m_panel, &MeasurePanel::pendingChanged, m_board, &TrimBoard::setPending);
    connect(m_panel, &MeasurePanel::openAsked, this, &MeasurePart::askForSweep);
    connect(m_panel, &MeasurePanel::watchAsked, this, &MeasurePart::askForFolder);
    connect(m_panel, &MeasurePanel::columnsAsked, this, [this] { chooseColumns(m_opened); });
    connect(m_panel, &MeasurePanel::portAsked, this, &MeasurePart::choosePort);
    connect(m_panel, &MeasurePanel::writeAsked, this, &MeasurePart::addMeasurement);
    connect(m_panel, &MeasurePanel::removeAsked, this, &MeasurePart::removeMeasurement);
    connect(m_panel, &MeasurePanel::sweepAsked, this, &MeasurePart::sweepNow);
    connect(m_panel, &MeasurePanel::calibrateAsked, this, &MeasurePart::calibrate);
    connect(m_panel, &MeasurePanel::meterAsked, this, &MeasurePart::startMeter);
    connect(m_panel, &MeasurePanel::fitAsked, &m_desk, &TrimDesk::fit);
    connect(m_panel, &MeasurePanel::fitUsed, this, &MeasurePart::useFitted);
}

/// For another antenna.
void MeasurePart::startAnew()
{
    m_panel->leaveAntenna();
    if (m_analyser.standIn()) // a real one stays on its port, with its calibration
        m_analyser.stop();
    m_meter.stop();
}

QWidget* MeasurePart::next() const { return m_board; }

QWidget* MeasurePart::card() const { return m_card; }

bool MeasurePart::mendChosen() { return m_board->mendChosen(); }

QString MeasurePart::summary() const
{
    const TrimNext* next = m_desk.next();
    if (!next)
        return m_desk.busy() ? tr("being worked out") : m_desk.givenUp() ? tr("not worked out") : tr("not measured yet");
    const QString amount = smallWords(std::abs(next->change), system());
    switch (next->step) {
    case TrimStep::Cut: return tr("cut %1 next").arg(amount);
    case TrimStep::Fold: return tr("fold %1 next").arg(amount);
    case TrimStep::Slide: return tr("set by %1 next").arg(amount);
    case TrimStep::Lengthen: return tr("%1 too short").arg(amount);
    case TrimStep::Done: return tr("done");
    case TrimStep::Check:
        return next->waitsFor ? tr("first %1").arg(taskName(document().design(), m_desk.tasks()[*next->waitsFor]))
                              : tr("look before cutting");
    case TrimStep::Measure: break;
    }
    return next->predicted > 0.0 ? tr("measure again") : tr("not measured yet");
}

QString MeasurePart::tableText(const QWidget* view) const
{
    if (view == m_card)
        return m_card->steps().join(QLatin1Char('\n'));
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

void MeasurePart::show(const QWidget* view)
{
    if (!document().hasAntenna()) {
        m_panel->refresh(0.0, {}, false);
        return;
    }
    m_card->update();
    if (view == m_card) {
        m_page.setTitle(tr("Trim: mast card"));
        m_page.setSentence(tr("A card for the mast; copy it, or export the picture."));
        return;
    }
    const std::size_t count = m_desk.entries().size();
    m_page.setTitle(tr("Trim"));
    const QString words = count == 0 ? sentence() : tr("Measurement %1: %2").arg(count).arg(sentence());
    m_page.setSentence(solver().plane() == SolveService::Plane::Radio ? tr("At the radio: %1").arg(words) : words);
    m_panel->refresh(m_board->target(), m_board->leverWords(), !m_board->chosen().empty());
    m_board->update();
}

void MeasurePart::mend(const Measurement& measurement)
{
    const auto& tasks = m_desk.tasks();
    if (const double goal = tasks.empty() ? 0.0 : tasks[taskOf(tasks, measurement)].target;
        goal > 0.0 && cannotBe(measurement.dip, goal) && m_questioned != measurement.dip) {
        m_questioned = measurement.dip;
        m_page.setSentence(tr("%1? About %2 is expected. Type it once more if it was read so.")
                               .arg(frequencyWords(measurement.dip), frequencyWords(goal)));
        return;
    }
    document().editAntenna(tr("mend a measurement"), {}, [&](Antenna& a) {
        for (Measurement& one : a.trim.measurements)
            if (one.id == measurement.id)
                one = measurement;
    });
}

void MeasurePart::takeSwept(const MeasuredSweep& sweep, bool corrected)
{
    takeRead(sweep, m_analyser.standIn() ? tr("stand-in analyser") : tr("analyser"), corrected);
    if (!corrected)
        m_panel->say(tr("Not calibrated for this range: only roughly right. Calibrate, and sweep again."));
    else if (const auto signs = signsOf(sweep); !signs.empty())
        m_panel->say(coreWords(signs.front().words, system()));
}

void MeasurePart::askForSweep()
{
    const QString path =
        QFileDialog::getOpenFileName(&m_page, tr("Open a sweep"), {}, tr("Sweeps (*.s1p *.s2p *.csv *.txt);;All files (*)"));
    if (!path.isEmpty())
        openSweep(path);
}

void MeasurePart::askForFolder()
{
    const QString folder = QFileDialog::getExistingDirectory(&m_page, tr("Watch a folder for sweeps"));
    if (!folder.isEmpty())
        watchFolder(folder);
}

void MeasurePart::startMeter()
{
    if (!document().hasAntenna())
        return;
    m_meter.start(document().stored(), document().current());
    m_meter.setHandling(handlingLines(m_panel->handling(), m_panel->coax(), document().configuration()));
}

QString MeasurePart::sentence() const
{
    if (!m_desk.last())
        return tr("Cut long, hoist, measure; a dip below the goal means too long, above it too short.");
    const Measurement& last = *m_desk.last();
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

void MeasurePart::removeMeasurement()
{
    Id which = m_board->chosen();
    if (which.empty() && m_desk.last())
        which = m_desk.last()->id;
    document().editAntenna(tr("remove a measurement"), {}, [&](Antenna& a) { vetchling::removeMeasurement(a, which); });
}

void MeasurePart::takeRead(const MeasuredSweep& sweep, const QString& instrument, bool corrected, const QString& when)
{
    if (sweep.points.empty())
        return;
    m_panel->takeSweep(sweep.against(document().design().operation.reference), instrument, corrected, when);
}

void MeasurePart::openSweep(const QString& path)
{
    m_opened = path;
    const auto sweep = aside([name = path.toStdString()] { return files::readMeasured(name); });
    const bool table = !files::isTouchstone(path.toStdString());
    if (!sweep) {
        m_panel->say(tr("Not taken: %1").arg(QString::fromStdString(sweep.firstFault())));
        m_panel->offerColumns(table && QFileInfo::exists(path));
        return;
    }
    takeRead(*sweep, QFileInfo(path).fileName(), true, writtenAt(path));
    m_panel->offerColumns(table);
}

void MeasurePart::chooseColumns(const QString& path)
{
    const auto text = aside([name = path.toStdString()] { return files::readTextFile(name); });
    if (!text) {
        m_panel->say(tr("Not taken: %1").arg(QString::fromStdString(text.firstFault())));
        return;
    }
    ColumnsDialog dialog(QFileInfo(path).fileName(), *text, m_page.window());
    if (dialog.exec() == QDialog::Accepted && dialog.sweep())
        takeRead(*dialog.sweep(), QFileInfo(path).fileName(), true, writtenAt(path));
}

void MeasurePart::watchFolder(const QString& folder)
{
    m_panel->say(m_watched.watch(folder) ? tr("Watching %1: a sweep that is saved there is opened here.").arg(QDir(folder).dirName())
                                         : tr("%1 cannot be watched.").arg(folder));
}

void MeasurePart::choosePort()
{
    const QStringList ports = serialPorts();
    bool good = false;
    const QString port = QInputDialog::getItem(
        m_page.window(), tr("Analyser on a serial port"),
        ports.isEmpty() ? tr("No port was found; type its name, or leave it empty for the stand-in. The analyser has to speak "
                             "the text protocol of the manual.")
                        : tr("Port, or nothing for the stand-in. The analyser has to speak the text protocol of the manual."),
        ports, 0, true, &good);
    if (good && port.trimmed().isEmpty())
        m_analyser.stop();
    else if (good)
        m_analyser.openPort(port.trimmed());
}

bool MeasurePart::readyToRead()
{
    if (!document().hasAntenna() || !m_panel->range()) {
        m_panel->say(document().hasAntenna() ? tr("What to sweep is not known yet: wait until the next step is worked out.")
                                             : tr("There is no antenna to be measured: add one with + at the top."));
        return false;
    }
    if (m_analyser.hasPort()) // never the stand-in in place of a real one that was pulled out
        return true;
    if (m_analyser.state() == AnalyserDesk::State::Off)
        m_analyser.startStandIn(document().stored(), document().current());
    return m_analyser.state() != AnalyserDesk::State::Off;
}

void MeasurePart::sweepNow()
{
    if (!readyToRead())
        return;
    m_analyser.setHandling(m_panel->handling(), m_panel->coax(), document().configuration());
    m_analyser.sweep(*m_panel->range());
}

void MeasurePart::calibrate()
{
    if (!readyToRead())
        return;
    CalibrationDialog dialog(m_analyser, *m_panel->range(), m_page.window());
    dialog.exec();
    emit changed();
}

void MeasurePart::useFitted()
{
    const auto fit = m_desk.fitted();
    if (!fit)
        return;
    document().edit(tr("use what was measured"), {}, [&, id = document().current()](Design& d) { useFit(d, id, *fit); });
    m_panel->say(tr("Soil, height and length are the design's now; undo takes it back."));
}

void MeasurePart::addMeasurement()
{
    if (!document().hasAntenna())
        return m_panel->say(tr("There is no antenna whose measurement this could be: add one with + at the top."));
    const std::optional<Measurement> m = m_panel->measurement();
    if (!m)
        return;
    if (const Faults faults = findMeasurementFaults(*m); !faults.empty()) {
        m_page.setSentence(coreWords(faults.front().message, system()));
        return;
    }
    const TrimNext* next = m_desk.next();
    const std::optional<double> expected =
        unlikelyDip(document().antenna(), *m, next ? next->modelDip : 0.0, next ? -next->modelSlope : 0.0);
    if (expected && m_panel->question(m->dip, *expected))
        return;
    if (m_panel->questionDate(*m))
        return;
    document().editAntenna(tr("log a measurement"), {}, [&](Antenna& a) { vetchling::addMeasurement(a, *m); });
    m_panel->startEmpty();
}

} // namespace vetchling::app

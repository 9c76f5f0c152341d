#include "app/window/main_window.h"

#include "app/plots/sketch.h"
#include "core/files/sweep_file.h"

#include <QApplication>
#include <QBuffer>
#include <QClipboard>
#include <QCloseEvent>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QSaveFile>
#include <QScrollArea>
#include <QShortcut>
#include <QSvgGenerator>

namespace vetchling::app {
namespace {

const QString filter = QStringLiteral("Vetchling designs (*.vetchling)");

QScrollArea* scrolled(QWidget* widget)
{
    auto* area = new QScrollArea;
    area->setWidget(widget);
    area->setWidgetResizable(true);
    area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    area->setFrameShape(QFrame::NoFrame);
    area->setFocusPolicy(Qt::NoFocus);
    return area;
}

/// While a value is dragged the new answer comes within this time, and one refresh serves both.
constexpr int patienceMilliseconds = 30;

} // namespace

MainWindow::MainWindow(const QString& dataFolder, const QString& autosaveFolder)
    : m_solver(m_document), m_context{m_document, m_solver, m_theme, {}, {}, {}}, m_dataFolder(dataFolder)
{
    setObjectName(QStringLiteral("mainWindow"));
    setWindowIcon(QIcon(QStringLiteral(":/icons/vetchling.svg")));
    setMinimumSize(1100, 700);
    resize(1280, 800);
    setAcceptDrops(true);
    m_theme.setMode(m_settings.themeMode());
    m_theme.apply(*qApp);
    loadData(dataFolder);
    m_autosave = std::make_unique<Autosave>(m_document, autosaveFolder);
    buildStages();
    buildTools();
    buildMenu();
    m_soon.setSingleShot(true);
    m_soon.setInterval(patienceMilliseconds);
    connect(&m_soon, &QTimer::timeout, this, &MainWindow::refreshAll);
    connect(&m_document, &Document::designChanged, &m_soon, qOverload<>(&QTimer::start));
    connect(&m_document, &Document::currentChanged, this, &MainWindow::refreshAll);
    connect(&m_document, &Document::bandSelected, this, &MainWindow::refreshAll);
    connect(&m_document, &Document::pathChanged, this, &MainWindow::refreshAll);
    connect(&m_solver, &SolveService::curveReady, this, &MainWindow::refreshAll);
    connect(&m_solver, &SolveService::detailReady, this, &MainWindow::refreshAll);
    connect(&m_solver, &SolveService::stateChanged, this, [this] {
        if (!m_solver.faults().empty())
            refreshAll();
    });
    connect(&m_theme, &Theme::changed, this, [this] {
        m_theme.apply(*qApp);
        m_shelf->refreshIcons();
        refreshAll();
    });
    if (const QByteArray geometry = m_settings.geometry(); !geometry.isEmpty())
        restoreGeometry(geometry);
    showStage(1);
    m_strip->setFocus();
}

MainWindow::~MainWindow()
{
    m_solver.stop();
    m_document.disconnect(this);
    m_solver.disconnect(this);
}

void MainWindow::loadData(const QString& folder)
{
    const auto file = [&](const char* name) { return QDir(folder).filePath(QLatin1String(name)).toStdString(); };
    QStringList problems;
    const auto take = [&](auto result, auto& target) {
        if (result)
            target = std::move(result).value();
        else
            problems << QString::fromStdString(result.firstFault());
    };
    take(files::readSoils(file("soils.json")), m_context.soils);
    take(files::readConductors(file("conductors.json")), m_context.conductors);
    take(files::readBandPlans(file("bands.json")), m_context.bandPlans);
    if (!problems.isEmpty())
        QMetaObject::invokeMethod(
            this, [this, problems] { say(problems.join(QStringLiteral("; "))); }, Qt::QueuedConnection);
}

void MainWindow::buildStages()
{
    m_stages.push_back(makeSiteStage(m_context, this));
    m_stages.push_back(makeShapeStage(m_context, this));
    m_stages.push_back(makeBandsStage(m_context, this));
    m_stages.push_back(makeSkyStage(m_context, this));
    m_stages.push_back(makeBuildStage(m_context, this));
    m_stages.push_back(makeTrimStage(m_context, this));
    std::vector<Stage*> stages;
    m_pages = new QStackedWidget;
    m_ledgers = new QStackedWidget;
    m_ledgers->setFixedWidth(300);
    m_ledgers->setObjectName(QStringLiteral("ledger"));
    for (const auto& stage : m_stages) {
        stages.push_back(stage.get());
        m_pages->addWidget(stage->page());
        m_ledgers->addWidget(scrolled(stage->ledger()));
    }
    m_shelf = new Shelf(m_context);
    m_trail = new Trail(m_context, stages);
    m_strip = new BandStrip(m_document, m_solver, m_theme);
    m_message = new QLabel;
    m_message->setObjectName(QStringLiteral("message"));
    m_message->setWordWrap(true);
    m_message->setContentsMargins(16, 6, 16, 6);
    m_message->hide();
    connect(m_trail, &Trail::chosen, this, &MainWindow::showStage);
    connect(m_shelf, &Shelf::addWanted, this, &MainWindow::addAntenna);

    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    middle->addWidget(m_trail);
    middle->addWidget(m_pages, 1);
    auto* divider = new QFrame;
    divider->setProperty("role", "line");
    divider->setFixedWidth(1);
    divider->setMaximumHeight(QWIDGETSIZE_MAX);
    divider->setStyleSheet(QStringLiteral("max-height: 16777215px;"));
    middle->addWidget(divider);
    middle->addWidget(m_ledgers);
    auto* central = new QWidget;
    auto* column = new QVBoxLayout(central);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(m_shelf);
    column->addWidget(m_message);
    column->addLayout(middle, 1);
    column->addWidget(m_strip);
    setCentralWidget(central);
}

void MainWindow::buildTools()
{
    m_undo = m_shelf->tool(QStringLiteral("undo"), tr("Undo"), QStringLiteral("undo"));
    m_redo = m_shelf->tool(QStringLiteral("redo"), tr("Redo"), QStringLiteral("redo"));
    m_pin = m_shelf->tool(QStringLiteral("pin"), tr("Pin this design to compare with it (P)"), QStringLiteral("pin"));
    m_pin->setCheckable(true);
    m_units = m_shelf->tool({}, tr("Metres or feet (Ctrl+U)"), QStringLiteral("units"));
    auto* theme = m_shelf->tool(QStringLiteral("sun"), tr("Day or night (Ctrl+D)"), QStringLiteral("themeButton"));
    m_menuButton = m_shelf->tool(QStringLiteral("menu"), tr("Menu (F10)"), QStringLiteral("menuButton"));
    QUndoStack& stack = m_document.undoStack();
    connect(m_undo, &QToolButton::clicked, &stack, &QUndoStack::undo);
    connect(m_redo, &QToolButton::clicked, &stack, &QUndoStack::redo);
    connect(&stack, &QUndoStack::canUndoChanged, m_undo, &QWidget::setEnabled);
    connect(&stack, &QUndoStack::canRedoChanged, m_redo, &QWidget::setEnabled);
    connect(&stack, &QUndoStack::undoTextChanged, m_undo,
            [this](const QString& words) { m_undo->setToolTip(words.isEmpty() ? tr("Undo") : tr("Undo: %1").arg(words)); });
    connect(&stack, &QUndoStack::redoTextChanged, m_redo,
            [this](const QString& words) { m_redo->setToolTip(words.isEmpty() ? tr("Redo") : tr("Redo: %1").arg(words)); });
    connect(&stack, &QUndoStack::cleanChanged, this, &MainWindow::refreshAll);
    m_undo->setEnabled(false);
    m_redo->setEnabled(false);
    connect(m_pin, &QToolButton::clicked, this, &MainWindow::togglePin);
    connect(m_units, &QToolButton::clicked, this, &MainWindow::toggleUnits);
    connect(theme, &QToolButton::clicked, this, &MainWindow::toggleTheme);
}

QAction* MainWindow::action(const QString& words, const QKeySequence& keys, const char* objectName, std::function<void()> does)
{
    auto* action = new QAction(words, this);
    action->setObjectName(QLatin1String(objectName));
    action->setShortcut(keys);
    connect(action, &QAction::triggered, this, [does = std::move(does)] { does(); });
    addAction(action);
    if (!keys.isEmpty())
        m_shortcuts.push_back(
            {keys.toString(QKeySequence::NativeText), QString(words).remove(QLatin1Char('&')).remove(QStringLiteral(" …"))});
    return action;
}

void MainWindow::buildMenu()
{
    auto* menu = new QMenu(this);
    menu->addAction(action(tr("Open …"), QKeySequence::Open, "actionOpen", [this] { open(); }));
    auto* recent = menu->addMenu(tr("Recent files"));
    connect(recent, &QMenu::aboutToShow, this, [this, recent] { fillRecent(recent); });
    menu->addAction(action(tr("Save"), QKeySequence::Save, "actionSave", [this] { save(); }));
    menu->addAction(action(tr("Save as …"), QKeySequence(tr("Ctrl+Shift+S")), "actionSaveAs", [this] { saveAs(); }));
    menu->addAction(action(tr("Open the demo, Gannet Skerry"), {}, "actionDemo", [this] {
        if (mayDiscard())
            openDemo();
    }));
    menu->addSeparator();
    menu->addAction(action(tr("Add an antenna …"), QKeySequence(tr("Ctrl+N")), "actionAdd", [this] { addAntenna(); }));
    menu->addAction(action(tr("Duplicate this antenna"), QKeySequence(tr("Ctrl+Shift+D")), "actionDuplicate", [this] {
        if (!m_document.hasAntenna())
            return;
        Antenna copy = m_document.antenna();
        copy.name += tr(" copy").toStdString();
        m_document.addAntenna(copy);
    }));
    menu->addAction(action(tr("Remove this antenna"), {}, "actionRemove", [this] { m_document.removeCurrentAntenna(); }));
    menu->addSeparator();
    menu->addAction(action(tr("Save the picture …"), QKeySequence(tr("Ctrl+E")), "actionPicture", [this] {
        const QString path = QFileDialog::getSaveFileName(this, tr("Save the picture"),
                                                          m_stages[std::size_t(m_trail->current())]->id() + QStringLiteral(".svg"),
                                                          tr("SVG (*.svg);;PNG (*.png)"));
        if (!path.isEmpty())
            exportPicture(path);
    }));
    menu->addAction(action(tr("Copy the picture"), QKeySequence(tr("Ctrl+Shift+C")), "actionCopyPicture", [this] { copyPicture(); }));
    menu->addAction(action(tr("Copy the figures as a table"), QKeySequence(tr("Ctrl+Shift+T")), "actionCopyTable",
                           [this] { QApplication::clipboard()->setText(m_stages[std::size_t(m_trail->current())]->tableText()); }));
    menu->addAction(action(tr("Save the sweep …"), QKeySequence(tr("Ctrl+Shift+E")), "actionSweep", [this] {
        const QString path =
            QFileDialog::getSaveFileName(this, tr("Save the sweep"), QStringLiteral("sweep.csv"), tr("CSV (*.csv);;Touchstone (*.s1p)"));
        if (!path.isEmpty())
            exportSweep(path);
    }));
    menu->addSeparator();
    menu->addAction(action(tr("Pin or unpin this design"), QKeySequence(tr("P")), "actionPin", [this] { togglePin(); }));
    menu->addAction(action(tr("Metres or feet"), QKeySequence(tr("Ctrl+U")), "actionUnits", [this] { toggleUnits(); }));
    menu->addAction(action(tr("Day or night"), QKeySequence(tr("Ctrl+D")), "actionTheme", [this] { toggleTheme(); }));
    menu->addSeparator();
    menu->addAction(action(tr("Keys"), QKeySequence::HelpContents, "actionKeys", [this] { makeShortcutSheet(m_shortcuts, this)->show(); }));
    menu->addAction(action(tr("About Vetchling"), {}, "actionAbout", [this] { makeAbout(this)->show(); }));
    menu->addAction(action(tr("Quit"), QKeySequence::Quit, "actionQuit", [this] { close(); }));
    action(tr("Undo"), QKeySequence::Undo, "actionUndo", [this] { m_document.undoStack().undo(); });
    action(tr("Redo"), QKeySequence::Redo, "actionRedo", [this] { m_document.undoStack().redo(); });
    action(tr("Menu"), QKeySequence(tr("F10")), "actionMenu", [this] { m_menuButton->showMenu(); });
    for (std::size_t i = 0; i < m_stages.size(); ++i)
        action(tr("Stage: %1").arg(m_stages[i]->name()), QKeySequence(tr("Ctrl+%1").arg(i + 1)), "", [this, i] { showStage(int(i)); });
    action(tr("Next antenna"), QKeySequence(tr("Ctrl+PgDown")), "", [this] { m_document.setCurrent(m_document.current() + 1); });
    action(tr("Antenna before"), QKeySequence(tr("Ctrl+PgUp")), "", [this] { m_document.setCurrent(m_document.current() - 1); });
    m_shortcuts.push_back({tr("Up, Down, wheel"), tr("Step a value; with Shift finer")});
    m_shortcuts.push_back({tr("Left, Right"), tr("Band before or after, in the strip")});
    m_menuButton->setMenu(menu);
    m_menuButton->setPopupMode(QToolButton::InstantPopup);
}

Stage* MainWindow::stage(const QString& id) const
{
    for (const auto& stage : m_stages)
        if (stage->id() == id)
            return stage.get();
    return nullptr;
}

void MainWindow::showStage(int index)
{
    if (index < 0 || index >= int(m_stages.size()))
        return;
    m_trail->setCurrent(index);
    m_pages->setCurrentIndex(index);
    m_ledgers->setCurrentIndex(index);
    m_stages[std::size_t(index)]->refresh();
}

void MainWindow::refreshAll()
{
    m_soon.stop();
    m_shelf->refresh();
    m_stages[std::size_t(m_trail->current())]->refresh();
    m_trail->update();
    m_pin->setChecked(m_solver.pinned());
    m_units->setText(m_document.design().operation.system == units::System::Metric ? tr("m") : tr("ft"));
    const QString file = m_document.path().isEmpty() ? QString() : QFileInfo(m_document.path()).fileName() + QStringLiteral(" – ");
    setWindowTitle(file + tr("Vetchling"));
}

void MainWindow::say(const QString& words)
{
    m_message->setStyleSheet(QStringLiteral("background: %1;").arg(m_theme.colours().petalPale.name()));
    m_message->setText(words);
    m_message->setVisible(!words.isEmpty());
}

void MainWindow::openDemo()
{
    Result<Design> demo = files::readDesign(QDir(m_dataFolder).filePath(QStringLiteral("demo/gannet-skerry.vetchling")).toStdString());
    if (!demo) {
        say(QString::fromStdString(demo.firstFault()));
        return;
    }
    m_document.setDesign(std::move(demo).value(), {});
    say({});
}

bool MainWindow::openFile(const QString& path)
{
    if (const Faults faults = m_document.open(path); !faults.empty()) {
        QStringList words;
        for (std::size_t i = 0; i < faults.size() && i < 3; ++i)
            words << QString::fromStdString(faults[i].text());
        say(tr("%1 was not opened: %2").arg(QFileInfo(path).fileName(), words.join(QStringLiteral("; "))));
        return false;
    }
    m_settings.addRecentFile(path);
    say({});
    return true;
}

bool MainWindow::recover()
{
    const std::optional<Autosave::Recovered> left = m_autosave->takeLeftBehind();
    if (!left || !m_document.openText(left->design, left->originalPath).empty())
        return false;
    m_document.markRecovered();
    m_autosave->write();
    refreshAll();
    say(left->originalPath.isEmpty()
            ? tr("The last run ended before this was saved; here it is again. Save it to keep it.")
            : tr("The last run ended before changes to %1 were saved; here they are. Save to keep them.").arg(left->originalPath));
    return true;
}

bool MainWindow::saveTo(const QString& path)
{
    if (const Faults faults = m_document.save(path); !faults.empty()) {
        say(QString::fromStdString(faults.front().text()));
        return false;
    }
    m_settings.addRecentFile(path);
    m_autosave->discard();
    say({});
    return true;
}

void MainWindow::open()
{
    if (!mayDiscard())
        return;
    const QString path = QFileDialog::getOpenFileName(this, tr("Open a design"), QFileInfo(m_document.path()).path(), filter);
    if (!path.isEmpty())
        openFile(path);
}

bool MainWindow::save() { return m_document.path().isEmpty() ? saveAs() : saveTo(m_document.path()); }

bool MainWindow::saveAs()
{
    QString path = QFileDialog::getSaveFileName(
        this, tr("Save the design"), m_document.path().isEmpty() ? QStringLiteral("antennas.vetchling") : m_document.path(), filter);
    if (path.isEmpty())
        return false;
    if (QFileInfo(path).suffix().isEmpty())
        path += QStringLiteral(".vetchling");
    return saveTo(path);
}

bool MainWindow::mayDiscard()
{
    if (!m_document.modified())
        return true;
    QMessageBox box(QMessageBox::NoIcon, tr("Unsaved changes"), tr("Changes are not saved yet."),
                    QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
    switch (box.exec()) {
    case QMessageBox::Save: return save();
    case QMessageBox::Discard: return true;
    default: return false;
    }
}

void MainWindow::addAntenna()
{
    NewAntennaDialog dialog(m_document.design(), this);
    if (dialog.exec() == QDialog::Accepted) {
        m_document.addAntenna(dialog.antenna());
        showStage(1);
    }
}

void MainWindow::togglePin()
{
    m_solver.pinned() ? m_solver.unpin() : m_solver.pin();
    refreshAll();
}

void MainWindow::toggleTheme()
{
    m_theme.setMode(m_theme.mode() == Theme::Mode::Day ? Theme::Mode::Night : Theme::Mode::Day);
    m_settings.setThemeMode(m_theme.mode());
}

void MainWindow::toggleUnits()
{
    m_document.edit(tr("change units"), {}, [](Design& d) {
        d.operation.system = d.operation.system == units::System::Metric ? units::System::Imperial : units::System::Metric;
    });
    refreshAll(); // no answer is waited for
}

bool MainWindow::exportPicture(const QString& path)
{
    Canvas* canvas = m_stages[std::size_t(m_trail->current())]->canvas();
    const QSize size = canvas->size();
    QByteArray content;
    QBuffer buffer(&content);
    buffer.open(QIODevice::WriteOnly);
    if (path.endsWith(QLatin1String(".png"), Qt::CaseInsensitive)) {
        QImage image(2 * size, QImage::Format_ARGB32);
        image.setDevicePixelRatio(2.0);
        QPainter painter(&image);
        Sketch sketch(painter, m_theme);
        canvas->render(sketch, size);
        painter.end();
        image.save(&buffer, "PNG");
    } else {
        QSvgGenerator generator;
        generator.setOutputDevice(&buffer);
        generator.setSize(size);
        generator.setViewBox(QRect(QPoint(0, 0), size));
        generator.setTitle(tr("Vetchling: %1").arg(m_stages[std::size_t(m_trail->current())]->name()));
        QPainter painter(&generator);
        Sketch sketch(painter, m_theme);
        canvas->render(sketch, size);
        painter.end();
    }
    QSaveFile file(path);
    const bool good = file.open(QIODevice::WriteOnly) && file.write(content) == content.size() && file.commit();
    say(good ? tr("Picture written to %1.").arg(path) : tr("%1 could not be written; check the folder and its permissions.").arg(path));
    return good;
}

bool MainWindow::exportSweep(const QString& path)
{
    const CurvePointer curve = m_solver.curve();
    if (!curve) {
        say(tr("There is no sweep yet; wait for the curve."));
        return false;
    }
    files::SweepTable table{curve->curve.displayFrequencies(sweepFrom, sweepTo), {}, curve->curve.solves};
    for (double f : table.frequency)
        table.impedance.push_back(curve->atLine(f));
    const std::string text =
        path.endsWith(QLatin1String(".s1p"), Qt::CaseInsensitive) ? files::sweepTouchstone(table) : files::sweepCsv(table);
    QSaveFile file(path);
    const bool good =
        file.open(QIODevice::WriteOnly) && file.write(text.data(), qint64(text.size())) == qint64(text.size()) && file.commit();
    say(good ? tr("Sweep written to %1.").arg(path) : tr("%1 could not be written; check the folder and its permissions.").arg(path));
    return good;
}

void MainWindow::copyPicture()
{
    Canvas* canvas = m_stages[std::size_t(m_trail->current())]->canvas();
    QApplication::clipboard()->setPixmap(canvas->grab());
    say(tr("The picture is on the clipboard."));
}

void MainWindow::fillRecent(QMenu* menu)
{
    menu->clear();
    const QStringList files = m_settings.recentFiles();
    for (const QString& path : files)
        menu->addAction(QFileInfo(path).fileName(), this, [this, path] {
            if (mayDiscard())
                openFile(path);
        });
    if (files.isEmpty())
        menu->addAction(tr("none yet"))->setEnabled(false);
}

void MainWindow::closeEvent(QCloseEvent* event)
{
    if (!mayDiscard()) {
        event->ignore();
        return;
    }
    m_autosave->discard();
    m_settings.setGeometry(saveGeometry());
    m_solver.stop();
    event->accept();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event)
{
    if (event->mimeData()->hasUrls() && event->mimeData()->urls().size() == 1)
        event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event)
{
    const QString path = event->mimeData()->urls().front().toLocalFile();
    if (!path.isEmpty() && mayDiscard())
        openFile(path);
}

} // namespace vetchling::app

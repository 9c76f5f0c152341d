#include "app/window/main_window.h"

#include "app/view/words.h"
#include "app/widgets/ledger.h"
#include "app/widgets/typed.h"
#include "app/widgets/value_edit.h"
#include "app/window/main_menu.h"
#include "app/window/new_site.h"
#include "core/advice/gallery.h"
#include "core/bands/wanted.h"

#include <QApplication>
#include <QCloseEvent>
#include <QDir>
#include <QFileInfo>
#include <QLineEdit>
#include <QMenu>
#include <QMimeData>
#include <QScreen>
#include <QScrollArea>
#include <QStandardPaths>

#include <algorithm>

namespace vetchling::app {
namespace {

constexpr int firstStage = 1;
constexpr QSize smallest{900, 600}, frameRoom{4, 36}; // px; the room that a title bar and borders take
constexpr int roomyWidth = 1100;                      // px; below it the trail narrows to its leaves

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

/// Beside the unsaved copies.
QString shedPath(const QString& autosaveFolder)
{
    const QString folder = autosaveFolder.isEmpty() ? QStandardPaths::writableLocation(QStandardPaths::AppDataLocation)
                                                    : QFileInfo(autosaveFolder).absolutePath();
    return QDir(folder).filePath(QStringLiteral("shed.json"));
}

/// While a value is dragged the new answer comes within this time, and one refresh serves both.
constexpr int patienceMilliseconds = 30;

} // namespace

MainWindow::MainWindow(const QString& dataFolder, const QString& autosaveFolder, const QString& tableFolder, const QString& soonOpened)
    : m_shed(shedPath(autosaveFolder)), m_models(m_document, m_shed), m_solver(m_document, tableFolder), m_variants(m_document, m_solver),
      m_left(m_document, m_models, m_solver, dataFolder), m_context{m_document, m_models, m_solver, m_variants, m_shed, m_left,
                                                                    m_theme,    {},       {},       {},         {},     dataFolder},
      m_desk(m_document, m_settings, dataFolder, autosaveFolder, this)
{
    if (!soonOpened.isEmpty())
        m_solver.beginWith(m_document.expect(soonOpened));
    setObjectName(QStringLiteral("mainWindow"));
    setWindowIcon(QIcon(QStringLiteral(":/icons/vetchling.svg")));
    setMinimumSize(smallest);
    resize(QSize(1280, 800).boundedTo(screen()->availableGeometry().size() - frameRoom));
    setAcceptDrops(true);
    m_theme.setMode(m_settings.themeMode());
    m_theme.applyFontAndPalette(*qApp);
    m_variants.setAlways(m_settings.showsSpread());
    loadData(dataFolder);
    m_context.add(m_left.waitings());
    buildStages();
    layOut();
    buildTools();
    m_theme.apply(*qApp);
    m_menuButton->setMenu(makeMainMenu(*this, m_shortcuts));
    m_menuButton->setPopupMode(QToolButton::InstantPopup);
    listen();
    if (const QByteArray geometry = m_settings.geometry(); !geometry.isEmpty())
        restoreGeometry(geometry);
    showStage(firstStage);
    m_strip->setFocus();
}

MainWindow::~MainWindow()
{
    m_solver.stop();
    m_document.disconnect(this);
    m_document.undoStack().disconnect(); // it says at its end that nothing is unsaved any more, when the rest is gone
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
    take(files::readLineTypes(file("lines.json")), m_context.lineTypes);
    if (!problems.isEmpty())
        QMetaObject::invokeMethod(
            this, [this, problems] { say(problems.join(QStringLiteral("; "))); }, Qt::QueuedConnection);
}

void MainWindow::buildStages()
{
    for (auto* make :
         {makeSiteStage, makeShapeStage, makeBandsStage, makeSkyStage, makeFeedStage, makeBuildStage, makeTrimStage, makeLeftStage})
        m_stages.push_back(make(m_context, this));
}

void MainWindow::layOut()
{
    std::vector<Stage*> stages;
    m_pages = new QStackedWidget;
    m_ledgers = new QStackedWidget;
    m_ledgers->setFixedWidth(Ledger::paneWidth);
    m_ledgers->setObjectName(QStringLiteral("ledger"));
    for (const auto& stage : m_stages) {
        connect(stage.get(), &Stage::tunerWireWanted, this, &MainWindow::addTunerWire);
        connect(stage.get(), &Stage::pageWanted, this, &MainWindow::showPage);
        connect(stage.get(), &Stage::summaryChanged, this, [this] { m_trail->refresh(); });
        stages.push_back(stage.get());
        m_pages->addWidget(stage->page());
        m_ledgers->addWidget(scrolled(stage->ledger()));
    }
    m_shelf = new Shelf(m_context);
    m_trail = new Trail(m_context, stages);
    m_strip = new BandStrip(m_context);
    m_damage = new DamageStrip(m_context);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    middle->addWidget(m_pages, 1);
    m_pages->setObjectName(QStringLiteral("stages"));
    auto* divider = new QFrame;
    divider->setProperty("role", "line");
    divider->setFixedWidth(1);
    divider->setMaximumHeight(QWIDGETSIZE_MAX);
    divider->setStyleSheet(QStringLiteral("max-height: 16777215px;"));
    middle->addWidget(divider);
    middle->addWidget(m_ledgers);
    auto* work = new QWidget;
    work->setLayout(middle);
    middle->setContentsMargins(0, 0, 0, 0);
    m_gallery = new Gallery(m_context);
    m_middle = new QStackedWidget;
    m_middle->addWidget(work);
    m_middle->addWidget(m_gallery);
    auto* beside = new QHBoxLayout;
    beside->setSpacing(0);
    auto* left = new QVBoxLayout;
    left->setSpacing(0);
    m_waiting = new WaitingBox(m_context);
    left->addWidget(m_trail, 1);
    left->addWidget(m_waiting);
    beside->addLayout(left);
    beside->addWidget(m_middle, 1);
    auto* central = new QWidget;
    auto* column = new QVBoxLayout(central);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(m_shelf);
    column->addWidget(m_damage);
    column->addLayout(beside, 1);
    column->addWidget(m_strip);
    setCentralWidget(central);
    m_message = new Message(m_middle);
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
    connect(m_undo, &QToolButton::clicked, this, &MainWindow::undo);
    connect(m_redo, &QToolButton::clicked, this, &MainWindow::redo);
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

void MainWindow::listen()
{
    m_soon.setSingleShot(true);
    m_soon.setInterval(patienceMilliseconds);
    qApp->installEventFilter(this);
    m_desk.setSettle([this] { return takeTyped(); });
    connect(&m_document, &Document::leaving, this, [this] {
        if (const QString complaint = takeTypedOrForget(this); !complaint.isEmpty())
            say(tr("What was typed was not taken: %1.").arg(complaint));
    });
    connect(m_shelf, &Shelf::renamed, &m_document, &Document::renameAntenna);
    connect(m_shelf, &Shelf::removeWanted, this, &MainWindow::removeAntenna);
    connect(m_trail, &Trail::chosen, this, &MainWindow::showStage);
    connect(m_gallery, &Gallery::taken, this, [this](const Antenna& antenna) {
        takeAntenna(antenna);
        currentStage()->showView(QStringLiteral("side"));
        m_shelf->startRename();
    });
    connect(m_gallery, &Gallery::tunerWireWanted, this, &MainWindow::addTunerWire);
    connect(m_gallery, &Gallery::left, this, &MainWindow::leaveGallery);
    connect(m_gallery, &Gallery::trialChanged, m_strip, &BandStrip::setTrial);
    connect(m_gallery, &Gallery::hung, this, [this] {
        leaveGallery();
        showStage(firstStage);
    });
    connect(&m_document, &Document::currentChanged, this, &MainWindow::leaveGallery);
    connect(&m_document, &Document::currentChanged, this, [this] { m_way.visit({m_trail->current(), m_document.current()}); });
    connect(&m_document, &Document::designReplaced, this, [this] {
        m_way.forget(), m_way.visit({m_trail->current(), m_document.current()});
    });
    connect(&m_document, &Document::designReplaced, this, &MainWindow::leaveGallery);
    connect(m_shelf, &Shelf::addWanted, this, &MainWindow::addAntenna);
    connect(&m_desk, &FileDesk::said, this, &MainWindow::say);
    connect(&m_desk, &FileDesk::recovered, this, &MainWindow::refreshAll);
    connect(&m_soon, &QTimer::timeout, this, &MainWindow::refreshAll);
    connect(&m_document, &Document::designChanged, &m_soon, qOverload<>(&QTimer::start));
    connect(&m_document, &Document::currentChanged, this, &MainWindow::refreshAll);
    connect(&m_document, &Document::bandSelected, this, &MainWindow::refreshAll);
    connect(&m_document, &Document::configurationChanged, this, &MainWindow::refreshAll);
    connect(&m_document, &Document::variantChanged, this, &MainWindow::refreshAll);
    connect(&m_document, &Document::pathChanged, this, &MainWindow::refreshAll);
    connect(&m_solver, &SolveService::curveReady, this, &MainWindow::refreshAll);
    connect(&m_solver, &SolveService::detailReady, this, &MainWindow::refreshAll);
    connect(&m_solver, &SolveService::pinChanged, this, &MainWindow::refreshAll);
    connect(&m_solver, &SolveService::stateChanged, this, [this] {
        if (!m_solver.faults().empty())
            refreshAll();
    });
    connect(&m_left, &LeftDesk::changed, this, &MainWindow::refreshAll);
    connect(&m_theme, &Theme::changed, this, [this] {
        m_theme.apply(*qApp);
        m_shelf->refreshIcons();
        m_message->setColours(m_theme.colours().petalPale, m_theme.colours().petal); // it may be on show
        refreshAll();
    });
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
    if (index < 0 || index >= stageCount())
        return;
    if (const QString complaint = takeTypedOrForget(this); !complaint.isEmpty())
        say(tr("What was typed was not taken: %1.").arg(complaint));
    m_trail->setCurrent(index);
    m_pages->setCurrentIndex(index);
    leaveGallery();
    m_message->raise(); // the stack brings the page it shows to the front
    m_ledgers->setCurrentIndex(index);
    m_stages[std::size_t(index)]->refreshAlarm();
    m_stages[std::size_t(index)]->refresh();
    m_way.visit({index, m_document.current()});
}

void MainWindow::goTo(const std::optional<WayBack::Place>& place)
{
    if (!place)
        return say(tr("There is nothing farther that way."));
    if (findAntenna(m_document.design(), place->antenna))
        m_document.setCurrent(place->antenna);
    showStage(place->stage);
}

void MainWindow::goBack() { goTo(m_way.back()); }
void MainWindow::goForward() { goTo(m_way.forward()); }

/// The mouse's own buttons, over whatever they are pressed.
bool MainWindow::goesByMouse(const QObject* watched, const QEvent& event)
{
    const auto* widget = qobject_cast<const QWidget*>(watched);
    if (event.type() != QEvent::MouseButtonPress || !widget || widget->window() != this)
        return false;
    const Qt::MouseButton button = static_cast<const QMouseEvent&>(event).button();
    if (button == Qt::BackButton)
        goBack();
    else if (button == Qt::ForwardButton)
        goForward();
    return button == Qt::BackButton || button == Qt::ForwardButton;
}

void MainWindow::showPage(const QString& stage, const QString& view)
{
    for (int i = 0; i < stageCount(); ++i)
        if (m_stages[std::size_t(i)]->id() == stage) {
            showStage(i);
            if (!view.isEmpty())
                currentStage()->showView(view);
        }
}

void MainWindow::showLeft()
{
    showPage(QStringLiteral("left"), {});
    currentStage()->canvas()->setFocus();
}

void MainWindow::refreshAll()
{
    m_soon.stop();
    m_shelf->refresh();
    m_damage->refresh();
    currentStage()->refreshAlarm();
    currentStage()->refresh();
    m_trail->refresh();
    if (galleryOpen())
        m_gallery->refresh();
    m_pin->setChecked(m_solver.pinned());
    for (ValueEdit* edit : findChildren<ValueEdit*>()) // also those that hold what no design has, and of pages not on show
        edit->setSystem(m_context.system());
    m_units->setText(m_context.system() == units::System::Metric ? tr("m") : tr("ft"));
    const QString file = m_document.path().isEmpty() ? QString() : QFileInfo(m_document.path()).fileName() + QStringLiteral(" – ");
    setWindowTitle(file + tr("Vetchling"));
}

void MainWindow::say(const QString& words)
{
    m_message->setColours(m_theme.colours().petalPale, m_theme.colours().petal);
    m_message->say(words);
}

bool MainWindow::takeTyped()
{
    const QString complaint = vetchling::app::takeTyped(this);
    if (!complaint.isEmpty())
        say(tr("First mend what is typed: %1.").arg(complaint));
    return complaint.isEmpty();
}

Design MainWindow::emptyDesign() const
{
    Design design;
    design.site.name = tr("My site").toStdString();
    design.operation.system = m_settings.system();
    design.operation.bandPlan = m_settings.bandPlan().toStdString();
    for (const BandPlan& plan : m_context.bandPlans)
        if (plan.id == design.operation.bandPlan)
            putIn(plan, design.operation.bands);
    return design;
}

void MainWindow::newSite()
{
    if (!m_desk.mayDiscard())
        return;
    NewSiteDialog dialog(m_context, emptyDesign(), this);
    if (dialog.exec() != QDialog::Accepted)
        return;
    m_settings.setBandPlan(QString::fromStdString(dialog.design().operation.bandPlan));
    m_desk.openNew(dialog.design());
    showStage(0);
    openGallery(Gallery::View::WhichOne); // the question that everybody begins with
}

void MainWindow::addAntenna() { openGallery({}); }

void MainWindow::openGallery(std::optional<Gallery::View> view)
{
    if (!takeTyped())
        return;
    m_middle->setCurrentWidget(m_gallery);
    m_message->raise();
    m_gallery->open(proposedFrequency(m_document.design().operation.bands), view);
}

void MainWindow::takeAntenna(const Antenna& antenna)
{
    const auto plan = std::find_if(m_context.bandPlans.begin(), m_context.bandPlans.end(),
                                   [&](const BandPlan& p) { return p.id == m_document.design().operation.bandPlan; });
    leaveGallery();
    m_document.addAntenna(antenna, plan == m_context.bandPlans.end() ? nullptr : &*plan);
    showStage(firstStage);
}

void MainWindow::addTunerWire()
{
    if (!takeTyped())
        return;
    const Design& design = m_document.design();
    const auto lowest =
        std::find_if(design.operation.bands.begin(), design.operation.bands.end(), [](const WantedBand& w) { return w.wish != Wish::No; });
    const double frequency = lowest == design.operation.bands.end() ? proposedFrequency(design.operation.bands) : lowest->band.centre();
    if (std::optional<Antenna> wire = advice::tunerWire(design, frequency)) {
        wire->name = tr("Wire for a tuner").toStdString();
        takeAntenna(*wire);
        showPage(QStringLiteral("bands"), QStringLiteral("finder"));
        return;
    }
    say(tr("There is no place for a wire: give the site a support first."));
}

void MainWindow::leaveGallery()
{
    m_gallery->close();
    m_middle->setCurrentIndex(0);
}

void MainWindow::duplicateAntenna()
{
    if (m_document.hasAntenna() && takeTyped())
        m_document.addAntenna(m_document.antenna());
}

void MainWindow::flipEnds()
{
    if (!m_document.hasAntenna() || !takeTyped())
        return;
    if (!m_document.flipEnds())
        say(tr("%1 has no ends to flip: it is not fed at or near one, or it hangs down where the feed would come.")
                .arg(m_document.shownName()));
}

void MainWindow::renameAntenna()
{
    if (currentStage()->rename())
        return;
    if (m_document.hasAntenna())
        m_shelf->startRename();
    else
        say(tr("There is no antenna to rename yet."));
}

void MainWindow::removeAntenna()
{
    if (!m_document.hasAntenna())
        return;
    const QString name = QString::fromStdString(m_document.antenna().name);
    m_document.removeCurrentAntenna();
    say(tr("%1 is removed; Ctrl+Z brings it back.").arg(name));
}

void MainWindow::undo()
{
    auto* field = qobject_cast<QLineEdit*>(QApplication::focusWidget());
    if (field && field->isUndoAvailable())
        field->undo();
    else
        m_document.undoStack().undo();
}

void MainWindow::redo()
{
    auto* field = qobject_cast<QLineEdit*>(QApplication::focusWidget());
    if (field && field->isRedoAvailable())
        field->redo();
    else
        m_document.undoStack().redo();
}

void MainWindow::togglePin()
{
    m_solver.pinned() ? m_solver.unpin() : m_solver.pin();
    refreshAll();
}

void MainWindow::addVariant()
{
    if (!m_document.hasAntenna()) {
        say(tr("There is no antenna to make a variant of yet."));
        return;
    }
    m_document.addVariant(tr("variant")); // title and choice beside it tell of it
}

void MainWindow::toggleSpread()
{
    m_variants.setAlways(!m_variants.always());
    m_settings.setShowsSpread(m_variants.always());
    say(m_variants.always() ? tr("A band round the curves shows where they may lie.") : tr("Curves are shown without what is unsure."));
}

void MainWindow::togglePlane()
{
    const bool radio = m_solver.plane() == SolveService::Plane::Radio;
    m_solver.setPlane(radio ? SolveService::Plane::Feedpoint : SolveService::Plane::Radio);
    say(radio ? tr("SWR is told at the feedpoint, where the line begins.")
              : tr("SWR is told at the radio, behind the chain; a tuner in the radio is not counted in."));
}

void MainWindow::toggleTheme()
{
    m_theme.setMode(m_theme.mode() == Theme::Mode::Day ? Theme::Mode::Night : Theme::Mode::Day);
    m_settings.setThemeMode(m_theme.mode());
}

void MainWindow::toggleUnits() { setUnits(m_context.system() == units::System::Metric ? m_feet : units::System::Metric); }

void MainWindow::toggleDecimalFeet()
{
    setUnits(m_context.system() == units::System::DecimalFeet ? units::System::Imperial : units::System::DecimalFeet);
}

void MainWindow::setUnits(units::System system)
{
    m_document.edit(tr("change units"), {}, [system](Design& d) { d.operation.system = system; });
    if (system != units::System::Metric)
        m_feet = system;
    m_settings.setSystem(m_context.system());
    refreshAll(); // no answer is waited for
}

void MainWindow::resizeEvent(QResizeEvent* event)
{
    QMainWindow::resizeEvent(event);
    m_trail->setNarrow(width() < roomyWidth);
    m_waiting->setNarrow(width() < roomyWidth);
}

/// A key that a drawing has got, or one of those round it that it has passed it on to.
bool MainWindow::comesFromDrawing(const QWidget& receiver) const
{
    const QWidget* focus = QApplication::focusWidget();
    const bool drawing = focus == m_strip || qobject_cast<const Canvas*>(focus);
    return drawing && (focus == &receiver || receiver.isAncestorOf(focus));
}

/// Keys that are the window's even while a field has the focus, and letters that are not.
bool MainWindow::eventFilter(QObject* watched, QEvent* event)
{
    if (goesByMouse(watched, *event))
        return true;
    if (event->type() == QEvent::ShortcutOverride)
        if (const auto* field = qobject_cast<QLineEdit*>(watched); field && belongsToWindow(*static_cast<QKeyEvent*>(event), *field)) {
            event->ignore();
            return true;
        }
    const auto* receiver = event->type() == QEvent::ShortcutOverride ? qobject_cast<const QWidget*>(watched) : nullptr;
    if (receiver && !comesFromDrawing(*receiver))
        if (const auto* key = static_cast<QKeyEvent*>(event); isPlainLetter(key->key(), key->modifiers())) {
            event->accept(); // typed, not a shortcut
            return true;
        }
    return QMainWindow::eventFilter(watched, event);
}

void MainWindow::closeEvent(QCloseEvent* event)
{
    if (!m_desk.mayDiscard()) {
        event->ignore();
        return;
    }
    m_desk.leave();
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
    if (path.isEmpty())
        return;
    const QFileInfo dropped(path);
    const QString ending = dropped.suffix().toLower();
    if (dropped.isDir() || ending == QStringLiteral("s1p") || ending == QStringLiteral("csv") || ending == QStringLiteral("txt")) {
        Stage* trim = stage(QStringLiteral("trim"));
        showPage(QStringLiteral("trim"), {});
        QMetaObject::invokeMethod(trim, dropped.isDir() ? "watch" : "takeSweepFile", Q_ARG(QString, path));
        return;
    }
    if (m_desk.mayDiscard())
        m_desk.openFile(path);
}

} // namespace vetchling::app

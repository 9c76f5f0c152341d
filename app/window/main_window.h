#pragma once
/// The window: shelf, trail, stage, ledger, band strip, and what the menu does.

#include "app/document/autosave.h"
#include "app/plots/band_strip.h"
#include "app/stages/stage.h"
#include "app/window/dialogs.h"
#include "app/window/settings.h"
#include "app/window/shelf.h"

#include <QMainWindow>
#include <QStackedWidget>
#include <QTimer>

namespace vetchling::app {

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    /// @param dataFolder where soils, bands and the demo are
    explicit MainWindow(const QString& dataFolder, const QString& autosaveFolder);
    ~MainWindow() override;

    [[nodiscard]] Document& document() { return m_document; }
    [[nodiscard]] SolveService& solver() { return m_solver; }
    [[nodiscard]] Theme& theme() { return m_theme; }
    [[nodiscard]] Stage* stage(const QString& id) const;

    void showStage(int index);
    void openDemo();
    /// Opens a file; on a fault says why and keeps what was open. True if it was opened.
    bool openFile(const QString& path);
    /// Offers what an earlier run left unsaved; true if something was recovered.
    bool recover();
    bool saveTo(const QString& path);
    /// Picture of the current stage: SVG or PNG by the file's ending.
    bool exportPicture(const QString& path);
    /// Sweep of the current antenna: CSV or Touchstone by the file's ending.
    bool exportSweep(const QString& path);
    /// A line under the shelf, with what happened and what to do; empty hides it.
    void say(const QString& words);

protected:
    void closeEvent(QCloseEvent*) override;
    void dragEnterEvent(QDragEnterEvent*) override;
    void dropEvent(QDropEvent*) override;

private:
    void loadData(const QString& folder);
    void buildStages();
    void buildTools();
    void buildMenu();
    QAction* action(const QString& words, const QKeySequence& keys, const char* objectName, std::function<void()> does);
    void refreshAll();
    void fillRecent(QMenu* menu);
    bool mayDiscard();
    void open();
    bool save();
    bool saveAs();
    void addAntenna();
    void togglePin();
    void toggleTheme();
    void toggleUnits();
    void copyPicture();

    Theme m_theme;
    Document m_document;
    SolveService m_solver;
    StageContext m_context;
    Settings m_settings;
    std::unique_ptr<Autosave> m_autosave;
    QString m_dataFolder;
    std::vector<std::unique_ptr<Stage>> m_stages;
    Shelf* m_shelf = nullptr;
    Trail* m_trail = nullptr;
    QLabel* m_message = nullptr;
    QStackedWidget *m_pages = nullptr, *m_ledgers = nullptr;
    BandStrip* m_strip = nullptr;
    QToolButton *m_undo = nullptr, *m_redo = nullptr, *m_pin = nullptr, *m_units = nullptr, *m_menuButton = nullptr;
    std::vector<Shortcut> m_shortcuts;
    QTimer m_soon; ///< refreshes after a change, unless an answer comes first
};

} // namespace vetchling::app

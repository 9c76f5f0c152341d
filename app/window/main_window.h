#pragma once
/// The window: shelf, trail, stage, ledger and band strip put together, and kept up to date.

#include "app/plots/band_strip.h"
#include "app/stages/gallery/gallery.h"
#include "app/stages/stage.h"
#include "app/window/damage_strip.h"
#include "app/window/dialogs.h"
#include "app/window/export_desk.h"
#include "app/window/file_desk.h"
#include "app/window/message.h"
#include "app/window/settings.h"
#include "app/window/shelf.h"
#include "app/window/trail.h"
#include "app/window/waiting_box.h"
#include "app/window/way_back.h"

#include <QMainWindow>
#include <QStackedWidget>
#include <QTimer>

namespace vetchling::app {

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    /// @param dataFolder where soils, bands and the demo are @param tableFolder for the soil's tables; empty: they are not kept
    /// @param soonOpened a file that will be opened next; its computation begins while the window is built
    explicit MainWindow(const QString& dataFolder, const QString& autosaveFolder, const QString& tableFolder = {},
                        const QString& soonOpened = {});
    ~MainWindow() override;

    [[nodiscard]] Document& document() { return m_document; }
    [[nodiscard]] SolveService& solver() { return m_solver; }
    [[nodiscard]] VariantsDesk& variants() { return m_variants; }
    [[nodiscard]] ShedDesk& shed() { return m_shed; }
    [[nodiscard]] LeftDesk& left() { return m_left; }
    [[nodiscard]] const AntennaModels& models() const { return m_models; }
    [[nodiscard]] Theme& theme() { return m_theme; }
    [[nodiscard]] FileDesk& fileDesk() { return m_desk; }
    /// Null where there is none of that id.
    [[nodiscard]] Stage* stage(const QString& id) const;
    [[nodiscard]] Stage* currentStage() const { return m_stages[std::size_t(m_trail->current())].get(); }
    [[nodiscard]] int stageCount() const { return int(m_stages.size()); }
    [[nodiscard]] QString stageName(int index) const { return m_stages[std::size_t(index)]->name(); }

    /// What a new site starts from: the units and bands used last.
    [[nodiscard]] Design emptyDesign() const;
    void newSite();
    /// A field's own unconfirmed typing first, then the document.
    void undo();
    void redo();
    void renameAntenna();
    void removeAntenna();
    void showStage(int index);
    /// Through the stages and antennas that were on show.
    void goBack();
    void goForward();
    /// A stage and one of its views, by their ids; nothing for a stage that is none. @param view empty: the one that is on show there
    void showPage(const QString& stage, const QString& view);
    /// The list of what is left to do.
    void showLeft();
    void showMenu() { m_menuButton->showMenu(); }
    /// Opens the gallery.
    void addAntenna();
    [[nodiscard]] bool galleryOpen() const { return m_middle->currentIndex() != 0; }
    [[nodiscard]] Gallery& gallery() { return *m_gallery; }
    void duplicateAntenna();
    void flipEnds();
    /// A wire for a tuner, hung as the gallery would, on the view that finds its length.
    void addTunerWire();
    void togglePin();
    void addVariant();
    void toggleSpread();
    void togglePlane();
    [[nodiscard]] bool spreadShown() const { return m_variants.always(); }
    void toggleTheme();
    void toggleUnits();
    /// Feet with decimals, or with inches and their parts.
    void toggleDecimalFeet();
    [[nodiscard]] ExportDesk& exports() { return m_exports; }
    /// A line over the page, with what happened and what to do; empty takes it back.
    void say(const QString& words);
    /// Takes what is typed in any field; false, with the complaint said, if something cannot be taken.
    bool takeTyped();

protected:
    void closeEvent(QCloseEvent*) override;
    void dragEnterEvent(QDragEnterEvent*) override;
    void dropEvent(QDropEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void setUnits(units::System system);
    void goTo(const std::optional<WayBack::Place>& place);
    bool goesByMouse(const QObject* watched, const QEvent& event);
    WayBack m_way;
    units::System m_feet = units::System::Imperial; ///< how feet were told last
    [[nodiscard]] bool comesFromDrawing(const QWidget& receiver) const;
    void loadData(const QString& folder);
    void buildStages();
    void layOut();
    void buildTools();
    void listen();
    void refreshAll();
    void takeAntenna(const Antenna& antenna);
    void openGallery(std::optional<Gallery::View> view);
    void leaveGallery();

    Theme m_theme;
    Document m_document;
    ShedDesk m_shed;
    AntennaModels m_models;
    SolveService m_solver;
    VariantsDesk m_variants;
    LeftDesk m_left;
    ViewContext m_context;
    Settings m_settings;
    FileDesk m_desk;
    ExportDesk m_exports{*this};
    std::vector<std::unique_ptr<Stage>> m_stages;
    Shelf* m_shelf = nullptr;
    Trail* m_trail = nullptr;
    WaitingBox* m_waiting = nullptr;
    Message* m_message = nullptr;
    QStackedWidget *m_pages = nullptr, *m_ledgers = nullptr, *m_middle = nullptr;
    Gallery* m_gallery = nullptr;
    BandStrip* m_strip = nullptr;
    DamageStrip* m_damage = nullptr;
    QToolButton *m_undo = nullptr, *m_redo = nullptr, *m_pin = nullptr, *m_units = nullptr, *m_menuButton = nullptr;
    std::vector<Shortcut> m_shortcuts;
    QTimer m_soon; ///< refreshes after a change, unless an answer comes first
};

} // namespace vetchling::app

#include "app/window/main_menu.h"

#include "app/widgets/typed.h"
#include "app/window/damage_dialog.h"
#include "app/window/main_window.h"

#include <QAction>
#include <QApplication>
#include <QClipboard>
#include <QMenu>

namespace vetchling::app {
namespace {

class Maker {
    Q_DECLARE_TR_FUNCTIONS(MainMenu)
public:
    Maker(MainWindow& window, std::vector<Shortcut>& shortcuts) : m_window(window), m_shortcuts(shortcuts), m_menu(new QMenu(&window)) {}

    QMenu* run()
    {
        addFiles();
        m_menu->addSeparator();
        addAntennas();
        m_menu->addSeparator();
        addExports();
        m_menu->addSeparator();
        addViews();
        m_menu->addSeparator();
        addHelp();
        addKeysOnly();
        return m_menu;
    }

private:
    using Does = std::function<void()>;

    QAction* keyed(const QString& words, const QKeySequence& keys, const char* objectName, Does does)
    {
        auto* action = new QAction(words, &m_window);
        action->setObjectName(QLatin1String(objectName));
        action->setShortcut(keys);
        QObject::connect(action, &QAction::triggered, &m_window, [does = std::move(does)] { does(); });
        m_window.addAction(action);
        if (!keys.isEmpty())
            m_shortcuts.push_back({keys.toString(QKeySequence::NativeText),
                                   isPlainLetter(keys[0].key(), keys[0].keyboardModifiers())
                                       ? tr("%1 (with the drawing in focus)").arg(QString(words).remove(QStringLiteral(" …")))
                                       : QString(words).remove(QStringLiteral(" …"))});
        return action;
    }

    void add(const QString& words, const QKeySequence& keys, const char* objectName, Does does)
    {
        m_menu->addAction(keyed(words, keys, objectName, std::move(does)));
    }

    void addFiles()
    {
        MainWindow& w = m_window;
        FileDesk& desk = w.fileDesk();
        add(tr("New site …"), QKeySequence::New, "actionNew", [&w] { w.newSite(); });
        add(tr("Open …"), QKeySequence::Open, "actionOpen", [&desk] { desk.open(); });
        auto* recent = m_menu->addMenu(tr("Recent files"));
        QObject::connect(recent, &QMenu::aboutToShow, &m_window, [&desk, recent] { desk.fillRecent(recent); });
        add(tr("Save"), QKeySequence::Save, "actionSave", [&desk] { desk.save(); });
        add(tr("Save as …"), QKeySequence(tr("Ctrl+Shift+S")), "actionSaveAs", [&desk] { desk.saveAs(); });
        add(tr("What could not be read …"), {}, "actionDamage", [&w] { makeDamageDialog(w.document(), &w)->show(); });
        QObject::connect(m_menu, &QMenu::aboutToShow, &w,
                         [&w, damage = m_menu->actions().back()] { damage->setVisible(w.document().damage() != nullptr); });
        add(tr("Open the demo, Gannet Skerry"), {}, "actionDemo", [&desk] {
            if (desk.mayDiscard())
                desk.openDemo();
        });
    }

    void addAntennas()
    {
        MainWindow& w = m_window;
        add(tr("Add an antenna …"), QKeySequence(tr("Ctrl+Shift+A")), "actionAdd", [&w] { w.addAntenna(); });
        add(tr("Add a wire for a tuner"), {}, "actionTunerWire", [&w] { w.addTunerWire(); });
        add(tr("Duplicate this antenna"), QKeySequence(tr("Ctrl+Shift+D")), "actionDuplicate", [&w] { w.duplicateAntenna(); });
        add(tr("Rename"), QKeySequence(tr("F2")), "actionRename", [&w] { w.renameAntenna(); });
        add(tr("Flip ends"), {}, "actionFlip", [&w] { w.flipEnds(); });
        add(tr("Remove this antenna"), {}, "actionRemove", [&w] { w.removeAntenna(); });
    }

    void addExports()
    {
        MainWindow& w = m_window;
        add(tr("Save the picture …"), QKeySequence(tr("Ctrl+E")), "actionPicture", [&w] { w.exports().picture(); });
        add(tr("Copy the picture"), QKeySequence(tr("Ctrl+Shift+C")), "actionCopyPicture", [&w] { w.exports().copyPicture(); });
        add(tr("Copy the figures as a table"), QKeySequence(tr("Ctrl+Shift+T")), "actionCopyTable",
            [&w] { QApplication::clipboard()->setText(w.currentStage()->tableText()); });
        add(tr("Save the sweep …"), QKeySequence(tr("Ctrl+Shift+E")), "actionSweep", [&w] { w.exports().sweep(); });
    }

    void addViews()
    {
        MainWindow& w = m_window;
        add(tr("Back"), QKeySequence(tr("Alt+Left")), "actionBack", [&w] { w.goBack(); });
        add(tr("Forward"), QKeySequence(tr("Alt+Right")), "actionForward", [&w] { w.goForward(); });
        add(tr("What is left to do"), QKeySequence(tr("Ctrl+J")), "actionLeft", [&w] { w.showLeft(); });
        add(tr("Pin or unpin this design"), QKeySequence(tr("P")), "actionPin", [&w] { w.togglePin(); });
        add(tr("New variant of this antenna"), QKeySequence(tr("V")), "actionVariant", [&w] { w.addVariant(); });
        QAction* sure = keyed(tr("Show how sure it is"), QKeySequence(tr("Ctrl+Shift+H")), "actionSpread", [&w] { w.toggleSpread(); });
        sure->setCheckable(true);
        sure->setChecked(w.spreadShown());
        m_menu->addAction(sure);
        add(tr("SWR at the feedpoint or at the radio"), QKeySequence(tr("R")), "actionPlane", [&w] { w.togglePlane(); });
        add(tr("Feet with decimals or inches"), {}, "actionDecimalFeet", [&w] { w.toggleDecimalFeet(); });
        add(tr("Metres or feet"), QKeySequence(tr("Ctrl+U")), "actionUnits", [&w] { w.toggleUnits(); });
        add(tr("Day or night"), QKeySequence(tr("Ctrl+D")), "actionTheme", [&w] { w.toggleTheme(); });
    }

    void addHelp()
    {
        MainWindow& w = m_window;
        add(tr("Keys"), QKeySequence::HelpContents, "actionKeys", [&w, &keys = m_shortcuts] { makeShortcutSheet(keys, &w)->show(); });
        add(tr("About Vetchling"), {}, "actionAbout", [&w] { makeAbout(&w)->show(); });
        add(tr("Quit"), QKeySequence::Quit, "actionQuit", [&w] { w.close(); });
    }

    void addKeysOnly()
    {
        MainWindow& w = m_window;
        keyed(tr("Undo"), QKeySequence::Undo, "actionUndo", [&w] { w.undo(); });
        keyed(tr("Redo"), QKeySequence::Redo, "actionRedo", [&w] { w.redo(); });
        keyed(tr("Menu"), QKeySequence(tr("F10")), "actionMenu", [&w] { w.showMenu(); });
        for (int i = 0; i < w.stageCount(); ++i)
            keyed(tr("Stage: %1").arg(w.stageName(i)), QKeySequence(tr("Ctrl+%1").arg(i + 1)), "", [&w, i] { w.showStage(i); });
        keyed(tr("Next antenna"), QKeySequence(tr("Ctrl+PgDown")), "", [&w] { w.document().stepCurrent(1); });
        keyed(tr("Antenna before"), QKeySequence(tr("Ctrl+PgUp")), "", [&w] { w.document().stepCurrent(-1); });
        keyed(tr("Next variant"), QKeySequence(tr("Shift+V")), "actionNextVariant", [&w] { w.document().stepVariant(1); });
        m_shortcuts.push_back({tr("Up, Down, wheel"), tr("Step a value; with Shift finer")});
        m_shortcuts.push_back({tr("Left, Right"), tr("Band before or after, in the strip")});
        m_shortcuts.push_back({tr("Space, arrows"), tr("Next ring of the drawing, and move it")});
        m_shortcuts.push_back({tr("Delete"), tr("The corner of that ring, of a wire drawn by hand")});
        m_shortcuts.push_back({tr("Arrows, Enter"), tr("A length on the map, a setting, a cure, a choice: choose and take")});
        m_shortcuts.push_back({tr("Insert, Delete"), tr("A part of the chain; with Shift and an arrow it moves")});
    }

    MainWindow& m_window;
    std::vector<Shortcut>& m_shortcuts;
    QMenu* m_menu;
};

} // namespace

QMenu* makeMainMenu(MainWindow& window, std::vector<Shortcut>& shortcuts) { return Maker(window, shortcuts).run(); }

} // namespace vetchling::app

#pragma once
/// Opening, saving, recovering, and never losing what is not saved.

#include "app/document/autosave.h"
#include "app/window/settings.h"

#include <QObject>

#include <functional>
#include <optional>

class QMenu;
class QWidget;

namespace vetchling::app {

class FileDesk : public QObject {
    Q_OBJECT
public:
    /// @param window parent of the dialogs
    FileDesk(Document& document, Settings& settings, const QString& dataFolder, const QString& autosaveFolder, QWidget* window);

    /// Called before anything is saved, left or replaced: takes what is typed and not confirmed; false to stay.
    void setSettle(std::function<bool()> settle) { m_settle = std::move(settle); }

    static QString demoPath(const QString& dataFolder);
    /// In the units used last, unless others are said.
    void openDemo(std::optional<units::System> system = {});
    void openNew(Design design);
    /// Opens a file, or what an earlier run left unsaved of it if that is wanted; on a fault says why and keeps what was open. True if
    /// it was opened.
    bool openFile(const QString& path);
    /// Brings back what an earlier run left unsaved; true if there was something.
    bool recover();
    bool saveTo(const QString& path);
    void open();
    bool save();
    bool saveAs();
    /// Asks where there are unsaved changes; false if the user wants to stay.
    bool mayDiscard();
    /// A clean end: no copy for recovery stays.
    void leave() { m_autosave.discard(); }
    void fillRecent(QMenu* menu);

signals:
    /// Something to tell the user; empty takes the last back.
    void said(const QString& words);
    void recovered();

private:
    enum class Copy { None, Opened, Refused };
    Copy offerCopy(const QString& path);
    bool openCopy(const Autosave::LeftBehind& left);
    bool openDamagedCopy(const Autosave::LeftBehind& left, const Result<Design>& read);
    void saveCopyElsewhere(const Autosave::LeftBehind& left);
    bool settleWithOthers(const QString& path);

    Document& m_document;
    Settings& m_settings;
    QString m_dataFolder;
    QWidget* m_window;
    Autosave m_autosave;
    std::function<bool()> m_settle;
    QString m_keptBeside; ///< where somebody else's version went at the last saving
};

} // namespace vetchling::app

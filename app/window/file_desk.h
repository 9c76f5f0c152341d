#pragma once
/// Opening, saving, recovering, and never losing what is not saved.

#include "app/document/autosave.h"
#include "app/window/settings.h"

#include <QObject>

class QMenu;
class QWidget;

namespace vetchling::app {

class FileDesk : public QObject {
    Q_OBJECT
public:
    /// @param window parent of the dialogs
    FileDesk(Document& document, Settings& settings, const QString& dataFolder, const QString& autosaveFolder, QWidget* window);

    void openDemo();
    /// Opens a file; on a fault says why and keeps what was open. True if it was opened.
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
    Document& m_document;
    Settings& m_settings;
    QString m_dataFolder;
    QWidget* m_window;
    Autosave m_autosave;
};

} // namespace vetchling::app

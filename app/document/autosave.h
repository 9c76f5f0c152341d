#pragma once
/// Keeps a copy of unsaved work on disk, so that a crash or a power cut loses at most two seconds.

#include "app/document/document.h"

#include <QLockFile>
#include <QTimer>

#include <optional>

namespace vetchling::app {

class Autosave : public QObject {
    Q_OBJECT
public:
    /// @param folder where copies are kept; made if missing
    Autosave(Document& document, const QString& folder, QObject* parent = nullptr);
    ~Autosave() override;

    struct Recovered {
        QString design;       ///< text of the design file
        QString originalPath; ///< where it was saved before; may be empty
    };
    /// The newest copy left behind by a run that did not end well; it is removed from disk.
    std::optional<Recovered> takeLeftBehind();
    /// Writes now if there is unsaved work, else removes the copy.
    void write();
    /// Ends well: no copy stays.
    void discard();
    [[nodiscard]] QString path() const { return m_path; }

private:
    Document& m_document;
    QString m_folder, m_path;
    QLockFile m_lock; ///< held while this run lives: its copy is not one left behind
    QTimer m_timer;
};

} // namespace vetchling::app

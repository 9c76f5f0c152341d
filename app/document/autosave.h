#pragma once
/// Keeps a copy of unsaved work on disk, so that a crash or a power cut loses no more than two seconds.

#include "app/document/document.h"

#include <QDateTime>
#include <QElapsedTimer>
#include <QLockFile>
#include <QTimer>

#include <future>
#include <optional>

namespace vetchling::app {

class Autosave : public QObject {
    Q_OBJECT
public:
    /// When a copy is written: after a pause in the editing, but not later than that, ms.
    struct Pauses {
        int quiet = 1000, longest = 1500;
    };
    /// @param folder where copies are kept; made if missing
    Autosave(Document& document, const QString& folder, const Pauses& pauses, QObject* parent = nullptr);
    Autosave(Document& document, const QString& folder, QObject* parent = nullptr) : Autosave(document, folder, Pauses(), parent) {}
    ~Autosave() override;

    struct LeftBehind {
        QString copy;         ///< its file
        std::string design;   ///< text of the design file
        QString originalPath; ///< where it was saved before; may be empty
        QDateTime when;
    };
    /// The newest copy that a run which did not end well left behind; it stays on disk.
    /// @param original only a copy of that file; empty: of any
    [[nodiscard]] std::optional<LeftBehind> leftBehind(const QString& original = {}) const;
    /// What it holds is open now: this run's own copy takes its place, as soon as that is on the disk.
    void adopt(const LeftBehind& left);
    /// The copy is not wanted.
    static void refuse(const LeftBehind& left);
    /// Writes now if there is unsaved work, on a thread of its own; else removes the copy.
    void write();
    /// Waits for what is being written.
    void finish();
    /// Ends well: no copy stays.
    void discard();
    [[nodiscard]] QString path() const { return m_path; }

signals:
    /// The copy cannot be written, and why.
    void failed(const QString& words);

private:
    void changed();
    void written(const Faults& faults);

    Document& m_document;
    QString m_folder;
    Pauses m_pauses;
    QString m_path;
    QLockFile m_lock; ///< held while this run lives: its copy is not one left behind
    QTimer m_timer;
    QElapsedTimer m_unwritten; ///< since the first change that is not in the copy
    std::future<Faults> m_writing; ///< valid until it was taken
    bool m_again = false;          ///< there is newer work than what is being written
    QString m_adopted;             ///< a copy left behind that goes when this run's own is on the disk
    bool m_failing = false;
};

} // namespace vetchling::app

#pragma once
/// A folder that an analyser's program saves into: says which file is new there or was saved again, once it is no longer written to.

#include "core/files/writer.h"

#include <QFileSystemWatcher>
#include <QObject>
#include <QString>
#include <QStringList>
#include <QTimer>

#include <map>

namespace vetchling::app {

class WatchedFolder : public QObject {
    Q_OBJECT
public:
    /// @param names of the files that count: "*.s1p"
    explicit WatchedFolder(QStringList names, QObject* parent = nullptr);

    /// What is there already does not count until it is saved again. False where the folder cannot be read.
    bool watch(const QString& folder);
    [[nodiscard]] const QString& folder() const { return m_folder; }
    /// How long a file must stay as it is, and how often is looked, ms.
    void setPauses(int settled, int between);

signals:
    /// Of a file that is whole, as far as can be seen from outside.
    void saved(const QString& path);
    /// It was taken away, or cannot be read any more.
    void lost(const QString& folder);

private:
    void look();
    [[nodiscard]] std::map<QString, files::FileState> states() const;

    QStringList m_names;
    QString m_folder;
    QFileSystemWatcher m_watcher;
    QTimer m_again;
    int m_settled = 400, m_between = 1500;
    std::map<QString, files::FileState> m_known, m_moving; ///< by name: as it was told, and as it was at the last look
};

} // namespace vetchling::app

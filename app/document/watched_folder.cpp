#include "app/document/watched_folder.h"

#include <QDir>

namespace vetchling::app {

WatchedFolder::WatchedFolder(QStringList names, QObject* parent) : QObject(parent), m_names(std::move(names))
{
    m_again.setSingleShot(true);
    connect(&m_again, &QTimer::timeout, this, &WatchedFolder::look);
    connect(&m_watcher, &QFileSystemWatcher::directoryChanged, this, &WatchedFolder::look); // sooner than the next look; not of every disk
}

void WatchedFolder::setPauses(int settled, int between)
{
    m_settled = settled;
    m_between = between;
}

std::map<QString, files::FileState> WatchedFolder::states() const
{
    std::map<QString, files::FileState> out;
    const QStringList names = QDir(m_folder).entryList(m_names, QDir::Files, QDir::Time | QDir::Reversed);
    for (const QString& name : names)
        out[name] = files::stateOf(QDir(m_folder).filePath(name).toStdString());
    return out;
}

bool WatchedFolder::watch(const QString& folder)
{
    if (!QDir(folder).isReadable())
        return false;
    if (!m_watcher.directories().isEmpty())
        m_watcher.removePaths(m_watcher.directories());
    m_watcher.addPath(folder);
    m_folder = folder;
    m_known = states();
    m_moving.clear();
    m_again.start(m_between);
    return true;
}

/// A file is told when it is another one than before and the same as at the last look.
void WatchedFolder::look()
{
    if (!QDir(m_folder).isReadable()) {
        m_again.stop();
        emit lost(std::exchange(m_folder, {}));
        return;
    }
    std::map<QString, files::FileState> moving;
    QStringList ready;
    for (const auto& [name, state] : states()) {
        if (const auto known = m_known.find(name); known != m_known.end() && known->second == state)
            continue;
        if (const auto before = m_moving.find(name); before != m_moving.end() && before->second == state && !m_again.isActive()) {
            m_known[name] = state;
            ready << name;
        } else {
            moving[name] = state;
        }
    }
    const bool waits = !moving.empty();
    m_moving = std::move(moving);
    if (const int wait = waits ? m_settled : m_between; !m_again.isActive() || m_again.remainingTime() > wait)
        m_again.start(wait);
    for (const QString& name : ready)
        emit saved(QDir(m_folder).filePath(name));
}

} // namespace vetchling::app

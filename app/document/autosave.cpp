#include "app/document/autosave.h"

#include "core/files/design_file.h"
#include "core/files/writer.h"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QPointer>

#include <algorithm>
#include <utility>

namespace vetchling::app {
namespace {

const QString suffix = QStringLiteral(".unsaved");

QString lockOf(const QString& copy) { return copy + QStringLiteral(".lock"); }

/// Whether the run that wrote a copy has ended.
bool isLeftBehind(const QString& copy)
{
    QLockFile lock(lockOf(copy));
    lock.setStaleLockTime(0);
    return lock.tryLock(0);
}

} // namespace

Autosave::Autosave(Document& document, const QString& folder, const Pauses& pauses, QObject* parent)
    : QObject(parent), m_document(document), m_folder(folder), m_pauses(pauses),
      m_path(QDir(folder).filePath(QStringLiteral("%1-%2").arg(QCoreApplication::applicationPid()).arg(quintptr(this)) + suffix)),
      m_lock(lockOf(m_path))
{
    QDir().mkpath(folder);
    m_lock.setStaleLockTime(0);
    m_lock.tryLock(0);
    m_timer.setSingleShot(true);
    connect(&m_timer, &QTimer::timeout, this, &Autosave::write);
    connect(&m_document, &Document::designChanged, this, &Autosave::changed);
}

/// After a pause in the editing, but not later than that.
void Autosave::changed()
{
    if (!m_timer.isActive())
        m_unwritten.start();
    m_timer.start(std::clamp(m_pauses.longest - int(m_unwritten.elapsed()), 0, m_pauses.quiet));
}

Autosave::~Autosave()
{
    if (m_writing.valid())
        m_writing.wait();
}

/// First line: the path it belongs to; the rest: the design file.
void Autosave::write()
{
    if (m_writing.valid()) {
        m_again = true;
        return;
    }
    if (!m_document.modified()) {
        QFile::remove(m_path);
        return;
    }
    const bool cut = m_document.damage() && m_document.damage()->cutShort; // what is left of a file must not be saved over it later
    const std::string original = cut ? std::string() : m_document.path().toStdString();
    m_writing = std::async(std::launch::async, [guard = QPointer<Autosave>(this), path = m_path.toStdString(), original,
                                                design = m_document.storedSnapshot()] {
        Faults faults = files::writeWhole(path, original + '\n' + files::writeDesign(*design));
        QMetaObject::invokeMethod(
            QCoreApplication::instance(),
            [guard] {
                if (guard)
                    guard->finish();
            },
            Qt::QueuedConnection);
        return faults;
    });
}

void Autosave::finish()
{
    if (m_writing.valid())
        written(m_writing.get());
}

void Autosave::written(const Faults& faults)
{
    if (!faults.empty() && !m_failing)
        emit failed(
            tr("No copy of unsaved work can be kept in %1; save it yourself, and check that the folder can be written.").arg(m_folder));
    m_failing = !faults.empty();
    if (!m_failing && !m_adopted.isEmpty())
        QFile::remove(std::exchange(m_adopted, {}));
    if (std::exchange(m_again, false))
        write();
}

void Autosave::discard()
{
    m_timer.stop();
    m_again = false;
    finish();
    QFile::remove(m_path);
}

std::optional<Autosave::LeftBehind> Autosave::leftBehind(const QString& original) const
{
    const QFileInfoList found = QDir(m_folder).entryInfoList({QStringLiteral("*") + suffix}, QDir::Files, QDir::Time);
    for (const QFileInfo& info : found) {
        QFile file(info.filePath());
        if (info.filePath() == m_path || !isLeftBehind(info.filePath()) || !file.open(QIODevice::ReadOnly))
            continue;
        const QString path = QString::fromUtf8(file.readLine()).trimmed();
        if (original.isEmpty() || path == original)
            return LeftBehind{info.filePath(), file.readAll().toStdString(), path, info.lastModified()};
    }
    return std::nullopt;
}

void Autosave::adopt(const LeftBehind& left)
{
    m_adopted = left.copy;
    write();
}

void Autosave::refuse(const LeftBehind& left) { QFile::remove(left.copy); }

} // namespace vetchling::app

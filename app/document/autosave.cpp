#include "app/document/autosave.h"

#include "core/files/design_file.h"
#include "core/files/writer.h"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QFileInfo>

namespace vetchling::app {
namespace {

constexpr int quietMilliseconds = 2000;
const QString suffix = QStringLiteral(".unsaved");

QString lockOf(const QString& copy) { return copy + QStringLiteral(".lock"); }

/// Whether the run that wrote a copy has ended.
bool leftBehind(const QString& copy)
{
    QLockFile lock(lockOf(copy));
    lock.setStaleLockTime(0);
    return lock.tryLock(0);
}

} // namespace

Autosave::Autosave(Document& document, const QString& folder, QObject* parent)
    : QObject(parent), m_document(document), m_folder(folder),
      m_path(QDir(folder).filePath(QStringLiteral("%1-%2").arg(QCoreApplication::applicationPid()).arg(quintptr(this)) + suffix)),
      m_lock(lockOf(m_path))
{
    QDir().mkpath(folder);
    m_lock.setStaleLockTime(0);
    m_lock.tryLock(0);
    m_timer.setSingleShot(true);
    m_timer.setInterval(quietMilliseconds);
    connect(&m_timer, &QTimer::timeout, this, &Autosave::write);
    connect(&m_document, &Document::designChanged, &m_timer, qOverload<>(&QTimer::start));
}

Autosave::~Autosave() = default;

/// First line: the path it belongs to; the rest: the design file.
void Autosave::write()
{
    if (!m_document.modified()) {
        QFile::remove(m_path);
        return;
    }
    files::writeWhole(m_path.toStdString(), m_document.path().toStdString() + '\n' + files::writeDesign(m_document.design()));
}

void Autosave::discard()
{
    m_timer.stop();
    QFile::remove(m_path);
}

std::optional<Autosave::Recovered> Autosave::takeLeftBehind()
{
    const QFileInfoList found = QDir(m_folder).entryInfoList({QStringLiteral("*") + suffix}, QDir::Files, QDir::Time);
    for (const QFileInfo& info : found) {
        if (info.filePath() == m_path || !leftBehind(info.filePath()))
            continue;
        QFile file(info.filePath());
        if (!file.open(QIODevice::ReadOnly))
            continue;
        const QString path = QString::fromUtf8(file.readLine()).trimmed();
        const QString design = QString::fromUtf8(file.readAll());
        file.remove();
        return Recovered{design, path};
    }
    return std::nullopt;
}

} // namespace vetchling::app

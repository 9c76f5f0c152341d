#include "app/document/autosave.h"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QSaveFile>

#include <csignal>

namespace vetchling::app {
namespace {

constexpr int quietMilliseconds = 2000;
const QString suffix = QStringLiteral(".unsaved");

bool alive(qint64 pid) { return pid > 0 && ::kill(pid_t(pid), 0) == 0; }

} // namespace

Autosave::Autosave(Document& document, const QString& folder, QObject* parent) : QObject(parent), m_document(document), m_folder(folder)
{
    QDir().mkpath(folder);
    m_path = QDir(folder).filePath(QString::number(QCoreApplication::applicationPid()) + suffix);
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
    QSaveFile file(m_path);
    if (!file.open(QIODevice::WriteOnly))
        return;
    file.write(m_document.path().toUtf8() + '\n');
    file.write(QByteArray::fromStdString(files::writeDesign(m_document.design())));
    file.commit();
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
        if (info.filePath() == m_path || alive(info.completeBaseName().toLongLong()))
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

#include "app/document/stand_in.h"

#include "core/files/design_file.h"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QLocalSocket>
#include <QTimer>
#include <QUuid>

#include <cerrno>
#include <csignal>
#include <unistd.h>

namespace vetchling::app {
namespace {

constexpr int patience = 2000; // ms

/// The same antenna comes out the same way each time.
unsigned seedOf(const Id& antenna)
{
    unsigned seed = 2166136261u;
    for (unsigned char c : antenna)
        seed = (seed ^ c) * 16777619u;
    return seed;
}

QString folderPrefix() { return QStringLiteral("vetchling-standin-"); }

bool runs(qint64 process) { return ::kill(pid_t(process), 0) == 0 || errno != ESRCH; }

} // namespace

void StandIn::clearLeftovers()
{
    for (const QFileInfo& folder :
         QDir::temp().entryInfoList({folderPrefix() + QLatin1Char('*')}, QDir::Dirs | QDir::NoDotAndDotDot | QDir::NoSymLinks)) {
        bool number = false;
        const qint64 process = folder.fileName().mid(folderPrefix().size()).section(QLatin1Char('-'), 0, 0).toLongLong(&number);
        if (number && process > 0 && folder.ownerId() == ::getuid() && !runs(process))
            QDir(folder.absoluteFilePath()).removeRecursively();
    }
}

StandIn::StandIn(QObject* parent) : QObject(parent) {}
StandIn::~StandIn() { stop(); }

void StandIn::stop()
{
    m_antenna.clear();
    m_connected = false;
    if (!m_process)
        return;
    m_line.reset();
    m_process->disconnect(this);
    connect(m_process, &QProcess::finished, m_process, &QObject::deleteLater); // nobody waits for its end
    m_process->kill();
    m_process = nullptr;
}

void StandIn::start(const QString& kind, const Design& design, const Id& antenna)
{
    if (m_process && m_antenna == antenna)
        return;
    stop();
    if (!m_folder)
        m_folder = std::make_unique<QTemporaryDir>(QDir::temp().filePath(folderPrefix() + QStringLiteral("%1-XXXXXX").arg(::getpid())));
    const QString file = m_folder->filePath(QStringLiteral("as-planned.vetchling"));
    if (const Faults faults = files::saveDesign(design, file.toStdString()); !faults.empty()) {
        emit stopped(QString::fromStdString(faults.front().text()));
        return;
    }
    m_antenna = antenna;
    const QString socket = m_folder->filePath(QUuid::createUuid().toString(QUuid::Id128).left(8));
    m_process = new QProcess(this);
    m_process->setProgram(QFileInfo(QCoreApplication::applicationDirPath() + QStringLiteral("/vetchling-standin")).absoluteFilePath());
    m_process->setArguments({kind, QStringLiteral("--design"), file, QStringLiteral("--antenna"), QString::fromStdString(antenna),
                             QStringLiteral("--seed"), QString::number(seedOf(antenna)), QStringLiteral("--listen"), socket});
    connect(m_process, &QProcess::readyReadStandardOutput, this, [this, socket] {
        if (!m_connected && m_process->readAllStandardOutput().contains("listening"))
            connectTo(socket);
    });
    connect(m_process, &QProcess::errorOccurred, this, [this](QProcess::ProcessError error) {
        if (error != QProcess::FailedToStart)
            return;
        const QString program = m_process->program();
        stop();
        emit stopped(tr("The stand-in is not there: %1").arg(program));
    });
    connect(m_process, &QProcess::finished, this, [this] {
        const QString words = QString::fromUtf8(m_process->readAllStandardError()).trimmed();
        stop();
        emit stopped(words.isEmpty() ? tr("The stand-in has stopped; press again to start it anew.") : words);
    });
    m_process->start();
}

void StandIn::connectTo(const QString& socket)
{
    auto opened = std::make_unique<QLocalSocket>();
    QLocalSocket* line = opened.get();
    m_line = std::move(opened);
    m_connected = true;
    connect(line, &QLocalSocket::connected, this, [this, line] {
        line->disconnect(this);
        emit ready();
    });
    connect(line, &QLocalSocket::errorOccurred, this, [this, line] { giveUp(line->errorString()); });
    QTimer::singleShot(patience, line, [this, line] {
        if (m_line.get() == line && line->state() != QLocalSocket::ConnectedState)
            giveUp(tr("it takes too long"));
    });
    line->connectToServer(socket);
}

void StandIn::giveUp(const QString& why)
{
    if (m_line) { // it is the one that says so
        m_line->disconnect(this);
        m_line.release()->deleteLater();
    }
    stop();
    emit stopped(tr("The stand-in does not answer: %1").arg(why));
}

QStringList handlingLines(const Handling& handling, double coax, std::size_t configuration)
{
    QStringList lines;
    for (const auto& [key, change] : handling.changes)
        lines << QStringLiteral("WORLD:CHANGE %1,%2").arg(QString::fromStdString(key)).arg(change, 0, 'g', 12);
    return lines << QStringLiteral("WORLD:HIGHER %1").arg(handling.higher, 0, 'g', 12)
                 << QStringLiteral("WORLD:HAND %1").arg(handling.handNear ? 1 : 0) << QStringLiteral("WORLD:COAX %1").arg(coax, 0, 'g', 12)
                 << QStringLiteral("WORLD:CONFIGURATION %1").arg(configuration + 1);
}

} // namespace vetchling::app

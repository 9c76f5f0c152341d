#include "app/document/shed_desk.h"

#include "core/files/shed_file.h"
#include "core/files/writer.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>

namespace vetchling::app {

ShedDesk::ShedDesk(const QString& path, QObject* parent) : QObject(parent), m_path(path)
{
    if (m_path.isEmpty() || !QFile::exists(m_path))
        return;
    const Result<Shed> read = files::readShed(m_path.toStdString());
    if (read)
        m_shed = *read;
    else
        m_complaint = QString::fromStdString(read.firstFault());
}

void ShedDesk::edit(const std::function<void(Shed&)>& change)
{
    Shed after = m_shed;
    change(after);
    if (after == m_shed)
        return;
    if (!m_complaint.isEmpty() && QFile::exists(m_path)) { // what could not be read is not lost
        const QString kept = QString::fromStdString(files::freeFileName(m_path.toStdString()));
        if (!QFile::copy(m_path, kept)) {
            m_complaint = tr("%1 cannot be read, and no copy of it can be kept in its folder; nothing was written.").arg(m_path);
            emit changed();
            return;
        }
    }
    m_shed = std::move(after);
    m_complaint.clear();
    if (!m_path.isEmpty()) {
        QDir().mkpath(QFileInfo(m_path).path());
        if (const Faults faults = files::saveShed(m_shed, m_path.toStdString()); !faults.empty())
            m_complaint = QString::fromStdString(faults.front().text());
    }
    emit changed();
}

QString ShedDesk::take(const QString& path)
{
    const Result<Shed> read = files::readShed(path.toStdString());
    if (!read)
        return QString::fromStdString(read.firstFault());
    edit([&](Shed& shed) { shed = *read; });
    return {};
}

} // namespace vetchling::app

#include "app/window/file_desk.h"

#include "core/files/design_file.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>

namespace vetchling::app {
namespace {

QString filter() { return QObject::tr("Vetchling designs (*.vetchling)"); }

} // namespace

FileDesk::FileDesk(Document& document, Settings& settings, const QString& dataFolder, const QString& autosaveFolder, QWidget* window)
    : QObject(window), m_document(document), m_settings(settings), m_dataFolder(dataFolder), m_window(window),
      m_autosave(document, autosaveFolder)
{
}

void FileDesk::openDemo()
{
    Result<Design> demo = files::readDesign(QDir(m_dataFolder).filePath(QStringLiteral("demo/gannet-skerry.vetchling")).toStdString());
    if (!demo) {
        emit said(QString::fromStdString(demo.firstFault()));
        return;
    }
    m_document.setDesign(std::move(demo).value(), {});
    emit said({});
}

bool FileDesk::openFile(const QString& path)
{
    if (const Faults faults = m_document.open(path); !faults.empty()) {
        QStringList words;
        for (std::size_t i = 0; i < faults.size() && i < 3; ++i)
            words << QString::fromStdString(faults[i].text()); // with the place in the file: it is the file that has to be mended
        emit said(tr("%1 was not opened: %2").arg(QFileInfo(path).fileName(), words.join(QStringLiteral("; "))));
        return false;
    }
    m_settings.addRecentFile(path);
    emit said({});
    return true;
}

bool FileDesk::recover()
{
    const std::optional<Autosave::Recovered> left = m_autosave.takeLeftBehind();
    if (!left || !m_document.openText(left->design, left->originalPath).empty())
        return false;
    m_document.markRecovered();
    m_autosave.write();
    emit recovered();
    emit said(left->originalPath.isEmpty()
                  ? tr("The last run ended before this was saved; here it is again. Save it to keep it.")
                  : tr("The last run ended before changes to %1 were saved; here they are. Save to keep them.").arg(left->originalPath));
    return true;
}

bool FileDesk::saveTo(const QString& path)
{
    if (const Faults faults = m_document.save(path); !faults.empty()) {
        emit said(QString::fromStdString(faults.front().text()));
        return false;
    }
    m_settings.addRecentFile(path);
    m_autosave.discard();
    emit said({});
    return true;
}

void FileDesk::open()
{
    if (!mayDiscard())
        return;
    const QString path = QFileDialog::getOpenFileName(m_window, tr("Open a design"), QFileInfo(m_document.path()).path(), filter());
    if (!path.isEmpty())
        openFile(path);
}

bool FileDesk::save() { return m_document.path().isEmpty() ? saveAs() : saveTo(m_document.path()); }

bool FileDesk::saveAs()
{
    QString path = QFileDialog::getSaveFileName(
        m_window, tr("Save the design"), m_document.path().isEmpty() ? QStringLiteral("antennas.vetchling") : m_document.path(), filter());
    if (path.isEmpty())
        return false;
    if (QFileInfo(path).suffix().isEmpty())
        path += QStringLiteral(".vetchling");
    return saveTo(path);
}

bool FileDesk::mayDiscard()
{
    if (!m_document.modified())
        return true;
    QMessageBox box(QMessageBox::NoIcon, tr("Unsaved changes"), tr("Changes are not saved yet."),
                    QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, m_window);
    switch (box.exec()) {
    case QMessageBox::Save: return save();
    case QMessageBox::Discard: return true;
    default: return false;
    }
}

void FileDesk::fillRecent(QMenu* menu)
{
    menu->clear();
    const QStringList files = m_settings.recentFiles();
    for (const QString& path : files)
        menu->addAction(QFileInfo(path).fileName(), this, [this, path] {
            if (mayDiscard())
                openFile(path);
        });
    if (files.isEmpty())
        menu->addAction(tr("none yet"))->setEnabled(false);
}

} // namespace vetchling::app

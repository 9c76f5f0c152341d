#include "app/window/file_desk.h"

#include "app/view/ask_for_file.h"
#include "core/files/design_file.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QPushButton>

namespace vetchling::app {
namespace {

QString filter() { return QObject::tr("Vetchling designs (*.vetchling)"); }

} // namespace

FileDesk::FileDesk(Document& document, Settings& settings, const QString& dataFolder, const QString& autosaveFolder, QWidget* window)
    : QObject(window), m_document(document), m_settings(settings), m_dataFolder(dataFolder), m_window(window),
      m_autosave(document, autosaveFolder)
{
    connect(&m_autosave, &Autosave::failed, this, &FileDesk::said);
}

QString FileDesk::demoPath(const QString& dataFolder) { return QDir(dataFolder).filePath(QStringLiteral("demo/gannet-skerry.vetchling")); }

void FileDesk::openDemo(std::optional<units::System> system)
{
    Result<Design> demo = files::readDesign(demoPath(m_dataFolder).toStdString());
    if (!demo) {
        emit said(QString::fromStdString(demo.firstFault()));
        return;
    }
    Design design = std::move(demo).value();
    design.operation.system = system.value_or(m_settings.system());
    openNew(std::move(design));
}

void FileDesk::openNew(Design design)
{
    m_autosave.discard();
    m_document.setDesign(std::move(design), {});
    emit said({});
}

bool FileDesk::openFile(const QString& path)
{
    const QString absolute = QFileInfo(path).absoluteFilePath();
    if (offerCopy(absolute) == Copy::Opened)
        return true;
    const Result<Design> design = files::readDesign(absolute.toStdString());
    if (!design) {
        QStringList words;
        for (std::size_t i = 0; i < design.faults().size() && i < 3; ++i)
            words << QString::fromStdString(design.faults()[i].text()); // with the place in the file: it is the file that has to be mended
        emit said(tr("%1 was not opened: %2").arg(QFileInfo(path).fileName(), words.join(QStringLiteral("; "))));
        return false;
    }
    m_autosave.discard();
    m_document.setDesign(*design, absolute);
    m_settings.addRecentFile(absolute);
    emit said({});
    return true;
}

/// Where the last run ended with changes of this file that are newer than it.
FileDesk::Copy FileDesk::offerCopy(const QString& path)
{
    const std::optional<Autosave::LeftBehind> left = m_autosave.leftBehind(path);
    if (!left || (QFileInfo::exists(path) && left->when < QFileInfo(path).lastModified()))
        return Copy::None;
    QMessageBox box(QMessageBox::NoIcon, tr("Unsaved changes"),
                    tr("The last run ended with changes to %1 that were not saved, from %2.")
                        .arg(QFileInfo(path).fileName(), left->when.toString(QStringLiteral("yyyy-MM-dd HH:mm"))),
                    QMessageBox::NoButton, m_window);
    QPushButton* take = box.addButton(tr("Open the changes"), QMessageBox::AcceptRole);
    QPushButton* refuse = box.addButton(tr("Drop them, open the file"), QMessageBox::DestructiveRole);
    take->setObjectName(QStringLiteral("takeCopy"));
    refuse->setObjectName(QStringLiteral("refuseCopy"));
    box.setDefaultButton(take);
    box.exec();
    if (box.clickedButton() == take && openCopy(*left))
        return Copy::Opened;
    if (box.clickedButton() == refuse)
        Autosave::refuse(*left);
    return Copy::Refused;
}

bool FileDesk::openCopy(const Autosave::LeftBehind& left)
{
    if (!m_document.openText(left.design, left.originalPath).empty())
        return false;
    m_document.markRecovered();
    m_autosave.adopt(left);
    emit recovered();
    emit said(left.originalPath.isEmpty()
                  ? tr("The last run ended before this was saved; here it is again. Save it to keep it.")
                  : tr("The last run ended before changes to %1 were saved; here they are. Save to keep them.").arg(left.originalPath));
    return true;
}

bool FileDesk::recover()
{
    const std::optional<Autosave::LeftBehind> left = m_autosave.leftBehind();
    return left && openCopy(*left);
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

bool FileDesk::save()
{
    if (m_settle && !m_settle())
        return false;
    return m_document.path().isEmpty() ? saveAs() : saveTo(m_document.path());
}

bool FileDesk::saveAs()
{
    if (m_settle && !m_settle())
        return false;
    const QString proposed = fileName(QString::fromStdString(m_document.design().site.name)) + QStringLiteral(".vetchling");
    const QString path = askForFile(m_window, tr("Save the design"), m_document.path().isEmpty() ? proposed : m_document.path(), filter());
    return !path.isEmpty() && saveTo(path);
}

bool FileDesk::mayDiscard()
{
    if (m_settle && !m_settle())
        return false;
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

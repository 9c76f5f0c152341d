#include "app/window/file_desk.h"

#include "app/document/aside.h"
#include "app/document/pictures.h"
#include "app/view/ask_for_file.h"
#include "app/view/words.h"
#include "app/window/damage_dialog.h"
#include "core/files/design_file.h"
#include "core/files/writer.h"

#include <QDir>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QPushButton>

namespace vetchling::app {
namespace {

bool isNewer(const QString& file, const QDateTime& when) { return QFileInfo::exists(file) && when < QFileInfo(file).lastModified(); }

QString filter() { return QObject::tr("Vetchling designs (*.vetchling)"); }

struct Way {
    const char* name;
    QString words;
    QMessageBox::ButtonRole role;
};

/// Name of the way that is taken, the first one by Enter; that of the rejecting one where the box is closed.
QString ask(QWidget* window, const QString& title, const QString& words, const std::vector<Way>& ways)
{
    QMessageBox box(QMessageBox::NoIcon, title, words, QMessageBox::NoButton, window);
    for (const Way& way : ways) {
        QPushButton* button = box.addButton(way.words, way.role);
        button->setObjectName(QLatin1String(way.name));
        if (&way == &ways.front())
            box.setDefaultButton(button);
    }
    box.exec();
    return box.clickedButton() ? box.clickedButton()->objectName() : QString();
}

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
    Result<Design> demo = m_document.read(demoPath(m_dataFolder));
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
    if (const Faults faults = m_document.open(absolute); !faults.empty()) {
        QStringList words;
        for (std::size_t i = 0; i < faults.size() && i < 3; ++i)
            words << QString::fromStdString(faults[i].text()); // with the place in the file: it is the file that has to be mended
        emit said(tr("%1 was not opened: %2").arg(QFileInfo(path).fileName(), words.join(QStringLiteral("; "))));
        return false;
    }
    m_autosave.discard();
    m_settings.addRecentFile(absolute);
    emit said(m_document.damage() ? damageSummary(*m_document.damage()) : QString());
    return true;
}

/// Where the last run ended with changes of this file that were not saved.
FileDesk::Copy FileDesk::offerCopy(const QString& path)
{
    const std::optional<Autosave::LeftBehind> left = m_autosave.leftBehind(path);
    if (!left)
        return Copy::None;
    const auto time = [](const QDateTime& when) { return when.toString(QStringLiteral("yyyy-MM-dd HH:mm")); };
    QString words =
        tr("The last run ended with changes to %1 that were not saved, from %2.").arg(QFileInfo(path).fileName(), time(left->when));
    if (isNewer(path, left->when))
        words += QLatin1Char(' ') + tr("The file itself was saved later, at %1.").arg(time(QFileInfo(path).lastModified()));
    const QString way = ask(m_window, tr("Unsaved changes"), words,
                            {{"takeCopy", tr("Open the changes"), QMessageBox::AcceptRole},
                             {"refuseCopy", tr("Drop them, open the file"), QMessageBox::DestructiveRole},
                             {"keepCopy", tr("Open the file, keep them for later"), QMessageBox::RejectRole}});
    if (way == QLatin1String("takeCopy") && openCopy(*left))
        return Copy::Opened;
    if (way == QLatin1String("refuseCopy"))
        Autosave::refuse(*left);
    return Copy::Refused;
}

bool FileDesk::openCopy(const Autosave::LeftBehind& left)
{
    Result<Design> read = aside([&left] { return files::parseDesign(left.design); });
    if (!read || (read->damage && read->damage->cutShort))
        return openDamagedCopy(left, read);
    files::FileState original = files::stateOf(left.originalPath.toStdString());
    if (isNewer(left.originalPath, left.when)) // written since: saving over it has to ask
        original = {true};
    m_document.setDesign(std::move(read).value(), left.originalPath, original);
    m_document.markRecovered();
    m_autosave.adopt(left);
    emit recovered();
    QString words =
        left.originalPath.isEmpty()
            ? tr("The last run ended before this was saved; here it is again. Save it to keep it.")
            : tr("The last run ended before changes to %1 were saved; here they are. Save to keep them.").arg(left.originalPath);
    if (m_document.damage())
        words += QLatin1Char(' ') + damageSummary(*m_document.damage());
    emit said(words);
    return true;
}

/// What is left of it is opened under no name, so that it is not saved over the whole design; the copy stays where it is.
bool FileDesk::openDamagedCopy(const Autosave::LeftBehind& left, const Result<Design>& read)
{
    const QString why = QString::fromStdString(read ? read->damage->cutShort->text() : read.firstFault());
    std::vector<Way> ways{{"saveCopyElsewhere", tr("Save it elsewhere …"), QMessageBox::AcceptRole}};
    if (read)
        ways.push_back({"openDamagedCopy", tr("Open what is left of it"), QMessageBox::ActionRole});
    ways.push_back({"leaveCopy", tr("Not now"), QMessageBox::RejectRole});
    const QString way = ask(m_window, tr("Unsaved changes"),
                            tr("The copy of unsaved changes from %1 is damaged (%2). It stays in %3.")
                                .arg(left.when.toString(QStringLiteral("yyyy-MM-dd HH:mm")), why, left.copy),
                            ways);
    if (way == QLatin1String("saveCopyElsewhere"))
        saveCopyElsewhere(left);
    if (way != QLatin1String("openDamagedCopy") || !m_document.openText(left.design, {}).empty())
        return false;
    m_document.markRecovered();
    emit recovered();
    emit said(damageSummary(*m_document.damage()));
    return true;
}

void FileDesk::saveCopyElsewhere(const Autosave::LeftBehind& left)
{
    const QString path = askForFile(m_window, tr("Save the damaged copy"), QStringLiteral("unsaved-changes.vetchling"), filter());
    if (path.isEmpty())
        return;
    const Faults faults = files::writeWhole(path.toStdString(), left.design);
    emit said(faults.empty() ? tr("The damaged copy is in %1.").arg(path) : QString::fromStdString(faults.front().text()));
    if (faults.empty())
        Autosave::refuse(left);
}

bool FileDesk::recover()
{
    const std::optional<Autosave::LeftBehind> left = m_autosave.leftBehind();
    return left && openCopy(*left);
}

/// Somebody else's changes are not written over unasked. False where nothing is to be written.
bool FileDesk::settleWithOthers(const QString& path)
{
    if (path != m_document.path() || !m_document.changedOnDisk())
        return true;
    const QString way =
        ask(m_window, tr("Changed meanwhile"),
            tr("%1 was changed by another window or program at %2, after it was opened here.")
                .arg(QFileInfo(path).fileName(), QFileInfo(path).lastModified().toString(QStringLiteral("yyyy-MM-dd HH:mm:ss"))),
            {{"keepBoth", tr("Save, and keep theirs beside it"), QMessageBox::AcceptRole},
             {"saveElsewhere", tr("Save under another name …"), QMessageBox::ActionRole},
             {"cancelSave", tr("Cancel"), QMessageBox::RejectRole}});
    if (way == QLatin1String("saveElsewhere"))
        saveAs();
    if (way != QLatin1String("keepBoth"))
        return false;
    const QString beside = QString::fromStdString(files::freeFileName(path.toStdString()));
    if (QFile::copy(path, beside)) {
        m_keptBeside = beside;
        return true;
    }
    emit said(tr("Their version cannot be kept as %1; nothing was saved. Save under another name.").arg(beside));
    return false;
}

bool FileDesk::saveTo(const QString& path)
{
    m_keptBeside.clear();
    if (!settleWithOthers(path))
        return !m_document.modified();
    const QString before = m_document.path();
    if (const Faults faults = m_document.save(path); !faults.empty()) {
        emit said(coreWords(faults.front().message, m_document.design().operation.system).prepend(path + QStringLiteral(": ")));
        return false;
    }
    m_settings.addRecentFile(path);
    m_autosave.discard();
    const QStringList left = carryPictures(m_document.stored(), before, path);
    emit said(!left.isEmpty()          ? tr("Saved, but these pictures could not be copied along: %1.").arg(left.join(QStringLiteral(", ")))
              : m_keptBeside.isEmpty() ? QString()
                                       : tr("Saved; their version is in %1.").arg(m_keptBeside));
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
    const FileDamage* damage = m_document.damage();
    const bool isTheCutFile = damage && damage->cutShort && damage->file == m_document.path().toStdString();
    const bool named = !m_document.path().isEmpty() && !isTheCutFile;
    return named ? saveTo(m_document.path()) : saveAs();
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

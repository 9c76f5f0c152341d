#include "app/document/pictures.h"

#include "core/files/writer.h"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QImageReader>

#include <sys/stat.h>

namespace vetchling::app {
namespace {

struct PictureWords {
    Q_DECLARE_TR_FUNCTIONS(Pictures)
};

QString folderOf(const QString& design) { return QFileInfo(QFileInfo(design).path()).canonicalFilePath(); }

bool isInside(const QString& path, const QString& folder) { return path.startsWith(folder.endsWith(u'/') ? folder : folder + u'/'); }

/// Neither a pipe nor a device, which would hold up whoever reads it.
bool isRegular(const QString& path)
{
    struct stat is {};
    return ::stat(QFile::encodeName(path).constData(), &is) == 0 && S_ISREG(is.st_mode);
}

/// Empty where the file begins as a picture of a size that can be shown.
QString troubleOf(const QString& path)
{
    const QString name = QFileInfo(path).fileName();
    if (!isRegular(path))
        return PictureWords::tr("%1 is no ordinary file and is not opened.").arg(name);
    QImageReader reader(path);
    reader.setDecideFormatFromContent(true);
    const QSize size = reader.size();
    if (!reader.canRead() || !size.isValid())
        return PictureWords::tr("%1 is no picture that can be read.").arg(name);
    if (qint64(size.width()) * size.height() > mostPixels)
        return PictureWords::tr("%1 has %2 million pixels, more than the %3 that are shown; make it smaller.")
            .arg(name)
            .arg(qint64(size.width()) * size.height() / 1'000'000)
            .arg(mostPixels / 1'000'000);
    return {};
}

std::vector<std::string> allPictures(const Design& design)
{
    std::vector<std::string> all = design.site.pictures;
    const auto add = [&all](const std::vector<std::string>& more) { all.insert(all.end(), more.begin(), more.end()); };
    for (const Antenna& a : design.antennas) {
        add(a.pictures);
        for (const Measurement& m : a.trim.measurements)
            add(m.pictures);
    }
    return all;
}

} // namespace

Picture findPicture(const QString& design, const std::string& kept)
{
    const QString told = QString::fromStdString(kept), name = QFileInfo(told).fileName();
    if (design.isEmpty())
        return {{}, PictureWords::tr("Save the design first: its pictures are looked for beside it.")};
    const QString folder = folderOf(design), path = QFileInfo(QDir(folder).absoluteFilePath(told)).canonicalFilePath();
    if (path.isEmpty())
        return {{}, PictureWords::tr("%1 is not found beside the design.").arg(name)};
    if (!isInside(path, folder))
        return {{},
                PictureWords::tr("%1 lies outside the folder of the design and is not opened; copy it there and add it again.").arg(name)};
    const QString trouble = troubleOf(path);
    return trouble.isEmpty() ? Picture{path, {}} : Picture{{}, trouble};
}

QImage smallPicture(const Picture& picture, const QSize& box)
{
    if (picture.path.isEmpty())
        return {};
    QImageReader reader(picture.path);
    reader.setDecideFormatFromContent(true);
    reader.setAutoTransform(true);
    if (const QSize size = reader.size(); size.isValid())
        reader.setScaledSize(size.scaled(box, Qt::KeepAspectRatio).expandedTo({1, 1}));
    return reader.read();
}

KeptPicture keepPicture(const QString& design, const QString& chosen)
{
    if (design.isEmpty())
        return {{}, PictureWords::tr("Save the design first: its pictures are kept beside it.")};
    const QString folder = folderOf(design), path = QFileInfo(chosen).canonicalFilePath();
    if (path.isEmpty())
        return {{}, PictureWords::tr("%1 cannot be found.").arg(chosen)};
    if (const QString trouble = troubleOf(path); !trouble.isEmpty())
        return {{}, trouble};
    if (isInside(path, folder))
        return {QDir(folder).relativeFilePath(path).toStdString(), {}};
    QString copy = QDir(folder).filePath(QFileInfo(path).fileName());
    if (QFileInfo::exists(copy))
        copy = QString::fromStdString(files::freeFileName(copy.toStdString()));
    if (!QFile::copy(path, copy))
        return {{}, PictureWords::tr("%1 cannot be copied beside the design; check the folder and the free space.").arg(chosen)};
    return {QFileInfo(copy).fileName().toStdString(), {}};
}

QStringList carryPictures(const Design& design, const QString& from, const QString& to)
{
    QStringList left;
    const QString folder = QFileInfo(to).absolutePath();
    if (from.isEmpty() || QFileInfo(from).absolutePath() == folder)
        return left;
    for (const std::string& kept : allPictures(design)) {
        const Picture picture = findPicture(from, kept);
        const QString told = QString::fromStdString(kept), there = QDir(folder).filePath(told);
        if (picture.path.isEmpty() || QDir::isAbsolutePath(told) || QFileInfo::exists(there))
            continue;
        if (!QDir().mkpath(QFileInfo(there).path()) || !QFile::copy(picture.path, there))
            left << QFileInfo(told).fileName();
    }
    return left;
}

} // namespace vetchling::app

#include "app/window/settings.h"

#include <QFileInfo>
#include <QSettings>

namespace vetchling::app {
namespace {

const QString recentKey = QStringLiteral("recentFiles"), themeKey = QStringLiteral("theme"),
              geometryKey = QStringLiteral("window/geometry"), startedKey = QStringLiteral("startedBefore");
constexpr int mostRecent = 8;

} // namespace

QStringList Settings::recentFiles() const { return QSettings().value(recentKey).toStringList(); }

void Settings::addRecentFile(const QString& path)
{
    const QString absolute = QFileInfo(path).absoluteFilePath();
    QStringList files = recentFiles();
    files.removeAll(absolute);
    files.prepend(absolute);
    QSettings().setValue(recentKey, files.mid(0, mostRecent));
}

Theme::Mode Settings::themeMode() const
{
    return QSettings().value(themeKey).toString() == QLatin1String("night") ? Theme::Mode::Night : Theme::Mode::Day;
}
void Settings::setThemeMode(Theme::Mode mode)
{
    QSettings().setValue(themeKey, mode == Theme::Mode::Night ? QStringLiteral("night") : QStringLiteral("day"));
}
QByteArray Settings::geometry() const { return QSettings().value(geometryKey).toByteArray(); }
void Settings::setGeometry(const QByteArray& geometry) { QSettings().setValue(geometryKey, geometry); }
bool Settings::startedBefore() const { return QSettings().value(startedKey).toBool(); }
void Settings::setStartedBefore() { QSettings().setValue(startedKey, true); }

} // namespace vetchling::app

#include "app/window/settings.h"

#include <QFileInfo>
#include <QLocale>
#include <QSettings>

#include <algorithm>

namespace vetchling::app {
namespace {

const QString recentKey = QStringLiteral("recentFiles"), themeKey = QStringLiteral("theme"),
              geometryKey = QStringLiteral("window/geometry"), unitsKey = QStringLiteral("units"), planKey = QStringLiteral("bandPlan"),
              spreadKey = QStringLiteral("showSpread");
constexpr int mostRecent = 8;
constexpr QLocale::Territory americas[] = {QLocale::UnitedStates, QLocale::Canada, QLocale::Mexico,  QLocale::Brazil,
                                           QLocale::Argentina,    QLocale::Chile,  QLocale::Colombia},
                             pacific[] = {QLocale::Australia, QLocale::NewZealand, QLocale::Japan,     QLocale::China,
                                          QLocale::India,     QLocale::Indonesia,  QLocale::SouthKorea};

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
units::System Settings::system() const
{
    const QString stored = QSettings().value(unitsKey).toString();
    const bool metric = stored.isEmpty() ? QLocale().measurementSystem() == QLocale::MetricSystem : stored == QLatin1String("metric");
    return metric ? units::System::Metric : stored == QLatin1String("decimal-feet") ? units::System::DecimalFeet : units::System::Imperial;
}
void Settings::setSystem(units::System system)
{
    QSettings().setValue(unitsKey, system == units::System::Metric        ? QStringLiteral("metric")
                                   : system == units::System::DecimalFeet ? QStringLiteral("decimal-feet")
                                                                          : QStringLiteral("imperial"));
}

bool Settings::showsSpread() const { return QSettings().value(spreadKey, true).toBool(); }
void Settings::setShowsSpread(bool shows) { QSettings().setValue(spreadKey, shows); }

QString Settings::bandPlan() const
{
    if (const QString stored = QSettings().value(planKey).toString(); !stored.isEmpty())
        return stored;
    const QLocale::Territory here = QLocale().territory();
    if (std::find(std::begin(americas), std::end(americas), here) != std::end(americas))
        return QStringLiteral("itu-r2");
    return std::find(std::begin(pacific), std::end(pacific), here) != std::end(pacific) ? QStringLiteral("itu-r3")
                                                                                        : QStringLiteral("itu-r1");
}
void Settings::setBandPlan(const QString& id) { QSettings().setValue(planKey, id); }

} // namespace vetchling::app

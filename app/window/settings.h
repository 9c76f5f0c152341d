#pragma once
/// What the application remembers between runs; keys are written once, here.

#include "app/view/theme.h"
#include "core/units/units.h"

#include <QByteArray>
#include <QStringList>

namespace vetchling::app {

class Settings {
public:
    [[nodiscard]] QStringList recentFiles() const;
    void addRecentFile(const QString& path);
    [[nodiscard]] Theme::Mode themeMode() const;
    void setThemeMode(Theme::Mode mode);
    [[nodiscard]] QByteArray geometry() const;
    void setGeometry(const QByteArray& geometry);
    /// Units of new sites: those used last, at first the locale's.
    [[nodiscard]] units::System system() const;
    void setSystem(units::System system);
    /// Whether curves are shown with how sure they are.
    [[nodiscard]] bool showsSpread() const;
    void setShowsSpread(bool shows);
    /// Id of the band plan of new sites: that used last, at first the locale's region's.
    [[nodiscard]] QString bandPlan() const;
    void setBandPlan(const QString& id);
};

} // namespace vetchling::app

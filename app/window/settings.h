#pragma once
/// What the application remembers between runs; keys are written once, here.

#include "app/view/theme.h"

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
    [[nodiscard]] bool startedBefore() const;
    void setStartedBefore();
};

} // namespace vetchling::app

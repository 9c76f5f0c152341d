#pragma once
/// Pictures and sweeps of what the window shows, asked for, written, and told.

#include "app/window/exports.h"

#include <QCoreApplication>

namespace vetchling::app {

class MainWindow;

class ExportDesk {
    Q_DECLARE_TR_FUNCTIONS(vetchling::app::ExportDesk)
public:
    explicit ExportDesk(MainWindow& window) : m_window(window) {}

    /// Of the current stage. False if it could not be written.
    bool picture(const QString& path);
    /// Asks for the file.
    void picture();
    void copyPicture();
    /// Of the current antenna over a range, Hz; where that is not solved yet it is first, and what is said tells the end.
    void sweep(const QString& path, double from, double to);
    /// Asks for the range and the file.
    void sweep();

private:
    [[nodiscard]] PictureTitle title() const;

    MainWindow& m_window;
};

} // namespace vetchling::app

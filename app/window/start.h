#pragma once
/// Starting the application: arguments, data folder, what opens first, pictures for the documentation.

#include <QString>

class QApplication;
class QCoreApplication;

namespace vetchling::app {

/// Where soils, bands and the demo are (core/files/data_folder.h).
QString findDataFolder();
/// Prints help or version and ends the program.
void answerWithoutWindow(QCoreApplication& application);
/// Runs until the window is closed. Returns the exit code.
int start(QApplication& application);

} // namespace vetchling::app

#include "app/window/start.h"

#include <QApplication>

#include <algorithm>
#include <string_view>

namespace {

/// Whether words are all that is asked for: those need no screen.
bool asksForWords(int argc, char** argv)
{
    return std::any_of(argv + 1, argv + argc, [](std::string_view option) {
        return option == "--help" || option == "-h" || option == "--help-all" || option == "--version" || option == "-v";
    });
}

} // namespace

int main(int argc, char** argv)
{
    QCoreApplication::setApplicationName(QStringLiteral("Vetchling"));
    QCoreApplication::setOrganizationName(QStringLiteral("vetchling"));
    QCoreApplication::setApplicationVersion(QStringLiteral(VETCHLING_VERSION));
    if (asksForWords(argc, argv)) {
        QCoreApplication application(argc, argv);
        vetchling::app::answerWithoutWindow(application);
        return 0;
    }
    QApplication application(argc, argv);
    QApplication::setDesktopFileName(QStringLiteral("vetchling"));
    return vetchling::app::start(application);
}

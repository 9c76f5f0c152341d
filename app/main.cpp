#include "app/window/start.h"

#include <QApplication>

int main(int argc, char** argv)
{
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("Vetchling"));
    QApplication::setOrganizationName(QStringLiteral("vetchling"));
    QApplication::setApplicationVersion(QStringLiteral(VETCHLING_VERSION));
    QApplication::setDesktopFileName(QStringLiteral("vetchling"));
    return vetchling::app::start(application);
}

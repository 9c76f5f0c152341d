#include <gtest/gtest.h>
#include <QApplication>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>

#ifdef __SANITIZE_THREAD__
#include <oneapi/tbb/global_control.h>
#endif

int main(int argc, char** argv)
{
#ifdef __SANITIZE_THREAD__ // the checker does not see the locks inside the task library: each thread works alone within itself
    const oneapi::tbb::global_control alone{oneapi::tbb::global_control::max_allowed_parallelism, 1};
#endif
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    QStandardPaths::setTestModeEnabled(true);
    const QTemporaryDir settings; // of this run alone: others may run beside it
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
    ::testing::InitGoogleTest(&argc, argv);
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("Vetchling tests"));
    QApplication::setOrganizationName(QStringLiteral("vetchling-tests"));
    return RUN_ALL_TESTS();
}

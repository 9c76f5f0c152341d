#include "app/view/ask_for_file.h"

#include <QFileDialog>
#include <QRegularExpression>

namespace vetchling::app {
namespace {

/// ".svg" of "SVG (*.svg)".
QString endingOf(const QString& filter)
{
    static const QRegularExpression ending(QStringLiteral("\\*\\.(\\w+)"));
    return ending.match(filter).captured(1);
}

} // namespace

QString askForFile(QWidget* window, const QString& title, const QString& proposed, const QString& filter)
{
    QFileDialog dialog(window, title, QFileInfo(proposed).path(), filter);
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    dialog.setFileMode(QFileDialog::AnyFile);
    dialog.selectFile(QFileInfo(proposed).fileName());
    dialog.setDefaultSuffix(endingOf(dialog.selectedNameFilter()));
    QObject::connect(&dialog, &QFileDialog::filterSelected, &dialog,
                     [&dialog](const QString& chosen) { dialog.setDefaultSuffix(endingOf(chosen)); });
    return dialog.exec() == QDialog::Accepted ? dialog.selectedFiles().value(0) : QString();
}

QString fileName(const QString& thing)
{
    static const QRegularExpression others(QStringLiteral("[^\\w]+"), QRegularExpression::UseUnicodePropertiesOption);
    QString name = thing.toLower().replace(others, QStringLiteral("-"));
    while (name.startsWith(QLatin1Char('-')))
        name.remove(0, 1);
    while (name.endsWith(QLatin1Char('-')))
        name.chop(1);
    return name.isEmpty() ? QStringLiteral("antenna") : name;
}

} // namespace vetchling::app

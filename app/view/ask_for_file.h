#pragma once
/// Asks where to write: the ending of the chosen kind is there before the question whether a file may be overwritten.

#include <QString>

class QWidget;

namespace vetchling::app {

/// @param filter kinds as file dialogs name them, "SVG (*.svg);;PNG (*.png)". Empty if the user would rather not.
QString askForFile(QWidget* window, const QString& title, const QString& proposed, const QString& filter);

/// A name of a thing as a file's name: lower case, words joined by hyphens.
QString fileName(const QString& thing);

} // namespace vetchling::app

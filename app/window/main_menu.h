#pragma once
/// The menu and every shortcut of the window.

#include "app/window/dialogs.h"

#include <QKeySequence>

#include <functional>
#include <vector>

class QMenu;

namespace vetchling::app {

class MainWindow;

/// Makes all actions on the window; returns the menu and lists the keys.
QMenu* makeMainMenu(MainWindow& window, std::vector<Shortcut>& shortcuts);

} // namespace vetchling::app

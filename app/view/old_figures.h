#pragma once
/// Figures that a newer question has overtaken are pale until the new ones are there, wherever they stand.

#include "app/document/waiting.h"

#include <vector>

class QWidget;

namespace vetchling::app {

class SolveService;

/// Makes a widget pale while the solver's figures are old.
void paleWhileOld(const SolveService& solver, QWidget* widget);
/// The same while one of these answers is old.
void paleWhileOld(std::vector<NamedWaiting> answers, QWidget* widget);

} // namespace vetchling::app

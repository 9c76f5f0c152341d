#pragma once
/// Figures that a newer question has overtaken are pale until the new ones are there, wherever they stand.

class QWidget;

namespace vetchling::app {

class SolveService;

/// Makes a widget pale while the solver's figures are old.
void paleWhileOld(const SolveService& solver, QWidget* widget);

} // namespace vetchling::app

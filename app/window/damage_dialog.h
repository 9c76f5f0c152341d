#pragma once
/// What of a design file could not be read, in words, and what may be done about it.

#include "app/document/document.h"

class QDialog;
class QWidget;

namespace vetchling::app {

/// A line for each part, and for what was read all the same but should be known.
QStringList damageLines(const FileDamage& damage);
/// All of it in one sentence or two, the first parts by name.
QString damageSummary(const FileDamage& damage);
/// The whole list; deletes itself. What stands in for the parts can be taken for good there.
QDialog* makeDamageDialog(Document& document, QWidget* parent);

} // namespace vetchling::app

#pragma once
/// Pages as PDF: painted in memory, and written in one go by the one writer. On any thread.

#include "core/result.h"

#include <QMarginsF>
#include <QPageSize>
#include <QPdfWriter>

#include <functional>

namespace vetchling::app {

struct PaperForm {
    QString title;
    QPageSize size;
    QMarginsF margins; ///< mm
    bool across = false;
};

/// @param paint fills the pages; what it finds missing is returned, and nothing is written then
Faults writePdf(const QString& path, const PaperForm& form, const std::function<Faults(QPdfWriter&)>& paint);

} // namespace vetchling::app

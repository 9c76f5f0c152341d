#pragma once
/// Pictures and sweeps that leave the program.

#include "core/study/answers.h"

#include <QString>

namespace vetchling::app {

class Canvas;
class Theme;

/// Each returns the sentence that tells what happened.
struct Exported {
    bool good = false;
    QString words;
};

/// SVG or PNG by the file's ending.
Exported exportPicture(Canvas& canvas, const Theme& theme, const QString& title, const QString& path);
/// CSV or Touchstone by the file's ending, over everything that was solved. @param curve may be null
Exported exportSweep(const study::Curve* curve, const QString& path);

} // namespace vetchling::app

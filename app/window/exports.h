#pragma once
/// Pictures and sweeps that leave the program.

#include "core/study/answers.h"

#include <QImage>
#include <QString>

namespace vetchling::app {

class Canvas;
class Theme;

/// Each returns the sentence that tells what happened.
struct Exported {
    bool good = false;
    QString words;
};

/// What stands over a picture: what it is of, and what it says.
struct PictureTitle {
    QString title, sentence;
};

/// The graphic under its title, at twice the screen's density.
QImage pictureOf(Canvas& canvas, const Theme& theme, const PictureTitle& title);
/// SVG or PNG by the file's ending.
Exported exportPicture(Canvas& canvas, const Theme& theme, const PictureTitle& title, const QString& path);
/// CSV or Touchstone by the file's ending. @param antenna its name, for the file's first line
Exported exportSweep(const study::Swept& swept, const QString& antenna, const QString& path);

} // namespace vetchling::app

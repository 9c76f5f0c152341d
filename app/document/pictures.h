#pragma once
/// Pictures of a design are files in its folder or below it, told from there, so that both can be moved together. A design may come from a
/// stranger: nothing else is opened, whatever it says.

#include "core/design/design.h"

#include <QImage>
#include <QString>
#include <QStringList>

#include <string>

namespace vetchling::app {

inline constexpr qint64 mostPixels = 50'000'000;

/// A picture as a design names it.
struct Picture {
    QString path;    ///< absolute, without links; empty where it cannot be shown
    QString trouble; ///< why not
};

/// Looks whether the file may be shown: a regular one inside the design's folder that begins as a picture does, of no more than
/// `mostPixels`.
/// @param design path of the design's file; empty: it has none yet
Picture findPicture(const QString& design, const std::string& kept);
/// The picture, no larger than a box; null where it cannot be shown or decoded.
QImage smallPicture(const Picture& picture, const QSize& box);

/// What to write into the design for a chosen file. One that lies elsewhere is copied beside the design.
struct KeptPicture {
    std::string kept;
    QString trouble; ///< why it was not taken; empty if it was
};
KeptPicture keepPicture(const QString& design, const QString& chosen);

/// Copies the pictures that a design names beside it to its new place, where they are not there yet; those that could not be copied.
QStringList carryPictures(const Design& design, const QString& from, const QString& to);

} // namespace vetchling::app

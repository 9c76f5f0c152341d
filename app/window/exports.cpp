#include "app/window/exports.h"

#include "app/document/aside.h"
#include "app/view/canvas.h"
#include "app/view/sketch.h"
#include "core/files/sweep_file.h"
#include "core/files/writer.h"

#include <QBuffer>
#include <QFileInfo>
#include <QPdfWriter>
#include <QSvgGenerator>

namespace vetchling::app {
namespace {

/// @param content makes what is written; not on this thread
template <class Content> Exported write(const QString& path, Content content, const QString& words)
{
    const Faults faults = aside([path, content = std::move(content)] { return files::writeWhole(path.toStdString(), content()); });
    if (!faults.empty())
        return {false, QObject::tr("%1 could not be written; check the folder and its permissions.").arg(path)};
    return {true, words};
}

constexpr double pictureMargin = 18.0, titleHeight = 56.0; // px

QSize sizeWithTitle(const Canvas& canvas) { return canvas.size() + QSize(int(2 * pictureMargin), int(titleHeight + pictureMargin)); }

void paintWithTitle(QPainter& painter, Canvas& canvas, const Theme& theme, const PictureTitle& title)
{
    const Colours& c = theme.colours();
    painter.fillRect(QRect(QPoint(0, 0), sizeWithTitle(canvas)), c.paper);
    {
        Sketch sketch(painter, theme);
        sketch.text({pictureMargin, 12}, title.title, Qt::AlignLeft | Qt::AlignTop, {c.ink, 17, true});
        sketch.text({pictureMargin, 34}, theme.elided(title.sentence, canvas.width(), 13), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
    }
    painter.translate(pictureMargin, titleHeight);
    Sketch sketch(painter, theme);
    canvas.render(sketch, canvas.size());
}

std::string png(const QImage& image)
{
    QByteArray content;
    QBuffer buffer(&content);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return content.toStdString();
}

QByteArray drawing(Canvas& canvas, const Theme& theme, const PictureTitle& title)
{
    QByteArray content;
    QBuffer buffer(&content);
    buffer.open(QIODevice::WriteOnly);
    QSvgGenerator generator;
    generator.setOutputDevice(&buffer);
    generator.setSize(sizeWithTitle(canvas));
    generator.setViewBox(QRect(QPoint(0, 0), sizeWithTitle(canvas)));
    generator.setTitle(title.title);
    QPainter painter(&generator);
    paintWithTitle(painter, canvas, theme, title);
    painter.end();
    return content;
}

/// As large as on the screen, 96 dots an inch.
QByteArray page(Canvas& canvas, const Theme& theme, const PictureTitle& title)
{
    constexpr double inch = 25.4, dots = 96.0; // mm, px an inch
    QByteArray content;
    QBuffer buffer(&content);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    const QSize size = sizeWithTitle(canvas);
    writer.setPageSize(QPageSize(QSizeF(size) * inch / dots, QPageSize::Millimeter, {}, QPageSize::ExactMatch));
    writer.setPageMargins({});
    writer.setResolution(int(dots) * 4);
    writer.setTitle(title.title);
    QPainter painter(&writer);
    painter.scale(4.0, 4.0);
    paintWithTitle(painter, canvas, theme, title);
    painter.end();
    return content;
}

} // namespace

QImage pictureOf(Canvas& canvas, const Theme& theme, const PictureTitle& title)
{
    constexpr int density = 2;
    QImage image(density * sizeWithTitle(canvas), QImage::Format_ARGB32);
    image.setDevicePixelRatio(density);
    QPainter painter(&image);
    paintWithTitle(painter, canvas, theme, title);
    painter.end();
    return image;
}

Exported exportPicture(Canvas& canvas, const Theme& theme, const PictureTitle& title, const QString& path)
{
    const QString words = QObject::tr("Picture written to %1.").arg(path), ending = QFileInfo(path).suffix().toLower();
    if (ending == QLatin1String("png"))
        return write(
            path, [image = pictureOf(canvas, theme, title)] { return png(image); }, words);
    if (ending == QLatin1String("svg"))
        return write(
            path, [content = drawing(canvas, theme, title)] { return content.toStdString(); }, words);
    if (ending == QLatin1String("pdf"))
        return write(
            path, [content = page(canvas, theme, title)] { return content.toStdString(); }, words);
    return {false, QObject::tr("A picture is written as .svg, .png or .pdf; %1 is none of them.").arg(QFileInfo(path).fileName())};
}

Exported exportSweep(const study::Swept& swept, const QString& antenna, const QString& path)
{
    const files::SweepTable table{swept.frequency, swept.impedance, swept.solves, antenna.toStdString()};
    const bool touchstone = path.endsWith(QLatin1String(".s1p"), Qt::CaseInsensitive);
    return write(
        path, [table, touchstone] { return touchstone ? files::sweepTouchstone(table) : files::sweepCsv(table); },
        QObject::tr("Sweep written to %1.").arg(path));
}

} // namespace vetchling::app

#include "app/window/exports.h"

#include "app/view/canvas.h"
#include "app/view/sketch.h"
#include "core/files/sweep_file.h"
#include "core/files/writer.h"

#include <QBuffer>
#include <QSvgGenerator>

namespace vetchling::app {
namespace {

Exported write(const QString& path, const std::string& content, const QString& words)
{
    if (const Faults faults = files::writeWhole(path.toStdString(), content); !faults.empty())
        return {false, QObject::tr("%1 could not be written; check the folder and its permissions.").arg(path)};
    return {true, words};
}

QByteArray picture(Canvas& canvas, const Theme& theme)
{
    const QSize size = canvas.size();
    QImage image(2 * size, QImage::Format_ARGB32);
    image.setDevicePixelRatio(2.0);
    QPainter painter(&image);
    Sketch sketch(painter, theme);
    canvas.render(sketch, size);
    painter.end();
    QByteArray content;
    QBuffer buffer(&content);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return content;
}

QByteArray drawing(Canvas& canvas, const Theme& theme, const QString& title)
{
    const QSize size = canvas.size();
    QByteArray content;
    QBuffer buffer(&content);
    buffer.open(QIODevice::WriteOnly);
    QSvgGenerator generator;
    generator.setOutputDevice(&buffer);
    generator.setSize(size);
    generator.setViewBox(QRect(QPoint(0, 0), size));
    generator.setTitle(title);
    QPainter painter(&generator);
    Sketch sketch(painter, theme);
    canvas.render(sketch, size);
    painter.end();
    return content;
}

} // namespace

Exported exportPicture(Canvas& canvas, const Theme& theme, const QString& title, const QString& path)
{
    const bool png = path.endsWith(QLatin1String(".png"), Qt::CaseInsensitive);
    const QByteArray content = png ? picture(canvas, theme) : drawing(canvas, theme, title);
    return write(path, content.toStdString(), QObject::tr("Picture written to %1.").arg(path));
}

Exported exportSweep(const study::Curve* curve, const QString& path)
{
    if (!curve)
        return {false, QObject::tr("There is no sweep yet; wait for the curve.")};
    files::SweepTable table;
    table.solves = curve->solves();
    for (const study::CurvePart& part : curve->parts)
        for (double f : part->displayFrequencies(part->from, part->to))
            table.frequency.push_back(f);
    for (double f : table.frequency)
        table.impedance.push_back(curve->atLine(f));
    const bool touchstone = path.endsWith(QLatin1String(".s1p"), Qt::CaseInsensitive);
    return write(path, touchstone ? files::sweepTouchstone(table) : files::sweepCsv(table), QObject::tr("Sweep written to %1.").arg(path));
}

} // namespace vetchling::app

#include "app/view/paper.h"

#include "core/files/writer.h"

#include <QBuffer>

namespace vetchling::app {

Faults writePdf(const QString& path, const PaperForm& form, const std::function<Faults(QPdfWriter&)>& paint)
{
    QByteArray content;
    QBuffer buffer(&content);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&buffer);
        writer.setPageSize(form.size);
        if (form.across)
            writer.setPageOrientation(QPageLayout::Landscape);
        writer.setPageMargins(form.margins, QPageLayout::Millimeter);
        writer.setTitle(form.title);
        writer.setCreator(QStringLiteral("Vetchling"));
        if (Faults missing = paint(writer); !missing.empty())
            return missing;
    }
    return files::writeWhole(path.toStdString(), content.toStdString());
}

} // namespace vetchling::app

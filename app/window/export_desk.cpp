#include "app/window/export_desk.h"

#include "app/view/ask_for_file.h"
#include "app/view/words.h"
#include "app/window/main_window.h"
#include "app/window/sweep_range.h"

#include <QApplication>
#include <QClipboard>

namespace vetchling::app {

bool ExportDesk::picture(const QString& path)
{
    const Exported done = exportPicture(*m_window.currentStage()->canvas(), m_window.theme(), title(), path);
    m_window.say(done.words);
    return done.good;
}

PictureTitle ExportDesk::title() const
{
    const Design& design = m_window.document().design();
    const QString site = QString::fromStdString(design.site.name);
    const QString antenna = m_window.document().hasAntenna() ? QString::fromStdString(m_window.document().antenna().name) : QString();
    return {antenna.isEmpty() ? tr("%1: %2").arg(site, m_window.currentStage()->name())
                              : tr("%1, %2: %3").arg(antenna, site, m_window.currentStage()->name()),
            m_window.currentStage()->page()->sentence()};
}

void ExportDesk::picture()
{
    if (!m_window.takeTyped())
        return;
    const QString name = m_window.document().hasAntenna() ? QString::fromStdString(m_window.document().antenna().name)
                                                          : m_window.document().design().site.name.c_str();
    const QString path = askForFile(&m_window, tr("Save the picture"), fileName(name + QLatin1Char(' ') + m_window.currentStage()->name()),
                                    tr("SVG (*.svg);;PNG (*.png);;PDF (*.pdf)"));
    if (!path.isEmpty())
        picture(path);
}

void ExportDesk::sweep()
{
    if (!m_window.takeTyped())
        return;
    if (!m_window.document().hasAntenna()) {
        m_window.say(tr("There is no antenna to sweep yet."));
        return;
    }
    SweepRangeDialog dialog(m_window.document().design(), m_window.document().selectedBand(), &m_window);
    if (dialog.exec() != QDialog::Accepted)
        return;
    const QString path = askForFile(&m_window, tr("Save the sweep"), fileName(QString::fromStdString(m_window.document().antenna().name)),
                                    tr("CSV (*.csv);;Touchstone (*.s1p)"));
    if (!path.isEmpty())
        sweep(path, dialog.from(), dialog.to());
}

void ExportDesk::sweep(const QString& path, double from, double to)
{
    const QString name = QString::fromStdString(m_window.document().antenna().name);
    m_window.say(tr("Computing the sweep …"));
    m_window.solver().sweep(from, to, [this, path, name](const Result<study::Swept>& swept) {
        m_window.say(swept ? exportSweep(*swept, name, path).words
                           : tr("The sweep was not written: %1.")
                                 .arg(coreWords(swept.faults().front().message, m_window.document().design().operation.system)));
    });
}

void ExportDesk::copyPicture()
{
    QApplication::clipboard()->setImage(pictureOf(*m_window.currentStage()->canvas(), m_window.theme(), title()));
    m_window.say(tr("The picture is on the clipboard."));
}

} // namespace vetchling::app

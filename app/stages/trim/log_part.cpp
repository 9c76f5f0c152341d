#include "app/stages/trim/log_part.h"

#include "app/document/aside.h"
#include "app/document/pictures.h"
#include "app/stages/trim/log_board.h"
#include "app/stages/trim/log_panel.h"
#include "app/view/ask_for_file.h"
#include "app/view/words.h"
#include "core/files/writer.h"

#include <QDesktopServices>
#include <QFileDialog>
#include <QFileInfo>
#include <QUrl>

namespace vetchling::app {

LogPart::LogPart(ViewContext& context, StagePage& page, Ledger& ledger, QObject* parent)
    : TrimPart(context, page, ledger, parent), m_desk(context.document), m_board(new LogBoard(context, m_desk)),
      m_panel(new LogPanel(context, m_desk, *m_board, *m_ledger, this))
{
    connect(m_board, &LogBoard::chosenChanged, this, &LogPart::changed);
    connect(m_board, &LogBoard::removeWanted, this, [this] {
        for (const Id& id : m_board->chosen())
            m_desk.remove(id);
    });
    connectPanel();
}

void LogPart::connectPanel()
{
    connect(m_panel, &LogPanel::csvAsked, this, [this] {
        save(tr("Save the log"), tr("CSV (*.csv)"), [this](const QString& path) {
            return aside([path, csv = m_desk.csv()] { return files::writeWhole(path.toStdString(), csv); });
        });
    });
    connect(m_panel, &LogPanel::pageAsked, this, [this] {
        save(tr("Save the log as a page"), tr("PDF (*.pdf)"),
             [this](const QString& path) { return aside([path, facts = m_board->facts()] { return writeLogPage(facts, path); }); });
    });
    connect(m_panel, &LogPanel::picturesAsked, this, &LogPart::addPicture);
    connect(m_panel, &LogPanel::pictureAsked, this, &LogPart::showPicture);
}

QWidget* LogPart::log() const { return m_board; }

void LogPart::show(const QWidget*)
{
    m_panel->refresh();
    m_board->refresh();
    if (!document().hasAntenna())
        return;
    m_page.setTitle(tr("Trim: the log"));
    m_page.setSentence(m_board->sentence());
}

QString LogPart::tableText(const QWidget*) const
{
    return QString::fromStdString(m_desk.csv()).replace(QLatin1Char(','), QLatin1Char('\t'));
}

void LogPart::addPicture()
{
    const QString path = QFileDialog::getOpenFileName(&m_page, tr("Add a picture"), {}, tr("Pictures (*.png *.jpg *.jpeg *.webp)"));
    const auto chosen = m_board->chosen();
    if (path.isEmpty() || chosen.size() != 1)
        return;
    const KeptPicture picture = keepPicture(document().path(), path);
    m_panel->say(picture.trouble);
    if (picture.trouble.isEmpty())
        m_desk.changeMeasurement(chosen.front(), tr("add a picture"), [&](Measurement& m) { m.pictures.push_back(picture.kept); });
}

void LogPart::showPicture(const QString& kept)
{
    const Picture picture = findPicture(document().path(), kept.toStdString());
    if (!picture.trouble.isEmpty())
        m_panel->say(picture.trouble);
    else if (!QDesktopServices::openUrl(QUrl::fromLocalFile(picture.path)))
        m_panel->say(tr("The picture cannot be shown: %1").arg(picture.path));
}

void LogPart::save(const QString& title, const QString& filter, const std::function<Faults(const QString&)>& write)
{
    if (!document().hasAntenna())
        return m_panel->say(tr("There is no antenna whose log could be saved."));
    const QString path = askForFile(m_page.window(), title, fileName(tr("log %1").arg(document().shownName())), filter);
    if (path.isEmpty())
        return;
    const Faults faults = write(path);
    m_panel->say(faults.empty() ? tr("Saved as %1.").arg(QFileInfo(path).fileName()) : coreWords(faults.front().message, system()));
}

} // namespace vetchling::app

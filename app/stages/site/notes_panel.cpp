#include "app/stages/site/notes_panel.h"

#include "app/document/pictures.h"
#include "app/view/ask_for_file.h"

#include <QEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QLabel>
#include <QPlainTextEdit>
#include <QToolButton>

#include <algorithm>

namespace vetchling::app {
namespace {

constexpr int small = 78; // px
constexpr int perRow = 3;

} // namespace

NotesPanel::NotesPanel(ViewContext& context, Ledger& ledger, QObject* parent) : QObject(parent), m_context(context)
{
    ledger.heading(tr("Notes and pictures"));
    m_of = ledger.choice(tr("Of"), {tr("the site"), tr("this antenna")}, QStringLiteral("notesOf"));
    connect(m_of, &QComboBox::activated, this, &NotesPanel::refresh);
    m_text = new QPlainTextEdit;
    m_text->setObjectName(QStringLiteral("notesText"));
    m_text->setAccessibleName(tr("Notes"));
    m_text->setPlaceholderText(tr("what is to be remembered"));
    m_text->setFixedHeight(70);
    m_text->setTabChangesFocus(true);
    m_text->installEventFilter(this);
    constexpr int pause = 600; // ms
    m_soon.setSingleShot(true);
    m_soon.setInterval(pause);
    connect(m_text, &QPlainTextEdit::textChanged, &m_soon, qOverload<>(&QTimer::start));
    connect(&m_soon, &QTimer::timeout, this, &NotesPanel::takeNotes);
    ledger.add(m_text);
    m_frames = new QWidget;
    m_frames->setObjectName(QStringLiteral("pictures"));
    new QGridLayout(m_frames);
    m_frames->layout()->setContentsMargins(0, 0, 0, 0);
    ledger.add(m_frames);
    m_trouble = new QLabel;
    m_trouble->setObjectName(QStringLiteral("pictureTrouble"));
    m_trouble->setWordWrap(true);
    m_trouble->hide();
    ledger.add(m_trouble);
    auto* add = ledger.button(tr("+ Picture …"), QStringLiteral("addPicture"));
    connect(add, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getOpenFileName(m_text->window(), tr("A picture"), QFileInfo(m_context.document.path()).path(),
                                                          tr("Pictures (*.png *.jpg *.jpeg *.svg *.webp *.gif *.bmp)"));
        if (!path.isEmpty())
            addPicture(path);
    });
}

const std::string& NotesPanel::notes() const
{
    return ofAntenna() ? m_context.document.antenna().notes : m_context.document.design().site.notes;
}

const std::vector<std::string>& NotesPanel::pictures() const
{
    return ofAntenna() ? m_context.document.antenna().pictures : m_context.document.design().site.pictures;
}

void NotesPanel::addPicture(const QString& path)
{
    const KeptPicture picture = keepPicture(m_context.document.path(), path);
    m_trouble->setText(picture.trouble);
    m_trouble->setVisible(!picture.trouble.isEmpty());
    if (!picture.trouble.isEmpty())
        return;
    changePictures(tr("add a picture"), [&](std::vector<std::string>& all) {
        if (std::find(all.begin(), all.end(), picture.kept) == all.end())
            all.push_back(picture.kept);
    });
}

void NotesPanel::changePictures(const QString& words, const std::function<void(std::vector<std::string>&)>& change)
{
    if (ofAntenna())
        m_context.document.editAntenna(words, {}, [&](Antenna& a) { change(a.pictures); });
    else
        m_context.document.edit(words, {}, [&](Design& d) { change(d.site.pictures); });
}

void NotesPanel::takeNotes()
{
    const std::string text = m_text->toPlainText().toStdString();
    if (text == notes())
        return;
    if (ofAntenna())
        m_context.document.editAntenna(tr("change the notes"), {}, [&](Antenna& a) { a.notes = text; });
    else
        m_context.document.edit(tr("change the notes"), {}, [&](Design& d) { d.site.notes = text; });
}

/// Notes are taken when they are left, and when one pauses.
bool NotesPanel::eventFilter(QObject* watched, QEvent* event)
{
    if (watched == m_text && event->type() == QEvent::FocusOut)
        takeNotes();
    return QObject::eventFilter(watched, event);
}

void NotesPanel::refresh()
{
    if (const QString text = QString::fromStdString(notes()); !m_text->hasFocus() && !m_soon.isActive() && m_text->toPlainText() != text) {
        m_text->setPlainText(text);
        m_soon.stop();
    }
    const QString folder = QFileInfo(m_context.document.path()).path();
    if (m_shown == pictures() && m_shownFolder == folder)
        return;
    m_shown = pictures();
    m_shownFolder = folder;
    showPictures();
}

void NotesPanel::showPictures()
{
    const auto old = m_frames->findChildren<QToolButton*>(QString(), Qt::FindDirectChildrenOnly);
    for (QToolButton* button : old) {
        button->hide();
        button->deleteLater();
    }
    auto* grid = static_cast<QGridLayout*>(m_frames->layout());
    for (std::size_t i = 0; i < m_shown.size(); ++i) {
        const Picture picture = findPicture(m_context.document.path(), m_shown[i]);
        const QString name = QFileInfo(QString::fromStdString(m_shown[i])).fileName();
        auto* button = new QToolButton(m_frames);
        button->setObjectName(QStringLiteral("picture %1").arg(i));
        const QImage image = smallPicture(picture, {small, small});
        button->setFixedSize(small + 6, small + 6);
        if (image.isNull())
            button->setText(tr("not shown"));
        else
            button->setIcon(QPixmap::fromImage(image));
        button->setIconSize({small, small});
        const QString press = tr("%1: press to take it out of the list; the file stays").arg(name);
        button->setToolTip(picture.trouble.isEmpty() ? press : picture.trouble + QLatin1Char('\n') + press);
        button->setAccessibleName(name);
        connect(button, &QToolButton::clicked, this, [this, gone = m_shown[i]] {
            changePictures(tr("take a picture out"), [&](std::vector<std::string>& all) { std::erase(all, gone); });
        });
        grid->addWidget(button, int(i) / perRow, int(i) % perRow);
    }
    m_frames->setVisible(!m_shown.empty());
}

} // namespace vetchling::app

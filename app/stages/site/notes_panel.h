#pragma once
/// Notes and pictures of the site and of the antenna on show; pictures are paths to files, shown small.

#include "app/view/context.h"
#include "app/widgets/ledger.h"

#include <QTimer>

class QPlainTextEdit;

namespace vetchling::app {

class NotesPanel : public QObject {
    Q_OBJECT
public:
    NotesPanel(ViewContext& context, Ledger& ledger, QObject* parent);
    void refresh();
    /// Adds a picture of the site, or of the antenna.
    void addPicture(const QString& path);

private:
    [[nodiscard]] bool ofAntenna() const { return m_of->currentIndex() == 1 && m_context.document.hasAntenna(); }
    [[nodiscard]] const std::string& notes() const;
    [[nodiscard]] const std::vector<std::string>& pictures() const;
    void takeNotes();
    void changePictures(const QString& words, const std::function<void(std::vector<std::string>&)>& change);
    bool eventFilter(QObject* watched, QEvent* event) override;
    void showPictures();

    ViewContext& m_context;
    QComboBox* m_of;
    QPlainTextEdit* m_text;
    QTimer m_soon;
    QWidget* m_frames;
    QLabel* m_trouble; ///< why a picture was not taken
    std::vector<std::string> m_shown;
    QString m_shownFolder;
};

} // namespace vetchling::app

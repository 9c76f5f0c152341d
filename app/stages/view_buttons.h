#pragma once
/// The row of views of a stage, beside its title: one is on show.

#include "app/stages/stage.h"

#include <QStackedWidget>

#include <vector>

class QToolButton;

namespace vetchling::app {

class ViewButtons : public QObject {
    Q_OBJECT
public:
    /// Adds a row to the page's head, and a stack to its body.
    ViewButtons(StagePage& page, const QString& stackName, QObject* parent);
    /// The first one added is on show. Several may share a widget, which is told by `place` what it shows.
    QToolButton* add(const QString& words, const QString& objectName, QWidget* view, const QString& help = {});
    [[nodiscard]] QWidget* current() const { return m_views->currentWidget(); }
    /// Which of those added is on show, from 0.
    [[nodiscard]] int place() const { return m_place; }
    void show(QWidget* view);
    void showPlace(int place);
    /// By the name its button was given, whatever its capitals; nothing for what is none.
    void showNamed(const QString& objectName);
    /// A view that is hidden while it is on show gives way to the first one; nothing is emitted.
    void setOffered(int place, bool offered);

signals:
    void chosen();

private:
    void turnTo(int place);

    struct Entry {
        QToolButton* button;
        QWidget* view;
    };
    StagePage& m_page;
    QStackedWidget* m_views;
    std::vector<Entry> m_entries;
    int m_place = 0;
};

} // namespace vetchling::app

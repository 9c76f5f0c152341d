#pragma once
/// The row of views of a stage, beside its title: one is on show.

#include "app/stages/stage.h"

#include <QButtonGroup>
#include <QStackedWidget>

namespace vetchling::app {

class ViewButtons : public QObject {
    Q_OBJECT
public:
    /// Adds a row to the page's header, and a stack to its body.
    ViewButtons(StagePage& page, const QString& stackName, QObject* parent);
    /// The first one added is on show.
    void add(const QString& words, const QString& objectName, QWidget* view);
    [[nodiscard]] QWidget* current() const { return m_views->currentWidget(); }
    void show(QWidget* view);

signals:
    void chosen();

private:
    QStackedWidget* m_views;
    QHBoxLayout* m_row;
    QButtonGroup* m_group;
};

} // namespace vetchling::app

#pragma once
/// The top row: the file's name, the antennas as small drawings of their real geometry, and the few tools.

#include "app/view/context.h"

#include <QLabel>
#include <QTabBar>
#include <QToolButton>

class QHBoxLayout;

namespace vetchling::app {

/// The antennas of the design, one tab each; scrolls when there are many.
class AntennaBar : public QTabBar {
    Q_OBJECT
public:
    AntennaBar(ViewContext& context, QWidget* parent = nullptr);
    /// Follows the document: one tab an antenna, in their order.
    void refresh();
    /// An input for the name over the current tab.
    void startRename();

signals:
    void renamed(const Id& antenna, const QString& name);
    void removeWanted();

protected:
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    QSize tabSizeHint(int place) const override;

private:
    void refreshTab(int place, const Antenna& antenna);
    ViewContext& m_context;
    std::map<Id, std::shared_ptr<const shapes::BuiltAntenna>> m_drawn; ///< what each icon shows
    Theme::Mode m_mode = Theme::Mode::Day;
};

class Shelf : public QWidget {
    Q_OBJECT
public:
    Shelf(ViewContext& context, QWidget* parent = nullptr);

    QToolButton* tool(const QString& icon, const QString& words, const QString& objectName);
    void refresh();
    void refreshIcons();
    void startRename() { m_antennas->startRename(); }

signals:
    void addWanted();
    void renamed(const Id& antenna, const QString& name);
    void removeWanted();

protected:
    void paintEvent(QPaintEvent*) override;

private:
    ViewContext& m_context;
    QLabel *m_mark, *m_name;
    AntennaBar* m_antennas;
    QHBoxLayout* m_tools;
    QToolButton* m_add;
    std::vector<std::pair<QToolButton*, QString>> m_icons;
};

} // namespace vetchling::app

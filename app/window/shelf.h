#pragma once
/// The top row: the file's name, the antennas as small drawings of their real geometry, and the few tools.

#include "app/stages/stage.h"

#include <QToolButton>

namespace vetchling::app {

/// One antenna on the shelf.
class AntennaTab : public QWidget {
    Q_OBJECT
public:
    AntennaTab(const Theme& theme, QWidget* parent);
    void setAntenna(const Antenna& antenna, bool current);
    [[nodiscard]] QSize sizeHint() const override;

signals:
    void chosen();

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void focusInEvent(QFocusEvent*) override { update(); }
    void focusOutEvent(QFocusEvent*) override { update(); }

private:
    const Theme& m_theme;
    Antenna m_antenna;
    QString m_name;
    std::vector<std::vector<QPointF>> m_drawing; ///< unit square, y down
    bool m_current = false;
};

class Shelf : public QWidget {
    Q_OBJECT
public:
    Shelf(StageContext& context, QWidget* parent = nullptr);

    QToolButton* tool(const QString& icon, const QString& words, const QString& objectName);
    void refresh();
    void refreshIcons();

signals:
    void addWanted();

protected:
    void paintEvent(QPaintEvent*) override;

private:
    StageContext& m_context;
    QLabel *m_mark, *m_name;
    QHBoxLayout *m_tabs, *m_tools;
    QToolButton* m_add;
    std::vector<std::pair<QToolButton*, QString>> m_icons;
    std::vector<AntennaTab*> m_shown;
};

/// The left column: the stages as leaves on one stem, each with its live line.
class Trail : public QWidget {
    Q_OBJECT
public:
    Trail(StageContext& context, const std::vector<Stage*>& stages, QWidget* parent = nullptr);
    void setCurrent(int index);
    [[nodiscard]] int current() const { return m_current; }

signals:
    void chosen(int index);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    [[nodiscard]] QRectF itemRect(int index) const;
    StageContext& m_context;
    std::vector<Stage*> m_stages;
    int m_current = 0;
};

} // namespace vetchling::app

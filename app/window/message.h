#pragma once
/// A line over the page with what happened and what to do. It covers for a while and goes by itself, or on a click.

#include <QLabel>
#include <QTimer>

namespace vetchling::app {

class Message : public QLabel {
    Q_OBJECT
public:
    /// @param over the widget at whose top it lies
    explicit Message(QWidget* over);
    /// Empty words take the last ones back.
    void say(const QString& words);
    void setColours(const QColor& ground, const QColor& edge);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void mousePressEvent(QMouseEvent*) override { hide(); }

private:
    void place();
    QTimer m_time;
};

} // namespace vetchling::app

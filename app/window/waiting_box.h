#pragma once
/// Below the trail: what takes long just now, how far it is, and leaving it. One look for all of it.

#include "app/view/context.h"

#include <QTimer>
#include <QWidget>

class QLabel;
class QProgressBar;
class QToolButton;

namespace vetchling::app {

class WaitingBox : public QWidget {
    Q_OBJECT
public:
    explicit WaitingBox(ViewContext& context, QWidget* parent = nullptr);
    /// Bars and buttons alone; their tips and screen readers still say the words.
    void setNarrow(bool narrow);
    /// Looks at once what is under way.
    void refresh();

protected:
    void paintEvent(QPaintEvent*) override;

private:
    struct Row {
        QWidget* all;
        QLabel* words;
        QProgressBar* bar;
        QToolButton* button;
        int seen = 0; ///< looks since it began: what is soon over is not shown
    };
    void addRow(std::size_t place);
    void show(Row& row, const NamedWaiting& waiting);

    ViewContext& m_context;
    std::vector<Row> m_rows; ///< by place in the context's list
    QTimer m_look;
    bool m_narrow = false;
};

} // namespace vetchling::app

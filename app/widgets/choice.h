#pragma once
/// A choice of a few words that the wheel passes over: only a click or a key changes it.

#include <QComboBox>
#include <QStyledItemDelegate>
#include <QWheelEvent>

namespace vetchling::app {

class Choice : public QComboBox {
    Q_OBJECT
public:
    explicit Choice(QWidget* parent = nullptr) : QComboBox(parent)
    {
        setFocusPolicy(Qt::StrongFocus);
        setItemDelegate(new QStyledItemDelegate(this)); // the one that a style sheet gives room to
    }

protected:
    void wheelEvent(QWheelEvent* event) override { event->ignore(); }
};

} // namespace vetchling::app

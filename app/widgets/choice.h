#pragma once
/// A choice of a few words that the wheel passes over: only a click or a key changes it.

#include <QAbstractItemView>
#include <QComboBox>
#include <QScreen>
#include <QWheelEvent>

#include <algorithm>

namespace vetchling::app {

class Choice : public QComboBox {
    Q_OBJECT
public:
    explicit Choice(QWidget* parent = nullptr) : QComboBox(parent) { setFocusPolicy(Qt::StrongFocus); }

    /// As high as its words need: the style sheet's own reckoning cuts the last ones.
    void showPopup() override
    {
        QComboBox::showPopup();
        constexpr int frame = 8; // px above and below the words
        int needed = frame;
        for (int row = 0; row < std::min(count(), maxVisibleItems()); ++row)
            needed += view()->sizeHintForRow(row);
        QWidget* popup = view()->window();
        QRect place = popup->geometry();
        if (place.height() >= needed)
            return;
        place.setHeight(needed);
        const QRect room = screen()->availableGeometry();
        if (place.bottom() > room.bottom())
            place.moveBottom(room.bottom());
        popup->setGeometry(place);
    }

protected:
    void wheelEvent(QWheelEvent* event) override { event->ignore(); }
};

} // namespace vetchling::app

#pragma once
/// A line over every page as long as the antenna on show could not be read whole: nothing may be cut by what is told of it.

#include "app/view/context.h"

#include <QWidget>

class QLabel;

namespace vetchling::app {

class DamageStrip : public QWidget {
    Q_OBJECT
public:
    explicit DamageStrip(ViewContext& context, QWidget* parent = nullptr);
    /// Shows or hides itself.
    void refresh();
    [[nodiscard]] QString words() const;

private:
    ViewContext& m_context;
    QLabel* m_words;
};

} // namespace vetchling::app

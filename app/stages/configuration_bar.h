#pragma once
/// Which of its configurations the antenna is looked at in: links open or closed, as buttons; hidden where there is but one.

#include "app/view/context.h"

#include <QWidget>

#include <vector>

class QHBoxLayout;
class QToolButton;

namespace vetchling::app {

class ConfigurationBar : public QWidget {
    Q_OBJECT
public:
    explicit ConfigurationBar(ViewContext& context, QWidget* parent = nullptr);
    /// Follows the document.
    void refresh();

private:
    [[nodiscard]] QString nameOf(const shapes::Configuration& configuration) const;

    ViewContext& m_context;
    QHBoxLayout* m_row;
    std::vector<QToolButton*> m_buttons;
};

} // namespace vetchling::app

#pragma once
/// Which variant of the antenna is looked at, and changed; hidden where there is none.

#include "app/view/context.h"
#include "app/widgets/choice.h"

namespace vetchling::app {

class VariantBar : public Choice {
    Q_OBJECT
public:
    explicit VariantBar(ViewContext& context, QWidget* parent = nullptr);
    /// Follows the document.
    void refresh();

private:
    ViewContext& m_context;
};

} // namespace vetchling::app

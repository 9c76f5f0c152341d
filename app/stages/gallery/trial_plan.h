#pragma once
/// The plan of the site with an answer on it as a trial: dashed, with the poles that it needs.

#include "app/view/canvas.h"
#include "core/advice/advice.h"

namespace vetchling::app {

struct PlanCamera;

class TrialPlan : public Canvas {
    Q_OBJECT
public:
    explicit TrialPlan(ViewContext& context, QWidget* parent = nullptr);
    void show(std::vector<advice::TriedPointer> antennas);
    void render(Sketch& sketch, const QSizeF& size) override;

private:
    void nameWhatHolds(Sketch& sketch, const PlanCamera& camera, const QSizeF& size) const;

    std::vector<advice::TriedPointer> m_antennas;
};

} // namespace vetchling::app

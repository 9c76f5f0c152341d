#include "app/stages/bands/bands_view.h"

#include "app/view/words.h"

namespace vetchling::app {

QString BandsView::missing() const
{
    if (!document().hasAntenna())
        return tr("Add an antenna with + at the top.");
    if (const Faults& faults = solver().faults(); !faults.empty())
        return tr("This shape cannot be computed: %1.").arg(coreWords(faults.front().message, system()));
    if (!solver().curve())
        return tr("Being computed …");
    if (solver().curve()->bandsWished() == 0)
        return tr("No band is wanted yet: choose them at the right, or put in a plan's bands.");
    return {};
}

QString BandsView::bandName(const Id& band) const
{
    const WantedBand* wanted = findBand(document().design(), band);
    return wanted ? QString::fromStdString(wanted->band.name) : QString();
}

} // namespace vetchling::app

#include "app/stages/trim/trim_words.h"

#include "app/view/words.h"

#include <QCoreApplication>

#include <cmath>

namespace vetchling::app {
namespace {

struct TrimWords {
    Q_DECLARE_TR_FUNCTIONS(TrimWords)
};

constexpr double nothing = 5e-4; // m

} // namespace

QString taskName(const Design& design, const TrimTask& task)
{
    for (const WantedBand& w : design.operation.bands)
        if (task.frequency >= w.band.from && task.frequency <= w.band.to)
            return QString::fromStdString(w.band.name);
    return task.configurationName.empty() ? frequencyWords(task.frequency) : QString::fromStdString(task.configurationName);
}

QString asCutWords(double longer, CutFrom from, units::System system)
{
    const QString amount = std::abs(longer) < nothing ? TrimWords::tr("as planned")
                           : longer > 0.0             ? TrimWords::tr("%1 over plan").arg(smallWords(longer, system))
                                                      : TrimWords::tr("%1 under plan").arg(smallWords(-longer, system));
    switch (from) {
    case CutFrom::CutList: return TrimWords::tr("%1 by the cut list").arg(amount);
    case CutFrom::Ticked: return TrimWords::tr("%1, ticked off").arg(amount);
    case CutFrom::Measured: return TrimWords::tr("%1, as measured").arg(amount);
    case CutFrom::Typed:
    case CutFrom::NotKnown: break;
    }
    return amount;
}

} // namespace vetchling::app

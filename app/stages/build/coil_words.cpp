#include "app/stages/build/coil_words.h"

#include "app/view/words.h"

#include <QCoreApplication>

#include <cmath>

namespace vetchling::app {
namespace {

struct CoilWords {
    Q_DECLARE_TR_FUNCTIONS(CoilWords)
};

} // namespace

QString turnWords(double turns)
{
    const double halves = std::round(2.0 * turns) / 2.0;
    const bool half = halves != std::floor(halves);
    return half ? QStringLiteral("%1½").arg(std::floor(halves), 0, 'f', 0) : QString::number(halves, 'f', 0);
}

QString windWords(const Wound& w, units::System system)
{
    const QString former = valueWords(w.winding.former, units::Quantity::WireSize, system);
    return w.winding.spare > 0.0 ? CoilWords::tr("Wind %1 turns on a former of %2, and tap at %3.")
                                       .arg(turnWords(w.allTurns()), former, turnWords(w.coil.turns))
                                 : CoilWords::tr("Wind %1 turns on a former of %2.").arg(turnWords(w.coil.turns), former);
}

} // namespace vetchling::app

#include "app/stages/trim/trim_words.h"

#include "app/view/words.h"

#include <QCoreApplication>

#include <cmath>
#include <set>

namespace vetchling::app {
namespace {

struct TrimWords {
    Q_DECLARE_TR_FUNCTIONS(TrimWords)
};

constexpr double nothing = 5e-4; // m

QString leverName(const shapes::AntennaShape& shape, const std::string& parameter)
{
    for (const shapes::Lever& lever : shapes::familyOf(shape).levers(shape))
        if (lever.parameter == parameter)
            return coreWords(lever.name);
    return {};
}

} // namespace

QString taskName(const Design& design, const TrimTask& task) { return QString::fromStdString(nameOfTask(design, task)); }

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

std::vector<LogWords> logWordsOf(const Design& design, const Antenna& antenna, units::System system)
{
    std::vector<LogWords> words;
    const std::vector<TrimTask> tasks = trimTasks(antenna);
    std::set<std::size_t> begun;
    for (const Measurement& m : antenna.trim.measurements) {
        const std::size_t place = tasks.empty() ? 0 : taskOf(tasks, m);
        LogWords one{leverName(antenna.shape, cutParameter(antenna, m)), {}, begun.insert(place).second, {}};
        if (tasks.size() > 1)
            one.band = taskName(design, tasks[place]);
        const auto longer = antenna.trim.asCut.find(tasks.empty() ? std::string() : tasks[place].lever.parameter);
        if (one.first && longer != antenna.trim.asCut.end())
            one.asCut = asCutWords(longer->second, antenna.trim.cutFrom, system);
        words.push_back(one);
    }
    return words;
}

QString doneWords(const Measurement& m, const LogWords& words, units::System system)
{
    const QString band = words.band.isEmpty() ? QString() : TrimWords::tr("%1: ").arg(words.band);
    const QString amount = smallWords(std::abs(m.cutSinceLast), system);
    if (m.cutSinceLast == 0.0)
        return band + (!words.first            ? TrimWords::tr("measured again")
                       : words.asCut.isEmpty() ? TrimWords::tr("hoisted as cut")
                                               : TrimWords::tr("hoisted as cut, %1").arg(words.asCut));
    return band + (m.cutSinceLast < 0.0 ? TrimWords::tr("lengthened %1, %2")
                   : m.folded           ? TrimWords::tr("folded %1, %2")
                                        : TrimWords::tr("cut %1, %2"))
                      .arg(amount, words.piece);
}

} // namespace vetchling::app

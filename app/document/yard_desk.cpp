#include "app/document/yard_desk.h"

#include <QSettings>

#include <random>

namespace vetchling::app {
namespace {

QString recordKey(const std::string& level) { return QStringLiteral("yard/%1").arg(QString::fromStdString(level)); }

} // namespace

YardDesk::YardDesk(SolveService& solver, QObject* parent) : QObject(parent), m_solver(solver) {}

YardDesk::~YardDesk()
{
    if (m_job)
        m_job->cancel();
}

void YardDesk::open(const std::string& id, std::optional<unsigned> seed)
{
    const YardLevel* level = findYardLevel(id);
    if (!level)
        return;
    const QVariant fixed = qApp->property("yardSeed"); // where pictures are taken
    m_yard.reset();
    put([level, seed = seed.value_or(fixed.isValid() ? fixed.toUInt() : std::random_device{}())](
            study::Library& library, const Watch& watch) { return Yard::open(library, *level, seed, watch); });
}

void YardDesk::act(Act act)
{
    if (busy() || !yard())
        return;
    put([before = yard(), act = std::move(act)](study::Library& library, const Watch& watch) {
        Yard next = *before;
        const Faults faults = act(next, library, watch);
        return faults.empty() ? Result<Yard>(std::move(next)) : Result<Yard>(faults);
    });
}

void YardDesk::put(std::function<Result<Yard>(study::Library&, const Watch&)> work)
{
    if (m_job)
        m_job->cancel();
    m_busy = true;
    m_faults.clear();
    m_job = send<Yard>(
        m_solver, this,
        {[work = std::move(work), &library = m_solver.library()](const Watch& watch, const auto&) { return work(library, watch); },
         [this, round = ++m_round](const Result<Yard>& outcome, bool) {
             if (round == m_round)
                 take(outcome);
         }});
    emit changed();
}

/// What could not be done leaves the yard as it was.
void YardDesk::take(const Result<Yard>& outcome)
{
    m_busy = false;
    if (outcome)
        m_yard = std::make_shared<const Yard>(*outcome);
    else
        m_faults = outcome.faults();
    remember();
    emit changed();
}

void YardDesk::measure(std::size_t task)
{
    act([task](Yard& y, study::Library& library, const Watch& watch) { return y.measure(library, task, watch); });
}
void YardDesk::ohmmeter()
{
    act([](Yard& y, study::Library&, const Watch&) { return y.ohmmeter(); });
}
void YardDesk::hand(std::size_t task)
{
    act([task](Yard& y, study::Library& library, const Watch& watch) { return y.hand(library, task, watch); });
}
void YardDesk::load()
{
    act([](Yard& y, study::Library&, const Watch&) { return y.load(); });
}
void YardDesk::change(std::size_t task, double amount, bool fold)
{
    act([=](Yard& y, study::Library&, const Watch&) { return y.change(task, amount, fold); });
}
void YardDesk::hoistTo(double higher)
{
    act([higher](Yard& y, study::Library&, const Watch&) { return y.hoistTo(higher); });
}
void YardDesk::hint()
{
    act([](Yard& y, study::Library& library, const Watch& watch) { return y.hint(library, watch); });
}
void YardDesk::finish(YardFault guess)
{
    act([guess](Yard& y, study::Library& library, const Watch& watch) { return y.finish(library, guess, watch); });
}

QString YardDesk::record(const std::string& level) const { return QSettings().value(recordKey(level)).toString(); }

std::string YardDesk::nextLevel() const
{
    for (const YardLevel& level : yardLevels())
        if (record(level.id).isEmpty())
            return level.id;
    return yardLevels().front().id;
}

/// A level that was passed stays passed; fewer hoists are the better record.
void YardDesk::remember()
{
    const auto now = yard();
    if (!now || !now->verdict() || !now->verdict()->passed)
        return;
    const QString key = recordKey(now->level().id), before = QSettings().value(key).toString();
    const int hoists = now->verdict()->hoists;
    if (before.isEmpty() || QSettings().value(key + QStringLiteral("-hoists")).toInt() > hoists) {
        QSettings().setValue(key, tr("done, %n hoist(s)", nullptr, hoists));
        QSettings().setValue(key + QStringLiteral("-hoists"), hoists);
    }
}

} // namespace vetchling::app

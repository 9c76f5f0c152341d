#include "core/study/map_run.h"

#include "core/work/outcome.h"

#include <algorithm>
#include <atomic>

namespace vetchling::study {
namespace {

constexpr std::size_t coarseStride = 4;
constexpr std::size_t studiesKept = 8; // of one column at a time: its configurations

} // namespace

struct MapRun::Shared {
    std::shared_ptr<em::GroundTableCache> tables;
    std::function<void()> changed;
    Reach reach = Reach::All;
    std::atomic<bool> cancelled{false};
    mutable std::mutex mutex;
    LengthMap map;

    /// False if it was told to stop before it had finished.
    bool compute(std::size_t place, Care care, const Watch& watch)
    {
        const Watch both([&] { return cancelled.load() || watch.stopped(); });
        Library library(tables, studiesKept);
        const double value = map.question.values[place];
        Result<MapColumn> column = work::outcomeOf<MapColumn>(
            [&] { return mapColumn(library, map.question, value, care, both, care == Care::Coarse ? Reach::Near : reach); });
        if (column.stopped()) // for good, or while the person waits
            return cancelled;
        if (!column) {
            MapColumn broken;
            broken.value = value, broken.care = care, broken.fault = column.faults().front().message;
            column = std::move(broken);
        }
        {
            const std::lock_guard lock(mutex);
            if (care == Care::Coarse && map.columns[place].computed())
                return true;
            map.columns[place] = *column;
        }
        if (changed)
            changed();
        return true;
    }
};

MapRun::MapRun(std::shared_ptr<em::GroundTableCache> tables, const Submit& submit, MapQuestion question, std::function<void()> changed,
               Reach reach)
    : m_shared(std::make_shared<Shared>())
{
    m_shared->tables = std::move(tables);
    m_shared->changed = std::move(changed);
    m_shared->reach = reach;
    m_shared->map.question = std::move(question);
    const std::size_t count = m_shared->map.question.values.size();
    for (double value : m_shared->map.question.values) {
        MapColumn column;
        column.value = value;
        m_shared->map.columns.push_back(column);
    }
    const auto compute = [&](std::size_t place, Care care) {
        if (work::Queue::Ticket ticket =
                submit([shared = m_shared, place, care](const Watch& watch) { return shared->compute(place, care, watch); }))
            m_tickets.push_back(std::move(ticket));
    };
    for (std::size_t i = coarseStride / 2; m_shared->changed && i < count; i += coarseStride)
        compute(i, Care::Coarse);
    for (std::size_t offset : {coarseStride / 2, std::size_t(0), std::size_t(1), std::size_t(3)})
        for (std::size_t i = offset; i < count; i += coarseStride)
            compute(i, Care::Usual);
}

MapRun::~MapRun() { cancel(); }

std::shared_ptr<const LengthMap> MapRun::map() const
{
    auto copy = std::make_shared<LengthMap>();
    {
        const std::lock_guard lock(m_shared->mutex);
        *copy = m_shared->map;
    }
    judgeMap(*copy);
    return copy;
}

bool MapRun::finished() const
{
    return std::all_of(m_tickets.begin(), m_tickets.end(), [](const work::Queue::Ticket& t) { return t->finished(); });
}

void MapRun::cancel()
{
    m_shared->cancelled = true;
    for (const work::Queue::Ticket& t : m_tickets)
        t->cancel();
}

void MapRun::wait(work::Queue& queue, const Watch& watch)
{
    queue.wait(m_tickets, watch);
    if (watch.stopped())
        cancel();
}

} // namespace vetchling::study

#pragma once
/// A map of lengths being computed: a coarse picture of the whole first, then every column at the usual care.

#include "core/study/length_map.h"
#include "core/work/queue.h"

#include <functional>
#include <memory>
#include <mutex>

namespace vetchling::study {

class MapRun {
public:
    using Submit = std::function<work::Queue::Ticket(work::Queue::Work)>;
    /// Starts at once. @param tables shared with everybody; the studies of the map are not kept @param submit to a queue, as a batch
    MapRun(std::shared_ptr<em::GroundTableCache> tables, const Submit& submit, MapQuestion question, std::function<void()> changed = {},
           Reach reach = Reach::All);
    ~MapRun(); ///< cancels; what is under way ends by itself
    MapRun(const MapRun&) = delete;
    MapRun& operator=(const MapRun&) = delete;

    /// What is known so far, judged.
    [[nodiscard]] std::shared_ptr<const LengthMap> map() const;
    [[nodiscard]] bool finished() const;
    void cancel();
    /// Waits for the end, or cancels when told to stop.
    void wait(work::Queue& queue, const Watch& watch = {});

private:
    struct Shared; ///< outlives the run while batches are under way
    std::shared_ptr<Shared> m_shared;
    std::vector<work::Queue::Ticket> m_tickets;
};

} // namespace vetchling::study

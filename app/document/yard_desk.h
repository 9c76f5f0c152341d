#pragma once
/// The practice yard at work: a level that was drawn, and what is done in it, worked out in the background.

#include "app/document/errand.h"
#include "core/trim/yard.h"

#include <QObject>

namespace vetchling::app {

class YardDesk : public QObject {
    Q_OBJECT
public:
    explicit YardDesk(SolveService& solver, QObject* parent = nullptr);
    ~YardDesk() override;

    /// Draws a level anew. @param seed nothing: another one each time
    void open(const std::string& level, std::optional<unsigned> seed = std::nullopt);
    /// Null before one is drawn.
    [[nodiscard]] std::shared_ptr<const Yard> yard() const { return m_yard; }
    [[nodiscard]] bool busy() const { return m_busy; }
    /// Why the last thing could not be done; empty if it was.
    [[nodiscard]] const Faults& faults() const { return m_faults; }
    /// "done, 2 hoists", or empty.
    [[nodiscard]] QString record(const std::string& level) const;

    /// The first that was not passed yet, else the first.
    [[nodiscard]] std::string nextLevel() const;

    void measure(std::size_t task);
    void ohmmeter();
    void hand(std::size_t task);
    void load();
    void change(std::size_t task, double amount, bool fold);
    void hoistTo(double higher);
    void hint();
    void finish(YardFault guess);

signals:
    void changed();

private:
    using Act = std::function<Faults(Yard&, study::Library&, const Watch&)>;
    void act(Act act);
    void put(std::function<Result<Yard>(study::Library&, const Watch&)> work);
    void take(const Result<Yard>& outcome);
    void remember();

    SolveService& m_solver;
    std::shared_ptr<const Yard> m_yard;
    Faults m_faults;
    work::Queue::Ticket m_job;
    unsigned long m_round = 0; ///< what was begun before is no longer wanted
    bool m_busy = false;
};

} // namespace vetchling::app

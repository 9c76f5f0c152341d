#pragma once
/// Which antenna for this place: the search for the site and the wish as they are. What was found stays until they change, and is marked
/// old then; it is looked for again on request, or when what may be taken is changed.

#include "app/document/document.h"
#include "app/document/waiting.h"
#include "core/advice/advisor.h"
#include "core/work/queue.h"

#include <QObject>

namespace vetchling::app {

class SolveService;

class AdvisorDesk : public QObject {
    Q_OBJECT
public:
    AdvisorDesk(Document& document, SolveService& solver, const QString& dataFolder, std::vector<LineType> lines,
                QObject* parent = nullptr);
    ~AdvisorDesk() override;

    [[nodiscard]] const advice::AdviceWish& wish() const { return m_wish; }
    [[nodiscard]] const advice::ScoreRules& rules() const { return m_rules; }
    /// Looks anew at once; another search is left.
    void setWish(advice::AdviceWish wish);
    /// Begins, unless it is under way or there.
    void want();
    /// Looks again for the site as it is now.
    void renew();

    /// As far as it is known; null before the first answer.
    [[nodiscard]] advice::AdvicePointer advice() const { return m_advice; }
    /// That it is for; null without one.
    [[nodiscard]] DesignPointer design() const { return m_of; }
    [[nodiscard]] const Faults& faults() const { return m_faults; }
    [[nodiscard]] bool busy() const { return m_job != nullptr; }
    [[nodiscard]] bool givenUp() const { return m_givenUp; }
    [[nodiscard]] double progress() const;
    /// Site, bands or antennas have changed since.
    [[nodiscard]] bool old() const;

    /// Hangs the antennas of an answer, with poles and chains, in one undoable step; false where it is of how things were.
    bool hang(const advice::Answer& answer);

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void changed();

private:
    void begin();
    void leave();
    void forget();
    void take(const Result<advice::AdvicePointer>& answer, bool last);

    Document& m_document;
    SolveService& m_solver;
    advice::ScoreRules m_rules;
    std::vector<LineType> m_lines;
    advice::AdviceWish m_wish;
    std::shared_ptr<advice::Advisor> m_advisor; ///< of the search under way or the last one; it goes on where it was stopped
    DesignPointer m_asked, m_of;
    advice::AdvicePointer m_advice;
    Faults m_faults;
    work::Queue::Ticket m_job;
    unsigned long m_round = 0; ///< answers of an earlier one are dropped
    bool m_givenUp = false;
};

} // namespace vetchling::app

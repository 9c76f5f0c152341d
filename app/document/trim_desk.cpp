#include "app/document/trim_desk.h"

#include "app/document/antenna_models.h"
#include "app/document/document.h"

namespace vetchling::app {

TrimDesk::TrimDesk(Document& document, const AntennaModels& models, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_models(models), m_solver(solver), m_answer(solver,
                                                                                          [this] {
                                                                                              makeCard();
                                                                                              wantEffects();
                                                                                              emit ready();
                                                                                          }),
      m_effects(solver, [this] { emit ready(); }), m_fit(solver, [this] { emit ready(); })
{
    connect(&document, &Document::designReplaced, this, [this] {
        m_answer.forget();
        m_effects.forget();
        m_fit.forget();
        m_asked.reset();
    });
    connect(&solver, &SolveService::detailReady, this, &TrimDesk::want);
    connect(&document, &Document::designChanged, this, &TrimDesk::want);
    connect(&document, &Document::currentChanged, this, &TrimDesk::want);
}

void TrimDesk::makeCard()
{
    m_card.reset();
    const AntennaModel* model = m_models.current();
    if (const auto known = outcome(); known && model && model->built)
        m_card = measureCardOf(*known, *model->built);
}

/// It may be stopped before the goal is met: where the whole band is under the user's limit as it is.
void TrimDesk::lookWhetherEnough()
{
    m_enough.reset();
    const CurvePointer curve = m_solver.curve();
    const auto known = outcome();
    if (!known || !curve || known->next.change == 0.0 || m_document.antenna().trim.measurements.empty())
        return;
    const TrimTask& task = known->tasks[known->next.task];
    const Measurement& last = m_document.antenna().trim.measurements.back();
    if (task.configuration != m_document.configuration() || taskOf(known->tasks, last) != known->next.task)
        return;
    const auto highest = highestAcross(m_document.design(), task.target, *curve, last.dip);
    if (highest && *highest <= m_document.design().operation.swrLimit)
        m_enough = highest;
}

void TrimDesk::judge()
{
    m_sense.clear();
    lookWhetherEnough();
    const CurvePointer curve = m_solver.curve();
    if (!m_document.hasAntenna() || !curve)
        return;
    const auto& log = m_document.antenna().trim.measurements;
    if (log.empty())
        return;
    if (!log.back().sweep.empty())
        m_sense = senseOf(sweepOf(log.back()), [&](double f) { return curve->swrAt(f); });
    if (log.size() > 1)
        for (const SenseRow& row : senseBetween(log[log.size() - 2], log.back()))
            m_sense.push_back(row);
    if (!log.back().sweep.empty() && log.back().coax > 0.0 && log.back().impedance.empty())
        m_sense.push_back({SenseSign::SwrOnly, log.back().coax,
                           coreText("core", "Taken through coax without R and X: only the SWR is used, less the cable's loss.")});
}

void TrimDesk::want()
{
    judge();
    if (!m_document.hasAntenna() || m_document.dragging())
        return;
    const TrimQuestion asked = trimQuestionOf(m_document.design(), m_document.antenna());
    if (m_asked == asked)
        return;
    if (!m_asked || m_asked->antenna.id != asked.antenna.id)
        m_answer.forget();
    m_asked = asked;
    m_answer.ask(
        [asked, &library = m_solver.library()](const Watch& watch, const auto& publish) { publish(trimNext(library, asked, watch)); });
}

void TrimDesk::wantEffects()
{
    const auto known = outcome();
    m_effects.forget();
    if (!known || m_answer.busy() || known->next.change == 0.0)
        return;
    m_effects.ask([design = m_document.snapshot(), id = m_document.current(), known, &library = m_solver.library()](const Watch& watch,
                                                                                                                    const auto& publish) {
        if (const Antenna* antenna = findAntenna(*design, id))
            publish(stepEffects(library, *design, *antenna, *known, watch));
    });
}

std::vector<Text> TrimDesk::effects() const
{
    const auto known = m_effects.answer();
    return known && outcome() ? effectWords(*known) : std::vector<Text>();
}

void TrimDesk::fit()
{
    if (!m_document.hasAntenna())
        return;
    m_fit.forget();
    m_fittedLog = m_document.antenna().trim;
    m_fittedAntenna = m_document.current();
    m_fit.ask(
        [design = m_document.snapshot(), id = m_fittedAntenna, &library = m_solver.library()](const Watch& watch, const auto& publish) {
            if (const Antenna* antenna = findAntenna(*design, id))
                publish(fitSite(library, *design, *antenna, watch));
        });
    emit ready();
}

std::shared_ptr<const SiteFit> TrimDesk::fitted() const
{
    const bool same = m_document.hasAntenna() && m_document.current() == m_fittedAntenna && m_document.antenna().trim == m_fittedLog;
    return same ? m_fit.answer() : nullptr;
}

std::shared_ptr<const TrimOutcome> TrimDesk::outcome() const
{
    return m_document.hasAntenna() && m_asked && m_asked->antenna.id == m_document.current() ? m_answer.answer() : nullptr;
}

const TrimNext* TrimDesk::next() const
{
    const auto known = outcome();
    return known ? &known->next : nullptr; // the desk holds the answer until a newer one comes
}

const TrimTask* TrimDesk::task() const
{
    const auto known = outcome();
    return known && known->next.task < known->tasks.size() ? &known->tasks[known->next.task] : nullptr;
}

const TrimTask* TrimDesk::shownTask() const
{
    const auto known = outcome();
    if (!known)
        return nullptr;
    for (const TrimTask& t : known->tasks)
        if (t.configuration == m_document.configuration())
            return &t;
    return task();
}

} // namespace vetchling::app

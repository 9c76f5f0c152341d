#include "app/document/trim_desk.h"

#include "app/document/antenna_models.h"
#include "app/document/document.h"

namespace vetchling::app {

TrimDesk::TrimDesk(Document& document, const AntennaModels& models, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_models(models), m_solver(solver),
      m_answer(
          document, solver,
          [&library = solver.library()](const TrimQuestion& asked, const Watch& watch, const auto&) {
              return trimNext(library, asked, watch);
          },
          [this] {
              look();
              makeCard();
              wantEffects();
              emit ready();
          }),
      m_effects(
          document, solver,
          [&library = solver.library()](const EffectsQuestion& asked, const Watch& watch, const auto&) {
              return stepEffects(library, *asked.design, *findAntenna(*asked.design, asked.antenna), *asked.outcome, watch);
          },
          [this] { emit ready(); }),
      m_fit(
          document, solver,
          [&library = solver.library()](const FitQuestion& asked, const Watch& watch, const auto&) {
              return fitSite(library, *asked.design, *findAntenna(*asked.design, asked.antenna), watch);
          },
          [this] { emit ready(); })
{
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

void TrimDesk::look()
{
    m_fresh = m_document.hasAntenna() && m_answer.standing(trimQuestionOf(m_document.design(), m_document.antenna())) == Standing::Whole;
}

void TrimDesk::want()
{
    const bool wasFresh = m_fresh;
    judge();
    m_fresh = false;
    if (m_document.hasAntenna()) {
        TrimQuestion asked = trimQuestionOf(m_document.design(), m_document.antenna());
        m_fresh = m_answer.standing(asked) == Standing::Whole;
        m_answer.want(std::move(asked));
    }
    if (m_fresh != wasFresh)
        emit ready();
}

void TrimDesk::wantEffects()
{
    const auto known = outcome();
    m_effects.forget();
    if (known && !m_answer.busy() && known->next.change != 0.0)
        m_effects.want({m_document.snapshot(), m_document.current(), known});
}

std::vector<Text> TrimDesk::effects() const
{
    const auto known = m_effects.answer();
    return known && next() ? effectWords(*known) : std::vector<Text>();
}

TrimDesk::FitQuestion TrimDesk::fitQuestion() const { return {m_document.snapshot(), m_document.current(), m_document.antenna().trim}; }

void TrimDesk::fit()
{
    if (!m_document.hasAntenna())
        return;
    m_fit.forget();
    m_fit.want(fitQuestion());
    emit ready();
}

std::shared_ptr<const SiteFit> TrimDesk::fitted() const
{
    return m_document.hasAntenna() && m_fit.answers(fitQuestion()) ? m_fit.answer() : nullptr;
}

const TrimNext* TrimDesk::next() const
{
    const auto known = outcome();
    return known && m_fresh ? &known->next : nullptr; // the desk holds the answer until a newer one comes
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

std::optional<Result<ReadDip>> TrimDesk::workOut(const std::string& readings) const
{
    const CurvePointer curve = m_solver.curve();
    if (!curve)
        return std::nullopt;
    return dipOfReadings(
        readings, m_document.design().operation.reference, [&](double f) { return curve->atLine(f); }, curve->fundamental);
}

void TrimDesk::takeSweep(const MeasuredSweep& sweep, bool whole, double coax, const LineType* type, Measurement& measurement)
{
    takeSweepThrough(sweep, whole, coax, type, measurement);
}

std::vector<NamedWaiting> TrimDesk::waitings()
{
    return {{tr("Next step"), m_answer.waiting()}, {tr("Other bands"), m_effects.waiting()}, {tr("Fit of the site"), m_fit.waiting()}};
}

} // namespace vetchling::app

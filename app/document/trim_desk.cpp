#include "app/document/trim_desk.h"

#include "app/document/antenna_models.h"
#include "app/document/document.h"

#include <algorithm>

namespace vetchling::app {

TrimDesk::TrimDesk(Document& document, const AntennaModels& models, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_models(models), m_solver(solver),
      m_answer(
          document, solver,
          [&library = solver.library()](const TrimQuestion& asked, const Watch& watch, const auto&) {
              return trimNext(library, asked, watch);
          },
          [this] {
              m_outcome = m_answer.answer(); // which piece is on show goes by it
              look();
              takeOutcome();
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
    connect(&document, &Document::designReplaced, this, &TrimDesk::want);
    connect(&document, &Document::configurationChanged, this, &TrimDesk::want);
}

std::size_t TrimDesk::placeOnShow() const
{
    std::vector<std::size_t> own;
    for (std::size_t i = 0; i < m_tasks.size(); ++i)
        if (m_tasks[i].configurationName.empty() || m_tasks[i].configuration == m_document.configuration())
            own.push_back(i);
    if (own.empty())
        return m_tasks.size();
    const auto chosen = m_chosen.find(m_document.current());
    for (std::size_t i : own)
        if (chosen != m_chosen.end() && m_tasks[i].lever.parameter == chosen->second)
            return i;
    const auto known = outcome();
    const bool first = known && known->tasks.size() == m_tasks.size() && std::find(own.begin(), own.end(), known->working) != own.end();
    return first ? known->working : own.front();
}

bool TrimDesk::ofShown() const { return m_document.hasAntenna() && m_of == m_document.current(); }

const std::vector<TrimTask>& TrimDesk::tasks() const
{
    static const std::vector<TrimTask> none;
    return ofShown() ? m_tasks : none;
}

void TrimDesk::turn()
{
    m_of = m_document.current();
    m_tasks.clear();
    m_entries.clear();
    m_hung.reset();
    m_place = 0;
    if (!m_document.hasAntenna())
        return;
    const Antenna& antenna = m_document.antenna();
    m_tasks = trimTasks(antenna);
    m_place = placeOnShow();
    m_entries = entriesOf(antenna, m_place);
    m_hung = withLogBegun(antenna);
}

TrimQuestion TrimDesk::questionNow() const
{
    TrimQuestion asked = trimQuestionOf(m_document.design(), m_hung ? *m_hung : m_document.antenna()); // begun once
    const bool several = m_tasks.size() > 1, chosen = m_chosen.count(m_document.current()) > 0;
    if (task() && several && (chosen || !task()->configurationName.empty()))
        asked.task = m_place;
    return asked;
}

void TrimDesk::choose(std::size_t place)
{
    if (place >= m_tasks.size())
        return;
    m_chosen[m_document.current()] = m_tasks[place].lever.parameter;
    if (!m_tasks[place].configurationName.empty())
        m_document.setConfiguration(m_tasks[place].configuration);
    want();
    emit ready();
}

const Measurement* TrimDesk::last() const
{
    if (m_entries.empty() || !ofShown())
        return nullptr;
    const auto& log = m_document.antenna().trim.measurements;
    return m_entries.back() < log.size() ? &log[m_entries.back()] : nullptr;
}

void TrimDesk::setTarget(double hertz)
{
    m_document.editAntenna(tr("change the goal"), {}, [&](Antenna& a) { vetchling::setTarget(a, m_place, hertz); });
}

void TrimDesk::setAsCut(double longer)
{
    m_document.editAntenna(tr("say how it was cut"), {}, [&](Antenna& a) { vetchling::setAsCut(a, m_place, longer); });
}

void TrimDesk::makeCard()
{
    m_card.reset();
    const AntennaModel* model = m_models.current();
    if (const auto known = outcome(); known && model && model->built)
        m_card = measureCardOf(*known, *model->built), m_cardOf = known->next.task;
}

/// It may be stopped before the goal is met: where the whole band is under the user's limit as it is.
void TrimDesk::lookWhetherEnough()
{
    m_enough.reset();
    const CurvePointer curve = m_solver.curve();
    const auto known = outcome();
    if (!known || !curve || known->next.change == 0.0 || known->next.task != m_place || !last())
        return;
    const auto highest = highestAcross(m_document.design(), task()->target, *curve, last()->dip);
    if (highest && *highest <= m_document.design().operation.swrLimit)
        m_enough = highest;
}

void TrimDesk::takeOutcome()
{
    m_outcome = m_answer.answer();
    if (m_outcome && m_outcome->next.behind && last() && last()->id == m_believed) {
        TrimOutcome believed = *m_outcome;
        believed.next = TrimNext(*m_outcome->next.behind);
        believed.states[believed.next.task] = believed.next.step;
        m_outcome = std::make_shared<const TrimOutcome>(std::move(believed));
    }
    makeCard();
    wantEffects();
    lookWhetherEnough();
}

void TrimDesk::believe()
{
    if (!doubted() || !last())
        return;
    m_believed = last()->id;
    takeOutcome();
    emit ready();
}

const std::vector<SenseRow>& TrimDesk::sense() const
{
    static const std::vector<SenseRow> none;
    return next() ? next()->sense : none;
}

void TrimDesk::look()
{
    turn();
    m_fresh = m_document.hasAntenna() && m_answer.standing(questionNow()) == Standing::Whole;
}

void TrimDesk::want()
{
    const bool wasFresh = m_fresh;
    const std::size_t was = m_place;
    if (m_document.dragging()) { // told when it is let go
        m_fresh = false;
        if (wasFresh)
            emit ready();
        return;
    }
    turn();
    lookWhetherEnough();
    m_fresh = false;
    if (m_document.hasAntenna()) {
        TrimQuestion asked = questionNow();
        m_fresh = m_answer.standing(asked) == Standing::Whole;
        m_answer.want(std::move(asked));
    }
    if (m_fresh != wasFresh || m_place != was)
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
    return known && m_fresh && known->next.task == m_place ? &known->next : nullptr; // the desk holds the answer until a newer one comes
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

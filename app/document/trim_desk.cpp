#include "app/document/trim_desk.h"

#include "app/document/antenna_models.h"
#include "app/document/document.h"

namespace vetchling::app {

TrimDesk::TrimDesk(Document& document, const AntennaModels& models, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_models(models), m_solver(solver), m_answer(solver, [this] {
          makeCard();
          emit ready();
      })
{
    connect(&document, &Document::designReplaced, this, [this] {
        m_answer.forget();
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
        m_card = study::measureCardOf(*known, *model->built);
}

void TrimDesk::judge()
{
    m_sense.clear();
    const CurvePointer curve = m_solver.curve();
    if (!m_document.hasAntenna() || !curve)
        return;
    const auto& log = m_document.antenna().trim.measurements;
    if (!log.empty() && !log.back().sweep.empty())
        m_sense = senseOf(sweepOf(log.back()), [&](double f) { return curve->swrAt(f); });
}

void TrimDesk::want()
{
    judge();
    if (!m_document.hasAntenna() || m_document.dragging())
        return;
    const study::TrimQuestion asked = study::trimQuestionOf(m_document.design(), m_document.antenna());
    if (m_asked == asked)
        return;
    if (!m_asked || m_asked->antenna.id != asked.antenna.id)
        m_answer.forget();
    m_asked = asked;
    m_answer.ask([asked, &library = m_solver.library()](const Watch& watch, const auto& publish) {
        publish(study::trimNext(library, asked, watch));
    });
}

std::shared_ptr<const study::TrimOutcome> TrimDesk::outcome() const
{
    return m_document.hasAntenna() && m_asked && m_asked->antenna.id == m_document.current() ? m_answer.answer() : nullptr;
}

const study::TrimNext* TrimDesk::next() const
{
    const auto known = outcome();
    return known ? &known->next : nullptr; // the desk holds the answer until a newer one comes
}

const study::TrimTask* TrimDesk::task() const
{
    const auto known = outcome();
    return known && known->next.task < known->tasks.size() ? &known->tasks[known->next.task] : nullptr;
}

const study::TrimTask* TrimDesk::shownTask() const
{
    const auto known = outcome();
    if (!known)
        return nullptr;
    for (const study::TrimTask& t : known->tasks)
        if (t.configuration == m_document.configuration())
            return &t;
    return task();
}

} // namespace vetchling::app

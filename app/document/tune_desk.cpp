#include "app/document/tune_desk.h"

namespace vetchling::app {

TuneDesk::TuneDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document),
      m_answer(
          document, solver,
          [&library = solver.library()](const TuneQuestion& asked, const Watch& watch, const auto&) {
              return tuneJointly(asked.shape, asked.ground, asked.levers, asked.aim, library.tables(), {}, watch);
          },
          [this] { take(); })
{
}

void TuneDesk::start(const std::vector<JointLever>& levers, const JointAim& aim)
{
    if (!m_document.hasAntenna())
        return;
    m_answer.forget();
    m_answer.want({m_document.antenna().shape, groundUnder(m_document.design(), m_document.antenna()), levers, aim});
}

void TuneDesk::leave()
{
    m_answer.forget();
    emit ready();
}

void TuneDesk::take()
{
    const auto outcome = m_answer.answer();
    const auto asked = m_answer.answered();
    m_overtaken =
        outcome && (asked->shape != m_document.antenna().shape || asked->ground != groundUnder(m_document.design(), m_document.antenna()));
    if (outcome && !m_overtaken) {
        shapes::Parameters values;
        for (std::size_t i = 0; i < asked->levers.size(); ++i)
            values[asked->levers[i].parameter] = outcome->values[i];
        m_document.setParameters(tr("tune several"), values,
                                 asked->aim.at.size() > 1 ? std::optional(Compromise::From::Joint) : std::nullopt);
    }
    emit ready();
}

std::vector<NamedWaiting> TuneDesk::waitings() { return {{tr("Tuning"), m_answer.waiting()}}; }

} // namespace vetchling::app

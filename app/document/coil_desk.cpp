#include "app/document/coil_desk.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {

CoilDesk::CoilDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document),
      m_answer(
          document, solver,
          [&library = solver.library()](const study::CoilQuestion& asked, const Watch& watch, const auto&) {
              return study::coilAnswer(library, asked, watch);
          },
          [this] { emit ready(); })
{
}

std::vector<std::string> CoilDesk::coils() const
{
    return m_document.hasAntenna() ? study::coilsOf(m_document.antenna().shape) : std::vector<std::string>();
}

std::string CoilDesk::shown() const
{
    const auto all = coils();
    return std::find(all.begin(), all.end(), m_shown) != all.end() ? m_shown : all.empty() ? std::string() : all.front();
}

void CoilDesk::show(const std::string& key)
{
    m_shown = key;
    want();
    emit ready();
}

study::CoilQuestion CoilDesk::question() const
{
    study::CoilQuestion asked = study::coilQuestionOf(m_document.design(), m_document.antenna(), shown(), m_document.configuration());
    asked.turnsAtHand = m_turns;
    return asked;
}

void CoilDesk::want()
{
    if (!shown().empty())
        m_answer.want(question());
}

Standing CoilDesk::standing() const { return shown().empty() ? Standing::None : m_answer.standing(question()); }

std::shared_ptr<const study::CoilAnswer> CoilDesk::answer() const { return shown().empty() ? nullptr : m_answer.answer(); }

void CoilDesk::setTurnsAtHand(double turns)
{
    m_turns = turns;
    want();
}

void CoilDesk::setWinding(const Winding& winding, const QString& mergeKey)
{
    if (m_document.hasAntenna())
        m_document.editAntenna(tr("change the winding"), mergeKey, [&](Antenna& a) { a.winding = winding; });
}

void CoilDesk::takeWinding()
{
    const auto known = answer();
    if (!known || !known->wound.good() || !(known->assumedQ > 0.0))
        return;
    shapes::Parameters values{{"coil_q", std::round(known->wound.figures.q)}};
    if (known->hasSize) {
        const CoilSize size = known->sizeWound();
        values["coil_length_m"] = size.length;
        if (!size.inPoint()) {
            values["coil_diameter_m"] = size.diameter;
            values["coil_wire_m"] = size.wireDiameter;
        }
    }
    m_document.setParameters(tr("take the winding"), values);
}

void CoilDesk::takePoint() { m_document.setParameter("coil_length_m", 0.0, {}); }

bool CoilDesk::differs() const
{
    const auto known = answer();
    if (!known || !known->wound.good() || !(known->assumedQ > 0.0))
        return false;
    const CoilSize size = known->sizeWound();
    constexpr double worthAChange = 1e-4; // m
    return std::abs(known->assumedQ - known->wound.figures.q) > 1.0 || std::abs(size.length - known->size.length) > worthAChange ||
           std::abs(size.diameter - known->size.diameter) > worthAChange ||
           std::abs(size.wireDiameter - known->size.wireDiameter) > worthAChange;
}

std::vector<NamedWaiting> CoilDesk::waitings() { return {{tr("Coil"), m_answer.waiting()}}; }

} // namespace vetchling::app

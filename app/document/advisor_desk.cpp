#include "app/document/advisor_desk.h"

#include "app/document/errand.h"
#include "core/files/advice_file.h"

#include <algorithm>

namespace vetchling::app {
namespace {

/// What an answer depends on: names, notes, logs and chains of what hangs are no matter.
bool sameQuestion(const Design& a, const Design& b)
{
    const auto sameAntenna = [](const Antenna& x, const Antenna& y) { return x.id == y.id && x.shape == y.shape && x.soil == y.soil; };
    return a.site == b.site && a.operation == b.operation &&
           std::equal(a.antennas.begin(), a.antennas.end(), b.antennas.begin(), b.antennas.end(), sameAntenna);
}

} // namespace

AdvisorDesk::AdvisorDesk(Document& document, SolveService& solver, const QString& dataFolder, std::vector<LineType> lines, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver), m_lines(std::move(lines))
{
    if (auto rules = files::readScoreRules((dataFolder + QStringLiteral("/advice.json")).toStdString()))
        m_rules = *rules; // else as they are usual
    connect(&document, &Document::designReplaced, this, &AdvisorDesk::forget);
    connect(&document, &Document::designChanged, this, &AdvisorDesk::changed);
}

AdvisorDesk::~AdvisorDesk() { leave(); }

void AdvisorDesk::setWish(advice::AdviceWish wish)
{
    if (wish == m_wish)
        return;
    m_wish = std::move(wish);
    renew();
}

void AdvisorDesk::want()
{
    if (!busy() && !m_givenUp && !m_advice && m_faults.empty())
        renew();
}

void AdvisorDesk::renew()
{
    leave();
    m_asked = m_document.snapshot();
    advice::AdviceWish wish = m_wish; // what is gone meanwhile cannot be meant
    std::erase_if(wish.supports, [&](const Id& id) { return !findSupport(*m_asked, id); });
    std::erase_if(wish.kept, [&](const Id& id) { return !findAntenna(*m_asked, id); });
    m_advisor = std::make_shared<advice::Advisor>(m_solver.library().sharedTables(), *m_asked, std::move(wish), m_rules, m_lines);
    begin();
}

void AdvisorDesk::begin()
{
    m_faults.clear();
    m_givenUp = false;
    m_job =
        send<advice::AdvicePointer>(m_solver, this,
                                    {[advisor = m_advisor](const Watch& watch, const auto& soFar) { return advisor->run(watch, soFar); },
                                     [this, round = m_round](const Result<advice::AdvicePointer>& answer, bool last) {
                                         if (round == m_round)
                                             take(answer, last);
                                     }});
    emit changed();
}

void AdvisorDesk::leave()
{
    if (m_job)
        m_job->cancel();
    m_job.reset();
    ++m_round;
    m_givenUp = false;
}

void AdvisorDesk::forget()
{
    leave();
    m_wish = {};
    m_advice.reset();
    m_of.reset();
    m_faults.clear();
    m_advisor.reset();
}

void AdvisorDesk::take(const Result<advice::AdvicePointer>& answer, bool last)
{
    if (last)
        m_job.reset();
    if (answer) {
        m_advice = *answer;
        m_of = m_asked;
    } else {
        m_faults = answer.faults();
        m_advice.reset();
        m_of.reset();
    }
    emit changed();
}

double AdvisorDesk::progress() const { return m_job ? m_job->progress() : 0.0; }

bool AdvisorDesk::old() const
{
    const DesignPointer& of = m_of ? m_of : m_asked;
    return of && of != m_document.snapshot() && !sameQuestion(*of, m_document.design());
}

bool AdvisorDesk::hang(const advice::Answer& answer)
{
    if (old() || !m_of || answer.antennas.empty())
        return false;
    std::vector<Id> ids;
    m_document.edit(answer.antennas.size() == 1 ? tr("hang an antenna") : tr("hang %n antennas", nullptr, int(answer.antennas.size())), {},
                    [&](Design& design) { ids = hangUp(design, answer); });
    if (!ids.empty())
        m_document.setCurrent(ids.front());
    return true;
}

std::vector<NamedWaiting> AdvisorDesk::waitings()
{
    return {{tr("Which antenna"),
             {[this] { return busy(); }, [this] { return m_givenUp; }, [this] { return progress(); },
              [this] {
                  leave();
                  m_givenUp = true;
                  emit changed();
              },
              [this] { begin(); }, [this] { return busy() && m_of && m_of != m_asked; }}}};
}

} // namespace vetchling::app

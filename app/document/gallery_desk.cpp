#include "app/document/gallery_desk.h"

#include "app/document/aside.h"
#include "app/document/document.h"
#include "app/document/errand.h"
#include "app/document/shed_desk.h"

#include <algorithm>

namespace vetchling::app {

GalleryDesk::GalleryDesk(Document& document, SolveService& solver, const ShedDesk& shed, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver), m_shed(shed)
{
}

bool GalleryDesk::isFromShed(const Entry& entry) const
{
    const shapes::BuiltAntenna* built = entry.built();
    if (!built || m_shed.shed().items.empty())
        return false;
    auto needs = needsOf(entry.antenna(), *built, m_document.design().site);
    std::erase_if(needs, [](const Need& n) { return n.kind == StockKind::Coax; });
    return inventoryOf(needs, m_shed.shed()).complete();
}

void GalleryDesk::open(double frequency)
{
    close();
    m_frequency = frequency;
    const Ground ground = m_document.design().site.soil.ground();
    const unsigned long round = m_round;
    std::vector<Entry> placed = aside([design = m_document.snapshot(), ties = m_ties, frequency, ground] {
        std::vector<Entry> all;
        for (advice::Proposal& p : advice::proposals(*design, frequency, ties)) {
            Entry entry{std::move(p), nullptr, {}, false, {}};
            if (Result<shapes::BuiltAntenna> built = shapes::buildOver(entry.proposal.antenna.shape, ground))
                entry.placed = std::make_shared<const shapes::BuiltAntenna>(std::move(built).value());
            entry.fault = entry.proposal.fault(); // what may not be there is tuned when it is asked for
            all.push_back(std::move(entry));
        }
        return all;
    });
    if (round != m_round)
        return; // closed or opened anew meanwhile
    m_entries = std::move(placed);
    for (Entry& entry : m_entries)
        entry.fromShed = isFromShed(entry);
    emit opened();
    startUnanswered();
}

void GalleryDesk::startUnanswered()
{
    m_givenUp = false;
    for (const Entry& entry : m_entries)
        if (entry.placed && !entry.done())
            start(entry.proposal);
}

Waiting GalleryDesk::waiting()
{
    return {[this] { return !m_givenUp && unanswered() > 0; }, [this] { return m_givenUp; },
            [this] { return m_entries.empty() ? 0.0 : 1.0 - double(unanswered()) / double(m_entries.size()); },
            [this] {
                cancelAll();
                ++m_round;
                m_givenUp = true;
                emit opened();
            },
            [this] {
                startUnanswered();
                emit opened();
            }};
}

void GalleryDesk::cancelAll()
{
    for (const auto& [id, job] : m_jobs)
        job->cancel();
    m_jobs.clear();
}

void GalleryDesk::hurry(const std::string& id)
{
    for (const auto& [other, job] : m_jobs)
        if (other != id)
            job->cancel();
    std::erase_if(m_jobs, [&](const auto& job) { return job.first != id; });
    if (const Entry* entry = find(id); entry && entry->placed && !entry->answer && !m_jobs.contains(id))
        start(entry->proposal);
}

void GalleryDesk::close()
{
    cancelAll();
    m_entries.clear();
    m_givenUp = false;
    ++m_round;
}

void GalleryDesk::start(const advice::Proposal& proposal)
{
    const auto job = send<advice::Proposed>(
        m_solver, this,
        {[proposal, ties = m_ties, design = m_document.snapshot(), &library = m_solver.library()](const Watch& watch, const auto&) {
             return advice::propose(library, *design, proposal, watch, ties);
         },
         [this, round = m_round, id = proposal.id](const Result<advice::Proposed>& answer, bool) { take(round, id, answer); }});
    if (job)
        m_jobs[proposal.id] = job;
}

void GalleryDesk::take(unsigned long round, const std::string& id, const Result<advice::Proposed>& answer)
{
    const auto entry = std::find_if(m_entries.begin(), m_entries.end(), [&](const Entry& e) { return e.proposal.id == id; });
    if (round != m_round || entry == m_entries.end())
        return;
    if (answer)
        entry->answer = *answer;
    else
        entry->fault = answer.faults().front().message;
    entry->fromShed = isFromShed(*entry);
    emit answered(id);
}

const GalleryDesk::Entry* GalleryDesk::find(const std::string& id) const
{
    const auto found = std::find_if(m_entries.begin(), m_entries.end(), [&](const Entry& e) { return e.proposal.id == id; });
    return found == m_entries.end() ? nullptr : &*found;
}

int GalleryDesk::unanswered() const
{
    return int(std::count_if(m_entries.begin(), m_entries.end(), [](const Entry& e) { return !e.done(); }));
}

std::vector<NamedWaiting> GalleryDesk::waitings() { return {{tr("Gallery"), waiting()}}; }

} // namespace vetchling::app

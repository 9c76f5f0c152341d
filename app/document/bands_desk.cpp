#include "app/document/bands_desk.h"

#include "app/document/document.h"

#include <QPointer>

namespace vetchling::app {
namespace {

/// What operating and settings depend on: not which configuration is looked at, nor a state before.
study::Question withoutView(study::Question question)
{
    question.subject.configuration = 0;
    question.before.reset();
    return question;
}

/// What is set or solved at the antenna is judged there.
study::Question atTheAntenna(study::Question question)
{
    question = withoutView(std::move(question));
    question.towardsRadio.clear();
    return question;
}

} // namespace

BandsDesk::BandsDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver), m_operating(solver, [this] { emit operatingReady(); }),
      m_settings(solver, [this] { emit settingsReady(); }), m_compensation(solver, [this] { emit compensationReady(); })
{
    connect(&document, &Document::currentChanged, this, &BandsDesk::leave);
}

BandsDesk::~BandsDesk() { cancelMap(); }

/// Another antenna is on show.
void BandsDesk::leave()
{
    if (m_document.current() != m_operatingOf)
        m_operating.forget();
    if (m_document.current() != m_settingsOf)
        m_settings.forget();
    m_operatingOf.clear();
    m_settingsOf.clear();
    m_compensation.forget();
    cancelMap();
    m_map.reset();
    m_mapBefore.reset();
    m_mapAsked.reset();
}

bool BandsDesk::operatingIsFresh() const
{
    return m_document.hasAntenna() && m_operating.answer() && m_operatingOf == m_document.current() &&
           m_operatingAsked == withoutView(m_solver.question()) && m_operating.answer()->curves.front()->question == m_operatingAsked;
}

void BandsDesk::wantOperating()
{
    if (!m_document.hasAntenna() || m_document.dragging())
        return;
    const study::Question question = withoutView(m_solver.question());
    const study::Aim aim = study::aimOf(m_document.design().operation);
    if (m_operatingOf == m_document.current() && question == m_operatingAsked && aim == m_aimAsked)
        return;
    m_operatingOf = m_document.current();
    m_operatingAsked = question;
    m_aimAsked = aim;
    m_operating.ask([question, aim, references = m_references, &library = m_solver.library()](const Watch& watch, const auto& publish) {
        Result<study::Operating> match = study::operatingOf(library, question, watch);
        publish(match);
        if (!match || watch.stopped())
            return;
        study::Operating whole = *match;
        if (Faults faults = study::addUses(library, *references, whole, aim, watch); faults.empty())
            publish(whole);
        else
            publish(faults);
    });
}

void BandsDesk::wantSettings()
{
    if (!m_document.hasAntenna() || m_document.dragging())
        return;
    const study::Question question = atTheAntenna(m_solver.question());
    if (m_settingsOf == m_document.current() && question == m_settingsAsked)
        return;
    m_settingsOf = m_document.current();
    m_settingsAsked = question;
    m_settings.ask([question, &library = m_solver.library()](const Watch& watch, const auto& publish) {
        publish(study::settingsOf(library, question, watch));
    });
}

void BandsDesk::wantCompensation()
{
    if (!m_document.hasAntenna())
        return;
    m_compensation.ask([question = atTheAntenna(m_solver.question()), &library = m_solver.library()](
                           const Watch& watch, const auto& publish) { publish(study::compensate(library, question, watch)); });
}

void BandsDesk::wantLowerBand(const Id& band)
{
    if (!m_document.hasAntenna())
        return;
    m_compensation.ask([question = atTheAntenna(m_solver.question()), band, &library = m_solver.library()](
                           const Watch& watch, const auto& publish) { publish(study::addLowerBand(library, question, band, watch)); });
}

void BandsDesk::wantMap(const std::string& vary, double from, double to, const std::optional<shapes::AntennaShape>& tried)
{
    if (!m_document.hasAntenna())
        return;
    Antenna antenna = m_document.antenna();
    if (tried)
        antenna.shape = *tried;
    if (!tried)
        m_mapBefore.reset();
    else if (!m_mapBefore && m_map && m_map->progress() >= 1.0)
        m_mapBefore = m_map;
    const Result<study::MapQuestion> question = study::mapQuestionOf(m_document.design(), antenna, vary, from, to);
    if (!question) {
        cancelMap();
        m_map.reset();
        m_mapAsked.reset();
        m_mapFaults = question.faults();
        return;
    }
    m_mapFaults.clear();
    if (m_mapAsked == *question && m_map)
        return;
    cancelMap();
    m_mapAsked = *question;
    m_mapPosted = std::make_shared<std::atomic<bool>>(false);
    const auto changed = [guard = QPointer<BandsDesk>(this), posted = m_mapPosted] {
        if (!posted->exchange(true)) // one call carries all columns that came since
            QMetaObject::invokeMethod(
                qApp,
                [guard, posted] {
                    posted->store(false);
                    if (guard && guard->m_mapPosted == posted)
                        guard->takeMap();
                },
                Qt::QueuedConnection);
    };
    m_run = std::make_unique<study::MapRun>(
        m_solver.library().sharedTables(), [this](study::Queue::Work work) { return m_solver.inBackground(std::move(work)); }, *question,
        changed, study::Reach::Near);
    m_map = m_run->map();
}

void BandsDesk::takeMap()
{
    if (!m_run)
        return;
    m_map = m_run->map();
    emit mapChanged();
}

void BandsDesk::cancelMap()
{
    if (m_run)
        m_run->cancel();
    m_run.reset();
    m_mapPosted.reset();
}

} // namespace vetchling::app

#include "app/document/solve_service.h"

#include "app/document/document.h"
#include "app/document/errand.h"
#include "core/files/terrain_store.h"

#include <algorithm>
#include <utility>

namespace vetchling::app {
namespace {

constexpr int progressMilliseconds = 100, lookMilliseconds = 3, ageMilliseconds = 300;

} // namespace

SolveService::SolveService(Document& document, const QString& tableFolder, QObject* parent)
    : QObject(parent), m_document(document), m_library(std::make_shared<study::Library>()), m_queue(std::make_unique<work::Queue>())
{
    if (!tableFolder.isEmpty()) {
        m_store = std::make_shared<files::TableStore>(tableFolder.toStdString());
        m_library->tables().setSource([store = m_store](em::GroundTable& table) { store->restore(table); });
        em::TerrainHeights::keepWith(std::make_shared<files::TerrainStore>(tableFolder.toStdString()));
    }
    m_pause.setSingleShot(true);
    m_progress.setInterval(progressMilliseconds);
    connect(&m_progress, &QTimer::timeout, this, &SolveService::stateChanged);
    m_age.setSingleShot(true);
    m_age.setInterval(ageMilliseconds);
    connect(&m_age, &QTimer::timeout, this, [this] {
        m_old = true;
        emit figuresAged();
    });
    connect(this, &SolveService::stateChanged, this, &SolveService::lookAtAge);
    connect(&m_pause, &QTimer::timeout, this, &SolveService::goOn);
    connect(&m_document, &Document::designReplaced, this, &SolveService::unpin); // its antennas and bands are others
    connect(&m_document, &Document::designChanged, this, &SolveService::restart);
    connect(&m_document, &Document::bandSelected, this, &SolveService::restart);
    connect(&m_document, &Document::configurationChanged, this, &SolveService::restart);
    connect(&m_document, &Document::currentChanged, this, [this] {
        forget();
        restart();
    });
}

SolveService::~SolveService() { stop(); }

void SolveService::stop()
{
    m_pause.stop();
    m_progress.stop();
    giveUpAhead();
    m_job.reset();
    m_queue.reset();
}

void SolveService::forget()
{
    m_curve.reset();
    m_detail.reset();
    m_detailOf.reset();
    m_faults.clear();
}

double SolveService::progress() const { return m_job ? m_progressFrom + m_progressSpan * m_job->progress() : 0.0; }

study::Question SolveService::question() const
{
    study::Question question =
        study::questionOf(m_document.design(), m_document.antenna(), m_document.selectedBand(), m_document.configuration());
    if (m_plane == Plane::Radio) {
        const std::vector<ChainPart>& parts = chainParts(m_document.antenna());
        question.towardsRadio.assign(parts.begin() + long(feedpointParts(parts)), parts.end());
    }
    return question;
}

namespace {

/// As the window's own document will choose.
std::optional<study::Question> firstQuestion(const Result<Design>& design)
{
    if (!design || design->antennas.empty())
        return std::nullopt;
    Document opened;
    opened.setDesign(*design, {});
    if (!opened.hasAntenna())
        return std::nullopt;
    return study::questionOf(opened.design(), opened.antenna(), opened.selectedBand(), opened.configuration());
}

} // namespace

void SolveService::beginWith(std::shared_future<std::shared_ptr<const Result<Design>>> reading)
{
    giveUpAhead();
    if (!m_queue)
        return;
    auto given = std::make_shared<std::atomic<bool>>(false);
    auto known = std::make_shared<std::promise<std::optional<study::Question>>>();
    auto compute = [reading = std::move(reading), known, given, library = m_library]() -> Result<CurvePointer> {
        const std::optional<study::Question> question = firstQuestion(*reading.get());
        known->set_value(question);
        if (!question)
            return stoppedFault();
        return study::curveOf(*library, *question, Watch([given] { return given->load(); }), study::Reach::Near);
    };
    std::shared_future<std::optional<study::Question>> question = known->get_future().share();
    m_ahead = Ahead{std::move(question), given, std::async(std::launch::async, std::move(compute)).share()};
}

bool SolveService::isAhead() const
{
    return m_ahead && (m_ahead->question.wait_for(std::chrono::seconds(0)) != std::future_status::ready || m_ahead->question.get());
}

void SolveService::giveUpAhead()
{
    if (m_ahead)
        *m_ahead->given = true;
    m_ahead.reset();
}

void SolveService::lookAtAge()
{
    const bool behind = m_detail && !(m_detailOf == m_curve && m_document.hasAntenna() && m_curve->question == question());
    if (behind && !m_old && !m_age.isActive())
        m_age.start();
    if (behind)
        return;
    m_age.stop();
    if (std::exchange(m_old, false))
        emit figuresAged();
}

void SolveService::setPlane(Plane plane)
{
    if (plane == m_plane)
        return;
    m_plane = plane;
    emit planeChanged();
    restart();
}

void SolveService::restart()
{
    m_pause.stop();
    if (m_job)
        m_job->cancel();
    m_job.reset();
    if (!m_document.hasAntenna()) {
        forget();
        m_busy = false;
        m_progress.stop();
    } else {
        const bool same = m_curve && m_curve->question == question();
        m_busy = !(same && m_curve->complete && m_detailOf == m_curve); // a note, a name or the wanted angle needs nothing new
        if (!m_busy)
            m_progress.stop();
        else if (same)
            goOn();
        else
            startCurve(m_document.dragging() ? study::Care::Coarse : study::Care::Usual);
    }
    emit stateChanged();
}

/// The work runs on the queue's thread and hands its step over to this one; a step that comes too late is dropped.
void SolveService::start(Work work, double progressFrom, double progressSpan)
{
    if (!m_queue)
        return;
    m_progressFrom = progressFrom;
    m_progressSpan = progressSpan;
    m_progress.start();
    const auto deliver = [this, number = ++m_number](Step step) {
        QMetaObject::invokeMethod(
            this,
            [this, number, step = std::move(step)] {
                if (m_job && number == m_number && !m_job->cancelled())
                    finished(step);
            },
            Qt::QueuedConnection);
    };
    m_job = m_queue->interactive([work = std::move(work), probe = m_probe, deliver](const Watch& watch) {
        Result<Step> outcome = work::outcomeOf<Step>([&] {
            if (probe)
                probe();
            return work(watch);
        });
        if (!watch.stopped())
            deliver(outcome ? std::move(outcome).value() : Step{nullptr, nullptr, outcome.faults()});
        return true;
    });
}

/// A coarse curve was for the moving mouse; when that rests, it is computed with the usual care before anything is said of it.
void SolveService::goOn()
{
    if (m_curve && m_curve->care == study::Care::Coarse)
        startCurve(study::Care::Usual);
    else
        startDetail();
}

void SolveService::startCurve(study::Care care)
{
    m_pause.setInterval(m_curve ? m_restFor : 0); // a change of an answer may be followed by more at once
    if (m_ahead && care == study::Care::Usual && m_ahead->question.get() == question()) {
        start(
            [ahead = *m_ahead](const Watch& watch) {
                while (ahead.curve.wait_for(std::chrono::milliseconds(lookMilliseconds)) != std::future_status::ready)
                    if (watch.stopped())
                        *ahead.given = true;
                const Result<CurvePointer> curve = ahead.curve.get();
                return curve ? Step{*curve, nullptr, {}} : Step{nullptr, nullptr, curve.faults()};
            },
            0.0, 0.6);
        m_ahead.reset();
        return;
    }
    giveUpAhead();
    start(
        [question = question(), library = m_library, care](const Watch& watch) {
            const Result<CurvePointer> curve = study::curveOf(*library, question, watch, study::Reach::Near, care);
            return curve ? Step{*curve, nullptr, {}} : Step{nullptr, nullptr, curve.faults()};
        },
        0.0, 0.6);
}

void SolveService::startDetail()
{
    if (!m_curve)
        return;
    start(
        [curve = m_curve, library = m_library](const Watch& watch) {
            const Result<DetailPointer> detail = study::detailOf(*library, *curve, watch);
            return detail ? Step{curve, *detail, {}} : Step{curve, nullptr, detail.faults()};
        },
        m_curve->complete && !m_detail ? 0.6 : 0.0, m_curve->complete ? 0.4 : 0.3);
}

void SolveService::startFar()
{
    start(
        [question = m_curve->question, library = m_library](const Watch& watch) {
            const Result<CurvePointer> curve = study::curveOf(*library, question, watch, study::Reach::All);
            return curve ? Step{*curve, nullptr, {}} : Step{nullptr, nullptr, curve.faults()};
        },
        0.3, 0.7);
}

/// First the near bands' curve, then what is said of them, then the far bands' curve and what is said of those.
void SolveService::finished(const Step& step)
{
    m_faults = step.faults;
    if (!m_faults.empty()) {
        m_busy = false;
    } else if (step.detail) {
        m_detail = step.detail;
        m_detailOf = m_curve;
        m_busy = !m_curve->complete;
        emit detailReady();
        if (m_busy && m_queue)
            startFar();
    } else {
        m_curve = step.curve;
        emit curveReady();
        m_pause.start();
    }
    if (!m_busy) {
        m_progress.stop();
        keepTables();
    }
    emit stateChanged();
}

/// In the background, when everything is answered.
void SolveService::keepTables()
{
    if (m_store && m_queue)
        m_keeping = m_queue->batch([store = m_store, library = m_library](const Watch& watch) {
            store->save(library->tables(), watch);
            return !watch.stopped();
        });
}

work::Queue::Ticket SolveService::inBackground(work::Queue::Work work)
{
    if (!m_queue)
        return nullptr;
    std::erase_if(m_background, [](const work::Queue::Ticket& t) { return t->finished() || t->cancelled(); });
    m_background.push_back(m_queue->batch(std::move(work)));
    return m_background.back();
}

bool SolveService::busyInBackground() const
{
    return std::any_of(m_background.begin(), m_background.end(),
                       [](const work::Queue::Ticket& t) { return !t->finished() && !t->cancelled(); });
}

void SolveService::sweep(double from, double to, std::function<void(const Result<study::Swept>&)> done)
{
    if (!m_queue || !m_document.hasAntenna())
        return;
    m_sweeping = send<study::Swept>(*this, this,
                                    {[question = question(), library = m_library, from, to](const Watch& watch, const auto&) {
                                         return study::sweepOf(*library, question, from, to, watch);
                                     },
                                     [done = std::move(done)](const Result<study::Swept>& swept, bool) { done(swept); }});
}

void SolveService::pin()
{
    if (!m_curve || !m_document.hasAntenna())
        return;
    m_pinnedCurve = m_curve;
    m_pinnedDetail = m_detail;
    m_pinnedName = m_document.shownName();
    m_pinnedAntenna = std::make_shared<const Antenna>(m_document.antenna());
    emit pinChanged();
}

void SolveService::unpin()
{
    if (!m_pinnedCurve)
        return;
    m_pinnedCurve.reset();
    m_pinnedDetail.reset();
    m_pinnedAntenna.reset();
    emit pinChanged();
}

} // namespace vetchling::app

#include "app/document/solve_service.h"

#include "app/document/document.h"

#include <QtConcurrent>

namespace vetchling::app {
namespace {

constexpr int pauseMilliseconds = 120;

} // namespace

SolveService::SolveService(Document& document, QObject* parent)
    : QObject(parent), m_document(document), m_tables(std::make_shared<em::GroundTableCache>())
{
    m_pool.setMaxThreadCount(1); // one solve at a time; it uses all cores itself
    m_pause.setSingleShot(true);
    connect(&m_pause, &QTimer::timeout, this, &SolveService::startDetail);
    connect(&m_watcher, &QFutureWatcher<Step>::finished, this, &SolveService::finished);
    connect(&m_watcher, &QFutureWatcher<Step>::progressValueChanged, this, [this](int value) {
        m_progress = value / 100.0;
        emit stateChanged();
    });
    connect(&m_document, &Document::designChanged, this, &SolveService::restart);
    connect(&m_document, &Document::bandSelected, this, &SolveService::restart);
    connect(&m_document, &Document::currentChanged, this, [this] {
        m_curve.reset();
        m_detail.reset();
        restart();
    });
}

SolveService::~SolveService() { stop(); }

void SolveService::stop()
{
    m_pause.stop();
    m_watcher.disconnect(this);
    m_watcher.cancel();
    m_watcher.waitForFinished();
}

SolveRequest SolveService::request() const { return {m_document.snapshot(), std::size_t(m_document.current()), m_document.selectedBand()}; }

/// The present curve if the change leaves wires and bands alone: a note or a selected band needs no new sweep.
CurvePointer SolveService::stillValid() const
{
    const Operation& operation = m_document.design().operation;
    const bool same = m_curve && m_curve->shape == m_document.antenna().shape && m_curve->wanted == operation.bands &&
                      m_curve->limit == operation.swrLimit && m_curve->built.model.ground == m_document.design().site.soil.ground();
    return same ? m_curve : nullptr;
}

void SolveService::restart()
{
    m_pause.stop();
    m_watcher.cancel();
    m_progress = 0.0;
    if (!m_document.hasAntenna()) {
        m_curve.reset();
        m_detail.reset();
        m_busy = false;
    } else {
        m_busy = true;
        if (stillValid())
            startDetail();
        else
            startCurve();
    }
    emit stateChanged();
}

void SolveService::start(Work work, double progressFrom, double progressSpan)
{
    m_watcher.setFuture(QtConcurrent::run(&m_pool, [work = std::move(work), progressFrom, progressSpan](QPromise<Step>& job) {
        job.setProgressRange(0, 100);
        Watch watch;
        watch.stop = [&job] { return job.isCanceled(); };
        watch.progress = [&job, progressFrom, progressSpan](double done) {
            job.setProgressValue(int(100.0 * (progressFrom + progressSpan * done)));
        };
        if (!job.isCanceled())
            job.addResult(work(watch));
    }));
}

void SolveService::startCurve()
{
    m_pause.setInterval(m_curve ? pauseMilliseconds : 0); // a change of an answer may be followed by more at once
    start(
        [request = request(), tables = m_tables](const Watch& watch) {
            const Result<CurvePointer> curve = computeCurve(request, *tables, watch);
            return curve ? Step{*curve, nullptr, {}} : Step{nullptr, nullptr, curve.faults()};
        },
        0.0, 0.6);
}

void SolveService::startDetail()
{
    const CurvePointer curve = m_curve;
    if (!curve)
        return;
    start(
        [request = request(), curve, tables = m_tables](const Watch& watch) {
            const Result<DetailPointer> detail = computeDetail(request, *curve, *tables, watch);
            return detail ? Step{curve, *detail, {}} : Step{curve, nullptr, detail.faults()};
        },
        0.6, 0.4);
}

void SolveService::finished()
{
    if (m_watcher.isCanceled() || m_watcher.future().resultCount() == 0)
        return;
    const Step step = m_watcher.result();
    m_faults = step.faults;
    if (!m_faults.empty()) {
        m_busy = false;
    } else if (step.detail) {
        m_detail = step.detail;
        m_busy = false;
        emit detailReady();
    } else {
        m_curve = step.curve;
        emit curveReady();
        m_pause.start();
    }
    emit stateChanged();
}

void SolveService::pin()
{
    if (!m_curve || !m_document.hasAntenna())
        return;
    m_pinnedCurve = m_curve;
    m_pinnedDetail = m_detail;
    m_pinnedName = QString::fromStdString(m_document.antenna().name);
    emit pinChanged();
}

void SolveService::unpin()
{
    m_pinnedCurve.reset();
    m_pinnedDetail.reset();
    emit pinChanged();
}

} // namespace vetchling::app

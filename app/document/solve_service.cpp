#include "app/document/solve_service.h"

#include "app/document/document.h"

#include <QtConcurrent>

namespace vetchling::app {

SolveService::SolveService(Document& document, QObject* parent)
    : QObject(parent), m_document(document), m_tables(std::make_shared<em::GroundTableCache>())
{
    m_pool.setMaxThreadCount(1); // one solve at a time; it uses all cores itself
    connect(&m_watcher, &QFutureWatcher<Step>::resultReadyAt, this, &SolveService::take);
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
    m_watcher.disconnect(this);
    m_watcher.cancel();
    m_watcher.waitForFinished();
}

void SolveService::restart()
{
    m_watcher.cancel();
    if (!m_document.hasAntenna()) {
        m_curve.reset();
        m_detail.reset();
        m_busy = false;
        emit stateChanged();
        return;
    }
    const SolveRequest request{m_document.snapshot(), std::size_t(m_document.current()), m_document.selectedBand()};
    // A change that leaves the wires and bands alone (a note, a selected band) needs no new sweep.
    const Antenna& antenna = request.design->antennas[request.antenna];
    const Operation& operation = request.design->operation;
    const CurvePointer known = m_curve && m_curve->shape == antenna.shape && m_curve->wanted == operation.bands && m_curve->limit == operation.swrLimit &&
                                       m_curve->built.model.ground == request.design->site.soil.ground()
                                   ? m_curve
                                   : nullptr;
    m_busy = true;
    m_progress = 0.0;
    const auto tables = m_tables;
    m_watcher.setFuture(QtConcurrent::run(&m_pool, [request, known, tables](QPromise<Step>& job) {
        job.setProgressRange(0, 100);
        Watch watch;
        watch.stop = [&job] { return job.isCanceled(); };
        watch.progress = [&job](double done) { job.setProgressValue(int(60.0 * done)); };
        CurvePointer curve = known;
        if (!curve) {
            const Result<CurvePointer> computed = computeCurve(request, *tables, watch);
            if (!computed) {
                job.addResult(Step{nullptr, nullptr, computed.faults()});
                return;
            }
            curve = *computed;
        }
        job.addResult(Step{curve, nullptr, {}});
        watch.progress = [&job](double done) { job.setProgressValue(60 + int(40.0 * done)); };
        const Result<DetailPointer> detail = computeDetail(request, *curve, *tables, watch);
        job.addResult(detail ? Step{curve, *detail, {}} : Step{curve, nullptr, detail.faults()});
    }));
    emit stateChanged();
}

void SolveService::take(int index)
{
    if (m_watcher.isCanceled())
        return;
    const Step step = m_watcher.resultAt(index);
    m_faults = step.faults;
    if (!m_faults.empty()) {
        emit stateChanged();
        return;
    }
    if (step.detail) {
        m_detail = step.detail;
        emit detailReady();
    } else if (step.curve != m_curve) {
        m_curve = step.curve;
        emit curveReady();
    }
}

void SolveService::finished()
{
    if (m_watcher.isCanceled())
        return;
    m_busy = false;
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

#pragma once
/// Solves the shown antenna in the background: the newest request wins, the one before is told to stop.

#include "app/document/results.h"

#include <QFutureWatcher>
#include <QObject>
#include <QThreadPool>
#include <QTimer>

#include <functional>

namespace vetchling::app {

class Document;

class SolveService : public QObject {
    Q_OBJECT
public:
    explicit SolveService(Document& document, QObject* parent = nullptr);
    ~SolveService() override;

    /// The last finished results of the current antenna; null before the first. Old ones stay while new ones are on their way.
    [[nodiscard]] CurvePointer curve() const { return m_curve; }
    [[nodiscard]] DetailPointer detail() const { return m_detail; }
    [[nodiscard]] bool busy() const { return m_busy; }
    [[nodiscard]] double progress() const { return m_progress; }
    /// Why the design cannot be solved; empty if it can.
    [[nodiscard]] const Faults& faults() const { return m_faults; }

    /// A pinned design keeps the results it had; null when nothing is pinned.
    [[nodiscard]] CurvePointer pinnedCurve() const { return m_pinnedCurve; }
    [[nodiscard]] DetailPointer pinnedDetail() const { return m_pinnedDetail; }
    [[nodiscard]] QString pinnedName() const { return m_pinnedName; }
    void pin();
    void unpin();
    [[nodiscard]] bool pinned() const { return m_pinnedCurve != nullptr; }

    /// Cancels and waits; for closing and tests.
    void stop();

public slots:
    void restart();

signals:
    void curveReady();
    void detailReady();
    void stateChanged(); ///< busy, progress or faults
    void pinChanged();

private:
    struct Step {
        CurvePointer curve;
        DetailPointer detail;
        Faults faults;
    };
    using Work = std::function<Step(const Watch&)>;
    void start(Work work, double progressFrom, double progressSpan);
    void startCurve();
    void startDetail();
    void finished();
    [[nodiscard]] SolveRequest request() const;
    [[nodiscard]] CurvePointer stillValid() const;

    Document& m_document;
    std::shared_ptr<em::GroundTableCache> m_tables;
    QThreadPool m_pool;
    QFutureWatcher<Step> m_watcher;
    QTimer m_pause; ///< before the detail, so that a drag gets one curve after the other
    CurvePointer m_curve, m_pinnedCurve;
    DetailPointer m_detail, m_pinnedDetail;
    QString m_pinnedName;
    Faults m_faults;
    bool m_busy = false;
    double m_progress = 0.0;
};

} // namespace vetchling::app

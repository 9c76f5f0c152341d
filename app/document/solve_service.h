#pragma once
/// Solves the shown antenna in the background: the newest request wins, the one before is told to stop.

#include "core/files/table_store.h"
#include "core/study/answers.h"
#include "core/work/queue.h"

#include <QObject>
#include <QString>
#include <QTimer>

#include <atomic>
#include <functional>
#include <future>
#include <optional>

namespace vetchling::app {

class Document;

using study::CurvePointer;
using study::DetailPointer;

class SolveService : public QObject {
    Q_OBJECT
public:
    /// @param tableFolder where the soil's tables are kept between runs; empty: nowhere
    explicit SolveService(Document& document, const QString& tableFolder = {}, QObject* parent = nullptr);
    ~SolveService() override;

    /// The last finished results of the current antenna; null before the first. Old ones stay while new ones are on their way.
    [[nodiscard]] CurvePointer curve() const { return m_curve; }
    [[nodiscard]] DetailPointer detail() const { return m_detail; }
    [[nodiscard]] bool busy() const { return m_busy; }
    /// Everything is answered, and the soil's tables are kept.
    [[nodiscard]] bool atRest() const { return !m_busy && (!m_keeping || m_keeping->finished()); }
    [[nodiscard]] double progress() const;
    /// What `detail` tells is of an earlier question and has been for a moment: while the new answer is on its way, and where there is
    /// none.
    [[nodiscard]] bool figuresAreOld() const { return m_old; }
    /// Why the design cannot be solved; empty if it can.
    [[nodiscard]] const Faults& faults() const { return m_faults; }

    /// A pinned antenna keeps the results it had, whatever becomes of it; null when nothing is pinned.
    [[nodiscard]] CurvePointer pinnedCurve() const { return m_pinnedCurve; }
    [[nodiscard]] DetailPointer pinnedDetail() const { return m_pinnedDetail; }
    [[nodiscard]] QString pinnedName() const { return m_pinnedName; }
    /// As it was when it was pinned; null when nothing is.
    [[nodiscard]] std::shared_ptr<const Antenna> pinnedAntenna() const { return m_pinnedAntenna; }
    void pin();
    void unpin();
    [[nodiscard]] bool pinned() const { return m_pinnedCurve != nullptr; }

    /// Where the SWR is told: at the feedpoint, where the line begins, or at the radio, behind the chain in use.
    enum class Plane { Feedpoint, Radio };
    [[nodiscard]] Plane plane() const { return m_plane; }
    void setPlane(Plane plane);

    /// What is asked of the antenna on show.
    [[nodiscard]] study::Question question() const;

    /// Sweeps the present antenna over a range in the background, and hands the result over on this thread.
    void sweep(double from, double to, std::function<void(const Result<study::Swept>&)> done);

    /// Work that nobody waits for, on the queue that also serves this antenna; null when closing.
    work::Queue::Ticket inBackground(work::Queue::Work work);
    /// Some of that is still going on.
    [[nodiscard]] bool busyInBackground() const;

    /// Begins with what a design will be asked as soon as it is opened: while a window is built a core has nothing to do.
    /// @param reading what cannot be read or built is left to who opens it
    void beginWith(std::shared_future<std::shared_ptr<const Result<Design>>> reading);
    /// What was begun with and is not asked for yet.
    [[nodiscard]] bool isAhead() const;

    /// How long nothing may change before fields, losses and lengths are computed, ms.
    void setRest(int milliseconds) { m_restFor = milliseconds; }

    /// Cancels and waits; for closing and tests.
    void stop();

    [[nodiscard]] study::Library& library() { return *m_library; }
    /// Runs before each work on its thread, for tests: what it throws is what a fault of the program would.
    void setProbe(std::function<void()> probe) { m_probe = std::move(probe); }
    [[nodiscard]] const std::function<void()>& probe() const { return m_probe; }

public slots:
    void restart();

signals:
    void curveReady();
    void detailReady();
    void stateChanged(); ///< busy, progress or faults
    void pinChanged();
    void planeChanged();
    void figuresAged(); ///< or are new again

private:
    struct Step {
        CurvePointer curve;
        DetailPointer detail;
        Faults faults;
    };
    using Work = std::function<Step(const Watch&)>;
    /// A curve that is computed before anybody asked for it.
    struct Ahead {
        std::shared_future<std::optional<study::Question>> question; ///< known when the file is read; nothing where there is none
        std::shared_ptr<std::atomic<bool>> given;                    ///< up
        std::shared_future<Result<CurvePointer>> curve;
    };
    void giveUpAhead();
    void start(Work work, double progressFrom, double progressSpan);
    void startCurve(study::Care care);
    void goOn(); ///< after a curve, when nothing changes any more
    void startDetail();
    void startFar(); ///< bands that nobody waits for
    void finished(const Step& step);
    void forget();
    void keepTables();
    void lookAtAge();

    Document& m_document;
    std::shared_ptr<study::Library> m_library;
    std::shared_ptr<files::TableStore> m_store; ///< null: nothing is kept
    std::unique_ptr<work::Queue> m_queue;
    work::Queue::Ticket m_job, m_keeping, m_sweeping;
    std::vector<work::Queue::Ticket> m_background; ///< what others asked for, as far as it goes on
    unsigned long m_number = 0;                    ///< of the job
    double m_progressFrom = 0.0, m_progressSpan = 1.0;
    QTimer m_pause;    ///< before the detail, so that a drag gets one curve after the other
    QTimer m_progress; ///< looks how far the work is
    QTimer m_age;      ///< answers that come at once do not flicker
    bool m_old = false;
    CurvePointer m_curve, m_pinnedCurve;
    CurvePointer m_detailOf; ///< the curve that the detail is of
    DetailPointer m_detail, m_pinnedDetail;
    QString m_pinnedName;
    std::shared_ptr<const Antenna> m_pinnedAntenna;
    Faults m_faults;
    std::optional<Ahead> m_ahead;
    bool m_busy = false;
    int m_restFor = 120;
    Plane m_plane = Plane::Feedpoint;
    std::function<void()> m_probe;
};

} // namespace vetchling::app

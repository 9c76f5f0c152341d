#include "app/document/choices_desk.h"

#include "app/document/document.h"
#include "app/document/solve_service.h"

#include <QApplication>
#include <QPointer>

namespace vetchling::app {
namespace {

template <class T> Result<ChoicesDesk::Curve> widened(Result<T> curve)
{
    if (!curve)
        return curve.faults();
    return ChoicesDesk::Curve(std::move(curve).value());
}

} // namespace

ChoicesDesk::ChoicesDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver)
{
}

ChoicesDesk::~ChoicesDesk()
{
    if (m_job)
        m_job->cancel();
}

void ChoicesDesk::want(Kind kind, std::size_t pair)
{
    if (!m_document.hasAntenna())
        return;
    const study::Subject subject = m_solver.question().subject;
    if (m_kind == kind && m_pair == pair && m_asked == subject)
        return;
    if (m_kind != kind || m_pair != pair || m_asked.shape.family != subject.shape.family)
        m_curve.reset();
    m_kind = kind;
    m_pair = pair;
    m_asked = subject;
    if (m_job)
        m_job->cancel();
    m_busy = true;
    m_faults.clear();
    const double frequency = shapes::frequencyOf(subject.shape, subject.configuration);
    m_job = m_solver.inBackground([guard = QPointer<ChoicesDesk>(this), round = ++m_round, kind, pair, subject, frequency,
                                   &library = m_solver.library()](const Watch& watch) {
        study::TradeOptions options;
        options.pair = pair;
        const Answer answer = kind == Kind::Trade ? widened(study::tradeCurve(library, subject, frequency, options, watch))
                                                  : widened(study::radialCurve(library, subject, frequency, 0.0, watch));
        if (watch.stopped())
            return false;
        QMetaObject::invokeMethod(
            qApp,
            [guard, round, answer] {
                if (guard)
                    guard->take(round, answer);
            },
            Qt::QueuedConnection);
        return true;
    });
}

void ChoicesDesk::take(unsigned long round, const Answer& answer)
{
    if (round != m_round)
        return;
    m_busy = false;
    if (answer)
        m_curve = std::make_shared<const Curve>(*answer);
    else
        m_faults = answer.faults();
    emit ready();
}

} // namespace vetchling::app

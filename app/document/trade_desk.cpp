#include "app/document/trade_desk.h"

#include "app/document/document.h"
#include "app/document/solve_service.h"

#include <QApplication>
#include <QPointer>

namespace vetchling::app {

TradeDesk::TradeDesk(Document& document, SolveService& solver, QObject* parent) : QObject(parent), m_document(document), m_solver(solver) {}

TradeDesk::~TradeDesk()
{
    if (m_job)
        m_job->cancel();
}

void TradeDesk::want()
{
    if (!m_document.hasAntenna() || !m_document.family().trade())
        return;
    const study::Subject subject = m_solver.question().subject;
    if (m_asked == subject)
        return;
    if (m_asked && m_asked->shape.family != subject.shape.family)
        m_curve.reset();
    m_asked = subject;
    if (m_job)
        m_job->cancel();
    m_busy = true;
    m_faults.clear();
    const double frequency = shapes::frequencyOf(subject.shape, subject.configuration);
    m_job = m_solver.inBackground([guard = QPointer<TradeDesk>(this), round = ++m_round, subject, frequency,
                                   &library = m_solver.library()](const Watch& watch) {
        const auto curve = study::tradeCurve(library, subject, frequency, {}, watch);
        if (watch.stopped())
            return false;
        QMetaObject::invokeMethod(
            qApp, [guard, round, curve] { if (guard) guard->take(round, curve); }, Qt::QueuedConnection);
        return true;
    });
}

void TradeDesk::take(unsigned long round, const Result<study::TradeCurve>& curve)
{
    if (round != m_round)
        return;
    m_busy = false;
    if (curve)
        m_curve = std::make_shared<const study::TradeCurve>(*curve);
    else
        m_faults = curve.faults();
    emit ready();
}

} // namespace vetchling::app

#pragma once
/// The trade curve of the antenna on show, computed in the background while somebody looks at it.

#include "core/study/queue.h"
#include "core/study/trade.h"

#include <QObject>

#include <memory>
#include <optional>

namespace vetchling::app {

class Document;
class SolveService;

class TradeDesk : public QObject {
    Q_OBJECT
public:
    TradeDesk(Document& document, SolveService& solver, QObject* parent = nullptr);
    ~TradeDesk() override;

    /// Asks for the curve of the antenna as it is; nothing happens where that is known or under way.
    void want();
    /// Of the antenna as it was when last asked; the old one stays until the new one is there. Null before the first.
    [[nodiscard]] std::shared_ptr<const study::TradeCurve> curve() const { return m_curve; }
    [[nodiscard]] const Faults& faults() const { return m_faults; }
    [[nodiscard]] bool busy() const { return m_busy; }

signals:
    void ready();

private:
    void take(unsigned long round, const Result<study::TradeCurve>& curve);

    Document& m_document;
    SolveService& m_solver;
    std::optional<study::Subject> m_asked;
    std::shared_ptr<const study::TradeCurve> m_curve;
    Faults m_faults;
    study::Queue::Ticket m_job;
    unsigned long m_round = 0;
    bool m_busy = false;
};

} // namespace vetchling::app

#pragma once
/// Choices of the antenna on show that are computed in the background while somebody looks at them.

#include "core/study/queue.h"
#include "core/study/radials.h"
#include "core/study/trade.h"

#include <QObject>

#include <memory>
#include <optional>
#include <variant>

namespace vetchling::app {

class Document;
class SolveService;

class ChoicesDesk : public QObject {
    Q_OBJECT
public:
    enum class Kind { Trade, Radials };
    using Curve = std::variant<study::TradeCurve, study::RadialCurve>;

    ChoicesDesk(Document& document, SolveService& solver, QObject* parent = nullptr);
    ~ChoicesDesk() override;

    /// Asks for the choices of the antenna as it is; nothing happens where they are known or under way.
    /// @param pair of the family's trades
    void want(Kind kind, std::size_t pair = 0);
    /// What was asked for last; an old answer stays until the new one is there. Null before the first.
    [[nodiscard]] std::shared_ptr<const Curve> curve() const { return m_curve; }
    [[nodiscard]] const Faults& faults() const { return m_faults; }
    [[nodiscard]] bool busy() const { return m_busy; }

signals:
    void ready();

private:
    using Answer = Result<Curve>;
    void take(unsigned long round, const Answer& answer);

    Document& m_document;
    SolveService& m_solver;
    std::optional<Kind> m_kind;
    std::size_t m_pair = 0;
    study::Subject m_asked;
    std::shared_ptr<const Curve> m_curve;
    Faults m_faults;
    study::Queue::Ticket m_job;
    unsigned long m_round = 0;
    bool m_busy = false;
};

} // namespace vetchling::app

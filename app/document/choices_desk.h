#pragma once
/// Choices of the antenna on show that are computed in the background while somebody looks at them.

#include "app/document/asked.h"
#include "core/study/radials.h"
#include "core/study/trade.h"

#include <QObject>

#include <memory>
#include <optional>
#include <variant>

namespace vetchling::app {

class ChoicesDesk : public QObject {
    Q_OBJECT
public:
    enum class Kind { Trade, Radials };
    using Curve = std::variant<study::TradeCurve, study::RadialCurve>;

    ChoicesDesk(Document& document, SolveService& solver, QObject* parent = nullptr);

    /// Asks for the choices of the antenna as it is; nothing happens where they are known or under way.
    /// @param pair of the family's trades
    void want(Kind kind, std::size_t pair = 0);
    /// What was asked for last; an old answer stays until the new one is there. Null before the first.
    [[nodiscard]] std::shared_ptr<const Curve> curve() const { return m_curve.answer(); }
    [[nodiscard]] const Faults& faults() const { return m_curve.faults(); }
    [[nodiscard]] bool busy() const { return m_curve.busy(); }

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void ready();

private:
    struct ChoiceQuestion {
        Kind kind = Kind::Trade;
        std::size_t pair = 0;
        study::Subject subject;
        friend bool operator==(const ChoiceQuestion&, const ChoiceQuestion&) = default;
    };
    Document& m_document;
    SolveService& m_solver;
    Asked<ChoiceQuestion, Curve> m_curve;
};

} // namespace vetchling::app
